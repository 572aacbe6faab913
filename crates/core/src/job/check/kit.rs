//! Checking a kit.

use std::collections::HashSet;

use super::{DISTANCE_M, POWER, SIZE_M, found, unique};
use crate::job::problems::Checker;
use crate::job::{FlashOutput, Kit, ModifierSurface};
use crate::scale::parsing::range;

pub(super) fn kit(c: &mut Checker, kit: &Kit) {
    for (field, count, least, most) in [
        ("cameras", kit.cameras.len(), 1, 40),
        ("flashes", kit.flashes.len(), 0, 40),
        ("modifiers", kit.modifiers.len(), 0, 80),
    ] {
        if !(least..=most).contains(&count) {
            c.wrong(field, format!("{count} {field} are not allowed: it must be from {least} to {most}"));
        }
    }
    let mut ids = HashSet::new();
    c.each("cameras", &kit.cameras, |c, camera| {
        unique(c, &mut ids, &camera.id);
        c.text("name", &camera.name, 1, 120);
        c.within("shutter", |c| {
            c.number("slowest_s", camera.shutter.slowest_s, &range::SHUTTER_S, "s");
            c.number("fastest_s", camera.shutter.fastest_s, &range::SHUTTER_S, "s");
        });
        c.within("aperture", |c| {
            c.number("widest_f_number", camera.aperture.widest_f_number, &range::F_NUMBER, "");
            c.number("smallest_f_number", camera.aperture.smallest_f_number, &range::F_NUMBER, "");
        });
        c.within("iso", |c| {
            c.number("base_iso", camera.iso.base_iso, &range::ISO, "");
            c.number("highest_iso", camera.iso.highest_iso, &range::ISO, "");
        });
        c.number("sync_rated_s", camera.sync_rated_s, &range::SHUTTER_S, "s");
        c.number("sync_safe_s", camera.sync_safe_s, &range::SHUTTER_S, "s");
        if camera.sync_safe_s < camera.sync_rated_s * 0.999 {
            c.wrong("sync_safe_s", "the safe sync must not be faster than the rated one");
        }
    });
    let mut ids = HashSet::new();
    c.each("modifiers", &kit.modifiers, |c, modifier| {
        unique(c, &mut ids, &modifier.id);
        c.text("name", &modifier.name, 1, 120);
        c.number("loss_stops", modifier.loss_stops, &(-3.0..=8.0), "stops");
        c.within("surface", |c| match &modifier.surface {
            ModifierSurface::Bare(_) => {}
            ModifierSurface::Disc(disc) => c.within("disc", |c| c.number("diameter_m", disc.diameter_m, &SIZE_M, "m")),
            ModifierSurface::Rectangle(rectangle) => c.within("rectangle", |c| {
                c.number("width_m", rectangle.width_m, &SIZE_M, "m");
                c.number("height_m", rectangle.height_m, &SIZE_M, "m");
            }),
        });
    });
    let mut ids = HashSet::new();
    c.each("flashes", &kit.flashes, |c, flash| {
        unique(c, &mut ids, &flash.id);
        c.text("name", &flash.name, 1, 120);
        c.within("power", |c| c.number("lowest_stops", flash.power.lowest_stops, &POWER, "stops"));
        c.within("output", |c| output(c, &flash.output, kit));
    });
}

fn output(c: &mut Checker, output: &FlashOutput, kit: &Kit) {
    match output {
        FlashOutput::GuideNumberMetres(gn) => c.within("guide_number_metres", |c| {
            c.number("guide_number_m", gn.guide_number_m, &(1.0..=1000.0), "m");
            c.text("holds_for", &gn.holds_for, 0, 120);
        }),
        FlashOutput::GuideNumberFeet(gn) => c.within("guide_number_feet", |c| {
            c.number("guide_number_ft", gn.guide_number_ft, &(3.0..=3300.0), "ft");
            c.text("holds_for", &gn.holds_for, 0, 120);
        }),
        FlashOutput::Measured(read) => c.within("measured", |c| {
            c.number("f_number", read.f_number, &range::F_NUMBER, "");
            c.number("iso", read.iso, &range::ISO, "");
            c.number("distance_m", read.distance_m, &DISTANCE_M, "m");
            c.number("power_stops", read.power_stops, &POWER, "stops");
            if let Some(id) = &read.modifier_id {
                found(c, "modifier_id", id, &kit.modifiers, |modifier| &modifier.id);
            }
        }),
    }
}
