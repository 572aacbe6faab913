//! What questions are about: a meter's receptor, a picture and its plate, a light before a pane.

use tolva_core::exposure::CameraSettings;
use tolva_core::glass::{Glazing, Pane};
use tolva_core::scale::{Metres, Millimetres};
use tolva_core::set::{Panel, Point, Vector};

use crate::shots::AsTaken;

/// What a meter collects light with.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub enum Pointed {
    /// A flat receptor: the cosine.
    Flat,
    /// A dome: half of one and the cosine.
    Dome,
}

impl Pointed {
    /// What is left of a light this far from straight on, 0 to 1. Source: ISO 2720 (cosine and cardioid receptors).
    pub fn collects(self, off_deg: f64) -> f64 {
        let cosine = off_deg.to_radians().cos();
        match self {
            Self::Flat => cosine.max(0.0),
            Self::Dome => f64::midpoint(1.0, cosine),
        }
    }
}

/// What a frame was taken with, as its file says it.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct PlateLine {
    /// The dials.
    pub settings: CameraSettings,
    /// The focal length.
    pub focal: Millimetres,
    /// Whether the flash fired.
    pub flash: bool,
}

impl PlateLine {
    /// The same as a file says it.
    pub fn as_taken(&self) -> AsTaken {
        AsTaken {
            shutter_s: Some(self.settings.shutter.nominal),
            f_number: Some(self.settings.aperture.nominal),
            iso: Some(self.settings.iso.nominal),
            focal_length_mm: Some(self.focal.0),
            flash: Some(self.flash),
            size: (6000, 4000),
        }
    }
}

/// A pane along the x axis seen from above, with the lens and a light before it.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Before {
    /// How far the lens stands before the pane.
    pub lens: Metres,
    /// How far the light stands before it.
    pub light: Metres,
    /// How far the light stands to the right of the lens.
    pub aside: Metres,
    /// How far the pane goes to the left of the lens.
    pub left: Metres,
    /// And to the right.
    pub right: Metres,
}

impl Before {
    /// Where on the pane the light's reflection is seen, to the right of the lens, by its mirror image. Source: the law of
    /// reflection.
    pub fn shows_at(&self) -> Metres {
        let at = |x: f64, y: f64| Point { x, y, z: 1.5 };
        let pane = Pane {
            panel: Panel::new(at(0.0, 0.0), Vector { x: 0.0, y: -1.0, z: 0.0 }, 100.0, 3.0),
            glazing: Glazing::Single,
        };
        let (lens, light) = (at(0.0, -self.lens.0), at(self.aside.0, -self.light.0));
        let image = pane.mirror(light);
        let part = lens.y / (lens.y - image.y);
        Metres(lens.x + (image.x - lens.x) * part)
    }
}
