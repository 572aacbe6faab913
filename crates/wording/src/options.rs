//! Alternatives, in words.

use serde::Serialize;
use utoipa::ToSchema;

use tolva_core::scale::Stops;
use tolva_planner::active_limit::active_limit as limit_of;
use tolva_planner::change::Change as Code;
use tolva_planner::lighting::Prepared;
use tolva_planner::options::{AlternativeKind as Kind, Because, SolvedAlternative, because, options as solved_options};
use tolva_planner::plan::Plan;
use tolva_planner::refused::Refused;
use tolva_planner::setup::{Kit, Setup};
use tolva_planner::solved::{Measures, Solved};

use crate::changes::{Names, all_do};
use crate::document::{Document, Write};
use crate::leaf::{AlternativeKind, Change};
use crate::names::Named;
use crate::shortfalls::active_limit as in_words;
use crate::shown::{Fact, Show};
use crate::words::lights_at;

/// The alternatives, the best first.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Alternatives {
    /// Why the first is first, in a sentence.
    pub why: String,
    /// The limit that binds the setup as it is; null where none does.
    pub active_limit: Option<String>,
    /// The options.
    pub options: Vec<Alternative>,
}

/// One alternative.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Alternative {
    /// What kind it is.
    pub kind: AlternativeKind,
    /// What it is called: `Use high-speed sync`.
    pub name: String,
    /// What it changes.
    pub changes: Vec<Change>,
    /// Whether it is the setup as it is.
    pub current: bool,
    /// Whether the wish can be had.
    pub possible: bool,
    /// What to set: `1/200, f/9, ISO 100, A at 1/8`.
    pub settings: String,
    /// What it costs or gains against the setup as it is: noise, pace, battery, depth.
    pub costs: Vec<Fact>,
    /// The setup with this done.
    pub setup: Document,
}

/// The alternatives to a setup's wish, the best first.
///
/// # Errors
/// A setup that cannot be planned.
pub fn alternatives(setup: &Setup, kit: &Kit, show: Show, write: &Write<'_>) -> Result<Alternatives, Refused> {
    let prepared = Prepared::new(setup, kit)?;
    let plan = Plan::of(&prepared);
    let found = solved_options(&prepared, &plan, kit);
    let active_limit = limit_of(&prepared, &plan).map(|limit| in_words(limit, &prepared, &plan, kit));
    Ok(worded(found, active_limit, Names { setup, kit, show }, write))
}

fn worded(
    found: Vec<SolvedAlternative>,
    active_limit: Option<String>,
    names: Names<'_>,
    write: &Write<'_>,
) -> Alternatives {
    let because = because(&found);
    let as_it_is = found.iter().find(|one| one.kind == Kind::AsItIs).map(|one| one.solved.measures);
    let options: Vec<Alternative> = found
        .into_iter()
        .map(|SolvedAlternative { kind, solved }| {
            let kind = AlternativeKind::from(kind);
            let current = kind == AlternativeKind::AsItIs;
            let against = as_it_is.filter(|_| !current);
            Alternative {
                kind,
                name: name(kind, &solved, names),
                current,
                possible: solved.shortfall.is_none(),
                settings: format!("{}{}", solved.settings.label(), lights_at(&solved.lights, names.show.power())),
                costs: against.map_or_else(Vec::new, |other| costs(&solved.measures, &other)),
                changes: solved.changes.into_iter().map(Change::from).collect(),
                setup: write(&solved.setup),
            }
        })
        .collect();
    Alternatives { why: why(&options, because, names), active_limit, options }
}

