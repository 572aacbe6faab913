//! What stands in a proof: figures, products, walls, each with what it gives light on like, and what a ray meets of it.

use glam::Vec3A;
use obvhs::ray::Ray;

use super::coat::{Coat, Look};
use super::figure::{EYE, EYES, Hair, body_of, head_of, seated_by};
use super::mesh::Around;
use crate::set::{Panel, Point, Solid, Vector};

/// So near its beginning a ray meets nothing: it begins on a surface. In metres.
pub(super) const OFF_M: f32 = 1e-3;

/// A ray. A way of exactly minus nothing along an axis would be taken for another octant.
pub(super) fn ray(from: Vec3A, way: Vec3A, least: f32, most: f32) -> Ray {
    Ray::new(from, way + Vec3A::ZERO, least, most)
}

/// As the proof computes with.
pub(super) fn single(point: Point) -> Vec3A {
    point.as_vec3a()
}

/// As the rest of the core computes with.
pub(super) fn double(at: Vec3A) -> Point {
    Vector::new(f64::from(at.x), f64::from(at.y), f64::from(at.z))
}

/// A person as a figure.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Figure {
    /// On the floor, under the middle of the head.
    pub foot: Vec3A,
    /// The way they look, level and of length 1.
    pub ahead: Vec3A,
    /// How tall they are, in metres; also of those who sit.
    pub height_m: f32,
    /// Whether they sit.
    pub seated: bool,
    /// How they wear their hair.
    pub hair: Hair,
    /// Their skin and clothes.
    pub look: Look,
}

/// A shape in its place.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum Shape {
    /// A person.
    Figure(Figure),
    /// A ball, a column, a box or a card: as the plan has them.
    Solid(Solid<Vec3A>),
    /// The ground, as far as one sees.
    Ground,
}

/// A panel as the proof computes with.
pub(super) fn sheet(panel: &Panel) -> Panel<Vec3A> {
    let Panel { centre, normal, right, up } = *panel;
    Panel { centre: single(centre), normal: single(normal), right: single(right), up: single(up) }
}

impl From<Panel> for Shape {
    fn from(panel: Panel) -> Self {
        Solid::Panel(panel).into()
    }
}

impl From<Solid> for Shape {
    #[expect(clippy::cast_possible_truncation, reason = "metres on a set")]
    fn from(solid: Solid) -> Self {
        Self::Solid(match solid {
            Solid::Ball { centre, radius_m } => Solid::Ball { centre: single(centre), radius_m: radius_m as f32 },
            Solid::Column { foot, radius_m, height_m } => {
                Solid::Column { foot: single(foot), radius_m: radius_m as f32, height_m: height_m as f32 }
            }
            Solid::Crate { centre, halves } => Solid::Crate { centre: single(centre), halves: halves.map(single) },
            Solid::Panel(panel) => Solid::Panel(sheet(&panel)),
        })
    }
}

/// What stands somewhere.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Thing {
    /// Its shape.
    pub shape: Shape,
    /// How it gives light on; of a figure, what its look says instead.
    pub coat: Coat,
    /// Whether light goes past it as if it were not there: what only the lens sees.
    pub casts: bool,
}

/// Where a ray meets a surface.
#[derive(Clone, Copy, Debug)]
pub(super) struct Met {
    pub far: f32,
    pub normal: Vec3A,
    pub coat: Coat,
}

/// Where a ray meets a solid from outside, or from inside, and the way that looks: outwards; of a panel, to the ray's side.
fn meets(ray: &Ray, solid: &Solid<Vec3A>) -> Option<(f32, Vec3A)> {
    let met = solid.met(ray.origin, ray.direction)?;
    let far = met.into_iter().find(|far| (ray.tmin..ray.tmax).contains(far))?;
    let out = solid.out_at(ray.origin + ray.direction * far);
    let from_behind = matches!(solid, Solid::Panel(_)) && ray.direction.dot(out) > 0.0;
    Some((far, if from_behind { -out } else { out }))
}

/// Where a ray crosses a panel.
pub(super) fn crosses(ray: &Ray, panel: &Panel) -> Option<f32> {
    sheet(panel).crossed(ray.origin, ray.direction).filter(|far| (ray.tmin..ray.tmax).contains(far))
}

impl Figure {
    fn right(&self) -> Vec3A {
        Vec3A::new(self.ahead.y, -self.ahead.x, 0.0)
    }

    /// A ray in heights of the figure, from its own foot.
    fn own(&self, ray: &Ray) -> Ray {
        let turned = |at: Vec3A| Vec3A::new(at.dot(self.right()), at.dot(self.ahead), at.z);
        let scale = 1.0 / self.height_m;
        let (least, most) = (ray.tmin * scale, ray.tmax * scale);
        super::body::ray(turned(ray.origin - self.foot) * scale, turned(ray.direction), least, most)
    }

    fn as_seen(&self, own: Vec3A) -> Vec3A {
        self.right() * own.x + self.ahead * own.y + Vec3A::Z * own.z
    }

