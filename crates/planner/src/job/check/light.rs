//! Checking a light, and turning it into quantities.

use super::{DISTANCE_M, POWER, found};
use crate::job::problems::Checker;
use crate::job::{Flash, FlashOutput, Gel, Kit, Light, LightWish, Modifier, ModifierSurface, Setup};
use tolva_core::colour::{self, Shift};
use tolva_core::exposure::{Ev, IncidentReceptor};
use tolva_core::flash::{GuideNumber, Recycling};
use tolva_core::modifier::{Bounced, Surface, grid_exponent, off_axis};
use tolva_core::scale::{Metres, Power, PowerStep, Stops};

/// A continuous lamp.
#[derive(Clone, Debug)]
pub(crate) struct CheckedLamp<'a> {
    /// Where it stands in the setup's list.
    pub index: usize,
    pub light: &'a Light,
    pub flash: &'a Flash,
    pub modifier: Option<&'a Modifier>,
    /// What it gives each region, on the scale of EV.
    pub gives: Vec<Stops>,
    /// What modifier, gels, turning and bounce take.
    pub loss: Stops,
    /// What it falls short of the inverse square, being so near.
    pub near_field: Stops,
    pub bounced: Option<Bounced>,
    /// Its light without gels.
    pub native: colour::Light,
    /// The gels over it.
    pub gels: Vec<&'a Gel>,
    /// What they do to it.
    pub shift: Shift,
}

/// A light as quantities.
#[derive(Clone, Debug)]
pub(crate) struct CheckedLight<'a> {
    /// Where it stands in the setup's list.
    pub index: usize,
    pub light: &'a Light,
    pub flash: &'a Flash,
    pub modifier: Option<&'a Modifier>,
    /// Of all its units together.
    pub guide_number: GuideNumber,
    pub surface: Surface,
    /// Modifier, gels, turning and bounce.
    pub loss: Stops,
    /// What the modifier alone takes.
    pub modifier_loss: Stops,
    /// What the gels take.
    pub gel_loss: Stops,
    /// How it falls off to its sides: the exponent of the cosine.
    pub exponent: f64,
    pub bounced: Option<Bounced>,
    /// Its light without gels.
    pub native: colour::Light,
    /// The gels over it.
    pub gels: Vec<&'a Gel>,
    /// What gels and a coloured wall do to it.
    pub shift: Shift,
    pub distance: Option<Metres>,
    pub power: Option<Power>,
    pub lowest: Power,
    pub step: PowerStep,
    pub recycling: Recycling,
    /// The region it is aimed at.
    pub aim: usize,
    /// Against its own region, one a region; nothing where it does not reach.
    pub reaches: Vec<Stops>,
}

pub(super) enum CheckedLightKind<'a> {
    Flash(Box<CheckedLight<'a>>),
    Lamp(CheckedLamp<'a>),
}

pub(super) fn light<'a>(
    c: &mut Checker,
    index: usize,
    light: &'a Light,
    setup: &'a Setup,
    kit: &'a Kit,
    lit: Option<usize>,
) -> Option<CheckedLightKind<'a>> {
    let flash = found(c, "flash_id", &light.flash_id, &kit.flashes, |flash| &flash.id);
    let modifier = light.modifier_id.as_ref().map(|id| found(c, "modifier_id", id, &kit.modifiers, |m| &m.id));
    if let Some(id) = &light.stand_id {
        found(c, "stand_id", id, &kit.stands, |stand| &stand.id);
    }
    let gels = gels(c, "gel_ids", &light.gel_ids, kit);
    let gel_loss: Stops = gels.iter().map(|gel| Stops(gel.loss_stops)).sum();
    numbers(c, light);
    let aim = match &light.aimed_at {
        None => lit,
        Some(id) => found(c, "aimed_at", id, &setup.regions, |region| &region.id)
            .and_then(|aimed| setup.regions.iter().position(|region| region.id == aimed.id)),
    };
    let reaches = reaches(c, light, setup, aim);
    let (flash, modifier, aim) = match (flash?, modifier) {
        (flash, None) => (flash, None, aim?),
        (flash, Some(found)) => (flash, Some(found?), aim?),
    };
    let (surface, modifier_loss) = shape(modifier);
    let exponent = modifier.map_or(1.0, |m| m.grid_half_angle_deg.map_or(m.exponent, grid_exponent));
    let away = Metres(light.distance_m.unwrap_or(setup.camera_distance_m));
    let bounced = light.bounce.map(|bounce| bounce.at(away));
    let turned = if bounced.is_some() { Stops::ZERO } else { off_axis(light.turned_deg, exponent) };
    let loss = modifier_loss + gel_loss - turned + bounced.map_or(Stops::ZERO, |bounced| bounced.loss);
    let lowest = Power(Stops(flash.power.lowest_stops));
    if let Some(power) = light.power_stops
        && power < lowest.0.0 - 1e-9
    {
        c.wrong("power_stops", format!("{power} is below the lowest power of {}: {}", flash.name, lowest.0.0));
    }
    // What comes back from a ceiling or wall has its own loss by distance, no near field, and the surface's colour.
    let surface = if bounced.is_some() { Surface::Bare } else { surface };
    let shift = gels.iter().map(|gel| gel.shift()).chain(light.bounce.map(|bounce| bounce.colour.shift())).sum();
    if let FlashOutput::Continuous(lamp) = &flash.output {
        let lux = lamp.lux_at_1_m * f64::from(light.units) / (away.0 * away.0);
        let power = Stops(light.power_stops.unwrap_or(0.0));
        let near_field = surface.near_field(away);
        let gives = Stops(Ev::from_lux(lux, IncidentReceptor::Flat.constant()).0) - loss + near_field + power;
        let gives = reaches.iter().map(|reach| gives + *reach).collect();
        let native = flash.light();
        let lamp = CheckedLamp { index, light, flash, modifier, gives, loss, near_field, bounced, native, gels, shift };
        return Some(CheckedLightKind::Lamp(lamp));
    }
    let one = guide_number(flash, kit, light.zoom_mm);
    Some(CheckedLightKind::Flash(Box::new(CheckedLight {
        index,
        light,
        flash,
        modifier,
        // Energies add: two units are a stop, √2 in guide number.
        guide_number: GuideNumber(one.0 * f64::from(light.units).sqrt()),
        surface,
        loss,
        modifier_loss,
        gel_loss,
        exponent,
        distance: if bounced.is_some() { Some(away) } else { light.distance_m.map(Metres) },
        bounced,
        native: flash.light(),
        shift,
        gels,
        power: light.power_stops.map(|stops| Power(Stops(stops))),
        lowest,
        step: flash.power.step,
        recycling: flash.recycling(),
        aim,
        reaches,
    })))
}

