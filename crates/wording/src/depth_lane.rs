//! The depth of a picture as a lane: from the camera on, what is sharp and what is to be.

use serde::Serialize;
use tolva_core::exposure::CameraSettings;
use tolva_core::optics::depth_of_field;
use tolva_core::scale::{LengthUnit, Metres, Millimetres};
use tolva_planner::depth::{HEAD_M, Sharp};
use tolva_planner::lighting::Prepared;
use tolva_planner::setup::Depth;
use utoipa::ToSchema;

/// What is sharp, drawn from the camera on. Distances are from the sensor; close up from the lens.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct DepthLane {
    /// Where what is drawn begins; more than 0 where only the last of the way is drawn.
    pub begin_m: f64,
    /// Where it ends.
    pub end_m: f64,
    /// The nearest that is sharp.
    pub near: Distance,
    /// The farthest that is sharp; null where everything behind is.
    pub far: Option<Distance>,
    /// Where the focus lies.
    pub focus: Distance,
    /// The people or the thing in it.
    pub things: Vec<InDepth>,
    /// What is written along it.
    pub marks: Vec<Distance>,
    /// All of it in a sentence.
    pub says: String,
}

/// A distance with its label.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Distance {
    /// In metres.
    pub at_m: f64,
    /// As it is said: `3.20 m`.
    pub label: String,
}

/// Somebody or something that stands in the depth.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct InDepth {
    /// What it is: `Row 2`.
    pub name: String,
    /// From.
    pub from_m: f64,
    /// To.
    pub to_m: f64,
    /// Whether all of it is sharp.
    pub sharp: bool,
}

/// So much is drawn beyond the farthest there is.
const BEYOND: f64 = 1.2;
/// Where everything behind is sharp, so many times the distance to the focus is drawn.
const FOCUS_TIMES: f64 = 2.5;
/// About so many marks are written along a lane.
const MARKS: f64 = 6.0;

/// The lane of a setup at its settings.
pub(crate) fn lane(setup: &Prepared<'_>, settings: CameraSettings, length: LengthUnit) -> DepthLane {
    let sharp = Sharp::of(setup);
    let n = settings.aperture.exact;
    let distance = |at: f64| Distance { at_m: at, label: label(at, setup.close_up.is_some(), length) };
    let (near, far, things, begin) = if let Some(close) = setup.close_up {
        let deep = close.depth(n, setup.circle_of_confusion).0 / 1000.0;
        let thing = if let Depth::CloseUp { depth_mm, .. } = setup.setup.depth { depth_mm / 1000.0 } else { deep };
        let front = sharp.focus.0;
        let middle = front + thing / 2.0;
        let (near, far) = (middle - deep / 2.0, middle + deep / 2.0);
        let around = thing.max(deep);
        (near, Some(far), vec![("The subject".to_owned(), front, front + thing)], middle - around)
    } else {
        let found = depth_of_field(Millimetres(setup.setup.focal_length_mm), n, sharp.focus, setup.circle_of_confusion);
        (found.near.0, found.far.map(|far| far.0), things(setup), 0.0)
    };
    let focus = if setup.close_up.is_some() { f64::midpoint(near, far.unwrap_or(near)) } else { sharp.focus.0 };
    let last = things.iter().map(|(_, _, to)| *to).fold(far.unwrap_or(focus * FOCUS_TIMES), f64::max);
    // What is sharp to far behind is cut, so that the people are still seen.
    let last = last.min((focus - begin) * FOCUS_TIMES + begin);
    let end = begin + (last - begin) * BEYOND;
    let edge = 1e-6;
    let things = things.into_iter().map(|(name, from_m, to_m)| InDepth {
        name,
        from_m,
        to_m,
        sharp: from_m >= near - edge && far.is_none_or(|far| to_m <= far + edge),
    });
    let things: Vec<InDepth> = things.collect();
    let reaches = far.map_or_else(|| "the horizon".to_owned(), |far| distance(far).label);
    let out: Vec<&str> = things.iter().filter(|one| !one.sharp).map(|one| one.name.as_str()).collect();
    let out = if out.is_empty() { String::new() } else { format!("; not all sharp: {}", out.join(", ")) };
    DepthLane {
        says: format!("Sharp from {} to {reaches}, focus at {}{out}", distance(near).label, distance(focus).label),
        begin_m: begin,
        end_m: end,
        near: distance(near),
        far: far.map(distance),
        focus: distance(focus),
        things,
        marks: marks(begin, end, length).into_iter().map(distance).collect(),
    }
}

