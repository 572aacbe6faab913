//! Checking a light.

use super::{DISTANCE_M, POWER, found};
use crate::kit::Kit;
use crate::problems::Checker;
use crate::setup::{Light, LightWish, Setup};

pub(super) fn light(c: &mut Checker, light: &Light, setup: &Setup, kit: &Kit) {
    let flash = found(c, "flash_id", &light.flash_id, &kit.flashes, |flash| &flash.id);
    if let Some(id) = &light.modifier_id {
        found(c, "modifier_id", id, &kit.modifiers, |modifier| &modifier.id);
    }
    if let Some(id) = &light.stand_id {
        found(c, "stand_id", id, &kit.stands, |stand| &stand.id);
    }
    gels(c, "gel_ids", &light.gel_ids, kit);
    numbers(c, light);
    if let Some(id) = &light.aimed_at {
        found(c, "aimed_at", id, &setup.regions, |region| &region.id);
    }
    c.each("reaches", &light.reaches, |c, reach| {
        c.number("stops", reach.stops, &(-12.0..=4.0), "stops");
        found(c, "region_id", &reach.region_id, &setup.regions, |region| &region.id);
    });
    if let (Some(power), Some(flash)) = (light.power_stops, flash)
        && power < flash.power.lowest_stops - 1e-9
    {
        let lowest = flash.power.lowest_stops;
        c.wrong("power_stops", format!("{power} is below the lowest power of {}: {lowest}", flash.name));
    }
}

/// Gels of the kit by their ids, four at most.
pub(super) fn gels(c: &mut Checker, field: &'static str, ids: &[String], kit: &Kit) {
    if ids.len() > 4 {
        c.wrong(field, format!("{} gels are too many: at most 4", ids.len()));
    }
    c.each(field, ids, |c, id| {
        found(c, "", id, &kit.gels, |gel| &gel.id);
    });
}

/// The numbers of a light.
fn numbers(c: &mut Checker, light: &Light) {
    c.number("units", f64::from(light.units), &(1.0..=6.0), "units");
    c.number("group", f64::from(light.group), &(1.0..=16.0), "");
    if let Some(zoom) = light.zoom_mm {
        c.number("zoom_mm", zoom, &(8.0..=400.0), "mm");
    }
    if let Some(distance) = light.distance_m {
        c.number("distance_m", distance, &DISTANCE_M, "m");
    }
    if let Some(power) = light.power_stops {
        c.number("power_stops", power, &POWER, "stops");
    }
    if !(0.0..=85.0).contains(&light.turned_deg) {
        let message = format!(
            "turned {}° away, the light gives nothing where it is aimed: turn it to between 0 and 85°",
            light.turned_deg
        );
        c.wrong("turned_deg", message);
    }
    c.within("wish", |c| match light.wish {
        LightWish::Key => {}
        LightWish::Fill { ratio_stops } => {
            c.within("fill", |c| c.number("ratio_stops", ratio_stops, &(0.0..=6.0), "stops"));
        }
        LightWish::Rim { over_stops } => {
            c.within("rim", |c| c.number("over_stops", over_stops, &(-3.0..=4.0), "stops"));
        }
        LightWish::Place { stops } => c.within("place", |c| c.number("stops", stops, &(-6.0..=3.0), "stops")),
    });
    if let Some(bounce) = light.bounce {
        c.within("bounce", |c| {
            c.number("away_m", bounce.away_m, &(0.3..=20.0), "m");
            c.number("reflectance", bounce.reflectance, &(0.02..=0.95), "");
        });
    }
}
