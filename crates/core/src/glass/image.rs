//! What the lens sees of something in a pane: its mirrored outline within the frame and the pane, less what stands between.
//! A way may go by two panes, not by more. Polygons are clipped by `i_overlay`.

use i_overlay::core::fill_rule::FillRule;
use i_overlay::core::overlay_rule::OverlayRule;
use i_overlay::float::single::SingleFloatOverlay;

use super::fresnel::Glazing;
use crate::set::{InFrame, Panel, Point, Solid, Vector, View, area_within, between_deg, cut, hull, mirrored};

/// A pane of glass or a mirror that stands somewhere. Glass mirrors to both sides, a mirror to the one it looks to.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Pane {
    /// Where it is.
    pub panel: Panel,
    /// What it is of.
    pub glazing: Glazing,
}

impl Pane {
    /// How far a point lies before it; negative behind it.
    pub fn before(&self, point: Point) -> f64 {
        (point - self.panel.centre).dot(self.panel.normal)
    }

    /// How far from straight on a way meets it, in degrees: 0 to 90.
    pub fn incidence_deg(&self, along: Vector) -> f64 {
        let square = between_deg(along, self.panel.normal);
        square.min(180.0 - square)
    }

    /// Where a point shows in it.
    pub fn mirror(&self, point: Point) -> Point {
        point - self.panel.normal * (2.0 * self.before(point))
    }
}

/// A polygon of the frame: one outline, and what is cut out of it.
type Shape = Vec<Vec<[f64; 2]>>;

/// What the lens sees of something by way of a pane, or of two.
#[derive(Clone, Debug, PartialEq)]
pub struct Reflection {
    /// Where the middle of the image stands, in the frame or beside it; nothing where that is behind the lens.
    pub centre: Option<InFrame>,
    /// Whether the middle of the image shows.
    pub centre_shows: bool,
    /// How far from straight on the middle is seen in the first pane, in degrees.
    pub incidence_deg: f64,
    /// What the panes give back of it there.
    pub reflectance: f64,
    /// What shows: outlines in frame widths and heights from its middle, with what is cut out of them (even and odd).
    pub shapes: Vec<Shape>,
    /// The part of the face that shows, 0 to 1.
    pub share: f64,
    /// The same before anything hides it.
    pub unhidden: f64,
    /// Where on the first pane the middle is seen.
    pub spot: Point,
}

impl Reflection {
    /// Whether any of it shows.
    pub fn shows(&self) -> bool {
        self.share > LEAST
    }

    /// The part of the frame it takes up.
    pub fn of_the_frame(&self) -> f64 {
        self.shapes.iter().map(area_of).sum()
    }
}

/// Less than this part of a face is nothing: nobody sees a five-hundredth of a softbox.
const LEAST: f64 = 2e-3;

/// What is left of a shape's outline without its holes.
fn area_of(shape: &Shape) -> f64 {
    let mut all = shape.iter().map(|contour| area_within(contour));
    all.next().unwrap_or(0.0) - all.sum::<f64>()
}

/// A convex shape before the lens as the lens sees it.
fn seen(view: &View, shape: &[Point]) -> Vec<[f64; 2]> {
    shape.iter().filter_map(|point| view.project(*point)).map(|at| [at.right, at.up]).collect()
}

/// What of a convex shape is seen from a point through a convex window.
fn through(from: Point, window: &[Point], shape: &[Point]) -> Vec<Point> {
    let inwards = middle(window) - from;
    let mut left = shape.to_vec();
    for (a, b) in window.iter().zip(window.iter().cycle().skip(1)) {
        let edge = (*a - from).cross(*b - from);
        let edge = if edge.dot(inwards) < 0.0 { -edge } else { edge };
        left = cut(&left, |point| edge.dot(point - from));
    }
    left
}

