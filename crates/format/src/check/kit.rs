//! Checking a kit.

use std::collections::HashSet;

use super::{DISTANCE_M, FOCAL_MM, POWER, SIZE_M, found, unique};
use crate::kit::{Camera, Filter, Flash, FlashOutput, Gel, Kit, Lens, Modifier, ModifierSurface, Stand, Trigger};
use crate::problems::Checker;
use tolva_core::colour::{KELVIN, TINT};
use tolva_core::scale::parsing::range;

const STABILISATION: std::ops::RangeInclusive<f64> = 0.0..=9.0;

pub(crate) fn kit(c: &mut Checker, kit: &Kit) {
    for (field, count, least, most) in [
        ("cameras", kit.cameras.len(), 1, 40),
        ("lenses", kit.lenses.len(), 1, 80),
        ("flashes", kit.flashes.len(), 0, 40),
        ("modifiers", kit.modifiers.len(), 0, 80),
        ("gels", kit.gels.len(), 0, 80),
        ("filters", kit.filters.len(), 0, 40),
        ("stands", kit.stands.len(), 0, 40),
        ("triggers", kit.triggers.len(), 0, 20),
    ] {
        if !(least..=most).contains(&count) {
            c.wrong(field, format!("{count} {field} are not allowed: it must be from {least} to {most}"));
        }
    }
    named(c, "cameras", &kit.cameras, |camera| (&camera.id, &camera.name), camera);
    named(c, "lenses", &kit.lenses, |lens| (&lens.id, &lens.name), lens);
    named(c, "gels", &kit.gels, |gel| (&gel.id, &gel.name), gel);
    named(c, "filters", &kit.filters, |filter| (&filter.id, &filter.name), filter);
    named(c, "stands", &kit.stands, |stand| (&stand.id, &stand.name), stand);
    named(c, "triggers", &kit.triggers, |trigger| (&trigger.id, &trigger.name), trigger);
    named(c, "modifiers", &kit.modifiers, |modifier| (&modifier.id, &modifier.name), modifier);
    named(c, "flashes", &kit.flashes, |flash| (&flash.id, &flash.name), |c, one| flash(c, one, kit));
}

