//! Readings, and how they were taken.

use serde::{Deserialize, Serialize};
use tolva_format_derive::Ranged;
use utoipa::ToSchema;

use super::StatedColour;
use crate::scene::LocalTime;

/// How a reading was taken.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum MeteringMethod {
    /// It was not said.
    #[default]
    Unsaid,
    /// An incident meter with its dome.
    IncidentDome,
    /// An incident meter with a flat receptor.
    IncidentFlat,
    /// A luxmeter.
    Luxmeter,
    /// A spot off a grey card.
    SpotGrey,
    /// A spot off something white.
    SpotWhite,
    /// A spot off one's own palm.
    SpotPalm,
    /// A spot off pale skin.
    SpotSkinPale,
    /// A spot off skin of medium depth.
    SpotSkinMedium,
    /// A spot off dark skin.
    SpotSkinDark,
    /// What the camera says.
    Camera,
}

/// What an incident meter collects its light with.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum IncidentReceptor {
    /// A flat disc, or a luxmeter: C = 250.
    #[default]
    Flat,
    /// A dome: C about 330.
    Dome,
}

/// The light that is there in one region, flash off.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Ambient {
    /// What is assumed where nothing was read and no place and hour say more: an EV at ISO 100, −10 to 24.
    #[schema(minimum = -10, maximum = 24)]
    pub guess_ev100: f64,
    /// The readings taken, in order: the last one counts.
    #[serde(default)]
    #[schema(max_items = 60)]
    pub readings: Vec<MeterReading>,
    /// Its colour.
    #[serde(default)]
    pub colour: StatedColour,
    /// Film on the window it comes through, from the kit's gels: readings are taken to be from before it was put up. At
    /// most 4.
    #[serde(default)]
    #[schema(max_items = 4)]
    pub film_ids: Vec<String>,
}

/// One reading, and how, where and when it was taken.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MeterReading {
    /// What was read.
    pub reading: Reading,
    /// How.
    #[serde(default)]
    pub method: MeteringMethod,
    /// How many stops brighter than mid grey the surface was that the reading was taken off: 0 for an incident
    /// reading or a grey card, about 2.3 for white cloth, about 1 for pale skin (common practice, no source). −6 to 4.
    #[serde(default)]
    #[schema(minimum = -6, maximum = 4, default = 0, extensions(("x-step" = json!(1.0 / 3.0))))]
    pub surface_stops: f64,
    /// When, by the clocks of the place; left out where nobody noted it, and then the light is taken not to change.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub at: Option<LocalTime>,
    /// Where, in words. May be empty.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    #[schema(max_length = 120)]
    pub place: String,
    /// With which meter of the kit; left out where that was not said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(min_length = 1, max_length = 60)]
    pub meter_id: Option<String>,
    /// Whether a stand-in made it up and no meter took it.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub simulated: bool,
}

/// One reading, in the form it was taken in.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Reading {
    /// An exposure value at ISO 100.
    Ev(EvReading),
    /// Illuminance.
    Lux(LuxReading),
    /// The settings a meter or camera gave.
    Camera(CameraReading),
}

/// An exposure value.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct EvReading {
    /// At ISO 100, −10 to 24.
    #[schema(minimum = -10, maximum = 24, extensions(("x-step" = json!(1.0 / 3.0))))]
    pub ev100: f64,
}

/// An illuminance.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LuxReading {
    /// In lux, 0.001 to 200 000.
    #[schema(minimum = 0.001, maximum = 200_000)]
    pub illuminance_lux: f64,
    /// What collected the light.
    #[serde(default)]
    pub receptor: IncidentReceptor,
}

/// What a meter or camera said: three dial settings, nominal or exact.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CameraReading {
    /// In seconds; 1/250 is 0.004.
    #[schema(minimum = 0.000_01, maximum = 3600)]
    pub shutter_s: f64,
    /// The f-number.
    #[schema(minimum = 0.7, maximum = 128)]
    pub f_number: f64,
    /// ISO.
    #[schema(minimum = 3, maximum = 10_000_000)]
    pub iso: f64,
    /// The exposure compensation that stood on the camera, in stops: at +1 its meter found a stop more light than these
    /// settings are right for.
    #[serde(default, skip_serializing_if = "is_zero")]
    #[schema(minimum = -6, maximum = 6, default = 0, extensions(("x-step" = json!(1.0 / 3.0))))]
    pub compensation_stops: f64,
}

#[expect(clippy::trivially_copy_pass_by_ref, reason = "as serde asks for it")]
fn is_zero(stops: &f64) -> bool {
    *stops == 0.0
}
