//! Clean plates: a second frame with something off, all else the same, to take over what a reflection spoils.

use crate::refused::Refused;
use crate::setup::{Setup, Shot, ShotKind};
use crate::shots::MOST_SHOTS;

/// A clean plate joins the frames of a setup, after the picture itself where the list is empty: the same settings with
/// these lights off, with or without people. One that is there already stays as it is.
///
/// # Errors
/// A light that is not there; more frames than a setup has.
pub fn clean_plate(
    setup: &mut Setup,
    (main_name, name): (&str, &str),
    lights_off: Vec<String>,
    people_out: bool,
) -> Result<(), Refused> {
    if let Some(missing) = lights_off.iter().find(|id| !setup.lights.iter().any(|light| &light.id == *id)) {
        return Err(Refused::NoSuchLight(missing.clone()));
    }
    let same =
        |one: &Shot| one.kind == ShotKind::CleanPlate && one.lights_off == lights_off && one.people_out == people_out;
    if setup.shots.iter().any(same) {
        return Ok(());
    }
    let main_first = setup.shots.is_empty();
    if setup.shots.len() + 1 + usize::from(main_first) > MOST_SHOTS {
        return Err(Refused::Full(MOST_SHOTS));
    }
    let add = |frames: &mut Vec<Shot>, name: &str, kind, lights_off, people_out| {
        let free = (1..=frames.len() + 1).map(|number| format!("frame-{number}"));
        let id = free.into_iter().find(|id| !frames.iter().any(|one| &one.id == id)).unwrap_or_default();
        frames.push(Shot { name: name.to_owned(), kind, lights_off, people_out, ..Shot::new(&id) });
    };
    if main_first {
        add(&mut setup.shots, main_name, ShotKind::Picture, Vec::new(), false);
    }
    add(&mut setup.shots, name, ShotKind::CleanPlate, lights_off, people_out);
    Ok(())
}
