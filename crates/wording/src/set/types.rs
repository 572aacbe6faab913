//! The set as it is sent: what is drawn, the list beside it, what there is to say, and the map of light.

use serde::{Deserialize, Serialize};
use tolva_planner::staging;
use utoipa::ToSchema;

use crate::shown::{Fact, Said};

/// A thing of the set.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case", deny_unknown_fields)]
pub enum OnSet {
    /// A person, by id.
    Person(String),
    /// A product.
    Product(String),
    /// The camera.
    Camera,
    /// A light, by its letter.
    Light(String),
    /// A card.
    Card(String),
    /// A wall or backdrop.
    Wall(String),
    /// The ceiling.
    Ceiling,
    /// The floor.
    Floor,
    /// A window or doorway.
    Opening(String),
    /// A pane or mirror.
    Pane(String),
    /// Something that can hurt.
    Hazard(String),
    /// A region.
    Region(String),
}

macro_rules! both_ways {
    ($($named:ident),*; $($alone:ident),*) => {
        impl From<OnSet> for staging::Thing {
            fn from(thing: OnSet) -> Self {
                match thing { $(OnSet::$named(id) => Self::$named(id),)* $(OnSet::$alone => Self::$alone,)* }
            }
        }
        impl From<staging::Thing> for OnSet {
            fn from(thing: staging::Thing) -> Self {
                match thing { $(staging::Thing::$named(id) => Self::$named(id),)* $(staging::Thing::$alone => Self::$alone,)* }
            }
        }
    };
}
both_ways!(Person, Product, Light, Card, Wall, Opening, Pane, Hazard, Region; Camera, Ceiling, Floor);

/// Whose light is drawn as contours.
#[derive(Clone, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case", deny_unknown_fields)]
pub enum Whose {
    /// One light's, by its letter.
    Light(String),
    /// All flashes'.
    #[default]
    Flashes,
    /// All flashes' and what is there.
    Together,
}

/// What the map of light is asked for.
#[derive(Clone, Debug, Default, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MapAsked {
    /// Whose light.
    #[serde(default)]
    pub whose: Whose,
    /// What part of the floor; left out, all that stands on the set.
    #[serde(default)]
    pub part: Option<FloorPart>,
    /// Whether a quarter of the places is enough, as while something is dragged.
    #[serde(default)]
    pub coarse: bool,
    /// Whether to look for what clears each thing that shows in glass, too.
    #[serde(default)]
    pub remedies: bool,
}

/// A part of the floor plan, in metres.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FloorPart {
    /// Its left end, −200 to 200.
    #[schema(minimum = -200, maximum = 200)]
    pub left_m: f64,
    /// Its near end.
    #[schema(minimum = -200, maximum = 200)]
    pub near_m: f64,
    /// Its right end.
    #[schema(minimum = -200, maximum = 200)]
    pub right_m: f64,
    /// Its far end.
    #[schema(minimum = -200, maximum = 200)]
    pub far_m: f64,
}

/// The set of a setup, to be drawn and read.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SetReport {
    /// Whether it is used: what lights reach follows from it. Otherwise it is laid out from what is known, and what they
    /// reach is as it was typed.
    pub used: bool,
    /// What that means, in a sentence.
    pub says: String,
    /// The part of the floor that holds everything.
    pub whole: FloorPart,
    /// Everything that stands there, what is largest first.
    pub things: Vec<SetThing>,
    /// The camera's frame on the floor: from the camera to both ends.
    pub frame: Vec<[f64; 2]>,
    /// The frame's height over its width, for what is seen through the lens.
    pub frame_high: f64,
    /// The lights, one by one.
    pub lights: Vec<SetLight>,
    /// What each light gives each region.
    pub reaches: Vec<Reach>,
    /// The set in words, one move a line, for a helper.
    pub moves: Vec<String>,
    /// What there is to say: what cannot stand so, what can hurt, what stands in the frame.
    pub notices: Vec<SetNote>,
    /// Who gets how much of the flash; null where there are less than two people.
    pub evenness: Option<EvennessSaid>,
    /// The sun's shadows and what cards throw of it, line by line.
    pub sun: Vec<Fact>,
    /// Where the shadows lie: from and to, on the floor.
    pub shadows: Vec<ShadowDrawn>,
    /// What a card does to the shadow side against how far it stands; null where there is no card.
    pub card: Option<CardCurve>,
    /// The map of light.
    pub map: LightMap,
}

