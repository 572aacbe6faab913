//! The walk put into words.

use jiff::SignedDuration;

use super::walk::{End, Leg, State, Walk};
use super::{FallingStep, LastMinute, RegionThen, Timetable};
use crate::blend::plan::Show;
use crate::job::{CheckedLight, CheckedScene, CheckedSetup, Control};
use tolva_core::ambient::{clock, span_label};
use tolva_core::scale::{Metres, Power};

/// With less than this between two changes, nobody keeps up. Common practice, no source.
const TOO_QUICK_MIN: usize = 2;

pub(super) fn timetable(setup: &CheckedSetup<'_>, scene: &CheckedScene<'_>, walk: &Walk<'_>, show: Show) -> Timetable {
    let words = Words { setup, scene, walk, show };
    let mut steps: Vec<FallingStep> = Vec::new();
    let mut told = Told::default();
    for (index, leg) in walk.legs.iter().enumerate() {
        let before = index.checked_sub(1).map(|before| &walk.legs[before].state);
        steps.push(words.step(leg, before, &mut told));
    }
    let last = words.last();
    let simulated = scene.scene.weather.is_simulated()
        || setup.setup.regions.iter().any(|region| region.ambient.last().is_some_and(|taken| taken.simulated));
    Timetable {
        says: words.summary(last.as_ref()),
        order: walk.order,
        time_zone: scene.scene.site.time_zone.clone(),
        steps,
        last,
        simulated,
    }
}

/// What is said only once.
#[derive(Default)]
struct Told {
    floor: bool,
    lowest: bool,
    quick: bool,
}

struct Words<'a> {
    setup: &'a CheckedSetup<'a>,
    scene: &'a CheckedScene<'a>,
    walk: &'a Walk<'a>,
    show: Show,
}