/// The people or the thing of a setup, each with its beginning and its end.
fn things(setup: &Prepared<'_>) -> Vec<(String, f64, f64)> {
    let near = setup.setup.camera_distance_m;
    match setup.setup.depth {
        Depth::Rows { rows, apart_m } => (0..rows.max(1))
            .map(|row| {
                let from = near + f64::from(row) * apart_m;
                (format!("Row {}", row + 1), from, from + HEAD_M)
            })
            .collect(),
        Depth::Deep { depth_m } => vec![("The subject".to_owned(), near, near + depth_m)],
        _ => vec![("The subject".to_owned(), near, near + HEAD_M)],
    }
}

fn label(at: f64, close: bool, length: LengthUnit) -> String {
    match length {
        LengthUnit::Metres if close => format!("{:.1} mm", at * 1000.0),
        _ => Metres(at).label(length),
    }
}

/// Round distances along the lane: so far apart that they can be read.
fn marks(begin: f64, end: f64, length: LengthUnit) -> Vec<f64> {
    let unit = if length == LengthUnit::FeetAndInches { 0.3048 } else { 1.0 };
    let rough = (end - begin) / unit / MARKS;
    let power = 10_f64.powf(rough.max(1e-6).log10().floor());
    let step = [1.0, 2.0, 5.0, 10.0].into_iter().map(|times| times * power).find(|step| *step >= rough);
    let step = step.unwrap_or(power) * unit;
    let first = (begin / step).ceil();
    (0..20).map(|index| (first + f64::from(index)) * step).take_while(|at| *at <= end).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;
    use tolva_planner::setup::{Kit, Setup};
    use tolva_planner::solver::Outcome;

    fn lane_of(change: impl Fn(&mut Setup)) -> DepthLane {
        let kit = Kit::starter();
        let mut setup = Setup::new("one", &kit);
        change(&mut setup);
        let prepared = Prepared::new(&setup, &kit).expect("it is good");
        lane(&prepared, Outcome::of(&prepared).settings, LengthUnit::Metres)
    }

    #[test]
    fn people_stand_where_they_are_said_to() {
        let lane = lane_of(|setup| {
            setup.depth = Depth::Rows { rows: 3, apart_m: 0.8 };
            setup.fixed.f_number = Some(2.8);
        });
        assert_eq!(lane.things.iter().map(|one| one.from_m).collect::<Vec<_>>(), [3.0, 3.8, 4.6]);
        assert!(!lane.things[2].sharp && lane.says.contains("not all sharp"), "{lane:?}");
        assert!(lane.begin_m == 0.0 && lane.end_m > 4.85 && (3..=8).contains(&lane.marks.len()), "{lane:?}");
    }

    /// What is near, the focus and what is far stand in this order, on the lane, and things are sharp within them.
    #[rstest]
    #[case(Depth::Free)]
    #[case(Depth::OneHead)]
    #[case(Depth::Deep { depth_m: 0.4 })]
    #[case(Depth::CloseUp { magnification: 0.5, depth_mm: 10.0, stacked: false, overlap: 0.3 })]
    fn the_lane_is_in_order(#[case] depth: Depth) {
        let lane = lane_of(|setup| setup.depth = depth);
        let far = lane.far.as_ref().map_or(f64::INFINITY, |far| far.at_m);
        assert!(lane.near.at_m <= lane.focus.at_m && lane.focus.at_m <= far, "{lane:?}");
        assert!(lane.begin_m < lane.near.at_m && lane.focus.at_m < lane.end_m, "{lane:?}");
        for thing in &lane.things {
            assert_eq!(thing.sharp, thing.from_m >= lane.near.at_m - 1e-6 && thing.to_m <= far + 1e-6);
        }
    }
}