/// Gels of the kit by their ids, four at most.
pub(super) fn gels<'a>(c: &mut Checker, field: &'static str, ids: &[String], kit: &'a Kit) -> Vec<&'a Gel> {
    let mut gels = Vec::new();
    if ids.len() > 4 {
        c.wrong(field, format!("{} gels are too many: at most 4", ids.len()));
    }
    c.each(field, ids, |c, id| gels.extend(found(c, "", id, &kit.gels, |gel| &gel.id)));
    gels
}

/// A light without gels, as it comes back from where it is bounced.
fn bounced_native(native: colour::Light, light: &Light) -> colour::Light {
    native.shifted(light.bounce.map_or_else(Shift::default, |bounce| bounce.colour.shift()))
}

impl CheckedLight<'_> {
    /// Its light without gels, as it comes back from where it is bounced.
    pub fn bounced_native(&self) -> colour::Light {
        bounced_native(self.native, self.light)
    }
}

impl CheckedLamp<'_> {
    /// Its light without gels, as it comes back from where it is bounced.
    pub fn bounced_native(&self) -> colour::Light {
        bounced_native(self.native, self.light)
    }
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

/// What a light gives each region against its own.
fn reaches(c: &mut Checker, light: &Light, setup: &Setup, aim: Option<usize>) -> Vec<Stops> {
    let mut reaches = vec![Stops::NOTHING; setup.regions.len()];
    c.each("reaches", &light.reaches, |c, reach| {
        c.number("stops", reach.stops, &(-12.0..=4.0), "stops");
        if found(c, "region_id", &reach.region_id, &setup.regions, |region| &region.id).is_some() {
            for (region, stops) in setup.regions.iter().zip(&mut reaches) {
                if region.id == reach.region_id {
                    *stops = Stops(reach.stops);
                }
            }
        }
    });
    if let Some(aim) = aim {
        reaches[aim] = Stops::ZERO;
    }
    reaches
}

/// The surface and the loss of a modifier, or of the bare head.
fn shape(modifier: Option<&Modifier>) -> (Surface, Stops) {
    let Some(modifier) = modifier else { return (Surface::Bare, Stops::ZERO) };
    let surface = match &modifier.surface {
        ModifierSurface::Bare(_) => Surface::Bare,
        ModifierSurface::Disc(disc) => Surface::Disc { diameter: Metres(disc.diameter_m) },
        ModifierSurface::Rectangle(rectangle) => {
            Surface::Rectangle { width: Metres(rectangle.width_m), height: Metres(rectangle.height_m) }
        }
    };
    (surface, Stops(modifier.loss_stops))
}

/// One bare unit's guide number in metres, whichever way its output is known. A lamp has none.
fn guide_number(flash: &Flash, kit: &Kit, zoom_mm: Option<f64>) -> GuideNumber {
    match &flash.output {
        FlashOutput::GuideNumberMetres(gn) => GuideNumber(gn.guide_number_m),
        FlashOutput::GuideNumberFeet(gn) => GuideNumber::from_feet(gn.guide_number_ft),
        FlashOutput::GuideNumberZoom(zoom) => {
            // Without a zoom that was said, the widest its table knows.
            GuideNumber::at_zoom(&zoom.table, zoom_mm.unwrap_or(0.001)).unwrap_or(GuideNumber(1.0))
        }
        FlashOutput::Continuous(_) => GuideNumber(1.0),
        FlashOutput::Measured(read) => {
            let through = read.modifier_id.as_ref().and_then(|id| kit.modifiers.iter().find(|m| &m.id == id));
            let (surface, loss) = shape(through);
            let power = Power(Stops(read.power_stops));
            GuideNumber::from_reading(read.f_number, read.iso, Metres(read.distance_m), power, surface, loss)
        }
    }
}
