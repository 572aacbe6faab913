//! What a light says of the kit and of the regions.

use super::found;
use crate::kit::Kit;
use crate::problems::Checker;
use crate::setup::{Light, Setup};

pub(super) fn light(c: &mut Checker, light: &Light, setup: &Setup, kit: &Kit) {
    let flash = found(c, "flash_id", &light.flash_id, &kit.flashes, |flash| &flash.id);
    if let Some(id) = &light.modifier_id {
        found(c, "modifier_id", id, &kit.modifiers, |modifier| &modifier.id);
    }
    if let Some(id) = &light.stand_id {
        found(c, "stand_id", id, &kit.stands, |stand| &stand.id);
    }
    if let Some(id) = &light.boom_id {
        found(c, "boom_id", id, &kit.booms, |boom| &boom.id);
    }
    gels(c, "gel_ids", &light.gel_ids, kit);
    if let Some(id) = &light.aimed_at {
        found(c, "aimed_at", id, &setup.regions, |region| &region.id);
    }
    c.each("spill", &light.spill, |c, reach| {
        found(c, "region_id", &reach.region_id, &setup.regions, |region| &region.id);
    });
    if let (Some(power), Some(flash)) = (light.power_stops, flash)
        && power < flash.power.lowest_stops - 1e-9
    {
        let lowest = flash.power.lowest_stops;
        c.wrong("power_stops", format!("{power} is below the lowest power of {}: {lowest}", flash.name));
    }
}

/// Gels of the kit by their ids.
pub(super) fn gels(c: &mut Checker, field: &'static str, ids: &[String], kit: &Kit) {
    c.each(field, ids, |c, id| {
        found(c, "", id, &kit.gels, |gel| &gel.id);
    });
}
