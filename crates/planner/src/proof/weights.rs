//! What the plan makes of the layers: what each light comes to in the frame, in the colours the camera sees.

use crate::setup::LightIndex;
use std::sync::Arc;

use tolva_core::colour::{Balanced, Illuminant};
use tolva_core::proof::{Layer, MID_GREY, Picture, Size, at_card, luminance};
use tolva_core::scale::Stops;

use super::standing::Staged;
use crate::colour::InColour;
use crate::lighting::Prepared;
use crate::set::in_the_frame;
use crate::solver::Outcome;

/// What layers are weighed with: red, green and blue.
#[derive(Clone, Debug, PartialEq)]
pub struct Weights {
    /// The lights, as the setup lists them; nothing for one that is off or burns on.
    pub lights: Vec<Option<[f32; 3]>>,
    /// The light that is there, one a region.
    pub places: Vec<[f32; 3]>,
}

/// A light's colour as the camera shows it, as bright as 1.
fn shown(renders: &Balanced, light: Illuminant) -> [f64; 3] {
    let seen = renders.renders(light.xy().xyz()).0.map(|part| part.max(0.0));
    let [red, green, blue] = seen;
    let bright = 0.2126 * red + 0.7152 * green + 0.0722 * blue;
    seen.map(|part| part / bright.max(1e-6))
}

#[expect(clippy::cast_possible_truncation, reason = "single precision is enough for a picture")]
fn times(colour: [f64; 3], by: f64) -> [f32; 3] {
    colour.map(|part| (part * by) as f32)
}

impl Weights {
    /// Of a setup as it came out.
    pub fn of(prepared: &Prepared<'_>, outcome: &Outcome, staged: &Staged) -> Self {
        let InColour { colours, balance } = InColour::of(prepared, outcome);
        let mut lights = vec![None; prepared.setup.lights.len()];
        for (place, light) in prepared.lights.iter().enumerate() {
            let (Some(at), Some(source)) = (outcome.lights[place], &staged.sources[light.index.0]) else { continue };
            let mut comes_to = in_the_frame(prepared, outcome, light, at);
            if prepared.stage.is_none() {
                // Nobody has used the set: its distances and spill are as they were typed, and where the light stands is
                // only laid out. It gives what it is aimed at what the rail says.
                let receptor = staged.there.places[light.aimed_at].receptor;
                let here = comes_to * at_card(&staged.scene, source, &receptor);
                let said = outcome.regions[light.aimed_at].each[place].ratio();
                if here > 0.0 && said > 0.0 {
                    comes_to *= (said / here).clamp(1.0 / 64.0, 64.0);
                }
            }
            lights[light.index.0] = Some(times(shown(&balance.renders, colours.flashes[place]), comes_to));
        }
        let places = (outcome.regions.iter().enumerate())
            .map(|(region, out)| times(shown(&balance.renders, colours.ambient_on(region)), out.ambient.ratio()))
            .collect();
        Self { lights, places }
    }
}

fn proportion(size: Size) -> f32 {
    size.wide() / size.high()
}

/// The layers of a proof.
#[derive(Clone, Debug)]
pub struct Layers {
    /// The lights, as the setup lists them; nothing for one that is off or burns on.
    pub lights: Vec<Option<Arc<Layer>>>,
    /// The light that is there, one a region.
    pub places: Arc<Vec<Layer>>,
}

/// How far what moves goes while the shutter is open.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Moves {
    /// As a part of the frame's width.
    pub by: f64,
    /// The regions that are of somebody.
    pub places: Vec<usize>,
}

/// What a place of the frame gets of a light.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Share {
    /// The light, by its index in the setup; nothing for the light that is there.
    pub light: Option<LightIndex>,
    /// Its part of what is seen there, 0 to 1.
    pub part: f64,
}

/// A photo of the place behind, and what stands for full light of that region in it: red, green and blue.
#[derive(Clone, Copy, Debug)]
pub struct Behind<'a> {
    /// The photo, in linear light.
    pub photo: &'a Picture,
    /// What a weight of 1 comes to in it.
    pub level: [f32; 3],
    /// The region that lies behind.
    pub place: usize,
}

