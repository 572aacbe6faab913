//! Hard sun on the set: shadows on the ground and on a wall, their soft edges, and where a mirror throws its patch.

use super::place::{Point, Vector};
use super::solid::Panel;

/// The width of the sun in the sky, in degrees: 0.533 on the mean (IAU 2015 nominal radius at one astronomical unit).
pub const SUN_DEG: f64 = 0.533;

/// The length of the shadow of something upright, on level ground, in metres: height/tan(altitude). Nothing where the sun
/// is down.
///
/// ```
/// let length = tolva_core::set::shadow_length_m(1.0, 45.0).unwrap();
/// assert!((length - 1.0).abs() < 1e-12);
/// ```
pub fn shadow_length_m(height_m: f64, sun_altitude_deg: f64) -> Option<f64> {
    (sun_altitude_deg > 0.0 && sun_altitude_deg <= 90.0).then(|| height_m / sun_altitude_deg.to_radians().tan())
}

/// How wide the edge of a shadow is, so far from what throws it, in metres: the sun is no point.
pub fn shadow_edge_m(away_m: f64) -> f64 {
    2.0 * away_m * (SUN_DEG / 2.0).to_radians().tan()
}

/// Where the ray that passes a point falls on a wall: `along` is the way the light goes. Nothing where it passes the wall.
pub fn shadow_on(point: Point, along: Vector, wall: &Panel) -> Option<Point> {
    let down = along.dot(wall.normal);
    if down.abs() < 1e-9 {
        return None;
    }
    let t = (wall.centre - point).dot(wall.normal) / down;
    let spot = point + along * t;
    let off = spot - wall.centre;
    let inside =
        off.dot(wall.right).abs() <= wall.right.length_squared() && off.dot(wall.up).abs() <= wall.up.length_squared();
    (t > 0.0 && inside).then_some(spot)
}

/// The way light goes on from a mirror that looks along `normal`.
pub fn mirrored(along: Vector, normal: Vector) -> Vector {
    along - normal * (2.0 * along.dot(normal))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::set::Direction;
    use rstest::rstest;

    /// By the tables of the tangent: a person of 1.70 m under a sun of 6.5° throws 14.9 m.
    #[rstest]
    #[case(1.70, 6.5, 14.921)]
    #[case(1.70, 45.0, 1.70)]
    #[case(2.0, 30.0, 3.464)]
    fn shadows_by_height(#[case] height: f64, #[case] altitude: f64, #[case] length: f64) {
        assert!((shadow_length_m(height, altitude).expect("up") - length).abs() < 0.001);
    }

    #[test]
    fn a_sun_that_is_down_throws_none() {
        assert_eq!(shadow_length_m(1.7, -1.0), None);
        assert!((shadow_edge_m(10.0) - 0.093).abs() < 0.001);
    }

    #[test]
    fn a_shadow_falls_on_a_wall_or_past_it() {
        let wall = Panel::new(Point::new(0.0, 2.0, 1.0), -Vector::Y, 2.0, 2.0);
        let along = -Direction::new(180.0, 20.0).vector();
        let spot = shadow_on(Point::new(0.0, 0.0, 1.7), along, &wall).expect("on it");
        assert!((spot.z - (1.7 - 2.0 * 20.0_f64.to_radians().tan())).abs() < 1e-9);
        assert_eq!(shadow_on(Point::new(3.0, 0.0, 1.7), along, &wall), None);
        assert_eq!(shadow_on(Point::new(0.0, 3.0, 1.7), along, &wall), None);
        assert_eq!(shadow_on(Point::ZERO, Vector::X, &wall), None);
    }

    #[test]
    fn a_mirror_turns_light_round() {
        let back = mirrored(Vector::new(0.6, 0.8, 0.0), -Vector::Y);
        assert!((back - Vector::new(0.6, -0.8, 0.0)).length() < 1e-12);
    }
}