impl Words<'_> {
    fn instant(&self, minute: usize) -> jiff::Timestamp {
        self.walk.begin + SignedDuration::from_mins(i64::try_from(minute).unwrap_or(i64::MAX))
    }

    fn clock(&self, minute: usize) -> String {
        clock(&self.scene.light.zone, self.instant(minute))
    }

    #[expect(clippy::cast_precision_loss, reason = "minutes of a day")]
    fn step(&self, leg: &Leg, before: Option<&State>, told: &mut Told) -> FallingStep {
        let state = &leg.state;
        let holds = leg.to + 1 - leg.from;
        let regions = self.setup.setup.regions.iter().enumerate().map(|(index, region)| RegionThen {
            name: region.name.clone(),
            together: self.walk.together(state, leg.from, index).into(),
            ev: self.walk.light[leg.from][index].label(),
        });
        FallingStep {
            utc: self.instant(leg.from).to_string(),
            clock: self.clock(leg.from),
            minute: leg.from as f64,
            does: before.map_or_else(|| self.begins(state), |before| self.changes(before, state)),
            shutter: state.settings.shutter.label(),
            aperture: state.settings.aperture.label(),
            iso: state.settings.iso.label(),
            flash: (!self.setup.lights.is_empty()).then(|| self.flashes(state).join("; ")),
            holds_min: holds as f64,
            holds: span_label(holds as f64),
            regions: regions.collect(),
            notes: self.notes(leg, before, told),
        }
    }

    /// What stands on each flash.
    fn flashes(&self, state: &State) -> Vec<String> {
        let lights = self.setup.lights.iter().zip(&state.flashes);
        lights.map(|(light, at)| self.flash(light, *at)).collect()
    }

    fn flash(&self, light: &CheckedLight<'_>, at: Option<(Metres, Power)>) -> String {
        let letter = &light.light.id;
        match at {
            None => format!("{letter} off"),
            Some((distance, _)) if light.light.control == Control::Automatic => {
                format!("{letter} automatic, {}", distance.label(self.show.length))
            }
            Some((distance, power)) => {
                format!("{letter} at {}, {}", power.label(self.show.power), distance.label(self.show.length))
            }
        }
    }

    fn begins(&self, state: &State) -> Vec<String> {
        let mut all = vec![state.settings.label()];
        all.extend(self.flashes(state));
        all
    }

    fn changes(&self, from: &State, to: &State) -> Vec<String> {
        let mut all = Vec::new();
        let (a, b) = (from.settings, to.settings);
        let mut change = |name: &str, from: String, to: String| {
            if from != to {
                all.push(format!("{name} {from} to {to}").trim_start().to_owned());
            }
        };
        change("Shutter", a.shutter.label(), b.shutter.label());
        change("Aperture", a.aperture.label(), b.aperture.label());
        change("", a.iso.label(), b.iso.label());
        for (light, (from, to)) in self.setup.lights.iter().zip(from.flashes.iter().zip(&to.flashes)) {
            let letter = &light.light.id;
            match (from, to) {
                (Some((near, p)), Some((far, q))) => {
                    let label = |power: Power| power.label(self.show.power);
                    if light.light.control != Control::Automatic && (p.0 - q.0).0.abs() > 1e-6 {
                        all.push(format!("{letter} {} to {}", label(*p), label(*q)));
                    }
                    if (near.0 - far.0).abs() > 1e-6 {
                        all.push(format!("{letter} back to {}", far.label(self.show.length)));
                    }
                }
                (None, Some(_)) => all.push(format!("Switch on {}", self.flash(light, *to))),
                (Some(_), None) => all.push(format!("{letter} off")),
                (None, None) => {}
            }
        }
        all
    }

    fn notes(&self, leg: &Leg, before: Option<&State>, told: &mut Told) -> Vec<String> {
        let mut notes = Vec::new();
        let state = &leg.state;
        if !leg.met {
            notes.push("Not yet as wished: the light that is there is too bright. Wait.".to_owned());
        }
        if self.walk.at_floor(state) && !told.floor && before.is_some() {
            told.floor = true;
            notes.push(format!(
                "The shutter is at its floor, {}. From here ISO rises and the flash goes down by as much.",
                self.setup.slowest.label()
            ));
        }
        if let (Some(light), false) = (self.walk.at_lowest_power(state), told.lowest) {
            told.lowest = true;
            let letter = &light.light.id;
            notes.push(format!(
                "{letter} is at its lowest power. When it is too strong, move it back, or put a neutral gel on it."
            ));
        }
        if before.is_some() && leg.met && leg.to + 1 - leg.from < TOO_QUICK_MIN && !told.quick {
            told.quick = true;
            notes.push("The light now goes faster than settings can follow: take what you came for.".to_owned());
        }
        notes
    }

    #[expect(clippy::cast_precision_loss, reason = "minutes of a day")]
    fn last(&self) -> Option<LastMinute> {
        let leg = self.walk.legs.last()?;
        let state = &leg.state;
        let limits = match self.walk.end {
            End::Lasts => return None,
            End::TooDark => {
                let mut limits = Vec::new();
                if self.walk.at_floor(state) {
                    limits.push(format!("The shutter is at its floor, {}", self.setup.slowest.label()));
                }
                if self.walk.at_highest_iso(state) {
                    limits.push(format!("{} is the highest", state.settings.iso.label()));
                }
                if limits.is_empty() {
                    limits.push("What is fixed leaves no brighter setting".to_owned());
                }
                limits.join(" and ")
            }
            End::Flash => match (self.walk.at_lowest_power(state), self.setup.lights.first()) {
                (Some(light), _) => format!("{} is too strong at its lowest power", light.light.id),
                (None, Some(light)) => format!("{} cannot follow any more", light.light.id),
                (None, None) => "What is fixed leaves no better setting".to_owned(),
            },
        };
        let never = if leg.met { "" } else { "It was never as wished: " };
        Some(LastMinute {
            utc: self.instant(leg.to).to_string(),
            clock: self.clock(leg.to),
            minute: leg.to as f64,
            says: format!(
                "{never}{limits}. After {} the light that is there is no longer worth waiting for.",
                self.clock(leg.to)
            ),
        })
    }

    #[expect(clippy::cast_precision_loss, reason = "minutes of a day")]
    fn summary(&self, last: Option<&LastMinute>) -> String {
        let changes = self.walk.legs.len() - 1;
        if !self.scene.light.is_daylight() {
            return "Lamps do not fall with the sun: nothing to change.".to_owned();
        }
        let count = match changes {
            0 => "No change".to_owned(),
            1 => "One change".to_owned(),
            more => format!("{more} changes"),
        };
        match last {
            Some(last) => format!(
                "{count} in {}; the last usable minute is {}.",
                span_label(self.walk.legs.last().map_or(0.0, |leg| leg.to as f64)),
                last.clock
            ),
            None => format!("{count} in a day; the light lasts."),
        }
    }
}
