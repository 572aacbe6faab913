//! What was rendered, as long as there is room for it.

use std::collections::HashMap;
use std::hash::{DefaultHasher, Hash as _, Hasher as _};
use std::sync::{Arc, Mutex, PoisonError};

use tolva_core::proof::{Fineness, Layer, Picture, Scene, Seen, Size, Source, There, Work, layer};
use tolva_planner::proof::{Layers, Proof, Weights};
use tolva_planner::setup::Setup;
use tolva_wording::ProofReport;

use super::pictures::Taken;

/// So much is kept, in bytes: about a dozen setups on a screen, or two large pictures.
const ROOM: usize = 400 * 1024 * 1024;
/// So many pictures can be asked for by their id.
const PICTURES: usize = 64;
/// So many windows ask at once.
const MOST_ASKING: usize = 200;

/// A picture that was asked for.
#[derive(Clone, Debug)]
pub struct Asked {
    /// How large.
    pub longest: u32,
    /// How finely.
    pub fineness: Fineness,
    /// With the grain of its ISO.
    pub grain: bool,
    /// With what moves smeared.
    pub movement: bool,
}

/// A picture that is there.
#[derive(Debug)]
pub struct Kept {
    /// What it is called by: the same for the same setup.
    pub id: String,
    /// Its size.
    pub size: Size,
    /// In linear light.
    pub picture: Picture,
    /// What it was made of.
    pub layers: Layers,
    /// What they were weighed with.
    pub weights: Weights,
    /// Its setup.
    pub setup: Setup,
    /// What it would be taken with, in a line.
    pub settings: String,
    /// What it is.
    pub caption: String,
    /// What a file says it was taken with.
    pub taken: Taken,
}

/// Somebody has asked for a newer one.
#[derive(Debug)]
pub struct Superseded;

/// What was rendered.
#[derive(Debug, Default)]
pub struct Proofs {
    rendered: Mutex<Rendered>,
    pictures: Mutex<Vec<Arc<Kept>>>,
    asking: Mutex<HashMap<String, (Arc<Work>, usize)>>,
}

/// The latest stands last.
#[derive(Debug, Default)]
struct Rendered {
    seen: Vec<((Scene, Size), Arc<Seen>)>,
    lights: Vec<((Scene, Size, Fineness, Source), Arc<Layer>)>,
    places: Vec<((Scene, Size, Fineness, There), Arc<Vec<Layer>>)>,
}

fn found<K: PartialEq, V: Clone>(all: &mut Vec<(K, V)>, key: &K) -> Option<V> {
    let index = all.iter().rposition(|(one, _)| one == key)?;
    let one = all.remove(index);
    let value = one.1.clone();
    all.push(one);
    Some(value)
}

impl Rendered {
    fn bytes(&self) -> usize {
        let layer = |layer: &Layer| layer.pixels.len() * size_of::<[f32; 3]>();
        let seen = self.seen.iter().map(|(_, seen)| seen.spots.len() * size_of::<tolva_core::proof::Spot>());
        let lights = self.lights.iter().map(|(_, one)| layer(one));
        let places = self.places.iter().map(|(_, all)| all.iter().map(layer).sum());
        seen.chain(lights).chain(places).sum()
    }

    fn make_room(&mut self) {
        while self.bytes() > ROOM {
            let most = self.seen.len().max(self.lights.len()).max(self.places.len());
            if most <= 1 {
                return;
            }
            // Of what there is most of, the one that was asked for longest ago.
            if self.lights.len() == most {
                self.lights.remove(0);
            } else if self.places.len() == most {
                self.places.remove(0);
            } else {
                self.seen.remove(0);
            }
        }
    }
}

fn held<T>(mutex: &Mutex<T>) -> std::sync::MutexGuard<'_, T> {
    mutex.lock().unwrap_or_else(PoisonError::into_inner)
}

impl Proofs {
    /// Somebody asks anew: what they asked for before is stopped.
    pub fn asks(&self, asker: &str, steps: usize) -> Arc<Work> {
        let work = Arc::new(Work::default());
        let mut asking = held(&self.asking);
        if asking.len() >= MOST_ASKING {
            asking.clear();
        }
        if let Some((before, _)) = asking.insert(asker.to_owned(), (Arc::clone(&work), steps)) {
            before.stop();
        }
        work
    }

    /// Stops what somebody asked for.
    pub fn stop(&self, asker: &str) {
        if let Some((work, _)) = held(&self.asking).remove(asker) {
            work.stop();
        }
    }

    /// How far what somebody asked for has come, in percent.
    pub fn come(&self, asker: &str) -> Option<f64> {
        let asking = held(&self.asking);
        let (work, steps) = asking.get(asker)?;
        #[expect(clippy::cast_precision_loss, reason = "a few million")]
        let part = work.done() as f64 / (*steps).max(1) as f64;
        Some((part * 100.0).min(100.0))
    }

