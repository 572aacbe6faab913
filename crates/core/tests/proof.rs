//! The proof against what is known of light: Lambert's floor, a closed room, a penumbra, the sun's shadow.

use rstest::rstest;
use tolva_core::modifier::Surface;
use tolva_core::optics::Sensor;
use tolva_core::proof::{
    Beyond, Coat, Figure, Fineness, Hair, Look, Place, Scene, Shape, Size, Source, There, Thing, Vec3A, Work, at_card,
    layer, layers,
};
use tolva_core::scale::{Metres, Millimetres};
use tolva_core::set::{
    Direction, Glow, Lustre, Panel, Patch, Point, Receptor, Solid, Vector, View, Weighing, shadow_length_m,
};

const SIZE: Size = Size { width: 96, height: 64 };

fn matt(shape: impl Into<Shape>, albedo: f32) -> Thing {
    Thing { shape: shape.into(), coat: Coat::matt([albedo; 3]), casts: true }
}

/// A floor seen from above.
fn floor(more: Vec<Thing>) -> Scene {
    let view = View::new(Point::new(0.0, -2.0, 3.0), Point::ZERO, Millimetres(55.0), Sensor::FULL_FRAME, false);
    let sheet = Panel::new(Point::ZERO, Vector::Z, 60.0, 60.0);
    Scene { view, things: [vec![matt(sheet, 0.4)], more].concat(), panes: Vec::new() }
}

fn down(x: f64, height: f64, surface: Surface) -> Source {
    Source {
        glow: Glow::new(Point::new(x, 0.0, height), -Vector::Z, 0.0, surface, 1.0),
        patches: Vec::new(),
        lit: Vec::new(),
        mirrors: Vec::new(),
    }
}

const SOFT: Surface = Surface::Rectangle { width: Metres(0.8), height: Metres(0.5) };

/// Every pixel against the integral over the face that the plan goes by (reach.csv is its check), within a hundredth.
#[rstest]
#[case::near(SOFT, 0.5)]
#[case::far(SOFT, 2.5)]
#[case::round(Surface::Disc { diameter: Metres(0.9) }, 1.2)]
#[case::bare(Surface::Bare, 1.0)]
fn a_matt_floor_under_a_light(#[case] surface: Surface, #[case] height: f64) {
    let scene = floor(Vec::new());
    let seen = scene.seen(SIZE);
    let source = down(0.3, height, surface);
    let lit = layer(&scene, &seen, &source, Fineness::Fine, &Work::default()).expect("nobody stops it");
    let mut compared = 0;
    for (spot, pixel) in seen.spots.iter().zip(&lit.pixels).filter(|(spot, _)| spot.thing == Some(0)) {
        let at = spot.at();
        let at = Point::new(f64::from(at.x), f64::from(at.y), f64::from(at.z));
        let receptor = Receptor { at, normal: Vector::Z, weighing: Weighing::Flat };
        let known = source.glow.ratio(&receptor, &[]);
        let found = f64::from(pixel[0]) / 0.4;
        // Where the lens sees the glowing face itself there is no floor.
        if found < 4.0 * known {
            assert!((found / known - 1.0).abs() < 0.01, "{found} for {known} at {at}");
            compared += 1;
        }
    }
    assert!(compared > SIZE.count() * 2 / 3, "only {compared} pixels were compared");
}

/// A closed room that is lit evenly: what comes back once is ρ times the direct light (the integrating sphere).
#[rstest]
#[case(0.3)]
#[case(0.7)]
fn a_closed_room_gives_back_its_reflectance(#[case] reflectance: f64) {
    let radius = 3.0;
    let rings = 64_u32;
    // A sphere of patches that look inwards, evenly spread: the golden spiral.
    let count = rings * rings;
    let patches: Vec<Patch> = (0..count)
        .map(|index| {
            let z = 1.0 - 2.0 * (f64::from(index) + 0.5) / f64::from(count);
            let turn = f64::from(index) * 2.399_963_229_728_653;
            let flat = (1.0 - z * z).sqrt();
            let out = Vector::new(flat * turn.cos(), flat * turn.sin(), z);
            let area_m2 = 4.0 * std::f64::consts::PI * radius * radius / f64::from(count);
            Patch { at: out * radius, normal: -out, area_m2, reflectance, lustre: Lustre::Matt, of: 0 }
        })
        .collect();
    let scene = Scene { things: Vec::new(), ..floor(Vec::new()) };
    // Two half spheres of even light are one whole.
    let bounced: f64 = [Vector::Z, -Vector::Z]
        .into_iter()
        .map(|way| {
            let glow = Glow::new(Point::ZERO, way, 0.0, Surface::Bare, 0.0);
            let receptor = Receptor { at: Vector::X * 1.5, normal: Vector::X, weighing: Weighing::Flat };
            let direct =
                at_card(&scene, &Source { glow, patches: Vec::new(), lit: Vec::new(), mirrors: Vec::new() }, &receptor);
            let lit = patches.iter().map(|patch| glow.rough_ratio(&patch.receptor())).collect();
            at_card(&scene, &Source { glow, patches: patches.clone(), lit, mirrors: Vec::new() }, &receptor) - direct
        })
        .sum();
    let direct_on_the_wall = 1.0 / (radius * radius);
    let back = bounced / direct_on_the_wall;
    assert!((back / reflectance - 1.0).abs() < 0.02, "{back} for {reflectance}");
}

