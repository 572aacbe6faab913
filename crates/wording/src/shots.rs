//! Shots as they are said: what each is, how it is taken, what each of its exposures is given.

use serde::Serialize;
use tolva_core::exposure::CameraSettings;
use tolva_core::scale::{Setting, Stops};
use tolva_planner::lighting::Prepared;
use tolva_planner::refused::Refused;
use tolva_planner::setup::{Kit, Setup, Shot, ShotKind};
use tolva_planner::shots::{exposures, shutter_for, stack, stack_missing, together};
use tolva_planner::solver::Outcome;
use utoipa::ToSchema;

use crate::document::{Document, Write};
use crate::names::Named;
use crate::words::upper_first;

/// The shots of a setup, in the order of taking.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct ShotList {
    /// In a sentence: `12 of 20 frames are taken.`
    pub says: String,
    /// The shots.
    pub shots: Vec<ShotSaid>,
    /// What there is to offer: an order that keeps together what stays the same, the stack the setup works by.
    pub offers: Vec<ShotOffer>,
}

/// A shot.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct ShotSaid {
    /// Its id.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// How it is taken, by name: `Clean plate`.
    pub kind: &'static str,
    /// Who is in it; empty where nobody has said it.
    pub who: String,
    /// How many frames.
    pub frames: u32,
    /// How many of them are ticked off.
    pub taken: u32,
    /// The same in words: `3 of 8`, `taken`.
    pub done: String,
    /// How it is taken, in a sentence or two; may be empty.
    pub how: String,
    /// Poses, props, hazards; may be empty.
    pub notes: String,
}

/// Something that is done to a list of shots with one press.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct ShotOffer {
    /// What it does: `Put the stack on the list`.
    pub does: String,
    /// Why, in a sentence.
    pub says: String,
    /// The setup with it done.
    pub setup: Document,
}

impl Named for ShotKind {
    fn name(self) -> &'static str {
        match self {
            Self::Picture => "Picture",
            Self::CleanPlate => "Clean plate",
            Self::HelperPair => "Pair with a helper",
            Self::MultipleExposure => "Multiple exposure",
            Self::Stack => "Focus stack",
            Self::Bracket => "Bracket",
            Self::Panning => "Panning",
        }
    }
}

/// The shots of a setup in words.
///
/// # Errors
/// A setup that cannot be planned.
pub fn shot_list(setup: &Setup, kit: &Kit, write: &Write<'_>) -> Result<ShotList, Refused> {
    let prepared = Prepared::new(setup, kit)?;
    let stands = Outcome::of(&prepared).settings;
    let shots = setup.shots.iter().map(|shot| said(&prepared, stands, shot)).collect();
    Ok(ShotList { says: summary(setup), shots, offers: offers(&prepared, stands, write) })
}

fn summary(setup: &Setup) -> String {
    match setup.frames_taken() {
        (_, 0) => "No shots are listed.".to_owned(),
        (taken, asked) if taken == asked => format!("All {asked} frames are taken."),
        (taken, asked) => format!("{taken} of {asked} frames are taken."),
    }
}

fn said(setup: &Prepared<'_>, stands: CameraSettings, shot: &Shot) -> ShotSaid {
    let done = match (shot.taken, shot.frames) {
        (taken, frames) if taken >= frames => "taken".to_owned(),
        (taken, frames) => format!("{taken} of {frames}"),
    };
    ShotSaid {
        id: shot.id.clone(),
        name: shot.name.clone(),
        kind: shot.kind.name(),
        who: shot.who.clone(),
        frames: shot.frames,
        taken: shot.taken,
        done,
        how: how(setup, stands, shot),
        notes: shot.notes.clone(),
    }
}

