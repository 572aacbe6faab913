//! The light of a scene at any instant: on the lit side, on the shadow side and behind.

use jiff::Timestamp;
use jiff::tz::TimeZone;

use super::{BackgroundKind, Role, Scene, Surroundings, Weather};
use super::{Daylight, GeographicPoint, Skyline, Sun, daylight};
use crate::exposure::{Ev, IncidentReceptor};
use crate::scale::interpolated;
use crate::time::{WrongTime, minutes_between, zone};

/// How far each cheek is turned from where the face looks; the brighter one is the lit side. Common practice, no source.
const CHEEK_DEG: f64 = 45.0;
/// The reflectance of usual ground, of snow, of dry sand, of water and of a dark street. From memory.
const GROUND: f64 = 0.2;
const SNOW: f64 = 0.8;
const SAND: f64 = 0.4;
const WATER: f64 = 0.08;
const DARK_GROUND: f64 = 0.1;
/// The part of the sky left under trees, under an awning, in a narrow street. Common practice, no source.
const SKY_UNDER_TREES: f64 = 0.25;
const SKY_UNDER_AWNING: f64 = 0.35;
const SKY_IN_STREET: f64 = 0.3;
/// A frame with this much of it sunlit behind a shaded subject is still treated as in shade: common practice, no source
/// ("15 to 20 %").
pub const SUNLIT_STILL_SHADE: std::ops::RangeInclusive<f64> = 15.0..=20.0;
/// Under a sun straight from behind, half of what one sees of a background of upright things is ground, tops and edges that
/// it lights. Common practice, no source.
const BACKLIT: f64 = 0.5;
/// How far the shadow side and what lies behind are under a lamp's light, where nothing was read. Common practice.
const UNDER_LAMPS: f64 = 1.0;

/// A scene that was found good, ready to give its light at any instant.
#[derive(Clone, Debug)]
pub struct SceneLight {
    /// Where.
    pub spot: GeographicPoint,
    /// The zone its clocks keep.
    pub zone: TimeZone,
    /// The hour of the scene.
    pub at: Timestamp,
    pub(super) facing_deg: f64,
    skyline: Skyline,
    sky_on_level: f64,
    /// The part of the sky seen by what faces as the subject does, and by a cheek turned left and right of that.
    sky_ahead: f64,
    sky_left: f64,
    sky_right: f64,
    cloud: Cloud,
    pub(super) surroundings: Surroundings,
    pub(super) background: super::Background,
}

#[derive(Clone, Debug)]
enum Cloud {
    Steady(f64),
    Hours(Vec<(Timestamp, f64)>),
}

/// The light of a scene at an instant.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct LightNow {
    /// Where the sun stands.
    pub sun: Sun,
    /// Whether it is over the skyline.
    pub sun_shows: bool,
    /// Eighths of cloud.
    pub cloud_eighths: f64,
    /// On the side the ambient lights more.
    pub lit: Ev,
    /// On the side it lights less.
    pub shadow: Ev,
    /// Of what lies behind.
    pub background: Ev,
}

/// What sun and sky give by themselves, each with what the ground sends on of it.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) struct SunAndSky {
    pub sun_lux: f64,
    pub sky_lux: f64,
}

impl SunAndSky {
    fn lux(self) -> f64 {
        self.sun_lux + self.sky_lux
    }
}

/// What sun and sky give each part of the picture.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) struct Falls {
    pub lit: SunAndSky,
    pub shadow: SunAndSky,
    pub background: SunAndSky,
}

/// What sun and sky give at the subject, before anything is held up there.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct AtSubject {
    /// The sun, on whatever is turned to it, in lux.
    pub direct_lux: f64,
    /// The sky, on the level ground, in lux.
    pub sky_lux: f64,
    /// The reflectance of the ground, 0 to 1.
    pub ground: f64,
}

