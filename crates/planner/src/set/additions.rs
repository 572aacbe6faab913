//! What comes onto a set and goes from it: people and how they stand, products, walls, windows, cards, what can hurt; and
//! which sides of them get their own exposure. Sizes that nobody has said are usual ones, common practice, no source.

use tolva_core::ambient::Role;
use tolva_core::modifier::SurfaceColour;
use tolva_core::optics::Movement;
use tolva_core::set::{Direction, Point, Vector};

use super::edits::{STEP_M, gone, held, hundredth, thousandth};
use super::sunlight::towards_sun;
use crate::refused::Refused;
use crate::setup::{
    Card, CardKind, Ceiling, Depth, Floor, Hazard, HazardKind, Kit, Opening, Person, ProductShape, Region, RegionPlace,
    Set, Setup, Side, Wall,
};
use crate::staging::{Laid, Thing, circle, product, rows, somebody};

/// A flag stands so far before the lens, and is so large, in metres. Common practice, no source.
pub(super) const FLAG_M: f64 = 0.8;
const FLAG_SIZE_M: f64 = 0.25;

/// From row to row where nobody has said it, in metres.
const ROW_M: f64 = 0.8;

/// What may be added.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Addition {
    /// A person beside the others.
    Person,
    /// A product.
    Product,
    /// A backdrop behind everybody.
    Backdrop,
    /// A wall to the camera's left.
    WallLeft,
    /// A wall to its right.
    WallRight,
    /// A wall behind the camera.
    WallBehindCamera,
    /// A ceiling.
    Ceiling,
    /// The floor as a surface.
    Floor,
    /// A window to the camera's left.
    Window,
    /// A doorway behind the camera.
    Doorway,
    /// A card of a kind on the shadow side.
    Card(CardKind),
    /// A card of the kit, by its id, on the shadow side.
    Board(String),
    /// A backdrop of the kit, by its id, behind everybody.
    FromRoll(String),
    /// Something that can hurt.
    Hazard(HazardKind),
}

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
    fn forget_places_of_the_gone(&mut self) {
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

    /// Something more on the set. A full list takes no more.
    ///
    /// # Errors
    /// More than a set holds; what the kit has not.
    pub fn add_to_set(&mut self, kit: &Kit, what: &Addition) -> Result<(), Refused> {
        self.use_set();
        let laid = Laid::of(self);
        let (anchor, camera) = (laid.anchor(), laid.camera(self));
        let shadow = self.regions.iter().position(|region| region.role == Role::ShadowSide);
        let farthest = laid.set.people.iter().map(|one| one.y_m).fold(0.0, f64::max);
        let set = self.set_mut();
        let wall = |set: &Set, id: &str, name: &str, from: (f64, f64), to: (f64, f64)| Wall {
            id: free_id(id, set.walls.iter().map(|one| one.id.as_str())),
            name: name.to_owned(),
            from_x_m: from.0,
            from_y_m: from.1,
            to_x_m: to.0,
            to_y_m: to.1,
            height_m: 2.7,
            reflectance: 0.6,
            colour: SurfaceColour::White,
        };
        match what {
            Addition::Person => {
                full(set.people.len(), MOST_PEOPLE)?;
                let number = set.people.len() + 1;
                let x = set.people.iter().map(|one| one.x_m).fold(f64::NEG_INFINITY, f64::max);
                let x = if x.is_finite() { x + crate::staging::SHOULDER_M } else { 0.0 };
                let id = free_id("person", set.people.iter().map(|one| one.id.as_str()));
                let y_m = set.people.last().map_or(0.0, |one| one.y_m);
                set.people.push(Person { id, ..somebody(number, held(x), y_m, 180.0) });
                if number > 1 && self.speed.movement == Movement::HeldPose {
                    self.speed.movement = Movement::Posing;
                }
            }
            Addition::Product => {
                full(set.products.len(), 8)?;
                let shape = ProductShape::Box { width_m: 0.3, depth_m: 0.2, height_m: 0.3 };
                let id = free_id("product", set.products.iter().map(|one| one.id.as_str()));
                let beside = if set.people.is_empty() { 0.0 } else { 0.6 };
                #[expect(clippy::cast_precision_loss, reason = "a few")]
                let x_m = beside + 0.5 * set.products.len() as f64;
                let one = product(set.products.len() + 1, shape);
                set.products.push(crate::setup::Product { id, x_m, ..one });
            }
            Addition::Backdrop | Addition::FromRoll(_) => {
                full(set.walls.len(), 12)?;
                let roll = match what {
                    Addition::FromRoll(id) => Some(in_kit(&kit.backdrops, "backdrop", id, |one| &one.id)?),
                    _ => None,
                };
                let (y, half) = (held(farthest + 1.5), roll.map_or(2.7, |roll| roll.width_m) / 2.0);
                let mut one = wall(set, "backdrop", "Backdrop", (-half, y), (half, y));
                if let Some(roll) = roll {
                    one.name.clone_from(&roll.name);
                    (one.height_m, one.reflectance, one.colour) = (roll.height_m, roll.reflectance, roll.colour);
                }
                set.walls.push(one);
            }
            Addition::WallLeft | Addition::WallRight => {
                full(set.walls.len(), 12)?;
                let (name, x) = if *what == Addition::WallLeft { ("Wall, left", -2.5) } else { ("Wall, right", 2.5) };
                let one = wall(set, "wall", name, (x, -4.0), (x, 3.0));
                set.walls.push(one);
            }
            Addition::WallBehindCamera => {
                full(set.walls.len(), 12)?;
                let y = held(camera.y - 1.0);
                let one = wall(set, "wall", "Wall behind the camera", (-3.0, y), (3.0, y));
                set.walls.push(one);
            }
            Addition::Ceiling => {
                let ceiling = Ceiling { height_m: 2.7, reflectance: 0.8, colour: SurfaceColour::White };
                set.ceiling.get_or_insert(ceiling);
            }
            Addition::Floor => {
                set.floor.get_or_insert(Floor { reflectance: 0.3, colour: SurfaceColour::White });
            }
            Addition::Window | Addition::Doorway => {
                full(set.openings.len(), 6)?;
                let one = opening(set, *what == Addition::Window, anchor, camera);
                set.openings.push(one);
            }
            Addition::Card(_) | Addition::Board(_) => {
                full(set.cards.len(), 16)?;
                let looks =
                    shadow.map_or(Direction::new(135.0, 0.0), |region| Direction::of(laid.receptor(region).normal));
                let board = match what {
                    Addition::Board(id) => Some(in_kit(&kit.boards, "card", id, |one| &one.id)?),
                    _ => None,
                };
                let kind = if let Addition::Card(kind) = what { *kind } else { CardKind::White };
                let mut one = card(set, board.map_or(kind, |board| board.kind), anchor, looks);
                if let Some(board) = board {
                    one.name.clone_from(&board.name);
                    (one.width_m, one.height_m) = (board.width_m, board.height_m);
                }
                set.cards.push(one);
            }
            &Addition::Hazard(kind) => {
                full(set.hazards.len(), 12)?;
                let id = free_id("hazard", set.hazards.iter().map(|one| one.id.as_str()));
                let y = held(if kind == HazardKind::Cable { camera.y + 0.5 } else { camera.y - 1.0 });
                let (from_x_m, to_x_m) = if kind == HazardKind::Cable { (-2.0, 2.0) } else { (-4.0, 4.0) };
                set.hazards.push(Hazard { id, kind, from_x_m, from_y_m: y, to_x_m, to_y_m: y, height_m: 5.0 });
            }
        }
        Ok(())
    }

    /// A flag just out of the frame that keeps a light, or the sun, off the front glass.
    ///
    /// # Errors
    /// A light that is not there, a sun that is not up, or a set that is full of cards.
    pub fn add_flag(&mut self, kit: &Kit, light_id: Option<&str>) -> Result<(), Refused> {
        self.use_set();
        let camera = Laid::of(self).camera(self);
        let towards = if let Some(id) = light_id {
            self.stands(kit, &Thing::Light(id.to_owned()))? - camera
        } else {
            let prepared = crate::lighting::Prepared::new(self, kit)?;
            let scene = prepared.scene.as_ref().ok_or(Refused::NoScene)?;
            towards_sun(scene.now.sun, scene.scene.facing_deg)
        };
        let at = camera + towards.normalize_or(Vector::Y) * FLAG_M;
        let back = Direction::of(-towards);
        let set = self.set_mut();
        full(set.cards.len(), 16)?;
        let id = free_id("card", set.cards.iter().map(|one| one.id.as_str()));
        set.cards.push(Card {
            id,
            name: "Flag".to_owned(),
            kind: CardKind::Black,
            x_m: held(at.x),
            y_m: held(at.y),
            z_m: thousandth(at.z).clamp(0.0, 30.0),
            facing_deg: hundredth(back.azimuth_deg).rem_euclid(360.0),
            tilt_deg: hundredth(back.elevation_deg),
            width_m: FLAG_SIZE_M,
            height_m: FLAG_SIZE_M,
        });
        Ok(())
    }

    /// Something less on the set. Regions on it are where their roles usually are.
    ///
    /// # Errors
    /// A thing that is not there, or cannot go.
    pub fn remove_from_set(&mut self, kit: &Kit, thing: &Thing) -> Result<(), Refused> {
        if !matches!(thing, Thing::Light(_)) {
            self.stands(kit, thing)?;
        }
        self.while_lights_stay(kit, true, |setup| {
            let set = setup.set_mut();
            match thing {
                Thing::Person(id) => set.people.retain(|one| &one.id != id),
                Thing::Product(id) => set.products.retain(|one| &one.id != id),
                Thing::Card(id) => set.cards.retain(|one| &one.id != id),
                Thing::Wall(id) => set.walls.retain(|one| &one.id != id),
                Thing::Opening(id) => set.openings.retain(|one| &one.id != id),
                Thing::Hazard(id) => set.hazards.retain(|one| &one.id != id),
                Thing::Ceiling => set.ceiling = None,
                Thing::Floor => set.floor = None,
                Thing::Light(id) => setup.lights.retain(|light| &light.id != id),
                Thing::Region(_) | Thing::Camera => {}
            }
            setup.forget_places_of_the_gone();
            Ok(())
        })
    }
}