/// What it is called: in a word where there is one, and always with what it lets go of.
fn name(kind: AlternativeKind, one: &Solved, names: Names<'_>) -> String {
    let (aperture, iso) = (one.settings.aperture.label(), one.settings.iso.label());
    let lets_go = one.changes.iter().any(Code::lets_go);
    match kind {
        AlternativeKind::AsItIs => "As it is".to_owned(),
        AlternativeKind::AtSync if lets_go => {
            let what: Vec<&str> = one
                .changes
                .iter()
                .filter_map(|change| match change {
                    Code::FreeAperture => Some("the aperture"),
                    Code::FreeShutter => Some("the shutter"),
                    _ => None,
                })
                .collect();
            format!("At the sync speed, nothing on the lens, {} left to Tolva", what.join(" and "))
        }
        AlternativeKind::AtSync => "At the sync speed, nothing on the lens".to_owned(),
        AlternativeKind::HighSpeed => format!("At {aperture} in high-speed sync"),
        AlternativeKind::MoreDepth => format!("More depth, {aperture}"),
        AlternativeKind::LessDepth => format!("Less depth, {aperture}"),
        AlternativeKind::HigherIso if one.changes.len() > 1 => format!("At {iso} and {aperture}"),
        AlternativeKind::HigherIso => format!("At {iso}"),
        AlternativeKind::Filter => {
            let filters = one.changes.iter().find_map(|change| match change {
                Code::AddFilters { filter_ids } => Some(names.filters(filter_ids)),
                _ => None,
            });
            format!("At {aperture} with the {}", filters.unwrap_or_default())
        }
        AlternativeKind::Nearer | AlternativeKind::MoreLight | AlternativeKind::Fix => all_do(&one.changes, names),
    }
}

fn why(options: &[Alternative], because: Because, names: Names<'_>) -> String {
    let Some(first) = options.first() else { return String::new() };
    let because = match because {
        Because::OnlyOne => return format!("“{}”: there is no other way.", first.name),
        Because::Nearest => "it comes nearest to what is wished",
        Because::KeepsDepth => "it keeps the depth that is wished",
        Because::LowIso => "it keeps the ISO low",
        Because::ReadySooner => "its flashes are ready sooner",
        Because::LessPower => "it asks less power of the flashes",
        Because::NoFilter => "it needs no filter",
        Because::NoHighSpeed => "it needs no high-speed sync",
        Because::NoMoreLight => "it needs no more light than is there",
        Because::Simplest => "it is the simplest",
    };
    let order = names
        .setup
        .preferences
        .as_ref()
        .and_then(|order| order.first())
        .map_or_else(String::new, |first| format!(" “{}” comes first in your order.", first.name()));
    format!("“{}” comes first: {because}.{order}", first.name)
}

/// What is different, in words.
fn costs(one: &Measures, other: &Measures) -> Vec<Fact> {
    let mut all = Vec::new();
    let mut say = |code, about: &str, change: f64, more: &str, less: &str| {
        if change.abs() > 0.15 {
            let how = if change > 0.0 { more } else { less };
            all.push(Fact::new(code, about, format!("{} {how}", Stops(change).amount())).with("change_stops", change));
        }
    };
    say("noise", "Noise", one.iso - other.iso, "more ISO", "less ISO");
    say("depth", "Depth", one.aperture - other.aperture, "smaller: more is sharp", "wider: less is sharp");
    say("power", "Power", one.power - other.power, "more", "less");
    if (one.recycle_s - other.recycle_s).abs() > 0.05 {
        all.push(
            Fact::new(
                "pace",
                "Pace",
                format!("ready after {:.1} s instead of {:.1} s", one.recycle_s, other.recycle_s),
            )
            .with("ready_s", one.recycle_s),
        );
    }
    let relative = one.battery / other.battery;
    if relative.is_finite() && !(0.9..1.1).contains(&relative) {
        all.push(
            Fact::new("battery", "Battery", format!("{:.0} frames instead of {:.0}", one.battery, other.battery))
                .with("frames", one.battery),
        );
    }
    if (one.filter - other.filter).abs() > 0.05 {
        let dark = if one.filter > other.filter { "a darker finder, slower focus" } else { "a brighter finder" };
        all.push(Fact::new("filter", "Filter", dark));
    }
    if one.units > other.units * 1.05 {
        all.push(Fact::new("to_carry", "To carry", "a stronger unit, or one more"));
    }
    if one.high_speed && !other.high_speed {
        all.push(Fact::new("high_speed", "High speed", "no bursts; the ambient and the flash fall together"));
    }
    if other.missing - one.missing > 0.05 {
        all.push(
            Fact::new("wish", "Wish", format!("{} nearer to it", Stops(other.missing - one.missing).amount()))
                .with("change_stops", one.missing - other.missing),
        );
    }
    all
}
