//! Where each region is likely to be in a frame, by its proof, and how bright what lies there is against mid grey.

use tolva_core::frame::{Mark, Photo, Shape};
use tolva_core::proof::{Picture, Size, luminance};
use tolva_core::scale::Stops;
use tolva_core::set::InFrame;

use crate::lighting::Prepared;
use crate::proof::{Layers, Proof, Weights};
use crate::solver::Outcome;

/// A mark is so much of the frame's longer side. Chosen: about a cheek of a head and shoulders.
const SIDE: f64 = 0.03;
/// So much of a mark must belong to its region at least. Chosen.
const BELONGS: f64 = 0.55;
/// What a mark's unevenness, in stops, and its way from the region's place, in parts of the frame, weigh against how much of
/// it belongs to the region. Chosen: on the face itself, rather than on a larger and more even shirt.
const UNEVEN: f64 = 0.3;
const AWAY: f64 = 4.0;

/// A frame as its proof has it, with the flashes on or off: what every place of it shows.
#[derive(Clone, Debug)]
pub struct Expected {
    photo: Photo,
    regions: Vec<Stops>,
    layers: Layers,
    places: Vec<Option<[f64; 2]>>,
}

impl Expected {
    /// Of a setup as it came out.
    pub fn of(
        prepared: &Prepared<'_>,
        outcome: &Outcome,
        proof: &Proof,
        (layers, size): (&Layers, Size),
        flash: bool,
    ) -> Self {
        let weights = Weights {
            lights: proof.weights.lights.iter().map(|light| light.filter(|_| flash)).collect(),
            places: proof.weights.places.clone(),
        };
        let picture = layers.developed(size, &weights, &proof.moves);
        let stood = if flash { outcome.clone() } else { outcome.clone().without_flash() };
        let stood = stood.taken_at(prepared, outcome.settings);
        let view = &proof.staged.scene.view;
        let places = proof.staged.there.places.iter().map(|place| {
            let at = view.project(place.receptor.at).filter(InFrame::inside)?;
            Some([at.right + 0.5, 0.5 - at.up])
        });
        Self {
            photo: Photo { clipped: vec![0; picture.size.count()], picture },
            regions: stood.regions.iter().map(|region| region.together).collect(),
            layers: layers.clone(),
            places: places.collect(),
        }
    }

    /// A mark for each region that is seen: near its place, where most of what is seen belongs to it and is even. Nothing for
    /// a region that is hidden, or out of the frame.
    pub fn marks(&self) -> Vec<Option<Mark>> {
        (0..self.regions.len().min(self.layers.places.len()))
            .map(|region| best(&self.layers, &self.photo.picture, region, self.places.get(region).copied().flatten()))
            .collect()
    }

    /// How much brighter than a grey card in a region's light what lies under a mark is, from this side. Nothing where it is
    /// black.
    pub fn surface(&self, region: usize, mark: Mark) -> Option<Stops> {
        Some(self.photo.measured(mark).stops()? - *self.regions.get(region)?)
    }
}

fn best(layers: &Layers, picture: &Picture, region: usize, at: Option<[f64; 2]>) -> Option<Mark> {
    let (wide, high) = (picture.size.width as usize, picture.size.height as usize);
    #[expect(clippy::cast_precision_loss, reason = "a size in pixels")]
    let (width, height) = (wide as f64, high as f64);
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "a few pixels")]
    let side = ((width.max(height) * SIDE).round() as usize).clamp(2, wide.min(high) / 2);
    let step = (side / 3).max(1);
    let mut found: Option<(f64, Mark)> = None;
    for top in (0..=high - side).step_by(step) {
        for left in (0..=wide - side).step_by(step) {
            let pixels = (top..top + side).flat_map(|row| (left..left + side).map(move |column| row * wide + column));
            let Some((belongs, uneven)) = of_window(layers, picture, region, pixels) else { continue };
            if belongs < BELONGS {
                continue;
            }
            #[expect(clippy::cast_precision_loss, reason = "a size in pixels")]
            let [left, top, side_px] = [left as f64, top as f64, side as f64];
            let mark = Mark {
                left: left / width,
                top: top / height,
                width: side_px / width,
                height: side_px / height,
                shape: Shape::Ellipse,
            };
            let middle = [mark.left + mark.width / 2.0, mark.top + mark.height / 2.0];
            let away = at.map_or(0.0, |at| (middle[0] - at[0]).hypot((middle[1] - at[1]) * height / width));
            let good = belongs - UNEVEN * uneven - AWAY * away;
            if found.is_none_or(|(best, _)| good > best) {
                found = Some((good, mark));
            }
        }
    }
    found.map(|(_, mark)| mark)
}

/// How much of some pixels belongs to a region, and how uneven they are, in stops. Nothing where some are black.
fn of_window(
    layers: &Layers,
    picture: &Picture,
    region: usize,
    pixels: impl Iterator<Item = usize>,
) -> Option<(f64, f64)> {
    let (mut belongs, mut sum, mut squares, mut count) = (0.0, 0.0, 0.0, 0.0);
    for pixel in pixels {
        let of = |place: usize| f64::from(luminance(layers.places[place].pixels[pixel]));
        let all: f64 = (0..layers.places.len()).map(of).sum();
        let bright = f64::from(luminance(picture.pixels[pixel]));
        if all <= 0.0 || bright <= 0.0 {
            return None;
        }
        belongs += of(region) / all;
        let stops = bright.log2();
        sum += stops;
        squares += stops * stops;
        count += 1.0;
    }
    let mean: f64 = sum / count;
    Some((belongs / count, (squares / count - mean * mean).max(0.0).sqrt()))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::setup::{Kit, Setup};
    use tolva_core::proof::{Fineness, Work};

    /// The face's mark lies on the face, what lies behind is marked beside it; and what a mark shows is told against a card,
    /// with the flash or without it.
    #[test]
    fn marks_lie_where_their_regions_are() {
        let kit = Kit::starter();
        let setup = Setup::new("a", &kit);
        let prepared = Prepared::new(&setup, &kit).expect("good");
        let outcome = Outcome::of(&prepared);
        let proof = Proof::of(&prepared, &outcome, &kit);
        let size = Size::of_frame(160, proof.proportion);
        let layers = proof.layers(size, Fineness::Coarse, &Work::default()).expect("rendered");
        let expected = |flash| Expected::of(&prepared, &outcome, &proof, (&layers, size), flash);
        let with = expected(true);
        let all = with.marks();
        assert_eq!(all.len(), setup.regions.len());
        let region = |id: &str| setup.regions.iter().position(|region| region.id == id).expect("a region");
        let of = |id: &str| all[region(id)].unwrap_or_else(|| panic!("{id} is seen"));
        let (behind, lit) = (of("behind"), of("lit"));
        let middle = |mark: Mark| [mark.left + mark.width / 2.0, mark.top + mark.height / 2.0];
        let apart = (middle(behind)[0] - middle(lit)[0]).hypot(middle(behind)[1] - middle(lit)[1]);
        assert!(apart > SIDE, "beside it: {behind:?} {lit:?}");
        let at = with.places[region("lit")].expect("in the frame");
        let away = (middle(lit)[0] - at[0]).hypot(middle(lit)[1] - at[1]);
        assert!(away < 0.06, "on the face: {lit:?} {at:?}");
        for expected in [with, expected(false)] {
            let surface = expected.surface(region("behind"), behind).expect("light");
            assert!(surface.0.abs() < 2.5, "{surface:?}");
        }
    }
}