impl LightNow {
    /// The exposure value of a role's region.
    pub fn of(&self, role: Role) -> Ev {
        match role {
            Role::LitSide | Role::Part => self.lit,
            Role::ShadowSide => self.shadow,
            Role::Background => self.background,
        }
    }
}

impl SceneLight {
    /// A checked scene's light.
    ///
    /// # Errors
    /// An hour that is none, in a zone that is known or not. Numbers are taken as they are.
    pub fn new(scene: &Scene) -> Result<Self, WrongTime> {
        let zone = zone(&scene.site.time_zone)?;
        let at = scene.at.instant(&zone)?;
        let skyline = Skyline::new(&scene.horizon);
        let cloud = match &scene.weather {
            Weather::Steady(steady) => Cloud::Steady(steady.cloud_eighths),
            Weather::Forecast(forecast) => {
                let hour = |hour: &super::CloudHour| Some((hour.utc.parse().ok()?, hour.cloud_eighths));
                Cloud::Hours(forecast.hours.iter().filter_map(hour).collect())
            }
        };
        Ok(Self {
            spot: GeographicPoint {
                latitude_deg: scene.site.latitude_deg,
                longitude_deg: scene.site.longitude_deg,
                elevation_m: scene.site.elevation_m,
            },
            zone,
            at,
            facing_deg: scene.facing_deg,
            sky_on_level: skyline.sky_on_level(),
            sky_ahead: skyline.sky_on_face(scene.facing_deg),
            sky_left: skyline.sky_on_face(scene.facing_deg - CHEEK_DEG),
            sky_right: skyline.sky_on_face(scene.facing_deg + CHEEK_DEG),
            skyline,
            cloud,
            surroundings: scene.surroundings,
            background: scene.background,
        })
    }

    /// Eighths of cloud at an instant: even between a forecast's hours, and as its ends before and after them.
    pub fn cloud_eighths(&self, at: Timestamp) -> f64 {
        match &self.cloud {
            Cloud::Steady(eighths) => *eighths,
            Cloud::Hours(hours) => {
                let after = hours.partition_point(|(hour, _)| *hour <= at);
                let around = &hours[after.saturating_sub(1)..hours.len().min(after + 1)];
                let since = |(hour, eighths): &(Timestamp, f64)| (minutes_between(at, *hour), *eighths);
                interpolated(around.iter().map(since), 0.0).unwrap_or(0.0)
            }
        }
    }

    /// Whether there is daylight in this scene at all.
    pub fn is_daylight(&self) -> bool {
        !matches!(self.surroundings, Surroundings::Artificial(_))
    }

    /// Whether a sun shows over the skyline.
    pub fn shows(&self, sun: Sun) -> bool {
        self.skyline.shows(sun)
    }

    /// The part of the sky over the subject that nothing stands before, of level ground's light under an even sky.
    pub fn sky_overhead(&self) -> f64 {
        self.sky_on_level * self.around_subject().1
    }

    /// Whether the surroundings keep the sun off the subject.
    pub fn subject_in_shade(&self) -> bool {
        self.is_daylight() && !self.around_subject().2
    }

    /// What stands in the way.
    pub fn skyline(&self) -> &Skyline {
        &self.skyline
    }

    /// The light at an instant.
    pub fn at(&self, at: Timestamp) -> LightNow {
        self.under(self.spot.sun(at), at)
    }

    /// The light at an instant, under a sun that is known.
    pub fn under(&self, sun: Sun, at: Timestamp) -> LightNow {
        self.light(sun, self.shows(sun), self.cloud_eighths(at))
    }

    /// A light with a cloud before its sun: the disc is hidden, and the sky is at least half cloud, which is brighter
    /// than a blue one.
    pub fn with_sun_hidden(&self, now: &LightNow) -> LightNow {
        self.light(now.sun, false, now.cloud_eighths.max(4.0))
    }

