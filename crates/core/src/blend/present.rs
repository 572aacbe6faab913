//! An outcome put into the plan that is shown.

use super::cautions::cautions;
use super::certainty::uncertainty;
use super::here;
use super::outcome::Outcome;
use super::place::{Grip, moves};
use super::plan::{DialCard, Dialled, FlashMark, LightCard, Mark, Plan, Ratio, RegionOnRail, Remedy, Show};
use super::wedge::FULL_WHITE;
use super::wish::FlashWish;
use super::workings::workings;
use crate::ambient::span_label;
use crate::exposure::{How, Taken};
use crate::job::{CheckedSetup, Known};
use crate::scale::{Engraved, Setting, Stops};

pub(super) fn present(setup: &CheckedSetup<'_>, outcome: &Outcome, remedies: Vec<Remedy>, show: Show) -> Plan {
    let settings = outcome.settings;
    let filter = (setup.filter.0 > 0.0).then(|| {
        let stops = (setup.filter.0 * 10.0).round() / 10.0;
        format!("{stops}-stop ND")
    });
    Plan {
        possible: outcome.gaps.is_empty(),
        says: says(setup, outcome),
        here: setup.scene.as_ref().map(|scene| here::here(setup, scene, show.length)),
        dial_card: DialCard {
            shutter: dialled(settings.shutter, setup.shutter.is_some()),
            aperture: dialled(settings.aperture, setup.aperture.is_some()),
            iso: dialled(settings.iso, setup.iso.is_some()),
            filter,
            lights: light_card(setup, outcome, show).into_iter().collect(),
        },
        rail: rail(setup, outcome),
        ratio: setup.shadow.map(|shadow| {
            let (lit, shadow) = (outcome.regions[setup.lit], outcome.regions[shadow]);
            Ratio { before: (lit.ambient - shadow.ambient).into(), after: (lit.together - shadow.together).into() }
        }),
        gaps: outcome.gaps.clone(),
        remedies,
        cautions: cautions(setup, outcome),
        workings: workings(setup, outcome, show),
    }
}

/// The answer in a sentence.
fn says(setup: &CheckedSetup<'_>, outcome: &Outcome) -> String {
    let region = |index: usize| {
        let name = &setup.setup.regions[index].name;
        format!("{name} at {}", outcome.regions[index].together.thirds())
    };
    let ends = format!("{}, {}", region(setup.behind), region(setup.lit));
    match outcome.gaps.as_slice() {
        [] => format!("As wished: {ends}."),
        [first, ..] => format!("Not as wished. {} The nearest: {ends}.", first.says),
    }
}

fn dialled<E: Engraved>(setting: Setting<E>, fixed: bool) -> Dialled {
    Dialled { label: setting.label(), nominal: setting.nominal, exact: setting.exact, fixed }
}

fn light_card(setup: &CheckedSetup<'_>, outcome: &Outcome, show: Show) -> Option<LightCard> {
    let light = setup.light.as_ref()?;
    let at = outcome.light;
    Some(LightCard {
        light_id: light.light.id.clone(),
        flash: light.flash.name.clone(),
        modifier: light.modifier.map_or_else(|| "Bare head".to_owned(), |modifier| modifier.name.clone()),
        control: light.light.control,
        power: at.map(|at| at.power.label(show.power)),
        power_stops: at.map(|at| at.power.0.0),
        power_exact: at.map(|at| at.exact.0.decimals()),
        power_fixed: light.power.is_some(),
        distance: at.map(|at| at.distance.label(show.length)),
        distance_m: at.map(|at| at.distance.0),
        distance_fixed: light.distance.is_some(),
        loss: (-light.loss).decimals(),
        near_field: at.map(|at| light.surface.near_field(at.distance).decimals()),
        compensation: match outcome.wish {
            FlashWish::Wanted(wanted) => Some(wanted.into()),
            FlashWish::Unused | FlashWish::AmbientOver(_) => None,
        },
    })
}

fn rail(setup: &CheckedSetup<'_>, outcome: &Outcome) -> Vec<RegionOnRail> {
    let blend = setup.setup.blend;
    let lanes = setup.setup.regions.iter().zip(&outcome.regions).enumerate();
    lanes
        .map(|(index, (region, &of))| {
            let mark = |at: Stops, grip: Grip| {
                let moves = moves(blend, region.role, grip, outcome.light.is_some());
                Mark { at: at.into(), grip: moves.map(|_| grip), moves: moves.map(str::to_owned) }
            };
            let sigma = uncertainty(of, setup.known[index], setup.light.as_ref(), index == setup.lit);
            RegionOnRail {
                region_id: region.id.clone(),
                name: region.name.clone(),
                role: region.role,
                reading: region.ambient.last().map(|taken| taken.reading.label()),
                source: source(setup, index),
                earlier: region.ambient.readings.iter().rev().skip(1).take(5).map(earlier).collect(),
                ev: setup.ambient[index].label(),
                estimated: !matches!(setup.known[index], Known::Read { .. }),
                ambient: mark(of.ambient, Grip::Ambient),
                flashes: setup
                    .light
                    .iter()
                    .filter(|_| of.flash.0.is_finite())
                    .map(|light| FlashMark { light_id: light.light.id.clone(), mark: mark(of.flash, Grip::Flash) })
                    .collect(),
                together: mark(of.together, Grip::Together),
                wish: blend.region_wish(setup, index).map(Into::into),
                uncertainty_stops: sigma,
                uncertainty: format!("±{sigma:.1}"),
                flash_share: format!("{:.0} %", of.flash_share() * 100.0),
                clipped: of.together > FULL_WHITE,
            }
        })
        .collect()
}

/// A reading that no longer counts, in a line.
fn earlier(taken: &Taken) -> String {
    let mut parts: Vec<String> = taken.at.iter().map(|at| at.time.clone()).collect();
    parts.push(taken.reading.label());
    if taken.how != How::Unsaid {
        parts.push(taken.how.name().to_lowercase());
    }
    if taken.simulated {
        parts.push("simulated".to_owned());
    }
    parts.join(", ")
}

/// What the light of a region rests on: `read 24 min ago, −⅓ since`.
fn source(setup: &CheckedSetup<'_>, region: usize) -> String {
    let simulated = setup.setup.regions[region].ambient.last().is_some_and(|taken| taken.simulated);
    let read = if simulated { "simulated reading" } else { "read" };
    match setup.known[region] {
        Known::Guess => "estimate".to_owned(),
        Known::Model if setup.scene.as_ref().is_some_and(|scene| scene.light.is_daylight()) => {
            "estimate from sun and sky".to_owned()
        }
        Known::Model => "handbook estimate".to_owned(),
        Known::Read { minutes: None, .. } => read.to_owned(),
        Known::Read { minutes: Some(minutes), .. } if minutes.abs() < 0.5 => format!("{read} at this hour"),
        Known::Read { minutes: Some(minutes), moved } => {
            let when = if minutes > 0.0 { "ago" } else { "later" };
            let moved = moved.to_third();
            let since = if moved.0 == 0.0 { String::new() } else { format!(", {} since", moved.as_given()) };
            format!("{read} {} {when}{since}", span_label(minutes))
        }
    }
}
