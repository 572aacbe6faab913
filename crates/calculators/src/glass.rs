//! Where a light shows in a pane, and what the pane gives back of it: the fields are those of the reference table.

use serde_json::{Value, json};
use tolva_core::glass::{Glazing, Pane, reflection};
use tolva_core::modifier::Surface;
use tolva_core::optics::Sensor;
use tolva_core::scale::{Metres, Millimetres};
use tolva_core::set::{Direction, Glow, Panel, Point, View};

use crate::problem::Problems;
use crate::table::{Asked, CalculatorOffer, Given, Values};

/// How it is offered.
pub(super) fn offer() -> CalculatorOffer {
    let place = |field: &str, name: &str, usual: f64| Asked::number(field, name, "m", usual, (-100.0, 100.0));
    let size = |field: &str, name: &str, usual: f64| Asked::number(field, name, "m", usual, (0.01, 40.0));
    CalculatorOffer {
        name: "glass-image".to_owned(),
        title: "A light in a pane".to_owned(),
        group: "Set".to_owned(),
        says: "Where in the frame it shows, how much of it, and what the glass gives back: x to the right, y forwards, z up, \
               azimuths clockwise from +y."
            .to_owned(),
        asked: vec![
            place("camera_x_m", "Camera, to the right", 0.0),
            place("camera_y_m", "Camera, forwards", -3.0),
            place("camera_z_m", "Camera, up", 1.6),
            place("aim_x_m", "It looks at, to the right", 0.0),
            place("aim_y_m", "It looks at, forwards", 0.0),
            place("aim_z_m", "It looks at, up", 1.5),
            Asked::number("focal_length_mm", "Focal length", "mm", 50.0, (4.0, 1200.0)),
            Asked::number("sensor_width_mm", "Sensor, width", "mm", 36.0, (3.0, 60.0)),
            Asked::number("sensor_height_mm", "Sensor, height", "mm", 24.0, (2.0, 60.0)),
            place("pane_x_m", "Pane, to the right", 0.0),
            place("pane_y_m", "Pane, forwards", 2.0),
            place("pane_z_m", "Pane, up", 1.5),
            Asked::number("pane_azimuth_deg", "Pane looks", "°", 180.0, (-360.0, 360.0)),
            Asked::number("pane_tilt_deg", "Pane looks up", "°", 0.0, (-90.0, 90.0)),
            size("pane_width_m", "Pane, width", 3.0),
            size("pane_height_m", "Pane, height", 2.0),
            crate::reach::word("pane_kind", "It is", &["pane", "double", "mirror"]),
            place("light_x_m", "Light, to the right", -1.2),
            place("light_y_m", "Light, forwards", -1.5),
            place("light_z_m", "Light, up", 2.0),
            place("light_aim_x_m", "Light aimed at, to the right", 0.0),
            place("light_aim_y_m", "Light aimed at, forwards", 0.0),
            place("light_aim_z_m", "Light aimed at, up", 1.6),
            size("light_width_m", "Its face, width", 0.6),
            size("light_height_m", "Its face, height", 0.9),
        ],
        given: vec![
            Given::new("centre_shows", "Its middle shows", ""),
            Given::new("centre_right", "Middle, to the right", "frame widths"),
            Given::new("centre_up", "Middle, up", "frame heights"),
            Given::new("incidence_deg", "Off straight on", "°"),
            Given::new("reflectance", "Given back", "of 1"),
            Given::new("showing_share", "Part of it that shows", "of 1"),
        ],
    }
}

/// Works it out; where there is no way from the light by the pane to the lens, only that it does not show.
pub(super) fn image(values: &Values) -> Result<Value, Problems> {
    let point = |of: &str| {
        Point::new(values.get(&format!("{of}_x_m")), values.get(&format!("{of}_y_m")), values.get(&format!("{of}_z_m")))
    };
    let (camera, aim, light, light_aim) = (point("camera"), point("aim"), point("light"), point("light_aim"));
    for (at, to, field) in [(camera, aim, "/aim_x_m"), (light, light_aim, "/light_aim_x_m")] {
        if at.distance(to) < 1e-9 {
            let says = "this is where it stands itself: it must look at some other place";
            return Err(Problems::one(field, says.to_owned()));
        }
    }
    let sensor = Sensor {
        width_mm: values.get("sensor_width_mm"),
        height_mm: values.get("sensor_height_mm"),
        ..Sensor::FULL_FRAME
    };
    let view = View::new(camera, aim, Millimetres(values.get("focal_length_mm")), sensor, false);
    let normal = Direction::new(values.get("pane_azimuth_deg"), values.get("pane_tilt_deg")).vector();
    let panel = Panel::new(point("pane"), normal, values.get("pane_width_m"), values.get("pane_height_m"));
    let glazing = match values.text("pane_kind") {
        "mirror" => Glazing::Mirror,
        "double" => Glazing::Double,
        _ => Glazing::Single,
    };
    let looks = (light_aim - light).normalize();
    let (width, height) = (Metres(values.get("light_width_m")), Metres(values.get("light_height_m")));
    let glow = Glow::new(light, looks, 0.0, Surface::Rectangle { width, height }, 1.0);
    let Some(seen) = reflection(&view, &[Pane { panel, glazing }], &glow.outline(), Some(looks), &[]) else {
        return Ok(json!({
            "centre_shows": false, "centre_right": null, "centre_up": null, "incidence_deg": null, "reflectance": null,
            "showing_share": 0.0, "workings": ["no way leads from its glowing side by the pane to the lens"],
        }));
    };
    let (right, up) = seen.centre.map_or((None, None), |at| (Some(at.right), Some(at.up)));
    Ok(json!({
        "centre_shows": seen.centre_shows, "centre_right": right, "centre_up": up, "incidence_deg": seen.incidence_deg,
        "reflectance": seen.reflectance, "showing_share": seen.share,
        "workings": [
            "its image lies as far behind the pane as it stands before it".to_owned(),
            format!("Fresnel at {:.2}°: {:.4}", seen.incidence_deg, seen.reflectance),
        ],
    }))
}
