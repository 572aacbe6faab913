//! The frame: what the lens sees of the set, in its own perspective, and what shines on its front glass.

use super::place::{Point, Vector, between_deg, sides};
use super::shape::cut;
use crate::optics::Sensor;
use crate::scale::Millimetres;

/// A light within so many degrees of the lens's axis may flare. Common practice, no source.
pub const FLARE_DEG: f64 = 60.0;

/// A camera that stands somewhere and looks somewhere.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct View {
    /// The lens.
    pub at: Point,
    /// The way it looks, of length 1.
    pub forward: Vector,
    /// The frame's right, of length 1.
    pub right: Vector,
    /// The frame's up, of length 1.
    pub up: Vector,
    /// Half of the frame's width at 1 m, in metres.
    pub half_width: f64,
    /// Half of its height at 1 m, in metres.
    pub half_height: f64,
}

/// Where something stands in the frame.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct InFrame {
    /// In frame widths from the middle, to the right: inside up to a half.
    pub right: f64,
    /// In frame heights from the middle, up.
    pub up: f64,
    /// How far before the lens, along its axis, in metres.
    pub depth_m: f64,
}

impl InFrame {
    /// Whether it lies inside the frame.
    pub fn inside(&self) -> bool {
        self.right.abs() <= 0.5 && self.up.abs() <= 0.5
    }
}

/// What lies nearer than this before the lens is not drawn, in metres.
const NEAREST_M: f64 = 0.02;

impl View {
    /// A camera at a place that looks at a point; `upright` turns its frame on end.
    ///
    /// ```
    /// use tolva_core::{optics::Sensor, scale::Millimetres, set::{Point, View}};
    /// let at = Point::new(0.0, -5.0, 1.6);
    /// let view = View::new(at, Point::new(0.0, 0.0, 1.6), Millimetres(50.0), Sensor::FULL_FRAME, false);
    /// // 2·atan(36/100): 39.6° (physics.md §8).
    /// assert!((2.0 * view.half_width.atan().to_degrees() - 39.6).abs() < 0.01);
    /// let edge = view.project(Point::new(1.8, 0.0, 1.6)).unwrap();
    /// assert!((edge.right - 0.5).abs() < 1e-9);
    /// ```
    pub fn new(at: Point, aim: Point, focal: Millimetres, sensor: Sensor, upright: bool) -> Self {
        let way = aim - at;
        let forward = if way.length() < 1e-9 { Vector::Y } else { way.normalize() };
        let (right, up) = sides(forward, 0.0);
        let half = |side_mm: f64| side_mm / (2.0 * focal.0);
        let (width, height) = (half(sensor.width_mm), half(sensor.height_mm));
        let (half_width, half_height) = if upright { (height, width) } else { (width, height) };
        Self { at, forward, right, up, half_width, half_height }
    }

    /// Where a point stands in the frame, or beside it; nothing where it is behind the lens.
    pub fn project(&self, point: Point) -> Option<InFrame> {
        let way = point - self.at;
        let depth_m = way.dot(self.forward);
        (depth_m > NEAREST_M).then(|| InFrame {
            right: way.dot(self.right) / depth_m / self.half_width / 2.0,
            up: way.dot(self.up) / depth_m / self.half_height / 2.0,
            depth_m,
        })
    }

    /// Whether anything of the convex shape with these corners stands in the frame.
    pub fn shows(&self, outline: &[Point]) -> bool {
        !self.within(outline).is_empty()
    }

    /// What of a convex shape stands in the frame: it is cut off at the lens and then at each edge of the frame in turn.
    pub fn within(&self, outline: &[Point]) -> Vec<Point> {
        let edges = [(1.0, 0.0), (-1.0, 0.0), (0.0, 1.0), (0.0, -1.0)];
        let mut shape = self.before_the_lens(outline);
        for (right, up) in edges {
            shape = cut(&shape, |point| {
                let way = point - self.at;
                let aside = right * way.dot(self.right) / self.half_width + up * way.dot(self.up) / self.half_height;
                way.dot(self.forward) + aside
            });
        }
        shape
    }

    /// Points whose hull is what of the hull of some others lies before the lens: those that do, and where the lines between
    /// them and the rest cross the plane of the lens.
    pub fn before_lens(&self, points: Vec<Point>) -> Vec<Point> {
        let depth = |point: &Point| (*point - self.at).dot(self.forward) - NEAREST_M * 1.001;
        let (before, behind): (Vec<Point>, Vec<Point>) = points.into_iter().partition(|point| depth(point) >= 0.0);
        let crossings = before.iter().flat_map(|near| {
            behind.iter().map(move |far| *near + (*far - *near) * (depth(near) / (depth(near) - depth(far))))
        });
        let crossings: Vec<Point> = crossings.collect();
        [before, crossings].concat()
    }

