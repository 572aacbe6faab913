//! Changes that need the rules: what another light is there for, what a wish aims at, what a reading is taken to be.
//! Choices that are not the physics' are common practice, no source, or chosen.

use tolva_core::ambient::{Obstacle, Role, SteadyCloud, Weather};
use tolva_core::colour::StatedColour;
use tolva_core::exposure::{MeterReading, MeteringMethod, Reading};
use tolva_core::scale::Stops;
use tolva_core::time::LocalTime;

use crate::colour::{ColourGrip, Colouring, InColour};
use crate::lighting::Prepared;
use crate::place::{Grip, Placing};
use crate::refused::Refused;
use crate::setup::{Kit, Light, LightWish, Region, Setup};
use crate::solver::Outcome;

/// The letters lights are called by.
const LETTERS: [&str; 8] = ["A", "B", "C", "D", "E", "F", "G", "H"];
/// As many readings of a region are kept.
const MOST_READINGS: usize = 60;
/// One step of a mark along the colour line, in mired, and across it, in Duv.
const COLOUR_STEP: (f64, f64) = (5.0, 0.001);

/// The kinds of wishes, without their numbers.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum WishKind {
    /// It brings the lit side to where the blend wants it.
    Key,
    /// It leaves its region under the lit side.
    Fill,
    /// It brings its region over the lit side.
    Rim,
    /// It brings its region to a place of its own.
    Place,
}

impl WishKind {
    const fn of(wish: LightWish) -> Self {
        match wish {
            LightWish::Key => Self::Key,
            LightWish::Fill { .. } => Self::Fill,
            LightWish::Rim { .. } => Self::Rim,
            LightWish::Place { .. } => Self::Place,
        }
    }

    /// The part of the picture a light of this kind is usually aimed at.
    const fn usual(self) -> Role {
        match self {
            Self::Key => Role::LitSide,
            Self::Fill | Self::Rim => Role::ShadowSide,
            Self::Place => Role::Background,
        }
    }
}

impl Setup {
    fn region_of(&self, role: Role) -> Option<&str> {
        self.regions.iter().find(|region| region.role == role).map(|region| region.id.as_str())
    }

    fn region_mut(&mut self, id: &str) -> Result<&mut Region, Refused> {
        let found = self.regions.iter_mut().find(|region| region.id == id);
        found.ok_or_else(|| Refused::NoSuchRegion(id.to_owned()))
    }

    /// Another light: a flash of the kit with its first modifier. The first is the key; another one is most likely to open
    /// the shadow.
    ///
    /// # Errors
    /// A kit without any unit, or a setup that has as many lights as there are letters.
    pub fn add_light(&mut self, kit: &Kit) -> Result<(), Refused> {
        let flash = kit.flashes.iter().find(|one| !one.burns_on());
        let flash = flash.or(kit.flashes.first());
        let flash = flash.ok_or_else(|| Refused::NotInKit { what: "flash", id: String::new() })?;
        let free = LETTERS.iter().find(|letter| self.lights.iter().all(|light| light.id != **letter));
        let letter = free.ok_or_else(|| Refused::NoSuchLight(String::new()))?;
        let shadow = self.region_of(Role::ShadowSide).map(str::to_owned).filter(|_| !self.lights.is_empty());
        #[expect(clippy::cast_possible_truncation, reason = "at most eight")]
        let group = self.lights.len() as u8 + 1;
        self.lights.push(Light {
            modifier_id: kit.modifiers.first().map(|modifier| modifier.id.clone()),
            group,
            wish: if shadow.is_some() { LightWish::Fill { ratio_stops: 1.0 } } else { LightWish::Key },
            aimed_at: shadow,
            ..Light::new(letter, &flash.id)
        });
        Ok(())
    }

    /// What a light is there for. What was aimed where its kind usually is goes where the new kind usually is; what was
    /// aimed elsewhere stays.
    ///
    /// # Errors
    /// A light that is not there.
    pub fn wish_for(&mut self, light_id: &str, wish: LightWish) -> Result<(), Refused> {
        let lit = self.region_of(Role::LitSide).map(str::to_owned);
        let usual = |setup: &Self, kind: WishKind| setup.region_of(kind.usual()).map(str::to_owned);
        let position = self.light_called(light_id);
        let position = position.ok_or_else(|| Refused::NoSuchLight(light_id.to_owned()))?;
        let (now, to) = (WishKind::of(self.lights[position].wish), WishKind::of(wish));
        let aimed = self.lights[position].aimed_at.clone().filter(|aimed| Some(aimed) != lit.as_ref());
        let stays = aimed.filter(|aimed| now == WishKind::Key || Some(aimed) != usual(self, now).as_ref());
        let aimed_at = if to == WishKind::Key { None } else { stays.or_else(|| usual(self, to)) };
        let light = &mut self.lights[position];
        (light.wish, light.aimed_at) = (wish, aimed_at);
        Ok(())
    }