    /// A picture that is still there.
    pub fn kept(&self, id: &str) -> Option<Arc<Kept>> {
        held(&self.pictures).iter().find(|one| one.id == id).cloned()
    }

    /// A proof as a picture: kept, or developed from layers that are kept or rendered. The same `words` stand for the same
    /// setup, kit and way to show numbers.
    ///
    /// # Errors
    /// Where it was stopped.
    pub fn picture(
        &self,
        words: &str,
        (setup, proof, report): (&Setup, &Proof, &ProofReport),
        asked: &Asked,
        work: &Work,
    ) -> Result<Arc<Kept>, Superseded> {
        let id = named(&[words, &format!("{asked:?}")]);
        if let Some(kept) = self.kept(&id) {
            return Ok(kept);
        }
        let (size, layers) = self.layers(proof, asked, work)?;
        let moves = if asked.movement { proof.moves } else { 0.0 };
        let mut picture = layers.developed(size, &proof.weights, moves);
        if asked.grain {
            #[expect(clippy::cast_possible_truncation, reason = "an ISO number")]
            let iso = proof.iso as f32;
            picture = picture.grained(iso, 1);
        }
        let taken = Taken::of(proof, setup);
        let (settings, caption) = (report.settings.clone(), report.caption.clone());
        let (setup, weights) = (setup.clone(), proof.weights.clone());
        Ok(self.keep(Kept { id, size, picture, layers, weights, setup, settings, caption, taken }))
    }

    /// Keeps a picture.
    fn keep(&self, kept: Kept) -> Arc<Kept> {
        let kept = Arc::new(kept);
        let mut pictures = held(&self.pictures);
        pictures.retain(|one| one.id != kept.id);
        if pictures.len() >= PICTURES {
            pictures.remove(0);
        }
        pictures.push(Arc::clone(&kept));
        kept
    }

    /// Whether a proof could be had finely without rendering anything.
    pub fn is_rendered(&self, proof: &Proof, longest: u32) -> bool {
        let size = Size::of_frame(longest, proof.proportion);
        let (scene, fine) = (&proof.staged.scene, Fineness::Fine);
        let rendered = held(&self.rendered);
        let lit = |source: &Source| {
            let same = |(of, at, how, light): &(Scene, Size, Fineness, Source)| {
                *at == size && *how == fine && light == source && of == scene
            };
            rendered.lights.iter().any(|(key, _)| same(key))
        };
        let there = &proof.staged.there;
        let places = rendered
            .places
            .iter()
            .any(|((of, at, how, places), _)| *at == size && *how == fine && places == there && of == scene);
        places && proof.staged.sources.iter().flatten().all(lit)
    }

    /// The layers of a proof: those that are there, and the others rendered.
    ///
    /// # Errors
    /// Where it was stopped.
    fn layers(&self, proof: &Proof, asked: &Asked, work: &Work) -> Result<(Size, Layers), Superseded> {
        let size = Size::of_frame(asked.longest, proof.proportion);
        let scene = &proof.staged.scene;
        let seen = self.seen(scene, size);
        let mut lights = Vec::new();
        for source in &proof.staged.sources {
            let Some(source) = source else {
                lights.push(None);
                continue;
            };
            let key = (scene.clone(), size, asked.fineness, source.clone());
            let there = found(&mut held(&self.rendered).lights, &key);
            let one = match there {
                Some(layer) => layer,
                None => {
                    let made = Arc::new(layer(scene, &seen, source, asked.fineness, work).ok_or(Superseded)?);
                    let mut rendered = held(&self.rendered);
                    rendered.lights.push((key, Arc::clone(&made)));
                    rendered.make_room();
                    made
                }
            };
            lights.push(Some(one));
        }
        let there = &proof.staged.there;
        let key = (scene.clone(), size, asked.fineness, there.clone());
        let places = found(&mut held(&self.rendered).places, &key);
        let places = match places {
            Some(places) => places,
            None => {
                let made = Arc::new(there.layers(scene, &seen, asked.fineness, work).ok_or(Superseded)?);
                let mut rendered = held(&self.rendered);
                rendered.places.push((key, Arc::clone(&made)));
                rendered.make_room();
                made
            }
        };
        Ok((size, Layers { lights, places }))
    }

    fn seen(&self, scene: &Scene, size: Size) -> Arc<Seen> {
        let key = (scene.clone(), size);
        if let Some(seen) = found(&mut held(&self.rendered).seen, &key) {
            return seen;
        }
        let made = Arc::new(scene.seen(size));
        let mut rendered = held(&self.rendered);
        rendered.seen.push((key, Arc::clone(&made)));
        rendered.make_room();
        made
    }
}

/// What a picture is called by: the same words give the same name.
fn named(words: &[&str]) -> String {
    let mut hasher = DefaultHasher::new();
    words.hash(&mut hasher);
    format!("{:016x}", hasher.finish())
}
