//! Tasks for a room, one flash and one's own camera: what frames are to be taken of, and how near those that came are to it.
//!
//! All of a task's frames are of one thing that stays where it is, grey and in the middle of the frame: a cushion, a sweater
//! on a chair, a grey card. Its light is what is measured. What a task asks for is common practice, no source.

use tolva_core::exposure::Ev;
use tolva_core::frame::Measured;
use tolva_core::scale::Stops;

use super::on_set::HOW_NEAR;
use crate::shots::{AsTaken, Kept, compared};

/// A task.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Task {
    /// The room a stop under mid grey, without flash.
    EnvironmentFirst,
    /// The room, then a touch of flash at 1/16, then at 1/8.
    TouchOfFlash,
    /// The room, the flash bare, the flash with a white card.
    BareAndCard,
    /// Three frames of somebody in three sets of clothes, under one white balance.
    OneBalance,
    /// A slow shutter without flash, and the same with flash that ends the exposure.
    SlowWithFlash,
}

/// A frame of a task: what its file says, and what was measured in its middle.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct TaskFrame {
    /// What it was taken with.
    pub taken: AsTaken,
    /// What came in the middle of it.
    pub middle: Measured,
}

impl TaskFrame {
    /// How many times as much light its settings take in as another's; 1 where a file does not say.
    fn exposed_against(&self, other: &Self) -> f64 {
        let ev = |of: &AsTaken| Some(Ev::of_values(of.shutter_s?, of.f_number?, of.iso?));
        ev(&other.taken).zip(ev(&self.taken)).map_or(1.0, |(other, own)| (other - own).ratio())
    }
}

/// What is found of the frames of a task. Frames are counted from 0.
#[derive(Clone, Debug, PartialEq)]
pub enum Finding {
    /// It takes so many frames, and others came.
    Count {
        /// So many it takes.
        wanted: usize,
        /// So many came.
        came: usize,
    },
    /// Whether the flash stayed off where it was to. A flash on a radio is in no file: that one fired is measured, not read.
    Off {
        /// Which frame.
        frame: usize,
        /// Whether the file says it fired; nothing where it does not say.
        fired: Option<bool>,
    },
    /// Whether a frame was taken at the settings of the first.
    Settings {
        /// Which frame.
        frame: usize,
        /// What differs.
        differs: Vec<Kept>,
        /// What cannot be told.
        untold: Vec<Kept>,
    },
    /// The shutter, and where it was to be.
    Shutter {
        /// In seconds; nothing where the file does not say.
        came_s: Option<f64>,
        /// The fastest that is slow enough.
        fastest_s: f64,
        /// The slowest that is fast enough.
        slowest_s: f64,
    },
    /// The middle is too bright or too dark to be measured.
    Lost {
        /// Which frame.
        frame: usize,
        /// Whether it is too bright.
        bright: bool,
    },
    /// Where the middle came out, in stops from mid grey, where it was to.
    Came {
        /// Which frame.
        frame: usize,
        /// Where.
        at: Stops,
        /// Where it was to be.
        wished: Stops,
    },
    /// The flash by itself, in stops from mid grey: what the frame has more than the first one.
    Flashed {
        /// Which frame.
        frame: usize,
        /// How bright; nothing where it adds less than can be told.
        alone: Option<Stops>,
    },
    /// From one frame to the next the flash by itself grew by so much.
    Grew {
        /// By so much.
        by: Stops,
        /// By so much it was to.
        wished: Stops,
    },
    /// What a card before the flash takes, or what it gives.
    Card {
        /// How much more there is with it.
        more: Stops,
    },
    /// How far the colour of the middle strays from the first frame's, the farthest of all: red and blue over green.
    Colour {
        /// Red over green, as a part of the first frame's.
        red: f64,
        /// Blue over green.
        blue: f64,
    },
}

/// White balance wanders by less than this where nobody has touched it: so well a patch is measured. Source: frames.md.
const SAME_COLOUR: f64 = 0.03;
/// Less than this of a frame is not told as flash.
const LEAST_FLASH: f64 = 0.05;
/// A shutter is slow from here on, in seconds: movement shows.
const SLOW_S: f64 = 1.0 / 15.0;
/// And from here on it is no touch of movement any more.
const TOO_SLOW_S: f64 = 0.5;
/// How far the room is to lie under mid grey.
const ROOM: Stops = Stops(-1.0);
/// Files round their times.
const ROUNDED: f64 = 1.02;

impl Task {
    /// All, in the order they are done.
    pub const ALL: [Self; 5] =
        [Self::EnvironmentFirst, Self::TouchOfFlash, Self::BareAndCard, Self::OneBalance, Self::SlowWithFlash];

    /// Of each of its frames whether the flash is to fire; nothing where that is left to who takes it.
    pub const fn flashes(self) -> &'static [Option<bool>] {
        match self {
            Self::EnvironmentFirst => &[Some(false)],
            Self::TouchOfFlash | Self::BareAndCard => &[Some(false), Some(true), Some(true)],
            Self::OneBalance => &[None, None, None],
            Self::SlowWithFlash => &[Some(false), Some(true)],
        }
    }
}

