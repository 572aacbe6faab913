//! Checking camera, lens, depth, speed and pace.

use std::collections::HashSet;

use super::{FOCAL_MM, found};
use crate::kit::{Camera, Kit};
use crate::leaf::{Circle, Movement};
use crate::problems::Checker;
use crate::setup::{Depth, Setup, Sync};
use tolva_core::scale::parsing::range;

/// The filters on the lens.
pub(super) fn filters(c: &mut Checker, setup: &Setup, kit: &Kit) {
    if setup.filter_ids.len() > 3 {
        c.wrong("filter_ids", format!("{} filters are too many: at most 3", setup.filter_ids.len()));
    }
    c.each("filter_ids", &setup.filter_ids, |c, id| {
        found(c, "", id, &kit.filters, |filter| &filter.id);
    });
}

/// Camera, depth, speed and pace.
pub(super) fn optics(c: &mut Checker, setup: &Setup) {
    c.within("fixed", |c| {
        for (field, value, allowed, unit) in [
            ("shutter_s", setup.fixed.shutter_s, &range::SHUTTER_S, "s"),
            ("f_number", setup.fixed.f_number, &range::F_NUMBER, ""),
            ("iso", setup.fixed.iso, &range::ISO, ""),
        ] {
            if let Some(value) = value {
                c.number(field, value, allowed, unit);
            }
        }
    });
    c.number("camera_distance_m", setup.camera_distance_m, &(0.05..=200.0), "m");
    c.within("depth", |c| match setup.depth {
        Depth::Free | Depth::OneHead => {}
        Depth::Rows { rows, apart_m } => c.within("rows", |c| {
            c.number("rows", f64::from(rows), &(1.0..=20.0), "rows");
            c.number("apart_m", apart_m, &(0.1..=5.0), "m");
        }),
        Depth::Deep { depth_m } => c.within("deep", |c| c.number("depth_m", depth_m, &(0.001..=100.0), "m")),
        Depth::CloseUp { magnification, depth_mm, overlap, .. } => c.within("close_up", |c| {
            c.number("magnification", magnification, &(0.05..=10.0), "");
            c.number("depth_mm", depth_mm, &(0.01..=200.0), "mm");
            c.number("overlap", overlap, &(0.0..=0.9), "");
        }),
    });
    if let Circle::Print { long_side_cm } = setup.circle {
        c.within("circle", |c| {
            c.within("print", |c| c.number("long_side_cm", long_side_cm, &(5.0..=500.0), "cm"));
        });
    }
    c.within("speed", |c| {
        if let Some(slowest) = setup.speed.slowest_shutter_s {
            c.number("slowest_shutter_s", slowest, &range::SHUTTER_S, "s");
        }
        if let Movement::Speed { metres_per_s } = setup.speed.movement {
            c.within("movement", |c| {
                c.within("speed", |c| c.number("metres_per_s", metres_per_s, &(0.0..=100.0), "m/s"));
            });
        }
        c.number("blur_px", setup.speed.blur_px, &(0.5..=100.0), "pixels");
    });
    if let Some(pace) = setup.pace {
        c.within("pace", |c| {
            c.number("every_s", pace.every_s, &(0.1..=3600.0), "s");
            c.number("burst_frames", f64::from(pace.burst_frames), &(1.0..=1000.0), "frames");
            c.number("frames", f64::from(pace.frames), &(1.0..=100_000.0), "frames");
        });
    }
    if let Some(preferences) = &setup.preferences {
        let mut seen = HashSet::new();
        for preference in preferences {
            if !seen.insert(preference) {
                let name = serde_json::json!(preference);
                c.wrong("preferences", format!("{name} is there twice: each once"));
            }
        }
    }
}

/// The lens, and whether the setup's focal length is on it.
pub(super) fn lens(c: &mut Checker, setup: &Setup, kit: &Kit) {
    let lens = found(c, "lens_id", &setup.lens_id, &kit.lenses, |lens| &lens.id);
    c.number("focal_length_mm", setup.focal_length_mm, &FOCAL_MM, "mm");
    if let Some(lens) = lens
        && !(lens.shortest_mm - 0.01..=lens.longest_mm + 0.01).contains(&setup.focal_length_mm)
        && FOCAL_MM.contains(&setup.focal_length_mm)
    {
        let (least, most) = (lens.shortest_mm, lens.longest_mm);
        let message = format!("{} mm is not on “{}”: {least} to {most} mm", setup.focal_length_mm, lens.name);
        c.wrong("focal_length_mm", message);
    }
}

/// Whether the camera can sync as the setup asks.
pub(super) fn sync(c: &mut Checker, setup: &Setup, camera: &Camera) {
    if setup.sync == Sync::Electronic && camera.sync_electronic_s.is_none() {
        c.wrong("sync", format!("“{}” has no electronic shutter that syncs: choose another sync", camera.name));
    }
}
