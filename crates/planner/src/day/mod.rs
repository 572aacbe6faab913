//! The light of a setup's day, from midnight to midnight: what falls on lit side, shadow side and behind, what happens to
//! the sun, and when the three lie how to each other. Beside it the day of a job: when the wish of each of its setups can be
//! had, and in which order they are shot.

mod job;
mod minute;
mod order;
mod window;

pub use job::{JobDays, Lane, LaneLight, PlannedDay};
pub use minute::{DayMinute, Stretch};
pub use order::{Change, Ordered, Slot, quicker};
pub use window::{Moment, Windows};

use jiff::tz::TimeZone;
use jiff::{SignedDuration, Timestamp};
use tolva_core::ambient::{LightNow, PhaseStretch, Role, SunTransition, sun_transitions};
use tolva_core::time::minutes_between;

use crate::lighting::Prepared;
use crate::refused::Refused;
use crate::setup::{Kit, Setup};

/// Within so many stops all three can be held in one exposure without much flash. Common practice, no source.
pub const CLOSE_STOPS: f64 = 2.0;
/// With what lies behind so many stops over it, the subject is black. Common practice, no source.
pub const SILHOUETTE_STOPS: f64 = 3.0;
/// From one instant of a day to the next, in minutes.
pub const STEP_MIN: (f64, f64) = (1.0, 60.0);

/// A day's light. Minutes count from the midnight it begins with.
#[derive(Clone, Debug)]
pub struct Day {
    /// The zone its clocks keep.
    pub zone: TimeZone,
    /// The midnight it begins with.
    pub begin: Timestamp,
    /// How long it is, in minutes: 1440, but for days on which clocks change.
    pub minutes: f64,
    /// The minutes the lists below stand for.
    pub minute: Vec<f64>,
    /// Sun, cloud and what they give by the model.
    pub lights: Vec<LightNow>,
    /// The lit side, EV at ISO 100.
    pub lit_ev100: Vec<f64>,
    /// The shadow side, EV at ISO 100.
    pub shadow_ev100: Vec<f64>,
    /// Behind, EV at ISO 100.
    pub background_ev100: Vec<f64>,
    /// What happens to the sun, in order.
    pub transitions: Vec<SunTransition>,
    /// The phases of light, from midnight to midnight.
    pub phases: Vec<PhaseStretch>,
    /// The readings taken on this day.
    pub readings: Vec<ReadingThatDay>,
    /// From which minute to which all three lie within [`CLOSE_STOPS`] of each other.
    pub close: Vec<(f64, f64)>,
    /// From which minute to which behind lies [`SILHOUETTE_STOPS`] or more over the subject.
    pub silhouette: Vec<(f64, f64)>,
    /// Whether the cloud is made up by a stand-in.
    pub simulated: bool,
}

/// A reading taken on a day.
#[derive(Clone, Debug, PartialEq)]
pub struct ReadingThatDay {
    /// The region it was taken on, by its place in the setup.
    pub region: usize,
    /// When.
    pub at: Timestamp,
    /// EV at ISO 100.
    pub ev100: f64,
    /// Whether a stand-in made it up.
    pub simulated: bool,
}

/// So many minutes.
pub fn after(minutes: f64) -> SignedDuration {
    #[expect(clippy::cast_possible_truncation, reason = "milliseconds of a day")]
    SignedDuration::from_millis((minutes * 60_000.0).round() as i64)
}

