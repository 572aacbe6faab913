//! Every reader of what comes from outside, against files that were good once: with bytes turned, cut off, doubled or put
//! elsewhere. The answer is what was read or what is wrong, never a panic; what is read can be read again.
//! `cargo xtask search` draws other ones.

use proptest::prelude::*;
use serde_json::Value;
use tolva_format::{Job, KitFile, harmless, read_json};

const JOB: &str = include_str!("../../../demo/harvest-supper.json");
const OLD_JOB: &str = include_str!("../../format/tests/data/job-version-1.json");
const GPX: &str = r#"<?xml version="1.0"?><gpx version="1.1" creator="a" xmlns="http://www.topografix.com/GPX/1/1">
    <wpt lat="60.4667" lon="26.9458"><ele>4</ele><name>East quay</name></wpt>
    <trk><name>Walk</name><trkseg><trkpt lat="60.5" lon="27.0"/></trkseg></trk></gpx>"#;
const GEOJSON: &str = r#"{"type":"FeatureCollection","features":[{"type":"Feature","properties":{"name":"Quay"},
    "geometry":{"type":"Point","coordinates":[26.9,60.4,3]}}]}"#;

/// What is done to a file: where, and with what.
#[derive(Clone, Debug)]
enum Doing {
    Turn(usize, u8),
    Cut(usize),
    Double(usize, usize),
    Move(usize, usize),
    Insert(usize, &'static str),
}

fn doing() -> impl Strategy<Value = Doing> {
    let parts = ["{", "[", "\"", "<a>", "\u{feff}", "null", "1e999", ",", "\n", "a/b", "'="];
    prop_oneof![
        (any::<usize>(), any::<u8>()).prop_map(|(at, to)| Doing::Turn(at, to)),
        any::<usize>().prop_map(Doing::Cut),
        (any::<usize>(), 1..2000_usize).prop_map(|(at, length)| Doing::Double(at, length)),
        (any::<usize>(), any::<usize>()).prop_map(|(from, to)| Doing::Move(from, to)),
        (any::<usize>(), proptest::sample::select(parts.to_vec())).prop_map(|(at, part)| Doing::Insert(at, part)),
    ]
}

fn done(good: &str, doings: &[Doing]) -> Vec<u8> {
    let mut bytes = good.as_bytes().to_vec();
    for doing in doings {
        let length = bytes.len().max(1);
        match *doing {
            Doing::Turn(at, to) => {
                if let Some(byte) = bytes.get_mut(at % length) {
                    *byte = to;
                }
            }
            Doing::Cut(at) => bytes.truncate(at % length),
            Doing::Double(at, more) => {
                let from = at % length;
                let part = bytes[from.min(bytes.len())..(from + more).min(bytes.len())].to_vec();
                bytes.extend(part);
            }
            Doing::Move(from, to) => {
                if !bytes.is_empty() {
                    let byte = bytes.remove(from % length);
                    bytes.insert(to % (bytes.len() + 1), byte);
                }
            }
            Doing::Insert(at, part) => {
                let at = at % (bytes.len() + 1);
                bytes.splice(at..at, part.bytes());
            }
        }
    }
    bytes
}

fn kit() -> KitFile {
    KitFile::new(Job::from_json(JOB.as_bytes()).expect("the demo data").kit)
}

proptest! {
    #![proptest_config(ProptestConfig { cases: ProptestConfig::default().cases.min(1024), ..ProptestConfig::default() })]

    #[test]
    fn jobs(old in any::<bool>(), doings in proptest::collection::vec(doing(), 1..5)) {
        if let Ok(job) = Job::from_json(&done(if old { OLD_JOB } else { JOB }, &doings)) {
            prop_assert_eq!(Job::from_json(job.to_json().as_bytes()), Ok(job));
        }
    }

    #[test]
    fn kits(table in any::<bool>(), doings in proptest::collection::vec(doing(), 1..5)) {
        let good = if table { kit().to_csv() } else { kit().to_json() };
        if let Ok(file) = KitFile::from_any(&done(&good, &doings)) {
            prop_assert_eq!(KitFile::from_csv(file.to_csv().as_bytes()), Ok(file));
        }
    }

    #[test]
    fn places(json in any::<bool>(), doings in proptest::collection::vec(doing(), 1..5)) {
        let _ = tolva_places::points_of_file(&done(if json { GEOJSON } else { GPX }, &doings));
    }

    #[test]
    fn photos(bytes in proptest::collection::vec(any::<u8>(), 0..400), little in any::<bool>()) {
        let begin: &[u8] = if little { b"II*\0" } else { b"\xff\xd8\xff\xe1\x00\x40Exif\0\0MM\0*" };
        let _ = tolva_places::points_of_file(&[begin, &bytes].concat());
    }

    #[test]
    fn requests(doings in proptest::collection::vec(doing(), 1..5)) {
        let _ = read_json::<Value>(&done(JOB, &doings));
        if let Ok(asked) = read_json(&done("{\"shape\": \"disc\", \"radius_m\": 0.45, \"distance_m\": 0.9}", &doings)) {
            let _ = tolva_calculators::sum("near-field", &asked);
        }
    }

    /// No cell is taken for a formula, whatever it was.
    #[test]
    fn cells(text in any::<String>()) {
        let cell = harmless(&text);
        prop_assert!(!cell.starts_with(['=', '+', '-', '@', '\t', '\r']) || cell.parse::<f64>().is_ok());
    }
}
