//! Light meters.

use rand_distr::{Distribution as _, Normal};
use tolva_core::exposure::{EvReading, MeterReading, MeteringMethod, Reading};
use tolva_planner::lighting::Prepared;
use tolva_planner::setup::Region;

use crate::{DeviceError, dice};

/// Reads the light on a region of the picture.
pub trait Meter {
    /// The reading at the setup's hour.
    ///
    /// # Errors
    /// The meter does not answer.
    fn read(&self, setup: &Prepared<'_>, region: &Region) -> Result<MeterReading, DeviceError>;
}

/// A stand-in for a real set: its light differs from the model as a real place does, the meter has an error of its own,
/// and no two readings are quite alike. The same for the same place, region, hour and seed.
#[derive(Clone, Copy, Debug, Default)]
pub struct SimulatedMeter {
    /// Another seed is another set and another meter.
    pub seed: u64,
}

/// One standard deviation, in stops: of a place's light about the model, of one side of it about that, of a meter about
/// the truth, and of one reading about another. Common practice, no source.
const PLACE: f64 = 0.45;
const SIDE: f64 = 0.2;
const METER: f64 = 0.15;
const READING: f64 = 0.05;

impl SimulatedMeter {
    fn off(self, words: &[&str], sigma: f64) -> f64 {
        let mut dice = dice(&[words, &[&self.seed.to_string()]].concat());
        Normal::new(0.0, sigma).map_or(0.0, |normal| normal.sample(&mut dice))
    }
}

impl Meter for SimulatedMeter {
    fn read(&self, setup: &Prepared<'_>, region: &Region) -> Result<MeterReading, DeviceError> {
        let Some(model) = setup.modelled(&region.id) else {
            return Err(DeviceError::Asked(format!("there is no region “{}” in this setup", region.id)));
        };
        let scene = setup.setup.scene.as_ref();
        let place = scene.map_or_else(String::new, |scene| {
            format!("{:.3} {:.3} {}", scene.site.latitude_deg, scene.site.longitude_deg, scene.at.date)
        });
        let hour = scene.map_or_else(String::new, |scene| scene.at.time.clone());
        let off = self.off(&["place", &place], PLACE)
            + self.off(&["side", &place, &region.id], SIDE)
            + self.off(&["meter"], METER)
            + self.off(&["reading", &place, &region.id, &hour], READING);
        let ev100 = ((model.0 + off) * 10.0).round() / 10.0;
        Ok(MeterReading {
            method: MeteringMethod::IncidentDome,
            at: scene.map(|scene| scene.at.clone()),
            simulated: true,
            ..MeterReading::of(Reading::Ev(EvReading { ev100: ev100.clamp(-10.0, 24.0) }))
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;
    use tolva_core::ambient::{Scene, Site};
    use tolva_core::time::LocalTime;
    use tolva_planner::setup::{Kit, Setup};

    fn setup(time: &str, latitude_deg: f64) -> (Setup, Kit) {
        let kit = Kit::starter();
        let mut setup = Setup::new("one", &kit);
        let time_zone = "Europe/Helsinki".to_owned();
        let site = Site { name: String::new(), latitude_deg, longitude_deg: 26.95, elevation_m: 0.0, time_zone };
        let at = LocalTime { date: "2026-08-29".to_owned(), time: time.to_owned(), second_time: false };
        setup.scene = Some(Scene::new(site, at));
        (setup, kit)
    }

    fn off(time: &str, latitude: f64, meter: SimulatedMeter) -> f64 {
        let (setup, kit) = setup(time, latitude);
        let checked = Prepared::new(&setup, &kit).expect("good");
        let taken = meter.read(&checked, &setup.regions[1]).expect("a reading");
        assert!(taken.simulated && taken.at.is_some() && taken.method == MeteringMethod::IncidentDome);
        taken.ev100().0 - checked.modelled("lit").expect("a model").0
    }

    /// A place keeps its difference from the model over the day, so that a reading is worth following.
    #[rstest]
    #[case("17:00", "18:30")]
    #[case("12:00", "12:40")]
    fn a_place_keeps_its_own_light(#[case] one: &str, #[case] other: &str) {
        let meter = SimulatedMeter::default();
        assert!((off(one, 60.47, meter) - off(other, 60.47, meter)).abs() < 0.4);
    }

    #[test]
    fn places_and_meters_differ_as_much_as_they_should() {
        let offs: Vec<f64> = (0..200u32)
            .map(|n| off("15:00", 50.0 + f64::from(n) / 20.0, SimulatedMeter { seed: u64::from(n) }))
            .collect();
        let mean = offs.iter().sum::<f64>() / 200.0;
        let sigma = (offs.iter().map(|off| (off - mean).powi(2)).sum::<f64>() / 199.0).sqrt();
        // The root of the sum of the squares: 0.52.
        assert!(mean.abs() < 0.15 && (0.42..0.63).contains(&sigma), "{mean} {sigma}");
    }

    #[test]
    fn the_same_again_and_a_region_that_is_not_there() {
        let meter = SimulatedMeter::default();
        assert!((off("17:00", 60.47, meter) - off("17:00", 60.47, meter)).abs() < 1e-12);
        let (setup, kit) = setup("17:00", 60.47);
        let checked = Prepared::new(&setup, &kit).expect("good");
        let mut region = setup.regions[0].clone();
        region.id = "sky".to_owned();
        assert!(meter.read(&checked, &region).expect_err("none").to_string().contains("“sky”"));
    }
}
