//! A few truly different ways to the same wish: what each costs, and why the first is first.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::binding::binds;
use super::outcome::Outcome;
use super::plan::{Fact, Show};
use super::preference::{Preference, Weights};
use super::sharpness::Sharp;
use super::words::{light_at, lower_first};
use crate::job::{CheckedSetup, Depth, Kit, LightWish, Problems, Setup, Sync};
use crate::scale::{DialEnd, Metres, Stops};

/// So many stops wider or smaller are a picture of another depth. Common practice, no source.
const ANOTHER_DEPTH: f64 = 4.0 / 3.0;
/// For a soft background at the sync speed: so many stops wider.
const WIDE_OPEN: f64 = 3.0;

/// The ways, the best first.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Alternatives {
    /// Why the first is first, in a sentence.
    pub why: String,
    /// The limit that binds the setup as it is; null where none does.
    pub binds: Option<String>,
    /// The ways.
    pub ways: Vec<Alternative>,
}

/// One way.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Alternative {
    /// What it is called: `In high-speed sync`.
    pub name: String,
    /// Whether it is the setup as it is.
    pub current: bool,
    /// Whether the wish can be had.
    pub possible: bool,
    /// What to set: `1/200, f/9, ISO 100, A at 1/8`.
    pub settings: String,
    /// What it costs or gains against the setup as it is: noise, pace, battery, depth.
    pub costs: Vec<Fact>,
    /// The setup with this done.
    pub setup: Setup,
}

/// What a way changes: of each kind the best is shown.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Kind {
    AsItIs,
    AtSync,
    Filter,
    HighSpeed,
    Nearer,
    MoreLight,
    HigherIso,
    MoreDepth,
    LessDepth,
}

/// What counts in a comparison.
#[derive(Clone, Copy, Debug, PartialEq)]
struct Measures {
    missing: f64,
    iso: f64,
    /// The highest power of any light, in stops under full.
    power: f64,
    recycle_s: f64,
    battery: f64,
    aperture: f64,
    /// How far the aperture is from what the depth asks for, in stops.
    depth_off: f64,
    filter: f64,
    high_speed: bool,
    units: f64,
}

impl Measures {
    fn of(setup: &CheckedSetup<'_>, outcome: &Outcome) -> Self {
        let on = || setup.lights.iter().zip(&outcome.lights).filter_map(|(light, at)| at.map(|at| (light, at)));
        let sharp = Sharp::of(setup);
        let aperture = outcome.settings.aperture.position();
        let short = sharp.least.map_or(0.0, |least| (least - aperture).0.max(0.0));
        let away = sharp.target.map_or(0.0, |target| (target - aperture).0.abs());
        Self {
            missing: outcome.missing(),
            iso: (outcome.settings.iso.position() - setup.isos.end(DialEnd::Low).position()).0,
            power: on().map(|(_, at)| at.power.0.0).fold(-12.0, f64::max),
            recycle_s: on().map(|(light, at)| light.recycling.time_s(at.power)).fold(0.0, f64::max),
            battery: on()
                .filter_map(|(light, at)| light.recycling.frames_in_battery(at.power))
                .fold(f64::INFINITY, f64::min),
            aperture: aperture.0,
            depth_off: short.max(away),
            filter: setup.density.0,
            high_speed: setup.setup.sync == Sync::HighSpeed,
            units: setup.lights.iter().map(|light| light.guide_number.0).sum(),
        }
    }

    /// Points a stop, weighed by the person's order. Common practice, no source.
    fn points(&self, weights: Weights<'_>, as_it_is: &Self) -> f64 {
        let weight = |of| weights.get(of);
        100.0 * self.missing
            + weight(Preference::LowIso) * self.iso
            + weight(Preference::Depth) * self.depth_off
            + weight(Preference::LowPower) * 0.25 * (self.power + 7.0).max(0.0)
            + weight(Preference::Pace) * 0.5 * (self.recycle_s / 0.5).max(0.25).log2()
            + weight(Preference::NoFilter) * if self.filter > 0.0 { 0.8 } else { 0.0 }
            + if self.high_speed { 0.6 } else { 0.0 }
            // More to carry.
            + if self.units > as_it_is.units * 1.05 { 1.0 } else { 0.0 }
    }

