//! Settings against settings, and lights added up.

use super::{F_NUMBER, ISO, Number, SHUTTER, Sum, done};
use tolva_core::exposure::{Ev, IncidentReceptor};
use tolva_core::flash::flash_asked;
use tolva_core::scale::Stops;

pub(super) const SUMS: &[Sum] = &[
    Sum {
        name: "stops-between",
        title: "Stops between two settings",
        group: "Exposure",
        says: "How much more light the second gets than the first.",
        choice: None,
        asked: &[
            Number("shutter_1_s", "First shutter", "s", 0.005, 0.000_01, 3600.0),
            Number("f_number_1", "First f-number", "", 8.0, 0.5, 128.0),
            Number("iso_1", "First ISO", "", 100.0, 3.0, 1e7),
            Number("shutter_2_s", "Second shutter", "s", 0.01, 0.000_01, 3600.0),
            Number("f_number_2", "Second f-number", "", 5.6, 0.5, 128.0),
            Number("iso_2", "Second ISO", "", 200.0, 3.0, 1e7),
        ],
        optional: &[],
        given: &[("ambient_stops", "Ambient", "stops"), ("flash_stops", "Flash", "stops")],
        work: |v| {
            let [first, second] = ["1", "2"].map(|which| {
                let get = |field: &str| v.get(&field.replace('#', which));
                (get("shutter_#_s"), get("f_number_#"), get("iso_#"))
            });
            // Settings right for less light get more of it.
            let all = |of: (f64, f64, f64)| Ev::of_values(of.0, of.1, of.2);
            let ambient = (all(first) - all(second)).0;
            let flash = (flash_asked(first.1, first.2) - flash_asked(second.1, second.2)).0;
            let aperture = (flash_asked(first.1, 100.0) - flash_asked(second.1, 100.0)).0;
            let (shutter, iso) = (ambient - flash, flash - aperture);
            done(
                &[ambient, flash],
                &[
                    format!("shutter log₂(t₂/t₁) = {shutter:+.2}"),
                    format!("aperture −2·log₂(N₂/N₁) = {aperture:+.2}"),
                    format!("ISO log₂(S₂/S₁) = {iso:+.2}"),
                    "the flash does not see the shutter".to_owned(),
                ],
            )
        },
    },
    Sum {
        name: "exposure-value",
        title: "Exposure value of settings",
        group: "Exposure",
        says: "EV at ISO 100, and the light it is right for on a flat incident meter (ISO 2720, C 250).",
        choice: None,
        asked: &[SHUTTER, F_NUMBER, ISO],
        optional: &[],
        given: &[("ev100", "Exposure value", "EV"), ("illuminance_lux", "Illuminance", "lx")],
        work: |v| {
            let found = Ev::of_values(v.get("shutter_s"), v.get("f_number"), v.get("iso"));
            let lux = found.lux(IncidentReceptor::Flat.constant());
            done(
                &[found.0, lux],
                &[format!("log₂(N²/t) − log₂(S/100) = {:.2}", found.0), format!("2.5·2^EV = {lux:.0} lx")],
            )
        },
    },
    Sum {
        name: "light-sum",
        title: "Two lights together",
        group: "Exposure",
        says: "Lights add in linear light: equal ones are a stop over either.",
        choice: None,
        asked: &[
            Number("first_stops", "First", "stops", 0.0, -20.0, 20.0),
            Number("second_stops", "Second", "stops", -2.0, -20.0, 20.0),
        ],
        optional: &[],
        given: &[("together_stops", "Together", "stops"), ("second_percent", "The second's part", "%")],
        work: |v| {
            let (first, second) = (Stops(v.get("first_stops")), Stops(v.get("second_stops")));
            let sum = first.and(second);
            done(
                &[sum.0, (second - sum).ratio() * 100.0],
                &[format!("log₂(2^{} + 2^{}) = {}", first.0, second.0, sum.decimals())],
            )
        },
    },
];
