//! Moving a mark on the rail: what it changes in the wish.

use tolva_core::ambient::Role;
use tolva_core::scale::Stops;

use crate::lighting::{Prepared, PreparedLight};
use crate::refused::Refused;
use crate::setup::{Blend, Kit, LightIndex, LightWish, Setup, Spill};
use crate::solver::Outcome;

/// Which mark of a region is moved.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Grip {
    /// The ring: what the ambient gives.
    Ambient,
    /// The lozenge: what the flash gives.
    Flash,
    /// The bar: what they give together.
    Together,
}

/// A mark put somewhere else.
#[derive(Clone, Debug, PartialEq)]
pub struct Placing {
    /// The region.
    pub region_id: String,
    /// The mark.
    pub grip: Grip,
    /// Where it is put, in stops from mid grey; taken to the nearest third.
    pub stops: f64,
    /// Which light's mark; left out, the first's.
    pub light_id: Option<String>,
}

impl Placing {
    /// Where a mark may be put, in stops from mid grey.
    pub const STOPS: (f64, f64) = (-12.0, 12.0);
}

/// What moving a mark changes.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Moves {
    /// How much the light gives the region it is aimed at.
    LightGives,
    /// How much of the light reaches a region it is not aimed at.
    LightReaches,
    /// How bright the whole picture comes out.
    Picture,
    /// How bright the subject comes out.
    Subject,
    /// How bright the region comes out.
    Region,
    /// How bright the light that is there comes out.
    Ambient,
}

/// What moving a mark changes; nothing where it cannot be moved.
pub fn moves(setup: &Prepared<'_>, region: usize, grip: Grip, light: Option<&PreparedLight<'_>>) -> Option<Moves> {
    let blend = setup.setup.blend;
    match (grip, setup.setup.regions[region].role) {
        (Grip::Flash, _) if light.is_none_or(|light| !setup.fires(light)) => None,
        (Grip::Flash, _) => {
            let light = light?;
            // What the set says follows from where the light stands: it is moved there.
            let elsewhere = (!light.is_on_set()).then_some(Moves::LightReaches);
            if light.aimed_at == region { Some(Moves::LightGives) } else { elsewhere }
        }
        (Grip::Together, Role::LitSide) => Some(match blend {
            Blend::Silhouette { .. } | Blend::AmbientOnly { .. } => Moves::Picture,
            _ => Moves::Subject,
        }),
        (Grip::Together, _) if aimed_here(setup, region).is_some() => Some(Moves::Region),
        (Grip::Ambient, _) | (Grip::Together, Role::Background) => Some(Moves::Ambient),
        (Grip::Together, Role::ShadowSide | Role::Part) => None,
    }
}

/// The light whose wish places a region.
fn aimed_here<'a>(setup: &'a Prepared<'_>, region: usize) -> Option<&'a PreparedLight<'a>> {
    let mut lights = setup.lights.iter();
    lights.find(|light| {
        setup.fires(light) && region != setup.lit && light.aimed_at == region && light.light.wish != LightWish::Key
    })
}

/// The setup with a mark moved: the wish changes so that the mark stands there, as near as it can.
///
/// Dragging what lies behind, in a blend that does not place it, makes the blend a lift with everything else where it
/// stands. Without flash everything moves together.
///
/// # Errors
/// A region or light that is not there, a place outside [`Placing::STOPS`], or a setup that cannot be planned.
pub fn place(setup: &Setup, kit: &Kit, placing: &Placing) -> Result<Setup, Refused> {
    let checked = Prepared::new(setup, kit)?;
    let Some(region) = setup.regions.iter().position(|region| region.id == placing.region_id) else {
        return Err(Refused::NoSuchRegion(placing.region_id.clone()));
    };
    Refused::unless_within(placing.stops, Placing::STOPS, "stops", "stops")?;
    let outcome = Outcome::of(&checked);
    let to = Stops(placing.stops).to_third();
    let mut placed = setup.clone();
    let role = setup.regions[region].role;
    if placing.grip == Grip::Flash {
        let called = |light: &&PreparedLight<'_>| placing.light_id.as_ref().is_none_or(|id| id == &light.light.id);
        let Some((position, light)) = checked.lights.iter().enumerate().find(|(_, light)| called(light)) else {
            return Err(Refused::NoSuchLight(placing.light_id.clone().unwrap_or_default()));
        };
        if light.aimed_at != region {
            let own = outcome.regions[light.aimed_at].each[position];
            if own.0.is_finite() && !light.is_on_set() {
                reach(&mut placed, light.index, &placing.region_id, (to - own).to_third());
            }
            return Ok(placed);
        }
        if light.light.wish != LightWish::Key {
            let others = outcome.regions[region].each.iter().enumerate().filter(|(other, _)| *other != position);
            let rest = others.fold(outcome.regions[region].ambient, |sum, (_, given)| sum.and(*given));
            wish_to(&mut placed, light, rest.and(to).to_third(), &outcome, &checked);
            return Ok(placed);
        }
    }
    if placing.grip == Grip::Together
        && let Some(light) = aimed_here(&checked, region)
    {
        wish_to(&mut placed, light, to, &outcome, &checked);
        return Ok(placed);
    }
    let here = &outcome.regions[region];
    let lit = &outcome.regions[checked.lit];
    let lit_together = lit.together.to_third().0;
    placed.blend = match (role, placing.grip) {
        (Role::Background, Grip::Ambient | Grip::Together) => match setup.blend {
            Blend::Lift { subject_stops, .. } => Blend::Lift { subject_stops, background_stops: to.0 },
            Blend::Silhouette { .. } => Blend::Silhouette { background_stops: to.0 },
            Blend::AmbientOnly { subject_stops } => {
                Blend::AmbientOnly { subject_stops: (Stops(subject_stops) + to - here.together).to_third().0 }
            }
            _ => Blend::Lift { subject_stops: lit_together, background_stops: to.0 },
        },
        (Role::LitSide, Grip::Together) => lit_side_to(setup.blend, to, to - here.together),
        (_, Grip::Ambient) => ambient_by(setup.blend, to - here.ambient),
        (Role::LitSide, Grip::Flash) => flash_to(setup.blend, to, here.ambient, &outcome, &checked),
        (_, Grip::Together | Grip::Flash) => setup.blend,
    }
    .clamped();
    Ok(placed)
}

