//! The flashes on the dial card, and what there is to know of each.

use std::sync::Arc;

use tolva_planner::depth::Sharp;
use tolva_planner::lighting::{FlashWish, Prepared, PreparedLight};
use tolva_planner::setup::{FlashIndex, FlashOutput, Light, LightIndex, LightWish};
use tolva_planner::solver::{DialledLight, Outcome};
use tolva_planner::staging::Stage;

use crate::names::Named;
use crate::plan::LightCard;
use crate::shown::{Fact, Show};
use crate::words::softness_word;
use tolva_core::flash::{t01_s, tail_loss};
use tolva_core::modifier::{angle_deg, falloff, step_back};
use tolva_core::scale::{Metres, Stops};

/// Under so much falloff a group counts as evenly lit. Common practice, no source.
const EVEN: Stops = Stops(1.0 / 3.0);
/// A tail of a flash that takes more than this is told: less is lost in the power dial's rounding.
const TOLD_TAIL: f64 = 0.1;
/// A bare head is so wide.
const HEAD_M: f64 = 0.07;

pub(crate) fn light_cards(setup: &Prepared<'_>, outcome: &Outcome, show: Show) -> Vec<LightCard> {
    setup
        .setup
        .each_light()
        .map(|(index, light)| match setup.flash_of(index) {
            Some(flash) => of_flash(setup, outcome, flash, show),
            None => of_lamp(setup, index, light, show),
        })
        .collect()
}

fn unit(light: &Light, name: &str) -> String {
    if light.units > 1 { format!("{} × {name}", light.units) } else { name.to_owned() }
}

fn of_flash(setup: &Prepared<'_>, outcome: &Outcome, place: FlashIndex, show: Show) -> LightCard {
    let (light, at) = (&setup.lights[place], outcome.lights[place]);
    let bare = || if light.bounced.is_some() { "Bounced".to_owned() } else { "Bare head".to_owned() };
    LightCard {
        light_id: light.light.id.clone(),
        role: light.light.wish.name().to_owned(),
        aimed_at: setup.setup.regions[light.aimed_at].name.clone(),
        continuous: false,
        flash: unit(light.light, &light.flash.name),
        modifier: light.modifier.map_or_else(bare, |modifier| modifier.name.clone()),
        control: light.light.control.into(),
        power: at.map(|at| at.power.label(show.power())),
        power_stops: at.map(|at| at.power.0.0),
        power_exact: at.map(|at| at.exact.0.decimals()),
        power_fixed: light.power.is_some(),
        distance: at.map(|at| at.distance.label(show.metres())),
        distance_m: at.map(|at| at.distance.0),
        distance_fixed: light.light.distance_m.is_some(),
        loss: (-light.loss).decimals(),
        near_field: at.filter(|_| !light.is_on_set()).map(|at| light.near_field(at.distance).decimals()),
        compensation: match (outcome.wishes[light.aimed_at], at) {
            // The compensation stands for what the flash gives by itself, from where metering puts it: mid grey.
            (FlashWish::Wanted(wanted), Some(_)) if light.light.wish == LightWish::Key => Some(wanted.into()),
            (_, Some(_)) => Some(outcome.regions[light.aimed_at].each[place.0].into()),
            _ => None,
        },
        facts: at.map_or_else(Vec::new, |at| facts(setup, outcome, light, at, show)),
    }
}

/// A continuous lamp: its power and distance are what they are.
fn of_lamp(setup: &Prepared<'_>, index: LightIndex, light: &Light, show: Show) -> LightCard {
    let lamp = setup.lamps.iter().find(|lamp| lamp.index == index);
    let name = lamp.map_or("", |lamp| lamp.flash.name.as_str());
    let bounced = lamp.and_then(|lamp| lamp.bounced);
    let bare = if bounced.is_some() { "Bounced" } else { "Bare" };
    let modifier = lamp.and_then(|lamp| lamp.modifier).map_or(bare, |modifier| modifier.name.as_str());
    let power = lamp.and_then(|lamp| lamp.power);
    let distance = lamp.map_or(Metres(setup.setup.camera_distance_m), |lamp| lamp.distance);
    let aimed = light.aimed_at.as_ref().and_then(|id| setup.setup.regions.iter().find(|region| &region.id == id));
    LightCard {
        light_id: light.id.clone(),
        role: "lamp".to_owned(),
        aimed_at: aimed.unwrap_or(&setup.setup.regions[setup.lit]).name.clone(),
        continuous: true,
        flash: unit(light, name),
        modifier: modifier.to_owned(),
        control: light.control.into(),
        power: power.map(|power| power.label(show.power())),
        power_stops: power.map(|power| power.0.0),
        power_exact: None,
        power_fixed: light.power_stops.is_some(),
        distance: Some(distance.label(show.metres())),
        distance_m: Some(distance.0),
        distance_fixed: true,
        loss: lamp.map_or(Stops::ZERO, |lamp| -lamp.loss).decimals(),
        near_field: lamp.map(|lamp| lamp.near_field.decimals()),
        compensation: None,
        facts: std::iter::once(Fact::new(
            "burns_on",
            "Burns on",
            "counts as ambient: the shutter and the white balance see it",
        ))
        .chain(bounced.map(|bounced| bounce_fact(bounced.loss, Stops::ZERO)))
        .collect(),
    }
}

