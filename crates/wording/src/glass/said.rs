//! The report of the glass of a set.

use std::sync::Arc;

use tolva_core::scale::{LengthUnit, Metres};
use tolva_planner::glass::{self as domain, By, Finding, Look, Shown, remedies, shot_through};
use tolva_planner::lighting::Prepared;
use tolva_planner::set::{LightDistances, distances_of};
use tolva_planner::setup::{Kit, Setup};
use tolva_planner::solver::Outcome;
use tolva_planner::staging::{Stage, Thing};

use super::names::{called, named};
use super::offers;
use super::types::{GlassFinding, GlassReport, GlossSaid};
use crate::document::Write;
use crate::set::{OnSet, called as thing_called};
use crate::shown::{Fact, Show};
use crate::words::upper_first;

/// The report of the glass of a setup that is planned; what to do only where it is `asked` for.
pub(crate) fn glass_report(
    prepared: &Prepared<'_>,
    outcome: &Outcome,
    kit: &Kit,
    show: Show,
    write: &Write<'_>,
    asked: bool,
) -> GlassReport {
    let setup = prepared.setup;
    let stage = prepared.stage.clone().unwrap_or_else(|| Arc::new(Stage::of(setup, kit)));
    let away = distances_of(prepared, Some(outcome));
    let unit = show.metres();
    let look = Look::new(&stage, &away);
    let found = look.findings(prepared, outcome);
    let all = asked.then(|| remedies(prepared, outcome, kit, &found));
    GlassReport {
        any: look.any(),
        says: says(setup, &stage, &look, &found),
        findings: found.iter().map(|one| finding(setup, &stage, &look, one)).collect(),
        remedies: all.map(|all| all.iter().map(|of| offers::remedies(of, setup, &stage, unit, write)).collect()),
        shot_through: through(setup, &stage, &away),
        gloss: gloss(prepared, &stage, unit),
    }
}

fn glass(stage: &Stage, by: &By) -> (OnSet, String) {
    let set = &stage.laid.set;
    let pane = |index: usize| (OnSet::Pane(set.panes[index].id.clone()), set.panes[index].name.clone());
    match by {
        By::Pane(index) => pane(*index),
        By::Twice(first, second) => {
            let (thing, name) = pane(*first);
            (thing, format!("{name}, by way of {}", set.panes[*second].name))
        }
        By::Glasses(person, left) => {
            let one = &set.people[*person];
            let side = if *left { "left" } else { "right" };
            (OnSet::Person(one.id.clone()), format!("{}’s spectacles, {side} glass", one.name))
        }
    }
}

fn finding(setup: &Setup, stage: &Stage, look: &Look<'_>, one: &Finding) -> GlassFinding {
    let (glass, glass_name) = glass(stage, &one.by);
    let name = called(setup, stage, &one.what);
    let tenth = |value: f64| (value * 10.0).round() / 10.0;
    let share = (one.seen.share * 100.0).round();
    let bounces = if matches!(one.by, By::Twice(..)) { ", mirrored twice" } else { "" };
    let part = match one.by {
        By::Glasses(..) if share < 99.5 => format!("{share:.0} % of it falls on the glass"),
        By::Glasses(..) => "all of it falls on the glass".to_owned(),
        _ if share < 99.5 => format!("{share:.0} % of it shows{bounces}"),
        _ => format!("all of it shows{bounces}"),
    };
    let hiders = look.hidden_by(&one.by, &one.what, &one.seen);
    let hiders: Vec<String> = hiders.iter().map(|thing| thing_called(setup, stage, thing)).collect();
    let hidden = match hiders.as_slice() {
        [] => String::new(),
        all => format!(
            " ({} the rest)",
            if all.len() == 1 { format!("{} hides", all[0]) } else { format!("{} hide", all.join(", ")) }
        ),
    };
    let strength = if one.shows() {
        format!("{} what lies behind it", against(one.over.0))
    } else {
        format!("{} what lies behind it, too little to be seen", against(one.over.0))
    };
    let darkened = one.over.0 - one.over_before.0;
    let before = if darkened.abs() > 0.3 && one.over.0.is_finite() {
        format!("; exposed for the light that is there, {}", against(one.over_before.0))
    } else {
        String::new()
    };
    let id = format!("{}/{}", key(&OnSet::from(named(setup, &one.what))), by_key(&one.by));
    GlassFinding {
        id,
        what: named(setup, &one.what).into(),
        glass,
        outlines: one.seen.shapes.iter().flatten().cloned().collect(),
        centre: one.seen.centre.map(|at| [at.right, at.up]),
        shows: one.shows(),
        over: one.over.into(),
        over_before: one.over_before.into(),
        share_percent: share,
        incidence_deg: tenth(one.seen.incidence_deg),
        reflectance_percent: tenth(one.seen.reflectance * 100.0),
        says: format!(
            "{}: {part}{hidden}, {strength}{before}. It is looked at {:.0}° off straight on and gives back {:.0} %.",
            place(one),
            one.seen.incidence_deg,
            one.seen.reflectance * 100.0
        ),
        name,
        glass_name,
    }
}

