//! What stands on the one screen for the set.

use jiff::Timestamp;
use serde::Serialize;
use tolva_core::scale::{Metres, Power};
use tolva_core::time::LocalTime;
use tolva_planner::day::JobDays;
use tolva_planner::lighting::{Prepared, PreparedLight, PreparedScene};
use tolva_planner::refused::Refused;
use tolva_planner::run::can_look;
use tolva_planner::setup::{Control, Setup};
use tolva_planner::solver::{Outcome, State};
use tolva_planner::timetable::Walk;
use utoipa::ToSchema;

use super::moves::moves_said;
use crate::document::Write;
use crate::job_day::{DaySlot, HourOfDay, day_plan};
use crate::plan::Caution;
use crate::present::plan;
use crate::set::{SetNote, set_notes};
use crate::shots::{ShotList, shot_list};
use crate::shown::Show;
use crate::timetable::{LastMinute, timetable};

/// A setup on the set.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct RunSheet {
    /// The setup.
    pub setup_id: String,
    /// What it is called.
    pub name: String,
    /// What is noted of it; may be empty.
    pub notes: String,
    /// When it was made, by the clock of the machine Tolva runs on, in UTC: whoever shows it counts from here.
    pub utc: String,
    /// That instant on the clocks of the setup's place; null where it has none.
    pub now: Option<HourOfDay>,
    /// Whether the wish can be had at the setup's hour.
    pub possible: bool,
    /// The plan in a sentence.
    pub says: String,
    /// What the plan sets at the setup's hour.
    pub stands: RunDials,
    /// The white balance: `5600 K`.
    pub white_balance: String,
    /// The neutral filter: `3-stop ND`; null without one.
    pub filter: Option<String>,
    /// What to begin with, then every change as the light moves; empty where place and hour are not known.
    pub steps: Vec<RunStep>,
    /// The last minute the wish can be had; null where the light lasts.
    pub last: Option<LastMinute>,
    /// The readings, and until when each of them is good.
    pub readings: Vec<RunReading>,
    /// The parts of the picture of which one can say that they came too dark.
    pub regions: Vec<RunRegion>,
    /// What is taken.
    pub shots: ShotList,
    /// What to mind.
    pub cautions: Vec<Caution>,
    /// What can hurt somebody on the set, where it is used.
    pub hazards: Vec<SetNote>,
    /// When it is built and shot on its day; null where it is on no day, or does not fit.
    pub slot: Option<DaySlot>,
    /// The setup after it; null after the last.
    pub next: Option<NextSetup>,
}

/// What stands on camera and flashes.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct RunDials {
    /// The shutter: `1/125`.
    pub shutter: String,
    /// The aperture: `f/9`.
    pub aperture: String,
    /// The sensitivity: `ISO 100`.
    pub iso: String,
    /// The flashes.
    pub lights: Vec<LightThen>,
}

/// What stands on a flash.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct LightThen {
    /// Its letter.
    pub light_id: String,
    /// Its power: `1/8 +⅓`, `automatic`, `off`.
    pub power: String,
    /// How far it stands; null where it is off.
    pub distance: Option<String>,
}

/// What stands from an instant on.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct RunStep {
    /// From when, in UTC.
    pub utc: String,
    /// On the clocks of the place: `19:36`.
    pub clock: String,
    /// What stands then.
    pub stands: RunDials,
    /// What to turn: `Shutter 1/200 to 1/125`.
    pub does: Vec<String>,
    /// What to know.
    pub notes: Vec<String>,
}

/// A reading, and how long it is good.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct RunReading {
    /// Of which region.
    pub region_id: String,
    /// What that is called.
    pub name: String,
    /// When it was taken, in UTC; null where nobody noted it, or nothing was read.
    pub taken_utc: Option<String>,
    /// Whether it was read at all.
    pub read: bool,
    /// From when on the light has moved more than a stop since, in UTC; null where it does not.
    pub again_utc: Option<String>,
}

/// A part of the picture.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct RunRegion {
    /// Its id.
    pub region_id: String,
    /// What it is called.
    pub name: String,
}

/// The setup that comes next.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct NextSetup {
    /// Its id.
    pub setup_id: String,
    /// What it is called.
    pub name: String,
    /// When its shooting begins, on the clock; null where the day does not say it.
    pub shoots: Option<String>,
    /// The same in UTC.
    pub utc: Option<String>,
    /// What is moved for it, a move a line.
    pub moves: Vec<String>,
}

/// What stands on flashes in a state.
pub(crate) fn lights_then(setup: &Prepared<'_>, flashes: &[Option<(Metres, Power)>], show: Show) -> Vec<LightThen> {
    let then = |(light, at): (&PreparedLight<'_>, &Option<(Metres, Power)>)| LightThen {
        light_id: light.light.id.clone(),
        power: match at {
            None => "off".to_owned(),
            Some(_) if light.light.control == Control::Ttl => "automatic".to_owned(),
            Some((_, power)) => power.label(show.power()),
        },
        distance: at.map(|(distance, _)| distance.label(show.metres())),
    };
    setup.lights.iter().zip(flashes).map(then).collect()
}

