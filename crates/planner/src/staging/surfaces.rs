//! Flat things of the set as panels: cards, walls, ceiling, floor, openings; and how each gives light on. How shiny cloth
//! is and what gold does to a colour is chosen; measure it.

use tolva_core::colour::Shift;
use tolva_core::set::{Direction, Lustre, Matt, Panel, Point, Vector};

use crate::setup::{Card, CardKind, Ceiling, Finish, Floor, Opening, Wall};

/// A ceiling or floor is counted so far round the main subject, in metres.
const AROUND_M: f64 = 4.0;
/// A silver or gold card's lobe: the exponent of its cosine.
const SHINY: f64 = 6.0;
/// A mirror-like product sends back so much. Common practice, no source.
pub const MIRROR_FINISH: f64 = 0.62;
/// A satin product scatters so much of the light in its lobe. Common practice, no source.
const SATIN_FINISH: f64 = 0.5;

impl CardKind {
    /// The part of the light it gives on. Common practice, no source.
    pub fn reflectance(self) -> f64 {
        match self {
            Self::White | Self::Mirror => 0.9,
            Self::Silver => 0.85,
            Self::Gold => 0.75,
            Self::Black => 0.03,
            Self::Diffuser => 0.5,
        }
    }

    /// In which manner it gives it on.
    pub fn lustre(self) -> Lustre {
        match self {
            Self::White | Self::Black => Lustre::Matt,
            Self::Silver | Self::Gold => Lustre::Lobe(SHINY),
            Self::Diffuser => Lustre::Through,
            Self::Mirror => Lustre::Mirror,
        }
    }

    /// What it does to the colour of the light.
    pub fn shift(self) -> Shift {
        if self == Self::Gold { Shift { mired: 60.0, tint_duv: 0.001 } } else { Shift::default() }
    }
}

impl Finish {
    /// How it gives light on, and how much of it; nothing of a matt product, whose light is lost in the room.
    pub fn shine(self) -> Option<(Lustre, f64)> {
        match self {
            Self::Matt => None,
            Self::Satin => Some((Lustre::Lobe(SHINY), SATIN_FINISH)),
            Self::Mirror => Some((Lustre::Mirror, MIRROR_FINISH)),
        }
    }
}

impl Card {
    /// Where it is.
    pub fn panel(&self) -> Panel {
        let normal = Direction::new(self.facing_deg, self.tilt_deg).vector();
        Panel::new(Point::new(self.x_m, self.y_m, self.z_m), normal, self.width_m, self.height_m)
    }

    /// How it gives light on.
    pub fn matt(&self) -> Matt {
        Matt { panel: self.panel(), reflectance: self.kind.reflectance(), lustre: self.kind.lustre() }
    }
}

impl Wall {
    /// Where it is; it looks to the side a point lies on.
    pub fn panel(&self, towards: Point) -> Panel {
        let from = Point::new(self.from_x_m, self.from_y_m, 0.0);
        let to = Point::new(self.to_x_m, self.to_y_m, 0.0);
        let centre = (from + to) / 2.0 + Vector::Z * (self.height_m / 2.0);
        let along = to - from;
        let square = Vector::new(along.y, -along.x, 0.0).normalize_or(Vector::Y);
        let normal = if square.dot(towards - centre) < 0.0 { -square } else { square };
        Panel::new(centre, normal, along.length(), self.height_m)
    }

    /// How it gives light back to the side a point lies on.
    pub fn matt(&self, towards: Point) -> Matt {
        Matt { panel: self.panel(towards), reflectance: self.reflectance, lustre: Lustre::Matt }
    }
}

impl Ceiling {
    /// The part of it round a place.
    pub fn matt(&self, around: Point) -> Matt {
        let centre = Point::new(around.x, around.y, self.height_m);
        let panel = Panel::new(centre, -Vector::Z, 2.0 * AROUND_M, 2.0 * AROUND_M);
        Matt { panel, reflectance: self.reflectance, lustre: Lustre::Matt }
    }
}

impl Floor {
    /// The part of it round a place.
    pub fn matt(&self, around: Point) -> Matt {
        let centre = Point::new(around.x, around.y, 0.0);
        let panel = Panel::new(centre, Vector::Z, 2.0 * AROUND_M, 2.0 * AROUND_M);
        Matt { panel, reflectance: self.reflectance, lustre: Lustre::Matt }
    }
}

impl Opening {
    /// Where it is.
    pub fn panel(&self) -> Panel {
        let normal = Direction::new(self.facing_deg, 0.0).vector();
        Panel::new(Point::new(self.x_m, self.y_m, self.z_m), normal, self.width_m, self.height_m)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use tolva_core::modifier::SurfaceColour;

    #[test]
    fn a_wall_looks_at_who_stands_before_it() {
        let wall = Wall {
            id: "back".to_owned(),
            name: "Back".to_owned(),
            from_x_m: -2.0,
            from_y_m: 3.0,
            to_x_m: 2.0,
            to_y_m: 3.0,
            height_m: 2.7,
            reflectance: 0.6,
            colour: SurfaceColour::White,
        };
        let before = wall.panel(Point::new(0.0, 0.0, 1.6));
        assert!((before.normal + Vector::Y).length() < 1e-9);
        assert!((wall.panel(Point::new(0.0, 6.0, 1.6)).normal - Vector::Y).length() < 1e-9);
        assert!((before.area_m2() - 4.0 * 2.7).abs() < 1e-9);
        // A wall without any length stands somewhere all the same.
        let none = Wall { to_x_m: -2.0, ..wall };
        assert!(none.panel(Point::ZERO).normal.length() > 0.9);
    }

    #[test]
    fn silver_throws_and_black_takes() {
        assert!(CardKind::Silver.lustre() != Lustre::Matt && CardKind::Black.reflectance() < 0.1);
        assert!(CardKind::Gold.shift().mired > 0.0 && CardKind::White.shift() == Shift::default());
        assert!(Finish::Mirror.shine() != Finish::Satin.shine() && Finish::Matt.shine().is_none());
    }
}