    /// What of a convex shape lies before the lens.
    fn before_the_lens(&self, outline: &[Point]) -> Vec<Point> {
        cut(outline, |point| (point - self.at).dot(self.forward) - NEAREST_M * 1.001)
    }

    /// The way from the lens through a place of the frame, in frame widths and heights from its middle.
    pub fn through(&self, [right, up]: [f64; 2]) -> Vector {
        self.forward + self.right * (2.0 * right * self.half_width) + self.up * (2.0 * up * self.half_height)
    }

    /// The angle between the lens's axis and the way to a point, in degrees.
    pub fn off_axis_deg(&self, point: Point) -> f64 {
        between_deg(self.forward, point - self.at)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;
    use rstest::rstest;

    fn view() -> View {
        let at = Point::new(0.0, -4.0, 1.5);
        View::new(at, Point::new(0.0, 0.0, 1.5), Millimetres(50.0), Sensor::FULL_FRAME, false)
    }

    #[rstest]
    #[case::in_it(&[[0.0, 0.0, 1.5]], true)]
    #[case::beside_it(&[[3.0, 0.0, 1.5]], false)]
    #[case::behind_the_lens(&[[0.0, -6.0, 1.5]], false)]
    #[case::larger_than_it(&[[-9.0, 0.0, -9.0], [9.0, 0.0, -9.0], [9.0, 0.0, 9.0], [-9.0, 0.0, 9.0]], true)]
    #[case::a_pole_through_it(&[[0.2, 0.0, 0.0], [0.2, 0.0, 4.0]], true)]
    #[case::a_pole_beside_it(&[[2.2, 0.0, 0.0], [2.2, 0.0, 4.0]], false)]
    #[case::past_the_lens_on_both_sides(&[[-0.5, -6.0, 1.5], [0.1, 2.0, 1.5], [0.1, 2.0, 1.6]], true)]
    fn what_shows(#[case] outline: &[[f64; 3]], #[case] shows: bool) {
        let outline: Vec<Point> = outline.iter().map(|at| Point::from(*at)).collect();
        assert_eq!(view().shows(&outline), shows);
    }

    /// A wall beside the camera that reaches behind it still hides its side of the frame: dropping its corners behind the
    /// lens would leave a sliver.
    #[test]
    fn what_reaches_behind_the_lens_is_cut_there() {
        let wall = [[0.5, -6.0, 0.0], [0.5, -6.0, 3.0], [0.5, 4.0, 3.0], [0.5, 4.0, 0.0]].map(Point::from);
        let cut = view().before_lens(wall.to_vec());
        assert_eq!(cut.len(), 2 + 4);
        let right: Vec<f64> = cut.iter().filter_map(|point| view().project(*point)).map(|at| at.right).collect();
        assert_eq!(right.len(), 6, "all of it is before the lens");
        assert!(right.iter().any(|right| *right < 0.5) && right.iter().any(|right| *right > 0.5), "{right:?}");
        assert_eq!(view().before_lens(vec![Point::new(0.0, -9.0, 1.0)]), Vec::new());
    }

    #[test]
    fn an_upright_frame_is_higher_than_wide() {
        let upright = View::new(Point::ZERO, Vector::Y, Millimetres(50.0), Sensor::FULL_FRAME, true);
        assert!(upright.half_height > upright.half_width);
        assert!(view().project(Point::new(0.0, -4.5, 1.5)).is_none());
        assert!((view().off_axis_deg(Point::new(4.0, 0.0, 1.5)) - 45.0).abs() < 1e-9);
        assert_eq!(
            View::new(Point::ZERO, Point::ZERO, Millimetres(50.0), Sensor::FULL_FRAME, false).forward,
            Vector::Y
        );
    }

    proptest! {
        /// A point shows where its place in the frame says so.
        #[test]
        fn a_point_shows_where_it_is_inside(x in -4.0..4.0_f64, y in -3.5..8.0_f64, z in 0.0..4.0_f64) {
            let point = Point::new(x, y, z);
            let inside = view().project(point).is_some_and(|place| place.inside());
            prop_assert_eq!(view().shows(&[point]), inside);
        }
    }
}
