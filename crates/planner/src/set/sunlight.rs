//! The sun on the set: which way it comes from there, the shadows it throws of people and products, and where a card or a
//! mirror throws a patch of it.

use tolva_core::ambient::Sun;
use tolva_core::set::{Direction, Point, Vector, mirrored, shadow_edge_m, shadow_length_m, shadow_on};

use crate::setup::{CardKind, Person, Product};
use crate::staging::{Laid, Thing, towards_sun};

/// The shadow of a thing.
#[derive(Clone, Debug, PartialEq)]
pub struct Shadow {
    /// Whose.
    pub of: Thing,
    /// Where it begins, on the floor.
    pub from: Point,
    /// Where the head's, or the top's, would fall on level ground.
    pub to: Point,
    /// Its length on level ground, or on its table, in metres.
    pub length_m: f64,
    /// Whether it falls on the table that the thing is on.
    pub on_table: bool,
    /// How wide its edge is at its end, in metres.
    pub edge_m: f64,
    /// Where it falls on a wall instead, and on which.
    pub on_wall: Option<(String, Point)>,
}

/// Shadows of people and products under a sun that shines; none where it is down.
pub fn shadows(laid: &Laid, sun: Sun, facing_deg: f64) -> Vec<Shadow> {
    let to_sun = towards_sun(sun, facing_deg);
    let people = laid.set.people.iter().map(|one| {
        let (head, radius) = Person::head(one);
        (Thing::Person(one.id.clone()), Point::new(head.x, head.y, head.z + radius), None)
    });
    let products = laid.set.products.iter().map(|one| {
        let top = Product::middle(one) + Vector::Z * (one.size_m().2 / 2.0);
        let table = one.table().map(|table| (one.table_m, table));
        (Thing::Product(one.id.clone()), top, table)
    });
    let thrown = people.chain(products).filter_map(|(of, top, table)| {
        let on_table = table.and_then(|(table_m, half_m)| {
            let length_m = shadow_length_m(top.z - table_m, sun.apparent_altitude_deg)?;
            (length_m <= half_m).then_some((table_m, length_m))
        });
        let (ground_m, length_m) = match on_table {
            Some(on_table) => on_table,
            None => (0.0, shadow_length_m(top.z, sun.apparent_altitude_deg)?),
        };
        let from = Point::new(top.x, top.y, ground_m);
        let away = Vector::new(-to_sun.x, -to_sun.y, 0.0).normalize_or_zero();
        let walls = laid.set.walls.iter().filter_map(|wall| {
            let spot = shadow_on(top, -to_sun, &wall.panel(top))?;
            (spot.z > ground_m).then(|| (wall.id.clone(), spot))
        });
        let on_wall = walls.min_by(|a, b| a.1.distance(top).total_cmp(&b.1.distance(top)));
        let path = on_wall.as_ref().map_or(length_m / to_sun.truncate().length().max(1e-6), |(_, at)| at.distance(top));
        let (to, edge_m, on_table) = (from + away * length_m, shadow_edge_m(path), on_table.is_some());
        Some(Shadow { of, from, to, length_m, on_table, edge_m, on_wall })
    });
    thrown.collect()
}

/// Where a card throws the sun.
#[derive(Clone, Debug, PartialEq)]
pub struct Thrown {
    /// Which card, by id.
    pub card: String,
    /// How far off the main subject's eyes it passes, in metres.
    pub off_m: f64,
    /// Where it falls: on a wall, by its id, or on the floor; nothing where it goes up and away.
    pub falls: Option<(Option<String>, Point)>,
    /// How the card would have to face to throw it on the eyes.
    pub facing: Direction,
}

/// Mirrors and shiny cards that the sun shines on, with where they throw it.
pub fn thrown(laid: &Laid, sun: Sun, facing_deg: f64) -> Vec<Thrown> {
    if sun.apparent_altitude_deg <= 0.0 {
        return Vec::new();
    }
    let to_sun = towards_sun(sun, facing_deg);
    let shiny = [CardKind::Mirror, CardKind::Silver, CardKind::Gold];
    let cards = laid.set.cards.iter().filter(|card| shiny.contains(&card.kind));
    cards
        .filter_map(|card| {
            let panel = card.panel();
            if panel.normal.dot(to_sun) <= 0.0 {
                return None;
            }
            let along = mirrored(-to_sun, panel.normal);
            let eyes = laid.anchor();
            let way = eyes - panel.centre;
            let nearest = panel.centre + along * way.dot(along).max(0.0);
            // Half way between the sun and the eyes.
            let facing = Direction::of((to_sun + way.normalize_or_zero()).normalize_or(panel.normal));
            let falls = falls(laid, panel.centre, along);
            Some(Thrown { card: card.id.clone(), off_m: nearest.distance(eyes), falls, facing })
        })
        .collect()
}

