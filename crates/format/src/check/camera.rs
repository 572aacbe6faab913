//! What a setup says of its lens and of the camera's sync.

use super::found;
use crate::kit::{Camera, Kit};
use crate::problems::Checker;
use crate::setup::{Setup, Sync};

/// The lens, and whether the setup's focal length is on it.
pub(super) fn lens(c: &mut Checker, setup: &Setup, kit: &Kit) {
    let lens = found(c, "lens_id", &setup.lens_id, &kit.lenses, |lens| &lens.id);
    if let Some(lens) = lens
        && !(lens.shortest_mm - 0.01..=lens.longest_mm + 0.01).contains(&setup.focal_length_mm)
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
