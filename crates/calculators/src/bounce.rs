//! What a glowing face gives a place, straight and by way of one card: the fields are those of the reference table.

use serde_json::{Value, json};
use tolva_core::modifier::Surface;
use tolva_core::scale::{Metres, Stops};
use tolva_core::set::{Direction, Glow, Lustre, Matt, Panel, Point, Receptor, Solid, Weighing, ratio_by_way_of};

use crate::problem::Problems;
use crate::reach::word;
use crate::table::{Asked, CalculatorOffer, Given, Values};

/// The fields of a flag: all of them, or none.
const FLAG: [&str; 6] = ["flag_x_m", "flag_y_m", "flag_z_m", "flag_azimuth_deg", "flag_width_m", "flag_height_m"];

/// How it is offered.
pub(super) fn offer() -> CalculatorOffer {
    let place = |field: &str, name: &str, usual: f64| Asked::number(field, name, "m", usual, (-100.0, 100.0));
    let size = |field: &str, name: &str, usual: f64| Asked::number(field, name, "m", usual, (0.01, 10.0));
    let azimuth = |field: &str, name: &str, usual: f64| Asked::number(field, name, "°", usual, (-360.0, 360.0));
    let elevation = |field: &str, name: &str, usual: f64| Asked::number(field, name, "°", usual, (-90.0, 90.0));
    CalculatorOffer {
        name: "light-bounce".to_owned(),
        title: "A light and a card".to_owned(),
        group: "Set".to_owned(),
        says: "Light on a point, direct and off one card, past a flag. x right, y forwards, z up; azimuths clockwise \
               from +y."
            .to_owned(),
        asked: vec![
            size("width_m", "Light width", 0.6),
            size("height_m", "Light height", 0.9),
            place("x_m", "Light right", -1.0),
            place("y_m", "Light forwards", -1.2),
            place("z_m", "Light height above floor", 2.0),
            place("aim_x_m", "Aim right", 0.0),
            place("aim_y_m", "Aim forwards", 0.0),
            place("aim_z_m", "Aim height above floor", 1.6),
            place("card_x_m", "Card right", 0.7),
            place("card_y_m", "Card forwards", -0.2),
            place("card_z_m", "Card height above floor", 1.5),
            azimuth("card_azimuth_deg", "Card azimuth", 270.0),
            elevation("card_elevation_deg", "Card elevation", 0.0),
            size("card_width_m", "Card width", 0.8),
            size("card_height_m", "Card height", 1.2),
            word("card_finish", "Card finish", &["matt", "mirror"]),
            Asked::number("card_reflectance", "Card reflectance", "of 1", 0.9, (0.0, 1.0)),
            place("flag_x_m", "Flag right", 0.0).or_left_out(),
            place("flag_y_m", "Flag forwards", 0.0).or_left_out(),
            place("flag_z_m", "Flag height above floor", 0.0).or_left_out(),
            azimuth("flag_azimuth_deg", "Flag azimuth", 0.0).or_left_out(),
            size("flag_width_m", "Flag width", 0.5).or_left_out(),
            size("flag_height_m", "Flag height", 0.5).or_left_out(),
            place("point_x_m", "Point right", 0.0),
            place("point_y_m", "Point forwards", 0.0),
            place("point_z_m", "Point height above floor", 1.6),
            azimuth("facing_azimuth_deg", "Point azimuth", 135.0),
            elevation("facing_elevation_deg", "Point elevation", 0.0),
        ],
        given: vec![
            Given::new("direct_reach_stops", "Direct, over intensity on axis at 1 m", "stops"),
            Given::new("bounced_reach_stops", "Off the card, over the same", "stops"),
        ],
    }
}

/// The flag, where one is given.
fn flag(values: &Values) -> Result<Option<Solid>, Problems> {
    let given: Vec<f64> = FLAG.iter().filter_map(|field| values.maybe(field)).collect();
    let [x, y, z, azimuth_deg, width_m, height_m] = given[..] else {
        let missing = FLAG.iter().find(|field| values.maybe(field).is_none());
        let Some(missing) = missing.filter(|_| !given.is_empty()) else { return Ok(None) };
        let says = "a flag needs its place, azimuth, width and height: fill in all six, or none".to_owned();
        return Err(Problems::one(format!("/{missing}"), says));
    };
    let normal = Direction::new(azimuth_deg, 0.0).vector();
    Ok(Some(Solid::Panel(Panel::new(Point::new(x, y, z), normal, width_m, height_m))))
}

/// Works it out; null where no light arrives.
pub(super) fn bounce(values: &Values) -> Result<Value, Problems> {
    let point = |x: &str, y: &str, z: &str| Point::new(values.get(x), values.get(y), values.get(z));
    let looks = |azimuth: &str, elevation: &str| Direction::new(values.get(azimuth), values.get(elevation)).vector();
    let (at, aim) = (point("x_m", "y_m", "z_m"), point("aim_x_m", "aim_y_m", "aim_z_m"));
    let way = aim - at;
    if way.length() < 1e-9 {
        let says = "the light is at this very point: aim it somewhere else".to_owned();
        return Err(Problems::one("/aim_x_m", says));
    }
    let surface = Surface::Rectangle { width: Metres(values.get("width_m")), height: Metres(values.get("height_m")) };
    let glow = Glow::new(at, way.normalize(), 0.0, surface, 1.0);
    let normal = looks("card_azimuth_deg", "card_elevation_deg");
    let panel = Panel::new(
        point("card_x_m", "card_y_m", "card_z_m"),
        normal,
        values.get("card_width_m"),
        values.get("card_height_m"),
    );
    let lustre = if values.text("card_finish") == "mirror" { Lustre::Mirror } else { Lustre::Matt };
    let card = Matt { panel, reflectance: values.get("card_reflectance"), lustre };
    let receptor = Receptor {
        at: point("point_x_m", "point_y_m", "point_z_m"),
        normal: looks("facing_azimuth_deg", "facing_elevation_deg"),
        weighing: Weighing::Flat,
    };
    let flag = flag(values)?;
    let between: Vec<Solid> = flag.into_iter().chain([Solid::Panel(panel)]).collect();
    let stops = |ratio: f64| (ratio > NOTHING).then(|| Stops::of_ratio(ratio).0);
    let direct = stops(glow.ratio(&receptor, &between));
    let bounced = stops(ratio_by_way_of(&card, &glow, &receptor, &between));
    let line = |name: &str, found: Option<f64>| match found {
        Some(stops) => format!("{name}: {stops:.3} stops"),
        None => format!("{name}: no light arrives"),
    };
    let workings = [line("direct", direct), line("off the card", bounced)];
    Ok(json!({ "direct_reach_stops": direct, "bounced_reach_stops": bounced, "workings": workings }))
}

/// Less than this is nothing: 2⁻²⁰ of the intensity on the axis at 1 m.
const NOTHING: f64 = 1e-6;