/// Where light that goes this way falls first: on a wall, or on the floor.
fn falls(laid: &Laid, from: Point, along: Vector) -> Option<(Option<String>, Point)> {
    let walls = laid.set.walls.iter().filter_map(|wall| {
        let spot = shadow_on(from, along, &wall.panel(from))?;
        Some((Some(wall.id.clone()), spot))
    });
    let floor = (along.z < -1e-6).then(|| (None, from + along * (from.z / -along.z)));
    walls.chain(floor).min_by(|a, b| a.1.distance(from).total_cmp(&b.1.distance(from)))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::set::Addition;
    use crate::setup::{Kit, Setup};
    use crate::staging::on_set_deg;

    const SUN: Sun = Sun { true_altitude_deg: 30.0, apparent_altitude_deg: 30.0, azimuth_deg: 90.0 };

    #[test]
    fn shadows_fall_away_from_the_sun() {
        let kit = Kit::starter();
        let mut setup = Setup::new("one", &kit);
        setup.use_set();
        // The subject faces north: the camera stands there, and the sun is in the east, to its left.
        let laid = Laid::of(&setup);
        let found = shadows(&laid, SUN, 0.0);
        assert_eq!(found.len(), 1);
        assert!((found[0].length_m - 1.7085 / 30.0_f64.to_radians().tan()).abs() < 0.01, "{found:?}");
        assert!((on_set_deg(90.0, 0.0) - 270.0).abs() < 1e-9);
        assert!(found[0].to.x > 2.0 && found[0].on_wall.is_none());
        setup.add_to_set(&kit, &Addition::WallRight).expect("room");
        let on_wall = shadows(&Laid::of(&setup), SUN, 0.0);
        assert!(on_wall[0].on_wall.is_some() && on_wall[0].edge_m < found[0].edge_m);
        let night = Sun { apparent_altitude_deg: -3.0, ..SUN };
        assert!(shadows(&laid, night, 0.0).is_empty() && thrown(&laid, night, 0.0).is_empty());
    }

    /// A ring 2 cm high on a table under a sun of 20°: 2 cm / tan 20° = 5.5 cm of shadow, its edge half a millimetre; not the
    /// 2.11 m that its height over the floor would throw.
    #[test]
    fn on_a_table_the_table_is_the_ground() {
        let kit = Kit::starter();
        let mut setup = Setup::new("one", &kit);
        setup.use_set();
        let ring = crate::setup::ProductShape::Cylinder { diameter_m: 0.02, height_m: 0.02 };
        setup.add_to_set(&kit, &Addition::Product).expect("room");
        let set = setup.set.as_mut().expect("used");
        set.people.clear();
        (set.products[0].shape, set.products[0].table_m) = (ring, 0.75);
        let sun = Sun { true_altitude_deg: 20.0, apparent_altitude_deg: 20.0, azimuth_deg: 90.0 };
        let found = shadows(&Laid::of(&setup), sun, 0.0);
        let ring = &found[0];
        assert!(ring.on_table && (ring.length_m - 0.0549).abs() < 0.0005, "{ring:?}");
        assert!((ring.edge_m - 0.000_54).abs() < 0.000_02 && (ring.from.z - 0.75).abs() < 1e-9, "{ring:?}");
        // A tall bottle under a low sun throws past the table's edge: on the floor.
        let low = Sun { apparent_altitude_deg: 3.0, ..sun };
        setup.set.as_mut().expect("used").products[0].shape =
            crate::setup::ProductShape::Cylinder { diameter_m: 0.08, height_m: 0.3 };
        let bottle = &shadows(&Laid::of(&setup), low, 0.0)[0];
        assert!(!bottle.on_table && (bottle.length_m - 1.05 / 3.0_f64.to_radians().tan()).abs() < 0.01, "{bottle:?}");
    }

    #[test]
    fn a_mirror_that_faces_half_way_hits_the_eyes() {
        let kit = Kit::starter();
        let mut setup = Setup::new("one", &kit);
        setup.add_to_set(&kit, &Addition::Card(CardKind::Mirror)).expect("room");
        let facing = {
            let set = setup.set.as_mut().expect("used");
            (set.cards[0].x_m, set.cards[0].y_m, set.cards[0].z_m) = (2.0, -1.0, 2.0);
            set.cards[0].facing_deg = 270.0;
            thrown(&Laid::of(&setup), SUN, 0.0)[0].facing
        };
        let set = setup.set.as_mut().expect("used");
        (set.cards[0].facing_deg, set.cards[0].tilt_deg) = (facing.azimuth_deg, facing.elevation_deg);
        let hit = &thrown(&Laid::of(&setup), SUN, 0.0)[0];
        assert!(hit.off_m < 1e-6, "{hit:?}");
        // It goes on past the eyes, downwards: to the floor, or to a wall before that.
        let (on, spot) = hit.falls.clone().expect("somewhere");
        assert!(on.is_none() && spot.z.abs() < 1e-9, "{spot:?}");
        setup.add_to_set(&kit, &Addition::WallLeft).expect("room");
        let on_wall = thrown(&Laid::of(&setup), SUN, 0.0)[0].falls.clone().expect("somewhere");
        assert!(on_wall.0.is_some() && on_wall.1.z > 0.0, "{on_wall:?}");
    }
}
