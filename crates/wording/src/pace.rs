//! Whether the flashes keep up with the job, and for how long.

use tolva_planner::lighting::Prepared;
use tolva_planner::setup::{Depth, Pace, Sync};
use tolva_planner::solver::Outcome;

use crate::shown::Fact;
use tolva_core::flash::Burst;
use tolva_core::optics::Stack;
use tolva_core::scale::Millimetres;

/// What is asked where nobody has said: a picture every three seconds. Common practice, no source.
const USUAL_S: f64 = 3.0;

/// Recycling, bursts, battery and heat at the powers that were found, in words.
pub(crate) fn facts(setup: &Prepared<'_>, outcome: &Outcome) -> Vec<Fact> {
    let mut all = Vec::new();
    let pace = setup.setup.pace;
    let stack = stack(setup, outcome);
    let every_s = pace.map_or(USUAL_S, |pace| pace.every_s);
    for (light, at) in setup.lights.iter().zip(&outcome.lights) {
        let (Some(at), true) = (at, light.recycling.full_s > 0.0) else { continue };
        let id = &light.light.id;
        let recycling = light.recycling;
        let ready = recycling.time_s(at.power);
        let keeps = match pace {
            Some(_) if ready > every_s => format!(", too slow for a picture every {every_s} s"),
            Some(_) => format!(", quicker than the {every_s} s there are"),
            None => String::new(),
        };
        all.push(
            Fact::new("ready", format!("{id} is ready"), format!("after {ready:.1} s{keeps}")).with("ready_s", ready),
        );
        all.push(Fact::new("burst", format!("{id} in a burst"), burst(setup, pace, recycling, at.power)));
        let frames = stack.map_or(pace.map_or(0, |pace| pace.frames), |stack| stack.frames);
        match recycling.frames_in_battery(at.power) {
            Some(lasts) if f64::from(frames) > lasts => {
                let packs = (f64::from(frames) / lasts).ceil();
                let says = format!("{lasts:.0} frames of {frames}: bring {packs:.0}");
                let fact = Fact::new("battery", format!("{id}, battery"), says);
                all.push(fact.with("frames", lasts).with("batteries", packs));
            }
            Some(lasts) => {
                let says = format!("good for {lasts:.0} frames");
                all.push(Fact::new("battery", format!("{id}, battery"), says).with("frames", lasts));
            }
            None => all.push(Fact::new("on_mains", format!("{id}, battery"), "on mains")),
        }
        if let Some(rest) = recycling.frames_until_rest(at.power, every_s) {
            let minutes = recycling.rest_s / 60.0;
            let heat =
                format!("after {rest:.0} frames every {every_s} s the head rests {minutes:.0} min (by its maker)");
            all.push(
                Fact::new("heat", format!("{id}, heat"), heat).with("frames", rest).with("rest_s", recycling.rest_s),
            );
        }
    }
    if let (Some(stack), Some(slowest)) = (stack, slowest_s(setup, outcome)) {
        let seconds = f64::from(stack.frames) * slowest.max(1.0 / setup.camera.frames_per_s);
        all.push(Fact::new(
            "the_stack",
            "The stack",
            format!("{} frames take about {seconds:.0} s with recycling", stack.frames),
        ));
    }
    all
}

fn burst(
    setup: &Prepared<'_>,
    pace: Option<Pace>,
    recycling: tolva_core::flash::Recycling,
    power: tolva_core::scale::Power,
) -> String {
    if setup.setup.sync == Sync::HighSpeed {
        return "none in high-speed sync: one frame at a time".to_owned();
    }
    let rate = setup.camera.frames_per_s;
    let asked = pace.map_or(1, |pace| pace.burst_frames);
    match recycling.burst(power, rate) {
        Burst::ForEver => format!("follows {rate} frames a second for as long as the battery"),
        Burst::RunsDryAfter(frames) if frames >= asked && asked > 1 => {
            format!("{frames} frames at {rate} a second: enough for {asked}")
        }
        Burst::RunsDryAfter(frames) if asked > 1 => {
            format!("dry after {frames} frames at {rate} a second, {asked} are asked")
        }
        Burst::RunsDryAfter(frames) => format!("dry after {frames} at {rate} frames a second"),
    }
}

/// The stack of a setup that takes one.
fn stack(setup: &Prepared<'_>, outcome: &Outcome) -> Option<Stack> {
    match (setup.setup.depth, setup.close_up) {
        (Depth::CloseUp { depth_mm, stacked: true, overlap, .. }, Some(close)) => Some(close.stack(
            Millimetres(depth_mm),
            outcome.settings.aperture.exact,
            setup.circle_of_confusion,
            overlap,
        )),
        _ => None,
    }
}

/// The longest any flash takes to be ready.
fn slowest_s(setup: &Prepared<'_>, outcome: &Outcome) -> Option<f64> {
    let lights = setup.lights.iter().zip(&outcome.lights);
    lights.filter_map(|(light, at)| at.map(|at| light.recycling.time_s(at.power))).reduce(f64::max)
}
