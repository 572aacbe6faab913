//! Drills: exercises made from the rules themselves. A skill, a level and a seed give a question as quantities, what can be
//! answered, and which of those is right; the same three give the same question, everywhere.
//!
//! One law holds for all of them: the right answer is what the calculators of the core say, no other answer lies as near to
//! it, and of fifty questions in a row no two are alike.

mod asked;
mod colour;
mod coming_back;
mod course;
mod exposure;
mod flash;
mod metering;
mod on_set;
mod optics;
mod own;
mod picture;
mod scene;
mod showing;
mod tasks;
mod things;
mod value;
mod went_wrong;

pub use asked::{Asked, CameraDial, GuideAsks, Moved, Which};
pub use coming_back::{Attempt, Known, LATELY, Week, known, monday_of, next_skills};
pub use course::{MOST_IN_A_ROW, in_a_row, in_turn};
pub use on_set::{Dials, HOW_NEAR, OnSet, OnSetFrame};
pub use own::Own;
pub use scene::{Misset, PictureDial, PictureScene};
pub use tasks::{Finding, Task, TaskFrame, found};
pub use things::{Before, PlateLine, Pointed};
pub use value::{Ladder, MIRED_A_STOP, Value};
pub use went_wrong::{CameOff, Corrected, went_wrong};

use rand::Rng as _;
use rand::SeedableRng as _;
use rand_chacha::ChaCha8Rng;
use tolva_core::scale::Stops;

/// What is practised.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum Skill {
    /// The same exposure with another dial turned.
    EqualExposures,
    /// Which dial moves the ambient, which the flash, and by how much.
    WhatMovesWhat,
    /// Guide number, distance, f-number, power.
    GuideNumbers,
    /// What twice as far takes.
    Distances,
    /// What two lights give together, and their ratio.
    Sums,
    /// Half from the ambient, half from the flash: what is missing to a wish.
    HalfAndHalf,
    /// The fractions on a flash's dial.
    Powers,
    /// Kelvin, mired and gels.
    Gels,
    /// The aperture a group asks for.
    Depth,
    /// The slowest shutter by hand, and for what moves.
    Shutters,
    /// A spot meter on skin and other surfaces.
    SkinBySpot,
    /// Where the meter is pointed.
    MeterPointing,
    /// High-speed sync against a filter.
    HighSpeedOrFilter,
    /// What a ceiling or a wall takes.
    BounceLosses,
    /// What a flash is ready for.
    Recycling,
    /// Plates at the settings of their picture.
    CleanPlates,
    /// What shows in a pane.
    Glass,
    /// Which dial stands wrong, by what the picture shows.
    ReadThePicture,
    /// Which of several pictures a rail is of.
    RailAndPicture,
}

impl Skill {
    /// All, in the order they are learnt.
    pub const ALL: [Self; 19] = [
        Self::EqualExposures,
        Self::WhatMovesWhat,
        Self::Distances,
        Self::GuideNumbers,
        Self::Powers,
        Self::Sums,
        Self::HalfAndHalf,
        Self::SkinBySpot,
        Self::MeterPointing,
        Self::Shutters,
        Self::Depth,
        Self::Gels,
        Self::HighSpeedOrFilter,
        Self::BounceLosses,
        Self::Recycling,
        Self::CleanPlates,
        Self::Glass,
        Self::ReadThePicture,
        Self::RailAndPicture,
    ];

    /// Whether it can be asked on paper: without a picture.
    pub fn is_on_paper(self) -> bool {
        !matches!(self, Self::ReadThePicture | Self::RailAndPicture)
    }
}

/// How hard a drill is: whole stops and one thing at a time, thirds, or two things at once.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum Level {
    /// Whole stops, one thing.
    #[default]
    First,
    /// Thirds, or the other way round.
    Second,
    /// Two things at once.
    Third,
}

impl Level {
    /// All, the easiest first.
    pub const ALL: [Self; 3] = [Self::First, Self::Second, Self::Third];
}

/// What can be answered, and which of it is right.
#[derive(Clone, Debug, PartialEq)]
pub struct Drill {
    /// What is practised.
    pub skill: Skill,
    /// How hard.
    pub level: Level,
    /// What it was drawn with.
    pub seed: u64,
    /// The question.
    pub asked: Asked,
    /// What is right, before it is put onto a dial.
    pub exact: Value,
    /// What can be answered, in order.
    pub offered: Vec<Value>,
    /// Which of those is right.
    pub right: usize,
}

impl Drill {
    /// By how many stops an answer is off; nothing where it is not one of those offered, or no matter of stops.
    pub fn off(&self, answer: usize) -> Option<Stops> {
        self.offered.get(answer)?.against(&self.exact)
    }

    /// The same, 0 for the right one: how far it lies from what was exact is the dial's.
    pub fn error(&self, answer: usize) -> Option<Stops> {
        let off = self.off(answer)?;
        Some(if self.is_right(answer) { Stops::ZERO } else { off })
    }

    /// Whether an answer is right.
    pub fn is_right(&self, answer: usize) -> bool {
        answer == self.right
    }

