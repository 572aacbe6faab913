//! What would close a gap: each way is tried by solving the setup with it done.

use super::gap::Limit;
use super::outcome::Outcome;
use super::plan::{Remedy, Show};
use super::search::flash_needed;
use super::wish::FlashWish;
use crate::job::{Blend, CheckedLight, CheckedSetup, Kit, Modifier, Setup};
use crate::scale::{Metres, Power, Setting, Shutter, Stops};

/// At most so many are shown.
const MOST: usize = 6;
/// Where no single step is enough, so many first steps are followed by a second.
const MOST_FIRST_STEPS: usize = 2;

/// A way that is not tried yet: what to do, and the setup with it done.
struct Way {
    does: String,
    setup: Setup,
}

pub(super) fn remedies(setup: &CheckedSetup<'_>, outcome: &Outcome, kit: &Kit, show: Show) -> Vec<Remedy> {
    if outcome.gaps.is_empty() {
        return Vec::new();
    }
    let (ways, outside) = ways(setup, outcome, kit, show);
    let mut tried: Vec<(f64, Remedy)> =
        ways.into_iter().filter_map(|way| attempt(way, outcome.missing(), kit)).collect();
    tried.sort_by(|a, b| a.0.total_cmp(&b.0));
    let (closing, nearer): (Vec<Remedy>, Vec<Remedy>) =
        tried.into_iter().map(|(_, remedy)| remedy).partition(|remedy| remedy.closes);
    let in_two_steps: Vec<Remedy> = if closing.is_empty() {
        nearer.iter().take(MOST_FIRST_STEPS).flat_map(|first| second_steps(first, kit, show)).collect()
    } else {
        Vec::new()
    };
    // What lies outside Tolva comes before what does not close the gap, and is never crowded out.
    let room = MOST.saturating_sub(outside.len());
    let mut all: Vec<Remedy> = Vec::new();
    for remedy in closing.into_iter().chain(in_two_steps).take(room).chain(outside).chain(nearer) {
        if !all.iter().any(|other| other.does == remedy.does) {
            all.push(remedy);
        }
    }
    all.truncate(MOST);
    all
}

/// All ways worth trying, and what can be done outside Tolva.
fn ways(setup: &CheckedSetup<'_>, outcome: &Outcome, kit: &Kit, show: Show) -> (Vec<Way>, Vec<Remedy>) {
    let mut ways = Vec::new();
    let mut outside = Vec::new();
    for gap in &outcome.gaps {
        let missing = Stops(gap.missing_stops);
        match gap.limit {
            Limit::FlashTooWeak => too_weak(setup, outcome, kit, show, &mut ways, &mut outside),
            Limit::FlashTooStrong => too_strong(setup, outcome, kit, show, &mut ways),
            Limit::NoFlash => ways.extend(add_a_flash(setup, kit)),
            Limit::AmbientTooBright => ambient_too_bright(setup, outcome, missing, &mut ways, &mut outside),
            Limit::CameraTooBright => ways.push(filter(setup, missing)),
            Limit::CameraTooDark => too_dark(setup, outcome, missing, &mut ways, &mut outside),
            Limit::NotASilhouette => outside.push(Remedy {
                does: format!("Take {} off the subject", missing.amount()),
                says: "Turn it away from the light, shade it, or find something brighter behind it.".to_owned(),
                closes: outcome.gaps.len() == 1,
                setup: None,
            }),
            Limit::ShutterOverSync => {}
        }
    }
    ways.extend(releases(setup));
    (ways, outside)
}

/// Where one step is not enough: what closes the gap after a first one, two at most.
fn second_steps(first: &Remedy, kit: &Kit, show: Show) -> Vec<Remedy> {
    let Some(setup) = &first.setup else { return Vec::new() };
    let Ok(checked) = CheckedSetup::new(setup, kit) else { return Vec::new() };
    let outcome = Outcome::of(&checked);
    let (ways, _) = ways(&checked, &outcome, kit, show);
    let closing = ways.into_iter().filter_map(|way| {
        let does = format!("{}, and {}", first.does, lower_first(&way.does));
        attempt(Way { does, setup: way.setup }, outcome.missing(), kit)
    });
    closing.map(|(_, remedy)| remedy).filter(|remedy| remedy.closes).take(2).collect()
}

/// Solves the setup with a way done; nothing where it does not help by a sixth of a stop at least.
fn attempt(way: Way, missing_before: f64, kit: &Kit) -> Option<(f64, Remedy)> {
    let checked = CheckedSetup::new(&way.setup, kit).ok()?;
    let outcome = Outcome::of(&checked);
    let missing = outcome.missing();
    if missing > missing_before - super::search::HALF_CLICK {
        return None;
    }
    let closes = outcome.gaps.is_empty();
    let camera = outcome.settings.label();
    let says = match (outcome.gaps.first(), &outcome.light, &checked.light) {
        (Some(gap), _, _) => format!("{camera}. Nearer, not there: {}", gap.says),
        (None, Some(at), Some(light)) => {
            format!("{camera}, {} at {}.", light.light.id, at.power.label(crate::scale::PowerNotation::Fraction))
        }
        (None, _, _) => format!("{camera}."),
    };
    drop(checked);
    Some((missing, Remedy { does: way.does, says, closes, setup: Some(way.setup) }))
}

