//! Drills: exercises made from the rules themselves. A skill, a level and a seed give a question as quantities, what can be
//! answered, and which of those is right; the same three give the same question, everywhere.
//!
//! One law holds for all of them: the right answer is what the calculators of the core say, no other answer lies as near to
//! it, and of fifty questions in a row no two are alike.

mod colour;
mod coming_back;
mod course;
mod exposure;
mod flash;
mod metering;
mod optics;
mod picture;
mod showing;
mod value;
mod went_wrong;

pub use coming_back::{Attempt, Known, LATELY, Week, known, next_skills};
pub use course::{MOST_IN_A_ROW, in_a_row, in_turn};
pub use metering::Pointed;
pub use picture::{Misset, PictureDial, PictureScene};
pub use showing::{Before, PlateLine};
pub use value::{Ladder, MIRED_A_STOP, Value};
pub use went_wrong::{CameOff, Corrected, went_wrong};

use rand::Rng as _;
use rand::SeedableRng as _;
use rand_chacha::ChaCha8Rng;
use tolva_core::colour::{Kelvin, Mired};
use tolva_core::exposure::{CameraSettings, MeteringMethod};
use tolva_core::modifier::Bounce;
use tolva_core::optics::{HandheldRule, Movement, Sensor};
use tolva_core::scale::{Aperture, Dial, Iso, Metres, Millimetres, Power, PowerStep, Setting, Shutter, Stops};

use crate::setup::Kit;

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

/// Which dial of a camera is asked for.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub enum CameraDial {
    /// The shutter.
    Shutter,
    /// The aperture.
    Aperture,
    /// The ISO.
    Iso,
}

/// Something that is changed between two frames.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum Moved {
    /// The shutter.
    Shutter(Setting<Shutter>, Setting<Shutter>),
    /// The aperture.
    Aperture(Setting<Aperture>, Setting<Aperture>),
    /// The ISO.
    Iso(Setting<Iso>, Setting<Iso>),
    /// The power of the flash.
    Power(Power, Power),
    /// How far the flash stands from the subject.
    Distance(Metres, Metres),
    /// A filter of so many stops goes onto the lens.
    Filter(Stops),
}

/// Which light is asked about.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub enum Which {
    /// The light that is there.
    Ambient,
    /// The flash.
    Flash,
}

/// What is asked of a guide number.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub enum GuideAsks {
    /// The aperture at a distance.
    Aperture,
    /// The distance at an aperture.
    Distance,
    /// The power at both.
    Power,
}

/// A question, as quantities. What is asked for stands in it where it is right.
#[derive(Clone, Debug, PartialEq)]
pub enum Asked {
    /// From one exposure to one as bright; `find` is the dial of the second that is asked for.
    Equal {
        /// What stands.
        from: CameraSettings,
        /// What is as bright.
        to: CameraSettings,
        /// What is asked for.
        find: CameraDial,
    },
    /// By how much a light moves when something is changed.
    Moves {
        /// What is changed, one after the other.
        moved: Vec<Moved>,
        /// Which light is asked about.
        of: Which,
    },
    /// A flash straight at the subject, without anything before it.
    Guide {
        /// Its guide number in metres at ISO 100.
        guide_number_m: f64,
        /// Its power.
        power: Power,
        /// How far.
        distance: Metres,
        /// The aperture.
        aperture: Setting<Aperture>,
        /// The ISO.
        iso: Setting<Iso>,
        /// What is asked for.
        find: GuideAsks,
    },
    /// A flash is moved; by how much its light changes.
    Farther {
        /// From here.
        from: Metres,
        /// To here.
        to: Metres,
        /// Whether the second distance is asked for rather than the change.
        find_distance: bool,
    },
    /// What lights give together.
    Together {
        /// Each by itself, in stops from mid grey.
        lights: Vec<Stops>,
    },
    /// A key and a fill, each read by itself: how far the shadow side lies under the lit one.
    Ratio {
        /// The key, in stops from mid grey.
        key: Stops,
        /// The fill, which reaches both sides.
        fill: Stops,
    },
    /// What a flash adds to the light that is there, so that both come to a wish.
    Missing {
        /// The light that is there, in stops from mid grey.
        ambient: Stops,
        /// What both are to come to.
        wish: Stops,
    },
    /// A power so many stops from another.
    PowerBy {
        /// What stands.
        from: Power,
        /// What it is turned by.
        by: Stops,
    },
    /// What lies between two powers.
    PowerBetween {
        /// What stood.
        from: Power,
        /// What stands now.
        to: Power,
    },
    /// A light through a gel.
    Gelled {
        /// The light.
        light: Kelvin,
        /// The gel.
        by: Mired,
    },
    /// The shift that makes one light another.
    Shift {
        /// From this.
        from: Kelvin,
        /// To this.
        to: Kelvin,
    },
    /// Which gel of those there are brings a light nearest to another.
    WhichGel {
        /// From this.
        from: Kelvin,
        /// To this.
        to: Kelvin,
        /// Those there are, by what they shift.
        gels: Vec<Mired>,
    },
    /// The aperture at which the nearest and the farthest of a group are just sharp.
    Group {
        /// The lens.
        focal: Millimetres,
        /// The nearest.
        nearest: Metres,
        /// The farthest.
        farthest: Metres,
        /// The largest blur that counts as sharp.
        circle: Millimetres,
    },
    /// The slowest shutter by hand.
    ByHand {
        /// The lens.
        focal: Millimetres,
        /// Which rule is asked for: practitioners differ.
        school: HandheldRule,
        /// What stabilisation is good for.
        stabilisation: Stops,
        /// The sensor.
        sensor: Sensor,
    },
    /// The slowest shutter at which what moves goes no farther than so many pixels.
    Frozen {
        /// What moves.
        movement: Movement,
        /// The lens.
        focal: Millimetres,
        /// How far it is.
        distance: Metres,
        /// So many pixels.
        pixels: f64,
        /// The sensor.
        sensor: Sensor,
    },
    /// A spot meter on a surface gives an exposure; the shutter that puts the surface where it belongs.
    Spot {
        /// What it is pointed at.
        on: MeteringMethod,
        /// What it says.
        says: CameraSettings,
    },
    /// A meter turned away from a light that it read straight on.
    Turned {
        /// With a dome or a flat receptor.
        pointed: Pointed,
        /// By how many degrees.
        by_deg: f64,
        /// What it said straight on.
        straight: Setting<Aperture>,
    },
    /// A wide aperture in bright light: the filter that keeps the shutter at the sync speed.
    FilterFor {
        /// The sync speed.
        sync: Setting<Shutter>,
        /// What the light asks for at the aperture that is wanted.
        needs: Setting<Shutter>,
    },
    /// The same by high-speed sync: what the flash loses.
    HighSpeed {
        /// The sync speed.
        sync: Setting<Shutter>,
        /// The shutter.
        shutter: Setting<Shutter>,
        /// What high-speed sync takes at the sync speed already.
        fixed: Stops,
    },
    /// What bounce costs against the head aimed straight.
    Bounced {
        /// The bounce.
        bounce: Bounce,
        /// How far the subject is.
        subject: Metres,
    },
    /// When a flash is ready again.
    Ready {
        /// From empty after a full pop, in seconds.
        full_s: f64,
        /// The power.
        power: Power,
    },
    /// The most power at which a flash is ready in time.
    ReadyEvery {
        /// From empty after a full pop, in seconds.
        full_s: f64,
        /// From frame to frame, in seconds.
        every_s: f64,
    },
    /// A picture and its plate: what was turned between them.
    Plate {
        /// The picture.
        picture: PlateLine,
        /// The plate.
        plate: PlateLine,
        /// Whether the plate is to be without flash.
        without_flash: bool,
    },
    /// A pane seen from above: whether a light shows in it.
    Shows(Before),
    /// The same: where the light shows in the pane's plane.
    ShowsAt(Before),
    /// A picture of a scene: which dials stand wrong.
    Misset {
        /// The scene.
        scene: PictureScene,
        /// What stands wrong.
        misset: Vec<Misset>,
        /// What is offered.
        ways: Vec<Vec<Misset>>,
        /// Whether the picture as it was wished stands beside it.
        beside: bool,
    },
    /// Which of several pictures of a scene a rail is of.
    WhichPicture {
        /// The scene.
        scene: PictureScene,
        /// Where each region of the right one comes out.
        rail: Vec<Stops>,
        /// What stands wrong in each.
        ways: Vec<Vec<Misset>>,
    },
}

