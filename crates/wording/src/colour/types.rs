//! The colour of a plan as it is sent.

use serde::Serialize;
use utoipa::ToSchema;

use crate::shown::Fact;

/// What a plan says of colour.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct ColourPlan {
    /// The camera's white balance.
    pub balance: BalanceSaid,
    /// The lights on the colour line.
    pub marks: Vec<ColourMark>,
    /// What a grey comes out as, all along the colour line.
    pub strip: Vec<StripGrey>,
    /// What becomes of each region.
    pub regions: Vec<RegionColour>,
    /// What the automatic setting would have done: a grey-world estimate, line by line.
    pub automatic: Vec<Fact>,
}

/// The camera's white balance.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct BalanceSaid {
    /// As the camera says it: `5600 K`, `Shade`, `Measured`.
    pub label: String,
    /// What it stands for: `5600 K`.
    pub kelvin_label: String,
    /// The same without its unit, for a field that has it in its name: `5600`.
    pub kelvin_number: String,
    /// The tint in such a field: `−0.0012`.
    pub tint_number: String,
    /// In kelvin.
    pub kelvin: f64,
    /// In mired.
    pub mired: f64,
    /// Against the usual white of that temperature, in Duv.
    pub tint_duv: f64,
    /// The convention.
    pub convention: String,
    /// What it does, in a sentence.
    pub says: String,
    /// What a person who halves kelvin instead of mired would have set; null where it makes no difference.
    pub by_kelvin: Option<String>,
}

/// A grey under a light on the colour line, as it comes out under the balance.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct StripGrey {
    /// Where the light stands, in mired.
    pub mired: f64,
    /// In sRGB: `#d3c9b8`.
    pub hex: String,
}

/// What a mark on the colour line stands for.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum MarkKind {
    /// The light that is there, on a region.
    Ambient,
    /// A lamp that burns on.
    Lamp,
    /// A flash.
    Flash,
}

/// A light on the colour line.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct ColourMark {
    /// The region's or the light's id.
    pub id: String,
    /// What it stands for.
    pub kind: MarkKind,
    /// What it is called.
    pub name: String,
    /// What it rests on: `estimate from sun and sky`, `Warm half`.
    pub source: String,
    /// `3070 K`.
    pub label: String,
    /// Where it stands, in mired.
    pub mired: f64,
    /// How green it is, in Duv; negative is magenta.
    pub tint_duv: f64,
    /// The tint in words; null where none is seen.
    pub tint: Option<String>,
    /// Where it stood without gels, in mired; null where it has none.
    pub native_mired: Option<f64>,
    /// The gels over it, each with where it brings the light.
    pub steps: Vec<GelStep>,
}

/// A gel on the colour line.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct GelStep {
    /// The gel.
    pub name: String,
    /// Where it brings the light, in mired.
    pub mired: f64,
    /// What it shifts by: `+109 mired`.
    pub shift: String,
}

/// What becomes of a region's colour.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct RegionColour {
    /// The region.
    pub region_id: String,
    /// What it is called.
    pub name: String,
    /// The light on it, all together: `4100 K, slightly magenta`.
    pub light: String,
    /// Whose light it is: `flash A 75 %, ambient 25 %`.
    pub shares: String,
    /// The cast in words: `strongly warm`.
    pub words: String,
    /// The cast against the balance: `+34 mired`.
    pub cast: String,
    /// The same as a number; warmer is positive.
    pub cast_mired: f64,
    /// The tint against the balance, in Duv; greener is positive.
    pub cast_duv: f64,
    /// How far a grey comes out from grey, Δu′v′: `0.021`.
    pub off_grey: String,
    /// The same as a number.
    pub off_grey_uv: f64,
    /// A grey, a white shirt and skins, as they come out.
    pub swatches: Vec<Swatch>,
}

/// A colour to paint.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct Swatch {
    /// What it is of: `White shirt`.
    pub name: String,
    /// In sRGB, `#d3c9b8`; what a screen cannot show is held at its end.
    pub hex: String,
    /// Whether a screen shows it as it is.
    pub shown_true: bool,
}
