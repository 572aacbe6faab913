//! The wish: how bright each region is to be, and how much of it from flash.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// How flash and the light that is there go together. All stops are from mid grey unless they say otherwise.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case", rename_all_fields = "snake_case", deny_unknown_fields)]
pub enum Blend {
    /// The ambient is placed, and the flash fills it from so many stops under.
    Fill {
        /// Where the ambient puts the lit side.
        #[schema(minimum = -6, maximum = 3)]
        ambient_stops: f64,
        /// The flash against the ambient: 0 for contrasty light, −2 for flat light (common practice, no source).
        #[schema(minimum = -5, maximum = 2)]
        fill_stops: f64,
    },
    /// Ambient and flash give the lit side the same, each a stop under the whole.
    HalfAndHalf {
        /// Where the two together put the lit side.
        #[schema(minimum = -6, maximum = 3)]
        subject_stops: f64,
    },
    /// The camera is set for what lies behind, and the flash lifts the subject to its place.
    Lift {
        /// Where the lit side is to be.
        #[schema(minimum = -6, maximum = 3)]
        subject_stops: f64,
        /// Where what lies behind is to be.
        #[schema(minimum = -6, maximum = 3)]
        behind_stops: f64,
    },
    /// The ambient on the subject is held well under, and the flash is the key.
    Overpower {
        /// Where the lit side is to be.
        #[schema(minimum = -6, maximum = 3)]
        subject_stops: f64,
        /// Where the ambient alone puts the lit side.
        #[schema(minimum = -8, maximum = 0)]
        ambient_stops: f64,
    },
    /// What lies behind is placed, and the subject goes dark against it: no flash.
    Silhouette {
        /// Where what lies behind is to be.
        #[schema(minimum = -6, maximum = 3)]
        behind_stops: f64,
    },
    /// No flash: the ambient puts the lit side in its place.
    AmbientOnly {
        /// Where the lit side is to be.
        #[schema(minimum = -6, maximum = 3)]
        subject_stops: f64,
    },
}

/// One number of a blend.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, ToSchema)]
pub struct BlendField {
    /// Its name in the format.
    pub field: &'static str,
    /// What it is called.
    pub name: &'static str,
    /// Its value, in stops.
    pub value: f64,
    /// The least it may be.
    pub least: f64,
    /// The most it may be.
    pub most: f64,
}

impl Blend {
    /// Each blend as it is first offered.
    pub const OFFERED: [Self; 6] = [
        Self::Lift { subject_stops: 0.0, behind_stops: -1.0 },
        Self::Fill { ambient_stops: 0.0, fill_stops: -2.0 },
        Self::HalfAndHalf { subject_stops: 0.0 },
        Self::Overpower { subject_stops: 0.0, ambient_stops: -3.0 },
        Self::Silhouette { behind_stops: 0.0 },
        Self::AmbientOnly { subject_stops: 0.0 },
    ];

    /// What it is called.
    pub fn name(self) -> &'static str {
        match self {
            Self::Fill { .. } => "Fill",
            Self::HalfAndHalf { .. } => "Half and half",
            Self::Lift { .. } => "Lift",
            Self::Overpower { .. } => "Overpower",
            Self::Silhouette { .. } => "Silhouette",
            Self::AmbientOnly { .. } => "Ambient only",
        }
    }

    /// What it does, in a sentence.
    pub fn meaning(self) -> &'static str {
        match self {
            Self::Fill { .. } => "The light that is there makes the picture; the flash opens its shadows.",
            Self::HalfAndHalf { .. } => "Flash and ambient share the subject evenly, so that it looks unlit.",
            Self::Lift { .. } => "What lies behind gets its place, and the flash lifts the subject to its own.",
            Self::Overpower { .. } => "The ambient goes well under, and the flash is the key.",
            Self::Silhouette { .. } => "What lies behind is right, and the subject goes dark against it. No flash.",
            Self::AmbientOnly { .. } => "The light that is there, placed well. No flash.",
        }
    }

    /// Whether the flash has a part in it.
    pub fn uses_flash(self) -> bool {
        !matches!(self, Self::Silhouette { .. } | Self::AmbientOnly { .. })
    }

    /// Its name in the format.
    pub fn kind(self) -> &'static str {
        match self {
            Self::Fill { .. } => "fill",
            Self::HalfAndHalf { .. } => "half_and_half",
            Self::Lift { .. } => "lift",
            Self::Overpower { .. } => "overpower",
            Self::Silhouette { .. } => "silhouette",
            Self::AmbientOnly { .. } => "ambient_only",
        }
    }

    /// Its numbers, with what each is called and its range.
    pub fn fields(self) -> Vec<BlendField> {
        let field = |field, name, value, least, most| BlendField { field, name, value, least, most };
        let subject = |value| field("subject_stops", "Subject", value, -6.0, 3.0);
        let behind = |value| field("behind_stops", "Behind", value, -6.0, 3.0);
        match self {
            Self::Fill { ambient_stops, fill_stops } => vec![
                field("ambient_stops", "Ambient on the subject", ambient_stops, -6.0, 3.0),
                field("fill_stops", "Flash against the ambient", fill_stops, -5.0, 2.0),
            ],
            Self::HalfAndHalf { subject_stops } | Self::AmbientOnly { subject_stops } => vec![subject(subject_stops)],
            Self::Lift { subject_stops, behind_stops } => vec![subject(subject_stops), behind(behind_stops)],
            Self::Overpower { subject_stops, ambient_stops } => {
                vec![subject(subject_stops), field("ambient_stops", "Ambient on the subject", ambient_stops, -8.0, 0.0)]
            }
            Self::Silhouette { behind_stops } => vec![behind(behind_stops)],
        }
    }

    /// The same blend with every number held within its range.
    pub(crate) fn clamped(self) -> Self {
        let place = |stops: f64| stops.clamp(-6.0, 3.0);
        match self {
            Self::Fill { ambient_stops, fill_stops } => {
                Self::Fill { ambient_stops: place(ambient_stops), fill_stops: fill_stops.clamp(-5.0, 2.0) }
            }
            Self::HalfAndHalf { subject_stops } => Self::HalfAndHalf { subject_stops: place(subject_stops) },
            Self::Lift { subject_stops, behind_stops } => {
                Self::Lift { subject_stops: place(subject_stops), behind_stops: place(behind_stops) }
            }
            Self::Overpower { subject_stops, ambient_stops } => {
                Self::Overpower { subject_stops: place(subject_stops), ambient_stops: ambient_stops.clamp(-8.0, 0.0) }
            }
            Self::Silhouette { behind_stops } => Self::Silhouette { behind_stops: place(behind_stops) },
            Self::AmbientOnly { subject_stops } => Self::AmbientOnly { subject_stops: place(subject_stops) },
        }
    }
}