    fn light(&self, sun: Sun, sun_shows: bool, cloud_eighths: f64) -> LightNow {
        let now = |lit, shadow, background| LightNow { sun, sun_shows, cloud_eighths, lit, shadow, background };
        if let Surroundings::Artificial(lamps) = self.surroundings {
            let ev = lamps.light.ev();
            let under = ev - crate::scale::Stops(UNDER_LAMPS);
            return now(ev, under, under);
        }
        let falls = self.falls(sun, sun_shows, cloud_eighths);
        let ev = |light: SunAndSky| Ev::from_lux(light.lux(), FLAT);
        let background = match self.background.what {
            BackgroundKind::Sky => sky_ev(daylight(sun, cloud_eighths)),
            BackgroundKind::Upright | BackgroundKind::Ground => ev(falls.background),
        };
        now(ev(falls.lit), ev(falls.shadow), background)
    }

    /// What sun and sky give at the subject.
    pub fn at_subject(&self, now: &LightNow) -> AtSubject {
        let open = daylight(now.sun, now.cloud_eighths);
        let (ground, sky, in_sun) = self.around_subject();
        let direct_lux = if now.sun_shows && in_sun { open.direct_normal_lux } else { 0.0 };
        AtSubject { direct_lux, sky_lux: open.sky_lux * sky, ground }
    }

    /// Whether a role's region is the sky itself, which nothing lights.
    pub fn is_sky_behind(&self, role: Role) -> bool {
        role == Role::Background && self.background.what == BackgroundKind::Sky
    }

    /// The part of upright things behind the subject that a sun from behind lights: ground between them, their tops and
    /// edges. [`BACKLIT`] where it is straight behind, none from the side on.
    pub fn backlit_part(&self, sun: Sun) -> f64 {
        let behind = -bearing_apart(sun.azimuth_deg, self.facing_deg).to_radians().cos();
        if self.background.what == BackgroundKind::Upright { BACKLIT * behind.max(0.0) } else { 0.0 }
    }

    /// What sun and sky each give.
    pub(super) fn falls(&self, sun: Sun, sun_shows: bool, cloud_eighths: f64) -> Falls {
        let whole = daylight(sun, cloud_eighths);
        let open = if sun_shows { whole } else { whole.without_sun() };
        let (ground, subject_sky, in_sun) = self.around_subject();
        let at_subject = if in_sun { open } else { open.without_sun() };
        let cheek = |turned: f64, sky_seen: f64| {
            // The ground before the subject lies in the same light as the subject.
            let (facing, sky) = (self.facing_deg + turned, subject_sky * sky_seen);
            face(at_subject, sun, facing, sky, ground, self.sky_on_level)
        };
        let behind_in_sun = in_sun || self.background.sunlit_percent > *SUNLIT_STILL_SHADE.end();
        let shaded_behind = !in_sun && !behind_in_sun;
        let there = if behind_in_sun { open } else { open.without_sun() };
        let sky_there = if shaded_behind { subject_sky } else { 1.0 };
        let level =
            SunAndSky { sun_lux: there.direct_level_lux, sky_lux: there.sky_lux * self.sky_on_level * sky_there };
        let background = match self.background.what {
            BackgroundKind::Upright => {
                let upright = face(there, sun, self.facing_deg, sky_there * self.sky_ahead, ground, self.sky_on_level);
                let part = self.backlit_part(sun);
                SunAndSky {
                    sun_lux: upright.sun_lux + part * (level.sun_lux - upright.sun_lux).max(0.0),
                    sky_lux: upright.sky_lux + part * (level.sky_lux - upright.sky_lux).max(0.0),
                }
            }
            BackgroundKind::Ground => level,
            // Seen, and not lit by anything.
            BackgroundKind::Sky => SunAndSky { sun_lux: 0.0, sky_lux: whole.sky_lux },
        };
        let (one, other) = (cheek(-CHEEK_DEG, self.sky_left), cheek(CHEEK_DEG, self.sky_right));
        // The lit side is the brighter one, whichever way a wall before it turns that.
        let (lit, shadow) = if one.lux() >= other.lux() { (one, other) } else { (other, one) };
        Falls { lit, shadow, background }
    }

