//! Alternatives, in words.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::changes::{Names, all_do};
use super::fixes::lights_at;
use crate::blend::Fact;
use crate::blend::alternatives::{Because, Kind, Measures, Option_, because};
use crate::blend::change::Change;
use crate::job::Setup;
use crate::scale::Stops;

/// The alternatives, the best first.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Alternatives {
    /// Why the first is first, in a sentence.
    pub why: String,
    /// The limit that binds the setup as it is; null where none does.
    pub binds: Option<String>,
    /// The ways.
    pub ways: Vec<Alternative>,
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
    pub setup: Setup,
}

/// What kind of alternative it is.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum AlternativeKind {
    /// The setup as it is.
    AsItIs,
    /// At the sync speed, with nothing on the lens.
    AtSync,
    /// Wide, through a filter.
    Filter,
    /// Wide, in high-speed sync.
    HighSpeed,
    /// The light nearer.
    Nearer,
    /// A stronger unit, or more of them.
    MoreLight,
    /// A higher ISO.
    HigherIso,
    /// More is sharp.
    MoreDepth,
    /// Less is sharp.
    LessDepth,
    /// What closes a shortfall.
    Fix,
}

/// The alternatives as they are sent.
pub(crate) fn alternatives(found: Vec<Option_>, binds: Option<String>, names: Names<'_>) -> Alternatives {
    let because = because(&found);
    let as_it_is = found.iter().find(|one| one.kind == Kind::AsItIs).map(|one| one.measures);
    let ways: Vec<Alternative> = found
        .into_iter()
        .map(|one| {
            let current = one.kind == Kind::AsItIs;
            let against = as_it_is.filter(|_| !current);
            Alternative {
                kind: kind(one.kind),
                name: name(&one, names),
                current,
                possible: one.possible,
                settings: format!("{}{}", one.settings.label(), lights_at(&one.lights, names.show.power)),
                costs: against.map_or_else(Vec::new, |other| costs(&one.measures, &other)),
                changes: one.changes,
                setup: one.setup,
            }
        })
        .collect();
    Alternatives { why: why(&ways, because, names), binds, ways }
}

fn kind(kind: Kind) -> AlternativeKind {
    match kind {
        Kind::AsItIs => AlternativeKind::AsItIs,
        Kind::AtSync => AlternativeKind::AtSync,
        Kind::Filter => AlternativeKind::Filter,
        Kind::HighSpeed => AlternativeKind::HighSpeed,
        Kind::Nearer => AlternativeKind::Nearer,
        Kind::MoreLight => AlternativeKind::MoreLight,
        Kind::HigherIso => AlternativeKind::HigherIso,
        Kind::MoreDepth => AlternativeKind::MoreDepth,
        Kind::LessDepth => AlternativeKind::LessDepth,
        Kind::Fix => AlternativeKind::Fix,
    }
}

/// What it is called: in a word where there is one, and always with what it lets go of.
fn name(one: &Option_, names: Names<'_>) -> String {
    let (aperture, iso) = (one.settings.aperture.label(), one.settings.iso.label());
    let lets_go = one.changes.iter().any(Change::lets_go);
    match one.kind {
        Kind::AsItIs => "As it is".to_owned(),
        Kind::AtSync if lets_go => {
            let what: Vec<&str> = one
                .changes
                .iter()
                .filter_map(|change| match change {
                    Change::FreeAperture => Some("the aperture"),
                    Change::FreeShutter => Some("the shutter"),
                    _ => None,
                })
                .collect();
            format!("At the sync speed, nothing on the lens, {} left to Tolva", what.join(" and "))
        }
        Kind::AtSync => "At the sync speed, nothing on the lens".to_owned(),
        Kind::HighSpeed => format!("At {aperture} in high-speed sync"),
        Kind::MoreDepth => format!("More depth, {aperture}"),
        Kind::LessDepth => format!("Less depth, {aperture}"),
        Kind::HigherIso if one.changes.len() > 1 => format!("At {iso} and {aperture}"),
        Kind::HigherIso => format!("At {iso}"),
        Kind::Filter => {
            let filters = one.changes.iter().find_map(|change| match change {
                Change::AddFilters { filter_ids } => Some(names.filters(filter_ids)),
                _ => None,
            });
            format!("At {aperture} with the {}", filters.unwrap_or_default())
        }
        Kind::Nearer | Kind::MoreLight | Kind::Fix => all_do(&one.changes, names),
    }
}

fn why(ways: &[Alternative], because: Because, names: Names<'_>) -> String {
    let Some(first) = ways.first() else { return String::new() };
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
    let mut say = |about: &str, change: f64, more: &str, less: &str| {
        if change.abs() > 0.15 {
            let how = if change > 0.0 { more } else { less };
            all.push(Fact::new(about, format!("{} {how}", Stops(change).amount())));
        }
    };
    say("Noise", one.iso - other.iso, "more ISO", "less ISO");
    say("Depth", one.aperture - other.aperture, "smaller: more is sharp", "wider: less is sharp");
    say("Power", one.power - other.power, "more", "less");
    if (one.recycle_s - other.recycle_s).abs() > 0.05 {
        all.push(Fact::new("Pace", format!("ready after {:.1} s instead of {:.1} s", one.recycle_s, other.recycle_s)));
    }
    let relative = one.battery / other.battery;
    if relative.is_finite() && !(0.9..1.1).contains(&relative) {
        all.push(Fact::new("Battery", format!("{:.0} frames instead of {:.0}", one.battery, other.battery)));
    }
    if (one.filter - other.filter).abs() > 0.05 {
        let dark = if one.filter > other.filter { "a darker finder, slower focus" } else { "a brighter finder" };
        all.push(Fact::new("Filter", dark));
    }
    if one.units > other.units * 1.05 {
        all.push(Fact::new("To carry", "a stronger unit, or one more"));
    }
    if one.high_speed && !other.high_speed {
        all.push(Fact::new("High speed", "no bursts; the ambient and the flash fall together"));
    }
    if other.missing - one.missing > 0.05 {
        all.push(Fact::new("Wish", format!("{} nearer to it", Stops(other.missing - one.missing).amount())));
    }
    all
}