fn how(setup: &Prepared<'_>, stands: CameraSettings, shot: &Shot) -> String {
    let mut all = Vec::new();
    let off = if shot.lights_off.is_empty() { None } else { Some(format!("{} off", shot.lights_off.join(" and "))) };
    let out = shot.people_out.then(|| "nobody in the frame".to_owned());
    let with: Vec<String> = off.into_iter().chain(out).collect();
    if !with.is_empty() {
        all.push(format!("{}.", upper_first(&with.join(", "))));
    }
    match shot.kind {
        ShotKind::Picture => {}
        ShotKind::CleanPlate => all.push(
            "Camera where it was; shutter, aperture, ISO, focus and white balance as for the picture.".to_owned(),
        ),
        ShotKind::HelperPair => all.push(
            "Two frames at the same settings, camera where it was: one with the helper in the picture, one without."
                .to_owned(),
        ),
        ShotKind::MultipleExposure => all.push(multiple(shot)),
        ShotKind::Stack => all.push(match stack(setup, stands) {
            Some(stack) => format!("Same settings; from frame to frame the focus moves by {:.2} mm.", stack.step.0),
            None => "Same settings; the focus moves from the nearest point to the farthest.".to_owned(),
        }),
        ShotKind::Bracket => all.push(bracket(setup, stands, shot)),
        ShotKind::Panning => all.push(
            "The camera goes along with what moves, before and after the frame; a slower shutter draws longer lines. \
             Common practice, no source: of ten frames one or two are sharp."
                .to_owned(),
        ),
    }
    all.join(" ")
}

/// So many stops, as they are given to an exposure.
fn given(stops: Stops) -> String {
    if stops.0.abs() < 0.05 { "as it is".to_owned() } else { format!("{} stops", stops.as_given()) }
}

fn multiple(shot: &Shot) -> String {
    let all = exposures(shot);
    let like = shot.parts.is_empty() || all.windows(2).all(|two| (two[0] - two[1]).0.abs() < 0.01);
    let each = match all.first() {
        Some(first) if like => format!("{} exposures on one frame, each {}", all.len(), given(*first)),
        _ => format!(
            "{} exposures on one frame: {}",
            all.len(),
            all.iter().map(|one| given(*one)).collect::<Vec<_>>().join(", ")
        ),
    };
    format!("{each}, so that together they come to one. By aperture or filter: those move flash and ambient alike.")
}

fn bracket(setup: &Prepared<'_>, stands: CameraSettings, shot: &Shot) -> String {
    let frames = exposures(shot).into_iter().map(|more| {
        let shutter = shutter_for(setup, stands, more).map(Setting::label);
        (given(more), shutter)
    });
    let frames: Vec<_> = frames.collect();
    let all = frames.iter().map(|(more, shutter)| match shutter {
        Some(shutter) => format!("{more} at {shutter}"),
        None => format!("{more} (not by the shutter)"),
    });
    let said = all.collect::<Vec<_>>().join(", ");
    let note = if frames.iter().any(|(_, shutter)| shutter.is_none()) {
        " What is past the sync or the end of the dial goes by ISO or by the power."
    } else if setup.with_flash() {
        " The shutter moves the light that is there; the flash stays."
    } else {
        ""
    };
    format!("{said}.{note}")
}

fn offers(setup: &Prepared<'_>, stands: CameraSettings, write: &Write<'_>) -> Vec<ShotOffer> {
    let mut all = Vec::new();
    if let Some(stack) = stack_missing(setup, stands) {
        let mut with = setup.setup.clone();
        let free = (1..).map(|number| format!("stack-{number}"));
        let id = free.into_iter().find(|id| with.shots.iter().all(|one| &one.id != id)).unwrap_or_default();
        let shot = Shot { kind: ShotKind::Stack, frames: stack.frames, name: "Focus stack".into(), ..Shot::new(&id) };
        with.shots.push(shot);
        all.push(ShotOffer {
            does: "Put the stack on the list".to_owned(),
            says: format!("What is to be sharp takes {} frames, {:.2} mm apart.", stack.frames, stack.step.0),
            setup: write(&with),
        });
    }
    let order = together(&setup.setup.shots);
    if order.windows(2).any(|two| two[0] > two[1]) {
        let mut with = setup.setup.clone();
        with.shots = order.iter().map(|at| setup.setup.shots[*at].clone()).collect();
        let names: Vec<&str> = with.shots.iter().map(|shot| shot.name.as_str()).collect();
        all.push(ShotOffer {
            does: "Keep together what stays the same".to_owned(),
            says: format!("In this order no dial is turned twice and nobody walks in and out: {}.", names.join(", ")),
            setup: write(&with),
        });
    }
    all
}
