//! The report of a set: everything that follows from where things stand, worded.

use tolva_core::ambient::Role;
use tolva_core::scale::{LengthUnit, Metres, Stops};
use tolva_core::set::Point;
use tolva_planner::lighting::Prepared;
use tolva_planner::refused::Refused;
use tolva_planner::set::{
    self as domain, Evenness, Grid, Laid, Stage, distances, even_pair, even_place, evenness, notices, on_regions,
    shadows, thrown,
};
use tolva_planner::setup::{Kit, Setup};
use tolva_planner::solver::Outcome;

use super::moves;
use super::notes::note;
use super::outlines::things;
use super::types::{
    CardCurve, EvennessSaid, FloorPart, Level, LightMap, MapAsked, PersonLit, Reach, SetReport, ShadowDrawn, Whose,
};
use crate::depth_lane::Distance;
use crate::shown::{Fact, Show};

/// The map's grid.
const COLUMNS: u32 = 96;
const ROWS: u32 = 64;
/// Round what stands on the set so much is drawn too, in metres.
const ROUND_M: f64 = 0.9;
/// At least so wide is what is drawn, in metres.
const LEAST_M: f64 = 4.0;
/// Contours are drawn at whole stops in this range.
const LEVELS: std::ops::RangeInclusive<i32> = -6..=4;
/// A card is tried from here to there, in so many steps.
const CARD_M: (f64, f64) = (0.25, 2.5);
const CARD_STEPS: u32 = 24;

/// The report of a setup's set.
///
/// # Errors
/// A setup that cannot be planned.
pub fn set_report(setup: &Setup, kit: &Kit, show: Show, asked: &MapAsked) -> Result<SetReport, Refused> {
    let prepared = Prepared::new(setup, kit)?;
    let outcome = Outcome::of(&prepared);
    let stage = prepared.stage.clone().map_or_else(|| Stage::of(setup, kit), |stage| (*stage).clone());
    let away = distances(setup, kit);
    let unit = show.metres();
    let things = things(setup, kit, &stage, unit);
    let (mut lights, mut said) = (Vec::new(), Vec::new());
    for (index, away) in away.iter().enumerate() {
        let (listed, move_said) = moves::light(setup, &stage, index, *away, unit);
        lights.push(listed);
        said.push(move_said);
    }
    said.extend(moves::others(setup, &stage, unit));
    let found = notices(&prepared, (kit, &stage), &away);
    let part = asked.part.unwrap_or_else(|| all_of(&things));
    let view = &stage.view;
    let (sun, drawn) = sunlight(&prepared, &stage, unit);
    Ok(SetReport {
        used: stage.laid.used,
        says: says(&stage.laid),
        frame: frame(&stage, part),
        frame_high: view.half_height / view.half_width,
        lights,
        reaches: reaches(&prepared, &outcome, &stage, &away),
        moves: said,
        notices: found.iter().map(|one| note(setup, &stage, one, unit)).collect(),
        evenness: evenness(&prepared, &outcome, &stage).map(|found| even_said(setup, kit, &stage, &found, unit)),
        sun,
        shadows: drawn,
        card: card_curve(setup, kit, &prepared, &stage, unit),
        map: light_map(&prepared, &outcome, &stage, asked, part, unit),
        things,
    })
}

/// The set in words alone, one move a line.
///
/// # Errors
/// A setup that cannot be planned.
pub fn set_moves(setup: &Setup, kit: &Kit, show: Show) -> Result<Vec<String>, Refused> {
    Prepared::new(setup, kit)?;
    let stage = Stage::of(setup, kit);
    let unit = show.metres();
    let lights = distances(setup, kit).into_iter().enumerate();
    let lights = lights.map(|(index, away)| moves::light(setup, &stage, index, away, unit).1);
    Ok(lights.chain(moves::others(setup, &stage, unit)).collect())
}

fn says(laid: &Laid) -> String {
    if laid.used {
        "What each light reaches is worked out from where it stands.".to_owned()
    } else {
        "Laid out from the distances and roles that are known. What lights reach is as it was typed, until something is \
         moved here."
            .to_owned()
    }
}

