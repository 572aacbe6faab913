//! The layer of a glowing face: straight, with soft shadows, highlights and its own image in eyes; what walls and cards
//! give back of it; and the face itself where the lens sees it.
//!
//! What arrives without anything between is integrated over the face; only which part of the face is seen is sampled, so
//! that what nothing shades has no noise at all.

use std::f32::consts::{PI, TAU};
use std::ops::Range;

use glam::Vec3A;
use rayon::prelude::*;

use super::body::{double, single};
use super::coat::Gloss;
use super::picture::Layer;
use super::samples::Samples;
use super::scene::{Among, Scene};
use super::smooth::{Between, Guide, smoothed};
use super::spot::{Seen, Spot, SurfacePoint};
use super::work::Work;
use crate::modifier::Surface;
use crate::set::{Glow, Lustre, Mirror, Panel, Patch, Point, Receptor, Vector, Weighing};

/// How finely it is rendered.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub enum Fineness {
    /// While something moves.
    Coarse,
    /// When it rests.
    Fine,
}

/// From so many pixels on a picture is a large one.
const LARGE: usize = 1_000_000;

/// Along how many ways each pixel looks.
#[derive(Clone, Copy, Debug)]
pub(super) struct Ways {
    /// To points of a face.
    pub face: u32,
    /// To surfaces that give light on.
    pub patches: u32,
    /// Into the sky, and to points of the sun's disc.
    pub sky: u32,
    /// Only at every other pixel of every other row, where those between are on the same surface.
    pub sparse: bool,
}

impl Ways {
    /// Of a picture of so many pixels. Of a large one each looks along fewer: those that are seen as one of a screen's look
    /// along more together.
    pub fn of(fineness: Fineness, pixels: usize) -> Self {
        match fineness {
            Fineness::Coarse => Self { face: 4, patches: 3, sky: 4, sparse: false },
            Fineness::Fine if pixels < LARGE => Self { face: 24, patches: 12, sky: 16, sparse: false },
            Fineness::Fine => Self { face: 16, patches: 8, sky: 10, sparse: true },
        }
    }

    /// What changes slowly: light from everywhere, from walls.
    pub const fn slowly(self) -> Between {
        Between { sparse: self.sparse, may_differ: f32::INFINITY }
    }

    /// What has edges: shadows. What lies between two pixels that see about the same part of a face does so as well.
    pub const fn with_edges(self) -> Between {
        Between { sparse: self.sparse, may_differ: 0.3 }
    }

    fn is_coarse(self) -> bool {
        self.face <= 4
    }
}

/// A face with what it lights of walls, ceiling, floor and cards.
#[derive(Clone, Debug, PartialEq)]
pub struct Source {
    /// The face.
    pub glow: Glow,
    /// Pieces of surfaces that give light on.
    pub patches: Vec<Patch>,
    /// How much of its light falls on each of them, as a part of its intensity on the axis at 1 m: as the plan has it.
    pub lit: Vec<f64>,
    /// Plane mirrors that throw its image.
    pub mirrors: Vec<Mirror>,
}

/// A bare head is drawn as wide as its reflector, in metres. Common practice, no source.
const BARE_M: f64 = 0.12;
/// An eye mirrors this part of what falls on it straight on: water against air (Fresnel, n = 1.34).
const WET: f32 = 0.021;

/// A face in single precision, taken apart.
pub(super) struct Face {
    centre: Vec3A,
    axis: Vec3A,
    right: Vec3A,
    up: Vec3A,
    round: bool,
    exponent: f32,
    size: f32,
    bare: bool,
    area: f32,
    few: Vec<(Vec3A, f32)>,
    many: Vec<(Vec3A, f32)>,
}