/// What a bounce costs.
fn bounce_fact(bounce: Stops, modifier: Stops) -> Fact {
    let with = if modifier.0 == 0.0 { "" } else { ", with what is on the head" };
    Fact::new(
        "bounce",
        "Bounce",
        format!("costs {} against the head aimed straight{with}", (bounce + modifier).amount()),
    )
    .with("loss_stops", bounce.0 + modifier.0)
}

/// What else there is to know of a flash that is on.
fn facts(
    setup: &Prepared<'_>,
    outcome: &Outcome,
    light: &PreparedLight<'_>,
    at: DialledLight,
    show: Show,
) -> Vec<Fact> {
    let mut all = Vec::new();
    if let Some(bounced) = light.bounced {
        all.push(bounce_fact(bounced.loss, light.modifier_loss));
    }
    let width = if light.surface.largest().0 > 0.0 { light.surface.largest() } else { Metres(HEAD_M) };
    let seen = |stage: &Arc<Stage>| {
        stage
            .glow(light.index, at.distance)
            .angle_deg(stage.receptors[light.aimed_at].at)
            .max(angle_deg(Metres(HEAD_M), at.distance))
    };
    let straight = || setup.stage.as_ref().map_or_else(|| angle_deg(width, at.distance), seen);
    let angle = light.bounced.map_or_else(straight, |bounced| bounced.angle_deg);
    all.push(
        Fact::new("softness", "Softness", format!("{}, {angle:.0}° wide from there", softness_word(angle)))
            .with("angle_deg", angle),
    );
    if let Some((near, far)) = Sharp::of(setup).span.filter(|_| light.aimed_at == setup.lit && !light.is_on_set()) {
        let deep = Metres(far.0 - near.0);
        let back = Metres(at.distance.0 + deep.0);
        // Bounced light falls off from the ceiling or wall it comes back from.
        let bounced = light.light.bounce.map(|bounce| bounce.falloff(at.distance, back));
        let lost = bounced.unwrap_or_else(|| falloff(at.distance, back));
        let even = step_back(deep, EVEN);
        let says = if bounced.is_some() && lost > EVEN {
            format!("the back gets {} less, off what it comes back from", lost.amount())
        } else if lost <= EVEN {
            format!("{} stops from front to back", lost.decimals().trim_start_matches('+'))
        } else {
            let from = even.label(show.metres());
            format!("the back gets {} less; from {from} it is under a third", lost.amount())
        };
        all.push(Fact::new("falloff", "Falloff", says).with("falloff_stops", lost.0));
    }
    if light.light.feather_deg > 0.0 && light.bounced.is_none() {
        all.push(
            Fact::new("turned", "Turned", format!("{}° away", light.light.feather_deg))
                .with("feather_deg", light.light.feather_deg),
        );
    }
    if let Some(t01) = t01_s(&light.flash.durations, at.power) {
        // In high-speed sync it is a train of pulses, and nothing is cut off.
        let tail = tail_loss(&light.flash.durations, at.power, outcome.settings.shutter);
        let cut = if light.high_speed(setup, outcome.settings.shutter).is_none() && tail.0 > TOLD_TAIL {
            format!(", longer than the shutter: {} is lost, and reckoned with", tail.amount())
        } else {
            String::new()
        };
        all.push(
            Fact::new("burns", "Burns", format!("1/{:.0} s (t₀.₁){cut}", round_to_two(1.0 / t01)))
                .with("t01_s", t01)
                .with("tail_stops", tail.0),
        );
    }
    if light.recycling.full_s > 0.0 {
        all.push(
            Fact::new(
                "ready_again",
                "Ready again",
                format!("after {:.1} s", light.recycling.time_s(at.power).max(0.05)),
            )
            .with("ready_s", light.recycling.time_s(at.power)),
        );
    }
    if let Some(high_speed) = light.high_speed(setup, outcome.settings.shutter) {
        all.push(
            Fact::new("high_speed", "High speed", format!("takes {}; one frame at a time", high_speed.amount()))
                .with("loss_stops", high_speed.0),
        );
    }
    if let FlashOutput::GuideNumberZoom(_) = &light.flash.output {
        let zoom = light.light.zoom_mm.map_or_else(|| "at its widest".to_owned(), |zoom| format!("at {zoom} mm"));
        all.push(
            Fact::new("zoom", "Zoom", format!("{zoom}, guide number {:.0} m", light.guide_number.0))
                .with("guide_number_m", light.guide_number.0),
        );
    }
    if light.light.on_camera && light.bounced.is_none() && at.distance.0 < NEAR_ONES_M {
        all.push(Fact::new(
            "on_the_camera",
            "On the camera",
            "lights the near ones too much: step back, or turn it up",
        ));
    }
    all
}

/// Nearer than this a flash on the camera shows on those in front. Common practice, no source.
const NEAR_ONES_M: f64 = 1.5;

/// A number to two figures, as a table would give it.
fn round_to_two(number: f64) -> f64 {
    let scale = 10.0_f64.powf(number.log10().floor() - 1.0);
    (number / scale).round() * scale
}