/// The part of the floor that holds everything near the set: walls and hazards go on past its edge.
pub(super) fn all_of(things: &[super::types::SetThing]) -> FloorPart {
    let near = things.iter().filter(|one| {
        ["person", "product", "camera", "light", "card", "flag", "mirror", "diffuser", "opening"].contains(&one.kind)
    });
    let (mut low, mut high) = ([f64::MAX; 2], [f64::MIN; 2]);
    for at in near.flat_map(|one| one.plan.iter().flatten()) {
        for axis in 0..2 {
            low[axis] = low[axis].min(at[axis]);
            high[axis] = high[axis].max(at[axis]);
        }
    }
    if low[0] > high[0] {
        (low, high) = ([-2.0; 2], [2.0; 2]);
    }
    let ends = |axis: usize| {
        let (middle, wide) = (f64::midpoint(low[axis], high[axis]), high[axis] - low[axis] + 2.0 * ROUND_M);
        let half = (wide.max(LEAST_M) / 2.0 * 4.0).ceil() / 4.0;
        let middle = (middle * 4.0).round() / 4.0;
        ((middle - half).max(-200.0), (middle + half).min(200.0))
    };
    let ((left_m, right_m), (near_m, far_m)) = (ends(0), ends(1));
    FloorPart { left_m, near_m, right_m, far_m }
}

/// The camera's frame on the floor plan: its two edges, as far as is drawn.
fn frame(stage: &Stage, part: FloorPart) -> Vec<[f64; 2]> {
    let view = &stage.view;
    let far = (part.far_m - part.near_m).hypot(part.right_m - part.left_m) * 1.5;
    let edge = |side: f64| {
        let way = view.forward + view.right * (side * view.half_width);
        let to = view.at + way * far;
        [to.x, to.y]
    };
    vec![[view.at.x, view.at.y], edge(-1.0), edge(1.0)]
}

fn reaches(prepared: &Prepared<'_>, outcome: &Outcome, stage: &Stage, away: &[f64]) -> Vec<Reach> {
    let mut all = Vec::new();
    for (light, at) in prepared.lights.iter().zip(&outcome.lights) {
        let distance = at.map_or(Metres(away[light.index]), |at| at.distance);
        let given = light.is_on_set().then(|| stage.to_regions(light.index, distance));
        for (index, region) in prepared.setup.regions.iter().enumerate() {
            let part = given
                .as_ref()
                .map(|given| given[index])
                .map(|one| one.bounced / (one.straight + one.bounced).max(1e-12));
            all.push(Reach {
                light_id: light.light.id.clone(),
                region_id: region.id.clone(),
                spill: light.spill(index, distance).into(),
                from_set: light.is_on_set(),
                bounced: part.filter(|part| *part > 0.005).map(|part| format!("{:.0} %", part * 100.0)),
            });
        }
    }
    all
}

fn even_said(setup: &Setup, kit: &Kit, stage: &Stage, found: &Evenness, unit: LengthUnit) -> EvennessSaid {
    let people = &stage.laid.set.people;
    let worst = &people[found.worst].name;
    let off = found.people[found.worst];
    let m = |metres: Metres| metres.label(unit);
    let (says, moves) = if found.is_even() {
        (
            format!("Everybody is within {} stop of each other.", found.spread.thirds().trim_start_matches('+')),
            Vec::new(),
        )
    } else {
        let how = match off.0 {
            none if !none.is_finite() => "gets nothing of it".to_owned(),
            over if over > 0.0 => format!("is {} over the middle", off.amount()),
            _ => format!("is {} under the middle", off.amount()),
        };
        let flashes: Vec<usize> = (0..setup.lights.len())
            .filter(|index| {
                kit.flashes.iter().any(|flash| {
                    flash.id == setup.lights[*index].flash_id
                        && !matches!(flash.output, tolva_planner::setup::FlashOutput::Continuous(_))
                })
            })
            .collect();
        let one = flashes.first().and_then(|light| even_place(setup, kit, *light));
        let id = |index: usize| setup.lights[index].id.clone();
        match one {
            Some(place) if place.spread <= domain::EVEN => {
                let (light, direction, distance) = place.lights[0];
                let up = direction.elevation_deg;
                let does = format!("{} {} away and {up:.0}° up brings all within a third.", id(light), m(distance));
                (format!("{worst} {how}. {does}"), vec![id(light)])
            }
            one => {
                let least = one.map_or(String::new(), |place| format!(" (at best {} apart)", place.spread.amount()));
                let pair = flashes.get(1).and_then(|other| even_pair(setup, kit, (flashes[0], *other)));
                match pair {
                    Some(pair) if pair.spread <= domain::EVEN => {
                        let (first, direction, distance) = pair.lights[0];
                        let (a, b) = (id(first), id(pair.lights[1].0));
                        let says = format!(
                            "{worst} {how}. Not with one light{least}: {a} and {b} to both sides of the camera, {} away and \
                             {:.0}° up, bring all within a third.",
                            m(distance),
                            direction.elevation_deg
                        );
                        (says, vec![a, b])
                    }
                    Some(pair) => {
                        let says = format!(
                            "{worst} {how}. Not with one light{least}, nor with two (at best {} apart): bring the rows \
                             nearer together.",
                            pair.spread.amount()
                        );
                        (says, Vec::new())
                    }
                    None => (
                        format!("{worst} {how}. Not with one light{least}: two, one to each side of the camera."),
                        Vec::new(),
                    ),
                }
            }
        }
    };
    EvennessSaid {
        people: (people.iter().zip(&found.people).enumerate())
            .map(|(index, (person, stops))| PersonLit {
                person_id: person.id.clone(),
                name: person.name.clone(),
                stops: (*stops).into(),
                worst: index == found.worst && !found.is_even(),
            })
            .collect(),
        spread: found.spread.into(),
        even: found.is_even(),
        says,
        moves,
    }
}