#[expect(clippy::cast_possible_truncation, reason = "single precision is enough for a picture")]
impl Face {
    pub fn of(glow: &Glow) -> Self {
        let bare = glow.surface == Surface::Bare;
        let drawn = if bare { Surface::Disc { diameter: crate::scale::Metres(BARE_M) } } else { glow.surface };
        let drawn = Glow { surface: drawn, ..*glow };
        let (width, height) = drawn.size_m();
        let round = matches!(drawn.surface, Surface::Disc { .. });
        let area = width * height * if round { f64::from(PI) / 4.0 } else { 1.0 };
        let nodes = |fine: bool| -> Vec<(Vec3A, f32)> {
            glow.nodes(fine).into_iter().map(|(at, weight)| (single(at), weight as f32)).collect()
        };
        Self {
            centre: single(glow.centre),
            axis: single(glow.axis),
            right: single(glow.right) * (width / 2.0) as f32,
            up: single(glow.up) * (height / 2.0) as f32,
            round,
            exponent: glow.exponent as f32,
            size: if bare { 0.0 } else { width.max(height) as f32 },
            bare,
            area: area as f32,
            few: nodes(false),
            many: nodes(true),
        }
    }

    /// What it gives a spot if nothing stands between: the light, and the highlight, as parts of its intensity at 1 m.
    pub fn open(&self, at: Vec3A, spot: &Spot) -> (f32, f32) {
        let before = self.axis.dot(at - self.centre);
        if before <= 0.0 {
            return (0.0, 0.0);
        }
        let way = self.centre - at;
        let away = way.length();
        let reach = self.reach();
        // Where the spot's own horizon cuts through the face, and right before it, more places of it count.
        let slant = spot.normal.dot(way);
        let edge = slant.abs() < 1.5 * reach;
        if slant <= -reach {
            return (0.0, 0.0);
        }
        let close = away < 1.6 * self.size;
        let nodes = if !self.bare && (close || edge) { &self.many } else { &self.few };
        let (mut light, mut shine) = (0.0, 0.0);
        let glossy = matches!(spot.coat.gloss, Gloss::Soft { .. });
        for (from, weight) in nodes {
            let given = weight * self.gives(*from, at, spot.normal);
            light += given;
            if glossy && given > 0.0 {
                shine += given * highlight(spot, (*from - at).normalize_or(spot.normal));
            }
        }
        (light, shine)
    }

    /// A point of the face by two numbers of 0 to 1.
    fn point(&self, [a, b]: [f32; 2]) -> Vec3A {
        if self.bare {
            return self.centre;
        }
        let (x, y) = if self.round {
            let (sin, cos) = (TAU * b).sin_cos();
            (a.sqrt() * cos, a.sqrt() * sin)
        } else {
            (2.0 * a - 1.0, 2.0 * b - 1.0)
        };
        self.centre + self.right * x + self.up * y
    }

    /// How far any of it is from its middle.
    fn reach(&self) -> f32 {
        self.right.length().hypot(self.up.length())
    }

    /// What one point of the face gives a spot, but for the part of the face it stands for.
    fn gives(&self, from: Vec3A, at: Vec3A, normal: Vec3A) -> f32 {
        let towards = from - at;
        let square = towards.length_squared();
        let towards = towards / square.sqrt();
        let (cosine, out) = (normal.dot(towards), -self.axis.dot(towards));
        if cosine <= 0.0 || out <= 0.0 {
            return 0.0;
        }
        let steep = (self.exponent - 1.0).abs() > 1e-6;
        (if steep { out.powf(self.exponent) } else { out }) * cosine / square
    }

    /// Which part of the light comes past what stands between, by so many points of the face; those from which nothing
    /// comes anyway are not looked along.
    fn passes(
        &self,
        (scene, among): (&Scene, Among),
        SurfacePoint { at, normal }: SurfacePoint,
        samples: Samples,
        points: Range<u32>,
    ) -> (f32, f32) {
        let (mut seen, mut all) = (0.0, 0.0);
        for index in points {
            let from = self.point(samples.two(index, 0));
            let given = self.gives(from, at, normal);
            if given > 0.0 {
                all += given;
                seen += if scene.stops_between(among, at, from) { 0.0 } else { given };
            }
        }
        (seen, all)
    }

