//! Where and when a setup is shot: the place, the hour, what stands in the way, the weather and the surroundings.

use serde::{Deserialize, Serialize};
use tolva_format_derive::Ranged;
use utoipa::ToSchema;

/// A day and an hour as clocks at the place show them.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LocalTime {
    /// `2026-08-29`, from 1900 to 2199.
    #[schema(pattern = r"^\d{4}-\d{2}-\d{2}$", example = "2026-08-29")]
    pub date: String,
    /// `19:46`.
    #[schema(pattern = r"^\d{2}:\d{2}$", example = "19:46")]
    pub time: String,
    /// Where clocks are put back and show this hour twice: whether the second one is meant.
    #[serde(default)]
    pub second_time: bool,
}

/// Place, hour and what they do to the light.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Scene {
    /// The place.
    pub site: Site,
    /// The day and the hour there.
    pub at: LocalTime,
    /// The bearing the subject faces, in degrees clockwise from true north. The camera looks the other way.
    #[schema(minimum = 0, maximum = 360, extensions(("x-step" = json!(5))))]
    pub facing_deg: f64,
    /// What stands in the way of the sun.
    #[serde(default)]
    #[schema(max_items = 24)]
    pub horizon: Vec<Obstacle>,
    /// The cloud.
    pub weather: Weather,
    /// What is around the subject.
    pub surroundings: Surroundings,
    /// What lies behind it.
    pub background: Background,
}

/// A place on the ground.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Site {
    /// What it is called. May be empty.
    #[serde(default)]
    #[schema(max_length = 120)]
    pub name: String,
    /// North is positive.
    #[schema(minimum = -90, maximum = 90)]
    pub latitude_deg: f64,
    /// East is positive.
    #[schema(minimum = -180, maximum = 180)]
    pub longitude_deg: f64,
    /// Over the sea, in metres.
    #[serde(default)]
    #[schema(minimum = -500, maximum = 9000, default = 0)]
    pub elevation_m: f64,
    /// Its time zone by its IANA name: `Europe/Helsinki`.
    #[schema(max_length = 60, example = "Europe/Helsinki")]
    pub time_zone: String,
}

/// Something that stands in the way of the sun: a range of bearings, up to a height.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Obstacle {
    /// What it is. May be empty.
    #[serde(default)]
    #[schema(max_length = 120)]
    pub name: String,
    /// The bearing it begins at, clockwise from true north.
    #[schema(minimum = 0, maximum = 360, default = 240)]
    pub from_deg: f64,
    /// The bearing it ends at, clockwise from there; it may pass north.
    #[schema(minimum = 0, maximum = 360, default = 300)]
    pub to_deg: f64,
    /// How high it stands.
    pub height: ObstacleHeight,
}

/// How high something stands, seen from the subject.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ObstacleHeight {
    /// As an angle.
    Angle(AngleHeight),
    /// As a size and a distance.
    Size(SizeHeight),
}

/// An angle over the horizon.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AngleHeight {
    /// In degrees.
    #[schema(minimum = 0, maximum = 89, default = 10)]
    pub altitude_deg: f64,
}

/// So high, so far away.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SizeHeight {
    /// How high it stands over the subject's face, in metres.
    #[schema(minimum = 0, maximum = 5000, default = 12)]
    pub height_m: f64,
    /// How far away it is, in metres.
    #[schema(minimum = 0.1, maximum = 100_000, default = 30)]
    pub distance_m: f64,
}

/// The cloud over the day.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Weather {
    /// The same all day, by hand.
    Steady(SteadyCloud),
    /// Hour by hour.
    Forecast(ForecastCloud),
}

/// One amount of cloud.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SteadyCloud {
    /// Eighths of the sky: 0 clear, 8 overcast.
    #[schema(minimum = 0, maximum = 8, default = 0, extensions(("x-step" = json!(1))))]
    pub cloud_eighths: f64,
}

/// Cloud hour by hour, as a forecast gave it.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ForecastCloud {
    /// Who says so.
    #[schema(max_length = 120)]
    pub source: String,
    /// Whether it is made up by a stand-in and no real forecast.
    pub simulated: bool,
    /// The hours, in order; between them the cloud changes evenly.
    #[schema(min_items = 1, max_items = 400)]
    pub hours: Vec<CloudHour>,
}

/// The cloud at an hour.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CloudHour {
    /// In UTC: `2026-08-29T16:00:00Z`.
    #[schema(max_length = 40, example = "2026-08-29T16:00:00Z")]
    pub utc: String,
    /// Eighths of the sky.
    #[schema(minimum = 0, maximum = 8)]
    pub cloud_eighths: f64,
}

/// What is around the subject.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Surroundings {
    /// Nothing much: grass, earth, paving.
    OpenGround,
    /// Snow lies.
    Snow,
    /// Pale sand.
    Sand,
    /// Water all around, or a quay.
    Water,
    /// Out of the sun, under the open sky.
    OpenShade(OpenShade),
    /// Under trees.
    Trees,
    /// Under an awning or a porch.
    Awning,
    /// A narrow or dark street.
    DarkStreet,
    /// Lamps: indoors, or at night.
    Artificial(Artificial),
}

/// Shade with the sky over it.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OpenShade {
    /// How much of the sky overhead is seen, in percent.
    #[schema(minimum = 0, maximum = 100, default = 60, extensions(("x-step" = json!(10))))]
    pub sky_percent: f64,
}

/// Lamps.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Artificial {
    /// What kind of light.
    pub light: TypicalLight,
    /// The mains frequency there: 50 or 60.
    #[serde(default = "fifty")]
    #[schema(minimum = 50, maximum = 60, default = 50)]
    pub mains_hz: f64,
}

/// What lies behind the subject, as the camera sees it.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Background {
    /// What it is.
    pub what: BackgroundKind,
    /// How much of the frame behind the subject is sunlit when the sun is out, in percent.
    #[schema(minimum = 0, maximum = 100, extensions(("x-step" = json!(5))))]
    pub sunlit_percent: f64,
}

/// What lies behind the subject.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum BackgroundKind {
    /// Things that stand: houses, trees, people.
    Upright,
    /// The ground or the floor, running back.
    Ground,
    /// Sky low over the horizon.
    Sky,
}

/// What part a region has in the picture.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Role {
    /// What lies behind the subject.
    Background,
    /// The side of the subject the ambient lights more.
    LitSide,
    /// The side it lights less.
    ShadowSide,
    /// Anything else that gets its own exposure: a second row, hair, a product's face. The ambient falls on it as on
    /// the lit side.
    Part,
}

/// A kind of light where there is no daylight.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum TypicalLight {
    /// A home in the evening.
    Home,
    /// An office or a workshop.
    Workplace,
    /// A hall for sports.
    SportsHall,
    /// A stage.
    Stage,
    /// Before lit shop fronts.
    ShopFronts,
    /// A floodlit building.
    FloodlitBuilding,
    /// A street under lamps.
    Street,
    /// Candles near the face.
    Candles,
}

fn fifty() -> f64 {
    50.0
}
