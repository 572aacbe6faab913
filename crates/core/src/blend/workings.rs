//! The arithmetic of a plan, line by line, in the order in which it is done.

use std::fmt::Write as _;

use super::outcome::Outcome;
use super::plan::{Show, Working};
use super::search::flash_needed;
use super::wish::FlashWish;
use crate::exposure::Reading;
use crate::job::{Blend, CheckedSetup, FlashOutput, Known};
use crate::scale::{PowerNotation, Stops};

struct Lines(Vec<Working>);

impl Lines {
    fn add(&mut self, about: &str, says: impl Into<String>, sum: impl Into<String>, gives: impl Into<String>) {
        self.0.push(Working { about: about.to_owned(), says: says.into(), sum: sum.into(), gives: gives.into() });
    }
}

pub(super) fn workings(setup: &CheckedSetup<'_>, outcome: &Outcome, show: Show) -> Vec<Working> {
    let mut lines = Lines(Vec::new());
    readings(&mut lines, setup);
    camera(&mut lines, setup, outcome);
    for ((region, of), ev) in setup.setup.regions.iter().zip(&outcome.regions).zip(&setup.ambient) {
        let mut sum = format!("{:.2} − {:.2}", ev.0, outcome.settings.ev100().0).replace('-', "−");
        if setup.filter.0 > 0.0 {
            let _ = write!(sum, " − {:.2}", setup.filter.0);
        }
        lines.add(
            "Ambient",
            format!("What the ambient gives “{}”: its EV less the camera's", region.name),
            sum,
            of.ambient.decimals(),
        );
    }
    flash(&mut lines, setup, outcome, show);
    for (region, of) in setup.setup.regions.iter().zip(&outcome.regions) {
        lines.add(
            "Together",
            format!("“{}”: ambient and flash add in linear light", region.name),
            if of.flash.0.is_finite() {
                format!("log₂(2^{} + 2^{})", of.ambient.decimals(), of.flash.decimals())
            } else {
                "no flash here".to_owned()
            },
            of.together.decimals(),
        );
    }
    lines.0
}

fn readings(lines: &mut Lines, setup: &CheckedSetup<'_>) {
    let mut incident = None;
    let mut reflected = false;
    for ((region, ev), known) in setup.setup.regions.iter().zip(&setup.ambient).zip(&setup.known) {
        let taken = match (region.ambient.last(), known) {
            (Some(taken), Known::Read { .. }) => taken,
            (_, known) => {
                let says = format!("The light on “{}”", region.name);
                let from = if *known == Known::Model { "from place and hour" } else { "a guess" };
                lines.add("Estimate", says, from, ev.exact_label());
                continue;
            }
        };
        let reading = &taken.reading;
        let how = match reading {
            Reading::Ev(_) => reading.ev100().exact_label(),
            Reading::Lux(read) => format!("log₂({} · 100 / {:.0})", reading.label(), read.receptor.constant()),
            Reading::Camera(_) => format!("{} = {}", reading.label(), reading.ev100().exact_label()),
        };
        let mut sum = if taken.surface_stops == 0.0 {
            how
        } else {
            format!("{how}, less the surface's {}", Stops(taken.surface_stops).decimals())
        };
        if let Known::Read { moved, .. } = known
            && moved.0.abs() > 0.005
        {
            let _ = write!(sum, ", and {} since by sun and sky", moved.decimals());
        }
        lines.add("Reading", format!("The light on “{}”", region.name), sum, ev.exact_label());
        incident = incident.or(reading.grey_card_over());
        reflected |= matches!(reading, Reading::Camera(_));
    }
    if let (Some(over), true) = (incident, reflected) {
        lines.add(
            "Reading",
            "Mixed: a camera's reading off a grey card lies over a luxmeter's by the meter constants (not corrected)",
            "log₂(0.18 / (π · K / C))",
            over.decimals(),
        );
    }
}

fn camera(lines: &mut Lines, setup: &CheckedSetup<'_>, outcome: &Outcome) {
    let blend = setup.setup.blend;
    let name = |region: usize| setup.setup.regions[region].name.clone();
    let (region, place) = blend.ambient_place(setup);
    let wanted = blend.camera_ev(setup);
    lines.add(
        "Camera",
        format!("The ambient puts “{}” at {}, so the camera stands at", name(region), place.decimals()),
        format!("{:.2} − ({})", setup.ambient[region].0, place.decimals()).replace('-', "−"),
        wanted.exact_label(),
    );
    let settings = outcome.settings;
    let (t, n) = (settings.shutter.exact, settings.aperture.exact);
    let time = if t < 1.0 { format!("1/{:.1} s", 1.0 / t) } else { format!("{t:.2} s") };
    let mut sum = format!("log₂({n:.2}² / ({time})) − log₂({:.0} / 100)", settings.iso.exact);
    let mut gives = settings.ev100();
    if setup.filter.0 > 0.0 {
        let _ = write!(sum, " + {:.2} of filter", setup.filter.0);
        gives = gives + setup.filter;
    }
    lines.add("Camera", format!("{} by the dials' exact values", settings.label()), sum, gives.exact_label());
}

