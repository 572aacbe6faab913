//! Windows of light: from when to when the wish of a setup can be had, and how well.

use tolva_core::ambient::LightNow;
use tolva_core::exposure::Ev;
use tolva_core::scale::{Iso, Power, Setting, Stops};

use super::minute::{DayMinute, Stretch};
use crate::lighting::Prepared;
use crate::shortfall::{Limit, shortfalls};
use crate::solver::Outcome;
use jiff::Timestamp;

/// So many minutes lie between the moments that are told of; where a window opens or closes is found to the minute.
pub const TOLD_MIN: u32 = 10;
/// Light that differs by no more than this on each region is solved once. Less than a fifth of a click.
const SAME_LIGHT: f64 = 0.06;

/// So many stops over ISO 100 a wish is had at a price: ISO 6400. Common practice, no source.
const DEAR_ISO_STOPS: f64 = 6.0;

/// How well a wish can be had at a minute.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Moment {
    /// Minutes from where the day begins.
    pub minute: DayMinute,
    /// What is missing, in stops; nothing where all can be had.
    pub missing: Option<Stops>,
    /// The limit that is run into first; nothing where the target is within reach.
    pub limit: Option<Limit>,
    /// The ISO it takes.
    pub iso: Setting<Iso>,
    /// What the flash that works hardest has left to full power, in stops; nothing where none is on.
    pub power_left: Option<Stops>,
}

impl Moment {
    /// Whether the wish can be had.
    pub fn can(&self) -> bool {
        self.missing.is_none()
    }

    /// How easily, from 0 where it cannot be had or only just, to 1 at ISO 100 or less with two stops of flash left: by the
    /// one of the two that is nearer to its end, [`DEAR_ISO_STOPS`] over ISO 100 or full power. Common practice, no source.
    pub fn ease(&self) -> f64 {
        if !self.can() {
            return 0.0;
        }
        let of_iso = 1.0 - self.iso.position().0 / DEAR_ISO_STOPS;
        let of_power = self.power_left.map_or(1.0, |left| left.0 / 2.0);
        of_iso.min(of_power).clamp(0.0, 1.0)
    }
}

/// The light of a setup over a day.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Windows {
    /// From which minute to which its wish can be had.
    pub open: Vec<Stretch>,
    /// How well, every [`TOLD_MIN`] minutes.
    pub moments: Vec<Moment>,
}

impl Windows {
    /// The stretch in which the wish is had most easily, as its first and last moment; nothing where it never is, and where
    /// it is as easy all along.
    pub fn easiest(&self) -> Option<(&Moment, &Moment)> {
        let can = || self.moments.iter().filter(|moment| moment.can());
        let best = can().map(Moment::ease).max_by(f64::total_cmp)?;
        if can().all(|moment| best - moment.ease() < ALIKE) {
            return None;
        }
        let is_best = |moment: &Moment| moment.can() && best - moment.ease() < ALIKE;
        let from = self.moments.iter().position(is_best)?;
        let run = self.moments[from..].iter().take_while(|moment| is_best(moment)).count();
        Some((&self.moments[from], &self.moments[from + run - 1]))
    }
}

/// So little between two moments is the same ease: a third of a stop of flash.
const ALIKE: f64 = 0.17;

/// A setup's light, minute by minute.
struct Lit<'a> {
    setup: Prepared<'a>,
    /// Each region's light without continuous lights, a minute a row.
    light: Vec<Vec<Ev>>,
    /// What was solved, and under which light.
    solved: Vec<(Vec<Ev>, Moment)>,
}

