//! “On the face too dark by a third”: the wish of that region moves, and the dial that turns is the one that moves it and
//! leaves the rest.

use jiff::Timestamp;
use tolva_core::scale::Stops;

use crate::edit::mark_by;
use crate::frames::{Turned, turned, with_free};
use crate::lighting::Prepared;
use crate::place::{Grip, Placing, moves, place};
use crate::refused::Refused;
use crate::setup::{Kit, Setup};
use crate::solver::{Outcome, State};
use crate::timetable::Walk;

/// As many thirds at once may be asked for.
const MOST_THIRDS: i32 = 9;
/// Dials click by thirds or coarser: so much more is tried until one turns.
const TRIES: i32 = 3;
/// Less than this is no third, in stops.
const MOVED: f64 = 1.0 / 6.0;
/// What stood on the dials and what is to stand there are each half a click off at most, in stops.
const CLICKS: f64 = 1.0 / 3.0;
/// The dials of the camera that may turn (shutter, aperture, ISO): a plan of its own would turn whatever it likes best, and
/// who stands on the set wants the fewest touched. What keeps others still without being needed comes last.
const FREE: [[bool; 3]; 8] = [
    [true, true, true],
    [true, false, true],
    [true, true, false],
    [false, true, true],
    [true, false, false],
    [false, false, true],
    [false, true, false],
    [false, false, false],
];

/// What turns.
#[derive(Clone, Debug, PartialEq)]
pub struct Looked {
    /// The setup with its wish moved.
    pub setup: Setup,
    /// What is turned of what stands at that instant.
    pub turned: Vec<Turned>,
    /// By how much the region comes out brighter.
    pub by: Stops,
    /// The part of the light on the region that was flash, 0 to 1.
    pub flash_share: f64,
}

/// Whether somebody can say of a region that it is too dark: something of the wish places it.
pub fn can_look(setup: &Prepared<'_>, region: usize) -> bool {
    moves(setup, region, Grip::Together, None).is_some()
}

/// What stands at an instant, what it gives a region, and the part of that which is flash.
struct Stands {
    state: State,
    together: Stops,
    flash_share: f64,
}

fn stands(prepared: &Prepared<'_>, region: usize, at: Option<Timestamp>) -> Stands {
    let (state, together) = if let (Some(scene), Some(at)) = (&prepared.scene, at) {
        let walk = Walk::new(prepared, scene);
        let state = walk.at(at).clone();
        let together = walk.together(&state, walk.minute(at), region);
        (state, together)
    } else {
        let outcome = Outcome::of(prepared);
        (State::of(&outcome), outcome.regions[region].together)
    };
    let ambient = match (&prepared.scene, at) {
        (Some(scene), Some(at)) => prepared.light[region].all(Some(&scene.light.at(at))),
        _ => prepared.ambient[region],
    };
    let ambient = ambient - state.settings.ev100() - prepared.filter;
    let flash_share = (1.0 - (ambient - together).ratio()).clamp(0.0, 1.0);
    Stands { state, together, flash_share }
}

/// How little somebody likes to touch a dial: aperture is depth, ISO is noise, a stand is a way. Chosen.
fn dear(dial: &Turned) -> usize {
    match dial {
        Turned::Power(..) | Turned::Shutter(..) => 2,
        Turned::Iso(..) => 3,
        Turned::Aperture(..) => 5,
        Turned::Distance(..) => 9,
    }
}

