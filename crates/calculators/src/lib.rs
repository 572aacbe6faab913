//! Calculators: single computations that anyone can check from outside. One JSON object in, one out; the same behind the API's
//! `POST /api/v1/calculators/{name}`, the command line's `tolva sum NAME` and the page of quick sums.
//!
//! Each sum says what it is asked and what it gives, with names, units and ranges: what is sent is checked against
//! that, and the page is made from it.

mod bounce;
mod catalogue;
mod glass;
mod problem;
mod reach;
mod sun;
mod table;

pub use problem::{Problem, Problems};
pub use sun::{SunPosition, SunPositionAsked, SunTimesAsked, SunTimesFound, sun_position, sun_times};
pub use table::{Asked, CalculatorOffer, Given};

use serde_json::{Map, Value};

/// Every sum, in the order it is offered.
pub fn offered() -> Vec<CalculatorOffer> {
    catalogue::all()
        .map(table::Sum::offer)
        .chain([reach::offer(), bounce::offer(), glass::offer()])
        .chain(sun_offers())
        .collect()
}

fn sun_offers() -> [CalculatorOffer; 2] {
    let place = [
        Asked::number("latitude_deg", "Latitude, north is positive", "°", 60.17, (-90.0, 90.0)),
        Asked::number("longitude_deg", "Longitude, east is positive", "°", 24.94, (-180.0, 180.0)),
    ];
    let with = |first: Asked, more: Vec<Asked>| std::iter::once(first).chain(place.clone()).chain(more).collect();
    let height = Asked::number("elevation_m", "Over the sea", "m", 0.0, (-500.0, 9000.0)).or_left_out();
    [
        CalculatorOffer {
            name: "sun-position".to_owned(),
            title: "Where the sun stands".to_owned(),
            group: "Sun".to_owned(),
            says: "By the Solar Position Algorithm.".to_owned(),
            asked: with(Asked::text("utc", "Instant, UTC", "2026-08-29T16:46:00Z"), vec![height]),
            given: vec![
                Given::new("true_altitude_deg", "Height without refraction", "°"),
                Given::new("apparent_altitude_deg", "Height as it is seen", "°"),
                Given::new("azimuth_deg", "Bearing", "°"),
            ],
        },
        CalculatorOffer {
            name: "sun-times".to_owned(),
            title: "When the sun rises and sets".to_owned(),
            group: "Sun".to_owned(),
            says: "On the day whose transit falls on a UTC date.".to_owned(),
            asked: with(Asked::text("utc_date", "Day, UTC", "2026-08-29"), Vec::new()),
            given: vec![
                Given::new("sunrise_utc", "Sunrise", ""),
                Given::new("transit_utc", "Highest", ""),
                Given::new("sunset_utc", "Sunset", ""),
            ],
        },
    ]
}

/// A sum by its name: a JSON object in, one out. Nothing where there is no sum of that name.
///
/// ```
/// use tolva_calculators::sum;
/// let asked = |json| serde_json::from_str(json).unwrap();
/// let found = sum("near-field", &asked(r#"{"shape": "disc", "radius_m": 0.45, "distance_m": 0.9}"#)).expect("a sum").unwrap();
/// assert!((found["near_field_stops"].as_f64().unwrap() - -0.322).abs() < 0.0005);
/// let asked = asked(r#"{"utc_date": "2026-06-21", "latitude_deg": 78.2, "longitude_deg": 15.6}"#);
/// assert!(sum("sun-times", &asked).expect("a sum").unwrap()["sunset_utc"].is_null());
/// ```
pub fn sum(name: &str, asked: &Map<String, Value>) -> Option<Result<Value, Problems>> {
    let [position, times] = sun_offers();
    Some(match name {
        "sun-position" => table::read(&position.asked, asked).and_then(|values| sun::position(&values)),
        "light-reach" => table::read(&reach::offer().asked, asked).and_then(|values| reach::reach(&values)),
        "light-bounce" => table::read(&bounce::offer().asked, asked).and_then(|values| bounce::bounce(&values)),
        "glass-image" => table::read(&glass::offer().asked, asked).and_then(|values| glass::image(&values)),
        "sun-times" => table::read(&times.asked, asked).and_then(|values| sun::times(&values)),
        _ => return catalogue::all().find(|sum| sum.name == name).map(|sum| sum.work(asked)),
    })
}

#[cfg(test)]
mod tests;
