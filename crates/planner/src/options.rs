//! A few truly different alternatives to the same wish: what each costs, and why the first is first. What is fixed stays
//! fixed, unless an alternative says by its changes that it lets go of it.

use AlternativeKind as Kind;

use crate::change::Change;
use crate::fixes::{FixKind, fixes, strength_with};
use crate::lighting::Prepared;
use crate::plan::Plan;
use crate::setup::{Depth, Kit, LightWish, Preference, Sync};
use crate::solved::{Measures, Solved};
use crate::solver::Weights;
use tolva_core::scale::{Metres, Stops};

/// So many stops wider or smaller are a picture of another depth. Common practice, no source.
const ANOTHER_DEPTH: f64 = 4.0 / 3.0;
/// For a soft background at the sync speed: so many stops wider.
const WIDE_OPEN: f64 = 3.0;

/// What kind of alternative it is.
// Of each kind the best is shown, and of fixes all.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum AlternativeKind {
    /// The setup as it is.
    AsItIs,
    /// At the sync speed, with nothing on the lens.
    AtSync,
    /// Wide, through a filter.
    Filter,
    /// Wide, in high-speed sync.
    HighSpeed,
    /// The light nearer.
    Nearer,
    /// A stronger unit, or more of them.
    MoreLight,
    /// A higher ISO.
    HigherIso,
    /// More is sharp.
    MoreDepth,
    /// Less is sharp.
    LessDepth,
    /// What closes a shortfall.
    Fix,
}

/// An alternative before it is put into words.
#[derive(Clone, Debug)]
pub struct SolvedAlternative {
    /// What kind it is.
    pub kind: Kind,
    /// What comes of it.
    pub solved: Solved,
}

/// Points a stop, weighed by the person's order. Common practice, no source.
fn points(one: &Measures, weights: Weights<'_>, as_it_is: &Measures) -> f64 {
    let weight = |of| weights.get(of);
    100.0 * one.missing
        + weight(Preference::LowIso) * one.iso
        + weight(Preference::Depth) * one.depth_off
        + weight(Preference::LowPower) * 0.25 * (one.power + 7.0).max(0.0)
        + weight(Preference::Pace) * 0.5 * (one.recycle_s / 0.5).max(0.25).log2()
        + weight(Preference::NoFilter) * if one.filter > 0.0 { 0.8 } else { 0.0 }
        + if one.high_speed { 0.6 } else { 0.0 }
        // More to carry.
        + if one.units > as_it_is.units * 1.05 { 1.0 } else { 0.0 }
}

/// Why the first is first: what it has over the second.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Because {
    /// There is no other.
    OnlyOne,
    /// It comes nearest to what is wished.
    Nearest,
    /// It keeps the depth that is wished.
    KeepsDepth,
    /// It keeps the ISO low.
    LowIso,
    /// Its flashes are ready sooner.
    ReadySooner,
    /// It asks less power.
    LessPower,
    /// It needs no filter.
    NoFilter,
    /// It needs no high-speed sync.
    NoHighSpeed,
    /// It needs no more light than is there.
    NoMoreLight,
    /// It is the simplest.
    Simplest,
}

/// Why the first of the options is first.
pub fn because(found: &[SolvedAlternative]) -> Because {
    let [first, second, ..] = found else { return Because::OnlyOne };
    let (first, second) = (&first.solved.measures, &second.solved.measures);
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
pub fn options(prepared: &Prepared<'_>, plan: &Plan, kit: &Kit) -> Vec<SolvedAlternative> {
    let setup = prepared.setup;
    let weights = Weights::of(setup);
    let as_it_is = SolvedAlternative { kind: Kind::AsItIs, solved: Solved::as_it_is(prepared, plan) };
    let measured = as_it_is.solved.measures;
    let points = |solved: &Solved| points(&solved.measures, weights, &measured);
    let candidates = candidates(prepared, plan, kit).into_iter();
    let tried = candidates.filter_map(|(kind, changes)| Some((kind, Solved::of(setup, changes, kit)?)));
    let fixes = fixes(prepared, plan, kit).into_iter().filter_map(|fix| match fix.what {
        FixKind::Changes(solved) if fix.closes => Some((Kind::Fix, *solved)),
        _ => None,
    });
    let mut found = vec![(points(&as_it_is.solved), as_it_is)];
    for (kind, solved) in tried.chain(fixes) {
        // What cannot be had either, and what comes to the same dials, is no alternative.
        let same = found.iter().any(|(_, SolvedAlternative { solved: one, .. })| {
            let dials = one.settings == solved.settings && one.lights == solved.lights;
            if kind == Kind::Fix {
                one.setup == solved.setup
            } else {
                dials && one.setup.filter_ids == solved.setup.filter_ids
            }
        });
        if same || solved.measures.missing > measured.missing + 1e-6 {
            continue;
        }
        let entry = (points(&solved), SolvedAlternative { kind, solved });
        match found.iter().position(|(_, other)| other.kind == kind && kind != Kind::Fix) {
            Some(at) if found[at].0 <= entry.0 => {}
            Some(at) => found[at] = entry,
            None => found.push(entry),
        }
    }
    found.sort_by(|a, b| a.0.total_cmp(&b.0));
    found.into_iter().map(|(_, one)| one).collect()
}

/// Changes worth trying.
fn candidates(setup: &Prepared<'_>, plan: &Plan, kit: &Kit) -> Vec<(Kind, Vec<Change>)> {
    let mut all = Vec::new();
    let outcome = &plan.outcome;
    let settings = outcome.settings;
    let flash = setup.with_flash();
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
        if nearer >= *light.free_distances().start() && light.light.distance_m.is_none_or(|_| light.power.is_none()) {
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