    /// Whether a ray comes near at all.
    fn near(ray: &Ray, Around { middle, reach }: Around) -> bool {
        let off = middle - ray.origin;
        let along = off.dot(ray.direction);
        off.length_squared() - along * along < reach * reach && along > -reach && along - reach < ray.tmax
    }

    /// The middle of a ball that holds all of it, and the ball's radius: of its body and its head together.
    fn around(&self) -> Around {
        let (body, head) = (body_of(self.seated).mesh.around(), head_of(self.hair).mesh.around());
        let way = head.middle - Vec3A::Z * seated_by(self.seated) - body.middle;
        let apart = way.length();
        let radius = f32::midpoint(apart, body.reach + head.reach).max(body.reach).max(head.reach);
        let middle = body.middle + way.normalize_or_zero() * (radius - body.reach);
        Around { middle: self.foot + self.as_seen(middle) * self.height_m, reach: radius * self.height_m }
    }

    fn lowered(&self, ray: &Ray) -> Ray {
        Ray { origin: ray.origin + Vec3A::Z * seated_by(self.seated), ..*ray }
    }

    fn hit(&self, ray: &Ray) -> Option<Met> {
        let mut ray = self.own(ray);
        let mut found = None;
        let body = body_of(self.seated);
        if Self::near(&ray, body.mesh.around())
            && let Some((far, normal)) = body.mesh.hit(&ray)
        {
            ray.tmax = far;
            found = Some((far, normal, self.look.coat(body.stuff(ray.origin + ray.direction * far))));
        }
        let head = head_of(self.hair);
        let mut up = self.lowered(&ray);
        if Self::near(&up, head.mesh.around()) {
            if let Some((far, normal)) = head.mesh.hit(&up) {
                up.tmax = far;
                found = Some((far, normal, self.look.coat(head.stuff(up.origin + up.direction * far))));
            }
            for eye in EYES {
                if let Some((far, normal)) = meets(&up, &Solid::Ball { centre: eye, radius_m: EYE }) {
                    up.tmax = far;
                    found = Some((far, normal, Look::eye(normal.dot(Vec3A::Y))));
                }
            }
        }
        found.map(|(far, normal, coat)| Met { far: far * self.height_m, normal: self.as_seen(normal), coat })
    }

    fn stops(&self, ray: &Ray) -> bool {
        let ray = self.own(ray);
        let body = body_of(self.seated);
        if Self::near(&ray, body.mesh.around()) && body.mesh.stops(&ray) {
            return true;
        }
        let (head, up) = (head_of(self.hair), self.lowered(&ray));
        Self::near(&up, head.mesh.around()) && head.mesh.stops(&up)
    }
}

impl Thing {
    pub(super) fn hit(&self, ray: &Ray) -> Option<Met> {
        let coated = |(far, normal): (f32, Vec3A)| Met { far, normal, coat: self.coat };
        match self.shape {
            Shape::Figure(figure) => figure.hit(ray),
            Shape::Solid(solid) => meets(ray, &solid).map(coated),
            Shape::Ground => {
                let far = -ray.origin.z / ray.direction.z;
                let met = ray.direction.z < -1e-6 && (ray.tmin..ray.tmax).contains(&far);
                met.then(|| {
                    let coat = self.coat.worn(ray.origin + ray.direction * far);
                    Met { far, normal: Vec3A::Z, coat }
                })
            }
        }
    }

    /// Its middle and how far any of it is from there; nothing of what stops no light.
    pub(super) fn around(&self) -> Option<Around> {
        let (middle, reach) = match self.shape {
            Shape::Figure(figure) => return self.casts.then(|| figure.around()),
            Shape::Solid(solid) => (solid.middle(), solid.reach_m()),
            Shape::Ground => return None,
        };
        self.casts.then_some(Around { middle, reach })
    }

