//! A plan put into what is sent.

use tolva_core::colour::FULL_WHITE;
use tolva_core::exposure::{MeterReading, MeteringMethod};
use tolva_core::scale::{Engraved, Setting, Stops};
use tolva_core::time::span_label;
use tolva_planner::active_limit::active_limit;
use tolva_planner::cautions::cautions;
use tolva_planner::colour::InColour;
use tolva_planner::fixes::fixes;
use tolva_planner::lighting::{AmbientSource, Prepared, PreparedLight};
use tolva_planner::place::{Grip, Moves, moves};
use tolva_planner::plan::Plan as Planned;
use tolva_planner::refused::Refused;
use tolva_planner::setup::{Kit, Setup};
use tolva_planner::solver::Outcome;
use tolva_planner::uncertainty::{Narrow, UncertaintyTerm, narrows, uncertainty, uncertainty_terms};

use crate::cautions::caution;
use crate::changes::Names;
use crate::colour::{balance_label, colour_plan};
use crate::document::Write;
use crate::fixes::fix;
use crate::glass::glass_report;
use crate::light_card::light_cards;
use crate::names::Named;
use crate::plan::{DialCard, Dialled, Fix, FlashMark, Mark, Plan, Ratio, RegionOnRail};
use crate::set::{MapAsked, set_report};
use crate::shortfalls::{Whose, active_limit as in_words};
use crate::shown::{Fact, Show};
use crate::sun_report::sun_report;
use crate::words::lower_first;
use crate::workings::workings;
use crate::{automatic, depth, depth_lane, pace, speed};

/// The plan of a setup: what to set, what it gives, how sure that is, what is missing and what would close it.
///
/// # Errors
/// A setup that cannot be planned.
pub fn plan(setup: &Setup, kit: &Kit, show: Show, write: &Write<'_>) -> Result<Plan, Refused> {
    planned(setup, kit, show, write, None)
}

/// The same with the set of the setup and its map of light.
///
/// # Errors
/// A setup that cannot be planned.
pub fn plan_with_set(
    setup: &Setup,
    kit: &Kit,
    show: Show,
    write: &Write<'_>,
    asked: &MapAsked,
) -> Result<Plan, Refused> {
    planned(setup, kit, show, write, Some(asked))
}

fn planned(setup: &Setup, kit: &Kit, show: Show, write: &Write<'_>, asked: Option<&MapAsked>) -> Result<Plan, Refused> {
    let prepared = Prepared::new(setup, kit)?;
    let planned = Planned::of(&prepared);
    let names = Names { setup, kit, show };
    let found = fixes(&prepared, &planned, kit).into_iter();
    let fixes = found.map(|found| fix(found, names, write)).collect();
    let set = asked.map(|asked| set_report(&prepared, &planned.outcome, kit, show, asked));
    let glass = asked.map(|asked| glass_report(&prepared, &planned.outcome, kit, show, write, asked.remedies));
    Ok(Plan { set, glass, ..present(&prepared, &planned, fixes, kit, show) })
}

