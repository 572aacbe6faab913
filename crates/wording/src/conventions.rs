//! What another convention would have set, in words.

use serde::Serialize;
use utoipa::ToSchema;

use tolva_planner::conventions::{Convention, ConventionOption, Matter, conventions};
use tolva_planner::refused::Refused;
use tolva_planner::setup::{Control, Kit, Setup};

use crate::colour::{balance_label, convention_name};
use crate::document::{Document, Write};
use crate::names::Named;
use crate::shortfalls::Whose;
use crate::shown::Show;
use crate::words::lights_at;

/// A matter on which practitioners disagree.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct ConventionMatter {
    /// Its code: stable.
    pub code: &'static str,
    /// What it is: `Slowest shutter by hand`.
    pub matter: String,
    /// The conventions.
    pub conventions: Vec<ConventionWay>,
}

/// One convention.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct ConventionWay {
    /// Its code: stable.
    pub code: &'static str,
    /// What it is called.
    pub name: String,
    /// Whether the setup follows it.
    pub chosen: bool,
    /// What it would set: `1/200, f/9, ISO 100, A at 1/8`.
    pub settings: String,
    /// What is to be known of it; empty where the settings say it all.
    pub says: String,
    /// The setup with this convention.
    pub setup: Document,
}

/// All matters with their conventions, each solved for this setup.
///
/// # Errors
/// A setup that cannot be planned.
pub fn conventions_of(
    setup: &Setup,
    kit: &Kit,
    show: Show,
    write: &Write<'_>,
) -> Result<Vec<ConventionMatter>, Refused> {
    let mut all: Vec<(Matter, ConventionMatter)> = Vec::new();
    for option in conventions(setup, kit)? {
        let matter = option.convention.matter();
        let one = worded(&option, setup, kit, show, write);
        match all.last_mut() {
            Some((last, of)) if *last == matter => of.conventions.push(one),
            _ => all.push((
                matter,
                ConventionMatter { code: matter.code(), matter: called(matter).to_owned(), conventions: vec![one] },
            )),
        }
    }
    // A matter with nothing to choose keeps its place.
    if setup.lights.is_empty() {
        let control = Matter::FlashControl;
        let nothing =
            ConventionMatter { code: control.code(), matter: called(control).to_owned(), conventions: Vec::new() };
        all.insert(1.min(all.len()), (control, nothing));
    }
    Ok(all.into_iter().map(|(_, matter)| matter).collect())
}

fn worded(option: &ConventionOption, setup: &Setup, kit: &Kit, show: Show, write: &Write<'_>) -> ConventionWay {
    let says = match &option.shortfall {
        Some(shortfall) => Whose { setup: &option.setup, kit, settings: option.settings }.says(shortfall),
        // Where the balance is the matter, it is what is set.
        None if option.setup.white_balance != setup.white_balance => balance_label(&option.balance),
        None => String::new(),
    };
    ConventionWay {
        code: option.convention.code(),
        name: name(option.convention).to_owned(),
        chosen: option.setup == *setup,
        settings: format!("{}{}", option.settings.label(), lights_at(&option.lights, show.power())),
        says,
        setup: write(&option.setup),
    }
}

fn called(matter: Matter) -> &'static str {
    match matter {
        Matter::Blend => "How much flash",
        Matter::FlashControl => "Flash control",
        Matter::Handheld => "Slowest shutter by hand",
        Matter::WhiteBalance => "White balance",
        Matter::Exposure => "Exposure",
        Matter::Automatic => "What may be automatic",
        Matter::Aperture => "Finding the aperture",
    }
}

fn name(convention: Convention) -> &'static str {
    match convention {
        Convention::EqualFill => "Equal to the ambient, in contrasty light",
        Convention::FillTwoUnder => "Two stops under, in flat light",
        Convention::FillThreeUnder => "Just a touch, three under",
        Convention::HalfAndHalf => "Half and half, so that it looks unlit",
        Convention::Lift => "What lies behind placed, the subject lifted",
        Convention::Overpower => "Ambient well under, flash as the key",
        Convention::Control(Control::Manual) => "Manual power",
        Convention::Control(Control::Ttl) => "Automatic with compensation",
        Convention::Handheld(one) => one.name(),
        Convention::WhiteBalance(one) => convention_name(one),
        Convention::Exposure(one) => one.name(),
        Convention::Automatic(one) => one.name(),
        Convention::FreeAperture => "Whatever the light gives",
        Convention::OneHead => "Wide for one head",
        Convention::Group => "From the depth of a group",
    }
}
