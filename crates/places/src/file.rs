//! Positions out of files: GPX, GeoJSON, and the EXIF of a photo.

use std::io::Cursor;

use exif::{In, Tag, Value};
use geojson::{GeoJson, GeometryValue};

use crate::{Place, PlaceError, place_at};

/// As many points as are offered from one file.
const MOST: usize = 50;

/// One point of a file.
struct Point {
    name: String,
    latitude_deg: f64,
    longitude_deg: f64,
    elevation_m: Option<f64>,
}

/// The points of a file, whose kind is known by how it begins: GPX, GeoJSON or a photo.
///
/// # Errors
/// A file of another kind, one that breaks its rules, one without a point or position, or a point off the globe.
pub fn points_of_file(bytes: &[u8]) -> Result<Vec<Place>, PlaceError> {
    let text = bytes.trim_ascii_start();
    let text = text.strip_prefix(b"\xef\xbb\xbf").unwrap_or(text);
    let points = match text.first() {
        Some(b'<') => of_gpx(text)?,
        Some(b'{') => of_geojson(text)?,
        _ => of_photo(bytes)?,
    };
    let place = |point: Point| {
        let Point { name, latitude_deg, longitude_deg, elevation_m } = point;
        if (-90.0..=90.0).contains(&latitude_deg) && (-180.0..=180.0).contains(&longitude_deg) {
            Ok(place_at(&name, latitude_deg, longitude_deg, elevation_m))
        } else {
            Err(PlaceError::OffTheGlobe(format!("{latitude_deg}, {longitude_deg}")))
        }
    };
    points.into_iter().take(MOST).map(place).collect()
}

/// Elements of a GPX lie no deeper in each other, with room for extensions.
const DEEPEST: usize = 32;
/// An element of a GPX has no more attributes, with room for extensions.
const MOST_ATTRIBUTES: usize = 64;

/// Refuses what no GPX needs and what readers of XML take very long over: elements deep in each other, crowds of
/// attributes, and declarations of entities. It goes through the text once.
fn plain_xml(text: &[u8]) -> Result<(), PlaceError> {
    let broken = |why: &str| Err(PlaceError::Broken("GPX", why.to_owned()));
    let (mut at, mut depth) = (0, 0_usize);
    while let Some(found) = text[at..].iter().position(|byte| *byte == b'<') {
        let rest = &text[at + found..];
        let until =
            |end: &[u8]| rest.windows(end.len()).position(|part| part == end).map_or(rest.len(), |p| p + end.len());
        let length = if rest.starts_with(b"<!--") {
            until(b"-->")
        } else if rest.starts_with(b"<![CDATA[") {
            until(b"]]>")
        } else if rest.starts_with(b"<!") {
            return broken("it declares a document type, which no GPX has");
        } else {
            let tag = &rest[..until(b">")];
            if tag.split(|byte| *byte == b'=').count() > MOST_ATTRIBUTES {
                return broken("an element has more attributes than any of a GPX");
            }
            if tag.starts_with(b"</") {
                depth = depth.saturating_sub(1);
            } else if !tag.starts_with(b"<?") && !tag.ends_with(b"/>") {
                depth += 1;
            }
            tag.len()
        };
        if depth > DEEPEST {
            return broken("its elements lie deeper in each other than those of a GPX");
        }
        at += found + length;
    }
    Ok(())
}

fn of_gpx(text: &[u8]) -> Result<Vec<Point>, PlaceError> {
    plain_xml(text)?;
    let gpx = gpx::read(text).map_err(|error| PlaceError::Broken("GPX", error.to_string()))?;
    let point = |waypoint: &gpx::Waypoint, name: Option<&String>| Point {
        name: waypoint.name.as_ref().or(name).cloned().unwrap_or_default(),
        latitude_deg: waypoint.point().y(),
        longitude_deg: waypoint.point().x(),
        elevation_m: waypoint.elevation,
    };
    let mut all: Vec<Point> = gpx.waypoints.iter().map(|waypoint| point(waypoint, None)).collect();
    // Of a route or a track, where it begins.
    all.extend(gpx.routes.iter().filter_map(|route| Some(point(route.points.first()?, route.name.as_ref()))));
    let starts = gpx.tracks.iter().filter_map(|track| {
        let first = track.segments.iter().find_map(|segment| segment.points.first())?;
        Some(point(first, track.name.as_ref()))
    });
    all.extend(starts);
    if all.is_empty() { Err(PlaceError::NoPoint("GPX", "waypoint, a route or a track")) } else { Ok(all) }
}

