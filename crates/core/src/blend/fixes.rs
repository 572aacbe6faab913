//! What would close a shortfall: each fix is tried by solving the setup with it done.

use super::change::Change;
use super::gap::{Gap, Limit};
use super::lights::DialledLight;
use super::outcome::Outcome;
use super::search::{HALF_CLICK, with_flash};
use super::sharpness::Sharp;
use crate::exposure::CameraSettings;
use crate::job::{Blend, CheckedLight, CheckedSetup, Depth, Filter, Gel, Kit, Modifier, Setup, Sync};
use crate::scale::{Iso, Metres, Power, Setting, Shutter, Stops};

/// At most so many are shown.
const MOST: usize = 6;
/// Where no single step is enough, so many first steps are followed by a second.
const MOST_FIRST_STEPS: usize = 3;
/// A light that is feathered farther than this hardly lights what it is aimed at any more. Common practice, no source.
const MOST_FEATHER_DEG: f64 = 75.0;

/// A way to close a shortfall.
#[derive(Clone, Debug, PartialEq)]
pub(crate) struct Fix {
    pub what: FixKind,
    /// Whether the wish can be had then.
    pub closes: bool,
}

/// What a fix is.
#[derive(Clone, Debug, PartialEq)]
pub(crate) enum FixKind {
    /// Changes to the setup, solved.
    Changes(Box<Solved>),
    /// Something to do outside Tolva.
    Outside(Outside),
}

/// A setup with changes done, and what comes of it.
#[derive(Clone, Debug, PartialEq)]
pub(crate) struct Solved {
    pub changes: Vec<Change>,
    pub setup: Setup,
    pub missing: f64,
    pub settings: CameraSettings,
    /// The flashes that are on, each with its power.
    pub lights: Vec<(String, Power)>,
    /// The first thing that is still missing.
    pub shortfall: Option<Gap>,
}

/// Something to do outside Tolva.
#[derive(Clone, Debug, PartialEq)]
pub(crate) enum Outside {
    /// The subject is shaded or turned.
    ShadeSubject(Stops),
    /// Take light off the subject for a silhouette.
    DarkenSubject(Stops),
    /// What spills onto a region is kept off.
    KeepSpillOff(usize),
    /// A stronger unit than any in the kit.
    StrongerUnit { short: Stops, guide_number_m: f64, side_by_side: f64 },
    /// A denser filter than any in the kit.
    DenserFilter(Stops),
    /// More ISO than the kit's highest acceptable.
    HigherIso { to: Setting<Iso>, highest: Setting<Iso> },
    /// Neutral gel that is not in the kit.
    NeutralGel { light_id: String, stops: Stops },
    /// A ceiling or wall to bounce off.
    Bounce { light_id: String, stops: Stops },
}

pub(super) fn fixes(setup: &CheckedSetup<'_>, outcome: &Outcome, kit: &Kit) -> Vec<Fix> {
    if outcome.gaps.is_empty() {
        return Vec::new();
    }
    let (ways, outside) = ways(setup, outcome, kit);
    let missing = outcome.missing();
    let mut tried: Vec<Solved> =
        ways.into_iter().filter_map(|changes| attempt(setup.setup, changes, missing, kit)).collect();
    // What is fixed is let go last: somebody wanted it so.
    let lets_go = |solved: &Solved| solved.changes.iter().any(Change::lets_go);
    tried.sort_by(|a, b| lets_go(a).cmp(&lets_go(b)).then(a.missing.total_cmp(&b.missing)));
    // Of one kind the best is enough: the others are in the kit too.
    let mut kinds = Vec::new();
    tried.retain(|solved| {
        let kind = solved.changes.first().map(std::mem::discriminant);
        let new = !kinds.contains(&kind) || lets_go(solved);
        kinds.push(kind);
        new
    });
    let (closing, nearer): (Vec<Solved>, Vec<Solved>) =
        tried.into_iter().partition(|solved| solved.shortfall.is_none());
    let mut in_two_steps: Vec<Solved> = if closing.is_empty() {
        let mut first: Vec<&Solved> = nearer.iter().collect();
        first.sort_by(|a, b| a.missing.total_cmp(&b.missing));
        first.into_iter().take(MOST_FIRST_STEPS).flat_map(|first| second_steps(first, kit)).collect()
    } else {
        Vec::new()
    };
    in_two_steps.sort_by_key(lets_go);
    let solved = |one: Solved| Fix { closes: one.shortfall.is_none(), what: FixKind::Changes(Box::new(one)) };
    // What lies outside Tolva comes before what does not close the gap, and is never crowded out.
    let room = MOST.saturating_sub(outside.len());
    let inside = closing.into_iter().chain(in_two_steps).map(solved).take(room);
    let mut all: Vec<Fix> = Vec::new();
    for fix in inside.chain(outside).chain(nearer.into_iter().map(solved)) {
        let same = |other: &Fix| match (&other.what, &fix.what) {
            (FixKind::Changes(one), FixKind::Changes(other)) => one.changes == other.changes,
            (one, other) => one == other,
        };
        if !all.iter().any(same) {
            all.push(fix);
        }
    }
    all.truncate(MOST);
    all
}

