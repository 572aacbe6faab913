//! What to mind about colour. The limits are common practice, no source.

use super::colouring::{gels_to, names};
use super::mix::{Colours, key};
use crate::blend::outcome::Outcome;
use crate::blend::plan::Caution;
use crate::job::{CheckedSetup, Kit, Role, Surroundings};
use tolva_core::ambient::flicker_shows;
use tolva_core::colour::{NamedLight, SaidColour, cast_words};

/// Two lights on a face that are farther apart than this show, in mired.
const MIXED_MIRED: f64 = 40.0;
/// A light with less of a share than this does not show its colour.
const SHOWS: f64 = 0.15;
/// Lamps are warmer than this.
const LAMP_K: f64 = 4000.0;
/// Lamps that render worse than this leave colours out (Ra).
const POOR_RENDERING: f64 = 85.0;

pub(super) fn cautions(setup: &CheckedSetup<'_>, outcome: &Outcome, colours: &Colours, kit: &Kit) -> Vec<Caution> {
    let mut all = Vec::new();
    all.extend(ungelled(setup, outcome, colours, kit).or_else(|| mixed(setup, colours)));
    all.extend(bounced(setup, outcome));
    all.extend(lamps(setup, outcome));
    all
}

fn caution(heading: &str, says: String) -> Caution {
    Caution { heading: heading.to_owned(), says }
}

/// Several lights on one face that no single balance can mend.
fn mixed(setup: &CheckedSetup<'_>, colours: &Colours) -> Option<Caution> {
    let faces = setup.setup.regions.iter().zip(&colours.mixes).filter(|(region, _)| region.role != Role::Behind);
    let worst = faces
        .filter_map(|(region, mix)| {
            let strong = || mix.parts.iter().filter(|part| part.share >= SHOWS);
            let warm = strong().max_by(|a, b| a.light.mired().0.total_cmp(&b.light.mired().0))?;
            let cool = strong().min_by(|a, b| a.light.mired().0.total_cmp(&b.light.mired().0))?;
            Some((warm.light.mired().0 - cool.light.mired().0, region, warm.light, cool.light))
        })
        .max_by(|a, b| a.0.total_cmp(&b.0))
        .filter(|(apart, ..)| *apart > MIXED_MIRED);
    if let Some((apart, region, warm, cool)) = worst {
        let says = format!(
            "On “{}” light of {} and of {} meet, {apart:.0} mired apart: no one balance mends both. Gel one to the other, \
             or give one of them the face.",
            region.name,
            warm.kelvin().label(),
            cool.kelvin().label()
        );
        return Some(caution("Mixed light on one face", says));
    }
    let (lit, shadow) = (colours.mixes[setup.lit].light, colours.mixes[setup.shadow?].light);
    let apart = (lit.mired().0 - shadow.mired().0).abs();
    (apart > MIXED_MIRED).then(|| {
        let says = format!("Lit side and shadow side come out {apart:.0} mired apart: no one balance mends both.");
        caution("Mixed light on one face", says)
    })
}

/// A flash without a gel in a room that lamps light.
fn ungelled(setup: &CheckedSetup<'_>, outcome: &Outcome, colours: &Colours, kit: &Kit) -> Option<Caution> {
    let key = key(setup, outcome)?;
    let (light, flash) = (&setup.lights[key], colours.flashes[key]);
    let rooms = [colours.lit_ambient(setup), colours.ambient_on(setup.behind)];
    let room = rooms.into_iter().max_by(|a, b| a.mired().0.total_cmp(&b.mired().0))?;
    let apart = room.mired().0 - flash.mired().0;
    if !light.gels.is_empty() || room.kelvin().0 > LAMP_K || apart < MIXED_MIRED {
        return None;
    }
    let gels = names(&gels_to(flash, room, kit).0);
    let way = if gels.is_empty() {
        "A warm gel brings them together.".to_owned()
    } else {
        format!("{gels} brings them together.")
    };
    Some(caution(
        "No gel among lamps",
        format!(
            "The room is {}, {} is {}: {apart:.0} mired apart. {way}",
            room.kelvin().label(),
            light.light.id,
            flash.kelvin().label()
        ),
    ))
}

/// A flash that comes back from something coloured.
fn bounced(setup: &CheckedSetup<'_>, outcome: &Outcome) -> Option<Caution> {
    let mut on = setup.lights.iter().zip(&outcome.lights).filter(|(_, at)| at.is_some()).map(|(light, _)| light);
    let (light, bounce) = on.find_map(|light| light.light.bounce.map(|bounce| (light, bounce)))?;
    let shift = bounce.colour.shift();
    let id = &light.light.id;
    let says = if shift.mired == 0.0 && shift.tint_duv == 0.0 {
        format!("{id} takes on the colour of the ceiling or wall it comes back from: white paint is seldom white.")
    } else {
        format!(
            "Off {} {id} comes back {}: estimated. Measure it there, or turn it elsewhere.",
            bounce.colour.name(),
            cast_words(shift.mired, shift.tint_duv)
        )
    };
    Some(caution("Colour of the bounce", says))
}

/// Lamps that leave colours out, or flicker.
fn lamps(setup: &CheckedSetup<'_>, outcome: &Outcome) -> Vec<Caution> {
    let mut all = Vec::new();
    let named: Vec<NamedLight> = (setup.setup.regions.iter())
        .filter_map(|region| if let SaidColour::Named(named) = region.ambient.colour { Some(named) } else { None })
        .collect();
    let of_regions = named.iter().filter_map(|named| named.rendering().map(|ra| (named.name().to_owned(), ra)));
    let of_kit = setup.lamps.iter().filter_map(|lamp| lamp.flash.rendering.map(|ra| (lamp.flash.name.clone(), ra)));
    let worst = of_regions.chain(of_kit).min_by(|a, b| a.1.total_cmp(&b.1)).filter(|(_, ra)| *ra < POOR_RENDERING);
    if let Some((name, ra)) = worst {
        let says = format!(
            "{name}: about {ra:.0} of 100. Some colours are not in their light, and no balance puts them back; skin \
             suffers first. More flash on the face helps."
        );
        all.push(caution("Poor rendering", says));
    }
    // A room full of lamps is warned of with its own mains.
    let in_lamp_light =
        setup.scene.as_ref().is_some_and(|scene| matches!(scene.scene.surroundings, Surroundings::Artificial(_)));
    let shutter = outcome.settings.shutter;
    if let Some(lamp) = named.iter().find(|named| named.flickers())
        && !in_lamp_light
        && flicker_shows(shutter, 50.0)
    {
        let says = format!(
            "{} at {}: shorter than half a period of 50 Hz mains, so colour and brightness may change from frame to \
             frame. 1/100 or slower is safe (1/125 at 60 Hz).",
            lamp.name(),
            shutter.label()
        );
        all.push(caution("Flicker", says));
    }
    all
}