    /// What is around the subject: the ground's reflectance, the part of the sky it sees, and whether the sun reaches it.
    fn around_subject(&self) -> (f64, f64, bool) {
        match self.surroundings {
            Surroundings::OpenGround | Surroundings::Artificial(_) => (GROUND, 1.0, true),
            Surroundings::Snow => (SNOW, 1.0, true),
            Surroundings::Sand => (SAND, 1.0, true),
            Surroundings::Water => (WATER, 1.0, true),
            Surroundings::OpenShade(shade) => (GROUND, (shade.sky_percent / 100.0).max(0.01), false),
            Surroundings::Trees => (GROUND, SKY_UNDER_TREES, false),
            Surroundings::Awning => (GROUND, SKY_UNDER_AWNING, false),
            Surroundings::DarkStreet => (DARK_GROUND, SKY_IN_STREET, false),
        }
    }
}

const FLAT: f64 = 250.0;

/// One bearing less another, −180 to 180: positive is clockwise.
pub fn bearing_apart(bearing_deg: f64, from_deg: f64) -> f64 {
    (bearing_deg - from_deg + 180.0).rem_euclid(360.0) - 180.0
}

/// On a vertical face: `E = E_dn·max(0, cos i) + ½·v·E_sky + ½·ρ·E_level`, from the definition of illuminance under an
/// even sky over even ground. `sky` is v, the part of the sky the face sees; `sky_on_level` that of the ground.
fn face(light: Daylight, sun: Sun, facing_deg: f64, sky: f64, ground: f64, sky_on_level: f64) -> SunAndSky {
    let direct = light.direct_normal_lux * incidence(sun, facing_deg).max(0.0);
    let sky_on_ground = light.sky_lux * sky_on_level * sky.min(1.0);
    SunAndSky {
        sun_lux: direct + 0.5 * ground * light.direct_level_lux,
        sky_lux: 0.5 * sky * light.sky_lux + 0.5 * ground * sky_on_ground,
    }
}

/// The cosine of the angle between the sun and the normal of a vertical face.
pub fn incidence(sun: Sun, facing_deg: f64) -> f64 {
    sun.apparent_altitude_deg.to_radians().cos() * bearing_apart(sun.azimuth_deg, facing_deg).to_radians().cos()
}

/// What a receptor held upright and pointed at a bearing collects, in lux: a flat one weighs the direct light by cos θ,
/// a dome by (1 + cos θ)/2. Source: physics of a hemispherical receptor; common form.
pub fn receptor_lux(light: Daylight, sun: Sun, pointed_deg: f64, receptor: IncidentReceptor) -> f64 {
    let cos = incidence(sun, pointed_deg);
    let direct = match receptor {
        IncidentReceptor::Flat => cos.max(0.0),
        IncidentReceptor::Dome => f64::midpoint(1.0, cos),
    };
    light.direct_normal_lux * direct + 0.5 * light.sky_lux + 0.5 * GROUND * light.total_lux()
}

/// A clear or grey sky low over the horizon, read by a spot meter: an even sky's luminance is E/π, and L = 0.125·2^EV.
/// The true sky is brighter towards the sun and darker away from it: an estimate. Source: ISO 2720 for K = 12.5.
fn sky_ev(light: Daylight) -> Ev {
    Ev((light.sky_lux / std::f64::consts::PI / 0.125).log2())
}

#[cfg(test)]
pub(super) mod tests {
    use super::*;
    use crate::ambient::{
        Artificial, Background, CloudHour, ForecastCloud, OpenShade, Site, SteadyCloud, TypicalLight,
    };
    use crate::time::LocalTime;
    use rstest::rstest;

