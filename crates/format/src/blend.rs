//! The wish: how bright each region is to be, and how much of it from flash.

use serde::{Deserialize, Serialize};
use tolva_format_derive::Ranged;
use utoipa::ToSchema;

/// How flash and the light that is there go together. All stops are from mid grey unless they say otherwise.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case", rename_all_fields = "snake_case", deny_unknown_fields)]
pub enum Blend {
    /// The ambient is placed, and the flash fills it from so many stops under.
    Fill {
        /// Where the ambient puts the lit side.
        #[schema(minimum = -6, maximum = 3, extensions(("x-step" = json!(1.0 / 3.0))))]
        ambient_stops: f64,
        /// The flash against the ambient: 0 for contrasty light, −2 for flat light (common practice, no source).
        #[schema(minimum = -5, maximum = 2, extensions(("x-step" = json!(1.0 / 3.0))))]
        fill_stops: f64,
    },
    /// Ambient and flash give the lit side the same, each a stop under the whole.
    HalfAndHalf {
        /// Where the two together put the lit side.
        #[schema(minimum = -6, maximum = 3, extensions(("x-step" = json!(1.0 / 3.0))))]
        subject_stops: f64,
    },
    /// The camera is set for what lies behind, and the flash lifts the subject to its place.
    Lift {
        /// Where the lit side is to be.
        #[schema(minimum = -6, maximum = 3, extensions(("x-step" = json!(1.0 / 3.0))))]
        subject_stops: f64,
        /// Where what lies behind is to be.
        #[schema(minimum = -6, maximum = 3, extensions(("x-step" = json!(1.0 / 3.0))))]
        background_stops: f64,
    },
    /// The ambient on the subject is held well under, and the flash is the key.
    Overpower {
        /// Where the lit side is to be.
        #[schema(minimum = -6, maximum = 3, extensions(("x-step" = json!(1.0 / 3.0))))]
        subject_stops: f64,
        /// Where the ambient alone puts the lit side.
        #[schema(minimum = -8, maximum = 0, extensions(("x-step" = json!(1.0 / 3.0))))]
        ambient_stops: f64,
    },
    /// What lies behind is placed, and the subject goes dark against it: no flash.
    Silhouette {
        /// Where what lies behind is to be.
        #[schema(minimum = -6, maximum = 3, extensions(("x-step" = json!(1.0 / 3.0))))]
        background_stops: f64,
    },
    /// No flash: the ambient puts the lit side in its place.
    AmbientOnly {
        /// Where the lit side is to be.
        #[schema(minimum = -6, maximum = 3, extensions(("x-step" = json!(1.0 / 3.0))))]
        subject_stops: f64,
    },
}
