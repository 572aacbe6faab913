//! How a light falls off, how soft it is, and what comes back from ceilings and cards.

use super::{DISTANCE, Number, Sum, done};
use tolva_core::modifier::{
    Bounce, BounceOff, Surface, SurfaceColour, angle_deg, card_fill, falloff, penumbra, step_back,
};
use tolva_core::scale::{Metres, Stops};

pub(super) const SUMS: &[Sum] = &[
    Sum {
        name: "near-field",
        title: "A large light close by",
        group: "Light",
        says: "What it gives less than the inverse square says (form factors of disc and rectangle).",
        choice: Some(("shape", "Shape", &["disc", "rectangle"])),
        asked: &[
            Number("radius_m", "Radius of a disc", "m", 0.45, 0.005, 10.0),
            Number("width_m", "Width of a rectangle", "m", 0.6, 0.005, 20.0),
            Number("height_m", "Height of a rectangle", "m", 0.9, 0.005, 20.0),
            DISTANCE,
        ],
        optional: &[("radius_m", "disc"), ("width_m", "rectangle"), ("height_m", "rectangle")],
        given: &[("near_field_stops", "Against the inverse square", "stops")],
        work: |v| {
            let surface = if v.choice == "disc" {
                Surface::Disc { diameter: Metres(2.0 * v.needed("radius_m")?) }
            } else {
                Surface::Rectangle { width: Metres(v.needed("width_m")?), height: Metres(v.needed("height_m")?) }
            };
            let found = surface.near_field(Metres(v.get("distance_m")));
            let how = if v.choice == "disc" { "−log₂(1 + (r/d)²)" } else { "log₂(F/F of a point)" };
            done(&[found.0], &[format!("{how} = {}", found.decimals())])
        },
    },
    Sum {
        name: "falloff",
        title: "Falloff across a group",
        group: "Light",
        says: "By the inverse square, and from where it is under a third of a stop.",
        choice: None,
        asked: &[
            Number("nearest_m", "Light to the nearest", "m", 2.0, 0.05, 100.0),
            Number("farthest_m", "Light to the farthest", "m", 2.6, 0.05, 100.0),
        ],
        optional: &[],
        given: &[("falloff_stops", "Between them", "stops"), ("even_from_m", "Under a third from", "m")],
        work: |v| {
            let (near, far) = (Metres(v.get("nearest_m")), Metres(v.get("farthest_m")));
            let even = step_back(Metres((far.0 - near.0).abs()), Stops(1.0 / 3.0));
            done(&[falloff(near, far).0, even.0], &["2·log₂(far/near)".to_owned(), "depth/(2^(⅓/2) − 1)".to_owned()])
        },
    },
    Sum {
        name: "softness",
        title: "How soft a light is",
        group: "Light",
        says: "The angle it fills, and the soft edge of a shadow.",
        choice: None,
        asked: &[
            Number("source_width_m", "Width of the light", "m", 0.9, 0.005, 20.0),
            DISTANCE,
            Number("occluder_to_surface_m", "What casts the shadow, to where it falls", "m", 0.03, 0.001, 50.0),
        ],
        optional: &[],
        given: &[("angle_deg", "It fills", "°"), ("penumbra_m", "Soft edge", "m")],
        work: |v| {
            let (w, d) = (Metres(v.get("source_width_m")), Metres(v.get("distance_m")));
            let edge = penumbra(w, d, Metres(v.get("occluder_to_surface_m")));
            done(
                &[angle_deg(w, d), edge.0],
                &["2·atan(w/2d)".to_owned(), "w · occluder to surface / source to occluder".to_owned()],
            )
        },
    },
    Sum {
        name: "bounce",
        title: "Bounced off a ceiling or wall",
        group: "Light",
        says: "A beam 70° wide onto a matt surface, summed over the patch: an estimate.",
        choice: None,
        asked: &[
            Number("subject_m", "Camera to subject", "m", 3.0, 0.3, 30.0),
            Number("away_m", "Head to the surface", "m", 1.2, 0.3, 20.0),
            Number("reflectance", "Reflectance", "", 0.8, 0.02, 0.95),
        ],
        optional: &[],
        given: &[("loss_stops", "Lost against straight", "stops"), ("angle_deg", "The patch fills", "°")],
        work: |v| {
            let bounce = Bounce {
                off: BounceOff::Ceiling,
                away_m: v.get("away_m"),
                reflectance: v.get("reflectance"),
                colour: SurfaceColour::White,
            };
            let found = bounce.at(Metres(v.get("subject_m")));
            done(&[found.loss.0, found.angle_deg], &["Σ ρ·dω/π · cos·cos/r², against 1/d²".to_owned()])
        },
    },
    Sum {
        name: "card-fill",
        title: "A white card as a fill",
        group: "Light",
        says: "What it gives the shadow side, under the light that falls on the card.",
        choice: None,
        asked: &[
            Number("width_m", "Width", "m", 0.8, 0.01, 10.0),
            Number("height_m", "Height", "m", 1.2, 0.01, 10.0),
            Number("distance_m", "Card to subject", "m", 0.6, 0.05, 20.0),
            Number("reflectance", "Reflectance", "", 0.9, 0.01, 1.0),
        ],
        optional: &[],
        given: &[("fill_stops", "Under the light on the card", "stops")],
        work: |v| {
            let card = Surface::Rectangle { width: Metres(v.get("width_m")), height: Metres(v.get("height_m")) };
            let found = card_fill(card, v.get("reflectance"), Metres(v.get("distance_m")));
            done(&[found.0], &[format!("log₂(ρ · form factor) = {}", found.decimals())])
        },
    },
];