/// What the lens sees of something flat by way of one pane, or of two: `way` goes from the lens. `outline` is convex; what
/// glows to one side only says which by `looks`; `hiders` stand before it, or before its image. Nothing where the lens and it
/// lie on different sides of a pane, where a mirror shows its back, or where there is no such way.
pub fn reflection(
    view: &View,
    way: &[Pane],
    outline: &[Point],
    looks: Option<Vector>,
    hiders: &[Solid],
) -> Option<Reflection> {
    let (&first, rest) = way.split_first()?;
    let (mut shape, mut windows, mut viewer) = (outline.to_vec(), vec![first.panel.corners().to_vec()], view.at);
    for (index, pane) in way.iter().enumerate() {
        let side = pane.before(viewer);
        if side.abs() < 1e-6 || (side < 0.0 && pane.glazing == Glazing::Mirror) {
            return None;
        }
        // What is mirrored lies on the side from which it is looked at.
        shape = cut(&shape, |point| pane.before(point) * side.signum());
        if let Some(next) = rest.get(index) {
            let window = cut(&next.panel.corners(), |point| pane.before(point) * side.signum());
            if window.len() < 3 {
                return None;
            }
            windows.push(window);
        }
        viewer = pane.mirror(viewer);
    }
    if shape.len() < 3 {
        return None;
    }
    // Seen from the mirrored lens it is what it is: only its glowing side.
    let whole = middle(outline);
    if looks.is_some_and(|looks| looks.dot(viewer - whole) <= 0.0) {
        return None;
    }
    let image_of = |point: Point, by: usize| way[..by].iter().rev().fold(point, |at, pane| pane.mirror(at));
    let count = way.len();
    let image: Vec<Point> = shape.iter().map(|point| image_of(*point, count)).collect();
    let centre_at = image_of(whole, count);
    let face = Flat::of(&outline.iter().map(|point| image_of(*point, count)).collect::<Vec<_>>())?;

    let mut shows = view.within(&image);
    for (index, window) in windows.iter().enumerate() {
        let window: Vec<Point> = window.iter().map(|point| image_of(*point, index)).collect();
        shows = through(view.at, &window, &shows);
    }
    let unhidden = Flat::of(&shows).map_or(0.0, |part| (part.area / face.area).clamp(0.0, 1.0));
    let mut shapes: Vec<Shape> = if shows.len() > 2 { vec![vec![seen(view, &shows)]] } else { Vec::new() };
    let outlines = if shapes.is_empty() { Vec::new() } else { hidden(view, way, hiders, (centre_at, &shows)) };
    let mut share = unhidden;
    if !outlines.is_empty() {
        let contours: Vec<Vec<[f64; 2]>> = shapes.into_iter().flatten().collect();
        shapes = contours.overlay(&outlines, OverlayRule::Difference, FillRule::NonZero);
        share = face.part(view, &shapes);
    }
    let (spot, incidence_deg, reflectance, in_windows) = by_the_way(view.at, centre_at, way);
    let centre = view.project(centre_at);
    let centre_shows =
        in_windows && centre.is_some_and(|at| at.inside() && !outlines.iter().any(|one| holds(one, [at.right, at.up])));
    Some(Reflection { centre, centre_shows, incidence_deg, reflectance, shapes, share, unhidden, spot })
}

fn middle(outline: &[Point]) -> Point {
    #[expect(clippy::cast_precision_loss, reason = "a few corners")]
    let count = outline.len().max(1) as f64;
    outline.iter().sum::<Point>() / count
}

/// Along the line from the lens to an image: where it meets the first pane, at what angle, what all give back, and whether
/// it goes through each of them.
fn by_the_way(lens: Point, image: Point, way: &[Pane]) -> (Point, f64, f64, bool) {
    let (mut from, mut along) = (lens, (image - lens).normalize_or(Vector::Y));
    let (mut first, mut angle, mut gives, mut through) = (lens, 0.0, 1.0, true);
    for (index, pane) in way.iter().enumerate() {
        let incidence = pane.incidence_deg(along);
        let t = -pane.before(from) / along.dot(pane.panel.normal);
        let spot = from + along * t;
        let off = spot - pane.panel.centre;
        through &= off.dot(pane.panel.right).abs() <= pane.panel.right.length_squared()
            && off.dot(pane.panel.up).abs() <= pane.panel.up.length_squared();
        if index == 0 {
            (first, angle) = (spot, incidence);
        }
        gives *= pane.glazing.reflectance(incidence);
        (from, along) = (spot, mirrored(along, pane.panel.normal));
    }
    (first, angle, gives, through)
}

