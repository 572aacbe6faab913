//! What falls on each region, light by light, with its colour.

use crate::lighting::Prepared;
use crate::setup::{FlashIndex, LightIndex};
use crate::solver::Outcome;
use tolva_core::colour::{Illuminant, LightShare, NamedLight, Sample, Xyz};
use tolva_core::scale::Stops;

/// What kind of light it is.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum PartKind {
    /// What is there.
    Ambient,
    /// A continuous lamp, by its place in the setup's list.
    Lamp(LightIndex),
    /// A flash, by its place among the flashes.
    Flash(FlashIndex),
}

/// One light on a region.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Part {
    /// What kind it is.
    pub kind: PartKind,
    /// Its colour.
    pub light: Illuminant,
    /// Its part of the region's light, 0 to 1.
    pub share: f64,
}

impl Part {
    fn share(&self) -> LightShare {
        LightShare { share: self.share, light: self.light }
    }
}

/// All light on a region.
#[derive(Clone, Debug, PartialEq)]
pub struct Mix {
    /// The lights it is made of.
    pub parts: Vec<Part>,
    /// All of it together.
    pub light: Illuminant,
    /// What each sample sends on.
    samples: [Xyz; Sample::ALL.len()],
}

impl Mix {
    fn of(parts: Vec<Part>) -> Self {
        let shares: Vec<LightShare> = parts.iter().map(Part::share).collect();
        let most = parts.iter().max_by(|a, b| a.share.total_cmp(&b.share)).map(|part| part.light);
        let usual = || NamedLight::Daylight.light();
        // Lights that together have no temperature are called by the strongest.
        let light = Illuminant::mixed(&shares).or(most).unwrap_or_else(usual);
        let mut samples = [Xyz([0.0; 3]); Sample::ALL.len()];
        for part in parts.iter().filter(|part| part.share > 1e-4) {
            for (sum, sent) in samples.iter_mut().zip(Sample::under(part.light)) {
                *sum = sum.and(sent.times(part.share));
            }
        }
        Self { parts, light, samples }
    }

    /// What each sample sends on.
    pub fn samples(&self) -> impl Iterator<Item = (Sample, Xyz)> {
        Sample::ALL.into_iter().zip(self.samples)
    }
}

/// The colours of a setup.
#[derive(Clone, Debug, PartialEq)]
pub struct Colours {
    /// The light that is there, one a region, without lamps.
    pub ambient: Vec<Illuminant>,
    /// The lamps, in their order.
    pub lamps: Vec<Illuminant>,
    /// The flashes, in their order, through gels and off walls.
    pub flashes: Vec<Illuminant>,
    /// The same without gels.
    pub flashes_bare: Vec<Illuminant>,
    /// What falls on each region.
    pub mixes: Vec<Mix>,
}

impl Colours {
    /// The colours of a setup as it came out.
    pub fn of(setup: &Prepared<'_>, outcome: &Outcome) -> Self {
        let by_place = setup.scene.as_ref().map(|scene| scene.light.colours(&scene.now));
        let ambient: Vec<Illuminant> = (setup.setup.regions.iter().zip(&setup.films))
            .map(|(region, film)| {
                let said = region.ambient.colour.light().ok().flatten();
                let there = said.or_else(|| by_place.map(|by_place| by_place.of(region.role)));
                there.unwrap_or_else(|| NamedLight::Daylight.light()).shifted(*film)
            })
            .collect();
        let lamps: Vec<Illuminant> = setup.lamps.iter().map(|lamp| lamp.native.shifted(lamp.shift)).collect();
        let flashes_bare: Vec<Illuminant> = (setup.lights.iter().zip(&outcome.lights))
            .map(|(light, at)| light.native_from(at.map_or_else(|| light.distance_or_usual(), |at| at.distance)))
            .collect();
        let gelled = setup.lights.iter().zip(&flashes_bare).map(|(light, bare)| bare.shifted(light.gel_shift));
        let flashes: Vec<Illuminant> = gelled.collect();
        let mixes = (0..setup.setup.regions.len())
            .map(|region| {
                let of = &outcome.regions[region];
                let ambient_share = of.share(of.ambient);
                let there = (setup.there[region] - setup.ambient[region]).ratio() * ambient_share;
                let mut parts = vec![Part { kind: PartKind::Ambient, light: ambient[region], share: there }];
                parts.extend(setup.lamps.iter().zip(&lamps).map(|(lamp, &light)| {
                    let share = (lamp.gives(region) - Stops(setup.ambient[region].0)).ratio();
                    Part { kind: PartKind::Lamp(lamp.index), light, share: share * ambient_share }
                }));
                parts.extend(flashes.iter().enumerate().map(|(index, &light)| Part {
                    kind: PartKind::Flash(FlashIndex(index)),
                    light,
                    share: of.share(of.each[index]),
                }));
                Mix::of(parts)
            })
            .collect();
        Self { ambient, lamps, flashes, flashes_bare, mixes }
    }

    /// The light that is there on a region, lamps and all.
    pub fn ambient_on(&self, region: usize) -> Illuminant {
        let parts = self.mixes[region].parts.iter().filter(|part| !matches!(part.kind, PartKind::Flash(_)));
        let shares: Vec<LightShare> = parts.map(Part::share).collect();
        Illuminant::mixed(&shares).unwrap_or(self.ambient[region])
    }
}