/// All changes worth trying, and what can be done outside Tolva.
fn ways(setup: &CheckedSetup<'_>, outcome: &Outcome, kit: &Kit) -> (Vec<Vec<Change>>, Vec<Fix>) {
    let mut ways: Vec<Vec<Change>> = Vec::new();
    let mut outside = Vec::new();
    let alone = outcome.gaps.len() == 1;
    for gap in &outcome.gaps {
        let missing = Stops(gap.missing_stops);
        let of_light = setup.lights.iter().find(|light| Some(&light.light.id) == gap.light_id.as_ref());
        match (gap.limit, of_light, gap.at) {
            (Limit::FlashTooWeak, Some(light), Some(at)) => {
                too_weak(light, at, kit, setup, &mut ways);
                outside.extend(stronger(light, at).map(|what| Fix { what: FixKind::Outside(what), closes: alone }));
            }
            (Limit::FlashTooStrong, Some(light), Some(at)) => {
                let done_outside = too_strong(light, at, kit, setup, &mut ways);
                outside
                    .extend(done_outside.into_iter().map(|what| Fix { what: FixKind::Outside(what), closes: false }));
            }
            (Limit::FlashTooWeak | Limit::FlashTooStrong | Limit::ShutterOverSync | Limit::NoHighSpeed, ..) => {}
            (Limit::NoFlash, ..) => ways.push(vec![Change::AddFlash]),
            (Limit::AmbientTooBright, ..) => {
                ambient_too_bright(setup, outcome, missing, &mut ways);
                outside.push(Fix { what: FixKind::Outside(Outside::ShadeSubject(missing)), closes: alone });
            }
            (Limit::CameraTooBright, ..) => match filtered(setup, kit, missing) {
                Some(change) => ways.push(vec![change]),
                None => outside.push(Fix { what: FixKind::Outside(Outside::DenserFilter(missing)), closes: true }),
            },
            (Limit::CameraTooDark, ..) => {
                if let Some(what) = too_dark(setup, outcome, missing, &mut ways) {
                    outside.push(Fix { what: FixKind::Outside(what), closes: alone });
                }
            }
            (Limit::NotASilhouette, ..) => {
                outside.push(Fix { what: FixKind::Outside(Outside::DarkenSubject(missing)), closes: alone });
            }
            (Limit::RegionOff, light, _) => {
                if let Some(light) = light {
                    ways.extend(accept(setup, outcome, light).map(|change| vec![change]));
                }
                if let Some(region) = gap.region {
                    outside.push(Fix { what: FixKind::Outside(Outside::KeepSpillOff(region)), closes: false });
                }
            }
            (Limit::TooShallow, ..) => ways.extend(deeper(setup, outcome).into_iter().map(|change| vec![change])),
        }
    }
    ways.extend(releases(setup).into_iter().map(|change| vec![change]));
    ways.extend(other_sync(setup, outcome).map(|change| vec![change]));
    (ways, outside)
}

/// Where one step is not enough: what closes the gap after a first one, two at most.
fn second_steps(first: &Solved, kit: &Kit) -> Vec<Solved> {
    let Ok(checked) = CheckedSetup::new(&first.setup, kit) else { return Vec::new() };
    let outcome = Outcome::of(&checked);
    let (ways, _) = ways(&checked, &outcome, kit);
    let closing = ways.into_iter().filter_map(|second| {
        let solved = attempt(&first.setup, second, outcome.missing(), kit)?;
        let changes = first.changes.iter().cloned().chain(solved.changes.clone()).collect();
        Some(Solved { changes, ..solved })
    });
    closing.filter(|solved| solved.shortfall.is_none()).take(2).collect()
}

