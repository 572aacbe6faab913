//! A set from what is known without one: distances, roles, rows, what is bounced off what. Nobody starts from nothing.
//! Where a light of each kind usually stands is common practice, no source.

use tolva_core::ambient::Role;
use tolva_core::modifier::BounceOff;
use tolva_core::set::{Direction, Point, Receptor, Vector, Weighing};

use crate::setup::{
    CameraAim, CameraPlace, Ceiling, Clothes, Depth, FeatherTo, Finish, Head, Light, LightIndex, LightPlace, LightWish,
    Person, Product, ProductShape, RegionPlace, Set, Setup, Side, Skin, Support, Wall,
};

/// A person of middle height, in metres.
const HEIGHT_M: f64 = 1.7;
/// From one person of a row to the next, in metres.
pub const SHOULDER_M: f64 = 0.6;
/// What lies behind, where nothing else says so: so far behind the main subject, in metres.
const BEHIND_M: f64 = 3.0;
/// A part of the place with a light of its own: so far to the side of the main subject, in metres.
const ASIDE_M: f64 = 1.2;
/// A product stands so high where nobody has said it, in metres.
const TABLE_M: f64 = 0.75;
/// A head that is bounced looks so far forward of the surface's nearest point: as in [`tolva_core::modifier::Bounce`].
const FORWARD_DEG: f64 = 20.0;
/// So far to either side of the light a wall is drawn that is only known by its distance, in metres.
const WALL_HALF_M: f64 = 4.0;
/// A wall that is only known by its distance is so high, in metres.
const WALL_HIGH_M: f64 = 3.0;

/// A setup's set with everything in its place: as it was drawn, or laid out from what is known.
#[derive(Clone, Debug, PartialEq)]
pub struct Laid {
    /// What stands on it.
    pub set: Set,
    /// Whether somebody has used it: only then does what lights reach follow from it.
    pub used: bool,
    /// Where each region is.
    pub regions: Vec<RegionPlace>,
    /// Where each light stands.
    pub lights: Vec<LightPlace>,
}

impl Laid {
    /// The set of a setup.
    pub fn of(setup: &Setup) -> Self {
        let used = setup.set.is_some();
        let mut set = setup.set.clone().unwrap_or_else(|| begun(setup));
        let regions: Vec<RegionPlace> = (setup.regions.iter().enumerate())
            .map(|(index, region)| region.place.clone().unwrap_or_else(|| usual_place(setup, &set, index)))
            .collect();
        let mut lights: Vec<LightPlace> = Vec::new();
        for light in &setup.lights {
            let place = light.place.unwrap_or_else(|| usual_stand(setup, &set, &regions, light));
            lights.push(place);
        }
        let mut laid = Self { set: set.clone(), used, regions, lights };
        for (index, light) in setup.each_light() {
            if light.place.is_none() && light.bounce.is_some() {
                laid.lights[index].head = bounced(setup, &mut set, &laid, index);
            }
        }
        laid.set = set;
        laid
    }

    /// What the camera and the first lights go by: the main subject's eyes, or the middle of the first product.
    pub fn anchor(&self) -> Point {
        anchor(&self.set)
    }

    /// A region's place and the way it looks.
    pub fn receptor(&self, region: usize) -> Receptor {
        receptor(&self.set, &self.regions[region])
    }

    /// What a light is aimed at.
    pub fn aim(&self, setup: &Setup, light: LightIndex) -> Point {
        self.receptor(aimed_at(setup, &setup.lights[light])).at
    }

    /// The way a region's face or product looks, clockwise from +y: straight on, not to the side that is read.
    pub fn faces_deg(&self, region: usize) -> f64 {
        match &self.regions[region] {
            RegionPlace::Face { person_id, .. } => {
                let person = self.set.people.iter().find(|one| &one.id == person_id);
                person.map_or(180.0, |one| one.facing_deg)
            }
            RegionPlace::Product { product_id, .. } => {
                let product = self.set.products.iter().find(|one| &one.id == product_id);
                product.map_or(180.0, |one| one.facing_deg)
            }
            RegionPlace::Wall { .. } | RegionPlace::Point { .. } => {
                Direction::of(self.receptor(region).normal).azimuth_deg
            }
        }
    }

    /// Where the camera stands.
    pub fn camera(&self, setup: &Setup) -> Point {
        let CameraPlace { direction_deg, elevation_deg, .. } = self.set.camera;
        let at = self.anchor() + Direction::new(direction_deg, elevation_deg).vector() * setup.camera_distance_m;
        Point::new(at.x, at.y, at.z.max(0.05))
    }

