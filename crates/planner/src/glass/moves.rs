//! Moves on the set that may clear a reflection, and how each is carried out.

use tolva_core::scale::LengthUnit;
use tolva_core::set::{Direction, Point, Vector};

use crate::set::LightDistances;
use crate::set::{To, distances, thousandth};
use crate::setup::{Blend, CameraAim, FeatherTo, Kit, Setup};
use crate::staging::{Laid, Thing};

/// A move that clears something.
#[derive(Clone, Debug, PartialEq)]
pub enum Move {
    /// A light is raised by so much, in metres.
    Raise {
        /// Its letter.
        light_id: String,
        /// By so much.
        by_m: f64,
    },
    /// A light goes round what it is aimed at; positive to the right as seen from there.
    Round {
        /// Its letter.
        light_id: String,
        /// By so many degrees.
        by_deg: f64,
    },
    /// A light comes nearer along its line.
    Nearer {
        /// Its letter.
        light_id: String,
        /// By so much.
        by_m: f64,
    },
    /// A light is turned off its aim.
    Feather {
        /// Its letter.
        light_id: String,
        /// Which way.
        to: FeatherTo,
        /// By so many degrees in all.
        to_deg: f64,
    },
    /// A light looks at a surface and comes back from there.
    Bounce {
        /// Its letter.
        light_id: String,
        /// Off what.
        off: Thing,
    },
    /// The camera is raised, or lowered where it is negative.
    CameraHeight {
        /// By so much, in metres.
        by_m: f64,
    },
    /// The camera goes round the subject; positive to its right.
    CameraRound {
        /// By so many degrees.
        by_deg: f64,
    },
    /// The camera looks past the subject; positive to the right.
    CameraTurn {
        /// By so many degrees.
        by_deg: f64,
    },
    /// The same framing from farther off with a longer lens.
    LongerLens {
        /// The lens of the kit.
        lens_id: String,
        /// Its focal length.
        focal_length_mm: f64,
        /// The camera's distance.
        camera_distance_m: f64,
    },
    /// Somebody goes aside so as to stand before it.
    StandBefore {
        /// Who.
        person_id: String,
        /// To the right and forwards, in metres.
        by_m: (f64, f64),
    },
    /// A pane that turns, such as a door, is turned.
    TurnPane {
        /// Which.
        pane_id: String,
        /// By so many degrees clockwise.
        by_deg: f64,
    },
    /// More of the light that is there, so that it drowns.
    RaiseAmbient {
        /// By so many stops.
        stops: f64,
    },
    /// A light is fixed at less power, so that it drowns.
    LowerPower {
        /// Its letter.
        light_id: String,
        /// By so many stops.
        by_stops: f64,
        /// Where that is, in stops under full.
        to_stops: f64,
    },
    /// Spectacles are tilted: their temples raised behind the ears.
    TiltSpectacles {
        /// Whose.
        person_id: String,
        /// By so many degrees.
        by_deg: f64,
    },
    /// Somebody turns their head; clockwise where it is positive.
    TurnHead {
        /// Who.
        person_id: String,
        /// By so many degrees.
        by_deg: f64,
    },
}

