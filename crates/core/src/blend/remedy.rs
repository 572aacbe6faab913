//! What would close a gap: each way is tried by solving the setup with it done.

use super::gap::{Gap, Limit};
use super::lights::DialledLight;
use super::outcome::Outcome;
use super::plan::{Remedy, Show};
use super::search::with_flash;
use super::sharpness::Sharp;
use super::words::{light_at, lower_first};
use crate::job::{Blend, CheckedLight, CheckedSetup, Depth, Kit, Modifier, Setup, Sync};
use crate::scale::{Aperture, Metres, Power, PowerNotation, Setting, Shutter, Stops};

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
        let of_light =
            setup.lights.iter().zip(&outcome.lights).find(|(light, _)| Some(&light.light.id) == gap.light_id.as_ref());
        match gap.limit {
            Limit::FlashTooWeak => {
                if let Some((light, Some(at))) = of_light {
                    too_weak(setup, (light, *at), kit, show, &mut ways);
                    outside.extend(stronger(light, *at, show, outcome.gaps.len() == 1));
                }
            }
            Limit::FlashTooStrong => {
                if let Some((light, Some(at))) = of_light {
                    too_strong(setup, (light, *at), kit, show, &mut ways);
                }
            }
            Limit::NoFlash => ways.extend(add_a_flash(setup, kit)),
            Limit::AmbientTooBright => ambient_too_bright(setup, outcome, missing, &mut ways, &mut outside),
            Limit::CameraTooBright => too_bright(setup, kit, gap, &mut ways, &mut outside),
            Limit::CameraTooDark => too_dark(setup, outcome, missing, &mut ways, &mut outside),
            Limit::NotASilhouette => outside.push(Remedy {
                does: format!("Take {} off the subject", missing.amount()),
                says: "Turn it away from the light, shade it, or find something brighter behind it.".to_owned(),
                closes: outcome.gaps.len() == 1,
                setup: None,
            }),
            Limit::RegionOff => {
                if let Some((light, _)) = of_light {
                    ways.extend(let_be(setup, outcome, light));
                    outside.push(Remedy {
                        does: format!("Keep what spills off “{}”", setup.setup.regions[light.aim].name),
                        says: "Turn the other lights, put a grid or a flag on them, or bring them nearer.".to_owned(),
                        closes: false,
                        setup: None,
                    });
                }
            }
            Limit::TooShallow => ways.extend(deeper(setup, outcome)),
            Limit::ShutterOverSync | Limit::NoHighSpeed => {}
        }
    }
    ways.extend(releases(setup));
    ways.extend(other_sync(setup, outcome));
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
    let says = match outcome.gaps.first() {
        Some(gap) => format!("{camera}. Nearer, not there: {}", gap.says),
        None => format!("{camera}{}.", light_at(&checked, &outcome, PowerNotation::Fraction)),
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
    (light, at): (&CheckedLight<'_>, DialledLight),
    kit: &Kit,
    show: Show,
    ways: &mut Vec<Way>,
) {
    let id = &light.light.id;
    let needed = light.gives(at.distance, at.exact);
    let power = light.power.unwrap_or(Power::FULL);
    if light.distance.is_some() && light.bounced.is_none() {
        // Rounded to nearer, so that it does close the gap.
        let exact =
            light.guide_number.distance_for(needed, power, light.surface, light.loss, (Metres(0.1), at.distance));
        let nearer = Metres(((exact.0 * 20.0).floor() / 20.0).max(light.free_distances().0.0));
        if nearer.0 < at.distance.0 {
            let does = format!("Bring {id} to {} from the subject", nearer.label(show.length));
            ways.push(changed(setup, does, |s| s.lights[light.index].distance_m = Some(nearer.0)));
        }
    }
    if light.bounced.is_some() {
        let does = format!("Turn {id} straight at the subject");
        ways.push(changed(setup, does, |s| s.lights[light.index].bounce = None));
    }
    swap_units(setup, light, kit, ways, true);
    if light.light.units < 6 && light.power.is_none() {
        // As many as make up for what is missing, if that few do.
        let together = ((at.exact.0 - at.power.0).ratio() * f64::from(light.light.units)).ceil();
        if together <= 6.0 {
            #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "at most six")]
            let units = together as u8;
            let does = format!("Use {units} of the {} as one", lower_first(&light.flash.name));
            ways.push(changed(setup, does, |s| s.lights[light.index].units = units));
        }
    }
    swap_modifiers(setup, light, kit, ways, |loss| loss < light.modifier_loss.0 - 0.01);
    if light.gel_loss.0 > 0.0 {
        ways.push(changed(setup, format!("Take the gels off {id}"), |s| s.lights[light.index].gel_ids.clear()));
    }
}

/// What another unit would have to be.
fn stronger(light: &CheckedLight<'_>, at: DialledLight, show: Show, closes: bool) -> Option<Remedy> {
    let short = at.exact.0 - at.power.0;
    let stronger = light.guide_number.0 * (short.0 / 2.0).exp2();
    light.power.is_none().then(|| Remedy {
        does: format!("Use {} more power", short.amount()),
        says: format!(
            "A unit with guide number {} or more, or {:.0} of these side by side.",
            guide_number_label(stronger, show),
            (short.ratio() * f64::from(light.light.units)).ceil()
        ),
        closes,
        setup: None,
    })
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
            let one = &mut s.lights[light.index];
            one.flash_id.clone_from(&flash.id);
            if one.power_stops.is_some_and(|power| power < flash.power.lowest_stops) {
                one.power_stops = None;
            }
        });
        let same = |checked: CheckedSetup<'_>| {
            checked.lights.iter().find(|other| other.index == light.index).map(|other| other.guide_number)
        };
        let other = CheckedSetup::new(&way.setup, kit).ok().and_then(same);
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
        ways.push(changed(setup, does, |s| s.lights[light.index].modifier_id = Some(modifier.id.clone())));
    }
}