fn flash(lines: &mut Lines, setup: &CheckedSetup<'_>, outcome: &Outcome, show: Show) {
    let lit = outcome.regions[setup.lit];
    let name = &setup.setup.regions[setup.lit].name;
    let wanted = match (outcome.wish, setup.setup.blend) {
        (FlashWish::Unused, blend) => {
            lines.add("Flash", format!("{} is without flash", blend.name()), "", "off");
            return;
        }
        (FlashWish::AmbientOver(over), _) => {
            lines.add("Flash", format!("The ambient alone is over the place of “{name}” by"), "", over.decimals());
            return;
        }
        (FlashWish::Wanted(wanted), Blend::Fill { fill_stops, .. }) => {
            let sum = format!("{} + ({})", lit.ambient.decimals(), Stops(fill_stops).decimals());
            lines.add("Flash", format!("Wanted on “{name}”: so far from its ambient"), sum, wanted.decimals());
            wanted
        }
        (FlashWish::Wanted(wanted), _) => {
            let place = setup.setup.blend.region_wish(setup, setup.lit).unwrap_or(Stops::ZERO);
            let sum = format!("log₂(2^{} − 2^{})", place.decimals(), lit.ambient.decimals());
            lines.add("Flash", format!("Wanted on “{name}”: its place less its ambient"), sum, wanted.decimals());
            wanted
        }
    };
    let (Some(light), Some(chosen)) = (&outcome.light, &setup.light) else {
        lines.add("Flash", "The setup has no flash", "", "nothing");
        return;
    };
    let settings = outcome.settings;
    let needed = flash_needed(wanted, settings, setup.filter);
    let sum = format!(
        "{} + 2·log₂({:.2}) − log₂({:.0} / 100){}",
        wanted.decimals(),
        settings.aperture.exact,
        settings.iso.exact,
        if setup.filter.0 > 0.0 { format!(" + {:.2}", setup.filter.0) } else { String::new() }
    );
    lines.add("Flash", "So the flash must give, on the scale of EV", sum, needed.decimals());
    let gn = chosen.guide_number.0;
    let metres = light.distance.0;
    let how = match &chosen.flash.output {
        FlashOutput::GuideNumberMetres(_) => format!("guide number {gn:.0} m"),
        FlashOutput::GuideNumberFeet(read) => format!("guide number {:.0} ft = {gn:.1} m", read.guide_number_ft),
        FlashOutput::Measured(_) => format!("guide number {gn:.1} m from the reading"),
    };
    lines.add(
        "Flash",
        format!("{} at full power, {how}, {} away", chosen.flash.name, light.distance.label(show.length)),
        format!("2·log₂({gn:.1} / {metres:.2})"),
        Stops(2.0 * (gn / metres).log2()).decimals(),
    );
    if let Some(modifier) = chosen.modifier {
        lines.add("Flash", format!("{} takes on its axis", modifier.name), "", (-chosen.loss).decimals());
        let near = chosen.surface.near_field(light.distance);
        lines.add("Flash", "Being so large so near, against the inverse square", "form factor", near.decimals());
    }
    let full = chosen.gives(light.distance, crate::scale::Power::FULL);
    lines.add(
        "Flash",
        "Power: what is needed less what full power gives",
        format!("{} − ({})", needed.decimals(), full.decimals()),
        light.exact.0.decimals(),
    );
    let notation = match show.power {
        PowerNotation::Fraction => "as a fraction of full power",
        PowerNotation::Stops => "in stops under full power",
    };
    let fixed = if chosen.power.is_some() { "Power as it was fixed" } else { "On the unit's dial" };
    lines.add("Flash", format!("{fixed}, {notation}"), light.power.0.decimals(), light.power.label(show.power));
    for (region, (of, reach)) in setup.setup.regions.iter().zip(outcome.regions.iter().zip(&chosen.reaches)) {
        if of.flash.0.is_finite() {
            let sum = if reach.0 == 0.0 {
                format!("{} {}", wanted.decimals(), (light.power.0 - light.exact.0).decimals())
            } else {
                format!("{} {}", (of.flash - *reach).decimals(), reach.decimals())
            };
            let words =
                if reach.0 == 0.0 { "with the dial's rounding" } else { "reached by so much against the lit side" };
            lines.add("Flash", format!("What the flash gives “{}”, {words}", region.name), sum, of.flash.decimals());
        }
    }
}
