//! Reading the picture: the proof of a setup one or two dials of which stand wrong, and a rail beside several pictures.

use rand::Rng as _;
use rand_chacha::ChaCha8Rng;
use tolva_core::scale::Stops;

use super::scene::{Misset, PictureDial, scene};
use super::value::Value;
use super::{Asked, Drawn, Level, one_of};

const DIALS: [PictureDial; 3] = [PictureDial::Shutter, PictureDial::Power, PictureDial::Aperture];

/// What stands wrong: one dial by two stops, by one, or two dials at once.
pub(super) fn misset(level: Level, draw: &mut ChaCha8Rng) -> Option<Drawn> {
    let scene = scene(draw);
    let each = if level == Level::First { 2.0 } else { 1.0 };
    let one = |dial: PictureDial, by: f64| Misset { dial, by: Stops(by * each) };
    let ways: Vec<Vec<Misset>> = if level == Level::Third {
        // Both at once, and both the same way, is the aperture's: that is not offered beside it.
        let both = |shutter: f64, power: f64| vec![one(PictureDial::Shutter, shutter), one(PictureDial::Power, power)];
        vec![both(2.0, -1.0), both(-1.0, 2.0), both(1.0, -2.0), both(-2.0, 1.0), both(2.0, 1.0), both(1.0, 2.0)]
    } else {
        DIALS.iter().flat_map(|dial| [vec![one(*dial, -1.0)], vec![one(*dial, 1.0)]]).collect()
    };
    let right = draw.random_range(0..ways.len());
    let before = scene.comes_out(&[])?;
    let after = scene.comes_out(&ways[right])?;
    // It must show, and nothing may be so white that its size cannot be told.
    let shows = before.iter().zip(&after).any(|(a, b)| (a.0 - b.0).abs() > 0.7);
    (shows && after.iter().all(|at| at.0 < 2.6)).then_some(())?;
    let offered = (0..ways.len()).map(Value::Way).collect();
    let beside = level == Level::First || draw.random_bool(0.5);
    Drawn::new(Asked::Misset { scene, misset: ways[right].clone(), ways, beside }, Value::Way(right), offered)
}

/// Four pictures of one scene, and the rail of one of them.
pub(super) fn rail(level: Level, draw: &mut ChaCha8Rng) -> Option<Drawn> {
    let scene = scene(draw);
    let each = if level == Level::First { 2.0 } else { 1.0 };
    let mut ways: Vec<Vec<Misset>> = vec![Vec::new()];
    while ways.len() < 4 {
        let by = if draw.random_bool(0.5) { each } else { -each };
        let way = vec![Misset { dial: one_of(&DIALS, draw)?, by: Stops(by) }];
        if ways.contains(&way) || scene.comes_out(&way).is_none_or(|all| all.iter().any(|at| at.0 > 2.6)) {
            return None;
        }
        ways.push(way);
    }
    let right = draw.random_range(0..ways.len());
    // The first is no sign of being the plan itself.
    let turned = draw.random_range(0..ways.len());
    ways.rotate_left(turned);
    let all: Vec<Vec<Stops>> = ways.iter().map(|way| scene.comes_out(way)).collect::<Option<_>>()?;
    // Each is told from each by one region at least.
    let apart = |a: &[Stops], b: &[Stops]| a.iter().zip(b).map(|(a, b)| (a.0 - b.0).abs()).fold(0.0, f64::max);
    let clear = (0..4).all(|one| (0..one).all(|other| apart(&all[one], &all[other]) > 0.6));
    clear.then_some(())?;
    let offered = (0..4).map(Value::Way).collect();
    Drawn::new(Asked::WhichPicture { scene, rail: all[right].clone(), ways }, Value::Way(right), offered)
}