fn sunlight(prepared: &Prepared<'_>, stage: &Stage, unit: LengthUnit) -> (Vec<Fact>, Vec<ShadowDrawn>) {
    let Some(scene) = prepared.scene.as_ref().filter(|scene| scene.now.sun_shows && scene.light.is_daylight()) else {
        return (Vec::new(), Vec::new());
    };
    let (sun, facing) = (scene.now.sun, scene.scene.facing_deg);
    let m = |metres: f64| Metres(metres).label(unit);
    let mut facts = Vec::new();
    let mut drawn = Vec::new();
    for (index, shadow) in shadows(&stage.laid, sun, facing).into_iter().enumerate() {
        let says = match &shadow.on_wall {
            Some((_, at)) => format!(
                "{} from the sun {:.1}° up; on the wall at {} over the floor, its edge {:.0} mm wide",
                m(shadow.length_m),
                sun.apparent_altitude_deg,
                m(at.z),
                shadow.edge_m * 1000.0
            ),
            None => format!(
                "{} long from the sun {:.1}° up, its edge {:.0} mm wide at the head",
                m(shadow.length_m),
                sun.apparent_altitude_deg,
                shadow.edge_m * 1000.0
            ),
        };
        if index == 0 {
            let fact = Fact::new("shadow", "Shadow of the sun", says.clone()).with("length_m", shadow.length_m);
            facts.push(fact.with("edge_m", shadow.edge_m));
        }
        let end = shadow.on_wall.as_ref().map_or(shadow.to, |(_, at)| *at);
        drawn.push(ShadowDrawn {
            of: shadow.of.into(),
            from: [shadow.from.x, shadow.from.y],
            to: [end.x, end.y],
            says,
        });
    }
    for thrown in thrown(&stage.laid, sun, facing) {
        let name = stage.laid.set.cards.iter().find(|card| card.id == thrown.card).map_or("", |card| &card.name);
        let says = if thrown.off_m < 0.15 {
            "throws the sun on the face".to_owned()
        } else {
            format!(
                "throws the sun past the face, {} off it: facing {:.0}°, tilted {:.0}° up, it would hit",
                m(thrown.off_m),
                thrown.facing.azimuth_deg,
                thrown.facing.elevation_deg
            )
        };
        facts.push(Fact::new("thrown", name, says).with("off_m", thrown.off_m));
    }
    (facts, drawn)
}

