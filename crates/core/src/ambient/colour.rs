//! The colour of a scene's light: sun, sky and lamps on each part of the picture.

use super::scene_light::{LightNow, SceneLight, SunAndSky, bearing_apart};
use super::{TypicalLight, air_mass};
use crate::ambient::{BackgroundKind, Role, Surroundings};
use crate::colour::{Illuminant, LightShare, NamedLight, Shift, skylight, sunlight};

/// The colours of a scene at an instant.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct SceneColours {
    /// On the side the ambient lights more.
    pub lit: Illuminant,
    /// On the side it lights less.
    pub shadow: Illuminant,
    /// Of what lies behind.
    pub background: Illuminant,
}

impl SceneColours {
    /// The colour of a role's region.
    pub fn of(&self, role: Role) -> Illuminant {
        match role {
            Role::LitSide | Role::Part => self.lit,
            Role::ShadowSide => self.shadow,
            Role::Background => self.background,
        }
    }
}

/// Green leaves over the subject: about a mild plus-green gel. Common practice for the direction, the figure is chosen.
const LEAVES: Shift = Shift { mired: 0.0, tint_duv: 0.010 };
/// So much of the light in a sunny day's open shade comes off what lies in the sun (chosen, so that open shade has its
/// usual 7000 to 8000 K; common practice, no source).
const SUNLIT_AROUND: f64 = 0.4;
/// A sun lower than this colours the sky about it (chosen).
const GLOW_BELOW_DEG: f64 = 12.0;
/// It does so until it is so far down (chosen).
const GLOW_ENDS_DEG: f64 = -6.0;
/// The lowest sun whose colour is reckoned with: below it the air mass says little.
const LOWEST_DEG: f64 = 0.5;

impl TypicalLight {
    /// The colour it usually has. Common practice, no source.
    pub fn colour(self) -> NamedLight {
        match self {
            Self::Home => NamedLight::HouseLamp,
            Self::Workplace => NamedLight::Fluorescent,
            Self::SportsHall => NamedLight::WhiteLed,
            Self::Stage => NamedLight::Halogen,
            Self::ShopFronts | Self::FloodlitBuilding | Self::Street => NamedLight::WarmLed,
            Self::Candles => NamedLight::Candle,
        }
    }
}

impl SceneLight {
    /// The colours at an instant whose light is known.
    pub fn colours(&self, now: &LightNow) -> SceneColours {
        if let Surroundings::Artificial(lamps) = self.surroundings {
            let light = lamps.light.colour().light();
            return SceneColours { lit: light, shadow: light, background: light };
        }
        let altitude = now.sun.apparent_altitude_deg;
        let sun = sunlight(air_mass(altitude.max(LOWEST_DEG)));
        let sky = skylight(now.cloud_eighths, altitude);
        // In shade the walls and the ground that lie in the sun give some of their light too.
        let sunlit = if now.sun_shows && self.subject_in_shade() { SUNLIT_AROUND } else { 0.0 };
        let mixed = |light: SunAndSky| {
            let (sun_lux, sky_lux) = (light.sun_lux + light.sky_lux * sunlit, light.sky_lux * (1.0 - sunlit));
            let both = [LightShare { share: sky_lux, light: sky }, LightShare { share: sun_lux, light: sun }];
            Illuminant::mixed(&both).unwrap_or(sky)
        };
        let falls = self.falls(now.sun, now.sun_shows, now.cloud_eighths);
        let leaves = if self.surroundings == Surroundings::Trees { LEAVES } else { Shift::default() };
        let background = match self.background.what {
            BackgroundKind::Sky => self.low_sky(now, sun, sky),
            BackgroundKind::Upright | BackgroundKind::Ground => mixed(falls.background),
        };
        SceneColours { lit: mixed(falls.lit).shifted(leaves), shadow: mixed(falls.shadow).shifted(leaves), background }
    }