    /// What the camera looks at.
    pub fn camera_aim(&self) -> Point {
        match self.set.camera.aim {
            CameraAim::Point { x_m, y_m, z_m } => Point::new(x_m, y_m, z_m),
            CameraAim::Subject => middle(&self.set),
        }
    }

    /// Where a light stands, so far from its aim.
    pub fn light(&self, setup: &Setup, light: LightIndex, distance_m: f64) -> Point {
        if setup.lights[light].on_camera {
            return over_the_lens(self.camera(setup));
        }
        self.lights[light].along(self.aim(setup, light), distance_m)
    }
}

impl LightPlace {
    /// The point so far along its line from what it is aimed at.
    pub(super) fn along(&self, aim: Point, distance_m: f64) -> Point {
        aim + Direction::new(self.direction_deg, self.elevation_deg).vector() * distance_m
    }
}

/// Where a flash sits that is on the camera.
pub(super) fn over_the_lens(camera: Point) -> Point {
    camera + Vector::Z * ON_CAMERA_M
}

/// A flash on the camera sits so far over the lens, in metres.
const ON_CAMERA_M: f64 = 0.12;

/// The region a light is aimed at, by its index; the lit side where nothing else is said.
pub fn aimed_at(setup: &Setup, light: &Light) -> usize {
    let named = light.aimed_at.as_ref().and_then(|id| setup.regions.iter().position(|region| &region.id == id));
    let lit = || setup.regions.iter().position(|region| region.role == Role::LitSide);
    named.or_else(lit).unwrap_or(0)
}

fn anchor(set: &Set) -> Point {
    let person = set.people.first().map(Person::eyes);
    person.or_else(|| set.products.first().map(Product::middle)).unwrap_or(Point::new(0.0, 0.0, 1.6))
}

/// The middle of everybody, or of the products where there is nobody.
fn middle(set: &Set) -> Point {
    let of: Vec<Point> = if set.people.is_empty() {
        set.products.iter().map(Product::middle).collect()
    } else {
        set.people.iter().map(Person::eyes).collect()
    };
    #[expect(clippy::cast_precision_loss, reason = "a few dozen")]
    let count = of.len().max(1) as f64;
    if of.is_empty() { anchor(set) } else { of.iter().sum::<Point>() / count }
}

/// Where a place of a region is, and the way it looks. What refers to nothing is at the main subject.
fn receptor(set: &Set, place: &RegionPlace) -> Receptor {
    let usual = || Receptor { at: anchor(set), normal: -Vector::Y, weighing: Weighing::Flat };
    match place {
        RegionPlace::Face { person_id, side } => {
            let person = set.people.iter().find(|one| &one.id == person_id);
            person.map_or_else(usual, |person| person.receptor(*side))
        }
        RegionPlace::Product { product_id, side } => {
            let product = set.products.iter().find(|one| &one.id == product_id);
            product.map_or_else(usual, |product| product.receptor(*side))
        }
        RegionPlace::Wall { wall_id } => {
            let wall = set.walls.iter().find(|one| &one.id == wall_id);
            wall.map_or_else(usual, |wall| {
                let panel = wall.panel(anchor(set));
                let at = Point::new(panel.centre.x, panel.centre.y, anchor(set).z.min(wall.height_m));
                Receptor { at: at + panel.normal * 0.01, normal: panel.normal, weighing: Weighing::Flat }
            })
        }
        RegionPlace::Point { x_m, y_m, z_m, azimuth_deg, elevation_deg } => Receptor {
            at: Point::new(*x_m, *y_m, *z_m),
            normal: Direction::new(*azimuth_deg, *elevation_deg).vector(),
            weighing: Weighing::Flat,
        },
    }
}

/// A person where nobody has said more.
pub fn somebody(number: usize, x_m: f64, y_m: f64, facing_deg: f64) -> Person {
    let name = format!("Person {number}");
    Person {
        id: format!("person-{number}"),
        name,
        x_m,
        y_m,
        height_m: HEIGHT_M,
        seated: false,
        facing_deg,
        spectacles: None,
        skin: Skin::default(),
        clothes: Clothes::default(),
    }
}