fn too_strong(
    setup: &CheckedSetup<'_>,
    (light, at): (&CheckedLight<'_>, DialledLight),
    kit: &Kit,
    show: Show,
    ways: &mut Vec<Way>,
) {
    let needed = light.gives(at.distance, at.exact);
    let power = light.power.unwrap_or(light.lowest);
    if light.distance.is_some() && light.bounced.is_none() {
        let exact =
            light.guide_number.distance_for(needed, power, light.surface, light.loss, (at.distance, Metres(12.0)));
        let farther = Metres((exact.0 * 20.0).ceil() / 20.0);
        let does = format!("Move {} to {} from the subject", light.light.id, farther.label(show.length));
        ways.push(changed(setup, does, |s| s.lights[light.index].distance_m = Some(farther.0)));
    }
    swap_units(setup, light, kit, ways, false);
    swap_modifiers(setup, light, kit, ways, |loss| loss > light.modifier_loss.0 + 0.01);
}

fn add_a_flash(setup: &CheckedSetup<'_>, kit: &Kit) -> Option<Way> {
    let mut light = Setup::new("new", kit).lights.into_iter().next()?;
    while setup.setup.lights.iter().any(|other| other.id == light.id) {
        light.id.push('2');
    }
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

fn too_bright(setup: &CheckedSetup<'_>, kit: &Kit, gap: &Gap, ways: &mut Vec<Way>, outside: &mut Vec<Remedy>) {
    let missing = Stops(gap.missing_stops);
    match filtered(setup, kit, missing) {
        Some(way) => ways.push(way),
        None => outside.push(Remedy {
            does: format!("Put a {:.0}-stop neutral density filter on the lens", (missing.0 - 1e-6).ceil()),
            says: "None in the kit is dense enough.".to_owned(),
            closes: true,
            setup: None,
        }),
    }
}

/// Another sync, where the shutter or the brightness is what binds.
fn other_sync(setup: &CheckedSetup<'_>, outcome: &Outcome) -> Option<Way> {
    let limits = [Limit::CameraTooBright, Limit::ShutterOverSync, Limit::NoHighSpeed];
    let asks = with_flash(setup) && outcome.gaps.iter().any(|gap| limits.contains(&gap.limit));
    let (does, to) = match setup.setup.sync {
        Sync::HighSpeed => ("Leave high-speed sync", Sync::Ordinary),
        Sync::Ordinary | Sync::Electronic => ("Use high-speed sync", Sync::HighSpeed),
    };
    asks.then(|| changed(setup, does, |s| s.sync = to))
}

/// The setup with so many stops of filter more, from the kit: one filter, or two, the least that does.
fn filtered(setup: &CheckedSetup<'_>, kit: &Kit, more: Stops) -> Option<Way> {
    let spare: Vec<_> = kit.filters.iter().filter(|filter| !setup.setup.filter_ids.contains(&filter.id)).collect();
    let mut sets: Vec<Vec<&crate::job::Filter>> = spare.iter().map(|one| vec![*one]).collect();
    for (index, one) in spare.iter().enumerate() {
        sets.extend(spare[index + 1..].iter().map(|other| vec![*one, *other]));
    }
    let density = |set: &[&crate::job::Filter]| set.iter().map(|filter| filter.density_stops).sum::<f64>();
    sets.retain(|set| {
        density(set) >= more.0 - super::search::HALF_CLICK && set.len() + setup.setup.filter_ids.len() <= 3
    });
    let set = sets.into_iter().min_by(|a, b| density(a).total_cmp(&density(b)))?;
    let names: Vec<String> = set.iter().map(|filter| lower_first(&filter.name)).collect();
    let does = format!("Put the {} on the lens", names.join(" and the "));
    Some(changed(setup, does, |s| s.filter_ids.extend(set.iter().map(|filter| filter.id.clone()))))
}

/// The wish of a light becomes what its region comes to.
fn let_be(setup: &CheckedSetup<'_>, outcome: &Outcome, light: &CheckedLight<'_>) -> Option<Way> {
    let mut to = setup.setup.clone();
    let ends = outcome.regions[light.aim].together;
    super::place::wish_to(&mut to, light, ends.to_third(), outcome, setup);
    let does = format!("Let “{}” be at {}", setup.setup.regions[light.aim].name, ends.thirds());
    (to != *setup.setup).then_some(Way { does, setup: to })
}

/// What gives more depth, or asks for less.
fn deeper(setup: &CheckedSetup<'_>, outcome: &Outcome) -> Vec<Way> {
    let mut ways = Vec::new();
    if setup.aperture.is_some() {
        let sharp = Sharp::of(setup).least.map_or(8.0, |least| (least.0 / 2.0).exp2());
        let wanted = setup.apertures.nearest(Stops(2.0 * sharp.log2()));
        ways.push(changed(setup, format!("Fix the aperture at {}", wanted.label()), |s| {
            s.fixed.f_number = Some(wanted.nominal);
        }));
    }
    match setup.setup.depth {
        Depth::Rows { .. } | Depth::Deep { .. } => {
            let missing = Sharp::of(setup).missing(outcome.settings.aperture);
            // Twice as far away is two stops less of aperture, or nearly.
            let farther = (setup.setup.camera_distance_m * (missing.0 / 2.0).exp2() * 10.0).ceil() / 10.0;
            let does =
                format!("Step back to {} from the subject", Metres(farther).label(crate::scale::LengthUnit::Metres));
            ways.push(changed(setup, does, |s| s.camera_distance_m = farther));
        }
        Depth::CloseUp { magnification, depth_mm, overlap, stacked: false } => {
            let stacked = Depth::CloseUp { magnification, depth_mm, overlap, stacked: true };
            ways.push(changed(setup, "Take a stack of frames", |s| s.depth = stacked));
        }
        _ => {}
    }
    let label = Setting::<Aperture>::of(outcome.settings.aperture.exact).label();
    ways.push(changed(setup, format!("Let the depth be what {label} gives"), |s| s.depth = Depth::Free));
    ways
}

fn too_dark(
    setup: &CheckedSetup<'_>,
    outcome: &Outcome,
    missing: Stops,
    ways: &mut Vec<Way>,
    outside: &mut Vec<Remedy>,
) {
    if setup.density.0 > 0.0 {
        ways.push(changed(setup, "Take the neutral filter off", |s| s.filter_ids.clear()));
    }
    if setup.shutter.is_none() {
        let slower: Setting<Shutter> =
            setup.shutters.nearest(outcome.settings.shutter.position() - missing - Stops(1.0 / 6.0));
        let does = format!("Allow {}, on a tripod and with a subject that holds still", slower.label());
        ways.push(changed(setup, does, |s| {
            s.speed.slowest_shutter_s = Some(slower.nominal);
        }));
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
    for light in &setup.lights {
        let id = &light.light.id;
        if light.power.is_some() {
            let does = format!("Leave the power of {id} to Tolva");
            ways.push(changed(setup, does, |s| s.lights[light.index].power_stops = None));
        }
        if light.light.distance_m.is_some() && light.power.is_some() {
            let does = format!("Leave the distance of {id} to Tolva");
            ways.push(changed(setup, does, |s| s.lights[light.index].distance_m = None));
        }
    }
    ways
}
