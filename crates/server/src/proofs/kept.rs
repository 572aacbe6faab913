//! What was rendered, as long as there is room for it.

use std::collections::{HashMap, HashSet};
use std::hash::{DefaultHasher, Hash as _, Hasher as _};
use std::sync::{Arc, Mutex, PoisonError};

use tolva_core::frame::Photo;
use tolva_core::proof::{Fineness, Layer, Picture, Scene, Seen, Size, Source, There, Work, layers, layers_of};
use tolva_pictures::Taken;
use tolva_planner::proof::{Behind, Layers, Moves, Proof, Staged, Weights};
use tolva_planner::setup::Setup;
use tolva_wording::ProofReport;

use super::taken;

/// So much is kept, in bytes, whatever it is of: some setups on a screen, or the layers of one large picture.
const ROOM: usize = 192 * 1024 * 1024;
/// Of this many sets what the lens sees is kept. It takes more room than all layers of a set together, and is used again only
/// when a light was moved.
const SEEN: usize = 2;
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
    asking: Mutex<HashMap<String, (Arc<Work>, usize)>>,
}

/// Something that was rendered, by what it depends on.
#[derive(Debug)]
struct Entry<K, V> {
    key: K,
    value: Arc<V>,
    /// When it was asked for last, counted in what was asked for.
    asked_at: u64,
}

type Shelf<K, V> = Vec<Entry<K, V>>;
/// What every layer depends on, as it is kept.
type OwnedBefore = (Scene, Size, Fineness);

/// What every layer depends on.
#[derive(Clone, Copy)]
struct Before<'a> {
    scene: &'a Scene,
    size: Size,
    how: Fineness,
}

impl Before<'_> {
    fn is(&self, (scene, size, how): &OwnedBefore) -> bool {
        self.size == *size && self.how == *how && self.scene == scene
    }

    fn owned(&self) -> OwnedBefore {
        (self.scene.clone(), self.size, self.how)
    }
}

/// What was rendered, and the pictures made of it.
#[derive(Debug, Default)]
struct Rendered {
    seen: Shelf<(Scene, Size), Seen>,
    lights: Shelf<(OwnedBefore, Source), Layer>,
    places: Shelf<(OwnedBefore, There), Vec<Layer>>,
    pictures: Shelf<String, Kept>,
    /// How often something was asked for.
    asked: u64,
}

fn bytes_of(layer: &Layer) -> usize {
    layer.pixels.capacity() * size_of::<[f32; 3]>()
}

impl Rendered {
    /// What all of it takes; a layer that pictures were made of is kept once, with them.
    fn bytes(&self) -> usize {
        let mut counted = HashSet::new();
        let mut once = |layer: *const Layer, bytes: usize| if counted.insert(layer) { bytes } else { 0 };
        let mut of_light = |one: &Arc<Layer>| once(Arc::as_ptr(one), bytes_of(one));
        let shown = self.pictures.iter().flat_map(|one| one.value.layers.lights.iter().flatten());
        let lights: usize = self.lights.iter().map(|one| &one.value).chain(shown).map(&mut of_light).sum();
        let mut of_places = |all: &Arc<Vec<Layer>>| once(all.as_ptr(), all.iter().map(bytes_of).sum());
        let shown = self.pictures.iter().map(|one| &one.value.layers.places);
        let places: usize = self.places.iter().map(|one| &one.value).chain(shown).map(&mut of_places).sum();
        let seen: usize = self.seen.iter().map(|one| one.value.bytes()).sum();
        let pictures = self.pictures.iter().map(|one| &one.value.picture.pixels);
        seen + lights + places + pictures.map(|all| all.capacity() * size_of::<[f32; 3]>()).sum::<usize>()
    }

    /// Lets go what was asked for longest ago, until so many bytes more have room; the last picture stays.
    fn make_room(&mut self, more: usize) {
        while self.seen.len() > SEEN
            && let Some(age) = oldest(&self.seen)
        {
            self.seen.retain(|one| one.asked_at != age);
        }
        while self.pictures.len() > PICTURES
            && let Some(age) = oldest(&self.pictures)
        {
            self.pictures.retain(|one| one.asked_at != age);
        }
        while self.bytes() + more > ROOM {
            let pictures = &self.pictures[..self.pictures.len().saturating_sub(1)];
            let ages = [oldest(&self.seen), oldest(&self.lights), oldest(&self.places), oldest(pictures)];
            let Some(age) = ages.into_iter().flatten().min() else { return };
            self.seen.retain(|one| one.asked_at != age);
            self.lights.retain(|one| one.asked_at != age);
            self.places.retain(|one| one.asked_at != age);
            self.pictures.retain(|one| one.asked_at != age);
        }
    }
}