impl Lit<'_> {
    fn at(&mut self, minute: DayMinute) -> Moment {
        let light = &self.light[minute.0 as usize];
        let alike = |(known, _): &&(Vec<Ev>, Moment)| {
            // Two that are both dark are alike: their difference is no number.
            known.iter().zip(light).all(|(one, other)| one == other || (one.0 - other.0).abs() <= SAME_LIGHT)
        };
        if let Some((_, known)) = self.solved.iter().rev().find(alike) {
            return Moment { minute, ..*known };
        }
        self.setup.under(light);
        let outcome = Outcome::of(&self.setup);
        let first = shortfalls(&self.setup, &outcome).into_iter().next();
        let (missing, limit) = (first.as_ref().map(|first| first.missing), first.map(|first| first.limit));
        let hardest = outcome.lights.iter().flatten().map(|light| light.power).max_by(|a, b| a.0.0.total_cmp(&b.0.0));
        let power_left = hardest.map(|Power(stops)| -stops);
        let moment = Moment { minute, missing, limit, iso: outcome.settings.iso, power_left };
        self.solved.push((light.clone(), moment));
        moment
    }

    /// Whether nothing can open or close between two moments: the same holds at both for the same reason, and every light
    /// between is one between theirs.
    fn is_even(&self, from: &Moment, to: &Moment) -> bool {
        let (first, last) = (&self.light[from.minute.0 as usize], &self.light[to.minute.0 as usize]);
        let between = |light: &Vec<Ev>| {
            light.iter().zip(first.iter().zip(last)).all(|(one, (first, last))| {
                let (low, high) = if first.0 < last.0 { (first, last) } else { (last, first) };
                one == first || one == last || (low.0 - SAME_LIGHT..=high.0 + SAME_LIGHT).contains(&one.0)
            })
        };
        from.limit == to.limit && self.light[from.minute.0 as usize..to.minute.0 as usize].iter().all(between)
    }
}

/// The windows of a setup, from an instant on for so many minutes. One without place and hour has the same light all day.
#[cfg(test)]
pub fn windows(prepared: &Prepared<'_>, begin: Timestamp, until: DayMinute) -> Windows {
    windows_and_later(prepared, begin, (until, until)).0
}

