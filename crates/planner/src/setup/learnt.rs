//! What frames have taught about things that nobody knows: how much more light there is than their figures say.

use super::{Camera, Flash, Light, Meter, Setup};
use tolva_core::frame::{Belief, Estimate, NotABelief};
use tolva_core::scale::Stops;

/// Something that is not known of a setup and shows in its frames.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Unknown {
    /// The camera with its lens: how much brighter its frames come than its settings say.
    Camera {
        /// The camera.
        camera_id: String,
        /// Its lens.
        lens_id: String,
    },
    /// A meter that the light there was read with.
    Meter {
        /// The meter.
        meter_id: String,
    },
    /// The light that is there, on a region.
    Ambient {
        /// The region.
        region_id: String,
    },
    /// What a light gives where it is aimed: its unit, what is before it, how far it stands.
    Light {
        /// The light.
        light_id: String,
        /// Its unit.
        flash_id: String,
        /// What is before it.
        modifier_id: Option<String>,
    },
    /// What a light gives a region it is not aimed at, beside what it gives where it is aimed.
    Spill {
        /// The light.
        light_id: String,
        /// The region.
        region_id: String,
    },
}

impl Unknown {
    /// What kind it is, as a word that stays.
    pub fn code(&self) -> &'static str {
        match self {
            Self::Camera { .. } => "camera",
            Self::Meter { .. } => "meter",
            Self::Ambient { .. } => "ambient",
            Self::Light { .. } => "light",
            Self::Spill { .. } => "spill",
        }
    }
}

/// What is believed of one unknown.
#[derive(Clone, Debug, PartialEq)]
pub struct Believed {
    /// What.
    pub what: Unknown,
    /// How much more of it there is than its figures say, in stops.
    pub more_stops: f64,
    /// One standard deviation of that, in stops, over nothing.
    pub sure_stops: f64,
}

/// What frames have taught.
#[derive(Clone, Debug, PartialEq)]
pub struct Learnt {
    /// What is believed of each unknown.
    pub of: Vec<Believed>,
    /// How they are bound to each other: correlations, −1 to 1, of each with those before it, one after the other. A frame
    /// that shows a sum knows it better than its parts.
    pub bound: Vec<f64>,
    /// How many frames it was learnt from.
    pub frames: u32,
    /// Which of those that are kept, by their ids.
    pub from: Vec<String>,
}

/// How much brighter frames come through the camera and lens of a setup than its settings say: what this setup's frames have
/// taught, otherwise what is kept with the camera.
pub fn camera_more(setup: &Setup, camera: &Camera) -> Stops {
    let learnt = setup.learnt.as_ref().and_then(|learnt| learnt.camera(setup));
    learnt.or_else(|| camera.tuned_with(&setup.lens_id).map(|one| Stops(one.more_stops))).unwrap_or(Stops::ZERO)
}

/// How much more light there is than a meter says: what this setup's frames have taught, otherwise what is kept with it.
pub fn meter_more(setup: &Setup, meter: &Meter) -> Stops {
    let learnt = setup.learnt.as_ref().and_then(|learnt| learnt.meter(&meter.id));
    learnt.unwrap_or(Stops(meter.more_stops))
}

/// How much more a light gives where it is aimed than its figures say: what this setup's frames have taught, otherwise what is
/// kept with its unit.
pub fn light_more(setup: &Setup, light: &Light, flash: &Flash) -> Stops {
    let learnt = setup.learnt.as_ref().and_then(|learnt| learnt.light(light));
    let kept = || flash.tuned_through(light.modifier_id.as_deref()).map(|one| Stops(one.more_stops));
    learnt.or_else(kept).unwrap_or(Stops::ZERO)
}

impl Believed {
    /// As an estimate of the core.
    pub fn estimate(&self) -> Estimate {
        Estimate { more: Stops(self.more_stops), sure: Stops(self.sure_stops) }
    }
}

impl Learnt {
    /// As a belief of the core.
    ///
    /// # Errors
    /// Certainties or correlations that are none.
    pub fn belief(&self) -> Result<Belief, NotABelief> {
        let each: Vec<Estimate> = self.of.iter().map(Believed::estimate).collect();
        Belief::bound(&each, &self.bound)
    }

    /// A belief of the core about these unknowns.
    pub fn of_belief(what: Vec<Unknown>, belief: &Belief, frames: u32, from: Vec<String>) -> Self {
        let of = what
            .into_iter()
            .enumerate()
            .map(|(at, what)| {
                let Estimate { more, sure } = belief.of(at);
                Believed { what, more_stops: more.0, sure_stops: sure.0 }
            })
            .collect();
        Self { of, bound: belief.correlations(), frames, from }
    }

    fn more(&self, is: impl Fn(&Unknown) -> bool) -> Option<Stops> {
        self.of.iter().find(|one| is(&one.what)).map(|one| Stops(one.more_stops))
    }

    /// How much brighter this camera's frames come through this lens.
    pub fn camera(&self, setup: &Setup) -> Option<Stops> {
        self.more(|one| match one {
            Unknown::Camera { camera_id, lens_id } => *camera_id == setup.camera_id && *lens_id == setup.lens_id,
            _ => false,
        })
    }

    /// How much more light there is than a meter says.
    pub fn meter(&self, of: &str) -> Option<Stops> {
        self.more(|one| matches!(one, Unknown::Meter { meter_id } if meter_id == of))
    }

    /// How much more light there is on a region.
    pub fn ambient(&self, of: &str) -> Stops {
        self.more(|one| matches!(one, Unknown::Ambient { region_id } if region_id == of)).unwrap_or(Stops::ZERO)
    }

    /// How much more a light gives where it is aimed, as it stands.
    pub fn light(&self, of: &Light) -> Option<Stops> {
        self.more(|one| match one {
            Unknown::Light { light_id, flash_id, modifier_id } => {
                *light_id == of.id && *flash_id == of.flash_id && *modifier_id == of.modifier_id
            }
            _ => false,
        })
    }

    /// How much more a light gives a region it is not aimed at, beside what it gives where it is aimed.
    pub fn spill(&self, of: &str, on: &str) -> Stops {
        let spill =
            |one: &Unknown| matches!(one, Unknown::Spill { light_id, region_id } if light_id == of && region_id == on);
        self.more(spill).unwrap_or(Stops::ZERO)
    }
}
