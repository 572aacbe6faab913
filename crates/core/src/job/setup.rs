//! A setup: one lighting arrangement for one kind of picture.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::{Blend, Kit, Scene};
use crate::blend::FallingOrder;
use crate::exposure::Ambient;

/// One lighting arrangement.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Setup {
    /// Unique in the job.
    #[schema(min_length = 1, max_length = 60)]
    pub id: String,
    /// What it is called.
    #[schema(min_length = 1, max_length = 120)]
    pub name: String,
    /// Anything else. May be empty.
    #[serde(default)]
    #[schema(max_length = 4000)]
    pub notes: String,
    /// Where and when; left out while nobody has said it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub scene: Option<Scene>,
    /// The parts of the picture that get their own exposure. One at least is behind, one the lit side.
    #[schema(min_items = 2, max_items = 12)]
    pub regions: Vec<Region>,
    /// The wish.
    pub blend: Blend,
    /// The camera, from the kit.
    pub camera_id: String,
    /// What is fixed on the camera; the rest is Tolva's to choose.
    #[serde(default)]
    pub fixed: Fixed,
    /// Density of the neutral filter on the lens, in stops: 0 without one.
    #[serde(default)]
    #[schema(minimum = 0, maximum = 15)]
    pub filter_stops: f64,
    /// The slowest shutter time that may be chosen, in seconds: hand-held, or for a subject that moves.
    #[schema(minimum = 0.000_01, maximum = 3600)]
    pub slowest_shutter_s: f64,
    /// What gives way first as the light falls.
    #[serde(default)]
    pub falling_order: FallingOrder,
    /// The flashes. One for now.
    #[schema(max_items = 1)]
    pub lights: Vec<Light>,
}

/// What part a region has in the picture.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Role {
    /// What lies behind the subject.
    Behind,
    /// The side of the subject the ambient lights more.
    LitSide,
    /// The side it lights less.
    ShadowSide,
}

/// A part of the picture with its own exposure.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Region {
    /// Unique in the setup.
    #[schema(min_length = 1, max_length = 60)]
    pub id: String,
    /// What it is called on the rail.
    #[schema(min_length = 1, max_length = 120)]
    pub name: String,
    /// Its part in the picture.
    pub role: Role,
    /// The light that is there.
    pub ambient: Ambient,
}

/// What the photographer has fixed on the camera. What is missing is left to Tolva.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Fixed {
    /// In seconds.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.000_01, maximum = 3600)]
    pub shutter_s: Option<f64>,
    /// The f-number.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.7, maximum = 128)]
    pub f_number: Option<f64>,
    /// ISO.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 3, maximum = 10_000_000)]
    pub iso: Option<f64>,
}

/// How a flash is controlled.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Control {
    /// Power set by hand.
    #[default]
    Manual,
    /// The camera meters the flash; the compensation is set by hand.
    Automatic,
}

/// One flash of a setup.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Light {
    /// The letter it is called by, unique in the setup.
    #[schema(min_length = 1, max_length = 60)]
    pub id: String,
    /// The unit, from the kit.
    pub flash_id: String,
    /// What is on it, from the kit; none for the bare head.
    #[serde(default)]
    pub modifier_id: Option<String>,
    /// Manual or automatic.
    #[serde(default)]
    pub control: Control,
    /// From its surface to the subject, in metres; left out, Tolva chooses.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.1, maximum = 50)]
    pub distance_m: Option<f64>,
    /// Fixed power in stops under full; left out, Tolva chooses.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = -12, maximum = 0)]
    pub power_stops: Option<f64>,
    /// What it gives other regions than the lit side, which it is aimed at. A region that is not named gets nothing.
    #[serde(default)]
    #[schema(max_items = 12)]
    pub reaches: Vec<Reach>,
}

/// What a flash gives a region it is not aimed at.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Reach {
    /// The region.
    pub region_id: String,
    /// Against what the lit side gets, in stops: 0 where it gets as much, −2 where it gets a quarter. An estimate
    /// until it is measured.
    #[schema(minimum = -12, maximum = 4)]
    pub stops: f64,
}

impl Setup {
    /// A new setup with sensible values: estimated bright cloud, a lift, the kit's first camera, its middle flash and
    /// its first modifier at 1.5 m.
    pub fn new(id: &str, kit: &Kit) -> Self {
        let estimated = |id: &str, name: &str, role, ev100| Region {
            id: id.to_owned(),
            name: name.to_owned(),
            role,
            ambient: Ambient::guessed(ev100),
        };
        let light = kit.flashes.get(kit.flashes.len() / 2).map(|flash| Light {
            id: "A".to_owned(),
            flash_id: flash.id.clone(),
            modifier_id: kit.modifiers.first().map(|modifier| modifier.id.clone()),
            control: Control::Manual,
            distance_m: Some(1.5),
            power_stops: None,
            reaches: vec![Reach { region_id: "shadow".to_owned(), stops: -2.0 }],
        });
        Self {
            id: id.to_owned(),
            name: "New setup".to_owned(),
            notes: String::new(),
            scene: None,
            regions: vec![
                estimated("behind", "Behind", Role::Behind, 13.0),
                estimated("lit", "Face, lit side", Role::LitSide, 12.0),
                estimated("shadow", "Face, shadow side", Role::ShadowSide, 11.0),
            ],
            blend: Blend::OFFERED[0],
            camera_id: kit.cameras.first().map_or_else(String::new, |camera| camera.id.clone()),
            fixed: Fixed::default(),
            filter_stops: 0.0,
            slowest_shutter_s: 1.0 / 60.0,
            falling_order: FallingOrder::default(),
            lights: light.into_iter().collect(),
        }
    }
}
