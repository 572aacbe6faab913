//! A reading beats the estimate and corrects it: from then on a region follows the model of sun and sky, and keeps the
//! reading's offset from it.

use jiff::Timestamp;

use super::{LightNow, SceneLight};
use crate::ambient::Role;
use crate::exposure::{Ambient, Ev};
use crate::scale::Stops;
use crate::time::minutes_between;

/// What a region's exposure value rests on.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum AmbientSource {
    /// A guess.
    Guess,
    /// The model of sun and sky, or a handbook's typical light.
    Model,
    /// A reading.
    Read {
        /// How old it is, in minutes; negative where it is yet to come. Nothing where nobody noted when.
        minutes: Option<f64>,
        /// How far the light has moved since, by the model.
        moved: Stops,
    },
}

/// A region's light over time.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct CalibratedAmbient {
    role: Role,
    /// What is added to the model; nothing where there is no model to follow.
    offset: Option<Stops>,
    /// What holds without a model.
    fixed: Ev,
    read_at: Option<Timestamp>,
    read: bool,
}

/// A scene's light at the instants it was worked out for: the readings of one round share theirs.
#[derive(Clone, Debug)]
pub struct Lights<'a> {
    scene: &'a SceneLight,
    known: Vec<(Timestamp, LightNow)>,
}

impl<'a> Lights<'a> {
    /// Of a scene, whose light at its own hour is known.
    pub fn of(scene: &'a SceneLight, now: LightNow) -> Self {
        Self { scene, known: vec![(scene.at, now)] }
    }

    fn at(&mut self, at: Timestamp) -> LightNow {
        if let Some((_, light)) = self.known.iter().find(|(known, _)| *known == at) {
            return *light;
        }
        let light = self.scene.at(at);
        self.known.push((at, light));
        light
    }
}

impl CalibratedAmbient {
    /// A region's light, in a scene or without one. A reading whose hour was not noted counts as taken at the scene's.
    pub fn new(ambient: &Ambient, role: Role, lights: Option<&mut Lights<'_>>) -> Self {
        let taken = ambient.last();
        let ev = taken.map(crate::exposure::MeterReading::ev100);
        let fixed = ev.unwrap_or(Ev(ambient.guess_ev100));
        let read_at = taken
            .and_then(|taken| taken.at.as_ref())
            .zip(lights.as_deref())
            .and_then(|(at, l)| at.instant(&l.scene.zone).ok());
        let offset = lights.map(|lights| match ev {
            Some(ev) => ev - lights.at(read_at.unwrap_or(lights.scene.at)).of(role),
            None => Stops::ZERO,
        });
        Self { role, offset, fixed, read_at, read: taken.is_some() }
    }

    /// The exposure value under the scene's light at an instant.
    pub fn ev(&self, now: Option<&LightNow>) -> Ev {
        match (self.offset, now) {
            (Some(offset), Some(now)) => now.of(self.role) + offset,
            _ => self.fixed,
        }
    }

    /// What that value rests on at an instant.
    pub fn known(&self, at: Option<Timestamp>, now: Option<&LightNow>) -> AmbientSource {
        match (self.read, self.offset) {
            (true, _) => AmbientSource::Read {
                minutes: self.read_at.zip(at).map(|(read, at)| minutes_between(read, at)),
                moved: self.ev(now) - self.fixed,
            },
            (false, Some(_)) => AmbientSource::Model,
            (false, None) => AmbientSource::Guess,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::ambient::{Scene, Site};
    use crate::exposure::{EvReading, MeterReading, Reading};
    use crate::time::LocalTime;

    fn light() -> SceneLight {
        let site = Site {
            name: String::new(),
            latitude_deg: 60.0,
            longitude_deg: 25.0,
            elevation_m: 0.0,
            time_zone: "Europe/Helsinki".to_owned(),
        };
        SceneLight::new(&Scene::new(site, hour("19:46"))).expect("a good scene")
    }

    fn lights(light: &SceneLight) -> Lights<'_> {
        Lights::of(light, light.at(light.at))
    }

    fn hour(time: &str) -> LocalTime {
        LocalTime { date: "2026-08-29".to_owned(), time: time.to_owned(), second_time: false }
    }

    #[test]
    fn a_reading_follows_the_sun_and_keeps_its_offset() {
        let light = light();
        let reading =
            MeterReading { at: Some(hour("19:16")), ..MeterReading::of(Reading::Ev(EvReading { ev100: 12.6 })) };
        let ambient = Ambient { readings: vec![reading], ..Ambient::guessed(3.0) };
        let follower = CalibratedAmbient::new(&ambient, Role::Background, Some(&mut lights(&light)));
        let then = light.at(hour("19:16").instant(&light.zone).expect("then"));
        let now = light.at(light.at);
        assert!((follower.ev(Some(&then)).0 - 12.6).abs() < 1e-9);
        let moved = now.background - then.background;
        assert!(moved.0 < -0.05);
        assert!((follower.ev(Some(&now)).0 - 12.6 - moved.0).abs() < 1e-9);
        let AmbientSource::Read { minutes: Some(minutes), moved: said } = follower.known(Some(light.at), Some(&now))
        else {
            panic!("it was read")
        };
        assert!((minutes - 30.0).abs() < 1e-9 && (said.0 - moved.0).abs() < 1e-9);
    }

    #[test]
    fn without_a_reading_it_is_the_model_and_without_a_scene_the_guess() {
        let light = light();
        let now = light.at(light.at);
        let guess = Ambient::guessed(9.0);
        let modelled = CalibratedAmbient::new(&guess, Role::LitSide, Some(&mut lights(&light)));
        assert_eq!(
            (modelled.ev(Some(&now)), modelled.known(Some(light.at), Some(&now))),
            (now.lit, AmbientSource::Model)
        );
        let guessed = CalibratedAmbient::new(&guess, Role::LitSide, None);
        assert_eq!((guessed.ev(None), guessed.known(None, None)), (Ev(9.0), AmbientSource::Guess));
    }

    #[test]
    fn a_reading_without_an_hour_counts_as_taken_at_the_scenes() {
        let light = light();
        let now = light.at(light.at);
        let ambient = Ambient::read(Reading::Ev(EvReading { ev100: 10.0 }));
        let read = CalibratedAmbient::new(&ambient, Role::LitSide, Some(&mut lights(&light)));
        assert!((read.ev(Some(&now)).0 - 10.0).abs() < 1e-9);
        let later = light.at("2026-08-29T17:40:00Z".parse().expect("later"));
        assert!(read.ev(Some(&later)).0 < 9.5);
    }
}