    /// Another lens, at the focal length it can be used at that is nearest to the present one.
    ///
    /// # Errors
    /// A lens the kit does not have.
    pub fn take_lens(&mut self, lens_id: &str, kit: &Kit) -> Result<(), Refused> {
        let lens = kit.lenses.iter().find(|lens| lens.id == lens_id);
        let lens = lens.ok_or_else(|| Refused::NotInKit { what: "lens", id: lens_id.to_owned() })?;
        lens_id.clone_into(&mut self.lens_id);
        self.focal_length_mm = self.focal_length_mm.clamp(lens.shortest_mm, lens.longest_mm);
        Ok(())
    }

    /// Another part of the picture. It begins with the light of the lit side.
    pub fn add_region(&mut self, name: &str) {
        let free = |number: &usize| self.regions.iter().all(|region| region.id != format!("part-{number}"));
        let number = (2..=self.regions.len() + 2).find(free);
        let lit = self.regions.iter().find(|region| region.role == Role::LitSide);
        let ambient = tolva_core::exposure::Ambient::guessed(lit.map_or(12.0, |lit| lit.ambient.guess_ev100));
        let id = format!("part-{}", number.unwrap_or(2));
        self.regions.push(Region { id, name: name.to_owned(), role: Role::Part, ambient, place: None });
    }

    /// Without a part of the picture: what was aimed there goes, and nothing reaches it any more.
    pub fn remove_region(&mut self, id: &str) {
        self.regions.retain(|region| region.id != id);
        self.lights.retain(|light| light.aimed_at.as_deref() != Some(id));
        for light in &mut self.lights {
            light.spill.retain(|reach| reach.region_id != id);
        }
    }

    /// A reading of a region: in place of its last one, or after it. It is taken the way the last one was, at the setup's
    /// hour.
    ///
    /// # Errors
    /// A region that is not there.
    pub fn take_reading(&mut self, region_id: &str, reading: Reading, again: bool) -> Result<(), Refused> {
        let at: Option<LocalTime> = self.scene.as_ref().map(|scene| scene.at.clone());
        let readings = &mut self.region_mut(region_id)?.ambient.readings;
        match readings.last_mut() {
            Some(last) if !again => (last.reading, last.simulated) = (reading, false),
            last => {
                let begun = MeterReading::of(reading.clone());
                let taken = match last {
                    Some(last) => MeterReading { reading, at, simulated: false, ..last.clone() },
                    None => MeterReading { method: MeteringMethod::IncidentDome, at, ..begun },
                };
                readings.push(taken);
                let more = readings.len().saturating_sub(MOST_READINGS);
                readings.drain(..more);
            }
        }
        Ok(())
    }

    /// How the last reading of a region was taken, with the surface that is usual for it.
    ///
    /// # Errors
    /// A region that is not there.
    pub fn read_by(&mut self, region_id: &str, method: MeteringMethod) -> Result<(), Refused> {
        if let Some(last) = self.region_mut(region_id)?.ambient.readings.last_mut() {
            last.method = method;
            last.surface_stops = method.surface().0;
        }
        Ok(())
    }

    /// What stands in the way of the sun, one more.
    ///
    /// # Errors
    /// A setup without place and hour.
    pub fn add_obstacle(&mut self, obstacle: Obstacle) -> Result<(), Refused> {
        self.scene.as_mut().ok_or(Refused::NoScene)?.horizon.push(obstacle);
        Ok(())
    }

    /// The cloud by hand instead of by a forecast, as it is at the setup's hour, in whole eighths.
    ///
    /// # Errors
    /// A setup without place and hour, or one that cannot be planned.
    pub fn cloud_by_hand(&mut self, kit: &Kit) -> Result<(), Refused> {
        let prepared = Prepared::new(self, kit)?;
        let light = &prepared.scene.as_ref().ok_or(Refused::NoScene)?.light;
        let cloud_eighths = light.cloud_eighths(light.at).round();
        if let Some(scene) = &mut self.scene {
            scene.weather = Weather::Steady(SteadyCloud { cloud_eighths });
        }
        Ok(())
    }