/// Solves the setup with changes done; nothing where it does not help by a sixth of a stop at least.
fn attempt(setup: &Setup, changes: Vec<Change>, missing_before: f64, kit: &Kit) -> Option<Solved> {
    let mut changed = setup.clone();
    for change in &changes {
        change.apply(&mut changed, kit);
    }
    let (missing, settings, lights, shortfall) = {
        let checked = CheckedSetup::new(&changed, kit).ok()?;
        let outcome = Outcome::of(&checked);
        let lights = checked.lights.iter().zip(&outcome.lights);
        let on = lights.filter_map(|(light, at)| at.map(|at| (light.light.id.clone(), at.power))).collect();
        (outcome.missing(), outcome.settings, on, outcome.gaps.into_iter().next())
    };
    (missing <= missing_before - HALF_CLICK).then_some(Solved {
        changes,
        setup: changed,
        missing,
        settings,
        lights,
        shortfall,
    })
}

fn too_weak(
    light: &CheckedLight<'_>,
    at: DialledLight,
    kit: &Kit,
    setup: &CheckedSetup<'_>,
    ways: &mut Vec<Vec<Change>>,
) {
    let light_id = light.light.id.clone();
    let needed = light.gives(at.distance, at.exact);
    let power = light.power.unwrap_or(Power::FULL);
    if light.distance.is_some() && light.bounced.is_none() {
        // Rounded to nearer, so that it does close the gap.
        let exact =
            light.guide_number.distance_for(needed, power, light.surface, light.loss, (Metres(0.1), at.distance));
        let nearer = Metres(((exact.0 * 20.0).floor() / 20.0).max(light.free_distances().0.0));
        if nearer.0 < at.distance.0 {
            ways.push(vec![Change::MoveLight { light_id: light_id.clone(), distance_m: nearer.0, nearer: true }]);
        }
    }
    if light.bounced.is_some() {
        ways.push(vec![Change::RemoveBounce { light_id: light_id.clone() }]);
    }
    swap_units(setup, light, kit, ways, true);
    if light.light.units < 6 && light.power.is_none() {
        // As many as make up for what is missing, if that few do.
        let together = ((at.exact.0 - at.power.0).ratio() * f64::from(light.light.units)).ceil();
        if together <= 6.0 {
            #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "at most six")]
            let units = together as u8;
            ways.push(vec![Change::ManyUnits { light_id: light_id.clone(), units }]);
        }
    }
    swap_modifiers(light, kit, ways, |loss| loss < light.modifier_loss.0 - 0.01);
    if light.gel_loss.0 > 0.0 {
        ways.push(vec![Change::RemoveGels { light_id }]);
    }
}

/// What another unit would have to be.
fn stronger(light: &CheckedLight<'_>, at: DialledLight) -> Option<Outside> {
    let short = at.exact.0 - at.power.0;
    light.power.is_none().then(|| Outside::StrongerUnit {
        short,
        guide_number_m: light.guide_number.0 * (short.0 / 2.0).exp2(),
        side_by_side: (short.ratio() * f64::from(light.light.units)).ceil(),
    })
}

/// Other units of the kit that are stronger, or weaker.
fn swap_units(
    setup: &CheckedSetup<'_>,
    light: &CheckedLight<'_>,
    kit: &Kit,
    ways: &mut Vec<Vec<Change>>,
    stronger: bool,
) {
    for flash in kit.flashes.iter().filter(|flash| flash.id != light.flash.id) {
        let change = Change::ChangeUnit { light_id: light.light.id.clone(), flash_id: flash.id.clone() };
        if strength_with(setup.setup, &change, light.index, kit)
            .is_some_and(|other| (other > light.guide_number) == stronger)
        {
            ways.push(vec![change]);
        }
    }
}

/// The guide number a light has after a change.
pub(super) fn strength_with(
    setup: &Setup,
    change: &Change,
    index: usize,
    kit: &Kit,
) -> Option<crate::flash::GuideNumber> {
    let mut other = setup.clone();
    change.apply(&mut other, kit);
    let checked = CheckedSetup::new(&other, kit).ok()?;
    checked.lights.iter().find(|light| light.index == index).map(|light| light.guide_number)
}

/// Other modifiers of the kit whose loss is as asked.
fn swap_modifiers(light: &CheckedLight<'_>, kit: &Kit, ways: &mut Vec<Vec<Change>>, asked: impl Fn(f64) -> bool) {
    let other =
        |modifier: &&Modifier| Some(&modifier.id) != light.light.modifier_id.as_ref() && asked(modifier.loss_stops);
    for modifier in kit.modifiers.iter().filter(other) {
        let (light_id, modifier_id) = (light.light.id.clone(), modifier.id.clone());
        ways.push(vec![Change::ChangeModifier { light_id, modifier_id }]);
    }
}

