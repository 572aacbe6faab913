//! From one setup to the next, in words for whoever moves the stands.

use tolva_core::scale::Metres;
use tolva_planner::refused::Refused;
use tolva_planner::run::{SetupMove, moves_between};
use tolva_planner::setup::{Kit, Setup};

use crate::changes::Names;
use crate::shown::Show;

/// What is done between two setups, a move a line.
pub(super) fn moves_said(from: &Setup, to: &Setup, kit: &Kit, show: Show) -> Result<Vec<String>, Refused> {
    let names = Names { setup: to, kit, show };
    let metres = |away: Metres| away.label(show.metres());
    let said = moves_between(from, to, kit)?.into_iter().map(|one| match one {
        SetupMove::Camera(id) => format!("Take the {}", names.camera(&id)),
        SetupMove::Lens(id) => format!("Put on the {}", names.lens(&id)),
        SetupMove::Focal(mm) => format!("Zoom to {mm:.0} mm"),
        SetupMove::CameraDistance(away) => format!("Stand {} from the subject", metres(away)),
        SetupMove::Filters(ids) if ids.is_empty() => "Take the filter off the lens".to_owned(),
        SetupMove::Filters(ids) => format!("Put the {} on the lens", names.filters(&ids)),
        SetupMove::Tripod(true) => "Camera onto the tripod".to_owned(),
        SetupMove::Tripod(false) => "Camera off the tripod".to_owned(),
        SetupMove::Away(id) => format!("Put {id} away"),
        SetupMove::Up { light_id, flash_id, modifier_id, distance } => {
            let on = modifier_id.map_or_else(String::new, |id| format!(" with the {}", names.modifier(&id)));
            let away = distance.map_or_else(String::new, |away| format!(", {} away", metres(away)));
            format!("Set up {light_id}: the {}{on}{away}", names.unit(&flash_id))
        }
        SetupMove::Unit { light_id, flash_id } => format!("{light_id}: change to the {}", names.unit(&flash_id)),
        SetupMove::Modifier { light_id, modifier_id: Some(id) } => {
            format!("{light_id}: put on the {}", names.modifier(&id))
        }
        SetupMove::Modifier { light_id, modifier_id: None } => format!("{light_id}: take the modifier off"),
        SetupMove::Gels { light_id, gel_ids } if gel_ids.is_empty() => format!("{light_id}: take the gels off"),
        SetupMove::Gels { light_id, gel_ids } => format!("{light_id}: put on {}", names.gels(&gel_ids)),
        SetupMove::Distance { light_id, to } => format!("{light_id} to {}", metres(to)),
        SetupMove::Switch { light_id, on: true } => format!("{light_id} on"),
        SetupMove::Switch { light_id, on: false } => format!("{light_id} off"),
    });
    Ok(said.collect())
}