    /// 60° north, a summer afternoon: the sun stands in the west-south-west.
    pub(in crate::ambient) fn scene(time: &str) -> Scene {
        let site = Site {
            name: String::new(),
            latitude_deg: 60.0,
            longitude_deg: 25.0,
            elevation_m: 0.0,
            time_zone: "Europe/Helsinki".to_owned(),
        };
        let at = LocalTime { date: "2026-06-21".to_owned(), time: time.to_owned(), second_time: false };
        Scene { facing_deg: 250.0, ..Scene::new(site, at) }
    }

    fn light(scene: &Scene) -> LightNow {
        let light = SceneLight::new(scene).expect("a good scene");
        light.at(light.at)
    }

    #[test]
    fn a_face_in_the_sun_has_a_lit_and_a_shadow_side() {
        let now = light(&Scene { facing_deg: 200.0, ..scene("17:30") });
        assert!(now.sun_shows && (now.sun.azimuth_deg - 260.0).abs() < 10.0, "{:?}", now.sun);
        assert!((14.0..15.6).contains(&now.lit.0), "{now:?}");
        assert!((now.lit - now.shadow).0 > 1.5, "{now:?}");
    }

    #[test]
    fn back_to_the_sun_the_face_lies_in_its_own_shade() {
        let front = light(&scene("17:00"));
        let back = light(&Scene { facing_deg: 70.0, ..scene("17:00") });
        assert!((front.lit - back.lit).0 > 2.0, "{front:?} {back:?}");
        assert!((back.lit - back.shadow).0 < 0.1);
    }

    /// Handbook exposure values (ANSI PH2.7, from memory), with a stop of room: bright cloud 13, heavy overcast and open
    /// shade 12.
    #[rstest]
    #[case(Surroundings::OpenShade(OpenShade { sky_percent: 60.0 }), 0.0, 12.0)]
    #[case(Surroundings::OpenGround, 6.0, 13.0)]
    #[case(Surroundings::OpenGround, 8.0, 12.0)]
    fn handbook_values(#[case] surroundings: Surroundings, #[case] cloud_eighths: f64, #[case] ev: f64) {
        let weather = Weather::Steady(SteadyCloud { cloud_eighths });
        let now = light(&Scene { weather, surroundings, ..scene("13:20") });
        assert!((now.lit.0 - ev).abs() < 1.0, "{now:?}");
    }

    /// Just after sunset EV 9 to 11 (handbook, ANSI PH2.7, from memory) has gone within minutes: by the model the sky low
    /// over the horizon reads 10.2 as the sun's edge goes, and under 9 a quarter of an hour later; a face reads 6.9.
    #[test]
    fn just_after_sunset() {
        let mut scene = scene("22:50");
        scene.background.what = BackgroundKind::Sky;
        let light = SceneLight::new(&scene).expect("a good scene");
        let begin = light.at - jiff::SignedDuration::from_hours(2);
        let set = light.spot.track(begin, light.at + jiff::SignedDuration::from_hours(1)).crossings(-0.8333).1[0];
        let after = |minutes: i64| light.at(set + jiff::SignedDuration::from_mins(minutes));
        assert!((after(0).background.0 - 10.2).abs() < 0.1, "{:?}", after(0));
        assert!((after(0).lit.0 - 6.9).abs() < 0.2, "{:?}", after(0));
        assert!(after(15).background.0 < 9.5 && after(30).background.0 < 8.5, "{:?} {:?}", after(15), after(30));
    }

    /// A backlit meadow with trees: the background is over the face by a stop or more, not equal to it; with the sun in front
    /// nothing of this counts.
    #[test]
    fn a_sun_from_behind_lights_the_background() {
        let backlit = light(&Scene { facing_deg: 100.0, ..scene("18:40") });
        assert!((16.0..30.0).contains(&backlit.sun.apparent_altitude_deg), "{:?}", backlit.sun);
        assert!((0.8..2.5).contains(&(backlit.background - backlit.lit).0), "{backlit:?}");
        let front = SceneLight::new(&Scene { facing_deg: 280.0, ..scene("18:40") }).expect("good");
        assert!(front.backlit_part(front.at(front.at).sun).abs() < 1e-12);
    }

