//! What keeps a wish from being had: shortfalls, in stops.

use tolva_core::exposure::CameraSettings;
use tolva_core::flash::dark_band;
use tolva_core::scale::{Aperture, DialEnd, Power, PowerStep, Setting, Shutter, Step, Stops};

use crate::depth::Sharp;
use crate::lighting::{FlashWish, Prepared};
use crate::setup::{Blend, FlashIndex, LOWEST_PLACE, LightIndex, Sync};
use crate::solver::{DialledLight, HALF_CLICK, Outcome, half_click, in_frame, rounding};

/// Which limit a wish runs into.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
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
    /// A region ends over its place, and the light that is aimed at it cannot help that.
    RegionOver,
    /// A region ends under its place, and the light that is aimed at it cannot help that.
    RegionUnder,
}

/// What holds a dial of the camera.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum Held {
    /// The photographer fixed the shutter.
    ShutterFixed,
    /// It is as fast as the flash follows for sure.
    FastestSync,
    /// It is as fast as it goes.
    FastestShutter,
    /// It is as slow as is allowed.
    SlowestShutter,
    /// The photographer fixed the aperture.
    ApertureFixed,
    /// It is as small as it goes.
    SmallestAperture,
    /// It is as wide as it goes.
    WidestAperture,
    /// The photographer fixed the ISO.
    IsoFixed,
    /// It is as low as it goes.
    LowestIso,
    /// It is as high as is acceptable.
    HighestIso,
}

/// What makes a shortfall.
#[derive(Clone, Debug, PartialEq)]
pub enum Because {
    /// What holds the camera's dials.
    Held(Vec<Held>),
    /// Flashes spill onto the region the camera is set for.
    FlashesSpill,
    /// The ambient alone is over it.
    AmbientAlone,
    /// Other lights spill onto it.
    OtherLightsSpill,
    /// More there would be too much elsewhere.
    TooMuchElsewhere,
    /// The setup has no flash.
    NoFlashAtAll,
    /// No flash is aimed there.
    NoneAimedThere,
    /// The light's power is fixed.
    PowerFixed,
    /// The light gives all it can.
    FullPower,
    /// The light gives as little as it can.
    LowestPower,
    /// The light's lowest power would be too much, so it is off.
    OffAtLowestPower,
    /// The unit has no high-speed sync, and the shutter is faster than this rated one.
    NoHighSpeed(Setting<Shutter>),
    /// The shutter is faster than the rated sync.
    OverSync {
        /// The rated sync.
        rated: Setting<Shutter>,
        /// So much of the frame gets no flash, 0 to 1.
        dark_band: f64,
    },
    /// The depth asks for this aperture or a smaller one.
    DepthAsks(Setting<Aperture>),
    /// The subject is to lie three stops under what lies behind.
    Silhouette,
}

/// How far a region may end from its wish before it is told as a shortfall, in stops: where lights share regions,
/// rounding of each and what they spill onto one another come to this (chosen; common practice, no source).
pub const TOLERATED: f64 = 0.5;

/// What is missing from a wish.
#[derive(Clone, Debug, PartialEq)]
pub struct Shortfall {
    /// The limit that is run into.
    pub limit: Limit,
    /// How much is missing: 0 or more.
    pub missing: Stops,
    /// What makes it.
    pub because: Because,
    /// The light it is about, by its place in the setup; nothing where it is about the camera.
    pub light: Option<LightIndex>,
    /// The region it is about, by its place in the setup.
    pub region: Option<usize>,
    /// Where the region ends, from mid grey.
    pub ends: Option<Stops>,
    /// How the light stands, or would.
    pub at: Option<DialledLight>,
}

impl Shortfall {
    fn new(limit: Limit, missing: Stops, because: Because) -> Self {
        Self { limit, missing: Stops(missing.0.abs()), because, light: None, region: None, ends: None, at: None }
    }

    fn on(self, region: usize, outcome: &Outcome) -> Self {
        Self { region: Some(region), ends: Some(outcome.regions[region].together), ..self }
    }
}

/// All that is missing from a setup's wish as it came out, the most telling first.
pub fn shortfalls(setup: &Prepared<'_>, outcome: &Outcome) -> Vec<Shortfall> {
    let mut found = Vec::new();
    let placed = placed_shortfall(setup, outcome);
    let placed_region = setup.setup.blend.placed(setup).region;
    let placed_told = placed.is_some();
    found.extend(placed);
    let lit_first = std::iter::once(setup.lit).chain((0..outcome.regions.len()).filter(|region| *region != setup.lit));
    for region in lit_first {
        if region != placed_region || !placed_told || region == setup.lit {
            found.extend(region_shortfall(setup, outcome, region));
        }
    }
    found.extend(sync_shortfall(setup, outcome));
    found.extend(depth_shortfall(setup, outcome));
    if let Blend::Silhouette { .. } = setup.setup.blend {
        let over = outcome.regions[setup.lit].together - outcome.regions[setup.background].together + Stops(3.0);
        if over.0 > HALF_CLICK {
            found.push(Shortfall::new(Limit::NotASilhouette, over, Because::Silhouette));
        }
    }
    found
}

