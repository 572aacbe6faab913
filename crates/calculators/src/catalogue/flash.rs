//! Guide numbers, power, high speed and recycling.

use super::super::table::Values;
use super::{DISTANCE, F_NUMBER, ISO, Number, Sum, Worked, done};
use tolva_core::flash::{Burst, FlashStrength, GuideNumber, Recycling, f_number_for, flash_asked, high_speed_loss};
use tolva_core::modifier::Surface;
use tolva_core::scale::{Metres, Power, Setting, Shutter, Stops};

const POWER: Number = Number("power_stops", "Power, stops under full", "stops", 0.0, -12.0, 0.0);
const LOSS: Number = Number("loss_stops", "Lost in modifier and gels", "stops", 0.0, -3.0, 12.0);
const GN: Number = Number("guide_number_m", "Guide number", "m", 60.0, 1.0, 1000.0);

/// What a flash gives at full power, on the scale of EV.
fn strength(v: &Values) -> FlashStrength {
    let (distance, loss) = (Metres(v.get("distance_m")), Stops(v.get("loss_stops")));
    GuideNumber(v.get("guide_number_m")).strength(distance, Surface::Bare, loss)
}

/// What an aperture at an ISO asks of a flash, on the scale of EV.
fn asked(v: &Values) -> Stops {
    flash_asked(v.get("f_number"), v.get("iso"))
}

fn power_label(stops: f64) -> String {
    format!("{stops:+.2} stops is 1/{:.1} of full", (-stops).exp2())
}