/// The outlines of what stands before an image. The way is unfolded: its pieces lie one behind the other, each mirrored in
/// the panes before it; what stands beside a piece hides there.
fn hidden(view: &View, way: &[Pane], hiders: &[Solid], (image, shows): (Point, &[Point])) -> Vec<Vec<[f64; 2]>> {
    // What stands aside of the ways to what shows hides nothing of it.
    let towards = (middle(shows) - view.at).normalize_or(view.forward);
    let angle = |point: Point| towards.angle_between(point - view.at);
    let wide = shows.iter().map(|point| angle(*point)).fold(0.0, f64::max);
    let aside = |middle: Point, radius_m: f64| {
        let away = middle.distance(view.at);
        away > radius_m && angle(middle) > wide + (radius_m / away).asin()
    };
    let mut viewers = vec![view.at];
    for pane in way {
        viewers.push(pane.mirror(viewers[viewers.len() - 1]));
    }
    let beside = |pane: usize, at: Point| way[pane].before(viewers[pane]) * way[pane].before(at) > 0.0;
    let mut all = Vec::new();
    for hider in hiders {
        for piece in 0..=way.len() {
            let mirror = |point: Point| way[..piece].iter().rev().fold(point, |at, pane| pane.mirror(at));
            let after_a_pane = piece == 0 || beside(piece - 1, hider.middle());
            let before_its_end = if piece < way.len() {
                beside(piece, hider.middle())
            } else {
                mirror(hider.middle()).distance(view.at) < image.distance(view.at)
            };
            if !(after_a_pane && before_its_end) || aside(mirror(hider.middle()), hider.reach_m()) {
                continue;
            }
            let points = view.before_lens(hider.points().into_iter().map(mirror).collect());
            let points = points.into_iter().filter_map(|point| view.project(point));
            let outline = hull(points.map(|at| [at.right, at.up]).collect());
            if outline.len() > 2 {
                all.push(outline);
            }
        }
    }
    all
}

fn holds(outline: &[[f64; 2]], [x, y]: [f64; 2]) -> bool {
    let next = outline.iter().cycle().skip(1);
    let turns = outline.iter().zip(next).map(|(a, b)| (b[0] - a[0]) * (y - a[1]) - (b[1] - a[1]) * (x - a[0]));
    let (mut left, mut right) = (false, false);
    turns.for_each(|turn| if turn > 0.0 { left = true } else { right = true });
    !(left && right)
}

/// A flat outline in its own plane: what part of it a piece of the frame shows.
struct Flat {
    at: Point,
    normal: Vector,
    right: Vector,
    up: Vector,
    area: f64,
}

impl Flat {
    fn of(outline: &[Point]) -> Option<Self> {
        let at = middle(outline);
        let next = outline.iter().cycle().skip(1);
        let normal: Vector = outline.iter().zip(next).map(|(a, b)| (*a - at).cross(*b - at)).sum();
        let area = normal.length() / 2.0;
        let normal = normal.try_normalize()?;
        let right = normal.any_orthonormal_vector();
        Some(Self { at, normal, right, up: normal.cross(right), area })
    }

