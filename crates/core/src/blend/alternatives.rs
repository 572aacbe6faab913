//! A few truly different alternatives to the same wish: what each costs, and why the first is first. What is fixed stays
//! fixed, unless an alternative says by its changes that it lets go of it.

use super::change::Change;
use super::fixes::{FixKind, fixes, strength_with};
use super::outcome::Outcome;
use super::preference::{Preference, Weights};
use super::sharpness::Sharp;
use crate::exposure::CameraSettings;
use crate::job::{CheckedSetup, Depth, Kit, LightWish, Setup, Sync};
use crate::scale::{DialEnd, Metres, Power, Stops};

/// So many stops wider or smaller are a picture of another depth. Common practice, no source.
const ANOTHER_DEPTH: f64 = 4.0 / 3.0;
/// For a soft background at the sync speed: so many stops wider.
const WIDE_OPEN: f64 = 3.0;

/// One alternative, solved.
#[derive(Clone, Debug)]
pub(crate) struct Option_ {
    pub kind: Kind,
    pub changes: Vec<Change>,
    pub possible: bool,
    pub settings: CameraSettings,
    pub lights: Vec<(String, Power)>,
    pub measures: Measures,
    pub setup: Setup,
}

/// What an alternative changes: of each kind the best is shown, and of fixes all.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Kind {
    AsItIs,
    AtSync,
    Filter,
    HighSpeed,
    Nearer,
    MoreLight,
    HigherIso,
    MoreDepth,
    LessDepth,
    Fix,
}

/// What counts in a comparison.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(crate) struct Measures {
    pub missing: f64,
    pub iso: f64,
    /// The highest power of any light, in stops under full.
    pub power: f64,
    pub recycle_s: f64,
    pub battery: f64,
    pub aperture: f64,
    /// How far the aperture is from what the depth asks for, in stops.
    pub depth_off: f64,
    pub filter: f64,
    pub high_speed: bool,
    pub units: f64,
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
}

/// Why the first is first: what it has over the second.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Because {
    OnlyOne,
    Nearest,
    KeepsDepth,
    LowIso,
    ReadySooner,
    LessPower,
    NoFilter,
    NoHighSpeed,
    NoMoreLight,
    Simplest,
}

pub(crate) fn because(found: &[Option_]) -> Because {
    let [first, second, ..] = found else { return Because::OnlyOne };
    let (first, second) = (&first.measures, &second.measures);
    let reasons = [
        (second.missing - first.missing, 0.1, Because::Nearest),
        (second.depth_off - first.depth_off, 0.2, Because::KeepsDepth),
        (second.iso - first.iso, 0.2, Because::LowIso),
        (second.recycle_s - first.recycle_s, 0.1, Because::ReadySooner),
        (second.power - first.power, 0.2, Because::LessPower),
        (second.filter - first.filter, 0.1, Because::NoFilter),
        (f64::from(u8::from(second.high_speed && !first.high_speed)), 0.5, Because::NoHighSpeed),
        (second.units - first.units, 1.0, Because::NoMoreLight),
    ];
    reasons.into_iter().find(|(more, enough, _)| more > enough).map_or(Because::Simplest, |(_, _, because)| because)
}

/// The alternatives for a setup, the best first; the setup as it is stands among them.
pub(super) fn options(checked: &CheckedSetup<'_>, outcome: &Outcome, kit: &Kit) -> Vec<Option_> {
    let setup = checked.setup;
    let as_it_is = Measures::of(checked, outcome);
    let weights = Weights::of(setup);
    let mut found: Vec<(f64, Option_)> = Vec::new();
    let mut all = vec![(Kind::AsItIs, Vec::new())];
    all.extend(candidates(checked, outcome, kit));
    if !outcome.gaps.is_empty() {
        all.extend(fixes(checked, outcome, kit).into_iter().filter_map(|fix| match fix.what {
            FixKind::Changes(solved) if fix.closes => Some((Kind::Fix, solved.changes)),
            _ => None,
        }));
    }
    for (index, (kind, changes)) in all.into_iter().enumerate() {
        let mut other = setup.clone();
        for change in &changes {
            change.apply(&mut other, kit);
        }
        let Some(solved) = solved(kind, changes, &other, kit) else { continue };
        // What cannot be had either, and what comes to the same dials, is no alternative.
        let same = found.iter().any(|(_, one)| {
            let dials = one.settings == solved.settings && one.lights == solved.lights;
            if kind == Kind::Fix { one.setup == other } else { dials && one.setup.filter_ids == other.filter_ids }
        });
        if index > 0 && (same || solved.measures.missing > as_it_is.missing + 1e-6) {
            continue;
        }
        let entry = (solved.measures.points(weights, &as_it_is), solved);
        match found.iter().position(|(_, other)| other.kind == kind && kind != Kind::Fix) {
            Some(at) if found[at].0 <= entry.0 => {}
            Some(at) => found[at] = entry,
            None => found.push(entry),
        }
    }
    found.sort_by(|a, b| a.0.total_cmp(&b.0));
    found.into_iter().map(|(_, one)| one).collect()
}