/// What stands on camera and flashes in a state.
pub(crate) fn dials_of(setup: &Prepared<'_>, state: &State, show: Show) -> RunDials {
    let settings = state.settings;
    RunDials {
        shutter: settings.shutter.label(),
        aperture: settings.aperture.label(),
        iso: settings.iso.label(),
        lights: lights_then(setup, &state.flashes, show),
    }
}

/// A setup of a job on the set, at an instant.
///
/// # Errors
/// A setup that is not there, or cannot be planned.
pub fn run_sheet(
    of: JobDays<'_>,
    setup_id: &str,
    at: Timestamp,
    show: Show,
    write: &Write<'_>,
) -> Result<RunSheet, Refused> {
    let position = of.setups.iter().position(|setup| setup.id == setup_id);
    let position = position.ok_or_else(|| Refused::NoSuchSetup(setup_id.to_owned()))?;
    let setup = &of.setups[position];
    let prepared = Prepared::new(setup, of.kit)?;
    let plan = plan(setup, of.kit, show, write)?;
    let outcome = Outcome::of(&prepared);
    let state = State::of(&outcome);
    let walk = prepared.scene.as_ref().map(|scene| (scene, Walk::new(&prepared, scene)));
    let falling = walk.as_ref().map(|(scene, walk)| timetable(&prepared, scene, walk, show));
    let steps = falling.as_ref().zip(walk.as_ref()).map(|(table, (_, walk))| {
        let of = |(step, leg): (&crate::timetable::FallingStep, &tolva_planner::timetable::Leg)| RunStep {
            utc: step.utc.clone(),
            clock: step.clock.clone(),
            stands: dials_of(&prepared, &leg.state, show),
            does: step.does.clone(),
            notes: step.notes.clone(),
        };
        table.steps.iter().zip(&walk.legs).map(of).collect()
    });
    // The day as it is planned, where it can be.
    let date = setup.scene.as_ref().map(|scene| scene.at.date.as_str());
    let slots = day_plan(of, date, &[]).map(|day| day.slots).unwrap_or_default();
    let slot = slots.iter().find(|slot| slot.setup_id == setup_id).cloned();
    let regions = setup.regions.iter().enumerate().filter(|(region, _)| can_look(&prepared, *region));
    Ok(RunSheet {
        setup_id: setup.id.clone(),
        name: setup.name.clone(),
        notes: setup.notes.clone(),
        utc: at.to_string(),
        now: prepared.scene.as_ref().map(|scene| LocalTime::of(at, &scene.light.zone).into()),
        possible: plan.possible,
        says: plan.says,
        stands: dials_of(&prepared, &state, show),
        white_balance: plan.dial_card.white_balance,
        filter: plan.dial_card.filter,
        steps: steps.unwrap_or_default(),
        last: falling.and_then(|table| table.last),
        readings: readings(setup, walk.as_ref()),
        regions: regions
            .map(|(_, region)| RunRegion { region_id: region.id.clone(), name: region.name.clone() })
            .collect(),
        shots: shot_list(setup, of.kit, write)?,
        cautions: plan.cautions,
        hazards: set_notes(&prepared, of.kit, &outcome, show).into_iter().filter(|note| note.can_hurt).collect(),
        slot,
        next: next(of, position, &slots, show),
    })
}

fn readings(setup: &Setup, walk: Option<&(&PreparedScene<'_>, Walk<'_>)>) -> Vec<RunReading> {
    let of = |(index, region): (usize, &tolva_planner::setup::Region)| {
        let taken = region.ambient.last();
        let at = taken.and_then(|taken| taken.at.as_ref());
        let utc = walk.zip(at).and_then(|((scene, _), at)| at.instant(&scene.light.zone).ok());
        let again = walk.and_then(|(_, walk)| {
            let minute = i64::try_from(walk.read_again(index)?).ok()?;
            Some(walk.begin + jiff::SignedDuration::from_mins(minute))
        });
        RunReading {
            region_id: region.id.clone(),
            name: region.name.clone(),
            taken_utc: utc.map(|utc| utc.to_string()),
            read: taken.is_some(),
            again_utc: again.map(|again| again.to_string()),
        }
    };
    setup.regions.iter().enumerate().map(of).collect()
}

/// The setup after one: by the day's order, else by the job's.
fn next(of: JobDays<'_>, position: usize, slots: &[DaySlot], show: Show) -> Option<NextSetup> {
    let here = &of.setups[position];
    let by_day = slots.iter().position(|slot| slot.setup_id == here.id).map(|at| slots.get(at + 1));
    let (setup, slot) = match by_day {
        Some(slot) => (of.setups.iter().find(|setup| slot.is_some_and(|slot| slot.setup_id == setup.id))?, slot),
        None => (of.setups.get(position + 1)?, None),
    };
    Some(NextSetup {
        setup_id: setup.id.clone(),
        name: setup.name.clone(),
        shoots: slot.map(|slot| slot.shoots.clone()),
        utc: slot.map(|slot| slot.utc.clone()),
        moves: moves_said(here, setup, of.kit, show).unwrap_or_default(),
    })
}
