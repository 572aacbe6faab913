//! A job that is done again: what belongs to the day it was done goes, what was learnt stays.

use jiff::ToSpan as _;
use tolva_core::time::date_of;

use crate::job::Job;
use crate::learnt::{Learnt, Unknown};
use crate::problems::Problems;
use crate::schedule::Packed;
use crate::setup::Setup;

impl Job {
    /// The same job on another day, `2026-08-29`, or on a day nobody has named yet. Ticks, readings, pins and what is packed
    /// belong to the day it was done and go; what a region was last read as becomes what is assumed of it. What frames have
    /// taught of camera, lights and meters stays. A job over several days keeps them as far apart.
    ///
    /// # Errors
    /// A day that is none.
    pub fn again(&self, date: Option<&str>) -> Result<Self, Problems> {
        let mut job = self.clone();
        job.name = format!("{}, again", self.name).chars().take(120).collect();
        job.packed = Packed::default();
        date.unwrap_or_default().clone_into(&mut job.date);
        job.setups.iter_mut().for_each(begin_anew);
        if let Some(date) = date {
            let to = date_of(date).map_err(|wrong| Problems::one("/date", wrong.to_string()))?;
            let days = self.setups.iter().filter_map(|setup| setup.scene.as_ref());
            let first = days.filter_map(|scene| date_of(&scene.at.date).ok()).min();
            let scenes = job.setups.iter_mut().filter_map(|setup| setup.scene.as_mut());
            for (scene, first) in scenes.zip(std::iter::repeat(first)) {
                let (Ok(was), Some(first)) = (date_of(&scene.at.date), first) else { continue };
                let later = was.since(first).map_or(0, |span| span.get_days());
                let moved = to.checked_add(later.days()).unwrap_or(to);
                scene.at.date = moved.to_string();
                scene.at.second_time = false;
            }
        }
        Ok(job)
    }
}

fn begin_anew(setup: &mut Setup) {
    for shot in &mut setup.shots {
        shot.taken = 0;
    }
    setup.schedule.pinned = None;
    for region in &mut setup.regions {
        let ambient = tolva_core::exposure::Ambient::from(region.ambient.clone());
        if let Some(last) = ambient.last() {
            let ev = last.ev100().0;
            if ev.is_finite() {
                region.ambient.guess_ev100 = ev.clamp(-10.0, 24.0);
            }
        }
        region.ambient.readings.clear();
    }
    setup.learnt = setup.learnt.as_ref().and_then(without_the_days_light);
}

/// What was learnt without what the light of that day was.
fn without_the_days_light(learnt: &Learnt) -> Option<Learnt> {
    let stays: Vec<usize> =
        (0..learnt.of.len()).filter(|index| !matches!(learnt.of[*index].what, Unknown::Ambient { .. })).collect();
    // Of each with those before it, one after the other.
    let bound = |one: usize, before: usize| learnt.bound.get(one * one.saturating_sub(1) / 2 + before).copied();
    let pairs = stays.iter().enumerate().flat_map(|(at, one)| stays[..at].iter().map(move |before| (*one, *before)));
    let bound = pairs.map(|(one, before)| bound(one, before)).collect::<Option<Vec<f64>>>().unwrap_or_default();
    let of: Vec<_> = stays.iter().map(|index| learnt.of[*index].clone()).collect();
    (!of.is_empty()).then_some(Learnt { of, bound, frames: learnt.frames, from: Vec::new() })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::Believed;
    use rstest::rstest;

    fn job() -> Job {
        Job::from_json(include_bytes!("../../../demo/guild-days.json")).expect("the demo's")
    }

    #[test]
    fn what_belongs_to_the_day_goes() {
        let mut before = job();
        before.packed.out.push("stand/one".to_owned());
        let again = before.again(None).expect("no day");
        assert_eq!((again.packed.clone(), again.date.as_str()), (Packed::default(), ""));
        assert!(again.setups.iter().flat_map(|setup| &setup.shots).all(|shot| shot.taken == 0));
        assert!(again.setups.iter().flat_map(|setup| &setup.regions).all(|region| region.ambient.readings.is_empty()));
        assert!(again.check().is_ok());
    }

    /// Days that were apart stay apart.
    #[test]
    fn it_is_done_on_another_day() {
        let before = job();
        let dates = |job: &Job| -> Vec<String> {
            job.setups.iter().filter_map(|setup| setup.scene.as_ref()).map(|scene| scene.at.date.clone()).collect()
        };
        let mut was = dates(&before);
        let again = before.again(Some("2027-02-27")).expect("a day");
        let mut is = dates(&again);
        was.sort();
        is.sort();
        assert_eq!(is[0], "2027-02-27");
        let apart = |days: &[String]| {
            let of = |day: &String| date_of(day).expect("a day");
            of(&days[days.len() - 1]).since(of(&days[0])).expect("a span").get_days()
        };
        assert_eq!(apart(&was), apart(&is));
        assert!(again.check().is_ok());
    }

    #[rstest]
    #[case("soon")]
    #[case("2027-02-30")]
    fn no_day_is_said(#[case] date: &str) {
        assert_eq!(job().again(Some(date)).expect_err("no day").0[0].pointer, "/date");
    }

    /// What was learnt of the light of a day goes, and what is left is bound as it was.
    #[test]
    fn what_was_learnt_stays_bound() {
        let what = |id: &str| Unknown::Meter { meter_id: id.to_owned() };
        let ambient = Unknown::Ambient { region_id: "lit".to_owned() };
        let of = [what("a"), ambient, what("b"), what("c")]
            .map(|what| Believed { what, more_stops: 0.1, sure_stops: 0.2 })
            .into();
        let bound = vec![0.1, 0.2, 0.3, 0.4, 0.5, 0.6];
        let learnt = Learnt { of, bound, frames: 2, from: vec!["f".to_owned()] };
        let left = without_the_days_light(&learnt).expect("three");
        assert_eq!((left.of.len(), left.bound, left.from.len()), (3, vec![0.2, 0.4, 0.6], 0));
    }
}
