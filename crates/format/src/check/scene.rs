//! Checking where and when.

use tolva_core::ambient as domain;
use tolva_core::time::{WrongTime, zone};

use crate::problems::Checker;
use crate::scene::{LocalTime, Obstacle, ObstacleHeight, Scene, Surroundings, Weather};

const BEARING: std::ops::RangeInclusive<f64> = 0.0..=360.0;
const CLOUD: std::ops::RangeInclusive<f64> = 0.0..=8.0;
/// With less of the sky left than this there is nothing to plan by.
const LEAST_SKY: f64 = 0.02;

pub(super) fn scene(c: &mut Checker, scene: &Scene) {
    c.within("site", |c| {
        c.text("name", &scene.site.name, 0, 120);
        c.number("latitude_deg", scene.site.latitude_deg, &(-90.0..=90.0), "degrees");
        c.number("longitude_deg", scene.site.longitude_deg, &(-180.0..=180.0), "degrees");
        c.number("elevation_m", scene.site.elevation_m, &(-500.0..=9000.0), "m");
    });
    c.within("at", |c| local_time(c, &scene.at));
    c.number("facing_deg", scene.facing_deg, &BEARING, "degrees");
    horizon(c, &scene.horizon);
    c.within("weather", |c| match &scene.weather {
        Weather::Steady(steady) => c.within("steady", |c| c.number("cloud_eighths", steady.cloud_eighths, &CLOUD, "")),
        Weather::Forecast(forecast) => c.within("forecast", |c| {
            c.text("source", &forecast.source, 0, 120);
            if !(1..=400).contains(&forecast.hours.len()) {
                c.wrong("hours", format!("{} hours are not allowed: it must be from 1 to 400", forecast.hours.len()));
            }
            let mut before = None;
            c.each("hours", &forecast.hours, |c, hour| {
                c.number("cloud_eighths", hour.cloud_eighths, &CLOUD, "");
                match hour.utc.parse::<jiff::Timestamp>() {
                    Ok(utc) if before.is_none_or(|before| before < utc) => before = Some(utc),
                    Ok(_) => c.wrong("utc", "the hours must stand in order, each once"),
                    Err(_) => c.wrong("utc", format!("“{}” is not an hour: write 2026-08-29T16:00:00Z", hour.utc)),
                }
            });
        }),
    });
    c.within("surroundings", |c| match scene.surroundings {
        Surroundings::OpenShade(shade) => c.within("open_shade", |c| {
            c.number("sky_percent", shade.sky_percent, &(0.0..=100.0), "%");
        }),
        Surroundings::Artificial(lamps) => c.within("artificial", |c| {
            c.number("mains_hz", lamps.mains_hz, &(50.0..=60.0), "Hz");
        }),
        _ => {}
    });
    c.within("behind", |c| c.number("sunlit_percent", scene.behind.sunlit_percent, &(0.0..=100.0), "%"));
    let zone = match zone(&scene.site.time_zone) {
        Ok(zone) => zone,
        Err(wrong) => return c.within("site", |c| c.wrong(wrong.field(), wrong.to_string())),
    };
    // A day or hour that is none was named above.
    if let Err(wrong @ WrongTime::Skipped { .. }) = tolva_core::time::LocalTime::from(scene.at.clone()).instant(&zone) {
        c.within("at", |c| c.wrong(wrong.field(), wrong.to_string()));
    }
}

fn horizon(c: &mut Checker, horizon: &[Obstacle]) {
    if horizon.len() > 24 {
        c.wrong("horizon", format!("{} things in the way are too many: at most 24", horizon.len()));
    }
    c.each("horizon", horizon, |c, obstacle| {
        c.text("name", &obstacle.name, 0, 120);
        c.number("from_deg", obstacle.from_deg, &BEARING, "degrees");
        c.number("to_deg", obstacle.to_deg, &BEARING, "degrees");
        c.within("height", |c| match obstacle.height {
            ObstacleHeight::Angle(angle) => c.within("angle", |c| {
                c.number("altitude_deg", angle.altitude_deg, &(0.0..=89.0), "degrees");
            }),
            ObstacleHeight::Size(size) => c.within("size", |c| {
                c.number("height_m", size.height_m, &(0.0..=5000.0), "m");
                c.number("distance_m", size.distance_m, &(0.1..=100_000.0), "m");
            }),
        });
    });
    let obstacles: Vec<domain::Obstacle> = horizon.iter().cloned().map(Into::into).collect();
    let left = domain::Skyline::new(&obstacles).sky_on_level();
    if left < LEAST_SKY {
        let left = left * 100.0;
        c.wrong("horizon", format!("it covers the sky: {left:.1} % is left. Lower it, or say that it is indoors"));
    }
}

/// A day and an hour, without the zone they are in.
pub(super) fn local_time(c: &mut Checker, at: &LocalTime) {
    // Every day and hour there is comes in UTC.
    if let Err(wrong) = tolva_core::time::LocalTime::from(at.clone()).instant(&jiff::tz::TimeZone::UTC) {
        c.wrong(wrong.field(), wrong.to_string());
    }
}