fn key(thing: &OnSet) -> String {
    match thing {
        OnSet::Light(id) | OnSet::Wall(id) => id.clone(),
        _ => "photographer".to_owned(),
    }
}

fn by_key(by: &By) -> String {
    match by {
        By::Pane(index) => format!("{index}"),
        By::Twice(first, second) => format!("{first}/{second}"),
        By::Glasses(person, left) => format!("person-{person}-{}", if *left { "left" } else { "right" }),
    }
}

fn against(stops: f64) -> String {
    match stops {
        none if !none.is_finite() => "nothing against".to_owned(),
        over if over >= 0.0 => format!("{over:.1} stops over"),
        under => format!("{:.1} stops under", -under),
    }
}

/// Where in the frame.
fn place(one: &Finding) -> String {
    let Some(at) = one.seen.centre else { return "Past the edge of the frame".to_owned() };
    let across = match at.right {
        left if left < -0.17 => "left",
        right if right > 0.17 => "right",
        _ => "middle",
    };
    let high = match at.up {
        low if low < -0.17 => "low",
        up if up > 0.17 => "high",
        _ => "",
    };
    let text = if high.is_empty() { format!("In the {across}") } else { format!("{high}, {across}") };
    upper_first(&text)
}

fn says(setup: &Setup, stage: &Stage, look: &Look<'_>, found: &[Finding]) -> String {
    if !look.any() && !domain::gloss(stage).is_empty() {
        return "No pane stands here. What shines mirrors too: that is told below.".to_owned();
    }
    if !look.any() {
        return "There is no glass on the set. Put panes, mirrors or spectacles where they are, and Tolva works out what \
                shows in them."
            .to_owned();
    }
    let showing: Vec<&Finding> = found.iter().filter(|one| one.shows()).collect();
    match showing.first() {
        None if found.is_empty() => "Nothing shows in any glass.".to_owned(),
        None => "What stands in the glass is too dim to be seen.".to_owned(),
        Some(worst) => {
            let others = showing.iter().filter(|one| one.what != worst.what).count();
            let more = match others {
                0 => String::new(),
                1 => " One more thing shows.".to_owned(),
                many => format!(" {many} more things show."),
            };
            let (_, glass) = glass(stage, &worst.by);
            let who = match &worst.what {
                Shown::Photographer => "You show".to_owned(),
                other => format!("{} shows", called(setup, stage, other)),
            };
            format!("{who} in {}, {} what lies behind it.{more}", lower_name(&glass), against(worst.over.0))
        }
    }
}

fn lower_name(name: &str) -> String {
    if name.contains('’') { name.to_owned() } else { format!("“{name}”") }
}

