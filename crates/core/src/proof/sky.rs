//! Sky and sun where something may stand before them: how bright the sky is along a way, what of it falls on a surface, how
//! much of the sun's disc is seen.

use std::sync::LazyLock;

use glam::Vec3A;

use super::body::{OFF_M, ray};
use super::samples::Samples;
use super::scene::Scene;
use crate::set::SUN_DEG;

/// What hides the sky farther off than this does so in the frame only, in metres. Chosen.
const NEAR_M: f32 = 2.5;
/// What the ground, and what is near, gives back of the sky's light. Chosen.
const GROUND: f32 = 0.35;
const HIDDEN: f32 = 0.30;
/// How bright the sky is along a way, and the ground.
fn seen_sky(way: Vec3A) -> f32 {
    if way.z < 0.0 { GROUND } else { 0.55 + 0.45 * way.z }
}

/// Even under the cosine about a normal: a disc, raised to the half sphere.
fn half_sphere(normal: Vec3A, [a, b]: [f32; 2]) -> Vec3A {
    let (right, up) = any_sides(normal);
    let (sin, cos) = (std::f32::consts::TAU * b).sin_cos();
    let flat = a.sqrt();
    (right * (flat * cos) + up * (flat * sin) + normal * (1.0 - a).max(0.0).sqrt()).normalize_or(normal)
}

/// What the whole sky gives what looks up so far (the sine), with nothing in its way: worked out once, in steps.
fn open_sky(up: f32) -> f32 {
    const STEPS: u16 = 64;
    static TABLE: LazyLock<Vec<f32>> = LazyLock::new(|| {
        let each = |step: u16| {
            let up = f32::from(step) / f32::from(STEPS) * 2.0 - 1.0;
            let normal = Vec3A::new((1.0 - up * up).max(0.0).sqrt(), 0.0, up);
            let samples = Samples::of(0, true);
            (0..4096).map(|index| seen_sky(half_sphere(normal, samples.two(index, 2)))).sum::<f32>() / 4096.0
        };
        (0..=STEPS).map(each).collect()
    });
    let place = f32::midpoint(up.clamp(-1.0, 1.0), 1.0) * f32::from(STEPS);
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "a place of the table")]
    let low = (place.floor() as usize).min(usize::from(STEPS) - 1);
    #[expect(clippy::cast_precision_loss, reason = "a place of the table")]
    let part = place - low as f32;
    TABLE[low] * (1.0 - part) + TABLE[low + 1] * part
}

/// What the sky gives at a point, and what stands near hides of it.
pub(super) fn sky_at(scene: &Scene, normal: Vec3A, at: Vec3A, samples: Samples, rays: u32) -> f32 {
    let near = scene.near(at, NEAR_M);
    if near.is_empty() {
        return open_sky(normal.z);
    }
    let one = |index: u32| {
        let way = half_sphere(normal, samples.two(index, 2));
        let seen = seen_sky(way);
        let hidden = scene.stops_among(near, &ray(at, way, OFF_M, NEAR_M));
        if hidden { HIDDEN * GROUND.max(seen) } else { seen }
    };
    #[expect(clippy::cast_precision_loss, reason = "a few dozen")]
    let count = rays as f32;
    (0..rays).map(one).sum::<f32>() / count
}

/// The part of the sun's disc that is seen from a point.
pub(super) fn sun_seen(scene: &Scene, at: Vec3A, to_sun: Vec3A, samples: Samples, rays: u32) -> f32 {
    #[expect(clippy::cast_possible_truncation, reason = "half a degree")]
    let radius = (SUN_DEG / 2.0).to_radians().tan() as f32;
    let (right, up) = any_sides(to_sun);
    let shows = |sin: f32, cos: f32, out: f32| {
        let way = to_sun + (right * cos + up * sin) * (radius * out);
        f32::from(!scene.stops_ray(&ray(at, way.normalize_or(to_sun), OFF_M, 500.0)))
    };
    let sees = |index: u32| {
        let [a, b] = samples.two(index, 3);
        let (sin, cos) = (std::f32::consts::TAU * b).sin_cos();
        shows(sin, cos, a.sqrt())
    };
    let some: f32 = (0..2).map(sees).sum();
    if rays < 8 {
        return some / 2.0;
    }
    // All of it or nothing, where its rim says the same: so small a disc is mostly one of them.
    let rim = [(0.0, 1.0), (1.0, 0.0), (0.0, -1.0), (-1.0, 0.0)].map(|(sin, cos)| shows(sin, cos, 1.0));
    if rim.iter().all(|one| (2.0 * one - some).abs() < 0.5) {
        return some / 2.0;
    }
    let more: f32 = (2..rays).map(sees).sum();
    #[expect(clippy::cast_precision_loss, reason = "a few dozen")]
    let all = rays as f32;
    (some + more) / all
}

/// Two ways square to one. Source: Duff et al. 2017, building an orthonormal basis, revisited.
fn any_sides(normal: Vec3A) -> (Vec3A, Vec3A) {
    let sign = 1.0_f32.copysign(normal.z);
    let a = -1.0 / (sign + normal.z);
    let b = normal.x * normal.y * a;
    (
        Vec3A::new(1.0 + sign * normal.x * normal.x * a, sign * b, -sign * normal.x),
        Vec3A::new(b, sign + normal.y * normal.y * a, -normal.y),
    )
}

