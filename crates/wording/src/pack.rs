//! What to carry, as it is sent.

use serde::Serialize;
use tolva_planner::pack::{PackItem, PackKind, PackWhy, pack_list};
use tolva_planner::setup::{Kit, Setup};
use utoipa::ToSchema;

/// What a job takes along.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PackList {
    /// In a sentence: how many things, and what is weighed of them.
    pub says: String,
    /// The things, kind by kind.
    pub items: Vec<PackLine>,
    /// What is weighed of it, in kilograms.
    pub weighed_kg: f64,
    /// What to know.
    pub notes: Vec<String>,
}

/// Something to carry.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PackLine {
    /// What it is ticked off by: unique in the list, and the same for as long as it is the same thing.
    pub key: String,
    /// What kind: stable.
    pub kind: &'static str,
    /// The kind as a heading: `Modifiers`.
    pub heading: &'static str,
    /// What it is called.
    pub name: String,
    /// How many: `2`, `6 kg`.
    pub count: String,
    /// How many, as a number.
    pub number: u32,
    /// What they weigh together: `1.8 kg`; null where nobody has weighed it.
    pub weight: Option<String>,
    /// The same in kilograms.
    pub weight_kg: Option<f64>,
    /// What for: the setups, and why so many.
    pub says: String,
}

fn heading(kind: PackKind) -> &'static str {
    match kind {
        PackKind::Camera => "Cameras",
        PackKind::Lens => "Lenses",
        PackKind::Filter => "Filters",
        PackKind::Flash => "Flashes and lamps",
        PackKind::Battery => "Batteries",
        PackKind::Trigger => "Triggers",
        PackKind::Modifier => "Modifiers",
        PackKind::Gel => "Gels",
        PackKind::Stand => "Stands",
        PackKind::Boom => "Booms",
        PackKind::Card => "Cards, flags, diffusers",
        PackKind::Clamp => "Clamps",
        PackKind::Ballast => "Ballast",
        PackKind::Meter => "Meters",
        PackKind::Memory => "Memory",
    }
}

/// The list of a job in words.
pub fn pack_said(setups: &[Setup], kit: &Kit) -> PackList {
    let list = pack_list(setups, kit);
    let items: Vec<PackLine> = list.items.iter().map(|item| line(item, setups)).collect();
    let things: u32 = list.items.iter().filter(|item| item.kind != PackKind::Ballast).map(|item| item.count).sum();
    let says = if items.is_empty() {
        "Nothing to carry yet: no setup.".to_owned()
    } else {
        format!("{things} things; what is weighed of it comes to {:.1} kg.", list.weighed_kg)
    };
    let mut notes = Vec::new();
    if list.unweighed > 0 {
        notes.push("What has no weight in the kit is not in the sum.".to_owned());
    }
    if list.items.iter().any(|item| matches!(item.why, PackWhy::Pops { full_pops: None, .. })) {
        notes.push(
            "Where nobody has said how many frames a setup takes, one battery and a spare are in the list.".to_owned(),
        );
    }
    if list.items.iter().any(|item| item.kind == PackKind::Ballast) {
        notes.push(
            "Ballast is for the wind that is reckoned with: when gusts grow, take the modifier down. Somebody holds the \
             stand (common practice, no source)."
                .to_owned(),
        );
    }
    if list.items.iter().any(|item| item.kind == PackKind::Battery) {
        notes.push(
            "Batteries give less in the cold: keep the spare near the body (common practice, no source).".to_owned(),
        );
    }
    for at in &list.unplanned {
        notes.push(format!("“{}” cannot be planned: only what it names is in the list.", setups[*at].name));
    }
    PackList { says, items, weighed_kg: (list.weighed_kg * 10.0).round() / 10.0, notes }
}

fn line(item: &PackItem, setups: &[Setup]) -> PackLine {
    let name = match item.kind {
        PackKind::Battery => format!("For {}", item.name),
        PackKind::Clamp => "To hold cards".to_owned(),
        PackKind::Ballast => "Sandbags or water".to_owned(),
        PackKind::Memory => "Memory cards".to_owned(),
        _ => item.name.clone(),
    };
    let count = if item.kind == PackKind::Ballast { format!("{} kg", item.count) } else { item.count.to_string() };
    // Names may have commas of their own.
    let names: Vec<&str> = item.setups.iter().map(|at| setups[*at].name.as_str()).collect();
    let all = item.setups.len() == setups.len() && setups.len() > 1;
    let whom = if all { "every setup".to_owned() } else { names.join("; ") };
    let says = match &item.why {
        PackWhy::Used => format!("For {whom}."),
        PackWhy::Wind => format!("For the stands of {whom}, in the wind."),
        PackWhy::Burning { full_min, a_battery_min } => format!(
            "Lit while the setups are shot: {full_min:.0} min at full power. A battery lasts {a_battery_min:.0} min; with a \
             spare."
        ),
        PackWhy::Pops { full_pops: Some(pops), a_battery } => {
            format!("The frames take {pops:.0} full pops, a battery gives {a_battery:.0}; with a spare.")
        }
        PackWhy::Pops { full_pops: None, a_battery } => {
            format!("A battery gives {a_battery:.0} full pops; with a spare.")
        }
        PackWhy::Frames { frames: 0, megabytes } => {
            format!("A frame takes {megabytes:.0} MB, raw and JPEG; with a spare.")
        }
        PackWhy::Frames { frames, megabytes } => {
            let gigabytes = f64::from(*frames) * megabytes / 1000.0;
            format!("{frames} frames at least, {gigabytes:.1} GB raw and JPEG; with a spare.")
        }
    };
    let weight_kg = item.weight_kg.filter(|_| item.kind != PackKind::Ballast).map(|one| one * f64::from(item.count));
    PackLine {
        key: format!("{}/{}", item.kind.code(), item.id),
        kind: item.kind.code(),
        heading: heading(item.kind),
        name,
        count,
        number: item.count,
        weight: weight_kg.map(|weight| format!("{weight:.1} kg")),
        weight_kg: item.weight_kg.map(|one| one * f64::from(item.count)),
        says,
    }
}