    /// The part of its light that arrives at a spot.
    pub fn seen_from(&self, scene: &Scene, spot: SurfacePoint, samples: Samples, ways: Ways) -> f32 {
        let among = scene.near_way(spot.at, self.centre, self.reach());
        if among.is_empty() {
            return 1.0;
        }
        let first = if self.bare { 1 } else { 4 };
        let (mut seen, mut all) = self.passes((scene, among), spot, samples, 0..first);
        // A straight edge before the face hides a part of its rim, too: where all of the rim agrees with the first points
        // there is no penumbra, however large the picture.
        let is_even = |seen: f32, all: f32| {
            let shows = |from: &Vec3A| !scene.stops_between(among, spot.at, *from);
            if seen <= 0.0 {
                !self.rim().any(|from| shows(&from))
            } else {
                seen >= all && self.rim().all(|from| shows(&from))
            }
        };
        if !self.bare && !ways.is_coarse() && !is_even(seen, all) {
            let (more, of) = self.passes((scene, among), spot, samples, first..ways.face);
            (seen, all) = (seen + more, all + of);
        }
        if all > 0.0 { seen / all } else { 1.0 }
    }

    /// Points of its edge: its corners, or six places round it.
    fn rim(&self) -> impl Iterator<Item = Vec3A> + '_ {
        const ROUND: [(f32, f32); 6] =
            [(1.0, 0.0), (0.5, 0.866), (-0.5, 0.866), (-1.0, 0.0), (-0.5, -0.866), (0.5, -0.866)];
        const CORNERS: [(f32, f32); 4] = [(1.0, 1.0), (-1.0, 1.0), (-1.0, -1.0), (1.0, -1.0)];
        let places: &'static [(f32, f32)] = if self.round { &ROUND } else { &CORNERS };
        // A little within: the very edge may lie on another surface.
        places.iter().map(|(x, y)| self.centre + (self.right * *x + self.up * *y) * 0.995)
    }

    /// How bright the face is along a way that meets it, against a matt white under an illuminance of 1; nothing where
    /// the way misses it or comes from behind.
    pub fn bright(&self, from: Vec3A, way: Vec3A, far: f32) -> Option<f32> {
        let out = -self.axis.dot(way);
        if out <= 1e-6 {
            return None;
        }
        let met = (from - self.centre).dot(self.axis) / out;
        if met <= 0.0 || met >= far {
            return None;
        }
        let off = from + way * met - self.centre;
        let (x, y) = (off.dot(self.right) / self.right.length_squared(), off.dot(self.up) / self.up.length_squared());
        let inside = if self.round { x * x + y * y <= 1.0 } else { x.abs() <= 1.0 && y.abs() <= 1.0 };
        inside.then(|| PI * out.powf(self.exponent - 1.0) / self.area)
    }

    /// Its image in a wet ball.
    fn in_the_eye(&self, scene: &Scene, spot: &Spot) -> f32 {
        let back = spot.way - spot.normal * (2.0 * spot.way.dot(spot.normal));
        let at = spot.lit_at();
        let Some(bright) = self.bright(at, back, f32::INFINITY) else { return 0.0 };
        let cosine = (-spot.way.dot(spot.normal)).clamp(0.0, 1.0);
        let mirrored = at_angle(WET, cosine);
        let far = (at - self.centre).dot(self.axis) / -self.axis.dot(back);
        if scene.stops(at, at + back * far) { 0.0 } else { bright * mirrored }
    }
}

/// What is mirrored at an angle, by its cosine, of what mirrors so much straight on. Source: Schlick 1994.
fn at_angle(straight: f32, cosine: f32) -> f32 {
    straight + (1.0 - straight) * (1.0 - cosine).powi(5)
}