#[cfg(test)]
mod tests {
    use std::f32::consts::PI;

    use rstest::rstest;

    use super::*;
    use crate::optics::Sensor;
    use crate::proof::body::{Shape, Thing};
    use crate::proof::coat::Coat;
    use crate::scale::Millimetres;
    use crate::set::Solid;
    use crate::set::{Point, View};

    fn scene(shapes: Vec<Shape>) -> Scene {
        let (lens, at) = (Point::new(0.0, -3.0, 1.0), Point::new(0.0, 0.0, 1.0));
        let view = View::new(lens, at, Millimetres(50.0), Sensor::FULL_FRAME, false);
        let thing = |shape| Thing { shape, coat: Coat::matt([0.18; 3]), casts: true };
        Scene { view, things: shapes.into_iter().map(thing).collect(), panes: Vec::new() }
    }

    /// Against the integral over the half sphere, worked out by hand: of 0.55 + 0.45 z under the cosine it is 0.55 + 0.3 on
    /// what lies flat; what stands upright has the ground for one half, and a mean z of 4 / (3 π) for the other.
    #[rstest]
    #[case::flat(1.0, 0.85)]
    #[case::face_down(-1.0, GROUND)]
    #[case::upright(0.0, (GROUND + 0.55 + 0.45 * 4.0 / (3.0 * PI)) / 2.0)]
    fn the_open_sky_is_its_integral(#[case] up: f32, #[case] wanted: f32) {
        assert!((open_sky(up) - wanted).abs() < 0.002, "{} {wanted}", open_sky(up));
    }

    /// Ways over a surface lie under the cosine: two thirds up in the mean, half of them within 45° of it.
    #[rstest]
    #[case(Vec3A::Z)]
    #[case(Vec3A::NEG_Z)]
    #[case(Vec3A::new(0.6, -0.8, 0.0))]
    fn ways_lie_under_the_cosine(#[case] normal: Vec3A) {
        let ways: Vec<f32> =
            (0..1024).map(|index| half_sphere(normal, Samples::of(5, false).two(index, 2)).dot(normal)).collect();
        assert!((ways.iter().sum::<f32>() / 1024.0 - 2.0 / 3.0).abs() < 0.005);
        let near = ways.iter().filter(|cosine| **cosine > std::f32::consts::FRAC_1_SQRT_2).count();
        assert!(near.abs_diff(512) < 8, "{near}");
        assert!(ways.iter().all(|cosine| *cosine >= 0.0));
    }

    #[rstest]
    #[case(Vec3A::Z)]
    #[case(Vec3A::NEG_Z)]
    #[case(Vec3A::X)]
    #[case(Vec3A::new(-0.48, 0.6, -0.64))]
    fn two_ways_are_square_to_one(#[case] normal: Vec3A) {
        let (right, up) = any_sides(normal);
        for (a, b, wanted) in
            [(right, up, 0.0), (right, normal, 0.0), (up, normal, 0.0), (right, right, 1.0), (up, up, 1.0)]
        {
            assert!((a.dot(b) - wanted).abs() < 1e-6);
        }
    }

    /// A ball close over a spot hides the part of the sky that its form factor is: the square of its half angle's sine, where
    /// it stands straight over what lies flat (Lambert; any table of view factors).
    #[test]
    fn a_ball_overhead_hides_its_form_factor() {
        let ball = Shape::Solid(Solid::Ball { centre: Vec3A::new(0.0, 0.0, 1.0), radius_m: 0.5 });
        let (open, under) = (scene(Vec::new()), scene(vec![ball]));
        let at = |scene: &Scene| sky_at(scene, Vec3A::Z, Vec3A::ZERO, Samples::of(3, false), 2048);
        let sine_square = 0.25_f32;
        // Of the sky within the ball's half angle the mean height is that of a spherical cap under the cosine.
        let cosine = (1.0 - sine_square).sqrt();
        let mean_up = 2.0 / 3.0 * (1.0 - cosine.powi(3)) / sine_square;
        let hidden = sine_square * (0.55 + 0.45 * mean_up);
        assert!((at(&open) - 0.85).abs() < 0.002);
        assert!((at(&under) - (0.85 - hidden * (1.0 - HIDDEN))).abs() < 0.004, "{}", at(&under));
    }

    /// Of the sun's disc all is seen, nothing, or about half where an edge goes through its middle.
    #[rstest]
    #[case::clear(3.0, 1.0, 0.01)]
    #[case::behind_it(0.0, 0.0, 0.01)]
    #[case::at_its_edge(0.5, 0.5, 0.15)]
    fn the_suns_disc_is_seen_in_part(#[case] aside: f32, #[case] wanted: f32, #[case] near: f32) {
        let ball = Shape::Solid(Solid::Ball { centre: Vec3A::new(aside, 0.0, 20.0), radius_m: 0.5 });
        let part = sun_seen(&scene(vec![ball]), Vec3A::ZERO, Vec3A::Z, Samples::of(8, false), 64);
        assert!((part - wanted).abs() <= near, "{part}");
    }
}
