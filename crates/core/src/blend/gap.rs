//! What keeps a wish from being had, in stops.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::lights::DialledLight;
use super::outcome::Outcome;
use super::search::{HALF_CLICK, rounding, with_flash};
use super::sharpness::Sharp;
use super::wish::FlashWish;
use crate::flash::dark_band;
use crate::job::{Blend, CheckedLight, CheckedSetup, LightWish, Sync};
use crate::scale::{DialEnd, Setting, Stops};

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
    /// The aperture is wider than the depth asks for.
    TooShallow,
    /// The unit has no high-speed sync.
    NoHighSpeed,
    /// A region beside the lit side cannot be put in its place by the light that is aimed at it.
    RegionOff,
}

/// How far a region may end from its wish before it is told as a gap, in stops: where lights share regions, rounding
/// of each and what they spill onto one another come to this (chosen; common practice, no source).
pub(super) const UNTOLD: f64 = 0.5;

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
    /// The light it is about; null where it is about the camera.
    pub light_id: Option<String>,
}

impl Gap {
    fn new(limit: Limit, missing: Stops, says: String) -> Self {
        Self { limit, missing_stops: missing.0.abs(), missing: missing.amount(), says, light_id: None }
    }

    fn about(self, light: &CheckedLight<'_>) -> Self {
        Self { light_id: Some(light.light.id.clone()), ..self }
    }
}

