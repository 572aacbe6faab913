//! What shows, by its name.

use tolva_planner::glass::Shown;
use tolva_planner::setup::Setup;
use tolva_planner::staging::{Stage, Thing};

use crate::set::called as thing_called;

/// The thing of the set that shows.
pub(super) fn named(setup: &Setup, what: &Shown) -> Thing {
    match what {
        Shown::Light(light) => Thing::Light(setup.lights[*light].id.clone()),
        Shown::Photographer => Thing::Camera,
        Shown::Surroundings(thing) => thing.clone(),
    }
}

/// What shows, by its name.
pub(super) fn called(setup: &Setup, stage: &Stage, what: &Shown) -> String {
    match what {
        Shown::Photographer => "You, behind the camera".to_owned(),
        other => thing_called(setup, stage, &named(setup, other)),
    }
}