/// A flash that gives too much even at its lowest power, as at dusk and indoors.
fn too_strong(
    light: &CheckedLight<'_>,
    at: DialledLight,
    kit: &Kit,
    setup: &CheckedSetup<'_>,
    ways: &mut Vec<Vec<Change>>,
) -> Vec<Outside> {
    let light_id = || light.light.id.clone();
    let needed = light.gives(at.distance, at.exact);
    let power = light.power.unwrap_or(light.lowest);
    let over = at.power.0 - at.exact.0;
    let mut outside = Vec::new();
    if light.distance.is_some() && light.bounced.is_none() {
        let exact =
            light.guide_number.distance_for(needed, power, light.surface, light.loss, (at.distance, Metres(12.0)));
        let farther = Metres((exact.0 * 20.0).ceil() / 20.0);
        ways.push(vec![Change::MoveLight { light_id: light_id(), distance_m: farther.0, nearer: false }]);
    }
    match neutral_gels(light, kit, over) {
        Some(gels) => ways.push(vec![Change::AddNeutralGel { light_id: light_id(), gel_ids: gels }]),
        None => outside.push(Outside::NeutralGel { light_id: light_id(), stops: over }),
    }
    swap_modifiers(light, kit, ways, |loss| loss > light.modifier_loss.0 + 0.01);
    swap_units(setup, light, kit, ways, false);
    if light.bounced.is_none() {
        // From cosⁿ of the angle: what is to be lost, in degrees.
        let exponent = light.exponent.max(0.1);
        let turned = ((-over.0 / exponent).exp2() * light.light.turned_deg.to_radians().cos()).acos().to_degrees();
        if turned <= MOST_FEATHER_DEG {
            ways.push(vec![Change::FeatherLight { light_id: light_id(), turned_deg: turned.ceil() }]);
        }
        outside.push(Outside::Bounce { light_id: light_id(), stops: over });
    }
    // A filter takes from flash and ambient alike; the ambient has it back by a slower shutter, or a higher ISO is kept.
    ways.extend(filtered(setup, kit, over).map(|change| vec![change]));
    outside
}

/// Neutral gels of the kit that take at least so much, the least that does, or the densest there are.
fn neutral_gels(light: &CheckedLight<'_>, kit: &Kit, over: Stops) -> Option<Vec<String>> {
    let spare: Vec<&Gel> = kit.gels.iter().filter(|gel| gel.is_neutral()).collect();
    let fits = |set: &Vec<&Gel>| set.len() + light.light.gel_ids.len() <= 4;
    let sets: Vec<Vec<&Gel>> = sets_of(&spare).into_iter().filter(fits).collect();
    let enough = sets.iter().filter(|set| loss_of(set) >= over.0 - HALF_CLICK);
    let least = enough.min_by(|a, b| loss_of(a).total_cmp(&loss_of(b)));
    let set = least.or_else(|| sets.iter().max_by(|a, b| loss_of(a).total_cmp(&loss_of(b))))?;
    Some(set.iter().map(|gel| gel.id.clone()).collect())
}

fn loss_of(set: &[&Gel]) -> f64 {
    set.iter().map(|gel| gel.loss_stops).sum()
}

/// Every one, and every pair.
fn sets_of<'a, T>(spare: &[&'a T]) -> Vec<Vec<&'a T>> {
    let mut sets: Vec<Vec<&T>> = spare.iter().map(|one| vec![*one]).collect();
    for (index, one) in spare.iter().enumerate() {
        sets.extend(spare[index + 1..].iter().map(|other| vec![*one, *other]));
    }
    sets
}

fn ambient_too_bright(setup: &CheckedSetup<'_>, outcome: &Outcome, over: Stops, ways: &mut Vec<Vec<Change>>) {
    let ends = outcome.regions[setup.lit].ambient.to_third().0.min(3.0);
    match setup.setup.blend {
        Blend::Lift { behind_stops, .. } => {
            // A third under the subject's place leaves the flash something to do.
            let darker = (Stops(behind_stops) - over - Stops(1.0 / 3.0)).to_third();
            ways.push(vec![Change::PlaceBackground { stops: darker.0 }]);
            ways.push(vec![Change::PlaceSubject { stops: ends }]);
        }
        Blend::Overpower { subject_stops, .. } => {
            let darker = (Stops(subject_stops) - Stops(2.0)).to_third();
            ways.push(vec![Change::PlaceAmbient { stops: darker.0 }]);
        }
        Blend::HalfAndHalf { .. } | Blend::Fill { .. } | Blend::Silhouette { .. } | Blend::AmbientOnly { .. } => {}
    }
}

