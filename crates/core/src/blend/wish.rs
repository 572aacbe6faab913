//! What a blend asks of the camera, and what it and the lights' own wishes ask of the flashes.

use super::exposure::{ExposureSchool, KEPT_UNDER};
use crate::exposure::Ev;
use crate::job::{Blend, CheckedSetup, LightWish};
use crate::scale::Stops;

/// What is asked of the flashes on a region.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) enum FlashWish {
    /// Nothing is asked of a flash there.
    Unused,
    /// The flashes are to give so much by themselves.
    Wanted(Stops),
    /// The ambient alone is already at the wish or over it, by so much: no flash helps.
    AmbientOver(Stops),
}

impl FlashWish {
    /// What must be added to the ambient to reach a place.
    fn completing(ambient: Stops, place: Stops) -> Self {
        ambient.missing_to(place).map_or(Self::AmbientOver(ambient - place), Self::Wanted)
    }
}

impl Blend {
    /// The region the camera is set for, and where the ambient is to put it.
    pub(super) fn ambient_place(self, setup: &CheckedSetup<'_>) -> (usize, Stops) {
        let (region, place) = match self {
            Self::Lift { behind_stops, .. } | Self::Silhouette { behind_stops } => (setup.behind, behind_stops),
            Self::Fill { ambient_stops, .. } | Self::Overpower { ambient_stops, .. } => (setup.lit, ambient_stops),
            // Each gives half of the light: a stop under the whole.
            Self::HalfAndHalf { subject_stops } => (setup.lit, subject_stops - 1.0),
            Self::AmbientOnly { subject_stops } => (setup.lit, subject_stops),
        };
        let school = setup.setup.exposure;
        let place = Stops(place) + school.shift();
        if school == ExposureSchool::ProtectHighlights {
            let brightest = setup.ambient.iter().fold(f64::NEG_INFINITY, |most, ev| most.max(ev.0));
            let over = place + Stops(brightest - setup.ambient[region].0) - KEPT_UNDER;
            return (region, place - Stops(over.0.max(0.0)));
        }
        (region, place)
    }

    /// The exposure value the camera and its filter are to be right for.
    pub(super) fn camera_ev(self, setup: &CheckedSetup<'_>) -> Ev {
        let (region, place) = self.ambient_place(setup);
        setup.ambient[region] - place
    }

    /// Where the blend wishes the lit side to end; nothing where it does not say.
    fn lit_wish(self, setup: &CheckedSetup<'_>) -> Option<Stops> {
        let place = match self {
            Self::HalfAndHalf { subject_stops }
            | Self::Lift { subject_stops, .. }
            | Self::Overpower { subject_stops, .. }
            | Self::AmbientOnly { subject_stops } => Stops(subject_stops),
            Self::Fill { ambient_stops, fill_stops } => Stops(ambient_stops).and(Stops(ambient_stops + fill_stops)),
            Self::Silhouette { .. } => return None,
        };
        Some(place + setup.setup.exposure.shift())
    }

    /// Where a region is wished to end, by the blend or by a light that is aimed at it, where anything says so.
    pub(super) fn region_wish(self, setup: &CheckedSetup<'_>, region: usize) -> Option<Stops> {
        if region == setup.lit {
            return self.lit_wish(setup);
        }
        let by_light = self.uses_flash().then(|| self.light_wish(setup, region)).flatten();
        by_light.or_else(|| {
            let (placed, place) = self.ambient_place(setup);
            (region == placed).then_some(place)
        })
    }

    /// Where the lights aimed at a region other than the lit side wish it to end.
    fn light_wish(self, setup: &CheckedSetup<'_>, region: usize) -> Option<Stops> {
        let lit = self.lit_wish(setup);
        setup.lights.iter().filter(|light| light.aim == region).find_map(|light| match light.light.wish {
            LightWish::Key => None,
            LightWish::Fill { ratio_stops } => lit.map(|lit| lit - Stops(ratio_stops)),
            LightWish::Rim { over_stops } => lit.map(|lit| lit + Stops(over_stops)),
            LightWish::Place { stops } => Some(Stops(stops) + setup.setup.exposure.shift()),
        })
    }

    /// What the flashes are to give a region where the ambient has put it at `ambient`.
    pub(super) fn flash_wish(self, setup: &CheckedSetup<'_>, region: usize, ambient: Stops) -> FlashWish {
        if !self.uses_flash() {
            return FlashWish::Unused;
        }
        if region != setup.lit {
            let wish = self.light_wish(setup, region);
            return wish.map_or(FlashWish::Unused, |place| FlashWish::completing(ambient, place));
        }
        match (self, self.lit_wish(setup)) {
            (Self::Fill { fill_stops, .. }, _) => FlashWish::Wanted(ambient + Stops(fill_stops)),
            (_, Some(place)) => FlashWish::completing(ambient, place),
            (_, None) => FlashWish::Unused,
        }
    }
}