/// Where the region that the camera is set for does not land where it is to.
fn placed_shortfall(setup: &Prepared<'_>, outcome: &Outcome) -> Option<Shortfall> {
    let placed = setup.setup.blend.placed(setup);
    let ambient = outcome.regions[placed.region].ambient - placed.place;
    let whole = outcome.placed_off(setup);
    let is_black = whole.0 < 0.0 && placed.place.0 <= LOWEST_PLACE;
    if whole.0.abs() <= rounding(setup) || is_black {
        return None;
    }
    if whole.0 > 0.0 && ambient.0 <= rounding(setup) {
        return Some(Shortfall::new(Limit::RegionOver, whole, Because::FlashesSpill).on(placed.region, outcome));
    }
    // What is too dark may lie under its place by what no flash gives either.
    let darker = if whole.0 > 0.0 { ambient } else { whole };
    let limit = if darker.0 > 0.0 { Limit::CameraTooBright } else { Limit::CameraTooDark };
    let held = held_by(setup, outcome, darker.0 > 0.0);
    Some(Shortfall::new(limit, darker, Because::Held(held)).on(placed.region, outcome))
}

/// What keeps the camera from going darker (or brighter): what is fixed, and which dials are at their end.
fn held_by(setup: &Prepared<'_>, outcome: &Outcome, wants_darker: bool) -> Vec<Held> {
    let synced = setup.with_flash() && setup.setup.sync != Sync::HighSpeed;
    let CameraSettings { shutter, aperture, iso } = outcome.settings;
    // Whether the dial has a setting on that side which the limits leave.
    let slower = || {
        setup.shutters.settings().any(|one| {
            let floor = setup.slowest.position().0 - 1e-6;
            one.position() < shutter.position() && one.position().0 >= floor
        })
    };
    let faster = || {
        let ceiling = if synced { setup.sync_safe.position().0 + 1e-6 } else { f64::INFINITY };
        setup.shutters.settings().any(|one| one.position() > shutter.position() && one.position().0 <= ceiling)
    };
    let shutter = match (setup.shutter, wants_darker) {
        (Some(_), _) => Some(Held::ShutterFixed),
        (None, true) if synced => (!faster()).then_some(Held::FastestSync),
        (None, true) => (!faster()).then_some(Held::FastestShutter),
        (None, false) => (!slower()).then_some(Held::SlowestShutter),
    };
    let aperture = match (setup.aperture, setup.apertures.end_of(aperture), wants_darker) {
        (Some(_), ..) => Some(Held::ApertureFixed),
        (None, Some(DialEnd::High), true) => Some(Held::SmallestAperture),
        (None, Some(DialEnd::Low), false) => Some(Held::WidestAperture),
        (None, ..) => None,
    };
    let iso = match (setup.iso, setup.isos.end_of(iso), wants_darker) {
        (Some(_), ..) => Some(Held::IsoFixed),
        (None, Some(DialEnd::Low), true) => Some(Held::LowestIso),
        (None, Some(DialEnd::High), false) => Some(Held::HighestIso),
        (None, ..) => None,
    };
    [shutter, aperture, iso].into_iter().flatten().collect()
}