    /// Which way the subject faces, round the compass, in whole degrees.
    ///
    /// # Errors
    /// A setup without place and hour.
    pub fn face(&mut self, to_deg: f64) -> Result<(), Refused> {
        self.scene.as_mut().ok_or(Refused::NoScene)?.facing_deg = to_deg.round().rem_euclid(360.0);
        Ok(())
    }
}

/// Where a mark stands that is so many thirds of a stop from where it is now.
///
/// # Errors
/// A region or light that is not there, or a setup that cannot be planned.
pub fn mark_by(setup: &Setup, kit: &Kit, mark: &Placing, thirds: i32) -> Result<Placing, Refused> {
    let prepared = Prepared::new(setup, kit)?;
    let region = setup.regions.iter().position(|region| region.id == mark.region_id);
    let region = region.ok_or_else(|| Refused::NoSuchRegion(mark.region_id.clone()))?;
    let outcome = Outcome::of(&prepared);
    let here = &outcome.regions[region];
    let now = match mark.grip {
        Grip::Ambient => here.ambient,
        Grip::Together => here.together,
        Grip::Flash => {
            let called = |id: &str| mark.light_id.as_deref().is_none_or(|wanted| wanted == id);
            let light = prepared.lights.iter().position(|light| called(&light.light.id));
            light.map_or(here.flash, |light| here.each[light])
        }
    };
    let now = if now.0.is_finite() { now.to_third() } else { Stops(0.0) };
    let (least, most) = Placing::STOPS;
    Ok(Placing { stops: (now.0 + f64::from(thirds) / 3.0).clamp(least, most), ..mark.clone() })
}

/// Where a mark of the colour line stands that is so many steps along it and across it from where it is now.
///
/// # Errors
/// A light or region that is not there, or a setup that cannot be planned.
pub fn colour_by(setup: &Setup, kit: &Kit, what: ColourGrip, steps: i32, tint: i32) -> Result<Colouring, Refused> {
    let prepared = Prepared::new(setup, kit)?;
    let InColour { colours, balance } = InColour::of(&prepared, &Outcome::of(&prepared));
    let now = match &what {
        ColourGrip::Balance => Some(balance.dial),
        ColourGrip::Region(id) => {
            setup.regions.iter().position(|region| &region.id == id).map(|index| colours.ambient[index])
        }
        ColourGrip::Light(id) => {
            let flash = prepared.lights.iter().position(|light| &light.light.id == id).map(|at| colours.flashes[at]);
            let lamp = || {
                let lamp = prepared.lamps.iter().position(|lamp| &setup.lights[lamp.index].id == id);
                lamp.map(|at| colours.lamps[at])
            };
            flash.or_else(lamp)
        }
    };
    let now = now.ok_or_else(|| match &what {
        ColourGrip::Region(id) => Refused::NoSuchRegion(id.clone()),
        ColourGrip::Light(id) => Refused::NoSuchLight(id.clone()),
        ColourGrip::Balance => Refused::NoSuchLight(String::new()),
    })?;
    let tint_duv = (tint != 0).then(|| now.tint_duv() + f64::from(tint) * COLOUR_STEP.1);
    Ok(Colouring { what, mired: now.mired().0 + f64::from(steps) * COLOUR_STEP.0, tint_duv }.held())
}

