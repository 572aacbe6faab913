//! Moving a mark on the colour line: what it changes in the setup.

use crate::lighting::Prepared;
use crate::refused::Refused;
use crate::setup::{Gel, Kit, Setup};
use tolva_core::colour::{
    BalanceReason, GelMatch, Illuminant, KELVIN, Kelvin, Mired, OfferedGel, StatedColour, TINT, WhiteBalance,
    nearest_gels,
};

/// What is moved on the colour line.
#[derive(Clone, Debug, PartialEq)]
pub enum ColourGrip {
    /// The camera's white balance.
    Balance,
    /// A flash or a lamp, by its letter: gels are chosen.
    Light(String),
    /// The light that is there on a region, by its id.
    Region(String),
}

/// Something put somewhere else on the colour line.
#[derive(Clone, Debug, PartialEq)]
pub struct Colouring {
    /// What.
    pub what: ColourGrip,
    /// Where to, in mired: 25 to 1000.
    pub mired: f64,
    /// How green, in Duv: −0.05 to 0.05. Left out, as it was.
    pub tint_duv: Option<f64>,
}

impl Colouring {
    /// Where on the line something may be put, in mired: [`KELVIN`] the other way round.
    pub const MIRED: (f64, f64) = (25.0, 1000.0);

    /// The same, held to where on the line something may be put.
    #[must_use]
    pub fn held(mut self) -> Self {
        self.mired = self.mired.clamp(Self::MIRED.0, Self::MIRED.1);
        self.tint_duv = self.tint_duv.map(|tint| ((tint * 1000.0).round() / 1000.0).clamp(*TINT.start(), *TINT.end()));
        self
    }
}

/// What is put somewhere by hand stands on tens of kelvin.
fn by_hand(kelvin: Kelvin) -> f64 {
    ((kelvin.0 / 10.0).round() * 10.0).clamp(*KELVIN.start(), *KELVIN.end())
}

/// The setup with a mark on the colour line moved: the camera's balance by hand, the colour of a region by hand, or the
/// gels of the kit that bring a light nearest.
///
/// # Errors
/// A light or region that is not there, a place off the line, or a setup that cannot be planned.
pub fn colour_to(setup: &Setup, kit: &Kit, to: &Colouring) -> Result<Setup, Refused> {
    let checked = Prepared::new(setup, kit)?;
    Refused::unless_within(to.mired, Colouring::MIRED, "mired", "mired")?;
    if let Some(tint) = to.tint_duv {
        Refused::unless_within(tint, (*TINT.start(), *TINT.end()), "tint_duv", "Duv")?;
    }
    let kelvin = Mired(to.mired).kelvin();
    let mut moved = setup.clone();
    match &to.what {
        ColourGrip::Balance => {
            let tint = |was: WhiteBalance| if let WhiteBalance::Kelvin { tint_duv, .. } = was { tint_duv } else { 0.0 };
            moved.white_balance = WhiteBalance::Kelvin {
                kelvin: by_hand(kelvin),
                tint_duv: to.tint_duv.unwrap_or_else(|| tint(setup.white_balance)),
                reason: BalanceReason::ByHand,
            };
        }
        ColourGrip::Region(id) => {
            let Some(region) = moved.regions.iter_mut().find(|region| &region.id == id) else {
                return Err(Refused::NoSuchRegion(id.clone()));
            };
            let was = region.ambient.colour.light().ok().flatten().map_or(0.0, Illuminant::tint_duv);
            region.ambient.colour =
                StatedColour::Kelvin { kelvin: by_hand(kelvin), tint_duv: to.tint_duv.unwrap_or(was) };
        }
        ColourGrip::Light(id) => {
            let flash = checked
                .lights
                .iter()
                .find(|light| &light.light.id == id)
                .map(|light| (light.index, light.native_from(light.distance_or_usual())));
            let lamp = || {
                checked
                    .lamps
                    .iter()
                    .find(|lamp| &setup.lights[lamp.index].id == id)
                    .map(|lamp| (lamp.index, lamp.bounced_native()))
            };
            let Some((index, native)) = flash.or_else(lamp) else {
                return Err(Refused::NoSuchLight(id.clone()));
            };
            let (gels, _) = gels_to(native, Illuminant::new(kelvin, to.tint_duv.unwrap_or(native.tint_duv())), kit);
            moved.lights[index].gel_ids = ids(&gels);
        }
    }
    Ok(moved)
}

/// The gels of the kit that bring a light nearest to another, and what is left over.
pub fn gels_to(from: Illuminant, to: Illuminant, kit: &Kit) -> (Vec<&Gel>, GelMatch) {
    // A neutral gel only takes light.
    let mut coloured: Vec<&Gel> = kit.gels.iter().filter(|gel| !gel.is_neutral()).collect();
    // Of two that are alike the same one, however the kit is ordered.
    coloured.sort_by(|a, b| a.id.cmp(&b.id));
    let offered: Vec<_> =
        coloured.iter().map(|gel| OfferedGel { shift: gel.shift(), loss_stops: gel.loss_stops }).collect();
    let found = nearest_gels(from, to, &offered);
    (found.gels.iter().map(|gel| coloured[*gel]).collect(), found)
}

/// The ids of gels, as a light has them.
pub fn ids(gels: &[&Gel]) -> Vec<String> {
    gels.iter().map(|gel| gel.id.clone()).collect()
}