/// When what was asked for longest ago on a shelf was asked for.
fn oldest<K, V>(shelf: &[Entry<K, V>]) -> Option<u64> {
    shelf.iter().map(|one| one.asked_at).min()
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
        self.find(|all| &mut all.pictures, |key| key == id)
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
            let place = |thing: u32| proof.staged.place.get(thing as usize).copied().unwrap_or(false);
            let of_place = |thing: Option<u32>| thing.is_none_or(place);
            let parts =
                if is_large(size) { scene.parts(size, of_place) } else { self.seen(scene, size).parts(of_place) };
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
        let kept = Kept { id: id.clone(), size, picture, layers, weights, setup, settings, caption, taken };
        Ok(self.put(|all| &mut all.pictures, id, kept))
    }

    /// Whether a proof could be had finely without rendering anything.
    pub fn is_rendered(&self, proof: &Proof, longest: u32) -> bool {
        let before =
            Before { scene: &proof.staged.scene, size: Size::of_frame(longest, proof.proportion), how: Fineness::Fine };
        let rendered = held(&self.rendered);
        let lit = |source: &Source| rendered.lights.iter().any(|one| before.is(&one.key.0) && one.key.1 == *source);
        let places = rendered.places.iter().any(|one| before.is(&one.key.0) && one.key.1 == proof.staged.there);
        places && proof.staged.sources.iter().flatten().all(lit)
    }

    /// The layers of a proof: those that are there, and the others rendered.
    ///
    /// # Errors
    /// Where it was stopped.
    fn layers(&self, proof: &Proof, asked: &Asked, work: &Work) -> Result<(Size, Layers), Superseded> {
        let size = Size::of_frame(asked.longest, proof.proportion);
        let Staged { scene, sources, there, .. } = &proof.staged;
        let before = Before { scene, size, how: asked.fineness };
        let of_light = |source: &Source| self.find(|all| &mut all.lights, |key| before.is(&key.0) && key.1 == *source);
        let mut lights: Vec<Option<Arc<Layer>>> =
            sources.iter().map(|source| source.as_ref().and_then(of_light)).collect();
        let places = self.find(|all| &mut all.places, |key| before.is(&key.0) && key.1 == *there);
        let is_missing = |index: &usize| sources[*index].is_some() && lights[*index].is_none();
        let missing: Vec<usize> = (0..sources.len()).filter(is_missing).collect();
        if let (true, Some(places)) = (missing.is_empty(), &places) {
            return Ok((size, Layers { lights, places: Arc::clone(places) }));
        }
        let to_render: Vec<&Source> = missing.iter().filter_map(|index| sources[*index].as_ref()).collect();
        let missing_there = if places.is_none() { Some(there) } else { None };
        let many = to_render.len() + missing_there.map_or(0, |there| there.places.len());
        held(&self.rendered).make_room(many * size.count() * size_of::<[f32; 3]>());
        let lit = (to_render.as_slice(), missing_there);
        let rendered = if is_large(size) {
            layers(scene, size, lit, asked.fineness, work)
        } else {
            layers_of(scene, &self.seen(scene, size), lit, asked.fineness, work)
        };
        let (of_lights, of_places) = rendered.ok_or(Superseded)?;
        for ((index, source), layer) in missing.into_iter().zip(to_render).zip(of_lights) {
            let key = (before.owned(), source.clone());
            lights[index] = Some(self.put(|all| &mut all.lights, key, layer));
        }
        let places = match places {
            Some(places) => places,
            None => self.put(|all| &mut all.places, (before.owned(), there.clone()), of_places),
        };
        Ok((size, Layers { lights, places }))
    }

    /// What the lens sees in a picture that is not large.
    fn seen(&self, scene: &Scene, size: Size) -> Arc<Seen> {
        let there = self.find(|all| &mut all.seen, |key| key.1 == size && key.0 == *scene);
        there.unwrap_or_else(|| self.put(|all| &mut all.seen, (scene.clone(), size), scene.seen(size)))
    }

    /// What stands on a shelf. It goes last from now on.
    fn find<K, V>(&self, shelf: impl Fn(&mut Rendered) -> &mut Shelf<K, V>, is: impl Fn(&K) -> bool) -> Option<Arc<V>> {
        let mut rendered = held(&self.rendered);
        rendered.asked += 1;
        let asked_at = rendered.asked;
        let found = shelf(&mut rendered).iter_mut().rfind(|one| is(&one.key))?;
        found.asked_at = asked_at;
        Some(Arc::clone(&found.value))
    }

    /// Puts something on a shelf.
    fn put<K: PartialEq, V>(&self, shelf: impl Fn(&mut Rendered) -> &mut Shelf<K, V>, key: K, value: V) -> Arc<V> {
        let value = Arc::new(value);
        let mut rendered = held(&self.rendered);
        rendered.asked += 1;
        let asked_at = rendered.asked;
        let entries = shelf(&mut rendered);
        entries.retain(|one| one.key != key);
        entries.push(Entry { key, value: Arc::clone(&value), asked_at });
        rendered.make_room(0);
        value
    }
}

/// Whether a picture is rendered in several bands: what the lens sees in it is not kept.
fn is_large(size: Size) -> bool {
    size.bands().len() > 1
}

/// What a picture is called by: the same words give the same name.
fn named(words: &[&str]) -> String {
    let mut hasher = DefaultHasher::new();
    words.hash(&mut hasher);
    format!("{:016x}", hasher.finish())
}
