//! The wish: how bright each region is to be, and how much of it from flash.

use super::LightWish;

/// How flash and the light that is there go together. All stops are from mid grey unless they say otherwise.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum Blend {
    /// The ambient is placed, and the flash fills it from so many stops under.
    Fill {
        /// Where the ambient puts the lit side.
        ambient_stops: f64,
        /// The flash against the ambient: 0 for contrasty light, −2 for flat light (common practice, no source).
        fill_stops: f64,
    },
    /// Ambient and flash give the lit side the same, each a stop under the whole.
    HalfAndHalf {
        /// Where the two together put the lit side.
        subject_stops: f64,
    },
    /// The camera is set for what lies behind, and the flash lifts the subject to its place.
    Lift {
        /// Where the lit side is to be.
        subject_stops: f64,
        /// Where what lies behind is to be.
        background_stops: f64,
    },
    /// The ambient on the subject is held well under, and the flash is the key.
    Overpower {
        /// Where the lit side is to be.
        subject_stops: f64,
        /// Where the ambient alone puts the lit side.
        ambient_stops: f64,
    },
    /// What lies behind is placed, and the subject goes dark against it: no flash.
    Silhouette {
        /// Where what lies behind is to be.
        background_stops: f64,
    },
    /// No flash: the ambient puts the lit side in its place.
    AmbientOnly {
        /// Where the lit side is to be.
        subject_stops: f64,
    },
}

/// One number of a blend.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct BlendNumber {
    /// What it is: `subject_stops`.
    pub field: &'static str,
    /// Its value, in stops.
    pub value: f64,
    /// The least it may be.
    pub least: f64,
    /// The most it may be.
    pub most: f64,
}

/// The lowest a blend puts a region, in stops: what is darker there is as dark as it comes.
pub const LOWEST_PLACE: f64 = -6.0;

impl Blend {
    /// Each blend as it is first offered.
    pub const OFFERED: [Self; 6] = [
        Self::Lift { subject_stops: 0.0, background_stops: -1.0 },
        Self::Fill { ambient_stops: 0.0, fill_stops: -2.0 },
        Self::HalfAndHalf { subject_stops: 0.0 },
        Self::Overpower { subject_stops: 0.0, ambient_stops: -3.0 },
        Self::Silhouette { background_stops: 0.0 },
        Self::AmbientOnly { subject_stops: 0.0 },
    ];

    /// Whether flash has a part in it on the subject.
    pub fn uses_flash(self) -> bool {
        !matches!(self, Self::Silhouette { .. } | Self::AmbientOnly { .. })
    }

    /// Whether a light with a role fires. In a silhouette the key and the fill stay off; a rim, or a light that puts some
    /// other region in its place, does not.
    pub fn fires(self, role: LightWish) -> bool {
        match self {
            Self::AmbientOnly { .. } => false,
            Self::Silhouette { .. } => matches!(role, LightWish::Rim { .. } | LightWish::Place { .. }),
            _ => true,
        }
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

    /// Its numbers, each with its range.
    pub fn numbers(self) -> Vec<BlendNumber> {
        let number = |field, value, least, most| BlendNumber { field, value, least, most };
        let subject = |value| number("subject_stops", value, LOWEST_PLACE, 3.0);
        let background = |value| number("background_stops", value, LOWEST_PLACE, 3.0);
        match self {
            Self::Fill { ambient_stops, fill_stops } => {
                vec![number("ambient_stops", ambient_stops, -6.0, 3.0), number("fill_stops", fill_stops, -5.0, 2.0)]
            }
            Self::HalfAndHalf { subject_stops } | Self::AmbientOnly { subject_stops } => vec![subject(subject_stops)],
            Self::Lift { subject_stops, background_stops } => {
                vec![subject(subject_stops), background(background_stops)]
            }
            Self::Overpower { subject_stops, ambient_stops } => {
                vec![subject(subject_stops), number("ambient_stops", ambient_stops, -8.0, 0.0)]
            }
            Self::Silhouette { background_stops } => vec![background(background_stops)],
        }
    }

    /// The same blend with every number held within its range.
    #[must_use]
    pub fn clamped(self) -> Self {
        let place = |stops: f64| stops.clamp(LOWEST_PLACE, 3.0);
        match self {
            Self::Fill { ambient_stops, fill_stops } => {
                Self::Fill { ambient_stops: place(ambient_stops), fill_stops: fill_stops.clamp(-5.0, 2.0) }
            }
            Self::HalfAndHalf { subject_stops } => Self::HalfAndHalf { subject_stops: place(subject_stops) },
            Self::Lift { subject_stops, background_stops } => {
                Self::Lift { subject_stops: place(subject_stops), background_stops: place(background_stops) }
            }
            Self::Overpower { subject_stops, ambient_stops } => {
                Self::Overpower { subject_stops: place(subject_stops), ambient_stops: ambient_stops.clamp(-8.0, 0.0) }
            }
            Self::Silhouette { background_stops } => Self::Silhouette { background_stops: place(background_stops) },
            Self::AmbientOnly { subject_stops } => Self::AmbientOnly { subject_stops: place(subject_stops) },
        }
    }
}
