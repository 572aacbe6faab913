//! Outlines of what stands on a set: from above, from the side and through the lens. A thing is a few convex parts; each
//! outline is the hull of one part, projected.

use tolva_core::scale::{LengthUnit, Metres};
use tolva_core::set::{Direction, Panel, Point, Solid, Vector, View, hull, oval};
use tolva_planner::set::{LightDistances, support_outline};
use tolva_planner::setup::{HazardKind, PaneGlazing, Person, Product, Setup};
use tolva_planner::staging::{Stage, Thing};

use super::types::{OnSet, SetThing};

fn millimetres(value: f64) -> f64 {
    (value * 1000.0).round() / 1000.0
}

/// A part's outline seen one way; what has no width is two points.
fn seen(part: &[Point], project: impl Fn(&Point) -> Option<[f64; 2]>) -> Option<Vec<[f64; 2]>> {
    let points: Vec<[f64; 2]> = part.iter().filter_map(project).map(|at| at.map(millimetres)).collect();
    let shape = hull(points);
    (!shape.is_empty()).then_some(shape)
}

fn thing(of: Thing, name: &str, kind: &'static str, at: Point, parts: &[Vec<Point>], view: &View) -> SetThing {
    let all = |project: &dyn Fn(&Point) -> Option<[f64; 2]>| {
        parts.iter().filter_map(|part| seen(part, project)).collect::<Vec<_>>()
    };
    SetThing {
        thing: OnSet::from(of),
        name: name.to_owned(),
        kind,
        at: [at.x, at.y, at.z].map(millimetres),
        looks_deg: None,
        plan: all(&|point| Some([point.x, point.y])),
        side: all(&|point| Some([point.y, point.z])),
        lens: all(&|point| view.project(*point).map(|at| [at.right, at.up])),
        says: String::new(),
    }
}

fn corners(panel: &Panel) -> Vec<Point> {
    panel.corners().into()
}

/// A body as wide at the shoulders as people are, and less deep.
fn body(person: &Person) -> Vec<Point> {
    let (head, _) = person.head();
    let (across, ahead) = (person.looks().cross(Vector::Z), person.looks());
    let top = person.eyes().z - person.height_m * 0.13;
    let (wide, deep) = (person.height_m * 0.135, person.height_m * 0.07);
    let ring = |z: f64| oval(Point::new(head.x, head.y, z), across * wide, ahead * deep);
    [0.0, top].into_iter().flat_map(ring).collect()
}

fn product(of: &Product) -> Vec<Vec<Point>> {
    let (width, depth, _) = of.size_m();
    let itself = of.solid().points();
    let half = (width.max(depth) / 2.0 + 0.1).max(0.25);
    let table = Panel::new(Point::new(of.x_m, of.y_m, of.table_m), Vector::Z, 2.0 * half, 2.0 * half);
    vec![corners(&table), itself]
}

/// What can hurt, as it is named and drawn.
pub(super) fn hazard_name(kind: HazardKind) -> (&'static str, &'static str) {
    match kind {
        HazardKind::Edge => ("Edge", "edge"),
        HazardKind::Road => ("Road", "road"),
        HazardKind::Water => ("Water", "water"),
        HazardKind::Crowd => ("People passing", "crowd"),
        HazardKind::OverheadLine => ("Line overhead", "line"),
        HazardKind::Cable => ("Cable", "cable"),
    }
}

