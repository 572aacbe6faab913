//! The timetable of falling light as it is sent.

use serde::Serialize;
use utoipa::ToSchema;

use jiff::SignedDuration;
use tolva_core::scale::{Metres, Power};
use tolva_core::time::{clock, span_label};
use tolva_planner::lighting::{Prepared, PreparedLight, PreparedScene};
use tolva_planner::refused::Refused;
use tolva_planner::setup::{Control, Kit, Setup};
use tolva_planner::solver::State;
use tolva_planner::timetable::{End, Leg, Walk};

use crate::leaf::FallingOrder;
use crate::shown::{Said, Show};

/// The timetable of a setup's falling light.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Timetable {
    /// In a sentence: how many changes, and until when.
    pub says: String,
    /// What gives way first.
    pub order: FallingOrder,
    /// The time zone its clocks keep.
    pub time_zone: String,
    /// The settings to begin with, then every change. Never empty.
    pub steps: Vec<FallingStep>,
    /// The last minute the wish can be had; null where the light lasts for the day that was looked at.
    pub last: Option<LastMinute>,
    /// How far it goes, in minutes after the first step: to its last minute, or half an hour past its last change.
    pub end_minute: f64,
    /// Whether cloud or a reading in it is made up by a stand-in.
    pub simulated: bool,
}

/// One change.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct FallingStep {
    /// When, in UTC.
    pub utc: String,
    /// When, on the clocks of the place: `19:58`.
    pub clock: String,
    /// Minutes after the first step.
    pub minute: f64,
    /// What to do: `Shutter 1/200 to 1/125`. The first says what to begin with.
    pub does: Vec<String>,
    /// The shutter: `1/125`.
    pub shutter: String,
    /// The aperture: `f/9`.
    pub aperture: String,
    /// The sensitivity: `ISO 100`.
    pub iso: String,
    /// The flash: `A at 1/8, 1.5 m`; `A off`; null without one.
    pub flash: Option<String>,
    /// For how long it holds, in minutes.
    pub holds_min: f64,
    /// The same, as said: `9 min`.
    pub holds: String,
    /// Where each region comes out when the step begins.
    pub regions: Vec<RegionThen>,
    /// What to know: `The shutter is at its floor.`
    pub notes: Vec<String>,
}

/// Where a region comes out.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct RegionThen {
    /// What it is called.
    pub name: String,
    /// Ambient and flash together.
    pub together: Said,
    /// Its light: `EV 11.2`.
    pub ev: String,
}

/// The end of it.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct LastMinute {
    /// When, in UTC.
    pub utc: String,
    /// On the clocks of the place.
    pub clock: String,
    /// Minutes after the first step.
    pub minute: f64,
    /// Why: which limits are reached, and that waiting no longer helps.
    pub says: String,
}

/// The timetable of a setup, from its hour to the last usable minute, a day at most.
///
/// # Errors
/// A setup without place and hour, or one that cannot be planned.
pub fn falling(setup: &Setup, kit: &Kit, show: Show) -> Result<Timetable, Refused> {
    let prepared = Prepared::new(setup, kit)?;
    let scene = prepared.scene.as_ref().ok_or(Refused::NoScene)?;
    let walk = Walk::new(&prepared, scene);
    Ok(timetable(&prepared, scene, &walk, show))
}

/// What is shown after the last change where the light lasts.
const AFTER_LAST_CHANGE_MIN: f64 = 30.0;
/// With less than this between two changes, nobody keeps up. Common practice, no source.
const TOO_QUICK_MIN: usize = 2;

/// The timetable of a walk that is made.
pub(crate) fn timetable(setup: &Prepared<'_>, scene: &PreparedScene<'_>, walk: &Walk<'_>, show: Show) -> Timetable {
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
        order: walk.order.into(),
        time_zone: scene.scene.site.time_zone.clone(),
        end_minute: last
            .as_ref()
            .map_or_else(|| steps.last().map_or(0.0, |step| step.minute) + AFTER_LAST_CHANGE_MIN, |last| last.minute),
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
    setup: &'a Prepared<'a>,
    scene: &'a PreparedScene<'a>,
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

    fn flash(&self, light: &PreparedLight<'_>, at: Option<(Metres, Power)>) -> String {
        let letter = &light.light.id;
        match at {
            None => format!("{letter} off"),
            Some((distance, _)) if light.light.control == Control::Ttl => {
                format!("{letter} automatic, {}", distance.label(self.show.metres()))
            }
            Some((distance, power)) => {
                format!("{letter} at {}, {}", power.label(self.show.power()), distance.label(self.show.metres()))
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
                    let label = |power: Power| power.label(self.show.power());
                    if light.light.control != Control::Ttl && (p.0 - q.0).0.abs() > 1e-6 {
                        all.push(format!("{letter} {} to {}", label(*p), label(*q)));
                    }
                    if (near.0 - far.0).abs() > 1e-6 {
                        all.push(format!("{letter} back to {}", far.label(self.show.metres())));
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
