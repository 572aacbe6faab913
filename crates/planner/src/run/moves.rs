//! From one setup to the next: what is moved, changed and switched, as far as it is in the hand.

use tolva_core::scale::Metres;

use crate::lighting::Prepared;
use crate::refused::Refused;
use crate::setup::{Kit, Light, Setup};
use crate::solver::Outcome;

/// Something that is done between two setups.
#[derive(Clone, Debug, PartialEq)]
pub enum SetupMove {
    /// Another camera, by its id.
    Camera(String),
    /// Another lens, by its id.
    Lens(String),
    /// Another focal length, in millimetres.
    Focal(f64),
    /// The camera stands so far away.
    CameraDistance(Metres),
    /// Other filters on the lens, by their ids; none where all come off.
    Filters(Vec<String>),
    /// The camera goes onto a tripod, or off it.
    Tripod(bool),
    /// A light is put away.
    Away(String),
    /// A light is set up.
    Up {
        /// Its letter.
        light_id: String,
        /// The unit.
        flash_id: String,
        /// What is on it.
        modifier_id: Option<String>,
        /// How far it stands; nothing where the blend leaves it off, or it sits on the camera.
        distance: Option<Metres>,
    },
    /// Another unit.
    Unit {
        /// The light's letter.
        light_id: String,
        /// The unit.
        flash_id: String,
    },
    /// Another modifier, or none.
    Modifier {
        /// The light's letter.
        light_id: String,
        /// What is on it now.
        modifier_id: Option<String>,
    },
    /// Other gels, or none.
    Gels {
        /// The light's letter.
        light_id: String,
        /// Which.
        gel_ids: Vec<String>,
    },
    /// It stands somewhere else.
    Distance {
        /// The light's letter.
        light_id: String,
        /// How far from what it is aimed at.
        to: Metres,
    },
    /// It is switched off, or on again.
    Switch {
        /// The light's letter.
        light_id: String,
        /// Whether it is on now.
        on: bool,
    },
}

/// A light of a plan that stands there: how far, and whether it is on.
fn standing<'a>(
    setup: &'a Setup,
    prepared: &Prepared<'_>,
    outcome: &Outcome,
) -> Vec<(&'a Light, Option<Metres>, bool)> {
    let of = |(index, light): (usize, &'a Light)| {
        let at = prepared.lights.iter().position(|one| one.index == index);
        let dialled = at.and_then(|at| outcome.lights[at]);
        let stands = dialled.map(|one| one.distance).or(light.distance_m.map(Metres)).filter(|_| !light.on_camera);
        // A lamp that burns on is on.
        (light, stands, at.is_none() || dialled.is_some())
    };
    setup.lights.iter().enumerate().map(of).collect()
}

/// What is done between two setups, the camera first.
///
/// # Errors
/// One that cannot be planned.
pub fn moves_between(from: &Setup, to: &Setup, kit: &Kit) -> Result<Vec<SetupMove>, Refused> {
    let (was, is) = (Prepared::new(from, kit)?, Prepared::new(to, kit)?);
    let (before, after) = (Outcome::of(&was), Outcome::of(&is));
    let mut all = of_camera(from, to);
    let stood = standing(from, &was, &before);
    let stands = standing(to, &is, &after);
    for (light, ..) in &stood {
        if stands.iter().all(|(other, ..)| other.id != light.id) {
            all.push(SetupMove::Away(light.id.clone()));
        }
    }
    for (light, distance, on) in &stands {
        let light_id = light.id.clone();
        let Some((other, stood, was_on)) = stood.iter().find(|(other, ..)| other.id == light.id) else {
            let (flash_id, modifier_id) = (light.flash_id.clone(), light.modifier_id.clone());
            all.push(SetupMove::Up { light_id, flash_id, modifier_id, distance: distance.filter(|_| *on) });
            continue;
        };
        if other.flash_id != light.flash_id {
            all.push(SetupMove::Unit { light_id: light_id.clone(), flash_id: light.flash_id.clone() });
        }
        if other.modifier_id != light.modifier_id {
            all.push(SetupMove::Modifier { light_id: light_id.clone(), modifier_id: light.modifier_id.clone() });
        }
        if other.gel_ids != light.gel_ids {
            all.push(SetupMove::Gels { light_id: light_id.clone(), gel_ids: light.gel_ids.clone() });
        }
        if let Some(to) = distance
            && stood.is_none_or(|stood| (stood.0 - to.0).abs() > 0.05)
        {
            all.push(SetupMove::Distance { light_id: light_id.clone(), to: *to });
        }
        if was_on != on {
            all.push(SetupMove::Switch { light_id, on: *on });
        }
    }
    Ok(all)
}

fn of_camera(from: &Setup, to: &Setup) -> Vec<SetupMove> {
    let mut all = Vec::new();
    if from.camera_id != to.camera_id {
        all.push(SetupMove::Camera(to.camera_id.clone()));
    }
    if from.lens_id != to.lens_id {
        all.push(SetupMove::Lens(to.lens_id.clone()));
    }
    if (from.focal_length_mm - to.focal_length_mm).abs() > 0.5 {
        all.push(SetupMove::Focal(to.focal_length_mm));
    }
    if (from.camera_distance_m - to.camera_distance_m).abs() > 0.05 {
        all.push(SetupMove::CameraDistance(Metres(to.camera_distance_m)));
    }
    if from.filter_ids != to.filter_ids {
        all.push(SetupMove::Filters(to.filter_ids.clone()));
    }
    if from.speed.tripod != to.speed.tripod {
        all.push(SetupMove::Tripod(to.speed.tripod));
    }
    all
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::setup::Blend;

    #[test]
    fn the_same_setup_moves_nothing() {
        let kit = Kit::starter();
        let setup = Setup::new("a", &kit);
        assert_eq!(moves_between(&setup, &setup, &kit), Ok(Vec::new()));
    }

    #[test]
    fn what_is_in_the_hand_is_told() {
        let kit = Kit::starter();
        let from = Setup::new("a", &kit);
        let mut to = from.clone();
        to.focal_length_mm = 35.0;
        to.speed.tripod = true;
        to.lights[0].distance_m = Some(2.2);
        to.lights[0].gel_ids = vec![kit.gels[0].id.clone()];
        to.add_light(&kit).expect("room");
        let moves = moves_between(&from, &to, &kit).expect("good");
        assert_eq!(moves[..2], [SetupMove::Focal(35.0), SetupMove::Tripod(true)]);
        assert!(moves.contains(&SetupMove::Distance { light_id: "A".into(), to: Metres(2.2) }), "{moves:?}");
        assert!(moves.iter().any(|one| matches!(one, SetupMove::Gels { light_id, .. } if light_id == "A")));
        assert!(moves.iter().any(|one| matches!(one, SetupMove::Up { light_id, .. } if light_id == "B")));
        let back = moves_between(&to, &from, &kit).expect("good");
        assert!(back.contains(&SetupMove::Away("B".into())), "{back:?}");
    }

    /// A blend without flash switches the light off where it stands.
    #[test]
    fn a_light_that_is_not_used_is_switched_off() {
        let kit = Kit::starter();
        let from = Setup::new("a", &kit);
        let to = Setup { blend: Blend::AmbientOnly { subject_stops: 0.0 }, ..from.clone() };
        let moves = moves_between(&from, &to, &kit).expect("good");
        assert_eq!(moves, [SetupMove::Switch { light_id: "A".into(), on: false }]);
    }
}