/// How much of a light reaches a region it is not aimed at.
fn reach(setup: &mut Setup, light: LightIndex, region_id: &str, stops: Stops) {
    let spill = &mut setup.lights[light].spill;
    let stops = stops.0.clamp(-12.0, 4.0);
    match spill.iter_mut().find(|reach| reach.region_id == region_id) {
        Some(reach) => reach.stops = stops,
        None => spill.push(Spill { region_id: region_id.to_owned(), stops }),
    }
}

/// The wish of a light is changed so that its region ends at a place.
pub fn wish_to(setup: &mut Setup, light: &PreparedLight<'_>, to: Stops, outcome: &Outcome, checked: &Prepared<'_>) {
    setup.lights[light.index].wish = wish_at(light, to, outcome, checked);
}

/// The wish of a light that leaves its region at a place.
pub fn wish_at(light: &PreparedLight<'_>, to: Stops, outcome: &Outcome, checked: &Prepared<'_>) -> LightWish {
    let lit = outcome.regions[checked.lit].together;
    match light.light.wish {
        LightWish::Key => LightWish::Key,
        LightWish::Fill { .. } => LightWish::Fill { ratio_stops: (lit - to).to_third().0.clamp(0.0, 6.0) },
        LightWish::Rim { .. } => LightWish::Rim { over_stops: (to - lit).to_third().0.clamp(-3.0, 4.0) },
        LightWish::Place { .. } => LightWish::Place { stops: to.0.clamp(-6.0, 3.0) },
    }
}

/// The lit side's total is moved to a place.
fn lit_side_to(blend: Blend, to: Stops, by: Stops) -> Blend {
    match blend {
        Blend::Lift { background_stops, .. } => Blend::Lift { subject_stops: to.0, background_stops },
        Blend::HalfAndHalf { .. } => Blend::HalfAndHalf { subject_stops: to.0 },
        Blend::Overpower { ambient_stops, .. } => Blend::Overpower { subject_stops: to.0, ambient_stops },
        Blend::AmbientOnly { .. } => Blend::AmbientOnly { subject_stops: to.0 },
        Blend::Fill { ambient_stops, fill_stops } => {
            Blend::Fill { ambient_stops: (Stops(ambient_stops) + by).to_third().0, fill_stops }
        }
        Blend::Silhouette { background_stops } => {
            Blend::Silhouette { background_stops: (Stops(background_stops) + by).to_third().0 }
        }
    }
}

/// The ambient is moved by so much, in every region alike.
fn ambient_by(blend: Blend, by: Stops) -> Blend {
    let moved = |stops: f64| (Stops(stops) + by).to_third().0;
    match blend {
        Blend::Lift { subject_stops, background_stops } => {
            Blend::Lift { subject_stops, background_stops: moved(background_stops) }
        }
        Blend::Fill { ambient_stops, fill_stops } => Blend::Fill { ambient_stops: moved(ambient_stops), fill_stops },
        Blend::HalfAndHalf { subject_stops } => Blend::HalfAndHalf { subject_stops: moved(subject_stops) },
        Blend::Overpower { subject_stops, ambient_stops } => {
            Blend::Overpower { subject_stops, ambient_stops: moved(ambient_stops) }
        }
        Blend::Silhouette { background_stops } => Blend::Silhouette { background_stops: moved(background_stops) },
        Blend::AmbientOnly { subject_stops } => Blend::AmbientOnly { subject_stops: moved(subject_stops) },
    }
}

/// The flash on the lit side is moved to a place; the ambient stays.
fn flash_to(blend: Blend, to: Stops, ambient: Stops, outcome: &Outcome, setup: &Prepared<'_>) -> Blend {
    let subject_stops = ambient.and(to).to_third().0;
    match blend {
        Blend::Fill { ambient_stops, .. } => Blend::Fill { ambient_stops, fill_stops: (to - ambient).to_third().0 },
        Blend::Lift { background_stops, .. } => Blend::Lift { subject_stops, background_stops },
        Blend::Overpower { ambient_stops, .. } => Blend::Overpower { subject_stops, ambient_stops },
        Blend::HalfAndHalf { .. } => {
            Blend::Lift { subject_stops, background_stops: outcome.regions[setup.background].ambient.to_third().0 }
        }
        Blend::Silhouette { .. } | Blend::AmbientOnly { .. } => blend,
    }
}
