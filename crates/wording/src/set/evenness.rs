//! How evenly a group is lit, in words: the worst by name, and what brings all within a third.

use tolva_core::scale::{LengthUnit, Stops};
use tolva_planner::set::{EVEN, EvenPlace, Evenness, Stand, even_pair, even_place};
use tolva_planner::setup::{Kit, LightIndex, Setup};
use tolva_planner::staging::Stage;

use super::types::{EvennessSaid, PersonLit};

/// How evenly the people of a set are lit.
pub(super) fn said(setup: &Setup, kit: &Kit, stage: &Stage, found: &Evenness, unit: LengthUnit) -> EvennessSaid {
    let people = &stage.laid.set.people;
    let (says, moves) = if found.is_even() {
        (format!("Everybody is within {} of each other.", found.spread.amount()), Vec::new())
    } else {
        let worst = worst(&people[found.worst].name, found.people[found.worst]);
        let (does, moves) = mended(setup, kit, unit);
        (format!("{worst} {does}"), moves)
    };
    let one = |(index, (person, stops)): (usize, (&tolva_planner::setup::Person, &Stops))| PersonLit {
        person_id: person.id.clone(),
        name: person.name.clone(),
        stops: (*stops).into(),
        worst: index == found.worst && !found.is_even(),
    };
    EvennessSaid {
        people: people.iter().zip(&found.people).enumerate().map(one).collect(),
        spread: found.spread.into(),
        even: found.is_even(),
        says,
        moves,
    }
}

/// Who is farthest off, and how far.
fn worst(name: &str, off: Stops) -> String {
    if off.0.is_finite() {
        format!("{name} is {} under the middle.", off.amount())
    } else {
        format!("{name} gets nothing of it.")
    }
}

/// A spread that is no third, to the tenth.
fn apart(spread: Stops) -> String {
    format!("at best {:.1} stops apart", spread.0)
}

/// The place from which one light, or two, bring all within a third, with the lights that go there.
fn mended(setup: &Setup, kit: &Kit, unit: LengthUnit) -> (String, Vec<String>) {
    // What sits on the camera has no place of its own.
    let flashes = setup.each_light().filter(|(_, light)| !light.on_camera && is_flash(kit, &light.flash_id));
    let flashes: Vec<LightIndex> = flashes.map(|(light, _)| light).collect();
    let Some(first) = flashes.first() else {
        return ("A flash off the camera could stand where it is even.".to_owned(), Vec::new());
    };
    let id = |index: LightIndex| setup.lights[index].id.clone();
    let where_to = |place: &EvenPlace| {
        let Stand { direction, distance, .. } = place.lights[0];
        format!("{} away and {:.0}° up", distance.label(unit), direction.elevation_deg)
    };
    let one = even_place(setup, kit, *first);
    if let Some(place) = one.as_ref().filter(|place| place.spread <= EVEN) {
        return (format!("{} {} brings all within a third.", id(*first), where_to(place)), vec![id(*first)]);
    }
    let alone = one.map_or_else(String::new, |place| format!(" ({})", apart(place.spread)));
    let Some(other) = flashes.get(1) else {
        return (format!("Not with one light{alone}: two, one to each side of the camera."), Vec::new());
    };
    match even_pair(setup, kit, (*first, *other)) {
        Some(pair) if pair.spread <= EVEN => {
            let (a, b) = (id(*first), id(*other));
            let says = format!(
                "Not with one light{alone}: {a} and {b} to both sides of the camera, {}, bring all within a third.",
                where_to(&pair)
            );
            (says, vec![a, b])
        }
        pair => {
            let two = pair.map_or_else(String::new, |pair| format!(" ({})", apart(pair.spread)));
            (format!("Not with one light{alone}, nor with two{two}: bring the rows nearer together."), Vec::new())
        }
    }
}

fn is_flash(kit: &Kit, id: &str) -> bool {
    let unit = kit.flashes.iter().find(|flash| flash.id == id);
    unit.is_some_and(|flash| !flash.burns_on())
}