fn card_name(kind: CardKind) -> &'static str {
    match kind {
        CardKind::White => "White card",
        CardKind::Silver => "Silver card",
        CardKind::Gold => "Gold card",
        CardKind::Black => "Black card",
        CardKind::Diffuser => "Diffuser",
        CardKind::Mirror => "Mirror",
    }
}

/// A window to the camera's left, or a doorway behind the camera.
fn opening(set: &Set, window: bool, anchor: Point, camera: Point) -> Opening {
    let id = free_id("opening", set.openings.iter().map(|one| one.id.as_str()));
    if window {
        let (x_m, y_m, z_m) = (held(anchor.x - 1.5), held(anchor.y - 0.5), 1.6);
        let (width_m, height_m) = (1.2, 1.4);
        return Opening { id, name: "Window".to_owned(), x_m, y_m, z_m, facing_deg: 90.0, width_m, height_m };
    }
    let (x_m, y_m, z_m) = (held(anchor.x), held(camera.y - 0.5), 1.1);
    Opening { id, name: "Doorway".to_owned(), x_m, y_m, z_m, facing_deg: 0.0, width_m: 1.8, height_m: 2.2 }
}

/// A card on the side that looks so, a little towards the camera, facing the main subject.
fn card(set: &Set, kind: CardKind, anchor: Point, looks: Direction) -> Card {
    let at = anchor + Direction::new(looks.azimuth_deg - 20.0, 0.0).vector() * 0.9;
    let on_grid = |value: f64| held((value / STEP_M).round() * STEP_M);
    Card {
        id: free_id("card", set.cards.iter().map(|one| one.id.as_str())),
        name: card_name(kind).to_owned(),
        kind,
        x_m: on_grid(at.x),
        y_m: on_grid(at.y),
        z_m: thousandth((anchor.z - 0.2).max(0.4)),
        facing_deg: hundredth(Direction::of(anchor - at).azimuth_deg.round()).rem_euclid(360.0),
        tilt_deg: 0.0,
        width_m: 0.8,
        height_m: 1.2,
    }
}

/// A thing of the kit by its id.
fn in_kit<'a, T>(things: &'a [T], what: &'static str, id: &str, of: impl Fn(&T) -> &str) -> Result<&'a T, Refused> {
    let there = things.iter().find(|thing| of(thing) == id);
    there.ok_or_else(|| Refused::NotInKit { what, id: id.to_owned() })
}

fn full(count: usize, most: usize) -> Result<(), Refused> {
    if count < most { Ok(()) } else { Err(Refused::Full(most)) }
}

/// An id that is not taken yet.
fn free_id<'a>(kind: &str, taken: impl Iterator<Item = &'a str>) -> String {
    let taken: Vec<&str> = taken.collect();
    let free = (1..=taken.len() + 1).map(|number| format!("{kind}-{number}"));
    free.into_iter().find(|id| !taken.contains(&id.as_str())).unwrap_or_default()
}
