//! What is put onto a set where nobody has said more: usual sizes in usual places, common practice, no source.

use tolva_core::modifier::SurfaceColour;
use tolva_core::set::{Direction, Point};

use super::edits::{STEP_M, held, hundredth, thousandth};
use crate::setup::{Card, CardKind, Opening, Pane, PaneGlazing, Set, Wall};

/// What a pane is there for: its size and place where nobody has said more. Common practice, no source.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum PaneUse {
    /// A window behind the subject.
    Window,
    /// A shop window behind it.
    ShopWindow,
    /// A glazed door, which turns.
    GlazedDoor,
    /// A pane between the camera and the subject.
    ShotThrough,
    /// A mirror behind it.
    Mirror,
    /// A wall of mirrors at the side.
    MirrorWall,
    /// A picture under glass.
    Picture,
    /// A table of glass.
    Table,
    /// The side of a car.
    CarSide,
}

pub(super) fn card_name(kind: CardKind) -> &'static str {
    match kind {
        CardKind::White => "White card",
        CardKind::Silver => "Silver card",
        CardKind::Gold => "Gold card",
        CardKind::Black => "Black card",
        CardKind::Diffuser => "Diffuser",
        CardKind::Mirror => "Mirror",
    }
}

pub(super) fn pane(id: String, of: PaneUse, anchor: Point, camera: Point, farthest: f64) -> Pane {
    use PaneGlazing::{Double, Mirror, Single};
    let behind = farthest + 1.8;
    let (between, towards) = (anchor.lerp(camera, 0.4), hundredth(Direction::of(camera - anchor).azimuth_deg));
    // Name, glazing, place, the way it looks and tilt, size, whether it turns.
    let (name, glazing, at, (facing_deg, tilt_deg), (width_m, height_m), turns) = match of {
        PaneUse::Window => ("Window pane", Double, (0.0, behind, 1.5), (180.0, 0.0), (1.4, 1.4), false),
        PaneUse::ShopWindow => ("Shop window", Double, (0.0, behind, 1.5), (180.0, 0.0), (4.0, 2.4), false),
        PaneUse::GlazedDoor => ("Glazed door", Single, (0.8, behind, 1.05), (180.0, 0.0), (0.9, 2.1), true),
        PaneUse::ShotThrough => {
            ("Pane before the subject", Single, (between.x, between.y, between.z), (towards, 0.0), (1.5, 1.5), false)
        }
        PaneUse::Mirror => ("Mirror", Mirror, (0.6, behind, 1.4), (180.0, 0.0), (0.9, 1.6), false),
        PaneUse::MirrorWall => ("Mirror wall", Mirror, (-2.2, 0.0, 1.2), (90.0, 0.0), (6.0, 2.2), false),
        PaneUse::Picture => ("Picture under glass", Single, (-0.7, behind, 1.6), (180.0, 0.0), (0.6, 0.8), false),
        PaneUse::Table => ("Glass table", Single, (0.0, -0.5, 0.75), (180.0, 90.0), (1.2, 0.8), false),
        PaneUse::CarSide => ("Car window", Single, (0.0, behind, 1.2), (180.0, 15.0), (1.8, 0.5), false),
    };
    let (x_m, y_m, z_m) = (held(at.0), held(at.1), thousandth(at.2));
    let facing_deg = facing_deg.rem_euclid(360.0);
    Pane { id, name: name.to_owned(), glazing, x_m, y_m, z_m, facing_deg, tilt_deg, width_m, height_m, turns }
}

/// A window to the camera's left, or a doorway behind the camera.
pub(super) fn opening(set: &Set, window: bool, anchor: Point, camera: Point) -> Opening {
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
pub(super) fn card(set: &Set, kind: CardKind, anchor: Point, looks: Direction) -> Card {
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

/// A wall or backdrop that runs from one place on the floor to another.
pub(super) fn wall(set: &Set, id: &str, name: &str, from: (f64, f64), to: (f64, f64)) -> Wall {
    Wall {
        id: free_id(id, set.walls.iter().map(|one| one.id.as_str())),
        name: name.to_owned(),
        from_x_m: from.0,
        from_y_m: from.1,
        to_x_m: to.0,
        to_y_m: to.1,
        height_m: 2.7,
        reflectance: 0.6,
        colour: SurfaceColour::White,
    }
}

/// An id that is not taken yet.
pub(super) fn free_id<'a>(kind: &str, taken: impl Iterator<Item = &'a str>) -> String {
    let taken: Vec<&str> = taken.collect();
    let free = (1..=taken.len() + 1).map(|number| format!("{kind}-{number}"));
    free.into_iter().find(|id| !taken.contains(&id.as_str())).unwrap_or_default()
}
