//! A generic kit without brands to start with. The figures are typical ones: losses are common practice, no source,
//! and guide numbers are invented within the usual range of each size. A measurement of the real thing beats them.

use super::kit::{
    ApertureRange, BareSurface, Camera, DiscSurface, Flash, FlashOutput, GuideNumberMetres, IsoRange, Kit, Modifier,
    ModifierSurface, PowerRange, RectangleSurface, ShutterRange,
};
use crate::scale::{PowerStep, Step};

impl Kit {
    /// Two cameras, three flashes from small to large, six modifiers.
    pub fn starter() -> Self {
        let flash = |id: &str, name: &str, guide_number_m, holds_for: &str, lowest_stops, step| Flash {
            id: id.to_owned(),
            name: name.to_owned(),
            output: FlashOutput::GuideNumberMetres(GuideNumberMetres {
                guide_number_m,
                holds_for: holds_for.to_owned(),
            }),
            power: PowerRange { lowest_stops, step },
        };
        let modifier = |id: &str, name: &str, surface, loss_stops| Modifier {
            id: id.to_owned(),
            name: name.to_owned(),
            surface,
            loss_stops,
        };
        let disc = |diameter_m| ModifierSurface::Disc(DiscSurface { diameter_m });
        let rectangle = |width_m, height_m| ModifierSurface::Rectangle(RectangleSurface { width_m, height_m });
        Self {
            cameras: vec![
                Camera {
                    id: "full-frame".to_owned(),
                    name: "Full frame, 24–105 mm f/2.8".to_owned(),
                    shutter: ShutterRange { slowest_s: 30.0, fastest_s: 1.0 / 8000.0, step: Step::Third },
                    aperture: ApertureRange { widest_f_number: 2.8, smallest_f_number: 22.0, step: Step::Third },
                    iso: IsoRange { base_iso: 100.0, highest_iso: 6400.0, step: Step::Third },
                    sync_rated_s: 1.0 / 250.0,
                    sync_safe_s: 1.0 / 200.0,
                },
                Camera {
                    id: "small-sensor".to_owned(),
                    name: "Small sensor, 35 mm f/1.8".to_owned(),
                    shutter: ShutterRange { slowest_s: 30.0, fastest_s: 1.0 / 4000.0, step: Step::Third },
                    aperture: ApertureRange { widest_f_number: 1.8, smallest_f_number: 16.0, step: Step::Third },
                    iso: IsoRange { base_iso: 160.0, highest_iso: 3200.0, step: Step::Third },
                    sync_rated_s: 1.0 / 180.0,
                    sync_safe_s: 1.0 / 125.0,
                },
            ],
            flashes: vec![
                flash("small", "Small flash, on batteries", 36.0, "35 mm zoom", -7.0, PowerStep::Third),
                flash("medium", "Medium head, 200 Ws", 60.0, "standard reflector", -7.0, PowerStep::Third),
                flash("large", "Large head, 600 Ws", 104.0, "standard reflector", -8.0, PowerStep::Tenth),
            ],
            modifiers: vec![
                modifier("octagon-90", "Octagon, 90 cm", disc(0.9), 1.5),
                modifier("softbox-60", "Softbox, 60 × 60 cm", rectangle(0.6, 0.6), 4.0 / 3.0),
                modifier("strip-30-120", "Strip, 30 × 120 cm", rectangle(0.3, 1.2), 5.0 / 3.0),
                modifier("umbrella-white-100", "White umbrella, shot through, 100 cm", disc(1.0), 1.5),
                modifier("umbrella-silver-100", "Silver umbrella, reflecting, 100 cm", disc(1.0), 1.0),
                modifier("dome", "Small dome on the head", ModifierSurface::Bare(BareSurface {}), 4.0 / 3.0),
            ],
        }
    }
}
