//! What falls on a region at an instant, before any flash: the one answer that plan, day strip and timetable share.

use tolva_core::ambient::{CalibratedAmbient, LightNow};
use tolva_core::exposure::Ev;
use tolva_core::scale::Stops;

use crate::staging::CardsOnRegion;

/// The light on a region over time: what is there by model or reading, past the cards of the set and through film, and
/// continuous lights.
#[derive(Clone, Debug)]
pub struct RegionLight {
    /// Sun, sky or room, with the readings taken of them.
    pub follower: CalibratedAmbient,
    /// What film on the window takes, in stops: 0 or more.
    pub film: Stops,
    /// What the cards of the set do to daylight; nothing where there are none, or no daylight.
    pub cards: Option<CardsOnRegion>,
    /// What the setup's continuous lights give, on the scale of EV: they do not fall with the sun.
    pub lamps: Stops,
}

impl RegionLight {
    /// The ambient at an instant, through film and without continuous lights.
    pub fn there(&self, now: Option<&LightNow>) -> Ev {
        let by_cards = self.cards.as_ref().zip(now).map_or(Stops::ZERO, |(cards, now)| cards.by(now));
        self.follower.ev(now) - self.film + by_cards
    }

    /// All of it: with the continuous lights.
    pub fn all(&self, now: Option<&LightNow>) -> Ev {
        Ev(Stops(self.there(now).0).and(self.lamps).0)
    }
}