/// A straight edge half way up before a square light: the penumbra is as wide as the light, and a straight ramp.
#[test]
fn a_penumbra_is_a_straight_ramp() {
    let (height, width) = (2.0, 0.4);
    let square = Surface::Rectangle { width: Metres(width), height: Metres(width) };
    let source = down(0.0, height, square);
    let edge = Panel::new(Point::new(-5.0, 0.0, height / 2.0), Vector::Z, 10.0, 10.0);
    let (open, half) = (floor(Vec::new()), floor(vec![matt(edge, 0.1)]));
    for step in -6..=6 {
        let x = f64::from(step) * 0.05;
        let receptor = Receptor { at: Point::new(x, 0.0, 0.0005), normal: Vector::Z, weighing: Weighing::Flat };
        let part = at_card(&half, &source, &receptor) / at_card(&open, &source, &receptor);
        // By similar triangles: from −0.2 to 0.2 m.
        let known = (x / width + 0.5).clamp(0.0, 1.0);
        assert!((part - known).abs() < 0.02, "{part} for {known} at {x}");
    }
}

fn under_the_sun(to_sun: Vec3A) -> There {
    let receptor = Receptor { at: Point::new(-8.0, -8.0, 0.0), normal: Vector::Z, weighing: Weighing::Flat };
    There {
        sun: Some((to_sun, 8.0)),
        windows: Vec::new(),
        places: vec![Place { receptor, things: vec![0] }],
        behind: 0,
        main: (0, None),
        depth_m: 50.0,
        beyond: Beyond::Open,
    }
}

/// The shadow of something 1.8 m high, within a pixel of height/tan(altitude).
#[rstest]
fn the_suns_shadow_is_as_long_as_the_tangent_says(
    #[values(8.0, 12.0, 16.0, 20.0, 26.0, 33.0, 41.0, 50.0, 60.0, 70.0)] altitude: f64,
) {
    let long = shadow_length_m(1.8, altitude).expect("it is up");
    let view = View::new(
        Point::new(long / 2.0, -0.01, 40.0),
        Point::new(long / 2.0, 0.0, 0.0),
        Millimetres(60.0),
        Sensor::FULL_FRAME,
        false,
    );
    // As wide as a person, and flat on top.
    let halves = [Vec3A::X * 0.2, Vec3A::Y * 0.4, Vec3A::Z * 0.9];
    let pole = Shape::Solid(Solid::Crate { centre: Vec3A::Z * 0.9, halves });
    let sheet = Panel::new(Point::ZERO, Vector::Z, 90.0, 90.0);
    let scene = Scene { view, things: vec![matt(sheet, 0.4), matt(pole, 0.1)], panes: Vec::new() };
    let to_sun = Direction::new(270.0, altitude).vector();
    let size = Size { width: 300, height: 200 };
    let there = under_the_sun(to_sun.as_vec3a());
    let seen = scene.seen(size);
    let lit = &there.layers(&scene, &seen, Fineness::Fine, &Work::default()).expect("nobody stops it")[0];
    // Along the line of the shadow, from its foot: the last pixel that has less than half of the sun.
    let on_line =
        |spot: &tolva_core::proof::Spot| spot.thing == Some(0) && spot.at().y.abs() < 0.07 && spot.at().x > 0.3;
    let line = || seen.spots[..size.count()].iter().zip(&lit.pixels).filter(|(spot, _)| on_line(spot));
    // Near the pole the sky is hidden too.
    let far = || line().filter(|(spot, _)| f64::from(spot.at().x) > 0.6 * long);
    let (least, most) =
        far().fold((f32::MAX, 0.0_f32), |ends, (_, pixel)| (ends.0.min(pixel[0]), ends.1.max(pixel[0])));
    let half = f32::midpoint(least, most);
    let wide = 36.0 / 60.0 * 40.0 / f64::from(size.width);
    let dark = line().filter(|(_, pixel)| pixel[0] < half);
    let end = dark.map(|(spot, _)| f64::from(spot.at().x)).fold(0.0, f64::max) + wide / 2.0;
    // The sun comes over the far rim of the top.
    let known = long + 0.2;
    assert!((end - known).abs() <= wide + 0.01, "{end} for {known}, a pixel is {wide}");
}