fn present(setup: &Prepared<'_>, planned: &Planned, fixes: Vec<Fix>, kit: &Kit, show: Show) -> Plan {
    let outcome = &planned.outcome;
    let in_colour = InColour::of(setup, outcome);
    let terms: Vec<_> = (0..outcome.regions.len()).map(|region| uncertainty_terms(setup, outcome, region)).collect();
    let settings = outcome.settings;
    let whose = Whose { setup: setup.setup, kit, settings };
    let filter = (setup.density.0 > 0.0).then(|| {
        let stops = (setup.density.0 * 10.0).round() / 10.0;
        format!("{stops}-stop ND")
    });
    let cautions = cautions(setup, planned, &in_colour, kit);
    Plan {
        possible: planned.possible(),
        says: says(setup, planned, whose, &fixes),
        sun_report: setup.scene.as_ref().map(|scene| sun_report(setup, scene, show.metres())),
        dial_card: DialCard {
            shutter: dialled(settings.shutter, setup.setup.fixed.shutter_s, &setup.camera.name),
            aperture: dialled(settings.aperture, setup.setup.fixed.f_number, &setup.lens.name),
            iso: dialled(settings.iso, setup.setup.fixed.iso, &setup.camera.name),
            filter,
            white_balance: balance_label(&in_colour.balance),
            lights: light_cards(setup, outcome, show),
        },
        rail: rail(setup, outcome, &terms),
        ratio: setup.shadow.map(|shadow| {
            let (lit, shadow) = (&outcome.regions[setup.lit], &outcome.regions[shadow]);
            Ratio { before: (lit.ambient - shadow.ambient).into(), after: (lit.together - shadow.together).into() }
        }),
        depth: depth::facts(setup, settings, show.metres()),
        depth_lane: depth_lane::lane(setup, settings, show.metres()),
        speed: speed::facts(setup, outcome),
        pace: pace::facts(setup, outcome),
        automatic: automatic::facts(setup, outcome),
        certainty: certainty(setup, &terms),
        active_limit: active_limit(setup, planned).map(|limit| in_words(limit, setup, planned, kit)),
        shortfalls: planned.shortfalls.iter().map(|shortfall| whose.sent(shortfall)).collect(),
        fixes,
        cautions: cautions.iter().map(|code| caution(code, setup, settings)).collect(),
        colour: colour_plan(setup, outcome, &in_colour),
        workings: workings(setup, outcome, show),
        set: None,
        glass: None,
    }
}

/// The answer in a sentence. Where the wish cannot be had, the first sentence says what to change.
fn says(setup: &Prepared<'_>, planned: &Planned, whose: Whose<'_>, fixes: &[Fix]) -> String {
    let outcome = &planned.outcome;
    let region = |index: usize| {
        let name = &setup.setup.regions[index].name;
        format!("{name} at {}", outcome.regions[index].together.thirds())
    };
    let ends = format!("{}, {}", region(setup.background), region(setup.lit));
    match planned.shortfalls.as_slice() {
        [] => format!("As wished: {ends}."),
        [first, ..] => {
            let change = fixes.iter().find(|fix| fix.closes).map_or_else(String::new, |r| format!("{}. ", r.does));
            format!("{change}Not as wished: {} The nearest: {ends}.", lower_first(&whose.says(first)))
        }
    }
}

/// How sure each region's total is, and what would narrow the lit side's most.
fn certainty(setup: &Prepared<'_>, terms: &[Vec<UncertaintyTerm>]) -> Vec<Fact> {
    let said = setup.setup.regions.iter().zip(terms).map(|(region, terms)| {
        let sigma = uncertainty(terms);
        let says = narrows(terms).map_or_else(
            || format!("±{sigma:.1} stops"),
            |(narrow, left)| format!("±{sigma:.1} stops. {}: ±{left:.1}", narrowed(setup, narrow, &region.name)),
        );
        Fact::new("certainty", region.name.clone(), says).with("sigma_stops", sigma)
    });
    said.collect()
}

/// What would narrow a region's total.
fn narrowed(setup: &Prepared<'_>, narrow: Narrow, region: &str) -> String {
    let light = |light: usize| &setup.lights[light];
    match narrow {
        Narrow::TuneCamera => "Tune camera and lens against a test frame".to_owned(),
        Narrow::ReadAmbient { again } => {
            let verb = if again { "Read" } else { "Read, do not guess," };
            format!("{verb} the ambient on “{region}” now")
        }
        Narrow::ReadUnit(index) => format!("Read {} with a flash meter", light(index).flash.name),
        Narrow::ReadThrough(index) => {
            let through = light(index).modifier.map_or("what it is bounced off", |modifier| &modifier.name);
            format!("Read {} through {through}", light(index).light.id)
        }
        Narrow::MeasureDistance(index) => format!("Measure the distance of {} with a tape", light(index).light.id),
        Narrow::MeasureAFrame => "Measure another frame".to_owned(),
        Narrow::ReadSpill(index) => format!("Read what {} gives “{region}” by itself", light(index).light.id),
    }
}

