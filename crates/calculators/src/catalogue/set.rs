//! What the wind does, and the sun's shadows.

use super::{Number, Sum, Worked, done};
use tolva_core::set::{ballast_kg, shadow_edge_m, shadow_length_m, wind_force_n};

pub(super) const SUMS: &[Sum] = &[
    BALLAST,
    Sum {
        name: "shadow-length",
        title: "The sun’s shadow on level ground",
        group: "Set",
        says: "Its length, and how wide its edge is at its end.",
        choice: None,
        asked: &[
            Number("height_m", "Height", "m", 1.7, 0.001, 1000.0),
            Number("sun_altitude_deg", "Sun over the horizon", "°", 20.0, -90.0, 90.0),
        ],
        optional: &[],
        given: &[("length_m", "Length", "m"), ("edge_m", "Soft edge at its end", "m")],
        work: |v| {
            let (height, altitude) = (v.get("height_m"), v.get("sun_altitude_deg"));
            let length = shadow_length_m(height, altitude);
            let edge = length.map(|length| shadow_edge_m(length.hypot(height)));
            let line = match length {
                Some(length) => format!("height / tan(altitude) = {length:.3} m"),
                None => "the sun is down: there is no shadow".to_owned(),
            };
            Ok(Worked { values: vec![length, edge], workings: vec![line] })
        },
    },
];

const BALLAST: Sum = Sum {
    name: "ballast",
    title: "Ballast in wind",
    group: "Set",
    says: "An estimate: gusts are stronger. Local rules and the stand's maker come first.",
    choice: None,
    asked: &[
        Number("area_m2", "What the wind sees", "m²", 0.81, 0.001, 20.0),
        Number("wind_m_s", "Wind", "m/s", 6.0, 0.0, 40.0),
        Number("height_m", "Height of the light", "m", 2.0, 0.1, 8.0),
        Number("footprint_m", "Middle to the line between two feet", "m", 0.45, 0.05, 3.0),
        Number("weight_kg", "Weight of stand and head", "kg", 5.0, 0.0, 200.0),
    ],
    optional: &[],
    given: &[("force_n", "Force of the wind", "N"), ("ballast_kg", "Ballast", "kg")],
    work: |v| {
        let (area, wind) = (v.get("area_m2"), v.get("wind_m_s"));
        let force = wind_force_n(area, wind);
        let ballast = ballast_kg(area, wind, v.get("height_m"), v.get("footprint_m"), v.get("weight_kg"));
        done(
            &[force, ballast],
            &[
                format!("½·1.225·v²·1.2·A = {force:.1} N"),
                "1.5 times the overturning moment about the nearest leg, less what stands there".to_owned(),
            ],
        )
    },
};
