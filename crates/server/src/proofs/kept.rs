//! What was rendered, as long as there is room for it.

use std::collections::HashMap;
use std::hash::{DefaultHasher, Hash as _, Hasher as _};
use std::sync::{Arc, Mutex, PoisonError};

use tolva_core::frame::Photo;
use tolva_core::proof::{Fineness, Layer, Picture, Scene, Seen, Size, Source, There, Work, layer};
use tolva_pictures::Taken;
use tolva_planner::proof::{Behind, Layers, Moves, Proof, Weights};
use tolva_planner::setup::Setup;
use tolva_wording::ProofReport;

use super::taken;

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
    /// A photo of the place behind.
    pub behind: Option<PhotoBehind>,
}

/// A photo of the place behind.
#[derive(Clone)]
pub struct PhotoBehind {
    /// What it is known by: the frame, and what may change of it.
    pub named: String,
    /// The photo.
    pub photo: Arc<Photo>,
    /// What stands for full light of what lies behind in it.
    pub level: [f32; 3],
}

impl std::fmt::Debug for PhotoBehind {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        f.write_str(&self.named)
    }
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

/// Things by what they depend on; the one that was asked for last stands last.
type Shelf<K, V> = Vec<(K, Arc<V>)>;
/// What every layer depends on.
type Before = (Scene, Size, Fineness);

/// What was rendered.
#[derive(Debug, Default)]
struct Rendered {
    seen: Shelf<(Scene, Size), Seen>,
    lights: Shelf<(Before, Source), Layer>,
    places: Shelf<(Before, There), Vec<Layer>>,
}

fn bytes_of(layer: &Layer) -> usize {
    layer.pixels.len() * size_of::<[f32; 3]>()
}

impl Rendered {
    fn bytes(&self) -> usize {
        let seen = self.seen.iter().map(|(_, seen)| seen.bytes());
        let lights = self.lights.iter().map(|(_, one)| bytes_of(one));
        let places = self.places.iter().map(|(_, all)| all.iter().map(bytes_of).sum());
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

impl Kept {
    fn bytes(&self) -> usize {
        let lights = self.layers.lights.iter().flatten().map(|one| bytes_of(one));
        let places = self.layers.places.iter().map(bytes_of);
        self.picture.pixels.len() * size_of::<[f32; 3]>() + lights.chain(places).sum::<usize>()
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

    /// Whoever asked has gone or has it: it is stopped, unless they have asked anew.
    pub fn leaves(&self, asker: &str, work: &Arc<Work>) {
        work.stop();
        let mut asking = held(&self.asking);
        if asking.get(asker).is_some_and(|(now, _)| Arc::ptr_eq(now, work)) {
            asking.remove(asker);
        }
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
        let (size, mut layers) = self.layers(proof, asked, work)?;
        if let Some(photo) = &asked.behind {
            let scene = &proof.staged.scene;
            let seen = self.on_shelf(|all| &mut all.seen, (scene.clone(), size), || Some(scene.seen(size)))?;
            let place = |thing: u32| proof.staged.place.get(thing as usize).copied().unwrap_or(false);
            let parts = seen.parts(|thing| thing.is_none_or(place));
            let behind = Behind { photo: &photo.photo.picture, level: photo.level, place: proof.staged.there.behind };
            layers = layers.with_photo(size, &parts, &behind);
        }
        let still = Moves::default();
        let moves = if asked.movement { &proof.moves } else { &still };
        let mut picture = layers.developed(size, &proof.weights, moves);
        if asked.grain {
            #[expect(clippy::cast_possible_truncation, reason = "an ISO number")]
            let iso = proof.iso as f32;
            picture = picture.grained(iso, 1);
        }
        let taken = taken(proof, setup);
        let (settings, caption) = (report.settings.clone(), report.caption.clone());
        let (setup, weights) = (setup.clone(), proof.weights.clone());
        Ok(self.keep(Kept { id, size, picture, layers, weights, setup, settings, caption, taken }))
    }

    /// Keeps a picture.
    fn keep(&self, kept: Kept) -> Arc<Kept> {
        let kept = Arc::new(kept);
        let mut pictures = held(&self.pictures);
        pictures.retain(|one| one.id != kept.id);
        pictures.push(Arc::clone(&kept));
        while pictures.len() > 2
            && (pictures.len() > PICTURES || pictures.iter().map(|one| one.bytes()).sum::<usize>() > ROOM)
        {
            pictures.remove(0);
        }
        kept
    }

    /// Whether a proof could be had finely without rendering anything.
    pub fn is_rendered(&self, proof: &Proof, longest: u32) -> bool {
        let size = Size::of_frame(longest, proof.proportion);
        let (scene, fine) = (&proof.staged.scene, Fineness::Fine);
        let rendered = held(&self.rendered);
        let lit = |source: &Source| {
            let same = |((of, at, how), light): &(Before, Source)| {
                *at == size && *how == fine && light == source && of == scene
            };
            rendered.lights.iter().any(|(key, _)| same(key))
        };
        let there = &proof.staged.there;
        let places = rendered
            .places
            .iter()
            .any(|(((of, at, how), places), _)| *at == size && *how == fine && places == there && of == scene);
        places && proof.staged.sources.iter().flatten().all(lit)
    }

    /// The layers of a proof: those that are there, and the others rendered.
    ///
    /// # Errors
    /// Where it was stopped.
    fn layers(&self, proof: &Proof, asked: &Asked, work: &Work) -> Result<(Size, Layers), Superseded> {
        let size = Size::of_frame(asked.longest, proof.proportion);
        let scene = &proof.staged.scene;
        let seen = self.on_shelf(|all| &mut all.seen, (scene.clone(), size), || Some(scene.seen(size)))?;
        let before = || (scene.clone(), size, asked.fineness);
        let lit = |source: &Option<Source>| {
            let Some(source) = source else { return Ok(None) };
            let make = || layer(scene, &seen, source, asked.fineness, work);
            self.on_shelf(|all| &mut all.lights, (before(), source.clone()), make).map(Some)
        };
        let lights = proof.staged.sources.iter().map(lit).collect::<Result<_, Superseded>>()?;
        let there = &proof.staged.there;
        let make = || there.layers(scene, &seen, asked.fineness, work);
        let places = self.on_shelf(|all| &mut all.places, (before(), there.clone()), make)?;
        Ok((size, Layers { lights, places }))
    }

    /// What stands on a shelf, or is made and put there.
    fn on_shelf<K: PartialEq, V>(
        &self,
        shelf: impl Fn(&mut Rendered) -> &mut Shelf<K, V>,
        key: K,
        make: impl FnOnce() -> Option<V>,
    ) -> Result<Arc<V>, Superseded> {
        let there = {
            let mut rendered = held(&self.rendered);
            let shelf = shelf(&mut rendered);
            let index = shelf.iter().rposition(|(one, _)| *one == key);
            index.map(|index| {
                let one = shelf.remove(index);
                let value = Arc::clone(&one.1);
                shelf.push(one);
                value
            })
        };
        if let Some(there) = there {
            return Ok(there);
        }
        let made = Arc::new(make().ok_or(Superseded)?);
        let mut rendered = held(&self.rendered);
        shelf(&mut rendered).push((key, Arc::clone(&made)));
        rendered.make_room();
        Ok(made)
    }
}

/// What a picture is called by: the same words give the same name.
fn named(words: &[&str]) -> String {
    let mut hasher = DefaultHasher::new();
    words.hash(&mut hasher);
    format!("{:016x}", hasher.finish())
}
