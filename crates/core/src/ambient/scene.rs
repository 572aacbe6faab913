//! Where and when a setup is shot: the place, the hour, what stands in the way, the weather and the surroundings.

use super::TypicalLight;
use crate::time::LocalTime;

/// Place, hour and what they do to the light.
#[derive(Clone, Debug, PartialEq)]
pub struct Scene {
    /// The place.
    pub site: Site,
    /// The day and the hour there.
    pub at: LocalTime,
    /// The bearing the subject faces, in degrees clockwise from true north. The camera looks the other way.
    pub facing_deg: f64,
    /// What stands in the way of the sun.
    pub horizon: Vec<Obstacle>,
    /// The cloud.
    pub weather: Weather,
    /// What is around the subject.
    pub surroundings: Surroundings,
    /// What lies behind it.
    pub background: Background,
}

/// A place on the ground.
#[derive(Clone, Debug, PartialEq)]
pub struct Site {
    /// What it is called. May be empty.
    pub name: String,
    /// North is positive.
    pub latitude_deg: f64,
    /// East is positive.
    pub longitude_deg: f64,
    /// Over the sea, in metres.
    pub elevation_m: f64,
    /// Its time zone by its IANA name: `Europe/Helsinki`.
    pub time_zone: String,
}

/// Something that stands in the way of the sun: a range of bearings, up to a height.
#[derive(Clone, Debug, PartialEq)]
pub struct Obstacle {
    /// What it is. May be empty.
    pub name: String,
    /// The bearing it begins at, clockwise from true north.
    pub from_deg: f64,
    /// The bearing it ends at, clockwise from there; it may pass north.
    pub to_deg: f64,
    /// How high it stands.
    pub height: ObstacleHeight,
}

/// How high something stands, seen from the subject.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum ObstacleHeight {
    /// As an angle.
    Angle(AngleHeight),
    /// As a size and a distance.
    Size(SizeHeight),
}

/// An angle over the horizon.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct AngleHeight {
    /// In degrees.
    pub altitude_deg: f64,
}

/// So high, so far away.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct SizeHeight {
    /// How high it stands over the subject's face, in metres.
    pub height_m: f64,
    /// How far away it is, in metres.
    pub distance_m: f64,
}

impl ObstacleHeight {
    /// The angle over the horizon, in degrees: atan(height / distance).
    pub fn altitude_deg(self) -> f64 {
        match self {
            Self::Angle(angle) => angle.altitude_deg,
            Self::Size(size) => (size.height_m / size.distance_m).atan().to_degrees(),
        }
    }
}

/// The cloud over the day.
#[derive(Clone, Debug, PartialEq)]
pub enum Weather {
    /// The same all day, by hand.
    Steady(SteadyCloud),
    /// Hour by hour.
    Forecast(ForecastCloud),
}

impl Weather {
    /// Whether it is made up by a stand-in.
    pub fn is_simulated(&self) -> bool {
        matches!(self, Self::Forecast(forecast) if forecast.simulated)
    }
}

/// One amount of cloud.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct SteadyCloud {
    /// Eighths of the sky: 0 clear, 8 overcast.
    pub cloud_eighths: f64,
}

/// Cloud hour by hour, as a forecast gave it.
#[derive(Clone, Debug, PartialEq)]
pub struct ForecastCloud {
    /// Who says so.
    pub source: String,
    /// Whether it is made up by a stand-in and no real forecast.
    pub simulated: bool,
    /// The hours, in order; between them the cloud changes evenly.
    pub hours: Vec<CloudHour>,
}

/// The cloud at an hour.
#[derive(Clone, Debug, PartialEq)]
pub struct CloudHour {
    /// In UTC: `2026-08-29T16:00:00Z`.
    pub utc: String,
    /// Eighths of the sky.
    pub cloud_eighths: f64,
}

/// What is around the subject.
#[derive(Clone, Copy, Debug, PartialEq)]
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
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct OpenShade {
    /// How much of the sky overhead is seen, in percent.
    pub sky_percent: f64,
}

/// Lamps.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Artificial {
    /// What kind of light.
    pub light: TypicalLight,
    /// The mains frequency there: 50 or 60.
    pub mains_hz: f64,
}

/// What lies behind the subject, as the camera sees it.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Background {
    /// What it is.
    pub what: BackgroundKind,
    /// How much of the frame behind the subject is sunlit when the sun is out, in percent.
    pub sunlit_percent: f64,
}

/// What lies behind the subject.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum BackgroundKind {
    /// Things that stand: houses, trees, people.
    Upright,
    /// The ground or the floor, running back.
    Ground,
    /// Sky low over the horizon.
    Sky,
}

/// What part a region has in the picture.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
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

impl Role {
    /// All of them.
    pub const ALL: [Self; 4] = [Self::Background, Self::LitSide, Self::ShadowSide, Self::Part];
}

impl Scene {
    /// A scene at a place and an hour, with sensible values: clear sky, open ground, the subject facing south.
    pub fn new(site: Site, at: LocalTime) -> Self {
        Self {
            site,
            at,
            facing_deg: 180.0,
            horizon: Vec::new(),
            weather: Weather::Steady(SteadyCloud { cloud_eighths: 0.0 }),
            surroundings: Surroundings::OpenGround,
            background: Background { what: BackgroundKind::Upright, sunlit_percent: 100.0 },
        }
    }
}