pub(super) fn gaps(setup: &CheckedSetup<'_>, outcome: &Outcome) -> Vec<Gap> {
    let mut found = Vec::new();
    found.extend(camera_gap(setup, outcome));
    found.extend(lit_gap(setup, outcome));
    for (light, at) in setup.lights.iter().zip(&outcome.lights) {
        found.extend(light_gap(setup, outcome, light, at.as_ref()));
    }
    for region in 0..outcome.regions.len() {
        if !found.iter().any(|gap| gap.light_id.is_some()) {
            found.extend(region_gap(setup, outcome, region));
        }
    }
    found.extend(sync_gap(setup, outcome));
    found.extend(depth_gap(setup, outcome));
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
    let with_flash = with_flash(setup);
    let mut held = Vec::new();
    let shutter = settings.shutter.label();
    if setup.shutter.is_some() {
        held.push(format!("the shutter is fixed at {shutter}"));
    } else if wants_darker {
        held.push(if with_flash && setup.setup.sync != Sync::HighSpeed {
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

/// What no flash can do on the lit side.
fn lit_gap(setup: &CheckedSetup<'_>, outcome: &Outcome) -> Option<Gap> {
    let name = &setup.setup.regions[setup.lit].name;
    match outcome.wishes[setup.lit] {
        FlashWish::AmbientOver(over) if over.0 > HALF_CLICK => Some(Gap::new(
            Limit::AmbientTooBright,
            over,
            format!(
                "The ambient alone puts “{name}” {} over its place, and no flash can take light away.",
                over.amount()
            ),
        )),
        FlashWish::Wanted(_) if !setup.lights.iter().any(|light| light.aim == setup.lit) => {
            let says = if setup.lights.is_empty() {
                "This blend needs a flash, and the setup has none.".to_owned()
            } else {
                format!("This blend needs a flash on “{name}”, and none is aimed there.")
            };
            Some(Gap::new(Limit::NoFlash, Stops(1.0), says))
        }
        _ => None,
    }
}

/// What one light cannot do.
fn light_gap(
    setup: &CheckedSetup<'_>,
    outcome: &Outcome,
    light: &CheckedLight<'_>,
    at: Option<&DialledLight>,
) -> Option<Gap> {
    let at = at?;
    let region = &outcome.regions[light.aim];
    let short = at.exact.0 - at.power.0;
    // What rounding to the dial does is no gap; what the end of the dial, or a fixed power, does is one.
    let click = match light.step {
        crate::scale::PowerStep::Half => 0.25 + 1e-6,
        crate::scale::PowerStep::Whole => 0.5 + 1e-6,
        crate::scale::PowerStep::Tenth | crate::scale::PowerStep::Third => HALF_CLICK,
    };
    if short.0.abs() <= click {
        return None;
    }
    let wish = setup.setup.blend.region_wish(setup, light.aim);
    // Others may make up for it; and what a fill gives too much may not show.
    let off = wish.map_or(short, |wish| wish - region.together);
    let shows = setup.lights.len() == 1 || off.0.abs() > 2.0 * HALF_CLICK;
    if !shows {
        return None;
    }
    let (name, ends) = (&setup.setup.regions[light.aim].name, region.together.thirds());
    let (limit, how) =
        if short.0 > 0.0 { (Limit::FlashTooWeak, "too weak") } else { (Limit::FlashTooStrong, "too strong") };
    let why = if light.power.is_some() {
        "at its fixed power"
    } else if short.0 > 0.0 {
        "at full power"
    } else {
        "at its lowest power"
    };
    let which = match (setup.lights.len(), light.light.wish) {
        (1, LightWish::Key) => "The flash".to_owned(),
        _ => format!("{}, the {},", light.light.id, light.light.wish.name()),
    };
    let says = format!("{which} is {} {how} {why}: “{name}” ends at {ends}.", short.amount());
    Some(Gap::new(limit, short, says).about(light))
}

/// A region that ends away from its wish, though its light does what it can.
fn region_gap(setup: &CheckedSetup<'_>, outcome: &Outcome, region: usize) -> Option<Gap> {
    let light = setup.lights.iter().find(|light| light.aim == region)?;
    let wish = setup.setup.blend.region_wish(setup, region)?;
    let off = outcome.regions[region].together - wish;
    let told = region == setup.lit && !matches!(outcome.wishes[region], FlashWish::Wanted(_));
    if told || !setup.setup.blend.uses_flash() || off.0.abs() <= UNTOLD {
        return None;
    }
    let name = &setup.setup.regions[region].name;
    let why = match (outcome.wishes[region], off.0 > 0.0) {
        (FlashWish::AmbientOver(_), _) => "the ambient alone is over it",
        (_, true) => "other lights spill onto it",
        (_, false) => "more there would be too much elsewhere",
    };
    let over = if off.0 > 0.0 { "over" } else { "under" };
    let says = format!("“{name}” ends {} {over} its wish: {why}.", off.amount());
    Some(Gap::new(Limit::RegionOff, off, says).about(light))
}

fn sync_gap(setup: &CheckedSetup<'_>, outcome: &Outcome) -> Option<Gap> {
    if !outcome.flashes() {
        return None;
    }
    let shutter = outcome.settings.shutter;
    let band = dark_band(shutter, setup.sync_rated)?;
    let over = shutter.position() - setup.sync_rated.position();
    if setup.setup.sync == Sync::HighSpeed {
        let without = setup.lights.iter().find(|light| light.flash.high_speed_loss_stops.is_none())?;
        let says = format!(
            "{} has no high-speed sync, and {} is faster than {}.",
            without.flash.name,
            shutter.label(),
            setup.sync_rated.label()
        );
        return Some(Gap::new(Limit::NoHighSpeed, over, says).about(without));
    }
    let says = format!(
        "{} is faster than the sync speed of {}: about {:.0} % of the frame gets no flash.",
        shutter.label(),
        setup.sync_rated.label(),
        band * 100.0
    );
    Some(Gap::new(Limit::ShutterOverSync, over, says))
}

fn depth_gap(setup: &CheckedSetup<'_>, outcome: &Outcome) -> Option<Gap> {
    let sharp = Sharp::of(setup);
    let missing = sharp.missing(outcome.settings.aperture);
    let least = sharp.least.filter(|_| missing.0 > 0.0)?;
    let asked = Setting::<crate::scale::Aperture>::of((least.0 / 2.0).exp2()).label();
    let here = outcome.settings.aperture.label();
    let says = format!("The depth asks for {asked} or smaller; at {here} its ends are not sharp.");
    Some(Gap::new(Limit::TooShallow, missing, says))
}
