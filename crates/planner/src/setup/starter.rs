//! A generic kit without brands to start with. The figures are typical ones: losses and shifts are common practice, no
//! source, and guide numbers, times and weights are invented within the usual range of each size. A measurement of the
//! real thing beats them.

use super::{
    Backdrop, BareSurface, Board, Boom, Camera, CardKind, ContinuousOutput, DiscSurface, Duty, Filter, Flash,
    FlashOutput, Gel, GuideNumberMetres, GuideNumberZoom, IsoRange, Kit, Lens, Meter, Modifier, ModifierSurface,
    PowerRange, RectangleSurface, ShutterRange, Stand, Trigger,
};
use tolva_core::flash::{Duration, ZoomGuideNumber};
use tolva_core::modifier::SurfaceColour;
use tolva_core::optics::Sensor;
use tolva_core::scale::{PowerStep, Step};

impl Kit {
    /// Two cameras, three lenses, three flashes from small to large and a lamp, and what goes with them.
    pub fn starter() -> Self {
        Self {
            cameras: cameras(),
            lenses: lenses(),
            flashes: flashes(),
            modifiers: modifiers(),
            gels: [
                ("warm-eighth", "Warm eighth", 26.0, 0.23),
                ("warm-quarter", "Warm quarter", 64.0, 0.34),
                ("warm-half", "Warm half", 109.0, 0.5),
                ("warm-full", "Warm full", 159.0, 0.85),
                ("cool-eighth", "Cool eighth", -18.0, 0.3),
                ("cool-quarter", "Cool quarter", -35.0, 0.53),
                ("cool-half", "Cool half", -78.0, 0.86),
                ("cool-full", "Cool full", -137.0, 1.55),
            ]
            .map(|(id, name, shift_mired, loss_stops)| (id, name, shift_mired, 0.0, loss_stops))
            .into_iter()
            // The tints are chosen so that the full green makes daylight a tube's.
            .chain([
                ("green-half", "Green half", 0.0, 0.004, 0.25),
                ("green-full", "Green full", 0.0, 0.008, 0.4),
                ("magenta-half", "Magenta half", 0.0, -0.004, 0.4),
                ("film-full", "Window film, full warm", 131.0, 0.0, 0.66),
                ("neutral-1", "Neutral gel, 1 stop", 0.0, 0.0, 1.0),
                ("neutral-2", "Neutral gel, 2 stops", 0.0, 0.0, 2.0),
            ])
            .map(|(id, name, shift_mired, shift_duv, loss_stops)| Gel {
                id: id.to_owned(),
                name: name.to_owned(),
                shift_mired,
                shift_duv,
                loss_stops,
            })
            .collect(),
            filters: [("nd-3", "3-stop filter", 3.0), ("nd-6", "6-stop filter", 6.0)]
                .map(|(id, name, density_stops)| Filter { id: id.to_owned(), name: name.to_owned(), density_stops })
                .into(),
            stands: [
                ("light", "Light stand, 2.4 m", 2.4, 4.0, 0.42, 1.4),
                ("heavy", "Heavy stand, 3.2 m", 3.2, 9.0, 0.55, 3.2),
            ]
            .map(|(id, name, highest_m, carries_kg, footprint_m, weight_kg)| Stand {
                id: id.to_owned(),
                name: name.to_owned(),
                highest_m,
                carries_kg,
                footprint_m,
                weight_kg,
            })
            .into(),
            triggers: vec![Trigger {
                id: "radio".to_owned(),
                name: "Radio trigger".to_owned(),
                channels: 16,
                groups: 5,
            }],
            booms: [("short", "Boom, 1.5 m", 1.5, 4.0, 1.8), ("long", "Boom, 2.2 m", 2.2, 6.0, 3.4)]
                .map(|(id, name, reach_m, carries_kg, weight_kg)| Boom {
                    id: id.to_owned(),
                    name: name.to_owned(),
                    reach_m,
                    carries_kg,
                    weight_kg,
                })
                .into(),
            boards: [
                ("white", "White board, 1 × 1.5 m", CardKind::White, 1.0, 1.5),
                ("silver", "Silver card, 0.8 × 1.2 m", CardKind::Silver, 0.8, 1.2),
                ("gold", "Gold card, 0.8 × 1.2 m", CardKind::Gold, 0.8, 1.2),
                ("black", "Black board, 1 × 2 m", CardKind::Black, 1.0, 2.0),
                ("small-black", "Flag, 0.3 × 0.4 m", CardKind::Black, 0.3, 0.4),
                ("diffuser", "Diffuser, 1 × 1.5 m", CardKind::Diffuser, 1.0, 1.5),
            ]
            .map(|(id, name, kind, width_m, height_m)| Board {
                id: id.to_owned(),
                name: name.to_owned(),
                kind,
                width_m,
                height_m,
            })
            .into(),
            meters: vec![meter()],
            backdrops: [
                ("grey", "Grey backdrop, 2.7 m", 2.7, 0.18),
                ("white", "White backdrop, 2.7 m", 2.7, 0.85),
                ("black", "Black backdrop, 2.7 m", 2.7, 0.04),
            ]
            .map(|(id, name, width_m, reflectance)| Backdrop {
                id: id.to_owned(),
                name: name.to_owned(),
                width_m,
                height_m: 2.6,
                reflectance,
                colour: SurfaceColour::White,
            })
            .into(),
        }
    }
}