/// A highlight's part of the light that comes from a side, against a matt white. Source: Blinn 1977, with the factor that
/// keeps its energy (Real-Time Rendering, 4th edition, ch. 9).
fn highlight(spot: &Spot, towards: Vec3A) -> f32 {
    let Gloss::Soft { straight, narrow } = spot.coat.gloss else { return 0.0 };
    let half = (towards - spot.way).normalize_or(spot.normal);
    let facing = half.dot(towards).clamp(0.0, 1.0);
    let mirrored = at_angle(straight, facing);
    PI * mirrored * (narrow + 8.0) / (8.0 * PI) * spot.normal.dot(half).max(0.0).powf(narrow)
}

/// Patches that are lit, to draw from by what they give.
struct Lit<'a> {
    patches: &'a [Patch],
    lux: &'a [f64],
    /// Of each patch, the part of all that it and those before it give.
    up_to: Vec<f32>,
    source: Vector,
}

impl<'a> Lit<'a> {
    fn of(source: &'a Source) -> Option<Self> {
        let lux = &source.lit;
        let weights = lux.iter().zip(&source.patches).map(|(lux, patch)| lux * patch.reflectance * patch.area_m2);
        let all: f64 = weights.clone().sum();
        if all <= 0.0 {
            return None;
        }
        let mut sum = 0.0;
        #[expect(clippy::cast_possible_truncation, reason = "a part of 1")]
        let up_to = weights
            .map(|weight| {
                sum += weight / all;
                sum as f32
            })
            .collect();
        Some(Self { patches: &source.patches, lux, up_to, source: source.glow.centre })
    }

    /// What comes back to a spot, by so many patches that are drawn.
    fn given(&self, scene: &Scene, at: Vec3A, normal: Vec3A, samples: Samples, count: u32) -> f32 {
        let receptor = Receptor { at: double(at), normal: double(normal), weighing: Weighing::Flat };
        let mut sum = 0.0;
        for index in 0..count {
            #[expect(clippy::cast_precision_loss, reason = "a dozen")]
            let drawn = (index as f32 + samples.two(index, 1)[0]) / count as f32;
            let place = self.up_to.partition_point(|up_to| *up_to < drawn).min(self.patches.len() - 1);
            let chance = f64::from(self.up_to[place] - if place == 0 { 0.0 } else { self.up_to[place - 1] });
            let patch = &self.patches[place];
            let given = self.lux[place] * patch.given(self.source, &receptor);
            // What goes on through a diffuser leaves it on its other side.
            let off = if patch.lustre == Lustre::Through { patch.normal * 0.02 } else { patch.normal * 0.01 };
            let from = single(patch.at + off);
            if given > 0.0 && chance > 0.0 && !scene.stops(at, from) {
                sum += given / chance / f64::from(count) * f64::from(scene.through(at, from));
            }
        }
        #[expect(clippy::cast_possible_truncation, reason = "a picture")]
        let sum = sum as f32;
        sum
    }
}

/// A face's image in a mirror.
struct Image {
    mirror: Mirror,
    glow: Glow,
    /// How far any of the image is from its middle.
    reach: f64,
    is_bare: bool,
}

impl Image {
    fn of(mirror: &Mirror, glow: &Glow) -> Self {
        let (width, height) = glow.size_m();
        let (image, reach) = (mirror.image(glow), width.hypot(height) / 2.0);
        Self { mirror: *mirror, glow: image, reach, is_bare: glow.surface == Surface::Bare }
    }

    /// Whether a place can see any of it: for most it is quickly told that they do not.
    fn may_show(&self, at: Vector) -> bool {
        let Panel { centre, normal, right, up } = self.mirror.panel;
        let (before, behind) = ((at - centre).dot(normal), (centre - self.glow.centre).dot(normal));
        if before <= 0.0 || behind + self.reach <= 0.0 {
            return false;
        }
        let part = before / (before + behind.max(0.0));
        let crossing = at + (self.glow.centre - at) * part;
        crossing.distance(centre) <= right.length().hypot(up.length()) + self.reach
    }

