//! A body's surface as triangles, and what a ray meets of it. The surface is found by naive surface nets
//! (`fast-surface-nets`), rays by a wide bounding volume hierarchy (`obvhs`).

use fast_surface_nets::ndshape::{RuntimeShape, Shape as _};
use fast_surface_nets::{SurfaceNetsBuffer, surface_nets};
use glam::Vec3A;
use obvhs::BvhBuildParams;
use obvhs::cwbvh::CwBvh;
use obvhs::cwbvh::builder::build_cwbvh_from_tris;
use obvhs::ray::{Ray, RayHit};
use obvhs::rt_triangle::RtTriangle;
use obvhs::triangle::Triangle;

use super::field::{Part, distance, looks};

/// A surface of triangles.
pub struct Mesh {
    triangles: Vec<RtTriangle>,
    /// The ways the surface looks at each corner.
    looks: Vec<[Vec3A; 3]>,
    bvh: CwBvh,
    middle: Vec3A,
    reach: f32,
}

/// A grid to find a surface on: from here, so far along each axis, in cells of this size.
#[derive(Clone, Copy, Debug)]
pub struct Cells {
    /// The corner with the least of each.
    pub least: Vec3A,
    /// The corner with the most of each.
    pub most: Vec3A,
    /// The size of a cell.
    pub size: f32,
}

/// A ball that holds all of something.
#[derive(Clone, Copy, Debug)]
pub struct Around {
    /// Its middle.
    pub middle: Vec3A,
    /// How far any of it is from there at most.
    pub reach: f32,
}

impl Mesh {
    /// The surface of a body within a grid. What leaves the grid is cut off open.
    pub fn of(parts: &[Part], cells: Cells) -> Self {
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "a few hundred")]
        let count = ((cells.most - cells.least) / cells.size).ceil().to_array().map(|count| count as u32 + 2);
        let shape = RuntimeShape::<u32, 3>::new(count);
        let at = |cell: [f32; 3]| cells.least + (Vec3A::from(cell) - 0.5) * cells.size;
        let sampled = sampled(parts, &shape, count, at, cells.size);
        let mut found = SurfaceNetsBuffer::default();
        surface_nets(&sampled, &shape, [0; 3], count.map(|count| count - 1), &mut found);
        let corners: Vec<Vec3A> = found.positions.iter().map(|cell| at(*cell)).collect();
        let ways: Vec<Vec3A> = corners.iter().map(|corner| looks(parts, *corner)).collect();
        let of = |all: &[Vec3A]| -> Vec<[Vec3A; 3]> {
            let each = |ids: &[u32]| [all[ids[0] as usize], all[ids[1] as usize], all[ids[2] as usize]];
            found.indices.chunks_exact(3).map(each).collect()
        };
        Self::new(&of(&corners), &of(&ways))
    }

    /// Of triangles with the ways the surface looks at their corners.
    pub fn new(corners: &[[Vec3A; 3]], looks: &[[Vec3A; 3]]) -> Self {
        let triangles: Vec<Triangle> = corners.iter().map(|&[v0, v1, v2]| Triangle { v0, v1, v2 }).collect();
        let bvh =
            build_cwbvh_from_tris(&triangles, BvhBuildParams::medium_build(), &mut std::time::Duration::default());
        let in_order = |index: &u32| *index as usize;
        let all = || corners.iter().flatten();
        let least = all().fold(Vec3A::INFINITY, |least, at| least.min(*at));
        let most = all().fold(Vec3A::NEG_INFINITY, |most, at| most.max(*at));
        let middle = f32::midpoint(0.0, 1.0) * (least + most);
        Self {
            triangles: bvh.primitive_indices.iter().map(|index| (&triangles[in_order(index)]).into()).collect(),
            looks: bvh.primitive_indices.iter().map(|index| looks[in_order(index)]).collect(),
            reach: all().map(|at| at.distance(middle)).fold(0.0, f32::max),
            middle,
            bvh,
        }
    }

    /// Its middle, and how far any of it is from there.
    pub fn around(&self) -> Around {
        Around { middle: self.middle, reach: self.reach }
    }

    /// How many triangles it has.
    pub fn len(&self) -> usize {
        self.triangles.len()
    }

    /// Whether it has none.
    pub fn is_empty(&self) -> bool {
        self.triangles.is_empty()
    }

    /// Where a ray meets it first, and the way the surface looks there.
    pub fn hit(&self, ray: &Ray) -> Option<(f32, Vec3A)> {
        let mut hit = RayHit::none();
        let met = self.bvh.ray_traverse(*ray, &mut hit, |ray, index| self.triangles[index].intersect(ray));
        met.then(|| {
            let index = hit.primitive_id as usize;
            let part = self.triangles[index].compute_barycentric(ray);
            let [a, b, c] = self.looks[index];
            let looks = a * (1.0 - part.x - part.y) + b * part.x + c * part.y;
            (hit.t, looks.normalize_or(Vec3A::Z))
        })
    }

    /// Whether it stops a ray.
    pub fn stops(&self, ray: &Ray) -> bool {
        !self.bvh.ray_traverse_miss(*ray, |ray, index| self.triangles[index].intersect(ray))
    }
}