fn meter() -> Meter {
    Meter {
        id: "hand".to_owned(),
        name: "Hand-held meter".to_owned(),
        more_stops: 0.0,
        sure_stops: Meter::UNCHECKED_STOPS,
    }
}

fn cameras() -> Vec<Camera> {
    vec![
        Camera {
            id: "full-frame".to_owned(),
            name: "Full frame".to_owned(),
            sensor: Sensor::FULL_FRAME,
            shutter: ShutterRange { slowest_s: 30.0, fastest_s: 1.0 / 8000.0, step: Step::Third },
            aperture_step: Step::Third,
            iso: IsoRange { base_iso: 100.0, highest_iso: 6400.0, step: Step::Third },
            sync_rated_s: 1.0 / 250.0,
            sync_safe_s: 1.0 / 200.0,
            sync_electronic_s: Some(1.0 / 60.0),
            slow_sync_floor_s: 1.0 / 60.0,
            stabilisation_stops: 4.0,
            frames_per_s: 10.0,
            weight_kg: Some(0.7),
            tuned: Vec::new(),
            curve: Vec::new(),
        },
        Camera {
            id: "small-sensor".to_owned(),
            name: "Small sensor".to_owned(),
            sensor: Sensor { width_mm: 23.5, height_mm: 15.6, width_px: 6000.0 },
            shutter: ShutterRange { slowest_s: 30.0, fastest_s: 1.0 / 4000.0, step: Step::Third },
            aperture_step: Step::Third,
            iso: IsoRange { base_iso: 160.0, highest_iso: 3200.0, step: Step::Third },
            sync_rated_s: 1.0 / 180.0,
            sync_safe_s: 1.0 / 125.0,
            sync_electronic_s: None,
            slow_sync_floor_s: 1.0 / 60.0,
            stabilisation_stops: 0.0,
            frames_per_s: 8.0,
            weight_kg: Some(0.5),
            tuned: Vec::new(),
            curve: Vec::new(),
        },
    ]
}

fn lenses() -> Vec<Lens> {
    let lens = |id: &str, name: &str, mm: (f64, f64), f_number: (f64, f64), near: (f64, f64), weight_kg| Lens {
        id: id.to_owned(),
        name: name.to_owned(),
        shortest_mm: mm.0,
        longest_mm: mm.1,
        widest_f_number: f_number.0,
        smallest_f_number: f_number.1,
        stabilisation_stops: 0.0,
        closest_focus_m: near.0,
        largest_magnification: near.1,
        pupil_ratio: 1.0,
        weight_kg: Some(weight_kg),
    };
    vec![
        lens("zoom-24-105", "24–105 mm f/2.8", (24.0, 105.0), (2.8, 22.0), (0.4, 0.28), 0.8),
        lens("prime-35", "35 mm f/1.8", (35.0, 35.0), (1.8, 16.0), (0.3, 0.17), 0.3),
        lens("close-100", "100 mm f/2.8, close up", (100.0, 100.0), (2.8, 32.0), (0.3, 1.0), 0.7),
    ]
}

/// The power range and times of a unit, from full down to its lowest.
fn flash(id: &str, name: &str, output: FlashOutput, power: (f64, PowerStep), full_s: f64, pops: Option<f64>) -> Flash {
    Flash {
        id: id.to_owned(),
        name: name.to_owned(),
        output,
        power: PowerRange { lowest_stops: power.0, step: power.1 },
        recycle_full_s: full_s,
        pops_full: pops,
        duty: None,
        high_speed_loss_stops: Some(4.0 / 3.0),
        ttl: true,
        kelvin: 5600.0,
        tint_duv: 0.0,
        rendering: None,
        durations: Vec::new(),
        weight_kg: None,
        tuned: Vec::new(),
    }
}

