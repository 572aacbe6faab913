//! From one setup to the next: what is moved, changed and switched, as far as it is in the hand.

use tolva_core::ambient::Role;
use tolva_core::scale::Metres;
use tolva_core::set::{Direction, Point, signed_deg};

use crate::lighting::Prepared;
use crate::refused::Refused;
use crate::set::{LightDistances, distances_of};
use crate::setup::{Kit, Light, LightIndex, Setup, Support};
use crate::solver::Outcome;
use crate::staging::Laid;

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
    /// It goes round to another side, as far away as before.
    Side {
        /// The light's letter.
        light_id: String,
        /// How far round from the camera it is then, in degrees: positive is camera left, 180 behind the subject.
        from_camera_deg: f64,
    },
    /// It is raised or lowered.
    Height {
        /// The light's letter.
        light_id: String,
        /// How high its middle is over the floor.
        to: Metres,
    },
    /// It is aimed at something else, or its head is turned elsewhere.
    Aim {
        /// The light's letter.
        light_id: String,
        /// The region it is aimed at now, by its id.
        region_id: String,
        /// Whether its head is turned to a wall or ceiling instead.
        is_bounced: bool,
    },
    /// It is feathered otherwise.
    Feather {
        /// The light's letter.
        light_id: String,
        /// How far off its aim, in degrees.
        to_deg: f64,
    },
    /// It goes onto another stand, boom or hand, or onto the camera.
    Support {
        /// The light's letter.
        light_id: String,
        /// What it is on now.
        on: LightOn,
    },
    /// The camera goes round to another side, clockwise seen from above, from where it was.
    CameraSide {
        /// By how many degrees.
        by_deg: f64,
    },
    /// The camera is raised by so much, or lowered where that is negative.
    CameraHeight(Metres),
    /// The frame is turned: upright now, or level.
    Portrait(bool),
    /// It is switched off, or on again.
    Switch {
        /// The light's letter.
        light_id: String,
        /// Whether it is on now.
        on: bool,
    },
}

/// What a light is on.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum LightOn {
    /// The camera.
    Camera,
    /// A stand of the kit, by its id; nothing where none is named.
    Stand(Option<String>),
    /// A boom of the kit, by its id; nothing where none is named.
    Boom(Option<String>),
    /// An assistant's hand.
    Hand,
    /// A clamp.
    Clamp,
}

/// Turned by less than this a light stands where it was, in degrees; raised by less, in metres. Chosen.
const SAME_DEG: f64 = 5.0;
const SAME_M: f64 = 0.05;

/// Where a light of a plan stands on its set.
struct PlacedLight {
    side_deg: f64,
    from_camera_deg: f64,
    height_m: f64,
    on: LightOn,
    is_bounced: bool,
}

/// Where each light stands, and the camera.
struct PlacedSet {
    lights: Vec<PlacedLight>,
    camera: Point,
    portrait: bool,
}

impl PlacedSet {
    fn of(setup: &Setup, distances: &LightDistances) -> Self {
        let laid = Laid::of(setup);
        let one = |(index, light): (LightIndex, &Light)| {
            let (at, aim) = (laid.light(setup, index, distances[index]), laid.aim(setup, index));
            let place = laid.lights[index];
            let on = match place.support {
                _ if light.on_camera => LightOn::Camera,
                Support::Stand => LightOn::Stand(light.stand_id.clone()),
                Support::Boom { .. } => LightOn::Boom(light.boom_id.clone()),
                Support::Held => LightOn::Hand,
                Support::Clamped => LightOn::Clamp,
            };
            let side_deg = Direction::of(at - aim).azimuth_deg;
            PlacedLight {
                side_deg,
                from_camera_deg: signed_deg(side_deg - Direction::of(laid.camera(setup) - aim).azimuth_deg),
                height_m: at.z,
                on,
                is_bounced: place.head.is_some() || light.bounce.is_some(),
            }
        };
        let lights = setup.each_light().map(one).collect();
        Self { lights, camera: laid.camera(setup) - laid.anchor(), portrait: laid.set.camera.portrait }
    }
}

/// A light of a plan that stands there: how far, and whether it is on.
fn standing<'a>(
    setup: &'a Setup,
    prepared: &Prepared<'_>,
    outcome: &Outcome,
) -> Vec<(&'a Light, Option<Metres>, bool)> {
    let of = |(index, light): (LightIndex, &'a Light)| {
        let at = prepared.flash_of(index);
        let dialled = at.and_then(|at| outcome.lights[at]);
        let stands = dialled.map(|one| one.distance).or(light.distance_m.map(Metres)).filter(|_| !light.on_camera);
        // A lamp that burns on is on.
        (light, stands, at.is_none() || dialled.is_some())
    };
    setup.each_light().map(of).collect()
}

