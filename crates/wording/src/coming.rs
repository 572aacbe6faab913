//! The job that comes next: its day in a sentence, and what is still missing before it.

use serde::Serialize;
use tolva_planner::day::JobDays;
use tolva_planner::lighting::{AmbientSource, Prepared};
use tolva_planner::plan::Plan;
use tolva_planner::setup::{Kit, Setup};
use utoipa::ToSchema;

use crate::job_day::day_plan;

/// What there is to know of a job that comes.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct ComingJob {
    /// Its first day, as `2026-08-29`; null where it cannot be planned.
    pub date: Option<String>,
    /// The day in a sentence: `3 setups from 11:10 to 20:40.`
    pub says: String,
    /// The sun in a sentence; null where no setup has a place.
    pub sun_says: Option<String>,
    /// What is still missing, a line each; empty where nothing is.
    pub missing: Vec<String>,
    /// Its setups, in the order of the job.
    pub setups: Vec<ComingSetup>,
}

/// A setup of it.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct ComingSetup {
    /// Its id.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// When it is shot, on the clock; null where the day does not say it.
    pub shoots: Option<String>,
}

/// What there is to know of a job that comes; `packed` is whether anything is ticked off of what it takes along.
pub fn coming_job(of: JobDays<'_>, packed: bool) -> ComingJob {
    let day = day_plan(of, None, &[]);
    let mut missing: Vec<String> = of.setups.iter().flat_map(|setup| lacks(setup, of.kit)).collect();
    if of.setups.is_empty() {
        missing.push("It has no setup.".to_owned());
    }
    if let Ok(day) = &day {
        missing.extend(day.left_out.iter().map(|one| format!("{} does not fit: {}.", one.name, one.says)));
    }
    if !packed && !of.setups.is_empty() {
        missing.push("Nothing is packed yet.".to_owned());
    }
    let slots = day.as_ref().map(|day| day.slots.clone()).unwrap_or_default();
    let setups = of.setups.iter().map(|setup| ComingSetup {
        id: setup.id.clone(),
        name: setup.name.clone(),
        shoots: slots.iter().find(|slot| slot.setup_id == setup.id).map(|slot| slot.shoots.clone()),
    });
    let setups = setups.collect();
    match day {
        Ok(day) => ComingJob { date: day.date, says: day.says, sun_says: day.sun_says, missing, setups },
        Err(wrong) => ComingJob {
            date: None,
            says: format!("The day cannot be planned: {wrong}."),
            sun_says: None,
            missing,
            setups,
        },
    }
}

/// What is missing of a setup. What can only be had on the day itself, such as a reading, is not.
fn lacks(setup: &Setup, kit: &Kit) -> Vec<String> {
    let name = &setup.name;
    if setup.scene.is_none() {
        return vec![format!("{name}: where and when.")];
    }
    let Ok(prepared) = Prepared::new(setup, kit) else {
        return vec![format!("{name}: it cannot be planned as it stands.")];
    };
    let mut all = Vec::new();
    if !Plan::of(&prepared).possible() {
        all.push(format!("{name}: its wish cannot be had at its hour."));
    }
    if prepared.known.contains(&AmbientSource::Guess) {
        all.push(format!("{name}: part of its light is a guess."));
    }
    if setup.shots.is_empty() {
        all.push(format!("{name}: no shots are listed."));
    }
    all
}