fn solved(kind: Kind, changes: Vec<Change>, setup: &Setup, kit: &Kit) -> Option<Option_> {
    let checked = CheckedSetup::new(setup, kit).ok()?;
    let outcome = Outcome::of(&checked);
    let lights = checked.lights.iter().zip(&outcome.lights);
    let lights = lights.filter_map(|(light, at)| at.map(|at| (light.light.id.clone(), at.power))).collect();
    Some(Option_ {
        kind,
        changes,
        possible: outcome.gaps.is_empty(),
        settings: outcome.settings,
        lights,
        measures: Measures::of(&checked, &outcome),
        setup: setup.clone(),
    })
}

/// Changes worth trying.
fn candidates(setup: &CheckedSetup<'_>, outcome: &Outcome, kit: &Kit) -> Vec<(Kind, Vec<Change>)> {
    let mut all = Vec::new();
    let settings = outcome.settings;
    let flash = setup.setup.blend.uses_flash() && !setup.lights.is_empty();
    let (free_aperture, free_iso) = (setup.aperture.is_none(), setup.iso.is_none());
    let wide = setup.apertures.nearest(settings.aperture.position() - Stops(WIDE_OPEN));
    let is_wide = (settings.aperture.position() - wide.position()).0 < 0.5;
    let wider = Change::FixAperture { f_number: wide.nominal };
    let bare = |changes: &mut Vec<Change>| {
        if setup.setup.sync != Sync::Ordinary {
            changes.push(Change::ChangeSync { sync: Sync::Ordinary });
        }
        if setup.density.0 > 0.0 {
            changes.push(Change::RemoveFilters);
        }
    };
    if flash {
        if setup.setup.sync == Sync::HighSpeed || setup.density.0 > 0.0 {
            let mut changes = Vec::new();
            bare(&mut changes);
            all.push((Kind::AtSync, changes.clone()));
            // What was fixed for the filter or the high speed may be let go with it, and is said to be.
            let mut let_go = changes;
            if !free_aperture {
                let_go.push(Change::FreeAperture);
            }
            if setup.shutter.is_some() {
                let_go.push(Change::FreeShutter);
            }
            all.push((Kind::AtSync, let_go));
        }
        if !is_wide && free_aperture && setup.shutter.is_none() {
            for filter in kit.filters.iter().filter(|filter| !setup.setup.filter_ids.contains(&filter.id)).take(3) {
                let mut changes = Vec::new();
                bare(&mut changes);
                changes.push(wider.clone());
                changes.push(Change::AddFilters { filter_ids: vec![filter.id.clone()] });
                all.push((Kind::Filter, changes));
            }
            if setup.setup.sync != Sync::HighSpeed {
                let mut changes = vec![wider.clone(), Change::ChangeSync { sync: Sync::HighSpeed }];
                if setup.density.0 > 0.0 {
                    changes.insert(0, Change::RemoveFilters);
                }
                all.push((Kind::HighSpeed, changes));
            }
        }
    }
    for (light, at) in setup.lights.iter().zip(&outcome.lights) {
        let (Some(at), true) = (at, light.light.wish == LightWish::Key && light.bounced.is_none()) else { continue };
        let light_id = || light.light.id.clone();
        let nearer = Metres((at.distance.0 * 0.7 * 20.0).round() / 20.0);
        // With distance and power both fixed, moving it is no other way to the same wish.
        if nearer >= light.free_distances().0 && light.light.distance_m.is_none_or(|_| light.power.is_none()) {
            let change = Change::MoveLight { light_id: light_id(), distance_m: nearer.0, nearer: true };
            all.push((Kind::Nearer, vec![change]));
        }
        let stronger = kit.flashes.iter().filter(|flash| flash.id != light.flash.id).find_map(|flash| {
            let change = Change::ChangeUnit { light_id: light_id(), flash_id: flash.id.clone() };
            let other = strength_with(setup.setup, &change, light.index, kit)?;
            (other > light.guide_number).then_some(change)
        });
        all.extend(stronger.map(|change| (Kind::MoreLight, vec![change])));
        if light.light.units < 6 {
            let units = light.light.units + 1;
            all.push((Kind::MoreLight, vec![Change::ManyUnits { light_id: light_id(), units }]));
        }
    }
    if free_iso {
        let higher = setup.isos.nearest(settings.iso.position() + Stops(1.0));
        let higher = Change::FixIso { iso: higher.nominal };
        let kept = Change::FixAperture { f_number: settings.aperture.nominal };
        all.push((Kind::HigherIso, if free_aperture { vec![higher.clone(), kept] } else { vec![higher.clone()] }));
        if flash && free_aperture {
            let smaller = setup.apertures.nearest(settings.aperture.position() + Stops(1.0));
            all.push((Kind::HigherIso, vec![higher, Change::FixAperture { f_number: smaller.nominal }]));
        }
    }
    if free_aperture && setup.setup.depth == Depth::Free {
        for (kind, by) in [(Kind::MoreDepth, ANOTHER_DEPTH), (Kind::LessDepth, -ANOTHER_DEPTH)] {
            let aperture = setup.apertures.nearest(settings.aperture.position() + Stops(by));
            all.push((kind, vec![Change::FixAperture { f_number: aperture.nominal }]));
        }
    }
    all
}