/// Another sync, where the shutter or the brightness is what holds.
fn other_sync(setup: &CheckedSetup<'_>, outcome: &Outcome) -> Option<Change> {
    let limits = [Limit::CameraTooBright, Limit::ShutterOverSync, Limit::NoHighSpeed];
    let asks = with_flash(setup) && outcome.gaps.iter().any(|gap| limits.contains(&gap.limit));
    let sync = match setup.setup.sync {
        Sync::HighSpeed => Sync::Ordinary,
        Sync::Ordinary | Sync::Electronic => Sync::HighSpeed,
    };
    asks.then_some(Change::ChangeSync { sync })
}

/// So many stops of filter more, from the kit: one filter, or two, the least that does.
fn filtered(setup: &CheckedSetup<'_>, kit: &Kit, more: Stops) -> Option<Change> {
    let spare: Vec<&Filter> =
        kit.filters.iter().filter(|filter| !setup.setup.filter_ids.contains(&filter.id)).collect();
    let density = |set: &[&Filter]| set.iter().map(|filter| filter.density_stops).sum::<f64>();
    let enough =
        |set: &Vec<&Filter>| density(set) >= more.0 - HALF_CLICK && set.len() + setup.setup.filter_ids.len() <= 3;
    let sets = sets_of(&spare).into_iter().filter(enough);
    let set = sets.min_by(|a, b| density(a).total_cmp(&density(b)))?;
    Some(Change::AddFilters { filter_ids: set.iter().map(|filter| filter.id.clone()).collect() })
}

/// The wish of a light becomes what its region comes to.
fn accept(setup: &CheckedSetup<'_>, outcome: &Outcome, light: &CheckedLight<'_>) -> Option<Change> {
    let ends = outcome.regions[light.aim].together;
    let wish = super::place::wish_at(light, ends.to_third(), outcome, setup);
    let region_id = setup.setup.regions[light.aim].id.clone();
    let light_id = light.light.id.clone();
    (wish != light.light.wish).then_some(Change::AcceptRegion { region_id, light_id, wish, stops: ends.0 })
}

/// What gives more depth, or asks for less.
fn deeper(setup: &CheckedSetup<'_>, outcome: &Outcome) -> Vec<Change> {
    let mut ways = Vec::new();
    if setup.aperture.is_some() {
        let sharp = Sharp::of(setup).least.map_or(8.0, |least| (least.0 / 2.0).exp2());
        let wanted = setup.apertures.nearest(Stops(2.0 * sharp.log2()));
        ways.push(Change::FixAperture { f_number: wanted.nominal });
    }
    match setup.setup.depth {
        Depth::Rows { .. } | Depth::Deep { .. } => {
            let missing = Sharp::of(setup).missing(outcome.settings.aperture);
            // Twice as far away is two stops less of aperture, or nearly.
            let distance_m = (setup.setup.camera_distance_m * (missing.0 / 2.0).exp2() * 10.0).ceil() / 10.0;
            ways.push(Change::StepBack { distance_m });
        }
        Depth::CloseUp { stacked: false, .. } => ways.push(Change::TakeStack),
        _ => {}
    }
    ways.push(Change::FreeDepth { f_number: outcome.settings.aperture.nominal });
    ways
}

fn too_dark(
    setup: &CheckedSetup<'_>,
    outcome: &Outcome,
    missing: Stops,
    ways: &mut Vec<Vec<Change>>,
) -> Option<Outside> {
    if setup.density.0 > 0.0 {
        ways.push(vec![Change::RemoveFilters]);
    }
    if setup.shutter.is_none() {
        let slower: Setting<Shutter> =
            setup.shutters.nearest(outcome.settings.shutter.position() - missing - Stops(1.0 / 6.0));
        ways.push(vec![Change::AllowSlowerShutter { shutter_s: slower.nominal }]);
    }
    let highest = outcome.settings.iso;
    setup.iso.is_none().then(|| Outside::HigherIso { to: Setting::of(highest.exact * missing.ratio()), highest })
}

/// Everything that is fixed, let go one at a time.
fn releases(setup: &CheckedSetup<'_>) -> Vec<Change> {
    let mut ways = Vec::new();
    if setup.shutter.is_some() {
        ways.push(Change::FreeShutter);
    }
    if setup.aperture.is_some() {
        ways.push(Change::FreeAperture);
    }
    if setup.iso.is_some() {
        ways.push(Change::FreeIso);
    }
    for light in &setup.lights {
        let light_id = || light.light.id.clone();
        if light.power.is_some() {
            ways.push(Change::FreePower { light_id: light_id() });
        }
        if light.light.distance_m.is_some() && light.power.is_some() {
            ways.push(Change::FreeDistance { light_id: light_id() });
        }
    }
    ways
}