/// A setting, and whether somebody fixed it; where what they fixed is not on this camera or lens, that too.
fn dialled<E: Engraved>(setting: Setting<E>, asked: Option<f64>, whose: &str) -> Dialled {
    let asked_for = asked.map(Setting::<E>::of);
    let off = asked_for.filter(|asked| (asked.position() - setting.position()).0.abs() > 1e-6);
    let note = off.map(|asked| format!("{} is not on “{whose}”: {} is the nearest.", asked.label(), setting.label()));
    Dialled { label: setting.label(), nominal: setting.nominal, exact: setting.exact, fixed: asked.is_some(), note }
}

fn rail(setup: &Prepared<'_>, outcome: &Outcome, terms: &[Vec<UncertaintyTerm>]) -> Vec<RegionOnRail> {
    let blend = setup.setup.blend;
    let lanes = setup.setup.regions.iter().zip(&outcome.regions).enumerate();
    lanes
        .map(|(index, (region, of))| {
            let mark = |at: Stops, grip: Grip, light: Option<&PreparedLight<'_>>| {
                let moves = moves(setup, index, grip, light);
                Mark {
                    at: at.into(),
                    grip: moves.map(|_| grip.into()),
                    moves: moves.map(|moves| moved(moves).to_owned()),
                }
            };
            let sigma = uncertainty(&terms[index]);
            let lights = setup.lights.iter().zip(&of.each).filter(|(_, given)| given.0.is_finite());
            RegionOnRail {
                region_id: region.id.clone(),
                name: region.name.clone(),
                role: region.role.into(),
                reading: region.ambient.last().map(|taken| taken.reading.label()),
                source: source(setup, index),
                earlier: region.ambient.readings.iter().rev().skip(1).take(5).map(earlier).collect(),
                ev: setup.ambient[index].label(),
                estimated: !matches!(setup.known[index], AmbientSource::Read { .. }),
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

/// What moving a mark changes.
fn moved(moves: Moves) -> &'static str {
    match moves {
        Moves::LightGives => "how much this light gives",
        Moves::LightReaches => "how much of this light reaches here",
        Moves::Picture => "how bright the picture comes out",
        Moves::Subject => "how bright the subject comes out",
        Moves::Region => "how bright it comes out",
        Moves::Ambient => "how bright the light that is there comes out",
    }
}

/// A reading that no longer counts, in a line.
fn earlier(taken: &MeterReading) -> String {
    let mut parts: Vec<String> = taken.at.iter().map(|at| at.time.clone()).collect();
    parts.push(taken.reading.label());
    if taken.method != MeteringMethod::Unsaid {
        parts.push(taken.method.name().to_lowercase());
    }
    if taken.simulated {
        parts.push("simulated".to_owned());
    }
    parts.join(", ")
}

/// What the light of a region rests on: `read 24 min ago, −⅓ since`.
fn source(setup: &Prepared<'_>, region: usize) -> String {
    let simulated = setup.setup.regions[region].ambient.last().is_some_and(|taken| taken.simulated);
    let read = if simulated { "simulated reading" } else { "read" };
    match setup.known[region] {
        AmbientSource::Guess => "estimate".to_owned(),
        AmbientSource::Model if setup.scene.as_ref().is_some_and(|scene| scene.light.is_daylight()) => {
            "estimate from sun and sky".to_owned()
        }
        AmbientSource::Model => "handbook estimate".to_owned(),
        AmbientSource::Read { minutes: None, .. } => read.to_owned(),
        AmbientSource::Read { minutes: Some(minutes), .. } if minutes.abs() < 0.5 => format!("{read} at this hour"),
        AmbientSource::Read { minutes: Some(minutes), moved } => {
            let when = if minutes > 0.0 { "ago" } else { "later" };
            let moved = moved.to_third();
            let since = if moved.0 == 0.0 { String::new() } else { format!(", {} since", moved.as_given()) };
            format!("{read} {} {when}{since}", span_label(minutes))
        }
    }
}