fn of_geojson(text: &[u8]) -> Result<Vec<Point>, PlaceError> {
    let document = GeoJson::from_reader(text).map_err(|error| PlaceError::Broken("GeoJSON", error.to_string()))?;
    let features = match document {
        GeoJson::Geometry(geometry) => vec![geojson::Feature::from(geometry)],
        GeoJson::Feature(feature) => vec![feature],
        GeoJson::FeatureCollection(collection) => collection.features,
    };
    let mut all = Vec::new();
    for feature in features {
        let name = feature.property("name").and_then(|name| name.as_str()).unwrap_or_default().to_owned();
        let positions = match feature.geometry.map(|geometry| geometry.value) {
            Some(GeometryValue::Point { coordinates }) => vec![coordinates],
            Some(GeometryValue::MultiPoint { coordinates }) => coordinates,
            _ => Vec::new(),
        };
        for position in positions {
            let position = position.as_slice();
            if let [longitude_deg, latitude_deg, rest @ ..] = position {
                let elevation_m = rest.first().copied();
                let (latitude_deg, longitude_deg) = (*latitude_deg, *longitude_deg);
                all.push(Point { name: name.clone(), latitude_deg, longitude_deg, elevation_m });
            }
        }
    }
    if all.is_empty() { Err(PlaceError::NoPoint("GeoJSON", "Point")) } else { Ok(all) }
}

fn of_photo(bytes: &[u8]) -> Result<Vec<Point>, PlaceError> {
    let read = exif::Reader::new().read_from_container(&mut Cursor::new(bytes)).map_err(|error| match error {
        exif::Error::NotFound(_) => PlaceError::NoPosition,
        exif::Error::InvalidFormat("Unknown image format") => PlaceError::UnknownFile,
        other => PlaceError::Broken("photo", other.to_string()),
    })?;
    let text = |tag| read.get_field(tag, In::PRIMARY).map(|field| field.display_value().to_string());
    let degrees = |tag, reference, negative: &str| {
        let Value::Rational(parts) = &read.get_field(tag, In::PRIMARY)?.value else { return None };
        let [d, m, s] = parts.as_slice() else { return None };
        let value = d.to_f64() + m.to_f64() / 60.0 + s.to_f64() / 3600.0;
        let sign = if text(reference)?.contains(negative) { -1.0 } else { 1.0 };
        value.is_finite().then_some(sign * value)
    };
    let latitude = degrees(Tag::GPSLatitude, Tag::GPSLatitudeRef, "S");
    let longitude = degrees(Tag::GPSLongitude, Tag::GPSLongitudeRef, "W");
    let (Some(latitude_deg), Some(longitude_deg)) = (latitude, longitude) else { return Err(PlaceError::NoPosition) };
    let elevation_m = read.get_field(Tag::GPSAltitude, In::PRIMARY).and_then(|field| match &field.value {
        Value::Rational(parts) => parts.first().map(exif::Rational::to_f64).filter(|metres| metres.is_finite()),
        _ => None,
    });
    let under = read
        .get_field(Tag::GPSAltitudeRef, In::PRIMARY)
        .is_some_and(|field| matches!(&field.value, Value::Byte(bytes) if bytes.first() == Some(&1)));
    let elevation_m = elevation_m.map(|metres| if under { -metres } else { metres });
    Ok(vec![Point { name: String::new(), latitude_deg, longitude_deg, elevation_m }])
}

#[cfg(test)]
mod tests {
    use super::*;
    use exif::experimental::Writer;
    use exif::{Field, Rational};
    use rstest::rstest;

    const GPX: &str = r#"<?xml version="1.0"?><gpx version="1.1" creator="test" xmlns="http://www.topografix.com/GPX/1/1">
        <wpt lat="60.4667" lon="26.9458"><ele>4</ele><name>East quay</name></wpt>
        <trk><name>Walk</name><trkseg><trkpt lat="60.5" lon="27.0"/><trkpt lat="60.6" lon="27.1"/></trkseg></trk></gpx>"#;

