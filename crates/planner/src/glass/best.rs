//! A room of mirrors: the place for camera and light that shows in none of them, or that shows least.

use tolva_core::set::Vector;

use super::moves::turned;
use super::showing::{Look, Shown};
use super::tries::{pinned, said, spoils};
use crate::refused::Refused;
use crate::set::{LightDistances, SetNotice, distances, notices};
use crate::setup::{Kit, Setup};
use crate::staging::{Laid, Stage, Thing};

/// How far round the camera and the first light go, and how high, from where they stand. Chosen.
const CAMERA_DEG: [f64; 9] = [0.0, 10.0, -10.0, 20.0, -20.0, 35.0, -35.0, 50.0, -50.0];
const CAMERA_UP_M: [f64; 3] = [0.0, 0.6, -0.6];
const LIGHT_DEG: [f64; 7] = [0.0, 20.0, -20.0, 40.0, -40.0, 65.0, -65.0];
const LIGHT_UP_M: [f64; 3] = [0.0, 0.6, 1.2];

/// Usual heights of a camera, in metres. Common practice, no source.
const CAMERA_M: (f64, f64) = (0.3, 2.6);

/// A place for camera and light.
#[derive(Clone, Debug, PartialEq)]
pub struct BestPlace {
    /// The setup with both there.
    pub setup: Setup,
    /// How far round the camera went, and how much higher.
    pub camera: (f64, f64),
    /// The same of the light.
    pub light: (f64, f64),
    /// The part of the frame that what shows takes up.
    pub shows: f64,
}

/// The place for the camera and the first light off it that shows in no glass, the nearest to where they stand; where there
/// is none, the one that shows least. Some six hundred places are looked at.
///
/// # Errors
/// A setup without a light off the camera.
pub fn best_place(setup: &Setup, kit: &Kit) -> Result<BestPlace, Refused> {
    let mut used = setup.clone();
    used.use_set();
    let away = distances(&used, kit);
    let pinned = pinned(&used, &away);
    let light = pinned.each_light().find(|(_, light)| !light.on_camera);
    let (light, _) = light.ok_or_else(|| Refused::NoSuchLight(String::new()))?;
    let laid = Laid::of(&pinned);
    let (camera_at, anchor) = (laid.camera(&pinned), laid.anchor());
    let (light_at, aim) = (laid.light(&pinned, light, away[light]), laid.aim(&pinned, light));
    let mut tries: Vec<(f64, [f64; 4])> = Vec::new();
    for round in CAMERA_DEG {
        for up in CAMERA_UP_M.iter().filter(|up| may_stand(camera_at.z, **up)) {
            for light_round in LIGHT_DEG {
                for light_up in LIGHT_UP_M {
                    let far = round.abs() / 15.0 + up.abs() / 0.4 + light_round.abs() / 20.0 + light_up / 0.5;
                    tries.push((far, [round, *up, light_round, light_up]));
                }
            }
        }
    }
    tries.sort_by(|a, b| a.0.total_cmp(&b.0));
    let before = spoilt(&pinned, kit, (&Stage::of(&pinned, kit), &away));
    let mut best: Option<BestPlace> = None;
    for (_, [round, up, light_round, light_up]) in tries {
        let mut one = pinned.clone();
        one.camera_to(turned(camera_at, anchor, round) + Vector::Z * up);
        one.light_to(light, turned(light_at, aim, light_round) + Vector::Z * light_up);
        let away = said(&one, &away);
        let stage = Stage::of(&one, kit);
        let shows: f64 = Look::new(&stage, &away)
            .seen()
            .iter()
            .filter(|(_, what, _)| !matches!(what, Shown::Surroundings(_)))
            .map(|(_, _, seen)| seen.of_the_frame())
            .sum();
        if best.as_ref().is_some_and(|best| shows >= best.shows) || spoilt(&one, kit, (&stage, &away)) > before {
            continue;
        }
        best = Some(BestPlace { setup: one, camera: (round, up), light: (light_round, light_up), shows });
        if shows == 0.0 {
            break;
        }
    }
    best.ok_or(Refused::NoSuchThing("place".to_owned()))
}

/// Whether a camera at a height is tried that much higher: within [`CAMERA_M`]; from outside it, at its own height and towards it.
fn may_stand(height_m: f64, up_m: f64) -> bool {
    let (low, high) = CAMERA_M;
    let then = height_m + up_m;
    let towards = (height_m > high && up_m < 0.0) || (height_m < low && up_m > 0.0);
    up_m == 0.0 || (low..=high).contains(&then) || (towards && then > 0.0)
}

/// How many things stand in the frame that should not, or inside of others.
fn spoilt(setup: &Setup, kit: &Kit, (stage, away): (&Stage, &LightDistances)) -> usize {
    let Ok(prepared) = crate::lighting::Prepared::new(setup, kit) else { return usize::MAX };
    let of = |one: &SetNotice| one.about().is_none_or(|thing| matches!(thing, Thing::Light(_) | Thing::Camera));
    notices(&prepared, (kit, stage), away).iter().filter(|one| spoils(one) && of(one)).count()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::set::{Addition, PaneUse};
    use rstest::rstest;

    /// However high or low the camera is, places are tried.
    #[rstest]
    fn a_place_is_found_from_any_height(#[values(0.05, 0.2, 0.3, 1.6, 2.6, 3.1, 3.3, 6.0)] height_m: f64) {
        let kit = Kit::starter();
        let mut setup = Setup::new("one", &kit);
        setup.use_set();
        setup.add_to_set(&kit, &Addition::Pane(PaneUse::Mirror)).expect("room");
        let at = Laid::of(&setup).camera(&setup);
        setup.camera_to(Vector::new(at.x, at.y, height_m));
        let found = best_place(&setup, &kit);
        assert!(found.is_ok(), "{height_m}: {found:?}");
    }
}
