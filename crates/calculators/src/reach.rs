//! What a glowing face gives a place, by where both stand: the fields are those of the reference table.

use serde_json::{Value, json};
use tolva_core::modifier::Surface;
use tolva_core::scale::Metres;
use tolva_core::set::{Direction, Glow, Point, Receptor, Weighing};

use crate::problem::Problems;
use crate::table::{Asked, CalculatorOffer, Given, Values};

/// A word to choose.
pub(crate) fn word(field: &str, name: &str, words: &[&str]) -> Asked {
    let choices = words.iter().map(|word| (*word).to_owned()).collect();
    Asked { choices, ..Asked::text(field, name, words.first().copied().unwrap_or_default()) }
}

/// How it is offered.
pub(super) fn offer() -> CalculatorOffer {
    let place = |field: &str, name: &str, usual: f64| Asked::number(field, name, "m", usual, (-100.0, 100.0));
    CalculatorOffer {
        name: "light-reach".to_owned(),
        title: "What a light gives a place".to_owned(),
        group: "Set".to_owned(),
        says: "By where both stand and look: x to the right, y forwards, z up, azimuths clockwise from +y.".to_owned(),
        asked: vec![
            word("shape", "Its face", &["rectangle", "disc"]),
            Asked::number("width_m", "Width, or diameter", "m", 0.6, (0.01, 10.0)),
            Asked::number("height_m", "Height", "m", 0.9, (0.01, 10.0)),
            Asked::number("directionality", "Falls off by cosⁿ, n", "", 1.0, (0.0, 400.0)),
            place("x_m", "Light, to the right", -1.0),
            place("y_m", "Light, forwards", -1.0),
            place("z_m", "Light, up", 2.0),
            place("aim_x_m", "Aimed at, to the right", 0.0),
            place("aim_y_m", "Aimed at, forwards", 0.0),
            place("aim_z_m", "Aimed at, up", 1.6),
            place("point_x_m", "Place, to the right", 0.0),
            place("point_y_m", "Place, forwards", 0.0),
            place("point_z_m", "Place, up", 1.6),
            Asked::number("facing_azimuth_deg", "It looks", "°", 200.0, (-360.0, 360.0)),
            Asked::number("facing_elevation_deg", "It looks up", "°", 0.0, (-90.0, 90.0)),
            word("receptor", "It is", &["flat", "dome"]),
        ],
        given: vec![Given::new("reach_stops", "Over the intensity on the axis at 1 m", "stops")],
    }
}

/// Works it out; null where no light arrives.
pub(super) fn reach(values: &Values) -> Result<Value, Problems> {
    let point = |x: &str, y: &str, z: &str| Point::new(values.get(x), values.get(y), values.get(z));
    let (at, aim) = (point("x_m", "y_m", "z_m"), point("aim_x_m", "aim_y_m", "aim_z_m"));
    let way = aim - at;
    if way.length() < 1e-9 {
        let says = "this is where the light stands: it must be aimed at some other place";
        return Err(Problems::one("/aim_x_m", says.to_owned()));
    }
    let (width, height) = (Metres(values.get("width_m")), Metres(values.get("height_m")));
    let surface = match values.text("shape") {
        "disc" => Surface::Disc { diameter: width },
        _ => Surface::Rectangle { width, height },
    };
    let glow = Glow::new(at, way.normalize(), 0.0, surface, values.get("directionality"));
    let looks = Direction::new(values.get("facing_azimuth_deg"), values.get("facing_elevation_deg"));
    let weighing = if values.text("receptor") == "dome" { Weighing::Dome } else { Weighing::Flat };
    let receptor = Receptor { at: point("point_x_m", "point_y_m", "point_z_m"), normal: looks.vector(), weighing };
    let found = glow.reach(&receptor, &[]).finite();
    let line = match found {
        Some(stops) => format!("log₂ of 1/A·∫cosⁿθ·w/d² dA over its face = {stops:.3}"),
        None => "no light of it arrives there".to_owned(),
    };
    Ok(json!({ "reach_stops": found, "workings": [line] }))
}