    #[test]
    fn snow_lifts_the_shadow_side() {
        let plain = light(&Scene { facing_deg: 200.0, ..scene("17:30") });
        let snow = light(&Scene { facing_deg: 200.0, surroundings: Surroundings::Snow, ..scene("17:30") });
        assert!((snow.shadow - plain.shadow).0 > 0.5 && snow.lit > plain.lit);
    }

    /// Up to a fifth of the frame sunlit behind: treated as in shade; more: as in sun (common practice).
    #[rstest]
    #[case(15.0, false)]
    #[case(20.0, false)]
    #[case(21.0, true)]
    #[case(80.0, true)]
    fn how_much_of_the_frame_behind_is_sunlit(#[case] sunlit_percent: f64, #[case] as_in_sun: bool) {
        let shade = Surroundings::OpenShade(OpenShade { sky_percent: 60.0 });
        let background = Background { what: BackgroundKind::Upright, sunlit_percent };
        let now = light(&Scene { surroundings: shade, background, ..scene("17:00") });
        assert_eq!((now.background - now.lit).0 > 1.5, as_in_sun, "{now:?}");
    }

    #[test]
    fn lamps_do_not_follow_the_sun() {
        let lamps = Surroundings::Artificial(Artificial { light: TypicalLight::Home, mains_hz: 50.0 });
        let (noon, night) = (
            light(&Scene { surroundings: lamps, ..scene("13:00") }),
            light(&Scene { surroundings: lamps, ..scene("23:59") }),
        );
        assert_eq!((noon.lit, noon.background), (night.lit, night.background));
        assert!((noon.lit.0 - 6.0).abs() < 1e-12);
    }

    #[test]
    fn cloud_goes_evenly_between_the_hours_of_a_forecast() {
        let hours = [("2026-06-21T12:00:00Z", 2.0), ("2026-06-21T13:00:00Z", 6.0)];
        let hours = hours.map(|(utc, cloud_eighths)| CloudHour { utc: utc.to_owned(), cloud_eighths });
        let forecast = ForecastCloud { source: "made up".to_owned(), simulated: true, hours: hours.to_vec() };
        let light = SceneLight::new(&Scene { weather: Weather::Forecast(forecast), ..scene("12:00") }).expect("good");
        let cloud = |utc: &str| light.cloud_eighths(utc.parse().expect("an instant"));
        assert!((cloud("2026-06-21T12:15:00Z") - 3.0).abs() < 1e-9);
        assert!((cloud("2026-06-21T09:00:00Z") - 2.0).abs() < 1e-9);
        assert!((cloud("2026-06-21T19:00:00Z") - 6.0).abs() < 1e-9);
    }

    /// (1 + cos θ)/2 of a dome: all of a light before it, half of one beside it, none of one behind it.
    #[test]
    fn what_a_dome_collects() {
        let sun = |azimuth_deg| Sun { true_altitude_deg: 0.0, apparent_altitude_deg: 0.0, azimuth_deg };
        let light = Daylight { direct_normal_lux: 1000.0, direct_level_lux: 0.0, sky_lux: 0.0 };
        let dome = |azimuth| receptor_lux(light, sun(azimuth), 0.0, IncidentReceptor::Dome);
        assert!((dome(0.0) - 1000.0).abs() < 1e-6 && (dome(90.0) - 500.0).abs() < 1e-6 && dome(180.0).abs() < 1e-6);
        assert!(receptor_lux(light, sun(90.0), 0.0, IncidentReceptor::Flat).abs() < 1e-6);
    }
}