/// So many cells a side are looked at together first.
const BLOCK: u32 = 6;

/// How far every point of a grid is from a body, on one thread: a figure is made when it is first looked at, which may be on
/// a thread of the pool, and must not wait for that pool. Blocks that are far from its surface are taken at their middle.
fn sampled(
    parts: &[Part],
    shape: &RuntimeShape<u32, 3>,
    count: [u32; 3],
    at: impl Fn([f32; 3]) -> Vec3A,
    size: f32,
) -> Vec<f32> {
    #[expect(clippy::cast_precision_loss, reason = "a few hundred")]
    let place = |cell: [u32; 3]| at(cell.map(|cell| cell as f32));
    let blocks = RuntimeShape::<u32, 3>::new(count.map(|count| count.div_ceil(BLOCK)));
    #[expect(clippy::cast_precision_loss, reason = "a few cells")]
    let reach = BLOCK as f32 * size * 0.87;
    let near: Vec<Result<(), f32>> = (0..blocks.size())
        .map(|block| {
            let middle = blocks.delinearize(block).map(|block| block * BLOCK + BLOCK / 2);
            let away = distance(parts, place(middle));
            // An ellipsoid's distance is a bound: twice as far is far enough.
            if away.abs() > 2.0 * reach { Err(away) } else { Ok(()) }
        })
        .collect();
    (0..shape.size())
        .map(|index| {
            let cell = shape.delinearize(index);
            let block = blocks.linearize(cell.map(|cell| cell / BLOCK));
            near[block as usize].err().unwrap_or_else(|| distance(parts, place(cell)))
        })
        .collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::proof::field::{Form, Stuff};

    fn ball() -> Mesh {
        let form = Form::Ball { centre: Vec3A::new(0.1, 0.0, 0.5), radius: 0.3 };
        let part = Part { form, stuff: Stuff::Skin, soft: 0.0, cut_out: false, tint: false };
        Mesh::of(&[part], Cells { least: Vec3A::splat(-0.4), most: Vec3A::splat(1.0), size: 0.02 })
    }

    #[test]
    fn a_ball_of_triangles_is_a_ball() {
        let ball = ball();
        assert!(ball.len() > 1000 && !ball.is_empty());
        let Around { middle, reach } = ball.around();
        assert!(middle.distance(Vec3A::new(0.1, 0.0, 0.5)) < 0.01 && (reach - 0.3).abs() < 0.01);
        for aside in [0.0_f32, 0.1, 0.2, 0.25] {
            let ray = Ray::new_inf(Vec3A::new(0.1 + aside, -2.0, 0.5), Vec3A::Y);
            let (far, looks) = ball.hit(&ray).expect("the ball");
            let expected = 2.0 - (0.09 - aside * aside).sqrt();
            assert!((far - expected).abs() < 0.004, "{far} {expected}");
            assert!((looks.x - aside / 0.3).abs() < 0.05, "{looks}");
            assert!(ball.stops(&ray));
        }
        let past = Ray::new_inf(Vec3A::new(0.45, -2.0, 0.5), Vec3A::Y);
        assert!(ball.hit(&past).is_none() && !ball.stops(&past));
    }
}