    /// The sky low over the horizon: by a low sun it takes on the sun's colour, the more the nearer to it and the less
    /// cloud there is. An estimate of our own.
    fn low_sky(&self, now: &LightNow, sun: Illuminant, sky: Illuminant) -> Illuminant {
        let altitude = now.sun.apparent_altitude_deg;
        let low = ((GLOW_BELOW_DEG - altitude) / (GLOW_BELOW_DEG - LOWEST_DEG)).clamp(0.0, 1.0)
            * ((altitude - GLOW_ENDS_DEG) / (LOWEST_DEG - GLOW_ENDS_DEG)).clamp(0.0, 1.0);
        // What lies behind the subject is where its back is turned to.
        let towards = bearing_apart(now.sun.azimuth_deg, self.facing_deg + 180.0).to_radians().cos().max(0.0);
        let glow = low * towards * (1.0 - now.cloud_eighths / 8.0) * 0.6;
        let whitish = (1.0 - now.cloud_eighths / 8.0) * 0.3;
        let shift = (sun.mired().0 - sky.mired().0) * glow + whitish * 40.0 * (1.0 - glow);
        sky.shifted(Shift { mired: shift, tint_duv: 0.0 })
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::ambient::scene_light::tests::scene;
    use crate::ambient::{Artificial, OpenShade, Scene, SteadyCloud, Weather};
    use rstest::rstest;

    fn colours(scene: &Scene) -> SceneColours {
        let light = SceneLight::new(scene).expect("a good scene");
        light.colours(&light.at(light.at))
    }

    /// Common practice: midday sun 5000 to 5600 K, open shade 7000 to 8000, cloud 6000 to 6500, blue hour 9000 to 12 000.
    #[rstest]
    #[case("15:00", Surroundings::OpenGround, 0.0, 5000.0..=5900.0)]
    #[case("13:30", Surroundings::OpenShade(OpenShade { sky_percent: 60.0 }), 0.0, 7000.0..=8000.0)]
    #[case("13:30", Surroundings::OpenGround, 8.0, 6000.0..=6600.0)]
    #[case("23:50", Surroundings::OpenGround, 0.0, 9000.0..=12_000.0)]
    fn faces(
        #[case] time: &str,
        #[case] surroundings: Surroundings,
        #[case] cloud_eighths: f64,
        #[case] wanted: std::ops::RangeInclusive<f64>,
    ) {
        let weather = Weather::Steady(SteadyCloud { cloud_eighths });
        let found = colours(&Scene { weather, surroundings, ..scene(time) });
        assert!(wanted.contains(&found.lit.kelvin().0), "{found:?}");
    }

    #[test]
    fn a_low_sun_is_warm_and_its_shadow_side_cool() {
        let low = Scene { facing_deg: 300.0, ..scene("22:10") };
        let found = colours(&low);
        assert!(found.lit.kelvin().0 < 4000.0, "{found:?}");
        let noon = colours(&scene("13:30"));
        assert!(noon.lit.kelvin() > found.lit.kelvin());
    }

    #[test]
    fn leaves_are_green_and_lamps_are_lamps() {
        let under = colours(&Scene { surroundings: Surroundings::Trees, ..scene("13:30") });
        assert!(under.lit.tint_duv() > 0.006, "{under:?}");
        let lamps = Surroundings::Artificial(Artificial { light: TypicalLight::Home, mains_hz: 50.0 });
        assert!(colours(&Scene { surroundings: lamps, ..scene("13:30") }).lit.kelvin().0 < 3200.0);
    }

    /// A sky behind that the sun goes down in is warmer than the one opposite.
    #[test]
    fn the_sky_glows_where_the_sun_goes_down() {
        let mut towards = scene("22:40");
        towards.background.what = BackgroundKind::Sky;
        towards.facing_deg = 150.0;
        let away = Scene { facing_deg: 330.0, ..towards.clone() };
        assert!(colours(&towards).background.kelvin().0 < colours(&away).background.kelvin().0 - 1500.0);
    }
}
