//! The arithmetic of a plan, line by line, in the order in which it is done.

use tolva_planner::lighting::{AmbientSource, FlashWish, Placed, Prepared, PreparedLight};
use tolva_planner::setup::{Blend, FlashOutput};
use tolva_planner::solver::{DialledLight, Outcome, flash_needed};

use crate::names::Named;
use crate::plan::Working;
use crate::shown::Show;
use std::fmt::Write as _;

use tolva_core::exposure::Reading;
use tolva_core::scale::{Power, PowerNotation, Stops, signed};

struct Lines(Vec<Working>);

impl Lines {
    fn add(&mut self, about: &str, says: impl Into<String>, sum: impl Into<String>, gives: impl Into<String>) {
        self.0.push(Working { about: about.to_owned(), says: says.into(), sum: sum.into(), gives: gives.into() });
    }
}

/// A number of stops in a sum, to a thousandth: the figures of a line are to come to what it gives, to a hundredth.
fn exact(stops: Stops) -> String {
    signed(stops.0, 3)
}

/// The same as a term that is added.
fn signed_exact(stops: Stops) -> String {
    format!("{:+.3}", stops.0).replace('-', "−")
}

pub(crate) fn workings(setup: &Prepared<'_>, outcome: &Outcome, show: Show) -> Vec<Working> {
    let mut lines = Lines(Vec::new());
    readings(&mut lines, setup);
    camera(&mut lines, setup, outcome);
    for ((region, of), ev) in setup.setup.regions.iter().zip(&outcome.regions).zip(&setup.ambient) {
        let mut sum = format!("{:.3} − {:.3}", ev.0, outcome.settings.ev100().0).replace('-', "−");
        if setup.filter.0 > 0.0 {
            let _ = write!(sum, " − {:.3}", setup.filter.0);
        }
        lines.add(
            "Ambient",
            format!("What the ambient gives “{}”: its EV less the camera's", region.name),
            sum,
            of.ambient.decimals(),
        );
    }
    wanted(&mut lines, setup, outcome);
    for (position, (light, at)) in setup.lights.iter().zip(&outcome.lights).enumerate() {
        match at {
            Some(at) => flash(&mut lines, setup, outcome, (position, light, *at), show),
            None if setup.fires(light) => {
                lines.add(&about(setup, light), "Nothing is left for it to give", "", "off");
            }
            None => {}
        }
    }
    for (region, of) in setup.setup.regions.iter().zip(&outcome.regions) {
        lines.add(
            "Together",
            format!("“{}”: ambient and flash add in linear light", region.name),
            if of.flash.0.is_finite() {
                format!("log₂(2^{} + 2^{})", exact(of.ambient), exact(of.flash))
            } else {
                "no flash here".to_owned()
            },
            of.together.decimals(),
        );
    }
    lines.0
}

