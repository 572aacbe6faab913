//! A set to practise on, in words: what is known of it, what is wished, what a frame tells, what was hidden.

use serde::Serialize;
use tolva_core::scale::Stops;
use tolva_planner::drills::{Level, OnSet, OnSetFrame};
use utoipa::ToSchema;

use super::answers::halves;
use super::names::number_of;
use crate::frames::called;
use crate::shown::{Said, Show};

/// A set to practise on, and what frames of it have told.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct OnSetSaid {
    /// How hard: 1 to 3.
    pub level: u8,
    /// What is known before the first frame, a sentence each.
    pub stands: Vec<String>,
    /// What is to be reached.
    pub wish: String,
    /// What a frame tells at this level.
    pub tells: &'static str,
    /// The dials: shutter, aperture, ISO, power.
    pub dials: Vec<OnSetDial>,
    /// What each frame told, in the order they were taken.
    pub frames: Vec<OnSetFrameSaid>,
    /// What there is to say once it is reached or given up; null before.
    pub end: Option<OnSetEnd>,
}

/// A dial.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct OnSetDial {
    /// What it is called.
    pub name: &'static str,
    /// What is on it, in order.
    pub options: Vec<String>,
    /// Where it stands to begin with.
    pub begins_at: usize,
}

/// What a frame told.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct OnSetFrameSaid {
    /// What it was taken at: `1/125 · f/5.6 · ISO 100 · 1/8`.
    pub taken: String,
    /// What it tells, a line a region.
    pub says: Vec<String>,
    /// Whether it is what was wished.
    pub reached: bool,
}

/// How it ended.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct OnSetEnd {
    /// In a sentence or two: so many frames, and the fewest without luck.
    pub says: String,
    /// The fewest frames without luck.
    pub fewest: usize,
    /// What nobody knew, and by how much it was off its figures.
    pub hidden: Vec<HiddenSaid>,
}

/// Something that was hidden.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct HiddenSaid {
    /// What it is called.
    pub name: String,
    /// How much more of it there was than its figures say.
    pub more: Said,
}

/// A set in words. `ended` shows what was hidden, also where nothing was reached. Nothing where a frame is off the dials.
pub fn on_set_said(set: &OnSet, frames: &[OnSetFrame], ended: bool, show: Show) -> Option<OnSetSaid> {
    let told: Vec<OnSetFrameSaid> = frames.iter().map(|at| frame(set, *at, show)).collect::<Option<_>>()?;
    let reached = told.iter().position(|one| one.reached);
    let end = (ended || reached.is_some()).then(|| end(set, reached.map(|at| at + 1)));
    Some(OnSetSaid {
        level: number_of(set.level),
        stands: stands(set, show),
        wish: format!(
            "Reach the lit side on mid grey, and what lies behind {} it. Each within a third of a stop.",
            under(set.wishes()[0])
        ),
        tells: match set.level {
            Level::First => "Each frame is measured: by how much each region misses.",
            Level::Second => {
                "Each frame tells whether a region is too bright or too dark; by how much is yours to see."
            }
            Level::Third => "A frame is a picture and nothing else.",
        },
        dials: dials(set, show),
        frames: told,
        end,
    })
}

fn under(stops: Stops) -> String {
    if stops.0 == 0.0 { "as bright as".to_owned() } else { format!("{} under", halves(Stops(stops.0.abs()))) }
}

fn stands(set: &OnSet, show: Show) -> Vec<String> {
    let (behind, lit) = (set.scene.behind_ev, set.scene.behind_ev - set.scene.under.0);
    let flash = set.flash_alone().map(|aperture| {
        format!(
            "The flash stands {} away: by its figures full power alone is right on the lit side at {}, ISO 100.",
            set.distance.label(show.metres()),
            aperture.label()
        )
    });
    let light = format!("The light that is there was guessed: behind EV {behind}, lit side EV {lit}, at ISO 100.");
    let faults = "Guesses, the flash and the camera are off by what such things are off by; what that is stays hidden.";
    std::iter::once(light).chain(flash).chain(std::iter::once(faults.to_owned())).collect()
}

fn dials(set: &OnSet, show: Show) -> Vec<OnSetDial> {
    let (all, begins) = (set.dials(), set.begins());
    let shutters = all.shutters.iter().map(|one| one.label()).collect();
    let apertures = all.apertures.iter().map(|one| one.label()).collect();
    let isos = all.isos.iter().map(|one| one.label()).collect();
    let powers = all.powers.iter().map(|one| one.label(show.power())).collect();
    [
        ("Shutter", shutters, begins.shutter),
        ("Aperture", apertures, begins.aperture),
        ("ISO", isos, begins.iso),
        ("Power", powers, begins.power),
    ]
    .map(|(name, options, begins_at)| OnSetDial { name, options, begins_at })
    .into()
}

fn frame(set: &OnSet, at: OnSetFrame, show: Show) -> Option<OnSetFrameSaid> {
    let off = set.off(at)?;
    let reached = OnSet::is_reached(off);
    let dials = set.dials();
    let taken = [
        dials.shutters.get(at.shutter)?.label(),
        dials.apertures.get(at.aperture)?.label(),
        dials.isos.get(at.iso)?.label(),
        dials.powers.get(at.power)?.label(show.power()),
    ];
    // What lies behind stands first on a rail; in a picture one looks at the face first.
    let says = [("Lit side", off[1]), ("Behind", off[0])].map(|(region, off)| {
        let way = if off.0 > 0.0 { "too bright" } else { "too dark" };
        let near = OnSet::is_reached([off, off]);
        match set.level {
            _ if near => format!("{region}: as wished"),
            Level::First => format!("{region}: {} {way}", off.amount()),
            _ => format!("{region}: {way}"),
        }
    });
    let says = match set.level {
        Level::Third if reached => vec!["As wished".to_owned()],
        Level::Third => vec!["Not yet as wished".to_owned()],
        _ => says.into(),
    };
    Some(OnSetFrameSaid { taken: taken.join(" · "), says, reached })
}

fn end(set: &OnSet, reached: Option<usize>) -> OnSetEnd {
    let count = |frames: usize| if frames == 1 { "1 frame".to_owned() } else { format!("{frames} frames") };
    let fewest = format!(
        "Without luck {} is the fewest: what the readings give, and then what each frame teaches.",
        count(set.fewest)
    );
    let says = match reached {
        Some(frames) => format!("Reached in {}. {fewest}", count(frames)),
        None => format!("Not reached. {fewest}"),
    };
    let setup = set.setup(set.begins());
    let name = |what| setup.as_ref().map_or_else(String::new, |setup| called(what, setup, set.kit()));
    let hidden = set.hidden.iter().map(|(what, more)| HiddenSaid { name: name(what), more: (*more).into() });
    OnSetEnd { says, fewest: set.fewest, hidden: hidden.collect() }
}
