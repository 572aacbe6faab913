//! Panes and spectacles as glass that stands somewhere.

use tolva_core::glass::{Eyeglass, Glazing, LENS_RADIUS_M};
use tolva_core::set::{Direction, Panel, Point};

use crate::setup::{Pane, PaneGlazing, Person, Side};

/// Spectacle glasses: their size, how far apart their middles are and how far before the eyes, in metres. Common practice,
/// no source.
const GLASS_M: (f64, f64) = (0.05, 0.04);
const APART_M: f64 = 0.064;
const BEFORE_M: f64 = 0.015;

impl Pane {
    /// Where it is.
    pub fn panel(&self) -> Panel {
        let normal = Direction::new(self.facing_deg, self.tilt_deg).vector();
        Panel::new(Point::new(self.x_m, self.y_m, self.z_m), normal, self.width_m, self.height_m)
    }

    /// As glass.
    pub fn pane(&self) -> tolva_core::glass::Pane {
        tolva_core::glass::Pane { panel: self.panel(), glazing: self.glazing.into() }
    }
}

impl From<PaneGlazing> for Glazing {
    fn from(of: PaneGlazing) -> Self {
        match of {
            PaneGlazing::Single => Self::Single,
            PaneGlazing::Double => Self::Double,
            PaneGlazing::Mirror => Self::Mirror,
        }
    }
}

impl Person {
    /// The glasses they wear: the right one, then the left one; none without spectacles.
    pub fn eyeglasses(&self) -> Vec<Eyeglass> {
        let Some(spectacles) = self.spectacles else { return Vec::new() };
        let axis = Direction::new(self.facing_deg, -spectacles.tilt_deg).vector();
        let own_right = Direction::new(self.facing_deg + 90.0, 0.0).vector();
        let eyes = self.receptor(Side::Front).at + self.looks() * BEFORE_M;
        let (width_m, height_m) = GLASS_M;
        let one = |side: f64| Eyeglass {
            centre: eyes + own_right * (side * APART_M / 2.0),
            axis,
            width_m,
            height_m,
            radius_m: LENS_RADIUS_M,
        };
        vec![one(1.0), one(-1.0)]
    }
}