impl Move {
    /// Its code: stable.
    pub fn code(&self) -> &'static str {
        match self {
            Self::Raise { .. } => "raise",
            Self::Round { .. } => "round",
            Self::Nearer { .. } => "nearer",
            Self::Feather { .. } => "feather",
            Self::Bounce { .. } => "bounce",
            Self::CameraHeight { .. } => "camera_height",
            Self::CameraRound { .. } => "camera_round",
            Self::CameraTurn { .. } => "camera_turn",
            Self::LongerLens { .. } => "longer_lens",
            Self::StandBefore { .. } => "stand_before",
            Self::TurnPane { .. } => "turn_pane",
            Self::RaiseAmbient { .. } => "raise_ambient",
            Self::LowerPower { .. } => "lower_power",
            Self::TiltSpectacles { .. } => "tilt_spectacles",
            Self::TurnHead { .. } => "turn_head",
        }
    }

    /// The light it moves, by its letter.
    pub fn light_id(&self) -> Option<&str> {
        match self {
            Self::Raise { light_id, .. }
            | Self::Round { light_id, .. }
            | Self::Nearer { light_id, .. }
            | Self::Feather { light_id, .. }
            | Self::LowerPower { light_id, .. }
            | Self::Bounce { light_id, .. } => Some(light_id),
            _ => None,
        }
    }

    /// A setup with it carried out.
    #[must_use]
    pub fn carried_out(&self, setup: &Setup, kit: &Kit) -> Setup {
        let mut other = setup.clone();
        self.apply(&mut other, kit, &distances(setup, kit));
        other
    }

    /// Carries it out. A light that is moved stays where it was put: its distance is said from then on, in `away`'s place.
    pub(super) fn apply(&self, setup: &mut Setup, kit: &Kit, away: &LightDistances) {
        setup.use_set();
        let light = self.light_id().and_then(|id| setup.light_called(id));
        if let Some(light) = light {
            setup.lights[light].distance_m.get_or_insert(thousandth(away[light]));
        }
        let unit = LengthUnit::Metres;
        // What is not there was there when the move was found: nothing to refuse.
        match self {
            Self::Raise { light_id, by_m } => {
                let thing = Thing::Light(light_id.clone());
                if let (Some(index), Ok(now)) = (light, setup.stands(kit, &thing)) {
                    setup.light_to(index, now + Vector::Z * *by_m);
                }
            }
            Self::Round { light_id, by_deg } => {
                if let (Some(index), Ok(now)) = (light, setup.stands(kit, &Thing::Light(light_id.clone()))) {
                    let aim = Laid::of(setup).aim(setup, index);
                    setup.light_to(index, turned(now, aim, *by_deg));
                }
            }
            Self::Nearer { by_m, .. } => {
                let one = light.map(|index| &mut setup.lights[index]);
                if let Some(distance) = one.and_then(|light| light.distance_m.as_mut()) {
                    *distance = (*distance - by_m).max(0.1);
                }
            }
            Self::Feather { to, to_deg, .. } => {
                if let Some(one) = light.map(|index| &mut setup.lights[index]) {
                    one.feather_deg = to_deg.clamp(0.0, 85.0);
                    if let Some(place) = &mut one.place {
                        place.feather_to = *to;
                    }
                }
            }
            Self::Bounce { light_id, off } => {
                let _ = setup.aim_on_set(kit, light_id, off);
            }
            Self::CameraHeight { by_m } => {
                if let Ok(now) = setup.stands(kit, &Thing::Camera) {
                    setup.camera_to(Point::new(now.x, now.y, (now.z + by_m).max(0.05)));
                }
            }
            Self::CameraRound { by_deg } => {
                if let Ok(now) = setup.stands(kit, &Thing::Camera) {
                    let anchor = Laid::of(setup).anchor();
                    setup.camera_to(turned(now, anchor, *by_deg));
                }
            }
            Self::CameraTurn { by_deg } => {
                let laid = Laid::of(setup);
                let aim = turned(laid.camera_aim(), laid.camera(setup), *by_deg);
                let (x_m, y_m, z_m) = (thousandth(aim.x), thousandth(aim.y), thousandth(aim.z.max(0.0)));
                setup.set_mut().camera.aim = CameraAim::Point { x_m, y_m, z_m };
            }
            Self::LongerLens { lens_id, focal_length_mm, camera_distance_m } => {
                setup.lens_id.clone_from(lens_id);
                setup.focal_length_mm = *focal_length_mm;
                setup.camera_distance_m = *camera_distance_m;
            }
            Self::StandBefore { person_id, by_m: (x, y) } => {
                let thing = Thing::Person(person_id.clone());
                if let Ok(now) = setup.stands(kit, &thing) {
                    let _ = setup.move_on_set(kit, &thing, Some((now.x + x, now.y + y)), (0, 0), (false, unit));
                }
            }
            Self::TurnPane { pane_id, by_deg } => {
                let _ = setup.turn_on_set(kit, &Thing::Pane(pane_id.clone()), To { to: None, by: *by_deg });
            }
            Self::RaiseAmbient { stops } => setup.blend = raised(setup.blend, *stops),
            Self::LowerPower { to_stops, .. } => {
                if let Some(one) = light.map(|index| &mut setup.lights[index]) {
                    one.power_stops = Some(*to_stops);
                }
            }
            Self::TiltSpectacles { person_id, by_deg } => {
                let people = &mut setup.set_mut().people;
                if let Some(one) = people.iter_mut().find(|one| &one.id == person_id)
                    && let Some(spectacles) = &mut one.spectacles
                {
                    spectacles.tilt_deg = (spectacles.tilt_deg + by_deg).clamp(0.0, 30.0);
                }
            }
            Self::TurnHead { person_id, by_deg } => {
                let turned = To { to: None, by: *by_deg };
                let _ = setup.turn_on_set(kit, &Thing::Person(person_id.clone()), turned);
            }
        }
    }
}

/// A point turned about the upright through another, clockwise from above.
pub(super) fn turned(point: Point, about: Point, by_deg: f64) -> Point {
    let way = point - about;
    let flat = way.truncate().length();
    let there = Direction::new(Direction::of(way).azimuth_deg + by_deg, 0.0).vector() * flat;
    Point::new(about.x + there.x, about.y + there.y, point.z)
}

/// A wish with so much more of the light that is there.
fn raised(blend: Blend, stops: f64) -> Blend {
    let mut blend = blend;
    match &mut blend {
        Blend::Fill { ambient_stops, .. } | Blend::Overpower { ambient_stops, .. } => *ambient_stops += stops,
        Blend::Lift { background_stops, .. } | Blend::Silhouette { background_stops } => *background_stops += stops,
        Blend::HalfAndHalf { .. } | Blend::AmbientOnly { .. } => {}
    }
    blend.clamped()
}
