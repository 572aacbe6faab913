//! How people stand on a set, and which sides of them get their own exposure.

use tolva_core::ambient::Role;
use tolva_core::optics::Movement;

use super::edits::gone;
use crate::refused::Refused;
use crate::setup::{Depth, Kit, Region, RegionPlace, Setup, Side};
use crate::staging::{Laid, Thing, circle, rows, somebody};

/// From row to row where nobody has said it, in metres.
const ROW_M: f64 = 0.8;

/// How people stand.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Arrangement {
    /// One.
    One,
    /// Two side by side.
    Couple,
    /// Rows of so many each.
    Rows {
        /// How many rows, 1 to 6.
        rows: u8,
        /// How many in each, 1 to 10.
        in_each: u8,
    },
    /// A circle that looks out.
    Circle {
        /// How many, 2 to 30.
        count: u8,
    },
}

/// As many people as a set holds.
pub const MOST_PEOPLE: usize = 30;

impl Setup {
    /// How people stand: in place of those who are there. A group is as still as its least still member, so that several
    /// people pose easily where one held a pose; rows ask for their depth.
    ///
    /// # Errors
    /// None: whatever stands there can be arranged anew.
    pub fn arrange(&mut self, kit: &Kit, how: Arrangement) -> Result<(), Refused> {
        let people = match how {
            Arrangement::One => vec![somebody(1, 0.0, 0.0, 180.0)],
            Arrangement::Couple => rows(1, 2, ROW_M),
            Arrangement::Rows { rows: count, in_each } => rows(count.clamp(1, 6), in_each.clamp(1, 10), ROW_M),
            Arrangement::Circle { count } => circle(count.clamp(2, 30)),
        };
        self.while_lights_stay(kit, true, |setup| {
            let many = people.len() > 1;
            setup.set_mut().people = people.into_iter().take(MOST_PEOPLE).collect();
            if many && setup.speed.movement == Movement::HeldPose {
                setup.speed.movement = Movement::Posing;
            }
            if let Arrangement::Rows { rows, .. } = how
                && rows > 1
            {
                setup.depth = Depth::Rows { rows, apart_m: ROW_M };
            }
            setup.forget_places_of_the_gone();
            Ok(())
        })
    }

    /// Regions on what is no longer there are where their roles usually are.
    pub(super) fn forget_places_of_the_gone(&mut self) {
        let Some(set) = self.set.clone() else { return };
        for region in &mut self.regions {
            let there = match &region.place {
                Some(RegionPlace::Face { person_id, .. }) => set.people.iter().any(|one| &one.id == person_id),
                Some(RegionPlace::Product { product_id, .. }) => set.products.iter().any(|one| &one.id == product_id),
                Some(RegionPlace::Wall { wall_id }) => set.walls.iter().any(|one| &one.id == wall_id),
                _ => true,
            };
            if !there {
                region.place = None;
            }
        }
        let places = Laid::of(self).regions;
        for (region, place) in self.regions.iter_mut().zip(places) {
            region.place.get_or_insert(place);
        }
    }

    /// One side of a person or product becomes a part of the picture with its own exposure.
    ///
    /// # Errors
    /// A person or product that is not there.
    pub fn region_on(&mut self, thing: &Thing, side: Side, name: &str) -> Result<(), Refused> {
        self.use_set();
        let set = self.set_mut();
        let place = match thing {
            Thing::Person(id) if set.people.iter().any(|one| &one.id == id) => {
                RegionPlace::Face { person_id: id.clone(), side }
            }
            Thing::Product(id) if set.products.iter().any(|one| &one.id == id) => {
                RegionPlace::Product { product_id: id.clone(), side }
            }
            Thing::Wall(id) if set.walls.iter().any(|one| &one.id == id) => RegionPlace::Wall { wall_id: id.clone() },
            other => return Err(gone(other)),
        };
        self.add_region(name);
        if let Some(Region { place: placed, .. }) = self.regions.last_mut() {
            *placed = Some(place);
        }
        Ok(())
    }

    /// The lit side of the main subject becomes its other side, and its shadow side with it.
    ///
    /// # Errors
    /// None: a set without sides stays as it is.
    pub fn other_side_is_lit(&mut self, kit: &Kit) -> Result<(), Refused> {
        self.while_lights_stay(kit, false, |setup| {
            for region in &mut setup.regions {
                let sides = [Role::LitSide, Role::ShadowSide].contains(&region.role);
                if let (true, Some(RegionPlace::Face { side, .. } | RegionPlace::Product { side, .. })) =
                    (sides, &mut region.place)
                {
                    *side = match *side {
                        Side::Left => Side::Right,
                        Side::Right => Side::Left,
                        other => other,
                    };
                }
            }
            Ok(())
        })
    }
}