    /// Light on a surface sample by way of the mirror, with `points` shadow samples.
    fn given(&self, scene: &Scene, at: Vec3A, normal: Vec3A, samples: Samples, points: u32) -> f32 {
        let receptor = Receptor { at: double(at), normal: double(normal), weighing: Weighing::Flat };
        if !self.may_show(receptor.at) {
            return 0.0;
        }
        let shown = self.mirror.seen(&self.glow, &receptor);
        let open = self.mirror.reflectance * self.glow.ratio_within(&shown, &receptor, None);
        if open <= 0.0 {
            return 0.0;
        }
        let stops = |from: Point, to: Point| scene.stops(single(from), single(to));
        let passes = |point: Point| self.mirror.passes(receptor.at, point, &stops);
        let count = if self.is_bare { 1 } else { points.max(1) };
        let of_shape = Fan::of(&shown);
        let seen = (0..count).filter(|index| passes(of_shape.point(samples.two(*index, 0)))).count();
        #[expect(clippy::cast_precision_loss, clippy::cast_possible_truncation, reason = "a picture")]
        let given = (open * seen as f64 / f64::from(count)) as f32;
        given
    }
}

/// A convex shape as triangles, to draw points from evenly.
struct Fan<'a> {
    shape: &'a [Point],
    /// Of each triangle, the area of it and those before it.
    up_to: Vec<f64>,
}

impl<'a> Fan<'a> {
    fn of(shape: &'a [Point]) -> Self {
        let mut sum = 0.0;
        let area = |two: &[Point]| (two[0] - shape[0]).cross(two[1] - shape[0]).length();
        let up_to = shape.get(1..).unwrap_or_default().windows(2).map(|two| {
            sum += area(two);
            sum
        });
        Self { shape, up_to: up_to.collect() }
    }

    /// A point by two numbers of 0 to 1.
    fn point(&self, [a, b]: [f32; 2]) -> Point {
        let Some(all) = self.up_to.last() else { return self.shape[0] };
        let drawn = f64::from(a) * all;
        let index = self.up_to.partition_point(|up_to| *up_to < drawn).min(self.up_to.len() - 1);
        let before = if index == 0 { 0.0 } else { self.up_to[index - 1] };
        let along = ((drawn - before) / (self.up_to[index] - before).max(1e-12)).clamp(0.0, 1.0).sqrt();
        let (one, other) = (self.shape[index + 1], self.shape[index + 2]);
        let edge = one + (other - one) * f64::from(b);
        self.shape[0] + (edge - self.shape[0]) * along
    }
}

