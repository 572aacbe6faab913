//! What a blend asks of the frame, region by region, and what is left of it for the flashes.

use super::Prepared;
use crate::setup::{Blend, ExposureConvention, LightWish};
use tolva_core::exposure::Ev;
use tolva_core::scale::Stops;

/// What is asked of the flashes on a region.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum FlashWish {
    /// Nothing is asked of a flash there.
    Unused,
    /// The flashes are to give so much by themselves.
    Wanted(Stops),
    /// The ambient alone is already at the wish or over it, by so much: no flash helps.
    AmbientOver(Stops),
}

impl FlashWish {
    /// What must be added to the ambient to reach a place, where there is one.
    pub fn completing(ambient: Stops, place: Option<Stops>) -> Self {
        let to = |place| ambient.missing_to(place).map_or(Self::AmbientOver(ambient - place), Self::Wanted);
        place.map_or(Self::Unused, to)
    }
}

/// The region the camera is set for.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Placed {
    /// The region.
    pub region: usize,
    /// Where it is to be.
    pub place: Stops,
    /// Whether that is said of the ambient alone; otherwise of all light there.
    pub ambient_alone: bool,
}

/// Under full white so far the brightest ambient is kept: a shirt still shows its folds. Common practice, no source.
pub const KEPT_UNDER: Stops = Stops(2.0);
/// What “a little” adds. Common practice, no source.
pub const A_LITTLE: Stops = Stops(1.0 / 3.0);

/// What a convention of exposure adds to every place that is wished.
fn shift(school: ExposureConvention) -> Stops {
    if school == ExposureConvention::AddALittle { A_LITTLE } else { Stops::ZERO }
}

impl Blend {
    /// The region the camera is set for, and where it is to be.
    pub fn placed(self, setup: &Prepared<'_>) -> Placed {
        let (region, place, ambient_alone) = match self {
            // Where a light is aimed at what lies behind, the blend says where the ambient is to put it, and the light
            // where all of it is to end.
            Self::Lift { background_stops, .. } => (
                setup.background,
                background_stops,
                setup.lights.iter().any(|light| light.aimed_at == setup.background),
            ),
            Self::Silhouette { background_stops } => (setup.background, background_stops, false),
            Self::Fill { ambient_stops, .. } | Self::Overpower { ambient_stops, .. } => {
                (setup.lit, ambient_stops, true)
            }
            // Each gives half of the light: a stop under the whole.
            Self::HalfAndHalf { subject_stops } => (setup.lit, subject_stops - 1.0, true),
            Self::AmbientOnly { subject_stops } => (setup.lit, subject_stops, false),
        };
        let school = setup.setup.exposure;
        let mut place = Stops(place) + shift(school);
        if school == ExposureConvention::ProtectHighlights {
            let brightest = setup.ambient.iter().fold(f64::NEG_INFINITY, |most, ev| most.max(ev.0));
            let over = place + Stops(brightest - setup.ambient[region].0) - KEPT_UNDER;
            place = place - Stops(over.0.max(0.0));
        }
        Placed { region, place, ambient_alone }
    }

    /// The exposure value the camera and its filter would be right for by the ambient alone.
    pub fn camera_ev(self, setup: &Prepared<'_>) -> Ev {
        let placed = self.placed(setup);
        setup.ambient[placed.region] - placed.place
    }

    /// Where the blend wishes the subject to end; nothing where it does not say. What is said against the ambient
    /// follows it, also where highlights are protected.
    fn subject_wish(self, setup: &Prepared<'_>) -> Option<Stops> {
        match self {
            Self::Lift { subject_stops, .. } | Self::Overpower { subject_stops, .. } => {
                Some(Stops(subject_stops) + shift(setup.setup.exposure))
            }
            Self::HalfAndHalf { .. } => Some(self.placed(setup).place + Stops(1.0)),
            Self::AmbientOnly { .. } => Some(self.placed(setup).place),
            Self::Fill { fill_stops, .. } => {
                let place = self.placed(setup).place;
                Some(place.and(place + Stops(fill_stops)))
            }
            Self::Silhouette { .. } => None,
        }
    }

    /// Where a region is wished to end, by the blend or by a light that is aimed at it, where anything says so.
    pub fn region_wish(self, setup: &Prepared<'_>, region: usize) -> Option<Stops> {
        if region == setup.lit {
            return self.subject_wish(setup);
        }
        self.light_wish(setup, region).or_else(|| {
            let placed = self.placed(setup);
            (region == placed.region && !placed.ambient_alone).then_some(placed.place)
        })
    }

    /// Where the lights aimed at a region other than the lit side wish it to end. A key brings what it is aimed at to
    /// where the blend wants the subject.
    fn light_wish(self, setup: &Prepared<'_>, region: usize) -> Option<Stops> {
        let subject = self.subject_wish(setup);
        let aimed = setup.lights.iter().filter(|light| light.aimed_at == region && setup.fires(light));
        aimed.into_iter().find_map(|light| match light.light.wish {
            LightWish::Key => subject,
            LightWish::Fill { ratio_stops } => subject.map(|subject| subject - Stops(ratio_stops)),
            // Round a silhouette, over mid grey: the face has no place of its own.
            LightWish::Rim { over_stops } => Some(subject.unwrap_or(Stops::ZERO) + Stops(over_stops)),
            LightWish::Place { stops } => Some(Stops(stops) + shift(setup.setup.exposure)),
        })
    }

    /// What the flashes are to give a region where the ambient has put it at `ambient`.
    pub fn flash_wish(self, setup: &Prepared<'_>, region: usize, ambient: Stops) -> FlashWish {
        if region != setup.lit {
            return FlashWish::completing(ambient, self.light_wish(setup, region));
        }
        if !self.uses_flash() {
            return FlashWish::Unused;
        }
        match self {
            Self::Fill { fill_stops, .. } => FlashWish::Wanted(ambient + Stops(fill_stops)),
            _ => FlashWish::completing(ambient, self.subject_wish(setup)),
        }
    }

    /// Where a region is to end under camera settings that put its ambient at `ambient`: the wish itself, or for a fill
    /// what its ratio makes of the ambient that is there.
    pub fn target(self, setup: &Prepared<'_>, region: usize, ambient: Stops) -> Option<Stops> {
        match self {
            Self::Fill { fill_stops, .. } if region == setup.lit => Some(ambient.and(ambient + Stops(fill_stops))),
            _ => self.region_wish(setup, region),
        }
    }
}