impl Finding {
    /// Whether it is as it was asked for; nothing where nothing was asked and it is only told.
    pub fn is_good(&self) -> Option<bool> {
        match self {
            Self::Count { wanted, came } => Some(wanted == came),
            Self::Off { fired, .. } => Some(*fired != Some(true)),
            Self::Settings { differs, untold, .. } => Some(differs.is_empty() && untold.is_empty()),
            Self::Shutter { came_s, fastest_s, slowest_s } => {
                let within = (*fastest_s / ROUNDED)..=(*slowest_s * ROUNDED);
                Some(came_s.is_some_and(|came| within.contains(&came)))
            }
            Self::Came { at, wished, .. } => Some((at.0 - wished.0).abs() <= HOW_NEAR.0),
            Self::Flashed { alone: Some(_), .. } | Self::Card { .. } => None,
            Self::Flashed { alone: None, .. } | Self::Lost { .. } => Some(false),
            Self::Grew { by, wished } => Some((by.0 - wished.0).abs() <= HOW_NEAR.0),
            Self::Colour { red, blue } => Some((red - 1.0).abs() <= SAME_COLOUR && (blue - 1.0).abs() <= SAME_COLOUR),
        }
    }

    /// By how many stops it is off its wish; nothing where it has none.
    pub fn off(&self) -> Option<Stops> {
        match self {
            Self::Came { at, wished, .. } => Some(*at - *wished),
            Self::Grew { by, wished } => Some(*by - *wished),
            _ => None,
        }
    }
}

/// What is found of the frames of a task, in the order they were taken.
///
/// ```
/// use tolva_core::frame::Measured;
/// use tolva_planner::drills::{Finding, Task, TaskFrame, found};
/// use tolva_planner::shots::AsTaken;
/// let middle = Measured { mean: [0.09; 3], clipped: 0.0, varies: 0.0, pixels: 400 };
/// let taken = AsTaken { flash: Some(false), ..AsTaken::default() };
/// let all = found(Task::EnvironmentFirst, &[TaskFrame { taken, middle }]);
/// assert!(all.iter().all(|finding| finding.is_good() == Some(true)));
/// assert!(matches!(all.last(), Some(Finding::Came { at, .. }) if (at.0 + 1.0).abs() < 1e-6));
/// ```
pub fn found(task: Task, frames: &[TaskFrame]) -> Vec<Finding> {
    let flashes = task.flashes();
    if frames.len() != flashes.len() {
        return vec![Finding::Count { wanted: flashes.len(), came: frames.len() }];
    }
    let mut all = Vec::new();
    for (frame, (one, wanted)) in frames.iter().zip(flashes).enumerate() {
        if *wanted == Some(false) {
            all.push(Finding::Off { frame, fired: one.taken.flash });
        }
        if frame > 0 {
            let held = compared(0, &one.taken, &frames[0].taken, false);
            let without_flash = |all: Vec<Kept>| all.into_iter().filter(|one| *one != Kept::Flash).collect();
            let (differs, untold) = (without_flash(held.differs), without_flash(held.untold));
            all.push(Finding::Settings { frame, differs, untold });
        }
    }
    if task == Task::SlowWithFlash {
        let came_s = frames[0].taken.shutter_s;
        all.push(Finding::Shutter { came_s, fastest_s: SLOW_S, slowest_s: TOO_SLOW_S });
    }
    let lost = frames.iter().enumerate().filter_map(|(frame, one)| {
        let (bright, dark) = (one.middle.is_clipped(), one.middle.is_dark());
        (bright || dark).then_some(Finding::Lost { frame, bright })
    });
    let lost: Vec<Finding> = lost.collect();
    if lost.is_empty() {
        all.extend(measured(task, frames));
    } else {
        all.extend(lost);
    }
    all
}