/// What a face makes of what the lens sees; nothing where it was stopped.
pub fn layer(scene: &Scene, seen: &Seen, source: &Source, fineness: Fineness, work: &Work) -> Option<Layer> {
    let face = Face::of(&source.glow);
    let lit = Lit::of(source);
    let ways = Ways::of(fineness, seen.whole.count());
    let (count, guide) = (seen.size.count(), Guide::of(seen));
    let open = |spot: &Spot| if spot.thing.is_none() { (0.0, 0.0) } else { face.open(spot.lit_at(), spot) };
    let open: Vec<(f32, f32)> = seen.spots.par_iter().map(open).collect();
    let visible = |spot: &Spot, light: f32, again: bool| {
        if light <= 0.0 {
            return 0.0;
        }
        let at = spot.lit_at();
        let samples = seen.samples(spot, again);
        face.seen_from(scene, SurfacePoint { at, normal: spot.normal }, samples, ways) * scene.through(at, face.centre)
    };
    let shade =
        ways.with_edges().worked_out(&guide, (work, true), |spot| visible(spot, open[spot.pixel as usize].0, false))?;
    let shade = smoothed(&guide, &shade, 2);
    let bounced = |lit: &Lit<'_>, spot: &Spot, again: bool| {
        lit.given(scene, spot.lit_at(), spot.normal, seen.samples(spot, again), ways.patches)
    };
    let came = match &lit {
        Some(lit) => {
            let came = ways.slowly().worked_out(&guide, (work, false), |spot| bounced(lit, spot, false))?;
            Some(smoothed(&guide, &came, 4))
        }
        None => None,
    };
    let images: Vec<Image> = source.mirrors.iter().map(|mirror| Image::of(mirror, &source.glow)).collect();
    let in_mirrors = |spot: &Spot, again: bool| -> f32 {
        let samples = seen.samples(spot, again);
        let given = |image: &Image| image.given(scene, spot.lit_at(), spot.normal, samples, ways.face);
        images.iter().map(given).sum()
    };
    let mirrored = if images.is_empty() {
        None
    } else {
        Some(smoothed(&guide, &ways.with_edges().worked_out(&guide, (work, false), |spot| in_mirrors(spot, false))?, 1))
    };
    let mut pixels = vec![[0.0_f32; 3]; count];
    let per_spot = |(index, spot): (usize, &Spot)| {
        let pixel = spot.pixel as usize;
        let (light, shine) = open[index];
        let each = [came.as_ref(), mirrored.as_ref()];
        let of_pixel = || each.into_iter().flatten().map(|came| came[pixel]).sum::<f32>();
        // A second look at a pixel that met another surface goes its own way; on the same one it finds what the first did.
        let (visible, bounced) = if index < count || guide.alike(spot) {
            (shade[pixel], of_pixel())
        } else {
            work.one_more()?;
            let bounced = |lit| bounced(lit, spot, true);
            if spot.thing.is_some() {
                (visible(spot, light, true), lit.as_ref().map_or(0.0, bounced) + in_mirrors(spot, true))
            } else {
                (0.0, 0.0)
            }
        };
        let arrives = light * visible + bounced;
        let shown = spot.coat.albedo.map(|part| part * arrives + shine * visible);
        let glows = face.bright(spot.from, spot.way, spot.far);
        let glows =
            glows.unwrap_or(0.0) + if spot.coat.gloss == Gloss::Wet { face.in_the_eye(scene, spot) } else { 0.0 };
        Some(shown.map(|part| (part + glows) * spot.factor))
    };
    let given: Vec<[f32; 3]> = seen.spots.par_iter().enumerate().map(per_spot).collect::<Option<_>>()?;
    for (spot, given) in seen.spots.iter().zip(given) {
        pixels[spot.pixel as usize].iter_mut().zip(given).for_each(|(sum, part)| *sum += part);
    }
    Some(Layer { size: seen.size, pixels })
}

/// What a flat card of grey would get at a place, as a part of the face's intensity at 1 m: to compare with the plan.
pub fn at_card(scene: &Scene, source: &Source, receptor: &Receptor) -> f64 {
    let face = Face::of(&source.glow);
    let spot = Spot::card(receptor);
    let (at, normal) = (spot.at(), spot.normal);
    let samples = Samples::of(7, true);
    let light = face.open(at, &spot).0;
    let among = scene.near_way(at, face.centre, face.reach());
    let (seen, all) =
        face.passes((scene, among), SurfacePoint { at, normal }, samples, 0..if face.bare { 1 } else { 512 });
    let visible = if all > 0.0 { seen / all } else { 0.0 };
    let bounced = Lit::of(source).map_or(0.0, |lit| lit.given(scene, at, normal, samples, 2048));
    let images = source.mirrors.iter().map(|mirror| Image::of(mirror, &source.glow));
    let mirrored: f32 = images.map(|image| image.given(scene, at, normal, samples, 512)).sum();
    f64::from(light * visible * scene.through(at, face.centre) + bounced + mirrored)
}
