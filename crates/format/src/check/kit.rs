//! What the things of a kit say of themselves and of each other.

use std::collections::HashSet;

use super::{found, unique};
use crate::kit::{Camera, Flash, FlashOutput, Gel, Kit, Lens};
use crate::problems::Checker;

pub(crate) fn kit(c: &mut Checker, kit: &Kit) {
    each(c, "cameras", &kit.cameras, |camera| &camera.id, camera);
    each(c, "lenses", &kit.lenses, |lens| &lens.id, lens);
    each(c, "gels", &kit.gels, |gel| &gel.id, gel);
    each(c, "filters", &kit.filters, |filter| &filter.id, |_, _| {});
    each(c, "stands", &kit.stands, |stand| &stand.id, |_, _| {});
    each(c, "triggers", &kit.triggers, |trigger| &trigger.id, |_, _| {});
    each(c, "booms", &kit.booms, |boom| &boom.id, |_, _| {});
    each(c, "boards", &kit.boards, |board| &board.id, |_, _| {});
    each(c, "backdrops", &kit.backdrops, |backdrop| &backdrop.id, |_, _| {});
    each(c, "meters", &kit.meters, |meter| &meter.id, |_, _| {});
    each(c, "modifiers", &kit.modifiers, |modifier| &modifier.id, |_, _| {});
    each(c, "flashes", &kit.flashes, |flash| &flash.id, |c, one| flash(c, one, kit));
}

/// The things of one kind, each with an id of its own.
fn each<'a, T>(
    c: &mut Checker,
    field: &'static str,
    things: &'a [T],
    id: impl Fn(&'a T) -> &'a str,
    mut check: impl FnMut(&mut Checker, &'a T),
) {
    let mut ids = HashSet::new();
    c.each(field, things, |c, thing| {
        unique(c, &mut ids, id(thing));
        check(c, thing);
    });
}

fn camera(c: &mut Checker, camera: &Camera) {
    if camera.sync_safe_s < camera.sync_rated_s * 0.999 {
        c.wrong("sync_safe_s", "the safe sync must not be faster than the rated one");
    }
    let curve = &camera.curve;
    let rises = curve.windows(2).all(|two| two[0] <= two[1]) && curve.iter().all(|at| (0.0..=255.0).contains(at));
    if !curve.is_empty() && (curve.len() != 31 || !rises) {
        c.wrong("curve", "a curve is 31 levels from 0 to 255 that do not fall, from −5 to +2.5 stops by quarters");
    }
}

fn lens(c: &mut Checker, lens: &Lens) {
    if lens.longest_mm < lens.shortest_mm {
        let message = format!("{} is shorter than the shortest, {} mm", lens.longest_mm, lens.shortest_mm);
        c.wrong("longest_mm", message);
    }
    if lens.smallest_f_number < lens.widest_f_number {
        let message = format!("f/{} is wider than the widest, f/{}", lens.smallest_f_number, lens.widest_f_number);
        c.wrong("smallest_f_number", message);
    }
}

fn gel(c: &mut Checker, gel: &Gel) {
    if gel.shift_mired == 0.0 && gel.shift_duv == 0.0 && gel.loss_stops == 0.0 {
        c.wrong("shift_mired", "a gel that shifts nothing and takes nothing is no gel: say what it does");
    }
}

fn flash(c: &mut Checker, flash: &Flash, kit: &Kit) {
    if let FlashOutput::Measured(read) = &flash.output
        && let Some(id) = &read.modifier_id
    {
        c.within("output", |c| {
            c.within("measured", |c| found(c, "modifier_id", id, &kit.modifiers, |modifier| &modifier.id));
        });
    }
}