fn through(setup: &Setup, stage: &Stage, away: &LightDistances) -> Vec<Fact> {
    let mut all = Vec::new();
    for one in shot_through(stage, away) {
        let name = stage.laid.set.panes[one.pane].name.clone();
        let loss = format!(
            "takes {:.2} stops of everything behind it, looked through {:.0}° off straight on: it is in the plan",
            one.loss.0, one.incidence_deg
        );
        all.push(Fact::new("glass_loss", name.clone(), loss).with("loss_stops", one.loss.0));
        let lights: Vec<&str> = one.wrong_side.iter().map(|light| setup.lights[*light].id.as_str()).collect();
        let side = if lights.is_empty() {
            "all lights stand on the subject’s side, where they belong".to_owned()
        } else {
            format!(
                "{} on your side: in the glass they show, and their light goes through it as well; they belong on the \
                 subject’s side",
                match lights.as_slice() {
                    [one] => format!("{one} stands"),
                    many => format!("{} stand", many.join(", ")),
                }
            )
        };
        all.push(Fact::new("glass_side", name.clone(), side));
        let polariser = if one.polariser.0 > 0.15 {
            format!(
                "a polariser takes up to {:.1} stops more of its reflections than of the rest; it takes one to two stops of \
                 everything",
                one.polariser.0
            )
        } else {
            "looked at so straight on, a polariser does not help: a hood or a dark cloth against the pane does"
                .to_owned()
        };
        all.push(Fact::new("glass_polariser", name, polariser).with("polariser_stops", one.polariser.0));
    }
    all
}

fn gloss(prepared: &Prepared<'_>, stage: &Stage, unit: LengthUnit) -> Vec<GlossSaid> {
    let outdoors = prepared.scene.as_ref().is_some_and(|scene| scene.light.is_daylight());
    let m = |metres: f64| Metres(metres).label(unit);
    let mut all = Vec::new();
    for one in domain::gloss(stage) {
        let product = &stage.laid.set.products[one.product];
        let shows = match &one.shows {
            Some(thing) => format!("Its middle mirrors {}.", name_of(stage, thing)),
            None if outdoors => "Its middle mirrors the open surroundings.".to_owned(),
            None => "Its middle mirrors the dark room.".to_owned(),
        };
        let card = match (&one.filled_by, &one.card) {
            (Some(id), _) => {
                let card = stage.laid.set.cards.iter().find(|card| &card.id == id);
                format!(" {} fills it from end to end.", card.map_or("A card", |card| card.name.as_str()))
            }
            (None, Some(card)) => {
                let part = if matches!(product.shape, tolva_planner::setup::ProductShape::Cylinder { .. }) {
                    "a flat card fills at most one side of it: "
                } else {
                    ""
                };
                format!(
                    " To fill it, {part}{} × {}, {} from it, {} over the floor, facing it: white for a bright face, black \
                     for a dark one.",
                    m(card.width_m),
                    m(card.height_m),
                    m(card.centre.distance(product.middle())),
                    m(card.centre.z)
                )
            }
            (None, None) => {
                " A ball mirrors the whole room: a tent of white cloth round it, the lens through a gap.".to_owned()
            }
        };
        all.push(GlossSaid {
            product_id: product.id.clone(),
            name: product.name.clone(),
            says: format!("{shows}{card}"),
            card: one.card.is_some() && one.filled_by.is_none(),
        });
    }
    all
}

fn name_of(stage: &Stage, thing: &Thing) -> String {
    let set = &stage.laid.set;
    match thing {
        Thing::Card(id) => set.cards.iter().find(|one| &one.id == id).map(|one| one.name.clone()),
        Thing::Wall(id) => set.walls.iter().find(|one| &one.id == id).map(|one| one.name.clone()),
        Thing::Person(id) => set.people.iter().find(|one| &one.id == id).map(|one| one.name.clone()),
        Thing::Product(id) => set.products.iter().find(|one| &one.id == id).map(|one| one.name.clone()),
        Thing::Opening(id) => set.openings.iter().find(|one| &one.id == id).map(|one| one.name.clone()),
        Thing::Pane(id) => set.panes.iter().find(|one| &one.id == id).map(|one| one.name.clone()),
        _ => None,
    }
    .unwrap_or_else(|| "the room".to_owned())
}
