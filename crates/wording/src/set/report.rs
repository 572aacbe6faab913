//! The report of a set: everything that follows from where things stand, worded.

use std::sync::Arc;

use tolva_core::ambient::Role;
use tolva_core::scale::{LengthUnit, Metres, Stops};
use tolva_planner::lighting::{Prepared, PreparedScene};
use tolva_planner::refused::Refused;
use tolva_planner::set::{
    self as domain, Grid, LightDistances, distances, distances_of, evenness, notices, shadows, thrown,
};
use tolva_planner::setup::{Kit, Setup};
use tolva_planner::solver::Outcome;
use tolva_planner::staging::{Laid, Stage, card_along};

use super::evenness::said;
use super::moves;
use super::notes::note;
use super::outlines::things;
use super::types::{
    CardCurve, FloorPart, Level, LightMap, MapAsked, OnSet, Reach, SetNote, SetReport, ShadowDrawn, Whose,
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
const CARD_STEPS: u32 = 14;

/// What can hurt or spoil on a set that is used, in words: nothing of one nobody has used.
pub(crate) fn set_notes(prepared: &Prepared<'_>, kit: &Kit, outcome: &Outcome, show: Show) -> Vec<SetNote> {
    let Some(stage) = &prepared.stage else { return Vec::new() };
    noted(prepared, kit, stage, &distances_of(prepared, Some(outcome)), show.metres())
}

fn noted(prepared: &Prepared<'_>, kit: &Kit, stage: &Stage, away: &LightDistances, unit: LengthUnit) -> Vec<SetNote> {
    let found = notices(prepared, (kit, stage), away);
    found.iter().map(|one| note(prepared.setup, stage, one, unit)).collect()
}

/// The report of the set of a setup that is planned.
pub(crate) fn set_report(
    prepared: &Prepared<'_>,
    outcome: &Outcome,
    kit: &Kit,
    show: Show,
    asked: &MapAsked,
) -> SetReport {
    let setup = prepared.setup;
    let stage = prepared.stage.clone().unwrap_or_else(|| Arc::new(Stage::of(setup, kit)));
    let away = distances_of(prepared, Some(outcome));
    let unit = show.metres();
    let things = things(setup, &stage, &away, unit);
    let (mut lights, mut moved) = (Vec::new(), Vec::new());
    for (index, away) in away.each() {
        let (listed, move_said) = moves::light(setup, &stage, index, away, unit);
        lights.push(listed);
        moved.push(move_said);
    }
    moved.extend(moves::others(setup, &stage, unit));
    let whole = all_of(&things);
    let part = asked.part.unwrap_or(whole);
    let view = &stage.view;
    let (sun, drawn) = sunlight(prepared, &stage, unit);
    SetReport {
        used: stage.laid.used,
        says: says(&stage.laid),
        whole,
        frame: frame(&stage, part),
        frame_high: view.half_height / view.half_width,
        lights,
        reaches: reaches(prepared, outcome, &stage, &away),
        moves: moved,
        notices: noted(prepared, kit, &stage, &away, unit),
        evenness: evenness(prepared, outcome, &stage).map(|found| said(setup, kit, &stage, &found, unit)),
        sun,
        shadows: drawn,
        card: card_curve(setup, kit, prepared, &stage, unit),
        map: light_map(prepared, outcome, &stage, asked, part, unit),
        things,
    }
}

/// The set in words alone, one move a line.
///
/// # Errors
/// A setup that cannot be planned.
pub fn set_moves(setup: &Setup, kit: &Kit, show: Show) -> Result<Vec<String>, Refused> {
    Prepared::new(setup, kit)?;
    let stage = Stage::of(setup, kit);
    let unit = show.metres();
    let all = distances(setup, kit);
    let lights = all.each().map(|(index, away)| moves::light(setup, &stage, index, away, unit).1);
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
        ["person", "product", "camera", "light", "card", "flag", "mirror", "diffuser", "opening", "pane"]
            .contains(&one.kind)
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

fn reaches(prepared: &Prepared<'_>, outcome: &Outcome, stage: &Stage, away: &LightDistances) -> Vec<Reach> {
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
            None if shadow.on_table => format!(
                "{:.1} cm long on the table, its edge {:.1} mm wide; sun {:.1}° up",
                shadow.length_m * 100.0,
                shadow.edge_m * 1000.0,
                sun.apparent_altitude_deg
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
            lit: false,
        });
    }
    for thrown in thrown(&stage.laid, sun, facing) {
        let Some(one) = stage.laid.set.cards.iter().find(|card| card.id == thrown.card) else { continue };
        let (name, card) = (&one.name, one.panel().centre);
        let on = match &thrown.falls {
            Some((Some(wall), at)) => {
                let wall = stage.laid.set.walls.iter().find(|one| &one.id == wall).map_or("a wall", |one| &one.name);
                format!(", and on {wall}, {} over the floor", m(at.z))
            }
            Some((None, at)) => format!(", and on the floor {} off", m(at.truncate().distance(card.truncate()))),
            None => String::new(),
        };
        let says = if thrown.off_m < 0.15 {
            format!("throws the sun on the face{on}")
        } else {
            format!(
                "throws the sun past the face, {} off it{on}: facing {:.0}°, tilted {:.0}° up, it would hit",
                m(thrown.off_m),
                thrown.facing.azimuth_deg,
                thrown.facing.elevation_deg
            )
        };
        if let Some((_, at)) = thrown.falls {
            let of = OnSet::Card(thrown.card.clone());
            drawn.push(ShadowDrawn { of, from: [card.x, card.y], to: [at.x, at.y], says: says.clone(), lit: true });
        }
        facts.push(Fact::new("thrown", name, says).with("off_m", thrown.off_m));
    }
    (facts, drawn)
}

