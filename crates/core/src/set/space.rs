//! What a place is computed in: double precision for the plan, single for the millions of rays of a preview. Both use the
//! same formulas.

use std::fmt::Debug;
use std::ops::{Add, Mul, Neg, Sub};

use glam::{DVec3, Vec3A};
use num_traits::Float;

/// Vectors of one precision: x to the right, y forwards, z up, in metres.
pub trait Space:
    Copy
    + Debug
    + PartialEq
    + Add<Output = Self>
    + Sub<Output = Self>
    + Neg<Output = Self>
    + Mul<Self::Number, Output = Self>
{
    /// Its numbers.
    type Number: Float;
    /// Straight up, of length 1.
    const UP: Self;
    /// Ways that rise out of a plane by less than this run along it.
    const ALONG: Self::Number;

    /// The product of the lengths and the cosine between them.
    fn dot(self, other: Self) -> Self::Number;

    /// The same on the level: without what is up.
    #[must_use]
    fn level(self) -> Self {
        self - Self::UP * self.dot(Self::UP)
    }

    /// Its length, squared.
    fn square(self) -> Self::Number {
        self.dot(self)
    }
}

impl Space for DVec3 {
    type Number = f64;
    const UP: Self = Self::Z;
    const ALONG: f64 = 1e-12;

    fn dot(self, other: Self) -> f64 {
        Self::dot(self, other)
    }
}

impl Space for Vec3A {
    type Number = f32;
    const UP: Self = Self::Z;
    const ALONG: f32 = 1e-9;

    fn dot(self, other: Self) -> f32 {
        Self::dot(self, other)
    }
}
