//! From one setup to the next, in words for whoever moves the stands.

use tolva_core::scale::Metres;
use tolva_planner::refused::Refused;
use tolva_planner::run::{LightOn, SetupMove, moves_between};
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
        SetupMove::Side { light_id, from_camera_deg } => format!("{light_id} to {}", side(from_camera_deg)),
        SetupMove::Height { light_id, to } => format!("{light_id}: {} high", metres(to)),
        SetupMove::Aim { light_id, is_bounced: true, .. } => format!("{light_id}: bounce it"),
        SetupMove::Aim { light_id, region_id, is_bounced: false } => {
            format!("{light_id}: aim at {}", names.region(&region_id))
        }
        SetupMove::Feather { light_id, to_deg } if to_deg < 0.5 => format!("{light_id}: aim straight, no feather"),
        SetupMove::Feather { light_id, to_deg } => format!("{light_id}: feather {to_deg:.0}°"),
        SetupMove::Support { light_id, on } => format!("{light_id}: {}", on_words(&on, kit)),
        SetupMove::CameraSide { by_deg } => {
            let way = if by_deg > 0.0 { "left" } else { "right" };
            format!("Camera {:.0}° round to the {way}", by_deg.abs())
        }
        SetupMove::CameraHeight(up) => {
            let way = if up.0 > 0.0 { "up" } else { "down" };
            format!("Camera {} {way}", metres(Metres(up.0.abs())))
        }
        SetupMove::Portrait(true) => "Camera upright".to_owned(),
        SetupMove::Portrait(false) => "Camera level".to_owned(),
        SetupMove::Switch { light_id, on: true } => format!("{light_id} on"),
        SetupMove::Switch { light_id, on: false } => format!("{light_id} off"),
    });
    Ok(said.collect())
}

/// Position of a light by its angle round from the camera, in degrees: positive is camera left.
fn side(from_camera_deg: f64) -> String {
    let round = from_camera_deg.abs();
    let way = if from_camera_deg > 0.0 { "left" } else { "right" };
    match round {
        ..5.0 => "the front, at the camera".to_owned(),
        175.0.. => "behind the subject".to_owned(),
        ..100.0 => format!("camera {way}, {round:.0}° round"),
        _ => format!("camera {way}, {round:.0}° round, behind the subject"),
    }
}

fn on_words(on: &LightOn, kit: &Kit) -> String {
    match on {
        LightOn::Camera => "onto the camera".to_owned(),
        LightOn::Stand(id) => {
            let stand = kit.stands.iter().find(|one| Some(&one.id) == id.as_ref());
            stand.map_or_else(|| "onto a stand".to_owned(), |stand| format!("onto the {}", stand.name))
        }
        LightOn::Boom(id) => {
            let boom = kit.booms.iter().find(|one| Some(&one.id) == id.as_ref());
            boom.map_or_else(|| "onto a boom".to_owned(), |boom| format!("onto the {}", boom.name))
        }
        LightOn::Hand => "hand-held".to_owned(),
        LightOn::Clamp => "clamped".to_owned(),
    }
}
