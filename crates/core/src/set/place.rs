//! Places and directions on the set.
//!
//! Metres. The origin is on the floor under the main subject's eyes; x to the right and y forwards as first seen from the
//! camera, z up. Azimuths are clockwise from +y, elevations up from the floor's level.

pub use glam::DVec3 as Vector;

/// A point on the set, in metres.
pub type Point = Vector;

/// A direction as two angles.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Direction {
    /// Clockwise from +y, in degrees: 0 up to 360.
    pub azimuth_deg: f64,
    /// Up from the level, in degrees: −90 to 90.
    pub elevation_deg: f64,
}

impl Direction {
    /// A direction by its angles, in degrees. The azimuth is taken into one turn.
    pub fn new(azimuth_deg: f64, elevation_deg: f64) -> Self {
        Self { azimuth_deg: azimuth_deg.rem_euclid(360.0), elevation_deg }
    }

    /// Which way a vector points; forwards along +y where it has no length.
    pub fn of(vector: Vector) -> Self {
        let flat = vector.x.hypot(vector.y);
        if flat == 0.0 && vector.z == 0.0 {
            return Self::new(0.0, 0.0);
        }
        // Straight up or down has no bearing of its own.
        let azimuth = if flat < 1e-9 { 0.0 } else { vector.x.atan2(vector.y).to_degrees() };
        Self::new(azimuth, vector.z.atan2(flat).to_degrees())
    }

    /// The vector of length 1 that points so.
    ///
    /// ```
    /// use tolva_core::set::{Direction, Vector};
    /// let right = Direction::new(90.0, 0.0).vector();
    /// assert!((right - Vector::X).length() < 1e-12);
    /// assert!((Direction::of(right).azimuth_deg - 90.0).abs() < 1e-12);
    /// ```
    pub fn vector(self) -> Vector {
        let (azimuth, elevation) = (self.azimuth_deg.to_radians(), self.elevation_deg.to_radians());
        Vector::new(azimuth.sin() * elevation.cos(), azimuth.cos() * elevation.cos(), elevation.sin())
    }

    /// The same, turned about the upright by so many degrees clockwise and raised by so many.
    #[must_use]
    pub fn turned(self, clockwise_deg: f64, up_deg: f64) -> Self {
        Self::new(self.azimuth_deg + clockwise_deg, (self.elevation_deg + up_deg).clamp(-90.0, 90.0))
    }
}

/// An angle taken into −180 up to 180 degrees.
pub fn signed_deg(angle_deg: f64) -> f64 {
    180.0 - (180.0 - angle_deg).rem_euclid(360.0)
}

/// The angle between two directions, in degrees; 0 where one has no length.
pub fn between_deg(a: Vector, b: Vector) -> f64 {
    let length = a.length() * b.length();
    if length == 0.0 { 0.0 } else { (a.dot(b) / length).clamp(-1.0, 1.0).acos().to_degrees() }
}

/// A flat piece's own right and up, for something that looks along `axis`: right lies level, as seen from behind it, and
/// both are turned about the axis by `roll_deg`.
pub fn sides(axis: Vector, roll_deg: f64) -> (Vector, Vector) {
    let level = axis.cross(Vector::Z);
    let right = if level.length() < 1e-9 { Vector::X } else { level.normalize() };
    let up = right.cross(axis).normalize();
    let (sin, cos) = roll_deg.to_radians().sin_cos();
    (right * cos + up * sin, up * cos - right * sin)
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    proptest! {
        #[test]
        fn a_direction_and_its_vector_say_the_same(azimuth in 0.0..360.0_f64, elevation in -89.0..89.0_f64) {
            let there = Direction::of(Direction::new(azimuth, elevation).vector());
            prop_assert!(signed_deg(there.azimuth_deg - azimuth).abs() < 1e-6);
            prop_assert!((there.elevation_deg - elevation).abs() < 1e-6);
        }

        #[test]
        fn sides_stand_square(azimuth in 0.0..360.0_f64, elevation in -90.0..90.0_f64, roll in -90.0..90.0_f64) {
            let axis = Direction::new(azimuth, elevation).vector();
            let (right, up) = sides(axis, roll);
            prop_assert!(right.dot(axis).abs() < 1e-9 && up.dot(axis).abs() < 1e-9 && right.dot(up).abs() < 1e-9);
            prop_assert!((right.length() - 1.0).abs() < 1e-9 && (up.length() - 1.0).abs() < 1e-9);
        }
    }

    #[test]
    fn straight_up_has_sides_too() {
        let (right, up) = sides(Vector::Z, 0.0);
        assert!((right - Vector::X).length() < 1e-12 && up.z.abs() < 1e-12);
        assert!((signed_deg(190.0) + 170.0).abs() < 1e-12 && (signed_deg(-180.0) - 180.0).abs() < 1e-12);
        assert!(between_deg(Vector::ZERO, Vector::X).abs() < 1e-12);
    }
}