    pub(super) fn stops(&self, ray: &Ray) -> bool {
        self.casts
            && match self.shape {
                Shape::Figure(figure) => figure.stops(ray),
                // Nothing that lights stands under the ground.
                Shape::Ground => false,
                Shape::Solid(_) => self.hit(ray).is_some(),
            }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    fn matt(shape: Shape) -> Thing {
        Thing { shape, coat: Coat::matt([0.18; 3]), casts: true }
    }

    const UP: Vec3A = Vec3A::new(0.0, 0.0, 0.5);

    #[rstest]
    #[case::a_ball(Solid::Ball { centre: UP, radius_m: 0.2 }, 0.8, [0.0, -1.0, 0.0])]
    #[case::a_column(Solid::Column { foot: Vec3A::ZERO, radius_m: 0.3, height_m: 1.0 }, 0.7, [0.0, -1.0, 0.0])]
    #[case::a_box(Solid::Crate { centre: UP, halves: [Vec3A::new(0.2, 0.0, 0.0), Vec3A::new(0.0, 0.4, 0.0), Vec3A::new(0.0, 0.0, 0.1)] }, 0.6, [0.0, -1.0, 0.0])]
    #[case::a_panel(Solid::Panel(Panel { centre: UP, normal: Vec3A::Y, right: Vec3A::new(0.2, 0.0, 0.0), up: Vec3A::new(0.0, 0.0, 0.1) }), 1.0, [0.0, -1.0, 0.0])]
    fn a_ray_meets(#[case] solid: Solid<Vec3A>, #[case] far: f32, #[case] normal: [f32; 3]) {
        let shape = Shape::Solid(solid);
        let ray = super::ray(Vec3A::new(0.0, -1.0, 0.5), Vec3A::Y, 0.0, 10.0);
        let met = matt(shape).hit(&ray).expect("it");
        assert!((met.far - far).abs() < 1e-5 && met.normal.distance(Vec3A::from(normal)) < 1e-5, "{met:?}");
        assert!(matt(shape).stops(&ray));
        assert!(!Thing { casts: false, ..matt(shape) }.stops(&ray));
        let past = super::ray(Vec3A::new(0.5, -1.0, 0.5), Vec3A::Y, 0.0, 10.0);
        assert!(matt(shape).hit(&past).is_none() && !matt(shape).stops(&past));
        let short = Ray { tmax: 0.3, ..ray };
        assert!(matt(shape).hit(&short).is_none());
    }

    #[test]
    fn the_ground_is_met_from_above_and_a_column_on_its_top() {
        let down = ray(Vec3A::new(0.0, 0.0, 2.0), -Vec3A::Z, 0.0, 10.0);
        assert!(
            (matt(Shape::Ground).hit(&down).expect("it").far - 2.0).abs() < 1e-6 && !matt(Shape::Ground).stops(&down)
        );
        let column = matt(Shape::Solid(Solid::Column { foot: Vec3A::ZERO, radius_m: 0.3, height_m: 1.0 }));
        let top = column.hit(&down).expect("its top");
        assert!((top.far - 1.0).abs() < 1e-6 && top.normal == Vec3A::Z);
    }

    /// Whatever is hit lies within the ball that the thing is said to lie in: nothing of it loses its shadow.
    #[rstest]
    fn what_is_hit_lies_around_its_middle(#[values(false, true)] seated: bool, #[values(0.0, 40.0, 200.0)] turn: f32) {
        let (sin, cos) = turn.to_radians().sin_cos();
        let figure = Figure {
            foot: Vec3A::new(1.0, 2.0, 0.0),
            ahead: Vec3A::new(sin, cos, 0.0),
            height_m: 1.8,
            seated,
            hair: Hair::Long,
            look: Look::default(),
        };
        let one = matt(Shape::Figure(figure));
        let Around { middle, reach } = one.around().expect("it casts");
        assert!(reach < 1.1, "{reach}");
        let mut hits = 0;
        for step in 0_u8..120 {
            let height = f32::from(step) / 60.0;
            for round in 0_u8..12 {
                let (sin, cos) = (f32::from(round) * std::f32::consts::TAU / 12.0).sin_cos();
                for aside in [-0.45_f32, -0.25, 0.0, 0.25, 0.45] {
                    let way = Vec3A::new(-cos, -sin, 0.0);
                    let from = figure.foot - way * 4.0 + Vec3A::new(-sin, cos, 0.0) * aside + Vec3A::Z * height;
                    if let Some(met) = one.hit(&ray(from, way, 0.0, 10.0)) {
                        hits += 1;
                        let at = from + way * met.far;
                        assert!(at.distance(middle) <= reach + 1e-3, "{at} is {} off", at.distance(middle) - reach);
                    }
                }
            }
        }
        assert!(hits > 300, "{hits}");
    }

    /// The figure's eyes are where the set has them, whichever way it looks.
    #[rstest]
    #[case::at_the_camera([0.0, -1.0, 0.0])]
    #[case::aside([0.6, 0.8, 0.0])]
    fn a_figure_looks_the_way_it_is_turned(#[case] ahead: [f32; 3]) {
        let ahead = Vec3A::from(ahead);
        let figure = Figure {
            foot: Vec3A::new(1.0, 2.0, 0.0),
            ahead,
            height_m: 1.7,
            seated: false,
            hair: Hair::Short,
            look: Look::default(),
        };
        let one = matt(Shape::Figure(figure));
        let nose = Vec3A::new(1.0, 2.0, 0.917 * 1.7) + ahead * 2.0;
        let met = one.hit(&ray(nose, -ahead, 0.0, 10.0)).expect("the nose");
        assert!((2.0 - met.far - 0.0715 * 1.7).abs() < 0.01 && met.normal.dot(ahead) > 0.5, "{met:?}");
        assert!(one.stops(&ray(nose, -ahead, 0.0, 10.0)) && !one.stops(&ray(nose, ahead, 0.0, 10.0)));
        let seated = matt(Shape::Figure(Figure { seated: true, ..figure }));
        assert!(seated.hit(&ray(nose, -ahead, 0.0, 10.0)).is_none());
    }
}