    /// By how much more than the right answer the next best is off; under 1 there would be two.
    pub fn clear(&self) -> f64 {
        let off = |at: usize| self.offered[at].away(&self.exact);
        let next = (0..self.offered.len()).filter(|at| *at != self.right).map(off).fold(f64::INFINITY, f64::min);
        next - off(self.right)
    }
}

/// How often is drawn anew where what was drawn makes no good question. Enough: most do.
const DRAWS: u32 = 500;

/// A drill of a skill. The same skill, level, seed and kit give the same one.
pub fn drill(skill: Skill, level: Level, seed: u64, own: &Own) -> Drill {
    let mut draw = ChaCha8Rng::seed_from_u64(seed ^ (skill as u64) << 48 ^ (level as u64) << 56);
    for _ in 0..DRAWS {
        let drawn = match skill {
            Skill::EqualExposures => exposure::equal(level, own, &mut draw),
            Skill::WhatMovesWhat => exposure::moves(level, own, &mut draw),
            Skill::HighSpeedOrFilter => exposure::filter_or_high_speed(level, own, &mut draw),
            Skill::GuideNumbers => flash::guide_number(level, own, &mut draw),
            Skill::Distances => flash::distance(level, &mut draw),
            Skill::Sums => flash::sum(level, &mut draw),
            Skill::HalfAndHalf => flash::half_and_half(level, &mut draw),
            Skill::Powers => flash::powers(level, own, &mut draw),
            Skill::BounceLosses => flash::bounce(level, &mut draw),
            Skill::Recycling => flash::recycling(level, own, &mut draw),
            Skill::Gels => colour::gels(level, &mut draw),
            Skill::Depth => optics::depth(level, own, &mut draw),
            Skill::Shutters => optics::shutters(level, own, &mut draw),
            Skill::SkinBySpot => metering::spot(level, own, &mut draw),
            Skill::MeterPointing => metering::pointing(level, own, &mut draw),
            Skill::CleanPlates => showing::plate(level, own, &mut draw),
            Skill::Glass => showing::glass(level, &mut draw),
            Skill::ReadThePicture => picture::misset(level, &mut draw),
            Skill::RailAndPicture => picture::rail(level, &mut draw),
        };
        if let Some(Drawn { asked, exact, offered }) = drawn
            && let Some(right) = nearest(&exact, &offered)
        {
            let drill = Drill { skill, level, seed, asked, exact, offered, right };
            if drill.is_clear() {
                return drill;
            }
        }
    }
    // Every skill has a question for every kit: a law of the tests.
    fallback(skill, level, seed)
}

/// What a generator has drawn.
struct Drawn {
    asked: Asked,
    exact: Value,
    offered: Vec<Value>,
}

impl Drawn {
    #[expect(clippy::unnecessary_wraps, reason = "generators end with it, and may have found nothing before")]
    fn new(asked: Asked, exact: Value, offered: Vec<Value>) -> Option<Self> {
        Some(Self { asked, exact, offered })
    }
}

/// The right one must be nearer by at least so much of a step: a value in the middle of two clicks has no answer.
const CLEAR: f64 = 0.3;

impl Drill {
    fn is_clear(&self) -> bool {
        let step = self.offered.windows(2).map(|two| two[0].away(&two[1])).fold(f64::INFINITY, f64::min);
        let off = self.offered[self.right].away(&self.exact);
        // Past the ends of what is offered nothing is right.
        self.offered.len() > 1 && self.clear() >= CLEAR * step.min(1.0) && off < 0.4 * step.min(1.0)
    }
}

/// Which of those offered lies nearest.
fn nearest(exact: &Value, offered: &[Value]) -> Option<usize> {
    let away = |at: &usize| offered[*at].away(exact);
    (0..offered.len()).min_by(|a, b| away(a).total_cmp(&away(b)))
}

/// A question that needs nothing of a kit.
fn fallback(skill: Skill, level: Level, seed: u64) -> Drill {
    let asked = Asked::Together { lights: vec![Stops(-1.0), Stops(-1.0)] };
    let (exact, offered) = (Value::Stops(Stops(0.0)), Ladder::Stops.values());
    let right = nearest(&exact, &offered).unwrap_or_default();
    Drill { skill, level, seed, asked, exact, offered, right }
}

/// One of a list.
fn one_of<T: Copy>(list: &[T], draw: &mut ChaCha8Rng) -> Option<T> {
    if list.is_empty() { None } else { Some(list[draw.random_range(0..list.len())]) }
}

/// So many clicks, in stops, up or down and not none: whole stops at the first level, thirds from the second on.
fn turn(level: Level, most: i32, draw: &mut ChaCha8Rng) -> Stops {
    let (clicks, each) = if level == Level::First { (most, 1.0) } else { (most * 3, 1.0 / 3.0) };
    let by = draw.random_range(1..=clicks);
    Stops(f64::from(if draw.random_bool(0.5) { by } else { -by }) * each)
}

#[cfg(test)]
mod tests;