fn flashes() -> Vec<Flash> {
    let gn = |guide_number_m, holds_for: &str| {
        FlashOutput::GuideNumberMetres(GuideNumberMetres { guide_number_m, holds_for: holds_for.to_owned() })
    };
    let lasts = |lines: &[(f64, f64)]| {
        lines
            .iter()
            .map(|(power_stops, one_over)| Duration { power_stops: *power_stops, t01_s: 1.0 / one_over })
            .collect()
    };
    let zoom = [(24.0, 28.0), (35.0, 36.0), (50.0, 42.0), (105.0, 58.0)];
    vec![
        Flash {
            weight_kg: Some(0.4),
            duty: Some(Duty { full_pops: 30.0, rest_s: 600.0 }),
            durations: lasts(&[(0.0, 250.0), (-2.0, 1400.0), (-4.0, 6000.0), (-7.0, 20_000.0)]),
            tuned: Vec::new(),
            ..flash(
                "small",
                "Small flash, on batteries",
                FlashOutput::GuideNumberZoom(GuideNumberZoom {
                    table: zoom.map(|(zoom_mm, guide_number_m)| ZoomGuideNumber { zoom_mm, guide_number_m }).into(),
                }),
                (-7.0, PowerStep::Third),
                2.5,
                Some(220.0),
            )
        },
        Flash {
            weight_kg: Some(1.6),
            duty: Some(Duty { full_pops: 75.0, rest_s: 300.0 }),
            durations: lasts(&[(0.0, 220.0), (-3.0, 1600.0), (-7.0, 13_000.0)]),
            tuned: Vec::new(),
            ..flash(
                "medium",
                "Medium head, 200 Ws",
                gn(60.0, "standard reflector"),
                (-7.0, PowerStep::Third),
                1.8,
                Some(450.0),
            )
        },
        Flash {
            weight_kg: Some(3.0),
            durations: lasts(&[(0.0, 300.0), (-8.0, 9000.0)]),
            tuned: Vec::new(),
            ..flash(
                "large",
                "Large head, 600 Ws",
                gn(104.0, "standard reflector"),
                (-8.0, PowerStep::Tenth),
                1.5,
                Some(380.0),
            )
        },
        Flash {
            weight_kg: Some(0.9),
            high_speed_loss_stops: None,
            ttl: false,
            kelvin: 5500.0,
            rendering: Some(95.0),
            ..flash(
                "lamp",
                "LED lamp, 60 W",
                FlashOutput::Continuous(ContinuousOutput { lux_at_1_m: 6000.0, battery_full_min: None }),
                (-7.0, PowerStep::Tenth),
                0.0,
                None,
            )
        },
    ]
}

fn modifiers() -> Vec<Modifier> {
    let modifier = |id: &str, name: &str, surface, loss_stops, weight_kg, area_m2| Modifier {
        id: id.to_owned(),
        name: name.to_owned(),
        surface,
        loss_stops,
        exponent: 1.0,
        grid_half_angle_deg: None,
        weight_kg,
        area_m2,
    };
    let disc = |diameter_m| ModifierSurface::Disc(DiscSurface { diameter_m });
    let rectangle = |width_m, height_m| ModifierSurface::Rectangle(RectangleSurface { width_m, height_m });
    let bare = || ModifierSurface::Bare(BareSurface {});
    vec![
        modifier("octagon-90", "Octagon, 90 cm", disc(0.9), 1.5, 0.9, 0.67),
        modifier("softbox-60", "Softbox, 60 × 60 cm", rectangle(0.6, 0.6), 4.0 / 3.0, 0.7, 0.36),
        Modifier {
            exponent: 2.0,
            ..modifier("strip-30-120", "Strip, 30 × 120 cm", rectangle(0.3, 1.2), 5.0 / 3.0, 0.9, 0.36)
        },
        modifier("umbrella-white-100", "White umbrella, shot through, 100 cm", disc(1.0), 1.5, 0.5, 0.79),
        modifier("umbrella-silver-100", "Silver umbrella, reflecting, 100 cm", disc(1.0), 1.0, 0.5, 0.79),
        modifier("dome", "Small dome on the head", bare(), 4.0 / 3.0, 0.1, 0.01),
        modifier("card", "White card on the head", rectangle(0.1, 0.15), 1.0, 0.1, 0.02),
        Modifier {
            exponent: 8.0,
            grid_half_angle_deg: Some(20.0),
            ..modifier("reflector-grid", "Reflector with a grid", bare(), 2.0 / 3.0, 0.4, 0.03)
        },
    ]
}
