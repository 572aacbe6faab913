//! What keeps a wish from being had, in stops.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::outcome::Outcome;
use super::search::{HALF_CLICK, rounding};
use super::wish::FlashWish;
use crate::flash::dark_band;
use crate::job::{Blend, CheckedSetup};
use crate::scale::{DialEnd, Stops};

/// Which limit a wish runs into.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Limit {
    /// The flash cannot give so much.
    FlashTooWeak,
    /// The flash cannot give so little.
    FlashTooStrong,
    /// The blend needs a flash and the setup has none.
    NoFlash,
    /// The ambient alone already puts the subject over its place.
    AmbientTooBright,
    /// The camera cannot be set dark enough.
    CameraTooBright,
    /// The camera cannot be set bright enough.
    CameraTooDark,
    /// The shutter is faster than the flash can follow.
    ShutterOverSync,
    /// The subject is not dark enough against what lies behind.
    NotASilhouette,
}

/// What is missing.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Gap {
    /// The limit that binds.
    pub limit: Limit,
    /// How much is missing, in stops.
    pub missing_stops: f64,
    /// The same, as said: `1⅓ stops`.
    pub missing: String,
    /// What it means, in a sentence.
    pub says: String,
}

impl Gap {
    fn new(limit: Limit, missing: Stops, says: String) -> Self {
        Self { limit, missing_stops: missing.0.abs(), missing: missing.amount(), says }
    }
}

pub(super) fn gaps(setup: &CheckedSetup<'_>, outcome: &Outcome) -> Vec<Gap> {
    let mut found = Vec::new();
    found.extend(camera_gap(setup, outcome));
    found.extend(flash_gap(setup, outcome));
    found.extend(sync_gap(setup, outcome));
    if let Blend::Silhouette { .. } = setup.setup.blend {
        let over = outcome.regions[setup.lit].together - outcome.regions[setup.behind].together + Stops(3.0);
        if over.0 > HALF_CLICK {
            let says = format!(
                "A silhouette wants the subject three stops under what lies behind; the lit side is {} too bright for it.",
                over.amount()
            );
            found.push(Gap::new(Limit::NotASilhouette, over, says));
        }
    }
    found
}

fn camera_gap(setup: &CheckedSetup<'_>, outcome: &Outcome) -> Option<Gap> {
    let stands = outcome.settings.ev100() + setup.filter;
    let darker = stands - setup.setup.blend.camera_ev(setup);
    if darker.0.abs() <= rounding(setup) {
        return None;
    }
    let (limit, how) =
        if darker.0 < 0.0 { (Limit::CameraTooBright, "brighter") } else { (Limit::CameraTooDark, "darker") };
    let held = held_by(setup, outcome, darker.0 < 0.0);
    let because = if held.is_empty() { String::new() } else { format!(": {}", held.join(", ")) };
    let says = format!("The light that is there comes out {} {how} than wished{because}.", darker.amount());
    Some(Gap::new(limit, darker, says))
}

/// What keeps the camera from going darker (or brighter): what is fixed, and which dials are at their end.
fn held_by(setup: &CheckedSetup<'_>, outcome: &Outcome, wants_darker: bool) -> Vec<String> {
    let settings = outcome.settings;
    let with_flash = setup.setup.blend.uses_flash() && setup.light.is_some();
    let mut held = Vec::new();
    let shutter = settings.shutter.label();
    if setup.shutter.is_some() {
        held.push(format!("the shutter is fixed at {shutter}"));
    } else if wants_darker {
        held.push(if with_flash {
            format!("{shutter} is the fastest safe sync")
        } else {
            format!("{shutter} is the fastest shutter")
        });
    } else {
        held.push(format!("{shutter} is the slowest shutter allowed"));
    }
    let aperture = settings.aperture.label();
    if setup.aperture.is_some() {
        held.push(format!("the aperture is fixed at {aperture}"));
    } else {
        let end = if wants_darker { "the smallest aperture" } else { "the widest aperture" };
        held.push(format!("{aperture} is {end}"));
    }
    let iso = settings.iso.label();
    if setup.iso.is_some() {
        held.push(format!("{iso} is fixed"));
    } else if let Some(end) = setup.isos.end_of(settings.iso) {
        held.push(format!("{iso} is the {}", if end == DialEnd::Low { "lowest" } else { "highest acceptable" }));
    }
    held
}

fn flash_gap(setup: &CheckedSetup<'_>, outcome: &Outcome) -> Option<Gap> {
    let name = &setup.setup.regions[setup.lit].name;
    match outcome.wish {
        FlashWish::Unused => None,
        FlashWish::AmbientOver(over) if over.0 <= HALF_CLICK => None,
        FlashWish::AmbientOver(over) => Some(Gap::new(
            Limit::AmbientTooBright,
            over,
            format!(
                "The ambient alone puts “{name}” {} over its place, and no flash can take light away.",
                over.amount()
            ),
        )),
        FlashWish::Wanted(_) => {
            let (Some(light), Some(chosen)) = (&outcome.light, &setup.light) else {
                let says = "This blend needs a flash, and the setup has none.".to_owned();
                return Some(Gap::new(Limit::NoFlash, Stops(1.0), says));
            };
            let short = light.exact.0 - light.power.0;
            // What rounding to the dial does is no gap; what the end of the dial, or a fixed power, does is one.
            let click = match chosen.step {
                crate::scale::PowerStep::Half => 0.25 + 1e-6,
                crate::scale::PowerStep::Whole => 0.5 + 1e-6,
                crate::scale::PowerStep::Tenth | crate::scale::PowerStep::Third => HALF_CLICK,
            };
            if short.0.abs() <= click {
                return None;
            }
            let ends = outcome.regions[setup.lit].together.thirds();
            let (limit, how) =
                if short.0 > 0.0 { (Limit::FlashTooWeak, "too weak") } else { (Limit::FlashTooStrong, "too strong") };
            let why = if chosen.power.is_some() {
                "at its fixed power"
            } else if short.0 > 0.0 {
                "at full power"
            } else {
                "at its lowest power"
            };
            let says = format!("The flash is {} {how} {why}: “{name}” ends at {ends}.", short.amount());
            Some(Gap::new(limit, short, says))
        }
    }
}

fn sync_gap(setup: &CheckedSetup<'_>, outcome: &Outcome) -> Option<Gap> {
    outcome.light?;
    let shutter = outcome.settings.shutter;
    let band = dark_band(shutter, setup.sync_rated)?;
    let over = shutter.position() - setup.sync_rated.position();
    let says = format!(
        "{} is faster than the sync speed of {}: about {:.0} % of the frame gets no flash.",
        shutter.label(),
        setup.sync_rated.label(),
        band * 100.0
    );
    Some(Gap::new(Limit::ShutterOverSync, over, says))
}
