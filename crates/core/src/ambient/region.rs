//! What falls on a region at an instant, before any flash: the one answer that plan, day strip and timetable share.

use super::calibrated::CalibratedAmbient;
use super::scene_light::LightNow;
use crate::exposure::Ev;
use crate::scale::Stops;

/// The light on a region over time: what is there by model or reading, through film, and the lamps that burn on.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct RegionLight {
    /// Sun, sky or room, with the readings taken of them.
    pub follower: CalibratedAmbient,
    /// What film on the window takes, in stops: 0 or more.
    pub film: Stops,
    /// What the setup's lamps give, on the scale of EV: they do not fall with the sun.
    pub lamps: Stops,
}

impl RegionLight {
    /// The light that is there at an instant, through film and without lamps.
    pub fn there(&self, now: Option<&LightNow>) -> Ev {
        self.follower.ev(now) - self.film
    }

    /// All of it: with the lamps.
    pub fn all(&self, now: Option<&LightNow>) -> Ev {
        Ev(Stops(self.there(now).0).and(self.lamps).0)
    }
}