/// The day of a setup, at steps of so many minutes.
///
/// # Errors
/// A step outside [`STEP_MIN`], a setup without place and hour, or one that cannot be planned.
pub fn day(setup: &Setup, kit: &Kit, step_min: f64) -> Result<Day, Refused> {
    Refused::unless_within(step_min, STEP_MIN, "step_min", "min")?;
    let prepared = Prepared::new(setup, kit)?;
    let scene = prepared.scene.as_ref().ok_or(Refused::NoScene)?;
    let light = &scene.light;
    let (begin, end) = tolva_core::time::day(&scene.scene.at.date, &light.zone)?;
    let minutes = minutes_between(begin, end);
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "at most 1500")]
    let steps = (minutes / step_min).ceil() as u32;
    let minute: Vec<f64> = (0..=steps).map(|step| (f64::from(step) * step_min).min(minutes)).collect();
    let instants: Vec<Timestamp> = minute.iter().map(|at| begin + after(*at)).collect();
    let track = light.spot.track(begin, end);
    let lights: Vec<LightNow> = instants.iter().map(|at| light.under(track.sun(*at), *at)).collect();
    let ev = |role: Role, region: Option<usize>| -> Vec<f64> {
        let of = |now: &LightNow| region.map_or(now.of(role), |region| prepared.light[region].all(Some(now))).0;
        lights.iter().map(|now| (of(now) * 100.0).round() / 100.0).collect()
    };
    let lit = ev(Role::LitSide, Some(prepared.lit));
    let shadow = ev(Role::ShadowSide, prepared.shadow);
    let background = ev(Role::Background, Some(prepared.background));
    let stretches = |of: &dyn Fn(f64, f64, f64) -> bool| {
        let is: Vec<bool> = (0..minute.len()).map(|at| of(lit[at], shadow[at], background[at])).collect();
        let stretches = runs(&is).into_iter().map(|(from, to)| (minute[from], minute[to]));
        stretches.filter(|(from, to)| to > from).collect()
    };
    let close = stretches(&|lit, shadow, background| {
        lit.max(shadow).max(background) - lit.min(shadow).min(background) <= CLOSE_STOPS
    });
    let silhouette = stretches(&|lit, shadow, background| background - lit.max(shadow) >= SILHOUETTE_STOPS);
    let (transitions, phases) = sun_transitions(light, &track, (begin, end), &instants);
    let readings = setup.regions.iter().enumerate().flat_map(|(index, region)| {
        region.ambient.readings.iter().filter_map(move |taken| {
            let at = taken.at.as_ref()?.instant(&light.zone).ok().filter(|at| (begin..end).contains(at))?;
            Some(ReadingThatDay { region: index, at, ev100: taken.ev100().0, simulated: taken.simulated })
        })
    });
    Ok(Day {
        zone: light.zone.clone(),
        begin,
        minutes,
        readings: readings.collect(),
        simulated: scene.scene.weather.is_simulated(),
        minute,
        lights,
        lit_ev100: lit,
        shadow_ev100: shadow,
        background_ev100: background,
        transitions,
        phases,
        close,
        silhouette,
    })
}

