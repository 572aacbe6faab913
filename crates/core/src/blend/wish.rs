//! What a blend asks of the camera and of the flash.

use crate::exposure::Ev;
use crate::job::{Blend, CheckedSetup};
use crate::scale::Stops;

/// What is asked of the flash on the lit side.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) enum FlashWish {
    /// The blend is without flash.
    Unused,
    /// The flash is to give so much by itself.
    Wanted(Stops),
    /// The ambient alone is already at the wish or over it, by so much: no flash helps.
    AmbientOver(Stops),
}

impl Blend {
    /// The region the camera is set for, and where the ambient is to put it.
    pub(super) fn ambient_place(self, setup: &CheckedSetup<'_>) -> (usize, Stops) {
        match self {
            Self::Lift { behind_stops, .. } | Self::Silhouette { behind_stops } => (setup.behind, Stops(behind_stops)),
            Self::Fill { ambient_stops, .. } | Self::Overpower { ambient_stops, .. } => {
                (setup.lit, Stops(ambient_stops))
            }
            // Each gives half of the light: a stop under the whole.
            Self::HalfAndHalf { subject_stops } => (setup.lit, Stops(subject_stops - 1.0)),
            Self::AmbientOnly { subject_stops } => (setup.lit, Stops(subject_stops)),
        }
    }

    /// The exposure value the camera and its filter are to be right for.
    pub(super) fn camera_ev(self, setup: &CheckedSetup<'_>) -> Ev {
        let (region, place) = self.ambient_place(setup);
        setup.ambient[region] - place
    }

    /// What the flash is to give the lit side where the ambient has put it at `ambient`.
    pub(super) fn flash_wish(self, ambient: Stops) -> FlashWish {
        let completes = |subject: f64| match ambient.missing_to(Stops(subject)) {
            Some(flash) => FlashWish::Wanted(flash),
            None => FlashWish::AmbientOver(ambient - Stops(subject)),
        };
        match self {
            Self::Fill { fill_stops, .. } => FlashWish::Wanted(ambient + Stops(fill_stops)),
            Self::HalfAndHalf { subject_stops }
            | Self::Lift { subject_stops, .. }
            | Self::Overpower { subject_stops, .. } => completes(subject_stops),
            Self::Silhouette { .. } | Self::AmbientOnly { .. } => FlashWish::Unused,
        }
    }

    /// Where a region is wished to end, where the blend says so.
    pub(super) fn region_wish(self, setup: &CheckedSetup<'_>, region: usize) -> Option<Stops> {
        let is = |one: usize| region == one;
        match self {
            Self::Lift { behind_stops, .. } | Self::Silhouette { behind_stops } if is(setup.behind) => {
                Some(Stops(behind_stops))
            }
            Self::HalfAndHalf { subject_stops }
            | Self::Lift { subject_stops, .. }
            | Self::Overpower { subject_stops, .. }
            | Self::AmbientOnly { subject_stops }
                if is(setup.lit) =>
            {
                Some(Stops(subject_stops))
            }
            Self::Fill { ambient_stops, fill_stops } if is(setup.lit) => {
                Some(Stops(ambient_stops).and(Stops(ambient_stops + fill_stops)))
            }
            _ => None,
        }
    }
}
