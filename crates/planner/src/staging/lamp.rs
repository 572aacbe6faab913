//! What glows of a light: the shape and size of its face, what it loses, and how it falls off to its sides.

use tolva_core::modifier::{Surface, grid_exponent};
use tolva_core::scale::{Metres, Stops};

use crate::setup::{FlashOutput, Kit, Light, Modifier, ModifierSurface};

/// A light as the set knows it: what glows and how.
#[derive(Clone, Copy, Debug)]
pub struct Lamp {
    /// Its face.
    pub surface: Surface,
    /// How it falls off to its sides.
    pub exponent: f64,
}

impl Lamp {
    /// What a light of a setup is. A modifier that is not in the kit is none.
    pub fn of(light: &Light, kit: &Kit) -> Self {
        let modifier = kit.modifiers.iter().find(|one| Some(&one.id) == light.modifier_id.as_ref());
        let exponent = if modifier.is_some() { exponent_of(modifier) } else { beam(light, kit) };
        Self { surface: shape(modifier).0, exponent }
    }
}

/// How a bare head falls off to its sides. Zoomed to a focal length it has lost a stop where that lens's frame ends at
/// its sides (common practice, no source; from memory); one that does not zoom counts as zoomed wide.
fn beam(light: &Light, kit: &Kit) -> f64 {
    let flash = kit.flashes.iter().find(|one| one.id == light.flash_id);
    let widest = flash.and_then(|one| match &one.output {
        FlashOutput::GuideNumberZoom(zoom) => zoom.table.iter().map(|line| line.zoom_mm).reduce(f64::min),
        _ => None,
    });
    let zoom = light.zoom_mm.or(widest).unwrap_or(WIDE_MM);
    grid_exponent((HALF_FRAME_MM / zoom).atan().to_degrees().clamp(2.0, 60.0))
}

/// A head that does not zoom covers the frame of this lens, in millimetres.
const WIDE_MM: f64 = 24.0;
/// Half of a full frame's width, in millimetres.
const HALF_FRAME_MM: f64 = 18.0;

/// How a modifier falls off to its sides, as the exponent of a cosine; a bare head as an open diffuser.
pub fn exponent_of(modifier: Option<&Modifier>) -> f64 {
    modifier.map_or(1.0, |one| one.grid_half_angle_deg.map_or(one.exponent, grid_exponent))
}

/// The surface and the loss of a modifier, or of the bare head.
pub fn shape(modifier: Option<&Modifier>) -> (Surface, Stops) {
    let Some(modifier) = modifier else { return (Surface::Bare, Stops::ZERO) };
    let surface = match &modifier.surface {
        ModifierSurface::Bare(_) => Surface::Bare,
        ModifierSurface::Disc(disc) => Surface::Disc { diameter: Metres(disc.diameter_m) },
        ModifierSurface::Rectangle(rectangle) => {
            Surface::Rectangle { width: Metres(rectangle.width_m), height: Metres(rectangle.height_m) }
        }
    };
    (surface, Stops(modifier.loss_stops))
}