/// Everything that stands on a set, what is largest first, so that what is small lies on top.
pub(super) fn things(setup: &Setup, stage: &Stage, away: &LightDistances, unit: LengthUnit) -> Vec<SetThing> {
    let (set, view) = (&stage.laid.set, &stage.view);
    let mut all = Vec::new();
    for wall in &set.walls {
        let panel = wall.panel(stage.laid.anchor());
        all.push(thing(Thing::Wall(wall.id.clone()), &wall.name, "wall", panel.centre, &[corners(&panel)], view));
    }
    for hazard in &set.hazards {
        let (name, kind) = hazard_name(hazard.kind);
        let z = if hazard.kind == HazardKind::OverheadLine { hazard.height_m } else { 0.0 };
        let ends = [(hazard.from_x_m, hazard.from_y_m), (hazard.to_x_m, hazard.to_y_m)];
        let ends = ends.map(|(x, y)| Point::new(x, y, z)).to_vec();
        all.push(thing(Thing::Hazard(hazard.id.clone()), name, kind, hazard.middle() + Vector::Z * z, &[ends], view));
    }
    for opening in &set.openings {
        let panel = opening.panel();
        let mut one =
            thing(Thing::Opening(opening.id.clone()), &opening.name, "opening", panel.centre, &[corners(&panel)], view);
        one.looks_deg = Some(opening.facing_deg);
        all.push(one);
    }
    for pane in &set.panes {
        let panel = pane.panel();
        let kind = if pane.glazing == PaneGlazing::Mirror { "mirror" } else { "pane" };
        let mut one = thing(Thing::Pane(pane.id.clone()), &pane.name, kind, panel.centre, &[corners(&panel)], view);
        one.looks_deg = Some(pane.facing_deg);
        all.push(one);
    }
    for one in &set.products {
        let mut drawn = thing(Thing::Product(one.id.clone()), &one.name, "product", one.middle(), &product(one), view);
        drawn.looks_deg = Some(one.facing_deg);
        all.push(drawn);
    }
    for card in &set.cards {
        let panel = card.panel();
        let kind = match card.kind {
            tolva_planner::setup::CardKind::Black => "flag",
            tolva_planner::setup::CardKind::Diffuser => "diffuser",
            tolva_planner::setup::CardKind::Mirror => "mirror",
            _ => "card",
        };
        let mut one = thing(Thing::Card(card.id.clone()), &card.name, kind, panel.centre, &[corners(&panel)], view);
        one.looks_deg = Some(card.facing_deg);
        all.push(one);
    }
    for person in &set.people {
        let (head, radius) = person.head();
        let parts = [body(person), Solid::Ball { centre: head, radius_m: radius }.points()];
        let mut one = thing(Thing::Person(person.id.clone()), &person.name, "person", person.eyes(), &parts, view);
        one.looks_deg = Some(person.facing_deg);
        all.push(one);
    }
    let camera = stage.camera();
    // A body of a camera and its lens; its own outline is not seen through it.
    let back = Panel::new(camera - view.forward * 0.06, view.forward, 0.15, 0.11);
    let front = Panel::new(camera, view.forward, 0.15, 0.11);
    let lens = Panel::new(camera + view.forward * 0.1, view.forward, 0.08, 0.08);
    let body: Vec<Point> = corners(&back).into_iter().chain(corners(&front)).collect();
    let barrel: Vec<Point> =
        corners(&Panel::new(camera, view.forward, 0.08, 0.08)).into_iter().chain(corners(&lens)).collect();
    let mut one = thing(Thing::Camera, "Camera", "camera", camera, &[body, barrel], view);
    one.lens = Vec::new();
    one.looks_deg = Some(Direction::of(view.forward).azimuth_deg);
    one.says = format!("{} mm, {}", setup.focal_length_mm, Metres(setup.camera_distance_m).label(unit));
    all.push(one);
    for (index, light) in setup.each_light() {
        let glow = stage.glow(index, Metres(away[index]));
        // A head behind what glows, so that a bare one is drawn too.
        let head = glow.centre - glow.axis * 0.22;
        let (right, up) = (glow.right * 0.05, glow.up * 0.05);
        let mut shape = glow.outline();
        shape.extend([head + right + up, head - right + up, head - right - up, head + right - up]);
        let mut parts = vec![glow.outline(), shape];
        if let Some((_, stand)) = support_outline(stage, index, glow.centre, light.on_camera) {
            parts.push(stand);
        }
        let mut one = thing(Thing::Light(light.id.clone()), &light.id, "light", glow.centre, &parts, view);
        one.looks_deg = Some(Direction::of(glow.axis).azimuth_deg);
        all.push(one);
    }
    all
}

#[cfg(test)]
mod tests {
    use super::*;
    use tolva_planner::setup::Kit;

    /// A person of 1.7 m, seen from 3 m through 85 mm: taller than the frame, in its middle.
    #[test]
    fn a_person_stands_in_the_frame() {
        let kit = Kit::starter();
        let setup = Setup::new("one", &kit);
        let stage = Stage::of(&setup, &kit);
        let all = things(&setup, &stage, &LightDistances::of(&setup, |_, _| 1.5), LengthUnit::Metres);
        let person = all.iter().find(|one| one.kind == "person").expect("somebody");
        let head = &person.lens[1];
        let middle = head.iter().map(|at| at[0]).sum::<f64>() / f64::from(u32::try_from(head.len()).expect("few"));
        assert!(middle.abs() < 0.02, "{head:?}");
        let high =
            head.iter().map(|at| at[1]).fold(f64::MIN, f64::max) - head.iter().map(|at| at[1]).fold(f64::MAX, f64::min);
        // 0.22 m at 3.1 m, in a frame of 24/85 of 3.1 m.
        assert!((high - 0.221 / (3.11 * 24.0 / 85.0)).abs() < 0.02, "{high}");
        assert!(all.iter().any(|one| one.kind == "light" && one.plan.len() == 3));
    }
}