/// The colour a region's light begins with where it is said in kelvin: the one it is taken to have now.
///
/// # Errors
/// A region that is not there, or a setup that cannot be planned.
pub fn colour_now(setup: &Setup, kit: &Kit, region_id: &str) -> Result<StatedColour, Refused> {
    let now = colour_by(setup, kit, ColourGrip::Region(region_id.to_owned()), 0, 0)?;
    let moved = crate::colour::colour_to(setup, kit, &Colouring { tint_duv: Some(0.0), ..now })?;
    let region = moved.regions.iter().find(|region| region.id == region_id);
    region.map(|region| region.ambient.colour).ok_or_else(|| Refused::NoSuchRegion(region_id.to_owned()))
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;
    use tolva_core::exposure::EvReading;

    fn setup() -> (Setup, Kit) {
        let kit = Kit::starter();
        (Setup::new("one", &kit), kit)
    }

    #[test]
    fn the_second_light_opens_the_shadow() {
        let (mut setup, kit) = setup();
        setup.lights.clear();
        for _ in 0..8 {
            setup.add_light(&kit).expect("a light");
        }
        assert_eq!((setup.lights[0].id.as_str(), setup.lights[0].wish), ("A", LightWish::Key));
        assert_eq!(setup.lights[1].wish, LightWish::Fill { ratio_stops: 1.0 });
        assert_eq!(setup.lights[1].aimed_at.as_deref(), Some("shadow"));
        assert_eq!((setup.lights[7].id.as_str(), setup.lights[7].group), ("H", 8));
        assert!(setup.add_light(&kit).is_err());
    }

    #[rstest]
    #[case::usual(None, LightWish::Place { stops: -1.0 }, Some("behind"))]
    #[case::key_again(Some("shadow"), LightWish::Key, None)]
    #[case::fill(None, LightWish::Fill { ratio_stops: 1.0 }, Some("shadow"))]
    #[case::stays(Some("behind"), LightWish::Rim { over_stops: 0.0 }, Some("behind"))]
    fn a_wish_aims(#[case] aimed: Option<&str>, #[case] wish: LightWish, #[case] at: Option<&str>) {
        let (mut setup, _) = setup();
        setup.lights[0].aimed_at = aimed.map(str::to_owned);
        setup.wish_for("A", wish).expect("it is there");
        assert_eq!(setup.lights[0].aimed_at.as_deref(), at);
        assert!(setup.wish_for("Q", wish).is_err());
    }

    #[test]
    fn readings_follow_each_other() {
        let (mut setup, _) = setup();
        let ev = |ev100| Reading::Ev(EvReading { ev100 });
        setup.take_reading("lit", ev(11.0), false).expect("there");
        setup.read_by("lit", MeteringMethod::SpotWhite).expect("there");
        setup.take_reading("lit", ev(10.0), true).expect("there");
        setup.take_reading("lit", ev(9.0), false).expect("there");
        let readings = &setup.regions[1].ambient.readings;
        assert_eq!(readings.iter().map(|one| one.reading.clone()).collect::<Vec<_>>(), [ev(11.0), ev(9.0)]);
        assert!((readings[1].surface_stops - MeteringMethod::SpotWhite.surface().0).abs() < 1e-9);
        for _ in 0..100 {
            setup.take_reading("lit", ev(8.0), true).expect("there");
        }
        assert_eq!(setup.regions[1].ambient.readings.len(), MOST_READINGS);
    }

    #[test]
    fn a_region_goes_with_what_was_aimed_at_it() {
        let (mut setup, kit) = setup();
        setup.add_region("Hair");
        setup.add_region("Second row");
        setup.add_light(&kit).expect("a light");
        setup.lights[1].aimed_at = Some("part-3".to_owned());
        setup.remove_region("part-3");
        assert_eq!((setup.regions.len(), setup.lights.len()), (4, 1));
    }

    #[rstest]
    #[case(-5.0, 355.0)]
    #[case(360.4, 0.0)]
    #[case(89.6, 90.0)]
    fn the_subject_turns_round(#[case] to: f64, #[case] facing: f64) {
        let (mut setup, _) = setup();
        assert_eq!(setup.face(to), Err(Refused::NoScene));
        let site = tolva_core::ambient::Site {
            name: String::new(),
            latitude_deg: 60.0,
            longitude_deg: 25.0,
            elevation_m: 0.0,
            time_zone: "Europe/Helsinki".to_owned(),
        };
        let at = LocalTime { date: "2026-08-29".to_owned(), time: "19:00".to_owned(), second_time: false };
        setup.scene = Some(tolva_core::ambient::Scene::new(site, at));
        setup.face(to).expect("it is placed");
        assert!(setup.scene.is_some_and(|scene| (scene.facing_deg - facing).abs() < 1e-9));
    }

    /// A mark that is nudged by thirds ends as many thirds from where it stood.
    #[test]
    fn marks_are_nudged() {
        let (setup, kit) = setup();
        let mark = Placing { region_id: "behind".to_owned(), grip: Grip::Together, stops: 0.0, light_id: None };
        let there = mark_by(&setup, &kit, &mark, 0).expect("it stands");
        let on = mark_by(&setup, &kit, &mark, 4).expect("it stands");
        assert!((on.stops - there.stops - 4.0 / 3.0).abs() < 1e-9);
        let most = mark_by(&setup, &kit, &mark, 900).expect("it ends there");
        assert!((most.stops - Placing::STOPS.1).abs() < 1e-9);
        let warmer = colour_by(&setup, &kit, ColourGrip::Balance, 2, 0).expect("it stands");
        let now = colour_by(&setup, &kit, ColourGrip::Balance, 0, 0).expect("it stands");
        assert!((warmer.mired - now.mired - 10.0).abs() < 1e-9);
        let warmest = colour_by(&setup, &kit, ColourGrip::Balance, 5000, 900).expect("it ends there");
        assert!((warmest.mired - 1000.0).abs() < 1e-9);
    }
}