/// The same, and from which minute to which the target is within reach up to a later minute.
pub fn windows_and_later(
    prepared: &Prepared<'_>,
    begin: Timestamp,
    (shown, until): (DayMinute, DayMinute),
) -> (Windows, Vec<Stretch>) {
    let light = match &prepared.scene {
        None => vec![prepared.there.clone(); until.0 as usize + 1],
        Some(scene) => {
            let track = scene.light.spot.track(begin, until.after(begin));
            let now = (0..=until.0).map(|minute| {
                let at = DayMinute(minute).after(begin);
                scene.light.under(track.sun(at), at)
            });
            let regions = |now: &LightNow| prepared.light.iter().map(|light| light.there(Some(now))).collect();
            now.map(|now| regions(&now)).collect()
        }
    };
    let mut lit = Lit { setup: prepared.clone(), light, solved: Vec::new() };
    let told = (0..until.0).step_by(TOLD_MIN as usize).map(DayMinute);
    let mut samples: Vec<DayMinute> = told.chain([shown, until]).collect();
    samples.sort_unstable();
    samples.dedup();
    let mut moments: Vec<Moment> = samples.into_iter().map(|minute| lit.at(minute)).collect();
    let mut open: Vec<Stretch> = Vec::new();
    let mut since = moments.first().filter(|first| first.can()).map(|first| first.minute);
    for two in moments.windows(2) {
        if lit.is_even(&two[0], &two[1]) {
            continue;
        }
        for minute in (two[0].minute.0 + 1..=two[1].minute.0).map(DayMinute) {
            match (lit.at(minute).can(), since) {
                (true, None) => since = Some(minute),
                (false, Some(from)) => {
                    open.push(Stretch { from, to: minute });
                    since = None;
                }
                _ => {}
            }
        }
    }
    open.extend(since.map(|from| Stretch { from, to: until }));
    moments.retain(|moment| moment.minute <= shown);
    let within = open.iter().filter(|one| one.from < shown).map(|one| Stretch { to: one.to.min(shown), ..*one });
    (Windows { open: within.collect(), moments }, open)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::setup::{Blend, Kit, Setup};
    use rstest::rstest;
    use tolva_core::ambient::{AngleHeight, Obstacle, ObstacleHeight, Scene, Site};
    use tolva_core::time::{LocalTime, day};

    fn setup(blend: Blend, latitude_deg: f64, date: &str) -> Setup {
        let site = Site {
            name: String::new(),
            latitude_deg,
            longitude_deg: 25.0,
            elevation_m: 0.0,
            time_zone: "Europe/Helsinki".into(),
        };
        let at = LocalTime { date: date.into(), time: "12:00".into(), second_time: false };
        let scene = Scene { facing_deg: 200.0, ..Scene::new(site, at) };
        Setup { scene: Some(scene), blend, ..Setup::new("a", &Kit::starter()) }
    }

    fn at(setup: &Setup, minute: u32) -> Setup {
        crate::hour::at_minute(setup, &Kit::starter(), Some(f64::from(minute)), 0.0).expect("an hour")
    }

    /// Inside a window the setup at that hour has no shortfall, outside it has one: what the plan of the hour itself says.
    #[rstest]
    #[case::summer(Blend::Lift { subject_stops: 0.0, background_stops: -1.0 }, 60.2, "2026-08-29")]
    #[case::winter(Blend::Fill { ambient_stops: 0.0, fill_stops: -1.0 }, 60.2, "2026-12-05")]
    #[case::midnight_sun(Blend::AmbientOnly { subject_stops: 0.0 }, 69.9, "2026-06-20")]
    #[case::polar_night(Blend::AmbientOnly { subject_stops: 0.0 }, 69.9, "2026-12-20")]
    fn a_window_is_what_the_plans_of_its_hours_say(
        #[case] blend: Blend,
        #[case] latitude: f64,
        #[case] date: &str,
        #[values("medium", "lamp")] flash: &str,
    ) {
        let kit = Kit::starter();
        let mut setup = setup(blend, latitude, date);
        setup.lights[0].flash_id = flash.into();
        let prepared = Prepared::new(&setup, &kit).expect("good");
        let (begin, _) = day(date, &prepared.scene.as_ref().expect("a scene").light.zone).expect("a day");
        let found = windows(&prepared, begin, DayMinute(1440));
        assert!(found.open.iter().all(|one| one.from < one.to && one.to <= DayMinute(1440)));
        assert!(found.open.windows(2).all(|two| two[0].to < two[1].from), "in order and apart");
        for minute in (7..1440).step_by(97) {
            let edge = found.open.iter().flat_map(|one| [one.from.0, one.to.0]).any(|edge| edge.abs_diff(minute) < 4);
            if edge {
                // Light that is nearly the same is solved once: an edge may lie a minute beside.
                continue;
            }
            let then = at(&setup, minute);
            let then = Prepared::new(&then, &kit).expect("good");
            let can = shortfalls(&then, &Outcome::of(&then)).is_empty();
            let inside = found.open.iter().any(|one| one.holds(DayMinute(minute)));
            assert_eq!(can, inside, "minute {minute} of {:?}", found.open);
        }
    }

    /// The sun shows for some minutes only, between two houses, and never at a told moment: that is a window too. Every
    /// window, to the minute, is what solving each minute by itself says.
    #[rstest]
    #[case::seven_minutes(202.2, 204.4)]
    #[case::four_minutes(202.4, 203.6)]
    #[case::an_hour(201.6, 240.0)]
    fn short_windows_are_found(#[case] from_deg: f64, #[case] to_deg: f64) {
        let kit = Kit::starter();
        let mut setup = setup(Blend::AmbientOnly { subject_stops: 0.0 }, 60.2, "2026-04-15");
        setup.fixed = crate::setup::Fixed { shutter_s: Some(1.0 / 200.0), f_number: Some(11.0), iso: Some(100.0) };
        let scene = setup.scene.as_mut().expect("a scene");
        let house = |from_deg, to_deg| Obstacle {
            name: String::new(),
            from_deg,
            to_deg,
            height: ObstacleHeight::Angle(AngleHeight { altitude_deg: 80.0 }),
        };
        scene.horizon = vec![house(0.0, from_deg), house(to_deg, 359.9)];
        let prepared = Prepared::new(&setup, &kit).expect("good");
        let (begin, _) = day("2026-04-15", &prepared.scene.as_ref().expect("a scene").light.zone).expect("a day");
        let found = windows(&prepared, begin, DayMinute(1440));
        let can = |minute: u32| {
            let then = at(&setup, minute);
            let then = Prepared::new(&then, &kit).expect("good");
            shortfalls(&then, &Outcome::of(&then)).is_empty()
        };
        let each: Vec<u32> = (600..1000).filter(|minute| can(*minute)).collect();
        let (first, last) = (each[0], each[each.len() - 1]);
        assert!(each.len() < 90 && last + 1 - first == u32::try_from(each.len()).expect("few"), "one slot: {each:?}");
        let [Stretch { from, to }] = found.open[..] else { panic!("{:?}", found.open) };
        // Light that is nearly the same is solved once: an edge may lie a minute or two beside.
        assert!(from.0.abs_diff(first) <= 2 && to.0.abs_diff(last + 1) <= 2, "{:?} {each:?}", found.open);
    }

    /// The ease is that of what is nearer to its end, and the easiest stretch lies within a window.
    #[test]
    fn ease_follows_iso_and_power() {
        let of = |minute: u32, iso: f64, left: Option<f64>, missing: Option<f64>| Moment {
            minute: DayMinute(minute),
            missing: missing.map(Stops),
            limit: missing.map(|_| Limit::CameraTooDark),
            iso: Setting::of(iso),
            power_left: left.map(Stops),
        };
        assert!((of(0, 100.0, Some(2.0), None).ease() - 1.0).abs() < 1e-9);
        assert!((of(0, 100.0, Some(1.0), None).ease() - 0.5).abs() < 1e-9);
        assert!((of(0, 800.0, None, None).ease() - 0.5).abs() < 1e-9);
        assert!((of(0, 25_600.0, None, None).ease() - 0.0).abs() < 1e-9);
        assert!((of(0, 100.0, None, Some(1.0)).ease() - 0.0).abs() < 1e-9);
        let moments = vec![
            of(0, 100.0, None, Some(0.5)),
            of(10, 100.0, Some(0.5), None),
            of(20, 100.0, Some(2.0), None),
            of(30, 100.0, Some(2.4), None),
            of(40, 3200.0, Some(2.4), None),
        ];
        let windows = Windows { open: vec![Stretch { from: DayMinute(5), to: DayMinute(50) }], moments };
        assert_eq!(windows.easiest().map(|(from, to)| (from.minute.0, to.minute.0)), Some((20, 30)));
        let even = Windows { moments: vec![of(0, 100.0, None, None); 3], ..windows };
        assert_eq!(even.easiest(), None);
    }

    /// Without place and hour the light stays: all day or never.
    #[test]
    fn without_a_place_it_is_all_day_or_never() {
        let kit = Kit::starter();
        let mut one = Setup::new("a", &kit);
        let open = |setup: &Setup| {
            let prepared = Prepared::new(setup, &kit).expect("good");
            windows(&prepared, Timestamp::UNIX_EPOCH, DayMinute(600))
        };
        assert_eq!(open(&one).open, [Stretch { from: DayMinute(0), to: DayMinute(600) }]);
        assert!(open(&one).moments.iter().all(|moment| moment.can() && moment.power_left.is_some()));
        one.blend = Blend::AmbientOnly { subject_stops: 0.0 };
        for region in &mut one.regions {
            region.ambient.guess_ev100 = -9.0;
        }
        let dark = open(&one);
        assert!(dark.open.is_empty() && dark.moments.iter().all(|moment| moment.missing.is_some()));
    }
}
