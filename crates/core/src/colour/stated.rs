//! What somebody said of a light's colour, in any of the forms it is known in.

use super::grey_patch::{NoPatch, light_on_grey};
use super::illuminant::Illuminant;
use super::mired::Kelvin;
use super::named::NamedLight;

/// The colour of the light that is there.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub enum StatedColour {
    /// From place, hour, weather and shade; midday sun where they are not known.
    #[default]
    FromPlace,
    /// A typical light.
    Named(NamedLight),
    /// By hand.
    Kelvin {
        /// 1000 to 40 000 K.
        kelvin: f64,
        /// Against the usual white of that temperature, in Duv: positive is green. −0.05 to 0.05.
        tint_duv: f64,
    },
    /// What a colour meter said.
    Meter {
        /// 1000 to 40 000 K.
        kelvin: f64,
        /// From the black body's locus, as meters give it. −0.05 to 0.05.
        duv: f64,
    },
    /// A grey patch in a frame.
    GreyPatch {
        /// 8-bit sRGB, 0 to 255.
        red: f64,
        /// 8-bit sRGB, 0 to 255.
        green: f64,
        /// 8-bit sRGB, 0 to 255.
        blue: f64,
        /// The white balance it was taken at, 1000 to 40 000 K.
        kelvin: f64,
        /// The tint that stood on the camera, in Duv. −0.05 to 0.05.
        tint_duv: f64,
    },
}

impl StatedColour {
    /// The light, where it does not depend on place and hour.
    ///
    /// # Errors
    /// A grey patch that says nothing.
    pub fn light(self) -> Result<Option<Illuminant>, NoPatch> {
        Ok(match self {
            Self::FromPlace => None,
            Self::Named(named) => Some(named.light()),
            Self::Kelvin { kelvin, tint_duv } => Some(Illuminant::new(Kelvin(kelvin), tint_duv)),
            Self::Meter { kelvin, duv } => Some(Illuminant::metered(Kelvin(kelvin), duv)),
            Self::GreyPatch { red, green, blue, kelvin, tint_duv } => {
                Some(light_on_grey([red, green, blue], Kelvin(kelvin), tint_duv)?)
            }
        })
    }
}