fn readings(lines: &mut Lines, setup: &Prepared<'_>) {
    let mut incident = None;
    let mut reflected = false;
    for ((region, ev), known) in setup.setup.regions.iter().zip(&setup.ambient).zip(&setup.known) {
        let taken = match (region.ambient.last(), known) {
            (Some(taken), AmbientSource::Read { .. }) => taken,
            (_, known) => {
                let says = format!("The light on “{}”", region.name);
                let from = if *known == AmbientSource::Model { "from place and hour" } else { "a guess" };
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
        if let AmbientSource::Read { moved, .. } = known
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

fn camera(lines: &mut Lines, setup: &Prepared<'_>, outcome: &Outcome) {
    let blend = setup.setup.blend;
    let name = |region: usize| setup.setup.regions[region].name.clone();
    let Placed { region, place, ambient_alone } = blend.placed(setup);
    let spilled = outcome.regions[region].flash;
    let mut by_ambient = place;
    if let (false, Some(left)) = (ambient_alone || !spilled.0.is_finite(), spilled.missing_to(place)) {
        by_ambient = left;
        lines.add(
            "Camera",
            format!("Flashes reach “{}” too: its place less what they give", name(region)),
            format!("log₂(2^{} − 2^{})", exact(place), exact(spilled)),
            left.decimals(),
        );
    }
    let wanted = setup.ambient[region] - by_ambient;
    lines.add(
        "Camera",
        format!("The ambient puts “{}” at {}, so the camera stands at", name(region), by_ambient.decimals()),
        format!("{:.3} − ({})", setup.ambient[region].0, exact(by_ambient)).replace('-', "−"),
        wanted.exact_label(),
    );
    let settings = outcome.settings;
    let (t, n) = (settings.shutter.exact, settings.aperture.exact);
    let time = if t < 0.1 { format!("1/{:.1} s", 1.0 / t) } else { format!("{t:.4} s") };
    let mut sum = format!("log₂({n:.3}² / ({time})) − log₂({:.0} / 100)", settings.iso.exact);
    let mut gives = settings.ev100();
    if setup.filter.0 > 0.0 {
        let _ = write!(
            sum,
            " + {:.3} of filter{}",
            setup.filter.0,
            if setup.close_up.is_some() { " and extension" } else { "" }
        );
        gives = gives + setup.filter;
    }
    lines.add("Camera", format!("{} by the dials' exact values", settings.label()), sum, gives.exact_label());
}

/// What a light's lines are about: `Flash`, or with more than one, `Flash B`.
fn about(setup: &Prepared<'_>, light: &PreparedLight<'_>) -> String {
    if setup.lights.len() == 1 { "Flash".to_owned() } else { format!("Flash {}", light.light.id) }
}

/// What is asked of the flashes, region by region.
fn wanted(lines: &mut Lines, setup: &Prepared<'_>, outcome: &Outcome) {
    let blend = setup.setup.blend;
    if !setup.with_flash() {
        lines.add("Flash", format!("{}: no flash", blend.name()), "", "off");
        return;
    }
    for (region, wish) in outcome.wishes.iter().enumerate() {
        let name = &setup.setup.regions[region].name;
        let ambient = outcome.regions[region].ambient;
        match (wish, blend) {
            (FlashWish::Unused, _) => {}
            (FlashWish::AmbientOver(over), _) => {
                lines.add("Flash", format!("The ambient alone is over the place of “{name}” by"), "", over.decimals());
            }
            (FlashWish::Wanted(wanted), Blend::Fill { fill_stops, .. }) if region == setup.lit => {
                let sum = format!("{} + ({})", exact(ambient), exact(Stops(fill_stops)));
                lines.add("Flash", format!("Wanted on “{name}”: so far from its ambient"), sum, wanted.decimals());
            }
            (FlashWish::Wanted(wanted), _) => {
                let place = outcome.targets[region].unwrap_or(Stops::ZERO);
                let sum = format!("log₂(2^{} − 2^{})", exact(place), exact(ambient));
                lines.add("Flash", format!("Wanted on “{name}”: its place less its ambient"), sum, wanted.decimals());
            }
        }
    }
    if setup.lights.is_empty() {
        lines.add("Flash", "The setup has no flash", "", "nothing");
    } else if setup.lights.len() > 1 {
        lines.add(
            "Flash",
            "All lights together, each reaching every region: powers by non-negative least squares",
            "min Σ (Σ A·p − wanted)²/wanted²",
            format!("{} powers", outcome.lights.iter().flatten().count()),
        );
    }
}

fn flash(
    lines: &mut Lines,
    setup: &Prepared<'_>,
    outcome: &Outcome,
    (position, chosen, light): (usize, &PreparedLight<'_>, DialledLight),
    show: Show,
) {
    let about = about(setup, chosen);
    let settings = outcome.settings;
    // By itself it would have to stand here in the frame.
    let share = light.exact.0 - light.power.0 + outcome.regions[chosen.aimed_at].each[position];
    let through = chosen.shutter_loss(setup, light.power, settings.shutter);
    let needed = flash_needed(share, settings, setup.filter) + through;
    let mut sum =
        format!("{} + 2·log₂({:.3}) − log₂({:.0} / 100)", exact(share), settings.aperture.exact, settings.iso.exact);
    if setup.filter.0 > 0.0 {
        let _ = write!(sum, " + {:.3}", setup.filter.0);
    }
    if through.0 > 0.000_5 {
        let what = if chosen.high_speed(setup, settings.shutter).is_some() { "high speed" } else { "its tail" };
        let _ = write!(sum, " + {:.3} of {what}", through.0);
    }
    lines.add(&about, "So the flash must give, on the scale of EV", sum, needed.decimals());
    let gn = chosen.guide_number.0;
    let metres = light.distance.0;
    let mut how = match &chosen.flash.output {
        FlashOutput::GuideNumberMetres(_) => format!("guide number {gn:.0} m"),
        FlashOutput::GuideNumberFeet(read) => format!("guide number {:.0} ft = {gn:.1} m", read.guide_number_ft),
        FlashOutput::GuideNumberZoom(_) => format!("guide number {gn:.1} m at its zoom"),
        FlashOutput::Measured(_) => format!("guide number {gn:.1} m from the reading"),
        FlashOutput::Continuous(_) => String::new(),
    };
    if chosen.light.units > 1 {
        let _ = write!(how, " for {} units, √{0} times one", chosen.light.units);
    }
    let (from, away) = match chosen.reach(light.distance) {
        Some(_) => (1.0, "1 m away on its axis".to_owned()),
        None => (metres, format!("{} away", light.distance.label(show.metres()))),
    };
    lines.add(
        &about,
        format!("{} at full power, {how}, {away}", chosen.flash.name),
        format!("2·log₂({gn:.2} / {from:.3})"),
        Stops(2.0 * (gn / from).log2()).decimals(),
    );
    if let Some(modifier) = chosen.modifier {
        lines.add(&about, format!("{} takes on its axis", modifier.name), "", (-chosen.modifier_loss).decimals());
    }
    if chosen.gel_loss.0 > 0.0 {
        lines.add(&about, "Its gels take", "", (-chosen.gel_loss).decimals());
    }
    if let Some(reach) = chosen.reach(light.distance) {
        let words = match chosen.bounced_part(light.distance) {
            part if part > 0.005 => format!("Reaches its region from where it stands, {:.0} % by bounce", part * 100.0),
            _ => "Reaches its region from where it stands on the set".to_owned(),
        };
        lines.add(&about, words, "log₂ of 1/A·∫cosⁿθ·w/d² dA", reach.decimals());
    } else if let Some(bounced) = chosen.bounced {
        let sum = "Σ ρ·cos·cos/(π·r²) over the patch";
        lines.add(&about, "Bounced, against the head aimed straight", sum, (-bounced.loss).decimals());
    } else {
        let turned = chosen.loss - chosen.modifier_loss - chosen.gel_loss;
        if turned.0 > 0.005 {
            let sum = format!("n·log₂ cos {}°", chosen.light.feather_deg);
            lines.add(&about, "Turned away, so off its axis", sum, (-turned).decimals());
        }
        if chosen.modifier.is_some() {
            let near = chosen.surface.near_field(light.distance);
            lines.add(&about, "Being so large so near, against the inverse square", "form factor", near.decimals());
        }
    }
    let full = chosen.gives(light.distance, Power::FULL);
    lines.add(
        &about,
        "Power: what is needed less what full power gives",
        format!("{} − ({})", exact(needed), exact(full)),
        light.exact.0.decimals(),
    );
    let notation = match show.power() {
        PowerNotation::Fraction => "as a fraction of full power",
        PowerNotation::Stops => "in stops under full power",
    };
    let fixed = if chosen.power.is_some() { "Power as it was fixed" } else { "On the unit's dial" };
    lines.add(&about, format!("{fixed}, {notation}"), light.power.0.decimals(), light.power.label(show.power()));
    for (index, (region, of)) in setup.setup.regions.iter().zip(&outcome.regions).enumerate() {
        let (given, reach) = (of.each[position], chosen.spill(index, light.distance));
        if given.0.is_finite() {
            let sum = if reach.0 == 0.0 {
                format!("{} {}", exact(share), signed_exact(light.power.0 - light.exact.0))
            } else {
                format!("{} {}", exact(given - reach), signed_exact(reach))
            };
            let words =
                if reach.0 == 0.0 { "with the dial's rounding" } else { "reached by so much against its own region" };
            lines.add(&about, format!("What it gives “{}”, {words}", region.name), sum, given.decimals());
        }
    }
}
