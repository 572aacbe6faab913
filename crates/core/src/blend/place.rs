//! Moving a mark on the rail: what it changes in the wish.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::outcome::Outcome;
use crate::job::Kit;
use crate::job::{Blend, CheckedSetup, Problems, Reach, Role, Setup};
use crate::scale::Stops;

/// Which mark of a region is moved.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Grip {
    /// The ring: what the ambient gives.
    Ambient,
    /// The lozenge: what the flash gives.
    Flash,
    /// The bar: what they give together.
    Together,
}

/// A mark put somewhere else.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Placing {
    /// The region.
    pub region_id: String,
    /// The mark.
    pub grip: Grip,
    /// Where it is put, in stops from mid grey; taken to the nearest third.
    #[schema(minimum = -12, maximum = 12)]
    pub stops: f64,
}

/// What moving a mark does, in words; nothing where it cannot be moved.
pub(super) fn moves(blend: Blend, role: Role, grip: Grip, has_flash: bool) -> Option<&'static str> {
    match (role, grip) {
        (_, Grip::Flash) if !has_flash => None,
        (Role::Behind, Grip::Flash) | (Role::ShadowSide, Grip::Together) => None,
        (Role::ShadowSide, Grip::Flash) => Some("how much flash reaches this side"),
        (Role::LitSide, Grip::Flash) => Some("how much the flash gives"),
        (_, Grip::Ambient) | (Role::Behind, Grip::Together) => Some("how bright the light that is there comes out"),
        (Role::LitSide, Grip::Together) => Some(match blend {
            Blend::Silhouette { .. } | Blend::AmbientOnly { .. } => "how bright the picture comes out",
            _ => "how bright the subject comes out",
        }),
    }
}

/// The setup with a mark moved: the wish changes so that the mark stands there, as near as it can.
///
/// Dragging what lies behind, in a blend that does not place it, makes the blend a lift with everything else where it
/// stands. Without flash everything moves together.
///
/// # Errors
/// A region that is not there, a place that is no number, or anything wrong with the setup.
pub fn place(setup: &Setup, kit: &Kit, placing: &Placing) -> Result<Setup, Problems> {
    let checked = CheckedSetup::new(setup, kit)?;
    let Some(region) = setup.regions.iter().position(|region| region.id == placing.region_id) else {
        return Err(Problems::one("/place/region_id", format!("there is no region “{}”", placing.region_id)));
    };
    if !(-12.0..=12.0).contains(&placing.stops) {
        let message = format!("{} is not allowed here: it must be from -12 to 12 stops", placing.stops);
        return Err(Problems::one("/place/stops", message));
    }
    let outcome = Outcome::of(&checked);
    let to = Stops(placing.stops).to_third();
    let mut placed = setup.clone();
    let role = setup.regions[region].role;
    if role == Role::ShadowSide && placing.grip == Grip::Flash {
        let on_lit = outcome.regions[checked.lit].flash;
        if let (Some(light), true) = (placed.lights.first_mut(), on_lit.0.is_finite()) {
            let stops = (to - on_lit).to_third().0.clamp(-12.0, 4.0);
            match light.reaches.iter_mut().find(|reach| reach.region_id == placing.region_id) {
                Some(reach) => reach.stops = stops,
                None => light.reaches.push(Reach { region_id: placing.region_id.clone(), stops }),
            }
        }
        return Ok(placed);
    }
    let here = outcome.regions[region];
    let lit = outcome.regions[checked.lit];
    let lit_together = lit.together.to_third().0;
    placed.blend = match (role, placing.grip) {
        (Role::Behind, Grip::Ambient | Grip::Together) => match setup.blend {
            Blend::Lift { subject_stops, .. } => Blend::Lift { subject_stops, behind_stops: to.0 },
            Blend::Silhouette { .. } => Blend::Silhouette { behind_stops: to.0 },
            Blend::AmbientOnly { subject_stops } => {
                Blend::AmbientOnly { subject_stops: (Stops(subject_stops) + to - here.together).to_third().0 }
            }
            _ => Blend::Lift { subject_stops: lit_together, behind_stops: to.0 },
        },
        (Role::LitSide, Grip::Together) => lit_side_to(setup.blend, to, to - here.together),
        (_, Grip::Ambient) => ambient_by(setup.blend, to - here.ambient),
        (Role::LitSide, Grip::Flash) => flash_to(setup.blend, to, here.ambient, &outcome, &checked),
        (Role::ShadowSide | Role::Behind, Grip::Together | Grip::Flash) => setup.blend,
    }
    .clamped();
    Ok(placed)
}

/// The lit side's total is moved to a place.
fn lit_side_to(blend: Blend, to: Stops, by: Stops) -> Blend {
    match blend {
        Blend::Lift { behind_stops, .. } => Blend::Lift { subject_stops: to.0, behind_stops },
        Blend::HalfAndHalf { .. } => Blend::HalfAndHalf { subject_stops: to.0 },
        Blend::Overpower { ambient_stops, .. } => Blend::Overpower { subject_stops: to.0, ambient_stops },
        Blend::AmbientOnly { .. } => Blend::AmbientOnly { subject_stops: to.0 },
        Blend::Fill { ambient_stops, fill_stops } => {
            Blend::Fill { ambient_stops: (Stops(ambient_stops) + by).to_third().0, fill_stops }
        }
        Blend::Silhouette { behind_stops } => {
            Blend::Silhouette { behind_stops: (Stops(behind_stops) + by).to_third().0 }
        }
    }
}

/// The ambient is moved by so much, in every region alike.
fn ambient_by(blend: Blend, by: Stops) -> Blend {
    let moved = |stops: f64| (Stops(stops) + by).to_third().0;
    match blend {
        Blend::Lift { subject_stops, behind_stops } => Blend::Lift { subject_stops, behind_stops: moved(behind_stops) },
        Blend::Fill { ambient_stops, fill_stops } => Blend::Fill { ambient_stops: moved(ambient_stops), fill_stops },
        Blend::HalfAndHalf { subject_stops } => Blend::HalfAndHalf { subject_stops: moved(subject_stops) },
        Blend::Overpower { subject_stops, ambient_stops } => {
            Blend::Overpower { subject_stops, ambient_stops: moved(ambient_stops) }
        }
        Blend::Silhouette { behind_stops } => Blend::Silhouette { behind_stops: moved(behind_stops) },
        Blend::AmbientOnly { subject_stops } => Blend::AmbientOnly { subject_stops: moved(subject_stops) },
    }
}

/// The flash on the lit side is moved to a place; the ambient stays.
fn flash_to(blend: Blend, to: Stops, ambient: Stops, outcome: &Outcome, setup: &CheckedSetup<'_>) -> Blend {
    let subject_stops = ambient.and(to).to_third().0;
    match blend {
        Blend::Fill { ambient_stops, .. } => Blend::Fill { ambient_stops, fill_stops: (to - ambient).to_third().0 },
        Blend::Lift { behind_stops, .. } => Blend::Lift { subject_stops, behind_stops },
        Blend::Overpower { ambient_stops, .. } => Blend::Overpower { subject_stops, ambient_stops },
        Blend::HalfAndHalf { .. } => {
            Blend::Lift { subject_stops, behind_stops: outcome.regions[setup.behind].ambient.to_third().0 }
        }
        Blend::Silhouette { .. } | Blend::AmbientOnly { .. } => blend,
    }
}
