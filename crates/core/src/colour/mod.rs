//! Colour: temperature and tint of lights, gels, white balance, and what a camera makes of greys and skins.
//!
//! A light is known by its temperature in kelvin and its tint in Duv from the usual white of that temperature: daylight
//! from 4000 K, a black body below. Gels shift in mired. A camera's balance is Bradford adaptation from its white to D65.

mod chromaticity;
mod gels;
mod grey_patch;
mod illuminant;
mod locus;
mod mired;
mod named;
mod render;
mod samples;
mod stated;
mod step_wedge;
mod sun_and_sky;
mod tables;
mod temperature;
mod white_balance;

pub use chromaticity::{Xy, Xyz};
pub use gels::{GelMatch, OfferedGel, nearest_gels};
pub use grey_patch::{NoPatch, light_on_grey};
pub use illuminant::{Illuminant, KELVIN, LightShare, Shift, TINT};
pub use locus::{DAYLIGHT_FROM, DAYLIGHT_TO, black_body, camera_white, daylight_xy, white};
pub use mired::{Kelvin, Mired};
pub use named::NamedLight;
pub use render::{Balanced, LinearRgb, Painted};
pub use samples::Sample;
pub use stated::StatedColour;
pub use step_wedge::{FULL_WHITE, step_wedge};
pub use sun_and_sky::{skylight, sunlight};
pub use temperature::Temperature;
pub use white_balance::{BalanceReason, COOL, FIXED, NIGHT, Preset, WARM, WhiteBalance};