/// People in rows: so many in each, those behind between the shoulders of those before, a little apart.
pub fn rows(rows: u8, in_each: u8, apart_m: f64) -> Vec<Person> {
    let mut people = Vec::new();
    for row in 0..rows {
        let shifted = if row % 2 == 1 { SHOULDER_M / 2.0 } else { 0.0 };
        for place in 0..in_each {
            // The main one stands in the middle of the front row.
            let step = f64::from(place.div_ceil(2)) * if place % 2 == 1 { -1.0 } else { 1.0 };
            let x = step * SHOULDER_M + shifted;
            people.push(somebody(people.len() + 1, x, f64::from(row) * apart_m, 180.0));
        }
    }
    people
}

/// People in a circle, looking out of it; the main one at the origin.
pub fn circle(count: u8) -> Vec<Person> {
    let around = f64::from(count.max(2));
    let radius = (around * SHOULDER_M / std::f64::consts::TAU).max(0.5);
    let one = |index: u8| {
        let angle = 180.0 + 360.0 * f64::from(index) / around;
        let out = Direction::new(angle, 0.0).vector() * radius;
        somebody(usize::from(index) + 1, out.x, out.y + radius, angle.rem_euclid(360.0))
    };
    (0..count).map(one).collect()
}

/// A set as it begins: who or what is photographed, and the camera before it.
fn begun(setup: &Setup) -> Set {
    let (people, products) = match setup.depth {
        Depth::Rows { rows: count, apart_m } => (rows(count, if count > 8 { 1 } else { 3 }, apart_m), Vec::new()),
        Depth::CloseUp { depth_mm, .. } => {
            let size = (depth_mm / 1000.0).clamp(0.005, 1.0);
            let shape = ProductShape::Box { width_m: size, depth_m: size, height_m: size };
            (Vec::new(), vec![product(1, shape)])
        }
        Depth::Free | Depth::OneHead | Depth::Deep { .. } => (vec![somebody(1, 0.0, 0.0, 180.0)], Vec::new()),
    };
    let camera = CameraPlace { direction_deg: 180.0, elevation_deg: 0.0, portrait: false, aim: CameraAim::Subject };
    let (cards, walls, openings, panes, hazards) = Default::default();
    Set { people, products, camera, cards, walls, ceiling: None, floor: None, openings, panes, hazards, wind_m_s: None }
}

/// A product on a table where nobody has said more.
pub fn product(number: usize, shape: ProductShape) -> Product {
    Product {
        id: format!("product-{number}"),
        name: if number == 1 { "Product".to_owned() } else { format!("Product {number}") },
        x_m: 0.0,
        y_m: 0.0,
        table_m: TABLE_M,
        shape,
        facing_deg: 180.0,
        finish: Finish::Matt,
    }
}

/// A side of the main subject.
fn main_side(set: &Set, side: Side) -> RegionPlace {
    match (set.people.first(), set.products.first()) {
        (Some(person), _) => RegionPlace::Face { person_id: person.id.clone(), side },
        (None, Some(product)) => RegionPlace::Product { product_id: product.id.clone(), side },
        (None, None) => {
            let Point { x, y, z } = anchor(set);
            let azimuth_deg = 180.0 + side.turn_deg();
            RegionPlace::Point { x_m: x, y_m: y, z_m: z, azimuth_deg, elevation_deg: 0.0 }
        }
    }
}

/// Where a region is that nobody has placed.
pub fn usual_place(setup: &Setup, set: &Set, region: usize) -> RegionPlace {
    let one = &setup.regions[region];
    match one.role {
        // The first light usually comes from the camera's left: that side of a face that looks at it is its own right.
        Role::LitSide => main_side(set, Side::Right),
        Role::ShadowSide => main_side(set, Side::Left),
        Role::Background => match set.walls.first() {
            Some(wall) => RegionPlace::Wall { wall_id: wall.id.clone() },
            None => RegionPlace::Point {
                x_m: 0.0,
                y_m: set.people.iter().map(|person| person.y_m).fold(0.0, f64::max) + BEHIND_M,
                z_m: anchor(set).z.max(0.0),
                azimuth_deg: 180.0,
                elevation_deg: 0.0,
            },
        },
        Role::Part => {
            let rim =
                |light: &Light| matches!(light.wish, LightWish::Rim { .. }) && light.aimed_at.as_ref() == Some(&one.id);
            if setup.lights.iter().any(rim) {
                return main_side(set, Side::Top);
            }
            let before = setup.regions[..region].iter().filter(|other| other.role == Role::Part).count();
            let own_light = |light: &Light| {
                matches!(light.wish, LightWish::Place { .. }) && light.aimed_at.as_ref() == Some(&one.id)
            };
            match set.people.get(before + 1) {
                Some(person) => RegionPlace::Face { person_id: person.id.clone(), side: Side::Front },
                // What has a light of its own and is nobody is a part of the place: behind, to either side in turn.
                None if setup.lights.iter().any(own_light) => RegionPlace::Point {
                    x_m: if before % 2 == 0 { ASIDE_M } else { -ASIDE_M },
                    y_m: BEHIND_M / 2.0,
                    z_m: anchor(set).z.max(0.0),
                    azimuth_deg: 180.0,
                    elevation_deg: 0.0,
                },
                None => main_side(set, Side::Front),
            }
        }
    }
}

