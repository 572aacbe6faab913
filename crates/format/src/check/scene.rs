//! What a scene says of its hour, its forecast and its horizon.

use tolva_core::ambient as domain;
use tolva_core::time::{WrongTime, zone};

use crate::problems::Checker;
use crate::scene::{LocalTime, Obstacle, Scene, Weather};

/// With less of the sky left than this there is nothing to plan by.
const LEAST_SKY: f64 = 0.02;

pub(super) fn scene(c: &mut Checker, scene: &Scene) {
    c.within("at", |c| local_time(c, &scene.at));
    horizon(c, &scene.horizon);
    if let Weather::Forecast(forecast) = &scene.weather {
        let mut before = None;
        let mut hour = |c: &mut Checker, utc: &str| match utc.parse::<jiff::Timestamp>() {
            Ok(utc) if before.is_none_or(|before| before < utc) => before = Some(utc),
            Ok(_) => c.wrong("utc", "the hours must stand in order, each once"),
            Err(_) => c.wrong("utc", format!("“{utc}” is not an hour: write 2026-08-29T16:00:00Z")),
        };
        c.within("weather", |c| {
            c.within("forecast", |c| c.each("hours", &forecast.hours, |c, one| hour(c, &one.utc)));
        });
    }
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
