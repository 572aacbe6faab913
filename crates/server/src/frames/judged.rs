//! A frame measured where its regions are, and held against its plan.

use tolva_core::exposure::{CameraSettings, Ev};
use tolva_core::frame::{Mark, Measured, Photo, Shape};
use tolva_core::scale::{Setting, Stops};
use tolva_format::{FrameCame, FrameMark, FrameMeasured, FrameSettings, Kit, TakenFrame};
use tolva_planner::frames::Expected;
use tolva_wording::{CameOf, MarkMeasured, frame_report};

use super::FrameError;

/// A mark of the format as the core's.
pub fn mark_of(mark: &FrameMark) -> Mark {
    let shape = if mark.round { Shape::Ellipse } else { Shape::Box };
    Mark { left: mark.left, top: mark.top, width: mark.width, height: mark.height, shape }
}

/// The dials, where all three are known.
pub fn dials(of: &FrameSettings) -> Option<CameraSettings> {
    Some(CameraSettings {
        shutter: Setting::of(of.shutter_s?),
        aperture: Setting::of(of.f_number?),
        iso: Setting::of(of.iso?),
    })
}

/// The exposure value at ISO 100 the settings are right for, by the numbers as they stand, where all three are known.
pub fn exposure_of(of: &FrameSettings) -> Option<Ev> {
    Some(Ev::of_values(of.shutter_s?, of.f_number?, of.iso?))
}

fn measured(of: Measured) -> FrameMeasured {
    let [red, green, blue] = of.mean;
    let pixels = u32::try_from(of.pixels).unwrap_or(u32::MAX);
    FrameMeasured { red, green, blue, clipped: of.clipped, varies: of.varies, pixels }
}

/// What is known of a frame's marks, for what is said of it.
pub fn marks(frame: &TakenFrame) -> Vec<MarkMeasured> {
    let of = |mark: &FrameMark| {
        let FrameMeasured { red, green, blue, clipped, varies, pixels } = mark.measured?;
        let region = frame.setup.regions.iter().position(|region| region.id == mark.region_id)?;
        let measured = Measured { mean: [red, green, blue], clipped, varies, pixels: pixels as usize };
        Some(MarkMeasured { region, measured, surface: Stops(mark.surface_stops) })
    };
    frame.marks.iter().filter_map(of).collect()
}

/// What came, with what it was taken with.
pub fn came_of<'a>(frame: &TakenFrame, marks: &'a [MarkMeasured]) -> CameOf<'a> {
    CameOf { settings: dials(&frame.settings), flash: frame.settings.flash, marks }
}

/// Measures a frame on its picture, and holds it against the setup as it stood. What lies under marks that go by the proof is
/// taken from there.
pub fn judge(
    frame: &mut TakenFrame,
    (photo, expected): (&Photo, Option<&Expected>),
    kit: &Kit,
) -> Result<(), FrameError> {
    for mark in &mut frame.marks {
        let region = frame.setup.regions.iter().position(|region| region.id == mark.region_id);
        let surface = region.and_then(|region| expected?.surface(region, mark_of(mark)));
        if let (true, Some(surface)) = (mark.by_proof, surface) {
            mark.surface_stops = (surface.0.clamp(-8.0, 4.0) * 100.0).round() / 100.0;
        }
        let found = photo.measured(mark_of(mark));
        mark.measured = (found.pixels > 0).then(|| measured(found));
    }
    let (setup, kit) = (frame.setup.clone().into(), kit.clone().into());
    let all = marks(frame);
    let report = frame_report(&setup, &kit, came_of(frame, &all))?;
    frame.came = report
        .regions
        .into_iter()
        .map(|region| FrameCame {
            region_id: region.region_id,
            name: region.name,
            planned_stops: region.planned.and_then(|said| said.stops),
            came_stops: region.came.and_then(|said| said.stops),
            off_stops: region.off.and_then(|said| said.stops),
            expected_stops: region.expected_stops,
            clipped_percent: region.clipped_percent,
        })
        .collect();
    Ok(())
}