fn portrait(hair: Hair) -> Scene {
    let view =
        View::new(Point::new(0.0, -1.2, 1.6), Point::new(0.0, 0.0, 1.6), Millimetres(135.0), Sensor::FULL_FRAME, false);
    let figure = Figure {
        foot: Vec3A::new(0.0, 0.11, 0.0),
        ahead: -Vec3A::Y,
        height_m: 1.7,
        seated: false,
        hair,
        look: Look::default(),
    };
    Scene { view, things: vec![matt(Shape::Figure(figure), 0.0)], panes: Vec::new() }
}

fn key(from: Point) -> Source {
    let octagon = Surface::Disc { diameter: Metres(0.6) };
    let axis = (Point::new(0.0, 0.0, 1.6) - from).normalize();
    Source { glow: Glow::new(from, axis, 0.0, octagon, 1.0), patches: Vec::new(), lit: Vec::new(), mirrors: Vec::new() }
}

/// An eye has the modifier in it where that stands before the face, and not where it stands behind.
#[test]
fn a_catchlight_is_the_modifiers_own_image() {
    let scene = portrait(Hair::Short);
    let size = Size { width: 240, height: 160 };
    let seen = scene.seen(size);
    let wet = |spot: &&tolva_core::proof::Spot| spot.coat.gloss == tolva_core::proof::Gloss::Wet;
    let eyes: Vec<u32> = seen.spots.iter().filter(wet).map(|spot| spot.pixel).collect();
    assert!(eyes.len() > 30, "{}", eyes.len());
    let brightest = |source: &Source| {
        let lit = layer(&scene, &seen, source, Fineness::Fine, &Work::default()).expect("nobody stops it");
        eyes.iter().map(|pixel| lit.pixels[*pixel as usize][1]).fold(0.0, f32::max)
    };
    let (before, behind) =
        (brightest(&key(Point::new(-0.25, -1.0, 1.75))), brightest(&key(Point::new(-0.6, 1.5, 2.0))));
    assert!(before > 0.2 && behind < 0.02, "{before} {behind}");
}

/// The nose throws a shadow to the side away from the light.
#[test]
fn a_nose_throws_a_shadow() {
    let scene = portrait(Hair::Knot);
    let seen = scene.seen(Size { width: 240, height: 160 });
    let lit = layer(&scene, &seen, &key(Point::new(-0.9, -0.5, 1.9)), Fineness::Fine, &Work::default()).expect("it");
    let at = |x: f64, z: f64| {
        let place = scene.view.project(Point::new(x, 0.02, z)).expect("in the frame");
        #[expect(clippy::cast_possible_truncation, reason = "a place")]
        lit.around([(place.right + 0.5) as f32, (0.5 - place.up) as f32])[1]
    };
    let (towards, away) = (at(-0.03, 1.56), at(0.024, 1.56));
    assert!(towards > 3.0 * away, "{towards} {away}");
}

/// The same bit for bit, again and on another number of threads.
#[test]
fn the_same_set_gives_the_same_picture() {
    let scene = portrait(Hair::Long);
    let rendered = || {
        let seen = scene.seen(SIZE);
        let light = layer(&scene, &seen, &key(Point::new(-0.8, -0.6, 2.0)), Fineness::Fine, &Work::default());
        let there = under_the_sun(Vec3A::new(-0.6, -0.6, 0.5).normalize());
        (light.expect("it"), there.layers(&scene, &seen, Fineness::Fine, &Work::default()).expect("them"))
    };
    let first = rendered();
    assert_eq!(first, rendered());
    let alone = rayon::ThreadPoolBuilder::new().num_threads(1).build().expect("a thread");
    assert_eq!(first, alone.install(rendered));
    let stopped = Work::default();
    stopped.stop();
    assert!(layer(&scene, &scene.seen(SIZE), &key(Point::Z), Fineness::Fine, &stopped).is_none());
}

/// A picture that is rendered in bands is the same as rendered at once, bit for bit: shadows, sky and edges across the seams,
/// where each pixel is looked at and where every other is.
#[rstest]
#[case::every_pixel(1000, 900, Fineness::Coarse)]
#[case::every_other(1300, 800, Fineness::Fine)]
fn bands_have_no_seams(#[case] width: u32, #[case] height: u32, #[case] fineness: Fineness) {
    let (size, work) = (Size { width, height }, Work::default());
    assert!(size.bands().len() > 1);
    let scene = portrait(Hair::Long);
    let (light, there) = (key(Point::new(-0.8, -0.6, 2.0)), under_the_sun(Vec3A::new(-0.6, -0.6, 0.5).normalize()));
    let seen = scene.seen(size);
    let at_once = (
        layer(&scene, &seen, &light, fineness, &work).expect("it"),
        there.layers(&scene, &seen, fineness, &work).expect("them"),
    );
    let (lights, places) = layers(&scene, size, (&[&light], Some(&there)), fineness, &work).expect("them");
    assert!(lights[0] == at_once.0 && places == at_once.1, "a seam shows");
    let sky = |thing: Option<u32>| thing.is_none();
    assert_eq!(scene.parts(size, sky), seen.parts(sky));
}
