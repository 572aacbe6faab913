//! What keeps a wish from being had, in stops.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::lights::{DialledLight, in_frame};
use super::outcome::Outcome;
use super::search::{HALF_CLICK, half_click, rounding, with_flash};
use super::sharpness::Sharp;
use super::wish::FlashWish;
use crate::job::{Blend, CheckedLight, CheckedSetup, LightWish, Sync};
use tolva_core::flash::dark_band;
use tolva_core::scale::{DialEnd, Power, PowerStep, Setting, Step, Stops};

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
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
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
    /// The region it is about, by its place in the setup.
    #[serde(skip)]
    pub(super) region: Option<usize>,
    /// How the light stands, or would.
    #[serde(skip)]
    pub(super) at: Option<DialledLight>,
}

impl Gap {
    fn new(limit: Limit, missing: Stops, says: String) -> Self {
        Self {
            limit,
            missing_stops: missing.0.abs(),
            missing: missing.amount(),
            says,
            light_id: None,
            region: None,
            at: None,
        }
    }

    fn about(self, light: &CheckedLight<'_>, at: Option<DialledLight>) -> Self {
        Self { light_id: Some(light.light.id.clone()), at, ..self }
    }
}

pub(super) fn gaps(setup: &CheckedSetup<'_>, outcome: &Outcome) -> Vec<Gap> {
    let mut found = Vec::new();
    let placed = placed_gap(setup, outcome);
    let placed_region = setup.setup.blend.placed(setup).region;
    let placed_told = placed.is_some();
    found.extend(placed);
    let lit_first = std::iter::once(setup.lit).chain((0..outcome.regions.len()).filter(|region| *region != setup.lit));
    for region in lit_first {
        if region != placed_region || !placed_told || region == setup.lit {
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

/// Where the region that the camera is set for does not land where it is to.
fn placed_gap(setup: &CheckedSetup<'_>, outcome: &Outcome) -> Option<Gap> {
    let placed = setup.setup.blend.placed(setup);
    let region = &outcome.regions[placed.region];
    let ambient = region.ambient - placed.place;
    let whole = if placed.ambient_alone { ambient } else { region.together - placed.place };
    if whole.0.abs() <= rounding(setup) {
        return None;
    }
    if whole.0 > 0.0 && ambient.0 <= rounding(setup) {
        let name = &setup.setup.regions[placed.region].name;
        let says = format!("“{name}” ends {} over its wish: flashes spill onto it.", whole.amount());
        return Some(Gap { region: Some(placed.region), ..Gap::new(Limit::RegionOff, whole, says) });
    }
    // What is too dark may lie under its place by what no flash gives either.
    let darker = if whole.0 > 0.0 { ambient } else { whole };
    let (limit, how) =
        if darker.0 > 0.0 { (Limit::CameraTooBright, "brighter") } else { (Limit::CameraTooDark, "darker") };
    let held = held_by(setup, outcome, darker.0 > 0.0);
    let because = if held.is_empty() { String::new() } else { format!(": {}", held.join(", ")) };
    let says = format!("The light that is there comes out {} {how} than wished{because}.", darker.amount());
    Some(Gap { region: Some(placed.region), ..Gap::new(limit, darker, says) })
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

/// Where a region does not land on its wish: what the ambient, its light, or other lights have to do with that.
fn region_gap(setup: &CheckedSetup<'_>, outcome: &Outcome, region: usize) -> Option<Gap> {
    let blend = setup.setup.blend;
    let (lit, several) = (region == setup.lit, setup.lights.len() > 1);
    let name = &setup.setup.regions[region].name;
    let told = |gap: Gap| Gap { region: Some(region), ..gap };
    let aimed: Vec<usize> = (0..setup.lights.len()).filter(|light| setup.lights[*light].aim == region).collect();
    match outcome.wishes[region] {
        FlashWish::Unused => return None,
        FlashWish::AmbientOver(over) if lit => {
            return (over.0 > HALF_CLICK).then(|| {
                let says = format!(
                    "The ambient alone puts “{name}” {} over its place, and no flash can take light away.",
                    over.amount()
                );
                told(Gap::new(Limit::AmbientTooBright, over, says))
            });
        }
        FlashWish::Wanted(_) if !setup.lights.iter().any(|light| light.reaches[region].0.is_finite()) => {
            let says = if setup.lights.is_empty() {
                "This blend needs a flash, and the setup has none.".to_owned()
            } else {
                format!("This blend needs a flash on “{name}”, and none is aimed there.")
            };
            return Some(told(Gap::new(Limit::NoFlash, Stops(1.0), says)));
        }
        FlashWish::AmbientOver(_) | FlashWish::Wanted(_) => {}
    }
    let off = outcome.regions[region].together - outcome.targets[region]?;
    // What rounding to the dial does is no gap; what the end of the dial, or a fixed power, does is one. Where several
    // lights meet, what one gives too much may not show.
    let click = aimed.iter().map(|light| power_rounding(setup.lights[*light].step)).fold(HALF_CLICK, f64::max);
    let shows = if several { click.max(2.0 * HALF_CLICK) } else { click };
    if off.0.abs() <= shows || !blend.uses_flash() {
        return None;
    }
    if matches!(outcome.wishes[region], FlashWish::Wanted(_)) {
        let at_end = aimed.iter().find_map(|&light| Some((light, light_at_its_end(setup, outcome, light, off)?)));
        if let Some((light, at)) = at_end {
            return Some(told(light_gap(setup, outcome, light, at)));
        }
    }
    if off.0.abs() <= UNTOLD {
        return None;
    }
    let why = match (outcome.wishes[region], off.0 > 0.0) {
        (FlashWish::AmbientOver(_), _) => "the ambient alone is over it",
        (_, true) => "other lights spill onto it",
        (_, false) => "more there would be too much elsewhere",
    };
    let over = if off.0 > 0.0 { "over" } else { "under" };
    let says = format!("“{name}” ends {} {over} its wish: {why}.", off.amount());
    let gap = told(Gap::new(Limit::RegionOff, off, says));
    Some(match aimed.first() {
        Some(light) => gap.about(&setup.lights[*light], None),
        None => gap,
    })
}

/// What rounding alone can do on a unit's power dial: on the finest, what it does on the camera's.
fn power_rounding(step: PowerStep) -> f64 {
    half_click(match step {
        PowerStep::Half => Step::Half,
        PowerStep::Whole => Step::Whole,
        PowerStep::Tenth | PowerStep::Third => Step::Third,
    })
}

/// A light at the end of what it can do, on the side on which its region is off: as it stands, or where it is off since
/// its lowest power would be too much, as it would stand at that.
fn light_at_its_end(setup: &CheckedSetup<'_>, outcome: &Outcome, index: usize, off: Stops) -> Option<DialledLight> {
    let light = &setup.lights[index];
    let end = match outcome.lights[index] {
        Some(at) => {
            let short = at.exact.0 - at.power.0;
            let same_way = (short.0 > 0.0) == (off.0 < 0.0);
            return (same_way && short.0.abs() > power_rounding(light.step)).then_some(at);
        }
        None if light.power.is_some() || off.0 > 0.0 => return None,
        None => light.lowest,
    };
    let distance = light.distance.unwrap_or_else(|| light.usual_distance());
    let FlashWish::Wanted(wanted) = outcome.wishes[light.aim] else { return None };
    let exact = Power(end.0 + wanted - in_frame(setup, light, (distance, end), outcome.settings));
    (exact < end).then_some(DialledLight { distance, exact, power: end })
}

/// What one light cannot do.
fn light_gap(setup: &CheckedSetup<'_>, outcome: &Outcome, index: usize, at: DialledLight) -> Gap {
    let light = &setup.lights[index];
    let short = at.exact.0 - at.power.0;
    let (name, ends) = (&setup.setup.regions[light.aim].name, outcome.regions[light.aim].together.thirds());
    let (limit, how) =
        if short.0 > 0.0 { (Limit::FlashTooWeak, "too weak") } else { (Limit::FlashTooStrong, "too strong") };
    let why = if light.power.is_some() {
        "at its fixed power"
    } else if short.0 > 0.0 {
        "at full power"
    } else if outcome.lights[index].is_none() {
        "even at its lowest power, so it is off"
    } else {
        "at its lowest power"
    };
    let which = match (setup.lights.len(), light.light.wish) {
        (1, LightWish::Key) => "The flash".to_owned(),
        _ => format!("{}, the {},", light.light.id, light.light.wish.name()),
    };
    let says = format!("{which} is {} {how} {why}: “{name}” ends at {ends}.", short.amount());
    Gap::new(limit, short, says).about(light, Some(at))
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
        return Some(Gap::new(Limit::NoHighSpeed, over, says).about(without, None));
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
    let asked = Setting::<tolva_core::scale::Aperture>::of((least.0 / 2.0).exp2()).label();
    let here = outcome.settings.aperture.label();
    let says = format!("The depth asks for {asked} or smaller; at {here} its ends are not sharp.");
    Some(Gap::new(Limit::TooShallow, missing, says))
}
