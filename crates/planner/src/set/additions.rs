//! What comes onto a set and goes from it.

use tolva_core::ambient::Role;
use tolva_core::modifier::SurfaceColour;
use tolva_core::optics::Movement;
use tolva_core::set::{Direction, Panel, Vector, View};

use super::edits::{held, hundredth, thousandth};
use super::people::MOST_PEOPLE;
use super::pieces::{PaneUse, card, card_name, free_id, opening, pane, wall};
use crate::refused::Refused;
use crate::setup::{Card, CardKind, Ceiling, Floor, Hazard, HazardKind, Kit, Person, ProductShape, Setup};
use crate::staging::{Laid, Stage, Thing, product, somebody, towards_sun};

/// A flag stands so far before the lens, and is so large, in metres. Common practice, no source.
const FLAG_M: f64 = 0.8;
const FLAG_SIZE_M: f64 = 0.25;
/// A flag may be shifted off the line so far, in metres, and still shade the front glass.
const FLAG_SHIFT_M: f64 = 0.09;
/// A set has so many panes at most.
const MOST_PANES: usize = 12;

/// The flag that keeps off the front glass what comes this way: on the line to it, shifted outwards where it would be in the
/// picture; nothing where it is in the picture even then.
pub(super) fn flag(view: &View, towards: Vector) -> Option<tolva_core::glass::Card> {
    let way = towards.normalize_or(Vector::Y);
    let outwards = (way - view.forward * way.dot(view.forward)).normalize_or(view.up);
    let across = (outwards - way * outwards.dot(way)).normalize_or(view.up);
    let shifted = |shift_m: f64| {
        let centre = view.at + way * FLAG_M + across * shift_m;
        tolva_core::glass::Card { centre, looks: -way, width_m: FLAG_SIZE_M, height_m: FLAG_SIZE_M }
    };
    let is_out = |card: &tolva_core::glass::Card| {
        let panel = Panel::new(card.centre, card.looks, card.width_m, card.height_m);
        !view.shows(&panel.corners())
    };
    [0.0, FLAG_SHIFT_M / 2.0, FLAG_SHIFT_M].into_iter().map(shifted).find(is_out)
}

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
    /// A pane or mirror of a usual size.
    Pane(PaneUse),
    /// Something that can hurt.
    Hazard(HazardKind),
}

impl Setup {
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
            &Addition::Pane(kind) => {
                full(set.panes.len(), MOST_PANES)?;
                let id = free_id("pane", set.panes.iter().map(|one| one.id.as_str()));
                set.panes.push(pane(id, kind, anchor, camera, farthest));
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
        let stage = Stage::of(self, kit);
        let towards = if let Some(id) = light_id {
            self.stands(kit, &Thing::Light(id.to_owned()))? - stage.view.at
        } else {
            let prepared = crate::lighting::Prepared::new(self, kit)?;
            let scene = prepared.scene.as_ref().ok_or(Refused::NoScene)?;
            towards_sun(scene.now.sun, scene.scene.facing_deg)
        };
        let flag = flag(&stage.view, towards).ok_or(Refused::FlagInFrame)?;
        self.put_card(CardKind::Black, "Flag", &flag)
    }

    /// A card of a kind that stands just so.
    ///
    /// # Errors
    /// More than a set holds.
    pub fn add_card(&mut self, kind: CardKind, card: &tolva_core::glass::Card) -> Result<(), Refused> {
        self.put_card(kind, card_name(kind), card)
    }

    fn put_card(&mut self, kind: CardKind, name: &str, card: &tolva_core::glass::Card) -> Result<(), Refused> {
        let (at, looks) = (card.centre, Direction::of(card.looks));
        let set = self.set_mut();
        full(set.cards.len(), 16)?;
        let id = free_id("card", set.cards.iter().map(|one| one.id.as_str()));
        // To the next centimetre, so that it does fill what it is to fill.
        let size = |metres: f64| ((metres * 100.0).ceil() / 100.0).clamp(0.02, 10.0);
        set.cards.push(Card {
            id,
            name: name.to_owned(),
            kind,
            x_m: held(at.x),
            y_m: held(at.y),
            z_m: thousandth(at.z).clamp(0.0, 30.0),
            facing_deg: hundredth(looks.azimuth_deg).rem_euclid(360.0),
            tilt_deg: hundredth(looks.elevation_deg),
            width_m: size(card.width_m),
            height_m: size(card.height_m),
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
                Thing::Pane(id) => set.panes.retain(|one| &one.id != id),
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

/// A thing of the kit by its id.
fn in_kit<'a, T>(things: &'a [T], what: &'static str, id: &str, of: impl Fn(&T) -> &str) -> Result<&'a T, Refused> {
    let there = things.iter().find(|thing| of(thing) == id);
    there.ok_or_else(|| Refused::NotInKit { what, id: id.to_owned() })
}

fn full(count: usize, most: usize) -> Result<(), Refused> {
    if count < most { Ok(()) } else { Err(Refused::Full(most)) }
}
