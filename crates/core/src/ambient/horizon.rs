//! What stands in the way of sun and sky.

use super::Sun;
use crate::ambient::Obstacle;

/// The skyline seen from the subject: how high something stands at each bearing.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Skyline {
    /// From, width clockwise, height; degrees. And what it is called.
    obstacles: Vec<(f64, f64, f64, String)>,
}

/// Bearings the sky is summed over.
const STEPS: u32 = 180;

impl Skyline {
    /// The skyline of what stands in the way.
    pub fn new(obstacles: &[Obstacle]) -> Self {
        let one = |o: &Obstacle| {
            let width = (o.to_deg - o.from_deg).rem_euclid(360.0);
            // From 0 to 360 is all around, from 90 to 90 nothing.
            let width = if width == 0.0 && (o.to_deg - o.from_deg).abs() > 180.0 { 360.0 } else { width };
            (o.from_deg, width, o.height.altitude_deg(), o.name.clone())
        };
        Self { obstacles: obstacles.iter().map(one).collect() }
    }

    /// How high something stands at a bearing, in degrees; 0 where nothing does.
    pub fn height_deg(&self, bearing_deg: f64) -> f64 {
        self.at(bearing_deg).map_or(0.0, |(height, _)| height)
    }

    /// The highest thing at a bearing: its height in degrees and its name. Nothing where nothing stands there.
    pub fn at(&self, bearing_deg: f64) -> Option<(f64, &str)> {
        let there = self.obstacles.iter().filter(|(from, width, ..)| (bearing_deg - from).rem_euclid(360.0) <= *width);
        let there = there.map(|(_, _, height, name)| (*height, name.as_str())).filter(|(height, _)| *height > 0.0);
        there.max_by(|a, b| a.0.total_cmp(&b.0))
    }

    /// Whether the sun's centre is seen over the skyline. Over a level horizon it counts until its upper edge is gone.
    pub fn shows(&self, sun: Sun) -> bool {
        let height = self.height_deg(sun.azimuth_deg);
        if height > 0.0 { sun.apparent_altitude_deg > height } else { sun.is_up() }
    }

    /// The part of an even sky's light that still reaches level ground: 1 with nothing in the way. A sky over a height
    /// α all around gives cos²α, from the definition of the view factor.
    pub fn sky_on_level(&self) -> f64 {
        self.mean(|_| 1.0, |height| height.cos().powi(2))
    }

    /// The part of an even sky's light that still reaches a face turned to a bearing: 1 with nothing in the way.
    pub fn sky_on_face(&self, facing_deg: f64) -> f64 {
        // A vertical face gathers cos φ · cos²θ over the sky's half before it; its part over a height α is this.
        let over = |height: f64| 1.0 - (2.0 * height + (2.0 * height).sin()) / std::f64::consts::PI;
        self.mean(|bearing| (bearing - facing_deg).to_radians().cos().max(0.0), over)
    }

    /// What is left of the sky over a height in radians, as a mean over all bearings, each with its weight.
    fn mean(&self, weight: impl Fn(f64) -> f64, over: impl Fn(f64) -> f64) -> f64 {
        if self.obstacles.is_empty() {
            return 1.0;
        }
        let (mut left, mut whole) = (0.0, 0.0);
        for step in 0..STEPS {
            let bearing = (f64::from(step) + 0.5) * 360.0 / f64::from(STEPS);
            let weight = weight(bearing);
            if weight > 0.0 {
                left += weight * over(self.height_deg(bearing).to_radians());
                whole += weight;
            }
        }
        left / whole
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::ambient::{AngleHeight, ObstacleHeight, SizeHeight};
    use rstest::rstest;

    fn obstacle(from_deg: f64, to_deg: f64, altitude_deg: f64) -> Obstacle {
        let height = ObstacleHeight::Angle(AngleHeight { altitude_deg });
        Obstacle { name: String::new(), from_deg, to_deg, height }
    }

    fn sun(azimuth_deg: f64, altitude_deg: f64) -> Sun {
        Sun { true_altitude_deg: altitude_deg, apparent_altitude_deg: altitude_deg, azimuth_deg }
    }

    #[test]
    fn twelve_metres_thirty_away_is_nearly_twenty_two_degrees() {
        let height = ObstacleHeight::Size(SizeHeight { height_m: 12.0, distance_m: 30.0 });
        assert!((height.altitude_deg() - 21.80).abs() < 0.005);
    }

    #[rstest]
    #[case(sun(280.0, 10.0), true)]
    #[case(sun(300.0, 10.0), false)]
    #[case(sun(300.0, 20.0), true)]
    #[case(sun(355.0, 3.0), false)]
    #[case(sun(5.0, 3.0), false)]
    #[case(sun(15.0, 3.0), true)]
    #[case(sun(100.0, -0.5), true)]
    #[case(sun(100.0, -1.0), false)]
    fn the_sun_over_the_skyline(#[case] sun: Sun, #[case] shows: bool) {
        let skyline = Skyline::new(&[obstacle(290.0, 320.0, 15.0), obstacle(350.0, 10.0, 5.0)]);
        assert_eq!(skyline.shows(sun), shows);
    }

    #[test]
    fn the_sky_that_is_left() {
        let open = Skyline::default();
        assert!((open.sky_on_level() - 1.0).abs() < 1e-12 && (open.sky_on_face(40.0) - 1.0).abs() < 1e-12);
        // A yard with walls 30° high all around: cos² 30° of the sky on its floor.
        let yard = Skyline::new(&[obstacle(0.0, 360.0, 30.0)]);
        assert!((yard.sky_on_level() - 0.75).abs() < 1e-9);
        // On a face: 1 − (2α + sin 2α)/π at α = 30°.
        assert!((yard.sky_on_face(200.0) - 0.391).abs() < 0.001);
        // A wall before the face takes light, one behind it none.
        let wall = Skyline::new(&[obstacle(90.0, 270.0, 60.0)]);
        assert!(wall.sky_on_face(180.0) < 0.1 && wall.sky_on_face(0.0) > 0.99);
        assert!(Skyline::new(&[obstacle(90.0, 90.0, 60.0)]).sky_on_level() > 0.99);
    }
}
