//! The world's towns by name, the largest first.

use std::io::Read as _;
use std::sync::OnceLock;

use deunicode::deunicode;
use flate2::read::GzDecoder;
use isocountry::CountryCode;

use crate::{Place, time_zone};

/// A town of the list.
#[derive(Clone, Debug, PartialEq)]
pub struct Town {
    /// What it is called there.
    pub name: &'static str,
    country: &'static str,
    region: &'static str,
    /// North is positive.
    pub latitude_deg: f64,
    /// East is positive.
    pub longitude_deg: f64,
    population: u32,
    /// The name as it is searched: lower case, without marks.
    folded: String,
}

impl Town {
    /// The country's English name; its code where there is none.
    pub fn country(&self) -> &'static str {
        CountryCode::for_alpha2(self.country).map_or(self.country, |country| country.name())
    }
}

static DATA: &[u8] = include_bytes!("../data/places.tsv.gz");

/// A town near enough and large enough tells one of several of a name from another.
const LARGE: u32 = 100_000;
const NEAR_KM: f64 = 120.0;

fn fold(text: &str) -> String {
    deunicode(text).to_lowercase()
}

/// All towns, the largest first; read once.
fn towns() -> &'static [Town] {
    static TOWNS: OnceLock<Vec<Town>> = OnceLock::new();
    TOWNS.get_or_init(|| {
        let mut text = String::new();
        // The list is part of this program: its test sees that it can be read whole.
        if GzDecoder::new(DATA).read_to_string(&mut text).is_err() {
            return Vec::new();
        }
        let text: &'static str = Box::leak(text.into_boxed_str());
        text.lines().filter_map(town).collect()
    })
}

fn town(line: &'static str) -> Option<Town> {
    let mut fields = line.split('\t');
    let mut next = || fields.next();
    let (name, country, region) = (next()?, next()?, next()?);
    let (latitude, longitude, population) = (next()?, next()?, next()?);
    Some(Town {
        name,
        country,
        region,
        latitude_deg: latitude.parse().ok()?,
        longitude_deg: longitude.parse().ok()?,
        population: population.parse().ok()?,
        folded: fold(name),
    })
}

/// Towns whose name begins as it was typed, the exact ones and then the largest first. What follows a comma narrows it:
/// a country, its code, or a state's letters.
pub fn search(typed: &str, most: usize) -> Vec<Place> {
    let mut parts = typed.split(',').map(|part| fold(part.trim()));
    let Some(name) = parts.next().filter(|name| !name.is_empty()) else { return Vec::new() };
    let narrow: Vec<String> = parts.filter(|part| !part.is_empty()).collect();
    let fits = |town: &&Town| {
        narrow.iter().all(|part| {
            town.country.eq_ignore_ascii_case(part)
                || town.region.eq_ignore_ascii_case(part)
                || fold(town.country()).starts_with(part.as_str())
        })
    };
    // The list is in order of size, so the first that fit are the largest.
    let with = |how: &dyn Fn(&Town) -> bool| -> Vec<&'static Town> {
        towns().iter().filter(|town| how(town)).filter(fits).take(most).collect()
    };
    let mut found = with(&|town| town.folded == name);
    found.extend(with(&|town| town.folded != name && town.folded.starts_with(&name)));
    if found.len() < most {
        let inside = format!(" {name}");
        found.extend(with(&|town| !town.folded.starts_with(&name) && town.folded.contains(&inside)));
    }
    found.truncate(most);
    found.iter().map(|town| place(town)).collect()
}

fn place(town: &Town) -> Place {
    let near = nearest(town.latitude_deg, town.longitude_deg, LARGE.max(town.population.saturating_add(1)));
    let near = near.filter(|(_, km)| *km < NEAR_KM).map(|(large, km)| format!(", {km:.0} km from {}", large.name));
    let region = if town.region.is_empty() { String::new() } else { format!("{}, ", town.region) };
    Place {
        name: town.name.to_owned(),
        within: format!("{region}{}{}", town.country(), near.unwrap_or_default()),
        latitude_deg: town.latitude_deg,
        longitude_deg: town.longitude_deg,
        elevation_m: None,
        time_zone: time_zone(town.latitude_deg, town.longitude_deg),
    }
}

/// The nearest town of at least so many people, and how far away it is in kilometres.
pub fn nearest(latitude_deg: f64, longitude_deg: f64, population: u32) -> Option<(&'static Town, f64)> {
    let large = towns().partition_point(|town| town.population >= population);
    let far = |town: &&Town| kilometres((latitude_deg, longitude_deg), (town.latitude_deg, town.longitude_deg));
    towns()[..large].iter().map(|town| (town, far(&town))).min_by(|a, b| a.1.total_cmp(&b.1))
}

/// Along the great circle of a sphere of 6371 km (haversine formula).
fn kilometres(a: (f64, f64), b: (f64, f64)) -> f64 {
    let half = |from: f64, to: f64| ((to - from).to_radians() / 2.0).sin().powi(2);
    let h = half(a.0, b.0) + a.0.to_radians().cos() * b.0.to_radians().cos() * half(a.1, b.1);
    2.0 * 6371.0 * h.sqrt().min(1.0).asin()
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[test]
    fn the_list_is_whole_and_in_order() {
        assert_eq!(towns().len(), 135_233);
        assert!(towns().is_sorted_by(|a, b| a.population >= b.population));
    }

    #[rstest]
    #[case("kotka", "Kotka", "Finland", "Europe/Helsinki")]
    #[case("Helsinki", "Helsinki", "Finland", "Europe/Helsinki")]
    #[case("sao paulo", "São Paulo", "Brazil", "America/Sao_Paulo")]
    #[case("London", "London", "United Kingdom", "Europe/London")]
    #[case("London, CA", "London", "Canada", "America/Toronto")]
    #[case("Springfield, IL", "Springfield", "IL, United States", "America/Chicago")]
    #[case("Kathm", "Kathmandu", "Nepal", "Asia/Kathmandu")]
    fn towns_are_found(#[case] typed: &str, #[case] name: &str, #[case] within: &str, #[case] zone: &str) {
        let found = search(typed, 6);
        let first = found.first().expect("a town");
        assert_eq!((first.name.as_str(), first.time_zone.as_str()), (name, zone), "{found:?}");
        assert!(first.within.contains(within), "{first:?}");
    }

    #[test]
    fn towns_of_one_name_are_told_apart() {
        let all = search("Neustadt", 8);
        let mut within: Vec<&str> = all.iter().map(|place| place.within.as_str()).collect();
        within.sort_unstable();
        within.dedup();
        assert!(all.len() > 3 && within.len() >= all.len() - 1, "{all:?}");
        assert!(search("", 5).is_empty() && search(",FI", 5).is_empty());
    }

    /// Helsinki to Stockholm is 396 km along the great circle (common tables, from memory).
    #[test]
    fn how_far() {
        assert!((kilometres((60.17, 24.94), (59.33, 18.07)) - 396.0).abs() < 3.0);
    }
}