fn camera(c: &mut Checker, camera: &Camera) {
    c.within("shutter", |c| {
        c.number("slowest_s", camera.shutter.slowest_s, &range::SHUTTER_S, "s");
        c.number("fastest_s", camera.shutter.fastest_s, &range::SHUTTER_S, "s");
    });
    c.within("sensor", |c| {
        c.number("width_mm", camera.sensor.width_mm, &(4.0..=100.0), "mm");
        c.number("height_mm", camera.sensor.height_mm, &(3.0..=100.0), "mm");
        c.number("width_px", camera.sensor.width_px, &(500.0..=30_000.0), "pixels");
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
    if let Some(electronic) = camera.sync_electronic_s {
        c.number("sync_electronic_s", electronic, &range::SHUTTER_S, "s");
    }
    c.number("slow_sync_floor_s", camera.slow_sync_floor_s, &range::SHUTTER_S, "s");
    c.number("stabilisation_stops", camera.stabilisation_stops, &STABILISATION, "stops");
    c.number("frames_per_s", camera.frames_per_s, &(0.1..=240.0), "frames a second");
}

fn lens(c: &mut Checker, lens: &Lens) {
    c.number("shortest_mm", lens.shortest_mm, &FOCAL_MM, "mm");
    c.number("longest_mm", lens.longest_mm, &FOCAL_MM, "mm");
    if lens.longest_mm < lens.shortest_mm {
        let message = format!("{} is shorter than the shortest, {} mm", lens.longest_mm, lens.shortest_mm);
        c.wrong("longest_mm", message);
    }
    c.number("widest_f_number", lens.widest_f_number, &range::F_NUMBER, "");
    c.number("smallest_f_number", lens.smallest_f_number, &range::F_NUMBER, "");
    if lens.smallest_f_number < lens.widest_f_number {
        let message = format!("f/{} is wider than the widest, f/{}", lens.smallest_f_number, lens.widest_f_number);
        c.wrong("smallest_f_number", message);
    }
    c.number("stabilisation_stops", lens.stabilisation_stops, &STABILISATION, "stops");
    c.number("closest_focus_m", lens.closest_focus_m, &(0.02..=20.0), "m");
    c.number("largest_magnification", lens.largest_magnification, &(0.01..=10.0), "");
    c.number("pupil_ratio", lens.pupil_ratio, &(0.1..=10.0), "");
}

fn gel(c: &mut Checker, gel: &Gel) {
    c.number("shift_mired", gel.shift_mired, &(-500.0..=500.0), "mired");
    c.number("shift_duv", gel.shift_duv, &TINT, "");
    if gel.shift_mired == 0.0 && gel.shift_duv == 0.0 && gel.loss_stops == 0.0 {
        c.wrong("shift_mired", "a gel that shifts nothing and takes nothing is no gel: say what it does");
    }
    c.number("loss_stops", gel.loss_stops, &(0.0..=8.0), "stops");
}

fn filter(c: &mut Checker, filter: &Filter) {
    c.number("density_stops", filter.density_stops, &(0.1..=15.0), "stops");
}

fn stand(c: &mut Checker, stand: &Stand) {
    c.number("highest_m", stand.highest_m, &(0.1..=8.0), "m");
    c.number("carries_kg", stand.carries_kg, &(0.1..=100.0), "kg");
    c.number("footprint_m", stand.footprint_m, &(0.05..=3.0), "m");
    c.number("weight_kg", stand.weight_kg, &(0.1..=60.0), "kg");
}

fn trigger(c: &mut Checker, trigger: &Trigger) {
    c.number("channels", f64::from(trigger.channels), &(1.0..=64.0), "channels");
    c.number("groups", f64::from(trigger.groups), &(1.0..=16.0), "groups");
}

fn modifier(c: &mut Checker, modifier: &Modifier) {
    c.number("exponent", modifier.exponent, &(0.0..=400.0), "");
    if let Some(grid) = modifier.grid_half_angle_deg {
        c.number("grid_half_angle_deg", grid, &(2.0..=80.0), "degrees");
    }
    c.number("weight_kg", modifier.weight_kg, &(0.0..=30.0), "kg");
    c.number("area_m2", modifier.area_m2, &(0.0..=20.0), "m²");
    c.number("loss_stops", modifier.loss_stops, &(-3.0..=8.0), "stops");
    c.within("surface", |c| match &modifier.surface {
        ModifierSurface::Bare(_) => {}
        ModifierSurface::Disc(disc) => {
            c.within("disc", |c| c.number("diameter_m", disc.diameter_m, &SIZE_M, "m"));
        }
        ModifierSurface::Rectangle(rectangle) => c.within("rectangle", |c| {
            c.number("width_m", rectangle.width_m, &SIZE_M, "m");
            c.number("height_m", rectangle.height_m, &SIZE_M, "m");
        }),
    });
}

fn flash(c: &mut Checker, flash: &Flash, kit: &Kit) {
    c.number("kelvin", flash.kelvin, &KELVIN, "K");
    c.number("tint_duv", flash.tint_duv, &TINT, "");
    if let Some(rendering) = flash.rendering {
        c.number("rendering", rendering, &(0.0..=100.0), "");
    }
    c.number("recycle_full_s", flash.recycle_full_s, &(0.0..=60.0), "s");
    if let Some(pops) = flash.pops_full {
        c.number("pops_full", pops, &(1.0..=100_000.0), "pops");
    }
    if let Some(duty) = flash.duty {
        c.within("duty", |c| {
            c.number("full_pops", duty.full_pops, &(1.0..=10_000.0), "pops");
            c.number("rest_s", duty.rest_s, &(0.0..=7200.0), "s");
        });
    }
    if let Some(loss) = flash.high_speed_loss_stops {
        c.number("high_speed_loss_stops", loss, &(0.0..=6.0), "stops");
    }
    if flash.durations.len() > 20 {
        c.wrong("durations", format!("{} lines are too many: at most 20", flash.durations.len()));
    }
    c.each("durations", &flash.durations, |c, line| {
        c.number("power_stops", line.power_stops, &POWER, "stops");
        c.number("t01_s", line.t01_s, &(1e-6..=0.1), "s");
    });
    c.within("power", |c| c.number("lowest_stops", flash.power.lowest_stops, &POWER, "stops"));
    c.within("output", |c| output(c, &flash.output, kit));
}

/// The things of one kind: each with an id of its own and a name.
fn named<'a, T>(
    c: &mut Checker,
    field: &'static str,
    things: &'a [T],
    called: impl Fn(&'a T) -> (&'a String, &'a String),
    mut check: impl FnMut(&mut Checker, &'a T),
) {
    let mut ids = HashSet::new();
    c.each(field, things, |c, thing| {
        let (id, name) = called(thing);
        unique(c, &mut ids, id);
        c.text("name", name, 1, 120);
        check(c, thing);
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
        FlashOutput::GuideNumberZoom(zoom) => c.within("guide_number_zoom", |c| {
            if !(1..=20).contains(&zoom.table.len()) {
                c.wrong("table", format!("{} lines are not allowed: it must be from 1 to 20", zoom.table.len()));
            }
            c.each("table", &zoom.table, |c, line| {
                c.number("zoom_mm", line.zoom_mm, &(8.0..=400.0), "mm");
                c.number("guide_number_m", line.guide_number_m, &(1.0..=1000.0), "m");
            });
        }),
        FlashOutput::Continuous(lamp) => c.within("continuous", |c| {
            c.number("lux_at_1_m", lamp.lux_at_1_m, &(1.0..=1_000_000.0), "lx");
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