/// A setup whose region came out too dark or too bright by so many thirds: `thirds` is what it is to come out brighter by.
/// Of all ways that end there the one that turns the fewest dials is taken; what of the camera would turn besides is fixed
/// where it stands. Where no dial clicks by so little, a little more is asked for. By no thirds, nothing is turned.
///
/// # Errors
/// A region that is not there or that nothing places, thirds out of range, a setup that cannot be planned, and
/// [`Refused::AtItsEnd`] where every dial that would move it is at its end.
pub fn looked(
    setup: &Setup,
    kit: &Kit,
    (region_id, thirds): (&str, i32),
    at: Option<Timestamp>,
) -> Result<Looked, Refused> {
    let bounds = (f64::from(-MOST_THIRDS), f64::from(MOST_THIRDS));
    Refused::unless_within(f64::from(thirds), bounds, "thirds", "thirds of a stop")?;
    let prepared = Prepared::new(setup, kit)?;
    let region = setup.regions.iter().position(|region| region.id == region_id);
    let region = region.ok_or_else(|| Refused::NoSuchRegion(region_id.to_owned()))?;
    if thirds == 0 {
        let flash_share = stands(&prepared, region, at).flash_share;
        return Ok(Looked { setup: setup.clone(), turned: Vec::new(), by: Stops::ZERO, flash_share });
    }
    if !can_look(&prepared, region) {
        return Err(Refused::NothingPlaces(setup.regions[region].name.clone()));
    }
    let before = stands(&prepared, region, at);
    let way = thirds.signum();
    let mut best: Option<((usize, usize), Looked)> = None;
    for more in 0..TRIES {
        let mark = Placing { region_id: region_id.to_owned(), grip: Grip::Together, stops: 0.0, light_id: None };
        let mark = mark_by(setup, kit, &mark, thirds + way * more)?;
        let wished = place(setup, kit, &mark)?;
        for free in FREE {
            let changed = with_free(free, &wished, before.state.settings);
            let prepared = Prepared::new(&changed, kit)?;
            let after = stands(&prepared, region, at);
            let by = after.together - before.together;
            let off = by.0 * f64::from(way) - f64::from(thirds.abs() + more) / 3.0;
            if by.0 * f64::from(way) < MOVED || off.abs() > CLICKS {
                continue;
            }
            let turned = turned(&prepared, &before.state, &after.state);
            let fixed = free.iter().filter(|free| !**free).count();
            let cost = (turned.iter().map(dear).sum(), fixed);
            if best.as_ref().is_none_or(|(least, _)| cost < *least) {
                best = Some((cost, Looked { turned, by, flash_share: before.flash_share, setup: changed }));
            }
        }
        if let Some((_, best)) = best {
            return Ok(best);
        }
    }
    Err(Refused::AtItsEnd(setup.regions[region].name.clone()))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::setup::Blend;
    use rstest::rstest;

    fn setup(blend: Blend) -> (Setup, Kit) {
        let kit = Kit::starter();
        (Setup { blend, ..Setup::new("a", &kit) }, kit)
    }

    const OVER: Blend = Blend::Overpower { subject_stops: 0.0, ambient_stops: -3.0 };
    const LIFT: Blend = Blend::Lift { subject_stops: 0.0, background_stops: -1.0 };

    /// What is mostly flash is moved by the power of the flash, and by nothing else.
    #[rstest]
    #[case(1)]
    #[case(-1)]
    #[case(2)]
    fn a_face_that_flash_lights_is_moved_by_its_power(#[case] thirds: i32) {
        let (setup, kit) = setup(OVER);
        let found = looked(&setup, &kit, ("lit", thirds), None).expect("it turns");
        assert!(found.flash_share > 0.8, "{}", found.flash_share);
        let [Turned::Power(light, Some(from), Some(to))] = &found.turned[..] else { panic!("{:?}", found.turned) };
        assert_eq!(light, "A");
        let by = (to.0 - from.0).0;
        assert!((by - f64::from(thirds) / 3.0).abs() <= CLICKS + 1e-9, "{by}");
        assert!((found.by.0 - f64::from(thirds) / 3.0).abs() <= CLICKS, "{:?}", found.by);
    }

    /// What lies behind is moved by the shutter, and the flash on the face stays where it is within a click.
    #[test]
    fn what_lies_behind_is_moved_by_the_shutter() {
        let (setup, kit) = setup(LIFT);
        let found = looked(&setup, &kit, ("behind", 1), None).expect("it turns");
        assert!(found.turned.iter().any(|one| matches!(one, Turned::Shutter(..))), "{:?}", found.turned);
        assert!(found.turned.iter().all(|one| !matches!(one, Turned::Distance(..))), "{:?}", found.turned);
        assert!((found.by.0 - 1.0 / 3.0).abs() < 0.2);
    }

    #[test]
    fn what_cannot_be_moved_is_said() {
        let (mut setup, kit) = setup(OVER);
        assert!(matches!(looked(&setup, &kit, ("shadow", 1), None), Err(Refused::NothingPlaces(_))));
        assert!(matches!(looked(&setup, &kit, ("nobody", 1), None), Err(Refused::NoSuchRegion(_))));
        assert!(matches!(looked(&setup, &kit, ("lit", 99), None), Err(Refused::OutOfRange { .. })));
        // At full power, with everything on the camera fixed, nothing is left to turn.
        setup.fixed = crate::setup::Fixed { shutter_s: Some(0.005), f_number: Some(22.0), iso: Some(100.0) };
        setup.lights[0].distance_m = Some(6.0);
        assert!(matches!(looked(&setup, &kit, ("lit", 1), None), Err(Refused::AtItsEnd(_))));
    }
}