/// What was measured, of frames in which all can be told.
fn measured(task: Task, frames: &[TaskFrame]) -> Vec<Finding> {
    let at = |frame: usize| frames[frame].middle.stops().unwrap_or(Stops::ZERO);
    let came = |frame: usize, wished: Stops| Finding::Came { frame, at: at(frame), wished };
    // Of one place, what a frame has more than the first one would have at its settings is the flash's.
    let alone = |frame: usize| {
        let (with, without) = (at(frame).ratio(), at(0).ratio() * frames[frame].exposed_against(&frames[0]));
        (with > without * (1.0 + LEAST_FLASH)).then(|| Stops((with - without).log2()))
    };
    match task {
        Task::EnvironmentFirst => vec![came(0, ROOM)],
        Task::TouchOfFlash | Task::BareAndCard => {
            let flashed = |frame: usize| Finding::Flashed { frame, alone: alone(frame) };
            let mut all = vec![came(0, ROOM), flashed(1), flashed(2)];
            if let (Some(first), Some(second)) = (alone(1), alone(2)) {
                let by = second - first;
                all.push(match task {
                    Task::TouchOfFlash => Finding::Grew { by, wished: Stops(1.0) },
                    _ => Finding::Card { more: by },
                });
            }
            all
        }
        Task::OneBalance => {
            let parts = |frame: usize| {
                let middle = &frames[frame].middle;
                middle.red_over_green().zip(middle.blue_over_green()).unwrap_or((1.0, 1.0))
            };
            let first = parts(0);
            let strays = (1..frames.len()).map(|frame| {
                let (red, blue) = parts(frame);
                (red / first.0, blue / first.1)
            });
            let far = |(red, blue): &(f64, f64)| (red - 1.0).abs().max((blue - 1.0).abs());
            let farthest = strays.max_by(|a, b| far(a).total_cmp(&far(b))).unwrap_or((1.0, 1.0));
            vec![Finding::Colour { red: farthest.0, blue: farthest.1 }]
        }
        Task::SlowWithFlash => {
            vec![came(0, ROOM), Finding::Flashed { frame: 1, alone: alone(1) }, came(1, Stops::ZERO)]
        }
    }
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;

    /// A frame of a task with its middle at so much light.
    fn frame(light: f64, flash: Option<bool>) -> TaskFrame {
        let taken =
            AsTaken { shutter_s: Some(1.0 / 8.0), f_number: Some(5.6), iso: Some(200.0), flash, ..AsTaken::default() };
        TaskFrame { taken, middle: Measured { mean: [light; 3], clipped: 0.0, varies: 0.0, pixels: 500 } }
    }

    fn bad(findings: &[Finding]) -> Vec<&Finding> {
        findings.iter().filter(|one| one.is_good() == Some(false)).collect()
    }

    #[test]
    fn flash_of_a_task_is_what_is_more_than_the_room() {
        // 0.09 is a stop under 0.18; the flash adds 0.06, then 0.12: a stop more, by hand.
        let frames = [frame(0.09, Some(false)), frame(0.15, Some(true)), frame(0.21, None)];
        let all = found(Task::TouchOfFlash, &frames);
        assert!(bad(&all).is_empty(), "{all:?}");
        let grew = all.iter().find_map(|one| if let Finding::Grew { by, .. } = one { Some(by.0) } else { None });
        assert!((grew.expect("both are told") - 1.0).abs() < 1e-9);
        // The same frames as bare and with a card: what the card gives is told, and nobody is wrong.
        let card = found(Task::BareAndCard, &frames);
        assert!(bad(&card).is_empty());
        assert!(card.iter().any(|one| matches!(one, Finding::Card { more } if (more.0 - 1.0).abs() < 1e-9)));
    }

    #[rstest]
    #[case::one_frame_too_few(Task::TouchOfFlash, vec![frame(0.09, Some(false))])]
    #[case::flash_where_it_was_to_be_off(Task::EnvironmentFirst, vec![frame(0.09, Some(true))])]
    #[case::too_bright_by_two_thirds(Task::EnvironmentFirst, vec![frame(0.145, Some(false))])]
    #[case::no_flash_came(Task::TouchOfFlash, vec![frame(0.09, None), frame(0.09, None), frame(0.15, None)])]
    #[case::a_third_of_a_stop_for_a_stop(Task::TouchOfFlash, vec![frame(0.09, None), frame(0.15, None), frame(0.165, None)])]
    #[case::too_dark_to_be_told(Task::EnvironmentFirst, vec![frame(0.001, None)])]
    fn what_misses_a_task_is_found(#[case] task: Task, #[case] frames: Vec<TaskFrame>) {
        assert_eq!(bad(&found(task, &frames)).len(), 1);
    }

    #[test]
    fn a_shutter_that_was_turned_is_found() {
        let mut frames = [frame(0.09, Some(false)), frame(0.18, Some(true))];
        assert!(bad(&found(Task::SlowWithFlash, &frames)).is_empty());
        frames[1].taken.shutter_s = Some(1.0 / 15.0);
        let all = found(Task::SlowWithFlash, &frames);
        assert!(matches!(bad(&all)[..], [Finding::Settings { differs, .. }] if *differs == [Kept::Shutter]), "{all:?}");
        // What the room gives in half the time is half of it: of 0.18 the flash's is 0.18 − 0.09 · 8 / 15.
        let alone = all.iter().find_map(|one| if let Finding::Flashed { alone, .. } = one { *alone } else { None });
        assert!((alone.expect("it is told").ratio() * 0.18 - (0.18 - 0.09 * 8.0 / 15.0)).abs() < 1e-6, "{alone:?}");
        // And one that is not slow.
        for one in &mut frames {
            one.taken.shutter_s = Some(1.0 / 60.0);
        }
        assert!(matches!(bad(&found(Task::SlowWithFlash, &frames))[..], [Finding::Shutter { .. }]));
    }

    #[rstest]
    #[case::kept(0.02, true)]
    #[case::wandered(0.05, false)]
    fn one_white_balance_is_told_by_the_colour_of_the_middle(#[case] redder: f64, #[case] good: bool) {
        let mut frames = [frame(0.1, None), frame(0.1, None), frame(0.1, None)];
        frames[2].middle.mean[0] *= 1.0 + redder;
        let all = found(Task::OneBalance, &frames);
        assert_eq!(all.last().and_then(Finding::is_good), Some(good), "{all:?}");
    }
}