/// A thing as it is drawn: outlines in metres, as seen from above, from the side, and through the lens.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SetThing {
    /// What.
    pub thing: OnSet,
    /// What it is called.
    pub name: String,
    /// What kind of thing, for how it is drawn: `person`, `light`, `card`.
    pub kind: &'static str,
    /// Where its handle is: to the right, forwards, over the floor.
    pub at: [f64; 3],
    /// The way it looks, clockwise from straight ahead; null where it looks nowhere.
    pub looks_deg: Option<f64>,
    /// From above: each outline as to the right and forwards.
    pub plan: Vec<Vec<[f64; 2]>>,
    /// From the side: each outline as forwards and over the floor.
    pub side: Vec<Vec<[f64; 2]>>,
    /// Through the lens: each outline in frame widths to the right of the middle and frame heights over it.
    pub lens: Vec<Vec<[f64; 2]>>,
    /// Where it stands, in words.
    pub says: String,
}

/// A light of the set.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SetLight {
    /// Its letter.
    pub light_id: String,
    /// What it is aimed at: to the right, forwards, over the floor.
    pub aim: [f64; 3],
    /// From its surface to what it is aimed at: `1.50 m`.
    pub distance: String,
    /// Whether that is left to Tolva.
    pub free: bool,
    /// Round what it is aimed at: `40° to its right`.
    pub round: String,
    /// Over what it is aimed at: `0.51 m over the eyes`.
    pub over: String,
    /// The same, in metres.
    pub over_m: f64,
    /// What there is to know of where it stands: softness, shadow edge, catchlight, nearest place out of the frame.
    pub facts: Vec<Fact>,
}

/// What a light gives a region.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Reach {
    /// The light's letter.
    pub light_id: String,
    /// The region.
    pub region_id: String,
    /// Against the region it is aimed at.
    pub spill: Said,
    /// Whether it is worked out from the set; otherwise it was typed.
    pub from_set: bool,
    /// The part of it that comes back from walls, ceiling, floor or cards: `40 %`; null where none does.
    pub bounced: Option<String>,
}

/// Something there is to say of a set.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SetNote {
    /// Its code: stable.
    pub code: &'static str,
    /// What it is told at; null where it is the whole set.
    pub about: Option<OnSet>,
    /// In two or three words.
    pub heading: String,
    /// In a sentence or two, with the reason.
    pub says: String,
    /// Whether it can hurt somebody.
    pub can_hurt: bool,
    /// How far from its aim a light would be out of the frame; null where there is no such way.
    pub away: Option<crate::depth_lane::Distance>,
    /// How high over the floor it would be.
    pub up: Option<crate::depth_lane::Distance>,
}

/// How evenly a group is lit.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct EvennessSaid {
    /// Each person with how far over or under the middle.
    pub people: Vec<PersonLit>,
    /// From the least to the most lit: `⅔`.
    pub spread: Said,
    /// Whether all are within a third.
    pub even: bool,
    /// The worst by name, and what would bring all within a third.
    pub says: String,
    /// The lights that would be moved, where a place was found; empty where none was looked for, or none is needed.
    pub moves: Vec<String>,
}

/// One person of a group.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PersonLit {
    /// The person.
    pub person_id: String,
    /// What they are called.
    pub name: String,
    /// Over or under the middle.
    pub stops: Said,
    /// Whether they are farthest off.
    pub worst: bool,
}

/// A shadow of the sun on the floor, or the way a card throws it.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct ShadowDrawn {
    /// Whose.
    pub of: OnSet,
    /// From, to the right and forwards.
    pub from: [f64; 2],
    /// To, on level ground, or up to the wall it falls on.
    pub to: [f64; 2],
    /// Its length and edge, or where a card throws it.
    pub says: String,
    /// Whether it is light that a card throws, and no shadow.
    pub lit: bool,
}

/// Fill against distance.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct CardCurve {
    /// The card.
    pub card_id: String,
    /// What it is called.
    pub name: String,
    /// The region it is worked out for.
    pub region_id: String,
    /// How the ambient on that region changes with the card so far away: metres and stops.
    pub points: Vec<[f64; 2]>,
    /// Where it stands now: metres and stops.
    pub now: [f64; 2],
    /// That in words.
    pub says: String,
    /// Its axes: distances with labels.
    pub marks: Vec<crate::depth_lane::Distance>,
    /// And stops.
    pub levels: Vec<Level>,
}

/// What the light gives at each point of a level grid at eye height.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct LightMap {
    /// Whose light.
    pub whose: Whose,
    /// What part of the floor.
    pub part: FloorPart,
    /// Points from left to right.
    pub columns: u32,
    /// Points from near to far.
    pub rows: u32,
    /// Hundredths of a stop from mid grey, row by row from the near end.
    pub hundredths: Vec<i32>,
    /// The stops that contours are drawn at, with their labels.
    pub levels: Vec<Level>,
    /// What is drawn, in a sentence.
    pub says: String,
    /// The bar that shows the scale: metres and its label.
    pub bar: crate::depth_lane::Distance,
}

/// A contour.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Level {
    /// In stops from mid grey.
    pub stops: f64,
    /// As it is written: `−2`.
    pub label: String,
}