/// Where a region does not land on its wish: what the ambient, its light, or other lights have to do with that.
fn region_shortfall(setup: &Prepared<'_>, outcome: &Outcome, region: usize) -> Option<Shortfall> {
    let (lit, several) = (region == setup.lit, setup.lights.len() > 1);
    let aimed: Vec<usize> = (0..setup.lights.len()).filter(|light| setup.lights[*light].aimed_at == region).collect();
    match outcome.wishes[region] {
        FlashWish::Unused => return None,
        FlashWish::AmbientOver(over) if lit => {
            let told = || Shortfall::new(Limit::AmbientTooBright, over, Because::AmbientAlone).on(region, outcome);
            return (over.0 > HALF_CLICK).then(told);
        }
        FlashWish::Wanted(_) if !setup.lights.iter().any(|light| setup.fires(light) && light.reaches(region)) => {
            let off = outcome.regions[region].together - outcome.targets[region].unwrap_or(Stops::ZERO);
            if let Some(lamp) = setup.lamps.iter().find(|lamp| lamp.aimed_at == region) {
                if off.0.abs() <= TOLERATED {
                    return None;
                }
                let found = Shortfall::new(Limit::FlashTooWeak, off, Because::FullPower).on(region, outcome);
                return Some(Shortfall { light: Some(lamp.index), ..found });
            }
            let because = if setup.lights.is_empty() { Because::NoFlashAtAll } else { Because::NoneAimedThere };
            return Some(Shortfall::new(Limit::NoFlash, Stops(1.0), because).on(region, outcome));
        }
        FlashWish::AmbientOver(_) | FlashWish::Wanted(_) => {}
    }
    let off = outcome.regions[region].together - outcome.targets[region]?;
    // What rounding to the dial does is no shortfall; what the end of the dial, or a fixed power, does is one. Where
    // several lights meet, what one gives too much may not show.
    let click = aimed.iter().map(|light| power_rounding(setup.lights[*light].step)).fold(HALF_CLICK, f64::max);
    let shows = if several { click.max(2.0 * HALF_CLICK) } else { click };
    if off.0.abs() <= shows || !setup.with_flash() {
        return None;
    }
    if matches!(outcome.wishes[region], FlashWish::Wanted(_)) {
        let mut flashes = aimed.iter().map(|light| FlashIndex(*light));
        let at_end = flashes.find_map(|light| Some((light, light_at_its_end(setup, outcome, light, off)?)));
        if let Some((light, at)) = at_end {
            return Some(light_shortfall(setup, outcome, light, at).on(region, outcome));
        }
    }
    if off.0.abs() <= TOLERATED {
        return None;
    }
    let because = match (outcome.wishes[region], off.0 > 0.0) {
        (FlashWish::AmbientOver(_), _) => Because::AmbientAlone,
        (_, true) => Because::OtherLightsSpill,
        (_, false) => Because::TooMuchElsewhere,
    };
    let limit = if off.0 > 0.0 { Limit::RegionOver } else { Limit::RegionUnder };
    Some(Shortfall {
        light: aimed.first().map(|light| setup.lights[*light].index),
        ..Shortfall::new(limit, off, because).on(region, outcome)
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
fn light_at_its_end(setup: &Prepared<'_>, outcome: &Outcome, index: FlashIndex, off: Stops) -> Option<DialledLight> {
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
    let FlashWish::Wanted(wanted) = outcome.wishes[light.aimed_at] else { return None };
    let exact = Power(end.0 + wanted - in_frame(setup, light, (distance, end), outcome.settings));
    (exact < end).then_some(DialledLight { distance, exact, power: end })
}

/// What one light cannot do.
fn light_shortfall(setup: &Prepared<'_>, outcome: &Outcome, index: FlashIndex, at: DialledLight) -> Shortfall {
    let short = at.exact.0 - at.power.0;
    let limit = if short.0 > 0.0 { Limit::FlashTooWeak } else { Limit::FlashTooStrong };
    let because = if setup.lights[index].power.is_some() {
        Because::PowerFixed
    } else if short.0 > 0.0 {
        Because::FullPower
    } else if outcome.lights[index].is_none() {
        Because::OffAtLowestPower
    } else {
        Because::LowestPower
    };
    Shortfall { light: Some(setup.lights[index].index), at: Some(at), ..Shortfall::new(limit, short, because) }
}

fn sync_shortfall(setup: &Prepared<'_>, outcome: &Outcome) -> Option<Shortfall> {
    if !outcome.flashes() {
        return None;
    }
    let shutter = outcome.settings.shutter;
    let dark_band = dark_band(shutter, setup.sync_rated)?;
    let over = shutter.position() - setup.sync_rated.position();
    if setup.setup.sync == Sync::HighSpeed {
        let without = setup.lights.iter().find(|light| light.flash.high_speed_loss_stops.is_none())?;
        let shortfall = Shortfall::new(Limit::NoHighSpeed, over, Because::NoHighSpeed(setup.sync_rated));
        return Some(Shortfall { light: Some(without.index), ..shortfall });
    }
    Some(Shortfall::new(Limit::ShutterOverSync, over, Because::OverSync { rated: setup.sync_rated, dark_band }))
}

fn depth_shortfall(setup: &Prepared<'_>, outcome: &Outcome) -> Option<Shortfall> {
    let sharp = Sharp::of(setup);
    let missing = sharp.missing(outcome.settings.aperture);
    let least = sharp.least.filter(|_| missing.0 > 0.0)?;
    let asks = Setting::of((least.0 / 2.0).exp2());
    Some(Shortfall::new(Limit::TooShallow, missing, Because::DepthAsks(asks)))
}