    /// Texts that would keep a reader of XML busy for minutes are refused at a glance.
    #[rstest]
    #[case::open_tags("<a>".repeat(100_000), "deeper")]
    #[case::attributes(format!("<gpx {}>", "a=\"1\" ".repeat(50_000)), "attributes")]
    #[case::entities("<!DOCTYPE gpx [<!ENTITY a \"aaaa\">]><gpx>&a;</gpx>".to_owned(), "document type")]
    #[case::an_open_comment(format!("<!--{}", "<a>".repeat(100_000)), "")]
    fn xml_that_no_gpx_needs_is_refused(#[case] text: String, #[case] says: &str) {
        let wrong = points_of_file(text.as_bytes()).map(|_| ()).expect_err("refused");
        assert!(wrong.to_string().contains(says), "{wrong}");
    }

    #[test]
    fn a_gpx_has_its_waypoints_and_where_its_tracks_begin() {
        let found = points_of_file(GPX.as_bytes()).expect("points");
        let names: Vec<&str> = found.iter().map(|place| place.name.as_str()).collect();
        assert_eq!(names, ["East quay", "Walk"]);
        assert_eq!((found[0].elevation_m, found[0].time_zone.as_str()), (Some(4.0), "Europe/Helsinki"));
        assert!((found[1].latitude_deg - 60.5).abs() < 1e-9);
    }

    #[test]
    fn a_geojson_has_its_points() {
        let text = r#"{"type":"FeatureCollection","features":[
            {"type":"Feature","properties":{"name":"Slipway"},"geometry":{"type":"Point","coordinates":[26.9,60.4,2]}},
            {"type":"Feature","properties":{},"geometry":{"type":"LineString","coordinates":[[1,2],[3,4]]}}]}"#;
        let found = points_of_file(text.as_bytes()).expect("a point");
        assert_eq!((found.len(), found[0].name.as_str(), found[0].elevation_m), (1, "Slipway", Some(2.0)));
    }

    /// A TIFF whose EXIF is written by the library's own writer: 33° 54′ 0″ S, 18° 24′ 0″ E, 12 m.
    fn photo(with_position: bool) -> Vec<u8> {
        let rational = |num: u32, denom: u32| Rational { num, denom };
        let degrees = |d: u32, m: u32| Value::Rational(vec![rational(d, 1), rational(m, 1), rational(0, 1)]);
        let ascii = |text: &str| Value::Ascii(vec![text.as_bytes().to_vec()]);
        let mut fields = vec![(Tag::Model, ascii("None"))];
        if with_position {
            fields.extend([
                (Tag::GPSLatitudeRef, ascii("S")),
                (Tag::GPSLatitude, degrees(33, 54)),
                (Tag::GPSLongitudeRef, ascii("E")),
                (Tag::GPSLongitude, degrees(18, 24)),
                (Tag::GPSAltitude, Value::Rational(vec![rational(12, 1)])),
            ]);
        }
        let fields: Vec<Field> =
            fields.into_iter().map(|(tag, value)| Field { tag, ifd_num: In::PRIMARY, value }).collect();
        let mut writer = Writer::new();
        for field in &fields {
            writer.push_field(field);
        }
        let mut file = Cursor::new(Vec::new());
        writer.write(&mut file, false).expect("a file");
        file.into_inner()
    }

    #[test]
    fn a_photo_has_its_position() {
        let found = points_of_file(&photo(true)).expect("a position");
        assert!((found[0].latitude_deg + 33.9).abs() < 1e-9 && (found[0].longitude_deg - 18.4).abs() < 1e-9);
        assert_eq!((found[0].elevation_m, found[0].time_zone.as_str()), (Some(12.0), "Africa/Johannesburg"));
    }

    #[rstest]
    #[case(b"<gpx version=\"1.1\" creator=\"t\" xmlns=\"http://www.topografix.com/GPX/1/1\"></gpx>".to_vec(), "no point in it: it needs a waypoint")]
    #[case(b"<html></html>".to_vec(), "cannot be read")]
    #[case(br#"{"type":"FeatureCollection","features":[]}"#.to_vec(), "needs a Point")]
    #[case(br#"{"type":"Point","coordinates":[200,60]}"#.to_vec(), "not on the globe")]
    #[case(br#"{"type":"#.to_vec(), "GeoJSON cannot be read")]
    #[case(b"plain words".to_vec(), "no file that is read")]
    #[case(Vec::new(), "no file that is read")]
    #[case(photo(false), "no position in it")]
    fn refused(#[case] bytes: Vec<u8>, #[case] says: &str) {
        let wrong = points_of_file(&bytes).expect_err("wrong").to_string();
        assert!(wrong.contains(says), "{wrong}");
    }
}