    /// What is different, in words.
    fn against(&self, other: &Self) -> Vec<Fact> {
        let mut all = Vec::new();
        let mut say = |about: &str, change: f64, more: &str, less: &str| {
            if change.abs() > 0.15 {
                let how = if change > 0.0 { more } else { less };
                all.push(Fact::new(about, format!("{} {how}", Stops(change).amount())));
            }
        };
        say("Noise", self.iso - other.iso, "more ISO", "less ISO");
        say("Depth", self.aperture - other.aperture, "smaller: more is sharp", "wider: less is sharp");
        say("Power", self.power - other.power, "more", "less");
        if (self.recycle_s - other.recycle_s).abs() > 0.05 {
            all.push(Fact::new(
                "Pace",
                format!("ready after {:.1} s instead of {:.1} s", self.recycle_s, other.recycle_s),
            ));
        }
        let relative = self.battery / other.battery;
        if relative.is_finite() && !(0.9..1.1).contains(&relative) {
            all.push(Fact::new("Battery", format!("{:.0} frames instead of {:.0}", self.battery, other.battery)));
        }
        if (self.filter - other.filter).abs() > 0.05 {
            let dark = if self.filter > other.filter { "a darker finder, slower focus" } else { "a brighter finder" };
            all.push(Fact::new("Filter", dark));
        }
        if self.units > other.units * 1.05 {
            all.push(Fact::new("To carry", "a stronger unit, or one more"));
        }
        if self.high_speed && !other.high_speed {
            all.push(Fact::new("High speed", "no bursts; the ambient and the flash fall together"));
        }
        all
    }
}

/// The ways to a setup's wish, the best first.
///
/// # Errors
/// Everything that is wrong with the kit or the setup, with pointers that begin with `/kit` and `/setup`.
pub fn alternatives(setup: &Setup, kit: &Kit, show: Show) -> Result<Alternatives, Problems> {
    let checked = CheckedSetup::new(setup, kit)?;
    let outcome = Outcome::of(&checked);
    let as_it_is = Measures::of(&checked, &outcome);
    let weights = Weights::of(setup);
    let mut found: Vec<(f64, Measures, Alternative)> = Vec::new();
    let mut kinds: Vec<Kind> = Vec::new();
    let mut ways = vec![(Kind::AsItIs, "As it is".to_owned(), setup.clone())];
    ways.extend(candidates(&checked, &outcome, kit, show));
    for (index, (kind, name, other)) in ways.into_iter().enumerate() {
        let Ok(checked) = CheckedSetup::new(&other, kit) else { continue };
        let outcome = Outcome::of(&checked);
        let measures = Measures::of(&checked, &outcome);
        let settings = format!("{}{}", outcome.settings.label(), light_at(&checked, &outcome, show.power));
        // What cannot be had either, and what comes to the same dials, is no alternative.
        let same = found.iter().any(|(_, _, one)| one.settings == settings && one.setup.filter_ids == other.filter_ids);
        if index > 0 && (same || measures.missing > as_it_is.missing + 1e-6) {
            continue;
        }
        let costs = if index == 0 { Vec::new() } else { measures.against(&as_it_is) };
        let possible = outcome.gaps.is_empty();
        drop(checked);
        let one = Alternative { name, current: index == 0, possible, settings, costs, setup: other };
        let entry = (measures.points(weights, &as_it_is), measures, one);
        match kinds.iter().position(|other| *other == kind) {
            Some(at) if found[at].0 <= entry.0 => {}
            Some(at) => found[at] = entry,
            None => {
                kinds.push(kind);
                found.push(entry);
            }
        }
    }
    found.sort_by(|a, b| a.0.total_cmp(&b.0));
    let why = why(&found, setup);
    Ok(Alternatives { why, binds: binds(&checked, &outcome), ways: found.into_iter().map(|(_, _, one)| one).collect() })
}

/// Why the first is first: what it has over the second.
fn why(found: &[(f64, Measures, Alternative)], setup: &Setup) -> String {
    let Some((_, first, named)) = found.first() else { return String::new() };
    let Some((_, second, _)) = found.get(1) else { return format!("“{}”: there is no other way.", named.name) };
    let reasons = [
        (second.missing - first.missing, 0.1, "it comes nearest to what is wished"),
        (second.depth_off - first.depth_off, 0.2, "it keeps the depth that is wished"),
        (second.iso - first.iso, 0.2, "it keeps the ISO low"),
        (second.recycle_s - first.recycle_s, 0.1, "its flashes are ready sooner"),
        (second.power - first.power, 0.2, "it asks less power of the flashes"),
        (second.filter - first.filter, 0.1, "it needs no filter"),
        (f64::from(u8::from(second.high_speed && !first.high_speed)), 0.5, "it needs no high-speed sync"),
        (second.units - first.units, 1.0, "it needs no more light than is there"),
    ];
    let because =
        reasons.iter().find(|(more, enough, _)| more > enough).map_or("it is the simplest", |(_, _, why)| *why);
    let order = setup
        .preferences
        .as_ref()
        .and_then(|order| order.first())
        .map_or_else(String::new, |first| format!(" “{}” comes first in your order.", first.name()));
    format!("“{}” comes first: {because}.{order}", named.name)
}