fn changed(setup: &CheckedSetup<'_>, does: impl Into<String>, change: impl FnOnce(&mut Setup)) -> Way {
    let mut changed = setup.setup.clone();
    change(&mut changed);
    Way { does: does.into(), setup: changed }
}

fn too_weak(
    setup: &CheckedSetup<'_>,
    outcome: &Outcome,
    kit: &Kit,
    show: Show,
    ways: &mut Vec<Way>,
    outside: &mut Vec<Remedy>,
) {
    let (Some(light), Some(at), FlashWish::Wanted(wanted)) = (&setup.light, outcome.light, outcome.wish) else {
        return;
    };
    let needed = flash_needed(wanted, outcome.settings, setup.filter);
    let power = light.power.unwrap_or(Power::FULL);
    if light.distance.is_some() {
        // Rounded to nearer, so that it does close the gap.
        let exact =
            light.guide_number.distance_for(needed, power, light.surface, light.loss, (Metres(0.1), at.distance));
        let nearer = Metres(((exact.0 * 20.0).floor() / 20.0).max(light.free_distances().0.0));
        if nearer.0 < at.distance.0 {
            let does = format!("Bring {} to {} from the subject", light.light.id, nearer.label(show.length));
            ways.push(changed(setup, does, |s| s.lights[0].distance_m = Some(nearer.0)));
        }
    }
    swap_units(setup, light, kit, ways, true);
    swap_modifiers(setup, light, kit, ways, |loss| loss < light.loss.0 - 0.01);
    let short = at.exact.0 - at.power.0;
    let stronger = light.guide_number.0 * (short.0 / 2.0).exp2();
    let together = short.ratio().ceil();
    if light.power.is_none() {
        outside.push(Remedy {
            does: format!("Use {} more power", short.amount()),
            says: format!(
                "A unit with guide number {} or more, or {together:.0} of these side by side.",
                guide_number_label(stronger, show)
            ),
            closes: outcome.gaps.len() == 1,
            setup: None,
        });
    }
}

fn guide_number_label(metres: f64, show: Show) -> String {
    match show.length {
        crate::scale::LengthUnit::Metres => format!("{:.0} m", metres.ceil()),
        crate::scale::LengthUnit::FeetAndInches => format!("{:.0} ft", (metres / Metres::PER_FOOT).ceil()),
    }
}

/// Other units of the kit, the nearest in strength first.
fn swap_units(setup: &CheckedSetup<'_>, light: &CheckedLight<'_>, kit: &Kit, ways: &mut Vec<Way>, stronger: bool) {
    for flash in kit.flashes.iter().filter(|flash| flash.id != light.flash.id) {
        let way = changed(setup, format!("Use the {}", lower_first(&flash.name)), |s| {
            s.lights[0].flash_id.clone_from(&flash.id);
            if s.lights[0].power_stops.is_some_and(|power| power < flash.power.lowest_stops) {
                s.lights[0].power_stops = None;
            }
        });
        let other = CheckedSetup::new(&way.setup, kit).ok().and_then(|checked| checked.light.map(|l| l.guide_number));
        if other.is_some_and(|other| (other > light.guide_number) == stronger) {
            ways.push(way);
        }
    }
}

/// Other modifiers of the kit whose loss is as asked.
fn swap_modifiers(
    setup: &CheckedSetup<'_>,
    light: &CheckedLight<'_>,
    kit: &Kit,
    ways: &mut Vec<Way>,
    asked: impl Fn(f64) -> bool,
) {
    let other =
        |modifier: &&Modifier| Some(&modifier.id) != light.light.modifier_id.as_ref() && asked(modifier.loss_stops);
    for modifier in kit.modifiers.iter().filter(other) {
        let does = format!("Change to the {}", lower_first(&modifier.name));
        ways.push(changed(setup, does, |s| s.lights[0].modifier_id = Some(modifier.id.clone())));
    }
}

fn lower_first(name: &str) -> String {
    let mut letters = name.chars();
    letters.next().map_or_else(String::new, |first| first.to_lowercase().chain(letters).collect())
}

fn too_strong(setup: &CheckedSetup<'_>, outcome: &Outcome, kit: &Kit, show: Show, ways: &mut Vec<Way>) {
    let (Some(light), Some(at), FlashWish::Wanted(wanted)) = (&setup.light, outcome.light, outcome.wish) else {
        return;
    };
    let needed = flash_needed(wanted, outcome.settings, setup.filter);
    let power = light.power.unwrap_or(light.lowest);
    if light.distance.is_some() {
        let exact =
            light.guide_number.distance_for(needed, power, light.surface, light.loss, (at.distance, Metres(12.0)));
        let farther = Metres((exact.0 * 20.0).ceil() / 20.0);
        let does = format!("Move {} to {} from the subject", light.light.id, farther.label(show.length));
        ways.push(changed(setup, does, |s| s.lights[0].distance_m = Some(farther.0)));
    }
    swap_units(setup, light, kit, ways, false);
    swap_modifiers(setup, light, kit, ways, |loss| loss > light.loss.0 + 0.01);
}