/// What the first card does to the shadow side, nearer and farther along the way it stands.
fn card_curve(setup: &Setup, kit: &Kit, prepared: &Prepared<'_>, stage: &Stage, unit: LengthUnit) -> Option<CardCurve> {
    let card = stage.laid.set.cards.first()?;
    let region = setup.regions.iter().position(|one| one.role == Role::ShadowSide).unwrap_or(prepared.lit);
    let now_m = card.panel().centre.distance(stage.receptors[region].at);
    let scene = prepared.scene.as_ref().map(|scene| &scene.now);
    // As it was read, before anything was put up.
    let there = prepared.light.iter().zip(&prepared.set_ambient);
    let there: Vec<f64> = there.map(|(light, by)| (light.there(scene).0 - by.by.0).exp2()).collect();
    let step = |step: u32| CARD_M.0 + (CARD_M.1 - CARD_M.0) * f64::from(step) / f64::from(CARD_STEPS);
    let distances: Vec<f64> = (0..=CARD_STEPS).map(step).chain([now_m]).collect();
    let daylight = prepared.scene.as_ref().map(PreparedScene::on_set);
    let by = card_along((setup, kit), (&there, daylight), region, &distances)?;
    let at = |metres: f64, stops: Stops| [metres, (stops.0 * 1000.0).round() / 1000.0];
    let mut points: Vec<[f64; 2]> = distances.iter().zip(&by).map(|(metres, stops)| at(*metres, *stops)).collect();
    let now = points.pop()?;
    let name = &setup.regions[region].name;
    let verb = if now[1] >= 0.0 { "adds" } else { "takes" };
    let amount = Stops(now[1]).amount();
    let says = format!("{} at {} {verb} {amount} of ambient on “{name}”.", card.name, Metres(now_m).label(unit));
    Some(CardCurve {
        card_id: card.id.clone(),
        name: card.name.clone(),
        region_id: setup.regions[region].id.clone(),
        now,
        says,
        marks: [0.5, 1.0, 1.5, 2.0].map(|at_m| Distance { at_m, label: Metres(at_m).label(unit) }).into(),
        levels: card_levels(&points),
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
    let by = if asked.coarse { 2 } else { 1 };
    let grid = Grid { left_m, near_m, right_m, far_m, columns: COLUMNS / by, rows: ROWS / by };
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
        columns: grid.columns,
        rows: grid.rows,
        hundredths,
        levels: LEVELS.map(level).collect(),
        says: format!("{what}, in stops from mid grey at eye height, on a face turned to the light."),
        bar: Distance { at_m: bar, label: Metres(bar).label(unit).replace(".00", "") },
    }
}