/// Setups worth trying, each with what it is called.
fn candidates(setup: &CheckedSetup<'_>, outcome: &Outcome, kit: &Kit, show: Show) -> Vec<(Kind, String, Setup)> {
    let mut all = Vec::new();
    let mut add = |kind: Kind, name: String, change: &dyn Fn(&mut Setup)| {
        let mut other = setup.setup.clone();
        change(&mut other);
        all.push((kind, name, other));
    };
    let settings = outcome.settings;
    let flash = setup.setup.blend.uses_flash() && !setup.lights.is_empty();
    let wide = setup.apertures.nearest(settings.aperture.position() - Stops(WIDE_OPEN));
    let wider = |s: &mut Setup| s.fixed.f_number = Some(wide.nominal);
    let is_wide = (settings.aperture.position() - wide.position()).0 < 0.5;
    if flash {
        if setup.setup.sync == Sync::HighSpeed || setup.density.0 > 0.0 {
            add(Kind::AtSync, "At the sync speed, nothing on the lens".to_owned(), &|s| {
                s.sync = Sync::Ordinary;
                s.filter_ids.clear();
                s.fixed.f_number = None;
                s.fixed.shutter_s = None;
            });
        }
        if !is_wide {
            for filter in kit.filters.iter().filter(|filter| !setup.setup.filter_ids.contains(&filter.id)).take(3) {
                add(Kind::Filter, format!("At {} with the {}", wide.label(), lower_first(&filter.name)), &|s| {
                    s.sync = Sync::Ordinary;
                    s.filter_ids = vec![filter.id.clone()];
                    wider(s);
                });
            }
            add(Kind::HighSpeed, format!("At {} in high-speed sync", wide.label()), &|s| {
                s.sync = Sync::HighSpeed;
                s.filter_ids.clear();
                s.fixed.shutter_s = None;
                wider(s);
            });
        }
    }
    for (light, at) in setup.lights.iter().zip(&outcome.lights) {
        let (Some(at), true) = (at, light.light.wish == LightWish::Key && light.bounced.is_none()) else { continue };
        let id = &light.light.id;
        let nearer = Metres((at.distance.0 * 0.7 * 20.0).round() / 20.0);
        if nearer >= light.free_distances().0 {
            add(Kind::Nearer, format!("{id} nearer, at {}", nearer.label(show.length)), &|s| {
                s.lights[light.index].distance_m = Some(nearer.0);
                s.lights[light.index].power_stops = None;
            });
        }
        let stronger = kit.flashes.iter().filter(|flash| flash.id != light.flash.id).find(|flash| {
            let mut other = setup.setup.clone();
            other.lights[light.index].flash_id.clone_from(&flash.id);
            let with = CheckedSetup::new(&other, kit).ok();
            let same = with
                .and_then(|with| with.lights.iter().find(|one| one.index == light.index).map(|one| one.guide_number));
            same.is_some_and(|other| other > light.guide_number)
        });
        if let Some(flash) = stronger {
            add(Kind::MoreLight, format!("With the {}", lower_first(&flash.name)), &|s| {
                s.lights[light.index].flash_id.clone_from(&flash.id);
            });
        }
        if light.light.units < 6 {
            let units = light.light.units + 1;
            add(Kind::MoreLight, format!("{units} of the {} as one", lower_first(&light.flash.name)), &|s| {
                s.lights[light.index].units = units;
            });
        }
    }
    if setup.iso.is_none() {
        let higher = setup.isos.nearest(settings.iso.position() + Stops(1.0));
        add(Kind::HigherIso, format!("At {}, the aperture kept", higher.label()), &|s| {
            s.fixed.iso = Some(higher.nominal);
            s.fixed.f_number = Some(settings.aperture.nominal);
        });
        if flash {
            let smaller = setup.apertures.nearest(settings.aperture.position() + Stops(1.0));
            add(Kind::HigherIso, format!("At {} and {}", higher.label(), smaller.label()), &|s| {
                s.fixed.iso = Some(higher.nominal);
                s.fixed.f_number = Some(smaller.nominal);
            });
        }
    }
    let depths = [(Kind::MoreDepth, "More depth", ANOTHER_DEPTH), (Kind::LessDepth, "Less depth", -ANOTHER_DEPTH)];
    for (kind, name, by) in depths {
        let aperture = setup.apertures.nearest(settings.aperture.position() + Stops(by));
        if setup.aperture.is_none() && setup.setup.depth == Depth::Free {
            add(kind, format!("{name}, {}", aperture.label()), &|s| s.fixed.f_number = Some(aperture.nominal));
        }
    }
    all
}
