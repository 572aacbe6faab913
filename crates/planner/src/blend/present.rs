//! An outcome put into the plan that is shown.

use super::cautions::cautions;
use super::certainty::{Doubt, doubts, narrows, uncertainty};
use super::here;
use super::light_card::light_cards;
use super::outcome::Outcome;
use super::place::{Grip, moves};
use super::plan::{DialCard, Dialled, Fact, FlashMark, Mark, Plan, Ratio, RegionOnRail, Remedy, Show};
use super::wedge::FULL_WHITE;
use super::words::lower_first;
use super::workings::workings;
use super::{automatic, binding, pace, sharpness, speed};
use crate::job::{CheckedLight, CheckedSetup, Kit, Known};
use tolva_core::ambient::span_label;
use tolva_core::exposure::{How, Taken};
use tolva_core::scale::{Engraved, Setting, Stops};

pub(super) fn present(
    setup: &CheckedSetup<'_>,
    outcome: &Outcome,
    remedies: Vec<Remedy>,
    kit: &Kit,
    show: Show,
) -> Plan {
    let in_colour = super::colour::InColour::of(setup, outcome);
    let colour = in_colour.plan(setup, outcome);
    let doubts: Vec<_> = (0..outcome.regions.len()).map(|region| doubts(setup, outcome, region)).collect();
    let settings = outcome.settings;
    let filter = (setup.density.0 > 0.0).then(|| {
        let stops = (setup.density.0 * 10.0).round() / 10.0;
        format!("{stops}-stop ND")
    });
    Plan {
        possible: outcome.gaps.is_empty(),
        says: says(setup, outcome, &remedies),
        here: setup.scene.as_ref().map(|scene| here::here(setup, scene, show.length)),
        dial_card: DialCard {
            shutter: dialled(settings.shutter, setup.setup.fixed.shutter_s, &setup.camera.name),
            aperture: dialled(settings.aperture, setup.setup.fixed.f_number, &setup.lens.name),
            iso: dialled(settings.iso, setup.setup.fixed.iso, &setup.camera.name),
            filter,
            white_balance: colour.balance.label.clone(),
            lights: light_cards(setup, outcome, show),
        },
        rail: rail(setup, outcome, &doubts),
        ratio: setup.shadow.map(|shadow| {
            let (lit, shadow) = (&outcome.regions[setup.lit], &outcome.regions[shadow]);
            Ratio { before: (lit.ambient - shadow.ambient).into(), after: (lit.together - shadow.together).into() }
        }),
        depth: sharpness::facts(setup, settings, show.length),
        speed: speed::facts(setup, settings),
        pace: pace::facts(setup, outcome),
        automatic: automatic::facts(setup, outcome),
        certainty: certainty(setup, &doubts),
        binds: binding::binds(setup, outcome),
        gaps: outcome.gaps.clone(),
        remedies,
        cautions: [cautions(setup, outcome), in_colour.cautions(setup, outcome, kit)].concat(),
        colour,
        workings: workings(setup, outcome, show),
    }
}

/// The answer in a sentence. Where the wish cannot be had, the first sentence says what to change.
fn says(setup: &CheckedSetup<'_>, outcome: &Outcome, remedies: &[Remedy]) -> String {
    let region = |index: usize| {
        let name = &setup.setup.regions[index].name;
        format!("{name} at {}", outcome.regions[index].together.thirds())
    };
    let ends = format!("{}, {}", region(setup.behind), region(setup.lit));
    match outcome.gaps.as_slice() {
        [] => format!("As wished: {ends}."),
        [first, ..] => {
            let change =
                remedies.iter().find(|remedy| remedy.closes).map_or_else(String::new, |r| format!("{}. ", r.does));
            format!("{change}Not as wished: {} The nearest: {ends}.", lower_first(&first.says))
        }
    }
}

/// How sure each region's total is, and what would narrow the lit side's most.
fn certainty(setup: &CheckedSetup<'_>, doubts: &[Vec<Doubt>]) -> Vec<Fact> {
    let said = setup.setup.regions.iter().zip(doubts).map(|(region, doubts)| {
        let sigma = uncertainty(doubts);
        let says = narrows(doubts).map_or_else(
            || format!("±{sigma:.1} stops"),
            |(narrow, left)| format!("±{sigma:.1} stops. {narrow}: ±{left:.1}"),
        );
        Fact::new(region.name.clone(), says)
    });
    said.collect()
}

/// A setting, and whether somebody fixed it; where what they fixed is not on this camera or lens, that too.
fn dialled<E: Engraved>(setting: Setting<E>, asked: Option<f64>, whose: &str) -> Dialled {
    let asked_for = asked.map(Setting::<E>::of);
    let off = asked_for.filter(|asked| (asked.position() - setting.position()).0.abs() > 1e-6);
    let note = off.map(|asked| format!("{} is not on “{whose}”: {} is the nearest.", asked.label(), setting.label()));
    Dialled { label: setting.label(), nominal: setting.nominal, exact: setting.exact, fixed: asked.is_some(), note }
}

fn rail(setup: &CheckedSetup<'_>, outcome: &Outcome, doubts: &[Vec<Doubt>]) -> Vec<RegionOnRail> {
    let blend = setup.setup.blend;
    let lanes = setup.setup.regions.iter().zip(&outcome.regions).enumerate();
    lanes
        .map(|(index, (region, of))| {
            let mark = |at: Stops, grip: Grip, light: Option<&CheckedLight<'_>>| {
                let moves = moves(setup, index, grip, light);
                Mark { at: at.into(), grip: moves.map(|_| grip), moves: moves.map(str::to_owned) }
            };
            let sigma = uncertainty(&doubts[index]);
            let lights = setup.lights.iter().zip(&of.each).filter(|(_, given)| given.0.is_finite());
            RegionOnRail {
                region_id: region.id.clone(),
                name: region.name.clone(),
                role: region.role,
                reading: region.ambient.last().map(|taken| taken.reading.label()),
                source: source(setup, index),
                earlier: region.ambient.readings.iter().rev().skip(1).take(5).map(earlier).collect(),
                ev: setup.ambient[index].label(),
                estimated: !matches!(setup.known[index], Known::Read { .. }),
                ambient: mark(of.ambient, Grip::Ambient, None),
                flashes: lights
                    .map(|(light, given)| FlashMark {
                        light_id: light.light.id.clone(),
                        mark: mark(*given, Grip::Flash, Some(light)),
                    })
                    .collect(),
                together: mark(of.together, Grip::Together, None),
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