/// The first and last index of each run of what is so.
fn runs(is: &[bool]) -> Vec<(usize, usize)> {
    let mut all: Vec<(usize, usize)> = Vec::new();
    for (index, _) in is.iter().enumerate().filter(|(_, is)| **is) {
        match all.last_mut() {
            Some((_, last)) if *last + 1 == index => *last = index,
            _ => all.push((index, index)),
        }
    }
    all
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;
    use tolva_core::ambient::{
        AngleHeight, BackgroundKind, LightPhase, Obstacle, ObstacleHeight, Scene, Site, SunEvent,
    };
    use tolva_core::time::{LocalTime, clock};

    fn scene(latitude_deg: f64, longitude_deg: f64, time_zone: &str, date: &str) -> Scene {
        let site = Site {
            name: String::new(),
            latitude_deg,
            longitude_deg,
            elevation_m: 0.0,
            time_zone: time_zone.to_owned(),
        };
        let at = LocalTime { date: date.to_owned(), time: "18:00".to_owned(), second_time: false };
        Scene { facing_deg: 90.0, ..Scene::new(site, at) }
    }

    fn by_the_sea() -> Scene {
        scene(60.47, 26.95, "Europe/Helsinki", "2026-08-29")
    }

    fn of(scene: Scene) -> Day {
        let kit = Kit::starter();
        let setup = Setup { scene: Some(scene), ..Setup::new("a", &kit) };
        day(&setup, &kit, 5.0).expect("a day")
    }

    #[test]
    fn a_late_summer_day_by_the_sea() {
        let day = of(by_the_sea());
        let when = |event| day.transitions.iter().find(|one| one.event == event).map(|one| clock(&day.zone, one.at));
        // pvlib 0.16.1, `sun_rise_set_transit_spa`, for 60.47° N 26.95° E on 2026-08-29: 05:58 and 20:26.
        assert_eq!(when(SunEvent::Sunrise).as_deref(), Some("05:58"));
        assert_eq!(when(SunEvent::Sunset).as_deref(), Some("20:26"));
        let phases: Vec<LightPhase> = day.phases.iter().map(|stretch| stretch.phase).collect();
        let last = [LightPhase::Twilight, LightPhase::DeepTwilight, LightPhase::LastTrace, LightPhase::Night];
        assert_eq!(phases[phases.len() - 4..], last);
        assert!(day.phases.windows(2).all(|pair| pair[0].to == pair[1].from));
        assert_eq!(day.phases.last().map(|last| last.to), Some(day.begin + after(1440.0)));
        assert_eq!((day.minute.len(), day.lit_ev100.len()), (289, 289));
    }

    #[test]
    fn a_hill_ends_the_sun_early() {
        let mut scene = by_the_sea();
        let height = ObstacleHeight::Angle(AngleHeight { altitude_deg: 8.0 });
        scene.horizon = vec![Obstacle { name: "Hill".to_owned(), from_deg: 240.0, to_deg: 320.0, height }];
        let day = of(scene.clone());
        let goes = day.transitions.iter().find(|one| one.event == SunEvent::GoesBehind).expect("it goes behind");
        let light = tolva_core::ambient::SceneLight::new(&scene).expect("a good scene");
        let sun = light.spot.sun(goes.at);
        assert!((sun.apparent_altitude_deg - 8.0).abs() < 0.01, "{goes:?} {sun:?}");
        let turn = tolva_core::ambient::Ahead::of(&light, light.at).next_turn().expect("it ends");
        assert_eq!((turn.hidden_by.as_deref(), goes.hidden_by.as_deref()), (Some("Hill"), Some("Hill")));
        assert!((turn.at.duration_since(goes.at)).abs() < after(1.0), "{turn:?} {goes:?}");
    }

    #[test]
    fn the_sun_comes_out_again_beside_a_tower() {
        let mut scene = by_the_sea();
        let height = ObstacleHeight::Angle(AngleHeight { altitude_deg: 20.0 });
        scene.horizon = vec![Obstacle { name: "the tower".to_owned(), from_deg: 262.0, to_deg: 270.0, height }];
        let events: Vec<SunEvent> = of(scene).transitions.iter().map(|one| one.event).collect();
        let goes = events.iter().position(|event| *event == SunEvent::GoesBehind).expect("it goes");
        assert_eq!(events[goes + 1], SunEvent::ComesOut);
    }

    #[test]
    fn back_to_a_low_sun_the_sky_makes_a_silhouette() {
        let mut scene = by_the_sea();
        scene.background.what = BackgroundKind::Sky;
        let day = of(scene);
        assert!(day.silhouette.iter().any(|(_, to)| *to > 20.0 * 60.0 + 40.0), "{:?}", day.silhouette);
        assert!(day.close.iter().all(|(from, to)| from < to));
    }

    #[rstest]
    #[case(0.5)]
    #[case(61.0)]
    #[case(f64::NAN)]
    fn a_step_that_is_none(#[case] step_min: f64) {
        let kit = Kit::starter();
        let setup = Setup { scene: Some(by_the_sea()), ..Setup::new("a", &kit) };
        assert!(matches!(day(&setup, &kit, step_min), Err(Refused::OutOfRange { what: "step_min", .. })));
    }
}
