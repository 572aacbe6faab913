//! The set as a drawing to scale with its measures: an SVG for paper, black on white, from the format alone.

use std::fmt::Write as _;

use tolva_core::scale::{LengthUnit, Metres};
use tolva_planner::lighting::Prepared;
use tolva_planner::refused::Refused;
use tolva_planner::set::{LightDistances, distances};
use tolva_planner::setup::{Kit, Setup};
use tolva_planner::staging::Stage;

use super::outlines::things;
use super::report::all_of;
use super::types::{FloorPart, SetThing};
use crate::shown::Show;

/// A metre on paper is so many units; the drawing says its own scale.
const PER_M: f64 = 100.0;

/// A text inside SVG or HTML.
pub fn escaped(text: &str) -> String {
    text.replace('&', "&amp;").replace('<', "&lt;").replace('>', "&gt;").replace('"', "&quot;")
}

/// More people than so many are drawn without their names: those would lie over each other.
const NAMED_PEOPLE: usize = 4;

/// How large a drawing is.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum DrawnAs {
    /// A sheet of its own, 1 to 40.
    Sheet,
    /// As large as there is room for it.
    Part,
}

/// The set of a setup from above, to scale, with its measures.
///
/// # Errors
/// A setup that cannot be planned.
pub fn set_drawing(setup: &Setup, kit: &Kit, show: Show, drawn: DrawnAs) -> Result<String, Refused> {
    Prepared::new(setup, kit)?;
    let stage = Stage::of(setup, kit);
    let unit = show.metres();
    let away = distances(setup, kit);
    let all = things(setup, &stage, &away, unit);
    let part = all_of(&all);
    let (width, height) = ((part.right_m - part.left_m) * PER_M, (part.far_m - part.near_m) * PER_M);
    let mut svg = format!(
        "<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"0 0 {width:.0} {height:.0}\" width=\"{:.1}mm\" height=\"{:.1}mm\" \
         font-family=\"sans-serif\" font-size=\"16\">\n<title>{}</title>\n<rect width=\"100%\" height=\"100%\" fill=\"#fff\"/>\n",
        width / PER_M * 25.0,
        height / PER_M * 25.0,
        escaped(&setup.name),
    );
    grid(&mut svg, part);
    let crowd = all.iter().filter(|one| one.kind == "person").count() > NAMED_PEOPLE;
    for one in &all {
        draw(&mut svg, one, part, !(crowd && one.kind == "person"));
    }
    measures(&mut svg, setup, &stage, &away, (part, unit));
    let bar = if unit == LengthUnit::Metres { 1.0 } else { 3.0 * Metres::PER_FOOT };
    let (x, y) = (width - 20.0, height - 20.0);
    let _ = writeln!(
        svg,
        "<path d=\"M {:.0} {y:.0} H {x:.0}\" stroke=\"#000\" stroke-width=\"3\"/><text x=\"{x:.0}\" y=\"{:.0}\" \
         text-anchor=\"end\">{}{}</text>",
        x - bar * PER_M,
        y - 8.0,
        Metres(bar).label(unit),
        if drawn == DrawnAs::Sheet { ", 1 to 40 as printed" } else { "" }
    );
    svg.push_str("</svg>\n");
    Ok(svg)
}

fn at(part: FloorPart, point: [f64; 2]) -> (f64, f64) {
    ((point[0] - part.left_m) * PER_M, (part.far_m - point[1]) * PER_M)
}

fn grid(svg: &mut String, part: FloorPart) {
    let mut line = |from: [f64; 2], to: [f64; 2]| {
        let ((x, y), (a, b)) = (at(part, from), at(part, to));
        let _ = writeln!(svg, "<path d=\"M {x:.1} {y:.1} L {a:.1} {b:.1}\" stroke=\"#ddd\"/>");
    };
    let steps = |from: f64, to: f64| {
        #[expect(clippy::cast_possible_truncation, reason = "a few hundred metres")]
        let range = (from.ceil() as i32)..=(to.floor() as i32);
        range.map(f64::from)
    };
    for x in steps(part.left_m, part.right_m) {
        line([x, part.near_m], [x, part.far_m]);
    }
    for y in steps(part.near_m, part.far_m) {
        line([part.left_m, y], [part.right_m, y]);
    }
}

fn draw(svg: &mut String, one: &SetThing, part: FloorPart, named: bool) {
    let fill = match one.kind {
        "person" | "camera" | "flag" => "#000",
        "light" => "#bbb",
        _ => "#eee",
    };
    for outline in &one.plan {
        let mut path = String::new();
        for (index, point) in outline.iter().enumerate() {
            let (x, y) = at(part, *point);
            let _ = write!(path, "{} {x:.1} {y:.1} ", if index == 0 { 'M' } else { 'L' });
        }
        let close = if outline.len() > 2 { "Z" } else { "" };
        let _ = writeln!(svg, "<path d=\"{path}{close}\" fill=\"{fill}\" stroke=\"#000\" stroke-width=\"2\"/>");
    }
    if !named {
        return;
    }
    let (x, y) = at(part, [one.at[0], one.at[1]]);
    let _ = writeln!(
        svg,
        "<text x=\"{:.1}\" y=\"{:.1}\" stroke=\"#fff\" stroke-width=\"4\" paint-order=\"stroke\">{}</text>",
        x + 12.0,
        y - 12.0,
        escaped(&one.name)
    );
}

/// From each light to its aim, from the camera to the subject, and how high each is.
fn measures(
    svg: &mut String,
    setup: &Setup,
    stage: &Stage,
    away: &LightDistances,
    (part, unit): (FloorPart, LengthUnit),
) {
    let mut run = |from: [f64; 2], to: [f64; 2], label: &str| {
        let ((x, y), (a, b)) = (at(part, from), at(part, to));
        let _ = writeln!(
            svg,
            "<path d=\"M {x:.1} {y:.1} L {a:.1} {b:.1}\" stroke=\"#000\" stroke-dasharray=\"6 5\"/><text x=\"{:.1}\" \
             y=\"{:.1}\" text-anchor=\"middle\" stroke=\"#fff\" stroke-width=\"4\" paint-order=\"stroke\">{}</text>",
            f64::midpoint(x, a),
            f64::midpoint(y, b),
            escaped(label)
        );
    };
    for (index, away) in away.each() {
        let (light, aim) = (stage.at(index, Metres(away)), stage.aim(index));
        let label = format!("{}, {} high", Metres(away).label(unit), Metres(light.z).label(unit));
        run([light.x, light.y], [aim.x, aim.y], &label);
    }
    let (camera, anchor) = (stage.camera(), stage.laid.anchor());
    let label = format!("{}, {} mm", Metres(setup.camera_distance_m).label(unit), setup.focal_length_mm);
    run([camera.x, camera.y], [anchor.x, anchor.y], &label);
}
