//! Reach against a table from outside: `reach.csv`, own script, numpy, Gauss-Legendre 200 × 200.

use serde::Deserialize;
use tolva_core::modifier::Surface;
use tolva_core::scale::Metres;
use tolva_core::set::{Direction, Glow, Point, Receptor, Weighing};

#[derive(Deserialize)]
struct Row {
    shape: String,
    width_m: f64,
    height_m: f64,
    directionality: f64,
    x_m: f64,
    y_m: f64,
    z_m: f64,
    aim_x_m: f64,
    aim_y_m: f64,
    aim_z_m: f64,
    point_x_m: f64,
    point_y_m: f64,
    point_z_m: f64,
    facing_azimuth_deg: f64,
    facing_elevation_deg: f64,
    receptor: String,
    reach_stops: Option<f64>,
}

/// Within a hundredth of a stop, the tolerance the table is held to.
#[test]
fn every_row_of_the_table() {
    let mut rows = 0;
    for row in csv::Reader::from_reader(include_bytes!("data/reach.csv").as_slice()).deserialize::<Row>() {
        let row = row.expect("a row");
        let surface = match row.shape.as_str() {
            "disc" => Surface::Disc { diameter: Metres(row.width_m) },
            _ => Surface::Rectangle { width: Metres(row.width_m), height: Metres(row.height_m) },
        };
        let centre = Point::new(row.x_m, row.y_m, row.z_m);
        let axis = (Point::new(row.aim_x_m, row.aim_y_m, row.aim_z_m) - centre).normalize();
        let weighing = if row.receptor == "dome" { Weighing::Dome } else { Weighing::Flat };
        let receptor = Receptor {
            at: Point::new(row.point_x_m, row.point_y_m, row.point_z_m),
            normal: Direction::new(row.facing_azimuth_deg, row.facing_elevation_deg).vector(),
            weighing,
        };
        let found = Glow::new(centre, axis, 0.0, surface, row.directionality).reach(&receptor, &[]).0;
        match row.reach_stops {
            Some(stops) => assert!((found - stops).abs() < 0.01, "row {rows}: {found} for {stops}"),
            None => assert!(!found.is_finite(), "row {rows}: {found}"),
        }
        rows += 1;
    }
    assert_eq!(rows, 40);
}