pub(super) const SUMS: &[Sum] = &[
    Sum {
        name: "guide-number",
        title: "Guide number from a reading",
        group: "Flash",
        says: "From a flash meter's f-number, at a distance and power.",
        choice: None,
        asked: &[F_NUMBER, ISO, DISTANCE, POWER, LOSS],
        optional: &[],
        given: &[("guide_number_m", "Guide number", "m"), ("guide_number_ft", "Guide number", "ft")],
        work: |v| {
            let power = Power(Stops(v.get("power_stops")));
            let (f_number, iso, d) = (v.get("f_number"), v.get("iso"), Metres(v.get("distance_m")));
            let gn = GuideNumber::from_reading(f_number, iso, d, power, Surface::Bare, Stops(v.get("loss_stops")));
            done(&[gn.0, gn.0 / Metres::PER_FOOT], &[format!("N·d·√(100/S)·2^((loss − power)/2) = {:.1} m", gn.0)])
        },
    },
    Sum {
        name: "flash-distance",
        title: "How far a flash reaches",
        group: "Flash",
        says: "The distance at which it is right for an aperture.",
        choice: None,
        asked: &[GN, F_NUMBER, ISO, POWER, LOSS],
        optional: &[],
        given: &[("distance_m", "Distance", "m")],
        work: |v| {
            let (power, loss) = (Power(Stops(v.get("power_stops"))), Stops(v.get("loss_stops")));
            let d = GuideNumber(v.get("guide_number_m")).bare_distance(asked(v), power, loss).0;
            done(&[d], &[format!("GN/N·√(S/100)·2^((power − loss)/2) = {d:.2} m")])
        },
    },
    Sum {
        name: "flash-power",
        title: "What power a flash needs",
        group: "Flash",
        says: "For an aperture at a distance.",
        choice: None,
        asked: &[GN, DISTANCE, F_NUMBER, ISO, LOSS],
        optional: &[],
        given: &[("power_stops", "Power against full", "stops"), ("power_part", "As a part of full", "")],
        work: |v| {
            let (needed, full) = (asked(v).0, strength(v).at(Power::FULL).0);
            let power = strength(v).power_for(asked(v)).0.0;
            done(
                &[power, power.exp2()],
                &[
                    format!("needed: 2·log₂N − log₂(S/100) = {needed:.2}"),
                    format!("full power gives 2·log₂(GN/d) − loss = {full:.2}"),
                    if power > 0.0 { format!("{power:.2} stops too weak") } else { power_label(power) },
                ],
            )
        },
    },
    Sum {
        name: "flash-aperture",
        title: "What aperture a flash gives",
        group: "Flash",
        says: "From its guide number, distance and power.",
        choice: None,
        asked: &[GN, DISTANCE, ISO, POWER, LOSS],
        optional: &[],
        given: &[("f_number", "f-number", "")],
        work: |v| {
            let n = f_number_for(strength(v).at(Power(Stops(v.get("power_stops")))), v.get("iso"));
            done(&[n], &[format!("GN/d·√(S/100)·2^((power − loss)/2) = f/{n:.2}")])
        },
    },
    Sum {
        name: "high-speed-or-filter",
        title: "High-speed sync against a filter",
        group: "Flash",
        says: "A wider aperture than sync allows: what each way asks of the flash.",
        choice: None,
        asked: &[
            Number("sync_safe_s", "Safe sync", "s", 0.005, 0.000_1, 1.0),
            Number("f_number_at_sync", "Right at sync", "f/", 8.0, 0.7, 128.0),
            Number("f_number_wanted", "Wanted", "f/", 2.8, 0.7, 128.0),
            Number("high_speed_loss_stops", "Fixed loss in high speed", "stops", 4.0 / 3.0, 0.0, 6.0),
        ],
        optional: &[],
        given: &[
            ("wider_stops", "Wider by", "stops"),
            ("filter_stops", "Filter", "stops"),
            ("filter_power_stops", "More power with the filter", "stops"),
            ("high_speed_shutter_s", "Shutter in high speed", "s"),
            ("high_speed_power_stops", "More power in high speed", "stops"),
        ],
        work: |v| {
            // By the dials: f/2.8 and f/8 are three stops apart, not 3.03.
            let position = |field| Setting::<tolva_core::scale::Aperture>::of(v.get(field)).position();
            let wider = (position("f_number_at_sync") - position("f_number_wanted")).0;
            let sync = Setting::<Shutter>::of(v.get("sync_safe_s"));
            let shutter = sync.exact / wider.exp2();
            let fixed = Stops(v.get("high_speed_loss_stops"));
            let quick = Setting::<Shutter>::of(shutter);
            let loss = high_speed_loss(quick, sync, fixed).map_or(0.0, |loss| loss.0);
            let more = if wider > 0.0 { loss - wider } else { 0.0 };
            done(
                &[wider, wider.max(0.0), 0.0, quick.nominal, more],
                &[
                    format!("the aperture gives {wider:+.2} stops"),
                    format!("the filter takes {:.2}: the flash stays as it is", wider.max(0.0)),
                    format!("high speed takes {loss:.2}, so {more:+.2} more power"),
                ],
            )
        },
    },
    Sum {
        name: "burst",
        title: "Recycling and bursts",
        group: "Flash",
        says: "A store that refills steadily, emptied frame by frame.",
        choice: None,
        asked: &[
            Number("full_recycle_s", "Full recycle", "s", 1.5, 0.05, 60.0),
            POWER,
            Number("frames_per_s", "Frames a second", "1/s", 10.0, 0.1, 240.0),
            Number("pops_full", "Full pops in a battery", "", 200.0, 1.0, 100_000.0),
        ],
        optional: &[("pops_full", "")],
        given: &[
            ("recycle_s", "From pop to pop", "s"),
            ("frames_flashed", "Frames until it is dry", ""),
            ("frames_in_battery", "Frames in a battery", ""),
        ],
        work: |v| {
            let unit = Recycling {
                full_s: v.get("full_recycle_s"),
                pops_full: v.maybe("pops_full"),
                rest_after: None,
                rest_s: 0.0,
            };
            let power = Power(Stops(v.get("power_stops")));
            let fps = v.get("frames_per_s");
            let (flashed, says) = match unit.burst(power, fps) {
                Burst::ForEver => (None, "it follows for as long as the battery".to_owned()),
                Burst::RunsDryAfter(frames) => (Some(f64::from(frames)), format!("dry after {frames} frames")),
            };
            let takes = power.0.ratio();
            Ok(Worked {
                values: vec![Some(unit.time_s(power)), flashed, unit.frames_in_battery(power)],
                workings: vec![
                    format!("each frame takes {takes:.4} of a full pop"),
                    format!("between frames 1/({} · {fps}) = {:.4} comes back", unit.full_s, 1.0 / (unit.full_s * fps)),
                    says,
                ],
            })
        },
    },
];
