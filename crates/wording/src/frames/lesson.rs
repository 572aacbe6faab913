//! What a frame teaches, and what to turn after it.

use tolva_core::frame::Estimate;
use tolva_core::scale::Stops;
use tolva_planner::frames::{Correction, corrections, taught};
use tolva_planner::lighting::Prepared;
use tolva_planner::refused::Refused;
use tolva_planner::setup::{Kit, Setup, Unknown};
use tolva_planner::solver::{Outcome, State};
use tolva_planner::uncertainty::{Seen, known_now, unknowns};

use super::report::came;
use super::types::{BeliefSaid, CameOf, CorrectionSaid, DialSaid, Lesson, OfKit};
use super::{called, dial_said, fired};
use crate::document::Write;
use crate::shown::Show;
use crate::words::{in_a_row, lower_first};

/// A frame that has taught already.
const LEARNT: &str = "Tolva has learnt from this frame.";
/// More than this is more than a trifle, in stops.
const TRIFLE: f64 = 0.03;

/// What a frame of a setup teaches the setup as it is now. `then` is the setup as it stood when the frame came, `id` the
/// frame's. Nothing where the settings are not known or no region can be told.
///
/// # Errors
/// A setup that refers to what is no longer there.
pub fn lesson(
    (id, then): (&str, &Setup),
    now: &Setup,
    kit: &Kit,
    of: CameOf<'_>,
    show: Show,
    write: &Write<'_>,
) -> Result<Option<Lesson>, Refused> {
    let Some(settings) = of.settings else { return Ok(None) };
    let with_flash = Outcome::of(&Prepared::new(then, kit)?);
    let stood = fired(with_flash.clone(), of.flash);
    // What stood on the dials, by what has been learnt since.
    let told = Setup { learnt: now.learnt.clone(), ..then.clone() };
    let already = now.learnt.as_ref().is_some_and(|learnt| learnt.from.iter().any(|one| one == id));
    let prepared = Prepared::new(&told, kit)?;
    let before = known_now(&prepared, &stood.taken_at(&prepared, settings));
    let learnt = if already {
        now.learnt.clone()
    } else {
        let found = taught(&prepared, &stood, settings, &came(then, of.marks));
        found.map(|mut learnt| {
            learnt.from.push(id.to_owned());
            learnt
        })
    };
    let Some(learnt) = learnt else { return Ok(None) };
    let beliefs = learnt.of.iter().map(|one| {
        let at = before.of.iter().position(|other| *other == one.what);
        let was = at.map_or_else(|| by_figures(Stops(one.sure_stops)), |at| before.belief.of(at));
        believed((now, kit), &one.what, was, one.estimate())
    });
    let mut beliefs: Vec<BeliefSaid> = beliefs.collect();
    beliefs.sort_by_key(|one| !one.moved);
    let after = Setup { learnt: Some(learnt), ..now.clone() };
    let offers = corrections(&after, kit, &State::new(settings, &with_flash.lights))?;
    let offers = offers.iter().map(|one| offered(one, now, show, write)).collect();
    let says = if already { LEARNT.to_owned() } else { summary(&beliefs) };
    Ok(Some(Lesson { says, learnt: already, beliefs, offers, setup: write(&after) }))
}

/// What is believed of all that nobody knows of a setup: by the figures alone, and by what frames have taught.
///
/// # Errors
/// A setup that refers to what is not there.
pub fn beliefs(setup: &Setup, kit: &Kit) -> Result<Vec<BeliefSaid>, Refused> {
    let prepared = Prepared::new(setup, kit)?;
    let outcome = Outcome::of(&prepared);
    let known = known_now(&prepared, &outcome);
    let all = unknowns(&prepared, &outcome).into_iter().enumerate();
    let said = |(at, seen): (usize, Seen)| {
        believed((setup, kit), &seen.what, by_figures(seen.by_figures), known.belief.of(at))
    };
    Ok(all.map(said).collect())
}

/// What is known without a frame: it is as said, so surely.
fn by_figures(sure: Stops) -> Estimate {
    Estimate { more: Stops::ZERO, sure }
}

fn believed((setup, kit): (&Setup, &Kit), what: &Unknown, was: Estimate, is: Estimate) -> BeliefSaid {
    BeliefSaid {
        kind: what.code(),
        name: called(what, setup, kit),
        before: was.more.into(),
        before_sure: format!("±{:.2}", was.sure.0),
        now: is.more.into(),
        now_sure: format!("±{:.2}", is.sure.0),
        now_sure_stops: is.sure.0,
        moved: (is.more - was.more).0.abs() > TRIFLE || (was.sure - is.sure).0 > TRIFLE,
        of_kit: match what {
            Unknown::Camera { camera_id, lens_id } => {
                Some(OfKit::Camera { camera_id: camera_id.clone(), lens_id: lens_id.clone() })
            }
            Unknown::Light { flash_id, modifier_id, .. } => {
                Some(OfKit::Flash { flash_id: flash_id.clone(), modifier_id: modifier_id.clone() })
            }
            Unknown::Meter { meter_id } => Some(OfKit::Meter { meter_id: meter_id.clone() }),
            Unknown::Ambient { .. } | Unknown::Spill { .. } => None,
        },
    }
}

/// What it teaches most of all.
fn summary(beliefs: &[BeliefSaid]) -> String {
    let moved = |one: &&BeliefSaid| one.moved;
    let by = |one: &BeliefSaid| {
        let (Some(now), Some(before)) = (one.now.stops, one.before.stops) else { return 0.0 };
        (now - before).abs()
    };
    let most = beliefs.iter().filter(moved).max_by(|a, b| by(a).total_cmp(&by(b)));
    match most {
        Some(most) if by(most) > TRIFLE => {
            format!("Most of it lies in: {}, {} stop against its figures.", lower_first(&most.name), most.now.exact)
        }
        Some(_) => "It came as planned: what is known is surer now.".to_owned(),
        None => "It says nothing that was not known.".to_owned(),
    }
}

fn offered(of: &Correction, setup: &Setup, show: Show, write: &Write<'_>) -> CorrectionSaid {
    let dials: Vec<DialSaid> = of.turned.iter().map(|one| dial_said(one, show)).collect();
    let lines = dials.iter().map(|one| format!("{} from {} to {}", one.name, one.from, one.to));
    let does = if dials.is_empty() { "Leave the dials as they are".to_owned() } else { in_a_row(lines) };
    let comes = setup.regions.iter().zip(&of.comes).zip(&of.wished).map(|((region, comes), wished)| match wished {
        Some(wished) if (comes.0 - wished.0).abs() > 1.0 / 6.0 => {
            format!("{} {} (wished {})", region.name, comes.thirds(), wished.thirds())
        }
        _ => format!("{} {}", region.name, comes.thirds()),
    });
    CorrectionSaid { does, dials, comes: comes.collect::<Vec<_>>().join(", "), free: of.free, setup: write(&of.setup) }
}
