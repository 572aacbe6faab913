//! What another school would have set: each is solved, and put beside the setup as it is.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::automatic::AutomaticSchool;
use super::colour::{balance_label, every_balance, school_of};
use super::exposure::ExposureSchool;
use super::outcome::Outcome;
use super::plan::Show;
use super::words::lights_at;
use crate::job::{Blend, CheckedSetup, Control, Depth, Kit, Problems, Setup};
use tolva_core::colour::Preset;
use tolva_core::optics::HandheldSchool;

/// A matter on which practitioners disagree.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct SchoolMatter {
    /// What it is: `Slowest shutter by hand`.
    pub matter: String,
    /// The schools.
    pub schools: Vec<School>,
}

/// One school.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct School {
    /// What it is called.
    pub name: String,
    /// Whether the setup follows it.
    pub chosen: bool,
    /// What it would set: `1/200, f/9, ISO 100, A at 1/8`.
    pub settings: String,
    /// What is to be known of it; empty where the settings say it all.
    pub says: String,
    /// The setup with this school.
    pub setup: Setup,
}

/// All matters with their schools, each solved for this setup.
///
/// # Errors
/// Everything that is wrong with the kit or the setup, with pointers that begin with `/kit` and `/setup`.
pub fn schools(setup: &Setup, kit: &Kit, show: Show) -> Result<Vec<SchoolMatter>, Problems> {
    CheckedSetup::new(setup, kit)?;
    let all = [
        ("How much flash", blends(setup)),
        ("Flash control", controls(setup)),
        ("Slowest shutter by hand", hands(setup)),
        ("White balance", balances(setup)),
        ("Exposure", exposures(setup)),
        ("What may be automatic", automatics(setup)),
        ("Finding the aperture", apertures(setup)),
    ];
    let solved = all.into_iter().map(|(matter, schools)| SchoolMatter {
        matter: matter.to_owned(),
        schools: schools.into_iter().filter_map(|(name, other)| school(setup, name, other, kit, show)).collect(),
    });
    Ok(solved.collect())
}

fn school(setup: &Setup, name: &str, other: Setup, kit: &Kit, show: Show) -> Option<School> {
    let checked = CheckedSetup::new(&other, kit).ok()?;
    let outcome = Outcome::of(&checked);
    let settings = format!("{}{}", outcome.settings.label(), lights_at(&outcome.lights_on(&checked), show.power));
    let says = match outcome.gaps.first() {
        Some(gap) => gap.says.clone(),
        // Where the balance is the matter, it is what is set.
        None if other.white_balance != setup.white_balance => balance_label(&checked, &outcome),
        None => String::new(),
    };
    drop(checked);
    Some(School { name: name.to_owned(), chosen: other == *setup, settings, says, setup: other })
}

fn with(setup: &Setup, change: impl FnOnce(&mut Setup)) -> Setup {
    let mut other = setup.clone();
    change(&mut other);
    other
}

/// The blend as it is where it is of that kind, and otherwise as the school has it.
fn blends(setup: &Setup) -> Vec<(&'static str, Setup)> {
    let subject = match setup.blend {
        Blend::HalfAndHalf { subject_stops }
        | Blend::Lift { subject_stops, .. }
        | Blend::Overpower { subject_stops, .. }
        | Blend::AmbientOnly { subject_stops } => subject_stops,
        Blend::Fill { .. } | Blend::Silhouette { .. } => 0.0,
    };
    let lift = match setup.blend {
        lift @ Blend::Lift { .. } => lift,
        _ => Blend::Lift { subject_stops: subject, behind_stops: -1.0 },
    };
    let over = match setup.blend {
        over @ Blend::Overpower { .. } => over,
        _ => Blend::Overpower { subject_stops: subject, ambient_stops: -3.0 },
    };
    let fill = |fill_stops| Blend::Fill {
        ambient_stops: if let Blend::Fill { ambient_stops, .. } = setup.blend { ambient_stops } else { 0.0 },
        fill_stops,
    };
    [
        ("Equal to the ambient, in contrasty light", fill(0.0)),
        ("Two stops under, in flat light", fill(-2.0)),
        ("Just a touch, three under", fill(-3.0)),
        ("Half and half, so that it looks unlit", Blend::HalfAndHalf { subject_stops: subject }),
        ("What lies behind placed, the subject lifted", lift),
        ("Ambient well under, flash as the key", over),
    ]
    .into_iter()
    .map(|(name, blend)| (name, with(setup, |s| s.blend = blend)))
    .collect()
}

fn controls(setup: &Setup) -> Vec<(&'static str, Setup)> {
    let all = |control| with(setup, |s| s.lights.iter_mut().for_each(|light| light.control = control));
    if setup.lights.is_empty() {
        return Vec::new();
    }
    vec![("Manual power", all(Control::Manual)), ("Automatic with compensation", all(Control::Automatic))]
}

fn hands(setup: &Setup) -> Vec<(&'static str, Setup)> {
    let one = |school: HandheldSchool| {
        let other = with(setup, |s| {
            s.speed.school = school;
            s.speed.slowest_shutter_s = None;
            s.speed.tripod = false;
        });
        (school.name(), other)
    };
    HandheldSchool::OFFERED.map(one).into()
}

fn balances(setup: &Setup) -> Vec<(&'static str, Setup)> {
    let all = every_balance(setup.white_balance, Preset::Shade);
    all.into_iter().map(|one| (school_of(one), with(setup, |s| s.white_balance = one))).collect()
}

fn exposures(setup: &Setup) -> Vec<(&'static str, Setup)> {
    ExposureSchool::OFFERED.map(|school| (school.name(), with(setup, |s| s.exposure = school))).into()
}

fn automatics(setup: &Setup) -> Vec<(&'static str, Setup)> {
    AutomaticSchool::OFFERED.map(|school| (school.name(), with(setup, |s| s.automatic = school))).into()
}

fn apertures(setup: &Setup) -> Vec<(&'static str, Setup)> {
    let depth = |depth| with(setup, |s| s.depth = depth);
    let rows = match setup.depth {
        rows @ (Depth::Rows { .. } | Depth::Deep { .. }) => rows,
        _ => Depth::Rows { rows: 2, apart_m: 0.8 },
    };
    vec![
        ("Whatever the light gives", depth(Depth::Free)),
        ("Wide for one head", depth(Depth::OneHead)),
        ("From the depth of a group", depth(rows)),
    ]
}
