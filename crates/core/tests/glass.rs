//! Every row of `glass.csv`: own script with numpy, by points of the face; set.md says how near.

use tolva_core::glass::{Glazing, Pane, reflection};
use tolva_core::modifier::Surface;
use tolva_core::optics::Sensor;
use tolva_core::scale::{Metres, Millimetres};
use tolva_core::set::{Direction, Glow, Panel, Point, View};

#[derive(serde::Deserialize)]
struct Row {
    camera_x_m: f64,
    camera_y_m: f64,
    camera_z_m: f64,
    aim_x_m: f64,
    aim_y_m: f64,
    aim_z_m: f64,
    focal_length_mm: f64,
    sensor_width_mm: f64,
    sensor_height_mm: f64,
    pane_x_m: f64,
    pane_y_m: f64,
    pane_z_m: f64,
    pane_azimuth_deg: f64,
    pane_tilt_deg: f64,
    pane_width_m: f64,
    pane_height_m: f64,
    pane_kind: String,
    light_x_m: f64,
    light_y_m: f64,
    light_z_m: f64,
    light_aim_x_m: f64,
    light_aim_y_m: f64,
    light_aim_z_m: f64,
    light_width_m: f64,
    light_height_m: f64,
    centre_shows: String,
    centre_right: f64,
    centre_up: f64,
    incidence_deg: f64,
    reflectance: f64,
    showing_share: f64,
}

#[test]
fn every_row_of_the_table() {
    let mut rows = csv::Reader::from_reader(&include_bytes!("data/glass.csv")[..]);
    let mut count = 0;
    for (line, row) in rows.deserialize::<Row>().enumerate() {
        let row = row.expect("a row");
        let sensor = Sensor { width_mm: row.sensor_width_mm, height_mm: row.sensor_height_mm, ..Sensor::FULL_FRAME };
        let camera = Point::new(row.camera_x_m, row.camera_y_m, row.camera_z_m);
        let aim = Point::new(row.aim_x_m, row.aim_y_m, row.aim_z_m);
        let view = View::new(camera, aim, Millimetres(row.focal_length_mm), sensor, false);
        let normal = Direction::new(row.pane_azimuth_deg, row.pane_tilt_deg).vector();
        let centre = Point::new(row.pane_x_m, row.pane_y_m, row.pane_z_m);
        let glazing = if row.pane_kind == "mirror" { Glazing::Mirror } else { Glazing::Single };
        let pane = Pane { panel: Panel::new(centre, normal, row.pane_width_m, row.pane_height_m), glazing };
        let light = Point::new(row.light_x_m, row.light_y_m, row.light_z_m);
        let looks = (Point::new(row.light_aim_x_m, row.light_aim_y_m, row.light_aim_z_m) - light).normalize();
        let surface = Surface::Rectangle { width: Metres(row.light_width_m), height: Metres(row.light_height_m) };
        let glow = Glow::new(light, looks, 0.0, surface, 1.0);
        let found = reflection(&view, &[pane], &glow.outline(), Some(looks), &[]);
        count += 1;
        let Some(found) = found else {
            assert!(row.centre_shows == "False" && row.showing_share == 0.0, "row {line}: no way");
            continue;
        };
        let at = found.centre.expect("before the lens");
        assert!((at.right - row.centre_right).abs() < 0.002, "row {line}: {at:?}");
        assert!((at.up - row.centre_up).abs() < 0.002, "row {line}: {at:?}");
        assert!((found.incidence_deg - row.incidence_deg).abs() < 0.05, "row {line}: {}", found.incidence_deg);
        assert!((found.reflectance - row.reflectance).abs() < 0.001, "row {line}: {}", found.reflectance);
        assert!((found.share - row.showing_share).abs() < 0.02, "row {line}: {} {}", found.share, row.showing_share);
        assert_eq!(found.centre_shows, row.centre_shows == "True", "row {line}");
    }
    assert!(count >= 30, "{count} rows");
}