/// What the first card does to the shadow side, nearer and farther along the way it stands.
fn card_curve(setup: &Setup, kit: &Kit, prepared: &Prepared<'_>, stage: &Stage, unit: LengthUnit) -> Option<CardCurve> {
    let card = stage.laid.set.cards.first()?;
    let region = setup.regions.iter().position(|one| one.role == Role::ShadowSide).unwrap_or(prepared.lit);
    let face = stage.receptors[region].at;
    let centre = card.panel().centre;
    let (way, now_m) = ((centre - face).normalize_or(tolva_core::set::Vector::X), centre.distance(face));
    let bare =
        Setup { set: Some(tolva_planner::setup::Set { cards: Vec::new(), ..stage.laid.set.clone() }), ..setup.clone() };
    let there: Vec<f64> = prepared
        .light
        .iter()
        .zip(&prepared.set_ambient)
        .map(|(light, by)| (light.there(prepared.scene.as_ref().map(|scene| &scene.now)).0 - by.by.0).exp2())
        .collect();
    let with = |metres: f64| {
        let at: Point = face + way * metres;
        let moved = tolva_planner::setup::Card { x_m: at.x, y_m: at.y, z_m: at.z, ..card.clone() };
        let set = tolva_planner::setup::Set { cards: vec![moved], ..stage.laid.set.clone() };
        let drawn = Setup { set: Some(set), ..setup.clone() };
        on_regions(&drawn, &Stage::of(&drawn, kit), &there)[region].by
    };
    let base = on_regions(&bare, &Stage::of(&bare, kit), &there)[region].by;
    let by = |metres: f64| (with(metres) - base).0;
    let points: Vec<[f64; 2]> = (0..=CARD_STEPS)
        .map(|step| CARD_M.0 + (CARD_M.1 - CARD_M.0) * f64::from(step) / f64::from(CARD_STEPS))
        .map(|metres| [metres, (by(metres) * 1000.0).round() / 1000.0])
        .collect();
    let now = by(now_m);
    let name = &setup.regions[region].name;
    let verb = if now >= 0.0 { "adds" } else { "takes" };
    let says = format!(
        "{} at {} {verb} {} of ambient on “{name}”.",
        card.name,
        Metres(now_m).label(unit),
        Stops(now.abs()).amount()
    );
    Some(CardCurve {
        card_id: card.id.clone(),
        name: card.name.clone(),
        region_id: setup.regions[region].id.clone(),
        now: [now_m, (now * 1000.0).round() / 1000.0],
        says,
        levels: card_levels(&points),
        marks: [0.5, 1.0, 1.5, 2.0].map(|at_m| Distance { at_m, label: Metres(at_m).label(unit) }).into(),
        points,
    })
}

/// Half stops that hold a curve.
fn card_levels(points: &[[f64; 2]]) -> Vec<Level> {
    let (low, high) = points.iter().fold((0.0_f64, 0.0_f64), |(low, high), at| (low.min(at[1]), high.max(at[1])));
    #[expect(clippy::cast_possible_truncation, reason = "a few stops")]
    let halves = ((low * 2.0).floor() as i32)..=((high * 2.0).ceil() as i32);
    halves.map(|half| f64::from(half) / 2.0).map(|stops| Level { stops, label: Stops(stops).decimals() }).collect()
}

fn light_map(
    prepared: &Prepared<'_>,
    outcome: &Outcome,
    stage: &Stage,
    asked: &MapAsked,
    part: FloorPart,
    unit: LengthUnit,
) -> LightMap {
    let FloorPart { left_m, near_m, right_m, far_m } = part;
    let grid = Grid { left_m, near_m, right_m, far_m, columns: COLUMNS, rows: ROWS };
    let whose = match &asked.whose {
        Whose::Light(id) => domain::Whose::Light(id.clone()),
        Whose::Flashes => domain::Whose::Flashes,
        Whose::Together => domain::Whose::Together,
    };
    let found = domain::map(prepared, outcome, stage, &whose, &grid);
    #[expect(clippy::cast_possible_truncation, reason = "a dozen stops in hundredths")]
    let hundredths = found.iter().map(|stops| (stops.0 * 100.0).round() as i32).collect();
    let what = match &asked.whose {
        Whose::Light(id) => format!("What {id} gives"),
        Whose::Flashes => "What all flashes give".to_owned(),
        Whose::Together => "What flashes and ambient give together".to_owned(),
    };
    let level = |stops: i32| Level { stops: f64::from(stops), label: Stops(f64::from(stops)).thirds() };
    let bar = match (unit, right_m - left_m) {
        (LengthUnit::Metres, wide) if wide > 14.0 => 5.0,
        (LengthUnit::Metres, _) => 1.0,
        (LengthUnit::FeetAndInches, wide) if wide > 14.0 => 10.0 * Metres::PER_FOOT,
        (LengthUnit::FeetAndInches, _) => 3.0 * Metres::PER_FOOT,
    };
    LightMap {
        whose: asked.whose.clone(),
        part,
        columns: COLUMNS,
        rows: ROWS,
        hundredths,
        levels: LEVELS.map(level).collect(),
        says: format!("{what}, in stops from mid grey at eye height, on a face turned to the light."),
        bar: Distance { at_m: bar, label: Metres(bar).label(unit).replace(".00", "") },
    }
}
