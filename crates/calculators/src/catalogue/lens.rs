//! Depth, close up, shake and movement.

use super::{F_NUMBER, Number, SHUTTER, Sum, Worked, done};
use crate::problem::Problems;
use tolva_core::optics::{
    CircleOfConfusion, CloseUp, HandheldRule, Movement, Sensor, airy_diameter, angle_of_view_deg, blur_px,
    depth_of_field, group_depth, shake_floor_s,
};
use tolva_core::scale::{Metres, Millimetres};

const FOCAL: Number = Number("focal_length_mm", "Focal length", "mm", 85.0, 4.0, 1200.0);
const CIRCLE: Number = Number("circle_of_confusion_mm", "Circle of confusion", "mm", 0.03, 0.001, 0.5);
const MAGNIFICATION: Number = Number("magnification", "Magnification", "", 1.0, 0.01, 10.0);
const PUPIL: Number = Number("pupil_ratio", "Pupil ratio", "", 1.0, 0.1, 10.0);

pub(super) const SUMS: &[Sum] = &[
    Sum {
        name: "depth-of-field",
        title: "Depth of field",
        group: "Lens",
        says: "From where to where it is sharp; the far end is nothing beyond the hyperfocal distance.",
        choice: None,
        asked: &[FOCAL, F_NUMBER, Number("focus_m", "Focused at", "m", 3.0, 0.02, 1000.0), CIRCLE],
        optional: &[],
        given: &[("near_m", "Sharp from", "m"), ("far_m", "to", "m"), ("hyperfocal_m", "Hyperfocal distance", "m")],
        work: |v| {
            let (f, s) = (Millimetres(v.get("focal_length_mm")), Metres(v.get("focus_m")));
            if s.0 <= f.metres().0 {
                let message = format!("{} m is nearer than the focal length: focus farther away", s.0);
                return Err(Problems::one("/focus_m", message));
            }
            let found = depth_of_field(f, v.get("f_number"), s, Millimetres(v.get("circle_of_confusion_mm")));
            Ok(Worked {
                values: vec![Some(found.near.0), found.far.map(|far| far.0), Some(found.hyperfocal.0)],
                workings: vec![
                    format!("H = f²/(N·c) + f = {:.3} m", found.hyperfocal.0),
                    "near = s(H − f)/(H + s − 2f), far = s(H − f)/(H − s)".to_owned(),
                ],
            })
        },
    },
    Sum {
        name: "group-depth",
        title: "Aperture for a group",
        group: "Lens",
        says: "The f-number and the focus that put the nearest and the farthest just in.",
        choice: None,
        asked: &[
            FOCAL,
            Number("nearest_m", "Nearest", "m", 3.0, 0.05, 1000.0),
            Number("farthest_m", "Farthest", "m", 3.6, 0.05, 1000.0),
            CIRCLE,
        ],
        optional: &[],
        given: &[("f_number", "f-number", ""), ("focus_m", "Focus at", "m")],
        work: |v| {
            let (near, far) = (Metres(v.get("nearest_m")), Metres(v.get("farthest_m")));
            let focal = Millimetres(v.get("focal_length_mm"));
            if far < near {
                return Err(Problems::one(
                    "/farthest_m",
                    format!("{} m is nearer than the nearest, {} m", far.0, near.0),
                ));
            }
            if near.0 <= focal.metres().0 {
                return Err(Problems::one("/nearest_m", "this is nearer than the focal length: step back".to_owned()));
            }
            let found = group_depth(focal, near, far, Millimetres(v.get("circle_of_confusion_mm")));
            done(
                &[found.f_number, found.focus.0],
                &[
                    "focus = 2·Dn·Df/(Dn + Df)".to_owned(),
                    format!("N = f²(Df − Dn)/(c(2·Dn·Df − f(Dn + Df))) = {:.2}", found.f_number),
                ],
            )
        },
    },
    Sum {
        name: "close-up",
        title: "Close up",
        group: "Lens",
        says: "By magnification: distance, light, depth, diffraction and the frames of a stack.",
        choice: None,
        asked: &[
            FOCAL,
            MAGNIFICATION,
            PUPIL,
            F_NUMBER,
            CIRCLE,
            Number("subject_depth_mm", "Depth of the subject", "mm", 10.0, 0.01, 500.0),
            Number("overlap", "Overlap of frames", "", 0.3, 0.0, 0.9),
        ],
        optional: &[],
        given: &[
            ("working_distance_m", "Lens to subject", "m"),
            ("effective_f_number", "Effective f-number", ""),
            ("loss_stops", "Light lost", "stops"),
            ("depth_mm", "Sharp", "mm"),
            ("airy_um", "Airy disc", "µm"),
            ("step_mm", "Step of a stack", "mm"),
            ("frames", "Frames", ""),
        ],
        work: |v| {
            let close = CloseUp {
                magnification: v.get("magnification"),
                focal: Millimetres(v.get("focal_length_mm")),
                pupil_ratio: v.get("pupil_ratio"),
            };
            let (n, c) = (v.get("f_number"), Millimetres(v.get("circle_of_confusion_mm")));
            let effective = close.effective_f_number(n);
            let stack = close.stack(Millimetres(v.get("subject_depth_mm")), n, c, v.get("overlap"));
            done(
                &[
                    close.working_distance().0,
                    effective,
                    close.loss().0,
                    close.depth(n, c).0,
                    airy_diameter(effective).0 * 1000.0,
                    stack.step.0,
                    f64::from(stack.frames),
                ],
                &[
                    format!("N·(1 + m/P) = {effective:.2}"),
                    format!("2·N·c·(m/P + 1)/m² = {:.3} mm", close.depth(n, c).0),
                    "step = depth · (1 − overlap)".to_owned(),
                ],
            )
        },
    },
    Sum {
        name: "circle-of-confusion",
        title: "What counts as sharp",
        group: "Lens",
        says: "By the diagonal over 1500, by two pixels, and by a print.",
        choice: None,
        asked: &[
            Number("sensor_width_mm", "Sensor, long side", "mm", 36.0, 4.0, 100.0),
            Number("sensor_height_mm", "Sensor, short side", "mm", 24.0, 3.0, 100.0),
            Number("width_px", "Pixels, long side", "", 6000.0, 500.0, 30_000.0),
            Number("print_long_side_cm", "Print, long side", "cm", 30.0, 5.0, 500.0),
        ],
        optional: &[],
        given: &[
            ("diagonal_mm", "Diagonal / 1500", "mm"),
            ("two_pixels_mm", "Two pixels", "mm"),
            ("print_mm", "Print", "mm"),
        ],
        work: |v| {
            let sensor = Sensor {
                width_mm: v.get("sensor_width_mm"),
                height_mm: v.get("sensor_height_mm"),
                width_px: v.get("width_px"),
            };
            let print = CircleOfConfusion::Print { long_side_cm: v.get("print_long_side_cm") };
            let of = |circle| sensor.circle(circle).0;
            done(
                &[of(CircleOfConfusion::SensorDiagonal), of(CircleOfConfusion::TwoPixels), of(print)],
                &["a print is seen from 25 cm, where the eye parts 0.2 mm (common practice)".to_owned()],
            )
        },
    },
    Sum {
        name: "field-of-view",
        title: "Field of view",
        group: "Lens",
        says: "2·atan(w/2f), focused far away.",
        choice: None,
        asked: &[
            FOCAL,
            Number("sensor_width_mm", "Sensor, long side", "mm", 36.0, 4.0, 100.0),
            Number("sensor_height_mm", "Sensor, short side", "mm", 24.0, 3.0, 100.0),
        ],
        optional: &[],
        given: &[("horizontal_deg", "Long side", "°"), ("vertical_deg", "Short side", "°")],
        work: |v| {
            let focal = Millimetres(v.get("focal_length_mm"));
            let of = |side: &str| angle_of_view_deg(Millimetres(v.get(side)), focal);
            done(&[of("sensor_width_mm"), of("sensor_height_mm")], &["2·atan(w/2f)".to_owned()])
        },
    },
    Sum {
        name: "shake-floor",
        title: "Slowest shutter by hand",
        group: "Lens",
        says: "By the schools: common practice, no source.",
        choice: None,
        asked: &[
            FOCAL,
            Number("crop_factor", "Crop factor", "", 1.0, 0.3, 10.0),
            Number("stabilisation_stops", "Stabilisation", "stops", 0.0, 0.0, 9.0),
        ],
        optional: &[],
        given: &[
            ("one_over_focal_s", "One over the focal length", "s"),
            ("one_over_twice_s", "One over twice", "s"),
            ("stabilised_s", "Stabilised", "s"),
        ],
        work: |v| {
            let focal = Millimetres(v.get("focal_length_mm") * v.get("crop_factor"));
            let steady = v.get("stabilisation_stops");
            let of = |school| shake_floor_s(focal, Sensor::FULL_FRAME, school, steady);
            done(
                &[of(HandheldRule::OneOverFocal), of(HandheldRule::OneOverTwiceFocal), of(HandheldRule::Stabilised)],
                &[format!("1/{:.0} s, 1/{:.0} s", focal.0, 2.0 * focal.0)],
            )
        },
    },
    Sum {
        name: "movement-blur",
        title: "Blur of what moves",
        group: "Lens",
        says: "Speed × time × magnification / pitch.",
        choice: None,
        asked: &[
            Number("metres_per_s", "Speed across the view", "m/s", 1.4, 0.0, 100.0),
            SHUTTER,
            Number("magnification", "Magnification", "", 0.03, 0.000_1, 10.0),
            Number("pitch_um", "From pixel to pixel", "µm", 6.0, 0.5, 50.0),
        ],
        optional: &[],
        given: &[("blur_px", "Blur", "pixels")],
        work: |v| {
            let sensor = Sensor { width_px: 36_000.0 / v.get("pitch_um"), ..Sensor::FULL_FRAME };
            let movement = Movement::Speed { metres_per_s: v.get("metres_per_s") };
            let blur = blur_px(movement, v.get("shutter_s"), v.get("magnification"), sensor);
            done(&[blur], &[format!("v·t·m/p = {blur:.2}")])
        },
    },
];