impl Asked {
    /// The pictures that belong to the question, each as what stands wrong in it.
    pub fn pictures(&self) -> Option<(PictureScene, Vec<Vec<Misset>>)> {
        match self {
            Self::Misset { scene, misset, beside: true, .. } => Some((*scene, vec![Vec::new(), misset.clone()])),
            Self::Misset { scene, misset, .. } => Some((*scene, vec![misset.clone()])),
            Self::WhichPicture { scene, ways, .. } => Some((*scene, ways.clone())),
            _ => None,
        }
    }
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

/// What drills are made for: the dials of one's own camera and flash.
#[derive(Clone, Debug)]
pub struct Own {
    shutters: Vec<Setting<Shutter>>,
    apertures: Vec<Setting<Aperture>>,
    isos: Vec<Setting<Iso>>,
    powers: Vec<Power>,
    sync: Setting<Shutter>,
    sensor: Sensor,
}

impl Own {
    /// The first camera, lens and flash of a kit; where one is missing, the starter's.
    pub fn of(kit: &Kit) -> Self {
        let starter = Kit::starter();
        let camera = kit.cameras.first().unwrap_or(&starter.cameras[0]);
        let lens = kit.lenses.first().unwrap_or(&starter.lenses[0]);
        let range =
            kit.flashes.iter().find(|flash| !flash.burns_on()).map_or(&starter.flashes[0].power, |one| &one.power);
        // What lies between the clicks, as a lens's widest aperture may, is asked of nobody.
        let on_thirds = |position: Stops| (position.0 * 3.0 - (position.0 * 3.0).round()).abs() < 1e-6;
        // A dial of halves is practised in whole stops: thirds are not on it.
        let sync = Setting::of(camera.sync_safe_s);
        let step = if range.step == PowerStep::Half || range.step == PowerStep::Whole { 1.0 } else { 3.0 };
        #[expect(clippy::cast_possible_truncation, reason = "a few dozen clicks")]
        let clicks = (-range.lowest_stops * step).round() as i32;
        Self {
            shutters: Dial::new(camera.shutter.step, camera.shutter.slowest_s, camera.shutter.fastest_s)
                .settings()
                .filter(|one| on_thirds(one.position()) && one.exact <= 2.0)
                .collect(),
            apertures: Dial::new(camera.aperture_step, lens.widest_f_number, lens.smallest_f_number)
                .settings()
                .filter(|one| on_thirds(one.position()))
                .collect(),
            isos: Dial::new(camera.iso.step, camera.iso.base_iso, camera.iso.highest_iso)
                .settings()
                .filter(|one| on_thirds(one.position()) && one.exact < 30_000.0)
                .collect(),
            powers: (0..=clicks).map(|click| Power(Stops(-f64::from(click) / step))).collect(),
            sync,
            sensor: camera.sensor,
        }
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