fn add_a_flash(setup: &CheckedSetup<'_>, kit: &Kit) -> Option<Way> {
    let light = Setup::new("new", kit).lights.into_iter().next()?;
    let mut light = light;
    light.reaches.retain(|reach| setup.setup.regions.iter().any(|region| region.id == reach.region_id));
    Some(changed(setup, "Add a flash", |s| s.lights.push(light)))
}

fn ambient_too_bright(
    setup: &CheckedSetup<'_>,
    outcome: &Outcome,
    over: Stops,
    ways: &mut Vec<Way>,
    outside: &mut Vec<Remedy>,
) {
    outside.push(Remedy {
        does: format!("Take {} of ambient off the subject", over.amount()),
        says: "Turn it out of the light, shade it, or hold something black on its lit side.".to_owned(),
        closes: outcome.gaps.len() == 1,
        setup: None,
    });
    let ends = outcome.regions[setup.lit].ambient.to_third().0.min(3.0);
    let blend = setup.setup.blend;
    match blend {
        Blend::Lift { subject_stops, behind_stops } => {
            // A third under the subject's place leaves the flash something to do.
            let darker = (Stops(behind_stops) - over - Stops(1.0 / 3.0)).to_third();
            ways.push(changed(setup, format!("Let what lies behind go to {}", darker.thirds()), |s| {
                s.blend = Blend::Lift { subject_stops, behind_stops: darker.0 }.clamped();
            }));
            ways.push(changed(setup, format!("Let the subject be at {}", Stops(ends).thirds()), |s| {
                s.blend = Blend::Lift { subject_stops: ends, behind_stops };
            }));
        }
        Blend::Overpower { subject_stops, .. } => {
            let darker = (Stops(subject_stops) - Stops(2.0)).to_third();
            ways.push(changed(setup, format!("Put the ambient at {}", darker.thirds()), |s| {
                s.blend = Blend::Overpower { subject_stops, ambient_stops: darker.0 }.clamped();
            }));
        }
        Blend::HalfAndHalf { .. } | Blend::Fill { .. } | Blend::Silhouette { .. } | Blend::AmbientOnly { .. } => {}
    }
}

fn filter(setup: &CheckedSetup<'_>, missing: Stops) -> Way {
    let stops = (setup.filter.0 + missing.0 - 1e-6).ceil().min(15.0);
    changed(setup, format!("Put a {stops}-stop neutral density filter on the lens"), |s| s.filter_stops = stops)
}

fn too_dark(
    setup: &CheckedSetup<'_>,
    outcome: &Outcome,
    missing: Stops,
    ways: &mut Vec<Way>,
    outside: &mut Vec<Remedy>,
) {
    if setup.filter.0 > 0.0 {
        ways.push(changed(setup, "Take the neutral filter off", |s| s.filter_stops = 0.0));
    }
    if setup.shutter.is_none() {
        let slower: Setting<Shutter> =
            setup.shutters.nearest(outcome.settings.shutter.position() - missing - Stops(1.0 / 6.0));
        let does = format!("Allow {}, on a tripod and with a subject that holds still", slower.label());
        ways.push(changed(setup, does, |s| s.slowest_shutter_s = slower.nominal));
    }
    if setup.iso.is_none() {
        let higher = Setting::<crate::scale::Iso>::of(outcome.settings.iso.exact * missing.ratio());
        outside.push(Remedy {
            does: format!("Accept {}", higher.label()),
            says: format!("The kit's highest acceptable is {}.", outcome.settings.iso.label()),
            closes: outcome.gaps.len() == 1,
            setup: None,
        });
    }
}

/// Everything that is fixed, let go one at a time.
fn releases(setup: &CheckedSetup<'_>) -> Vec<Way> {
    let mut ways = Vec::new();
    if setup.shutter.is_some() {
        ways.push(changed(setup, "Leave the shutter to Tolva", |s| s.fixed.shutter_s = None));
    }
    if setup.aperture.is_some() {
        ways.push(changed(setup, "Leave the aperture to Tolva", |s| s.fixed.f_number = None));
    }
    if setup.iso.is_some() {
        ways.push(changed(setup, "Leave the ISO to Tolva", |s| s.fixed.iso = None));
    }
    if let Some(light) = &setup.light {
        if light.power.is_some() {
            ways.push(changed(setup, "Leave the power to Tolva", |s| s.lights[0].power_stops = None));
        }
        if light.distance.is_some() && light.power.is_some() {
            ways.push(changed(setup, "Leave the distance to Tolva", |s| s.lights[0].distance_m = None));
        }
    }
    ways
}