/// Where a light stands that nobody has placed.
fn usual_stand(setup: &Setup, set: &Set, regions: &[RegionPlace], light: &Light) -> LightPlace {
    let aimed = aimed_at(setup, light);
    let lit = receptor(set, &regions[aimed]);
    let looks = Direction::of(lit.normal);
    let facing = match &regions[aimed] {
        RegionPlace::Face { side, .. } | RegionPlace::Product { side, .. } => looks.azimuth_deg - side.turn_deg(),
        _ => looks.azimuth_deg,
    };
    let up = looks.elevation_deg > 80.0;
    // Which side of straight on: the camera's left for what looks straight at it.
    let aside = tolva_core::set::signed_deg(looks.azimuth_deg - facing);
    let hand = if aside < -1.0 { -1.0 } else { 1.0 };
    let (off, elevation_deg) = match light.wish {
        _ if up => (150.0, 40.0),
        LightWish::Rim { .. } => (115.0, 25.0),
        LightWish::Key => (40.0, 20.0),
        LightWish::Fill { .. } => (40.0, 5.0),
        LightWish::Place { .. } => (35.0, 20.0),
    };
    // A second one of a kind stands on the other side.
    let alike = |other: &&Light| {
        aimed_at(setup, other) == aimed && std::mem::discriminant(&other.wish) == std::mem::discriminant(&light.wish)
    };
    let before = setup.lights.iter().take_while(|other| other.id != light.id).filter(alike).count();
    let hand = if before % 2 == 1 { -hand } else { hand };
    LightPlace {
        direction_deg: (if up { 180.0 } else { facing } + hand * off).rem_euclid(360.0),
        elevation_deg,
        feather_to: FeatherTo::default(),
        roll_deg: 0.0,
        head: None,
        support: Support::Stand,
    }
}

/// What a light is bounced off, drawn where its distance says, and the way its head looks.
fn bounced(setup: &Setup, set: &mut Set, laid: &Laid, light: LightIndex) -> Option<Head> {
    let bounce = setup.lights[light].bounce?;
    let distance = setup.lights[light].distance_m.unwrap_or(setup.camera_distance_m);
    let at = laid.light(setup, light, distance);
    let towards = Direction::of(laid.aim(setup, light) - at).azimuth_deg;
    let (reflectance, colour) = (bounce.reflectance, bounce.colour);
    let mut wall = |middle: Point, along_deg: f64| {
        let along = Direction::new(along_deg, 0.0).vector() * WALL_HALF_M;
        let (from, to) = (middle - along, middle + along);
        set.walls.push(Wall {
            id: format!("bounce-{}", setup.lights[light].id),
            name: format!("Wall for {}", setup.lights[light].id),
            from_x_m: from.x,
            from_y_m: from.y,
            to_x_m: to.x,
            to_y_m: to.y,
            height_m: (at.z + 0.5).max(WALL_HIGH_M),
            reflectance,
            colour,
        });
    };
    Some(match bounce.off {
        BounceOff::Ceiling => {
            let height_m = (at.z + bounce.away_m).clamp(1.5, 30.0);
            set.ceiling.get_or_insert(Ceiling { height_m, reflectance, colour });
            Head { azimuth_deg: towards, elevation_deg: 90.0 - FORWARD_DEG }
        }
        BounceOff::SideWall => {
            // The wall lies to the left of the way to the subject.
            let out = Direction::new(towards - 90.0, 0.0);
            wall(at + out.vector() * bounce.away_m, towards);
            Head { azimuth_deg: out.turned(FORWARD_DEG, 0.0).azimuth_deg, elevation_deg: 0.0 }
        }
        BounceOff::BackWall => {
            let out = Direction::new(towards + 180.0, 0.0);
            wall(at + out.vector() * bounce.away_m, towards + 90.0);
            Head { azimuth_deg: out.azimuth_deg, elevation_deg: 0.0 }
        }
    })
}
