//! What a pixel sees: spots of surfaces, and how one is told from another.

use glam::{Vec3, Vec3A};
use rayon::prelude::*;

use super::body::{OFF_M, single};
use super::coat::Coat;
use super::picture::{MID_GREY, Size};
use super::samples::Samples;
use crate::set::Receptor;

/// A spot of a surface that a pixel sees, or the sky.
#[derive(Clone, Copy, Debug)]
pub struct Spot {
    /// The pixel.
    pub pixel: u32,
    /// Its part of the pixel.
    pub factor: f32,
    /// Where the ray to it began last: the lens, or a mirror.
    pub from: Vec3A,
    /// The ray's way, of length 1.
    pub way: Vec3A,
    /// How far it is from there, in metres.
    pub far: f32,
    /// The way the surface looks, of length 1.
    pub normal: Vec3A,
    /// How it gives light on.
    pub coat: Coat,
    /// Which thing it is of; nothing for the sky.
    pub thing: Option<u32>,
}

/// A point of a surface, and the way that looks.
#[derive(Clone, Copy, Debug)]
pub struct SurfacePoint {
    /// Where it is.
    pub at: Vec3A,
    /// The way the surface looks, of length 1.
    pub normal: Vec3A,
}

impl Spot {
    /// A flat card of grey where light is read.
    pub(super) fn card(receptor: &Receptor) -> Self {
        let (at, normal) = (single(receptor.at), single(receptor.normal));
        let coat = Coat::matt([MID_GREY; 3]);
        Self { pixel: 0, factor: 1.0, from: at + normal, way: -normal, far: 1.0, normal, coat, thing: Some(u32::MAX) }
    }

    /// Where it is.
    pub fn at(&self) -> Vec3A {
        self.from + self.way * self.far
    }

    /// Where light falls on it: a little before the surface.
    pub(super) fn lit_at(&self) -> Vec3A {
        self.at() + self.normal * (OFF_M * (1.0 + self.far * 0.03))
    }

    /// The same, with the way the surface looks.
    pub(super) fn lit_point(&self) -> SurfacePoint {
        SurfacePoint { at: self.lit_at(), normal: self.normal }
    }
}

/// Of a spot what tells which surface it is of, close together: it is looked at for every pixel around, many times.
#[derive(Clone, Copy, Debug)]
pub(super) struct Surface {
    at: Vec3,
    far: f32,
    normal: Vec3,
    /// Its thing, counted from 1; 0 for the sky.
    thing: u32,
}

impl Surface {
    pub fn of(spot: &Spot) -> Self {
        let thing = spot.thing.map_or(0, |thing| thing.saturating_add(1));
        Self { at: spot.at().into(), far: spot.far, normal: spot.normal.into(), thing }
    }

    /// How much of the same surface two spots are, 0 to 1.
    pub fn alike(&self, other: &Self) -> f32 {
        if self.thing != other.thing {
            return 0.0;
        }
        let turned = self.normal.dot(other.normal).max(0.0);
        let turned = turned.powi(32);
        // Out of the plane of the surface, as a part of how far it is.
        let off = (other.at - self.at).dot(self.normal).abs() / (0.004 * self.far + 1e-4);
        turned * (-off).exp()
    }
}

/// What the lens sees.
#[derive(Clone, Debug)]
pub struct Seen {
    /// Its size: the picture's, or that of a band of it.
    pub size: Size,
    /// The picture's size.
    pub whole: Size,
    /// Which row of the picture is its first.
    first_row: u32,
    /// First one spot for each pixel, row by row from above; then more of pixels that see several things.
    pub spots: Vec<Spot>,
    /// Which surface each pixel's own spot is of.
    surfaces: Vec<Surface>,
}

impl Seen {
    pub(super) fn of((whole, first_row): (Size, u32), size: Size, spots: Vec<Spot>) -> Self {
        let surfaces = spots[..size.count()].par_iter().map(Surface::of).collect();
        Self { size, whole, first_row, spots, surfaces }
    }

    /// The points that a spot's pixel draws: by where that is in the whole picture; `again` at a second look.
    pub(super) fn samples(&self, spot: &Spot, again: bool) -> Samples {
        Samples::of(self.first_row * self.size.width + spot.pixel, again)
    }

    /// How much of each pixel sees things of which this is said, 0 to 1; nothing is the sky.
    pub fn parts(&self, is: impl Fn(Option<u32>) -> bool) -> Vec<f32> {
        let mut parts = vec![0.0_f32; self.size.count()];
        for spot in self.spots.iter().filter(|spot| is(spot.thing)) {
            parts[spot.pixel as usize] += spot.factor;
        }
        parts.into_iter().map(|part| part.min(1.0)).collect()
    }

    /// The spots that stand for one pixel each.
    pub(super) fn first(&self) -> &[Spot] {
        &self.spots[..self.size.count()]
    }

    /// How much room it takes, in bytes.
    pub fn bytes(&self) -> usize {
        self.spots.len() * size_of::<Spot>() + self.surfaces.len() * size_of::<Surface>()
    }

    pub(super) fn surfaces(&self) -> &[Surface] {
        &self.surfaces
    }
}