impl Layers {
    /// The same with a photo in place of the place itself, as large as fills the frame: the light of the region behind weighs
    /// it, so that it follows hour, shutter and balance. What the flash gives floor and walls is left out there. `parts` says
    /// how much of each pixel sees the place.
    #[must_use]
    pub fn with_photo(&self, size: Size, parts: &[f32], behind: &Behind<'_>) -> Self {
        let less = |layer: &Layer| {
            let pixels = layer.pixels.iter().zip(parts).map(|(pixel, part)| pixel.map(|one| one * (1.0 - part)));
            Layer { size: layer.size, pixels: pixels.collect() }
        };
        let mut places: Vec<Layer> = self.places.iter().map(less).collect();
        let (own, other) = (proportion(size), proportion(behind.photo.size));
        // What is too wide or too high of it lies outside.
        let (across, along) = if other > own { (own / other, 1.0) } else { (1.0, other / own) };
        if let Some(layer) = places.get_mut(behind.place) {
            for ((pixel, x, y), part) in size.pixels().zip(parts) {
                if *part > 0.0 {
                    let left = 0.5 + ((x + 0.5) / size.wide() - 0.5) * across;
                    let down = 0.5 + ((y + 0.5) / size.high() - 0.5) * along;
                    let seen = behind.photo.around([left, down]);
                    for ((sum, seen), level) in layer.pixels[pixel as usize].iter_mut().zip(seen).zip(behind.level) {
                        *sum += part * seen / level.max(1e-6);
                    }
                }
            }
        }
        let lights = self.lights.iter().map(|light| light.as_deref().map(less).map(Arc::new)).collect();
        Self { lights, places: Arc::new(places) }
    }

    /// The picture under weights. What moves is smeared by its part of the frame's width, under the light that is there:
    /// what the flash lights stands still.
    pub fn developed(&self, size: Size, weights: &Weights, moves: &Moves) -> Picture {
        #[expect(clippy::cast_possible_truncation, reason = "a few hundred pixels")]
        let pixels = (moves.by * f64::from(size.width)) as f32;
        let smeared = |place: &usize| pixels >= 1.0 && moves.places.contains(place);
        let moved: Vec<Option<Layer>> = (self.places.iter().enumerate())
            .map(|(place, layer)| smeared(&place).then(|| layer.moved(pixels)))
            .collect();
        let places = self.places.iter().zip(&moved).map(|(layer, moved)| moved.as_ref().unwrap_or(layer));
        let lit =
            self.lights.iter().zip(&weights.lights).filter_map(|(layer, weight)| Some((layer.as_deref()?, (*weight)?)));
        let all: Vec<(&Layer, [f32; 3])> = lit.chain(places.zip(weights.places.iter().copied())).collect();
        Picture::developed(size, &all)
    }

    /// How bright a place of the frame is in stops from mid grey, and what each light has in it. From the left and from
    /// above, 0 to 1.
    pub fn read_at(&self, weights: &Weights, at: [f32; 2]) -> (Stops, Vec<Share>) {
        let bright = |layer: &Layer, weight: [f32; 3]| {
            let seen = layer.around(at);
            f64::from(luminance([seen[0] * weight[0], seen[1] * weight[1], seen[2] * weight[2]]))
        };
        let mut all: Vec<(Option<LightIndex>, f64)> = Vec::new();
        for (index, (layer, weight)) in self.lights.iter().zip(&weights.lights).enumerate() {
            if let (Some(layer), Some(weight)) = (layer, weight) {
                all.push((Some(LightIndex(index)), bright(layer, *weight)));
            }
        }
        all.push((None, self.places.iter().zip(&weights.places).map(|(layer, weight)| bright(layer, *weight)).sum()));
        let sum: f64 = all.iter().map(|(_, bright)| bright).sum();
        let stops = if sum > 0.0 { Stops::of_ratio(sum / f64::from(MID_GREY)) } else { Stops::NOTHING };
        let shares = all.into_iter().map(|(light, bright)| Share { light, part: bright / sum.max(1e-30) }).collect();
        (stops, shares)
    }
}