/// What is done between two setups, the camera first.
///
/// # Errors
/// One that cannot be planned.
pub fn moves_between(from: &Setup, to: &Setup, kit: &Kit) -> Result<Vec<SetupMove>, Refused> {
    let (was, is) = (Prepared::new(from, kit)?, Prepared::new(to, kit)?);
    let (before, after) = (Outcome::of(&was), Outcome::of(&is));
    let mut all = of_camera(from, to);
    // Side, height and support are known where a set is drawn; what is only typed is laid out alike in both.
    let (stood_at, stands_at) = (placed(from, &was, &before), placed(to, &is, &after));
    all.extend(camera_on_set(&stood_at, &stands_at));
    let stood = standing(from, &was, &before);
    let stands = standing(to, &is, &after);
    for (light, ..) in &stood {
        if stands.iter().all(|(other, ..)| other.id != light.id) {
            all.push(SetupMove::Away(light.id.clone()));
        }
    }
    for ((light, distance, on), now_at) in stands.iter().zip(&stands_at.lights) {
        let light_id = light.id.clone();
        let found = stood.iter().zip(&stood_at.lights).find(|((other, ..), _)| other.id == light.id);
        let Some(((other, stood, was_on), was_at)) = found else {
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
        all.extend(on_the_set((from, other, was_at), (to, light, now_at)));
        if was_on != on {
            all.push(SetupMove::Switch { light_id, on: *on });
        }
    }
    Ok(all)
}

fn placed(setup: &Setup, prepared: &Prepared<'_>, outcome: &Outcome) -> PlacedSet {
    PlacedSet::of(setup, &distances_of(prepared, Some(outcome)))
}

/// The region a light is aimed at, by its id: its own, or the lit side.
fn aimed_at<'a>(setup: &'a Setup, light: &'a Light) -> &'a str {
    let lit = || setup.regions.iter().find(|region| region.role == Role::LitSide).map_or("", |region| &region.id);
    light.aimed_at.as_deref().unwrap_or_else(lit)
}

/// What is done to a light that stays on the set: to its aim, its side, its height, its feather and what it is on.
fn on_the_set(
    (from, other, was): (&Setup, &Light, &PlacedLight),
    (to, light, is): (&Setup, &Light, &PlacedLight),
) -> Vec<SetupMove> {
    let mut all = Vec::new();
    let light_id = || light.id.clone();
    if was.on != is.on {
        all.push(SetupMove::Support { light_id: light_id(), on: is.on.clone() });
    }
    let region_id = aimed_at(to, light);
    if aimed_at(from, other) != region_id || was.is_bounced != is.is_bounced {
        all.push(SetupMove::Aim { light_id: light_id(), region_id: region_id.to_owned(), is_bounced: is.is_bounced });
    }
    if is.on != LightOn::Camera && was.on != LightOn::Camera {
        if signed_deg(is.side_deg - was.side_deg).abs() > SAME_DEG {
            all.push(SetupMove::Side { light_id: light_id(), from_camera_deg: is.from_camera_deg });
        }
        if (is.height_m - was.height_m).abs() > SAME_M {
            all.push(SetupMove::Height { light_id: light_id(), to: Metres(is.height_m) });
        }
    }
    if (light.feather_deg - other.feather_deg).abs() > 0.5 {
        all.push(SetupMove::Feather { light_id: light_id(), to_deg: light.feather_deg });
    }
    all
}

/// What is done to the camera's place: round, up or down, upright or level.
fn camera_on_set(was: &PlacedSet, is: &PlacedSet) -> Vec<SetupMove> {
    let azimuth = |at: Point| Direction::of(at).azimuth_deg;
    let by_deg = signed_deg(azimuth(is.camera) - azimuth(was.camera));
    let up_m = is.camera.z - was.camera.z;
    let all = [
        (by_deg.abs() > SAME_DEG).then_some(SetupMove::CameraSide { by_deg }),
        (up_m.abs() > SAME_M).then_some(SetupMove::CameraHeight(Metres(up_m))),
        (was.portrait != is.portrait).then_some(SetupMove::Portrait(is.portrait)),
    ];
    all.into_iter().flatten().collect()
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

    /// A key that goes from the left to the right at the same distance is a move; so are height, aim, feather, stand and the
    /// camera's side.
    #[test]
    fn where_a_light_stands_is_told() {
        let kit = Kit::starter();
        let mut from = Setup::new("a", &kit);
        from.use_set();
        let changed = |change: &dyn Fn(&mut Setup)| {
            let mut to = from.clone();
            change(&mut to);
            moves_between(&from, &to, &kit).expect("good")
        };
        let side = changed(&|to| {
            let place = to.lights[0].place.as_mut().expect("placed");
            place.direction_deg = (360.0 - place.direction_deg).rem_euclid(360.0);
        });
        assert!(matches!(side[..], [SetupMove::Side { .. }]), "{side:?}");
        let height = changed(&|to| to.lights[0].place.as_mut().expect("placed").elevation_deg += 20.0);
        assert!(height.iter().any(|one| matches!(one, SetupMove::Height { .. })), "{height:?}");
        let aim = changed(&|to| to.lights[0].aimed_at = Some("behind".into()));
        assert!(aim.iter().any(|one| matches!(one, SetupMove::Aim { region_id, .. } if region_id == "behind")));
        let feather = changed(&|to| to.lights[0].feather_deg = 20.0);
        assert!(feather.contains(&SetupMove::Feather { light_id: "A".into(), to_deg: 20.0 }), "{feather:?}");
        let stand = changed(&|to| to.lights[0].place.as_mut().expect("placed").support = Support::Held);
        assert_eq!(stand, [SetupMove::Support { light_id: "A".into(), on: LightOn::Hand }]);
        let on_camera = changed(&|to| to.lights[0].on_camera = true);
        let wanted = SetupMove::Support { light_id: "A".into(), on: LightOn::Camera };
        assert!(on_camera.contains(&wanted), "{on_camera:?}");
        let camera = changed(&|to| to.set.as_mut().expect("used").camera.direction_deg += 40.0);
        assert!(
            camera.iter().any(|one| matches!(one, SetupMove::CameraSide { by_deg } if (by_deg - 40.0).abs() < 1.0))
        );
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