    fn part(&self, view: &View, shapes: &[Shape]) -> f64 {
        let onto = |at: &[f64; 2]| {
            let way = view.through(*at);
            let along = way.dot(self.normal);
            (along.abs() > 1e-9).then(|| {
                let off = view.at + way * ((self.at - view.at).dot(self.normal) / along) - self.at;
                [off.dot(self.right), off.dot(self.up)]
            })
        };
        let back = |shape: &Shape| -> Shape {
            shape.iter().map(|contour| contour.iter().filter_map(onto).collect::<Vec<_>>()).collect()
        };
        (shapes.iter().map(|shape| area_of(&back(shape))).sum::<f64>() / self.area).clamp(0.0, 1.0)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::optics::Sensor;
    use crate::scale::Millimetres;

    fn view() -> View {
        let at = Point::new(0.0, -3.0, 1.5);
        View::new(at, Point::new(0.0, 0.0, 1.5), Millimetres(35.0), Sensor::FULL_FRAME, false)
    }

    fn pane(x: f64, y: f64, normal: Vector, glazing: Glazing) -> Pane {
        Pane { panel: Panel::new(Point::new(x, y, 1.5), normal, 2.0, 2.0), glazing }
    }

    fn softbox(x: f64, y: f64, looks: Vector) -> (Vec<Point>, Vector) {
        (Panel::new(Point::new(x, y, 1.5), looks, 0.6, 0.6).corners().to_vec(), looks)
    }

    /// A softbox beside the lens shows in a pane straight behind the subject, as far behind it as it stands before.
    #[test]
    fn a_softbox_shows_in_a_pane() {
        let (outline, looks) = softbox(0.8, -2.0, Vector::Y);
        let one = reflection(&view(), &[pane(0.0, 2.0, -Vector::Y, Glazing::Single)], &outline, Some(looks), &[])
            .expect("a way");
        let at = one.centre.expect("before the lens");
        assert!((at.depth_m - 9.0).abs() < 1e-9 && (at.right - 0.8 / 9.0 / 36.0 * 35.0).abs() < 1e-9);
        assert!(one.centre_shows && (one.share - 1.0).abs() < 1e-6 && one.shows());
        let wide = 0.6 / 9.0 * 35.0;
        assert!((one.of_the_frame() - wide * wide / (36.0 * 24.0)).abs() < 1e-6);
    }

    #[test]
    fn what_turns_its_back_or_is_beyond_does_not_show() {
        let (outline, looks) = softbox(0.8, -2.0, -Vector::Y);
        let glass = pane(0.0, 2.0, -Vector::Y, Glazing::Single);
        assert_eq!(reflection(&view(), &[glass], &outline, Some(looks), &[]), None, "its back");
        let (beyond, looks) = softbox(0.8, 4.0, -Vector::Y);
        assert_eq!(reflection(&view(), &[glass], &beyond, Some(looks), &[]), None, "behind the glass");
        let (outline, looks) = softbox(0.8, -2.0, Vector::Y);
        let back = pane(0.0, 2.0, Vector::Y, Glazing::Mirror);
        assert_eq!(reflection(&view(), &[back], &outline, Some(looks), &[]), None, "a mirror's back");
        assert_eq!(reflection(&view(), &[], &outline, Some(looks), &[]), None);
    }

    /// Somebody before the image hides it, and so does somebody's own image; the photographer behind the light does not.
    #[test]
    fn people_hide_it() {
        let (outline, looks) = softbox(0.0, -2.5, Vector::Y);
        let way = [pane(0.0, 2.0, -Vector::Y, Glazing::Mirror)];
        let share = |solids: &[Solid]| reflection(&view(), &way, &outline, Some(looks), solids).expect("a way").share;
        let stands = |y: f64, radius_m: f64| Solid::Column { foot: Point::new(0.0, y, 0.0), radius_m, height_m: 2.2 };
        assert!((share(&[]) - 1.0).abs() < 1e-6);
        assert!(share(&[stands(0.0, 0.5)]) < 1e-6, "straight before it");
        assert!(share(&[stands(0.0, 0.05)]) < 0.9 && share(&[stands(0.0, 0.05)]) > 0.3);
        assert!((share(&[stands(-3.5, 0.5)]) - 1.0).abs() < 1e-6, "behind the lens and the light");
        // Its own image, before the light's: it stands nearer to the mirror than the light.
        let beside = Solid::Column { foot: Point::new(0.0, -2.0, 0.0), radius_m: 0.6, height_m: 2.2 };
        assert!(share(&[beside]) < 1e-6);
    }

    /// By two mirrors in a corner one sees oneself: the image stands behind the corner, in the line of the lens.
    #[test]
    fn a_corner_mirror_shows_the_lens_to_itself() {
        let left = pane(-1.0, 1.0, Vector::new(1.0, -1.0, 0.0).normalize(), Glazing::Mirror);
        let right = pane(1.0, 1.0, Vector::new(-1.0, -1.0, 0.0).normalize(), Glazing::Mirror);
        let (outline, _) = softbox(0.0, -3.0, Vector::Y);
        let twice = reflection(&view(), &[left, right], &outline, None, &[]).expect("a way");
        let at = twice.centre.expect("before the lens");
        assert!(at.right.abs() < 1e-9, "{at:?}");
        assert!((at.depth_m - 2.0 * 5.0).abs() < 1e-9, "the corner is at y = 2: {at:?}");
        assert!((twice.reflectance - 0.81).abs() < 1e-9, "two bounces");
    }
}
