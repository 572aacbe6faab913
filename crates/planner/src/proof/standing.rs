//! What stands before the lens of a setup.

use tolva_core::colour::{Balanced, NamedLight, Shift};
use tolva_core::glass::{Glazing, Pane};
use tolva_core::proof::{Beyond, Coat, Figure, Gloss, Hair, Look, Place, Scene, Shape, Source, There, Thing, Vec3A};
use tolva_core::scale::Metres;
use tolva_core::set::{Mirror, Panel, Patch, Point, Solid};

use crate::lighting::Prepared;
use crate::set::distances_of;
use crate::setup::{Card, CardKind, Finish, Kit, Opening, Person, Product, RegionPlace};
use crate::solver::Outcome;
use crate::staging::{Laid, Photographer, Stage, Thing as OnSet, towards_sun};
use tolva_core::ambient::{BackgroundKind, Surroundings};

/// The ground where nobody has said what it is like. Common practice, no source.
const GROUND: f32 = 0.2;
/// What stands behind a subject in a room that is not drawn: so wide and high, in metres, of mid grey. Chosen.
const BACKDROP_M: (f64, f64) = (9.0, 4.5);
/// Of the sky's light on the level, what falls on what looks up by the proof's own measure.
const SKY_UP: f64 = 0.85;

/// A setup ready to be rendered.
#[derive(Clone, Debug, PartialEq)]
pub struct Staged {
    /// What stands before the lens.
    pub scene: Scene,
    /// The lights, as the setup lists them; nothing for one that is off or burns on.
    pub sources: Vec<Option<Source>>,
    /// The light that is there.
    pub there: There,
    /// Which things are of the place itself, by their index in the scene: floor, walls, what stands for what lies behind. A
    /// photo of the place takes their place.
    pub place: Vec<bool>,
}

fn single(point: Point) -> Vec3A {
    point.as_vec3a()
}

#[expect(clippy::cast_possible_truncation, reason = "single precision is enough for a picture")]
fn f(value: f64) -> f32 {
    value as f32
}

/// A surface's colour, by how it shifts white light.
fn tinted(reflectance: f64, shift: Shift) -> [f32; 3] {
    let daylight = NamedLight::Daylight.light();
    let seen = Balanced::on(daylight.xy()).renders(daylight.shifted(shift).xy().xyz());
    let own = seen.0.map(|part| f(part.max(0.02)));
    let scale = f(reflectance) / tolva_core::proof::luminance(own);
    own.map(|part| (part * scale).min(0.97))
}

impl Staged {
    /// A setup as it came out.
    pub fn of(prepared: &Prepared<'_>, outcome: &Outcome, kit: &Kit) -> Self {
        let setup = prepared.setup;
        let stage = prepared.stage.as_deref().cloned().unwrap_or_else(|| Stage::of(setup, kit));
        let away = distances_of(prepared, Some(outcome));
        let mut things = Things::default();
        let set = &stage.laid.set;
        for (index, person) in set.people.iter().enumerate() {
            let (shape, coat) = figure(person, index);
            things.add(OnSet::Person(person.id.clone()), shape, coat);
        }
        for product in &set.products {
            things.product(product);
        }
        for card in set.cards.iter().filter(|card| card.kind != CardKind::Mirror) {
            things.add(OnSet::Card(card.id.clone()), card.panel().into(), coat_of(card));
        }
        for (thing, matt, shift) in &stage.surfaces {
            if matches!(thing, OnSet::Wall(_) | OnSet::Ceiling) {
                things.add(thing.clone(), matt.panel.into(), Coat::matt(tinted(matt.reflectance, *shift)));
            }
        }
        let floor = set.floor.map_or([GROUND; 3], |floor| tinted(floor.reflectance, floor.colour.shift()));
        things.add(OnSet::Floor, Shape::Ground, Coat::matt(floor));
        let beyond = beyond(prepared);
        things.backdrop(prepared, &stage, beyond);
        let before = |of: &OnSet| matches!(of, OnSet::Person(_) | OnSet::Product(_) | OnSet::Card(_));
        let place = things.of.iter().map(|of| !before(of)).chain([false]).collect();
        let mut all = things.all;
        all.push(photographer(&stage));
        let panes = set.panes.iter().map(crate::setup::Pane::pane);
        let mirrors = set.cards.iter().filter(|card| card.kind == CardKind::Mirror);
        let mirrors = mirrors.map(|card| Pane { panel: card.panel(), glazing: Glazing::Mirror });
        let scene = Scene { view: stage.view, things: all, panes: panes.chain(mirrors).collect() };
        let patches: Vec<Patch> = stage.patches().to_vec();
        let mirrors: Vec<Mirror> = stage.mirrors(|_| true).map(|(_, mirror)| mirror).collect();
        let lit = |light| prepared.flash_of(light).is_some_and(|flash| outcome.lights[flash].is_some());
        let sources = (away.each())
            .map(|(light, away)| {
                lit(light).then(|| {
                    let (glow, patches, mirrors) = (stage.glow(light, Metres(away)), patches.clone(), mirrors.clone());
                    Source { lit: stage.lit(&glow), glow, patches, mirrors }
                })
            })
            .collect();
        let there = there(prepared, &stage, &things.of, beyond);
        Self { scene, sources, there, place }
    }
}

/// Things with what they are on the set.
#[derive(Default)]
struct Things {
    all: Vec<Thing>,
    of: Vec<OnSet>,
}

impl Things {
    fn add(&mut self, of: OnSet, shape: Shape, coat: Coat) {
        self.all.push(Thing { shape, coat, casts: true });
        self.of.push(of);
    }

    fn product(&mut self, product: &Product) {
        let coat = match product.finish {
            Finish::Matt => Coat::matt([0.30, 0.27, 0.23]),
            Finish::Satin => Coat { albedo: [0.24, 0.22, 0.20], gloss: Gloss::Soft { straight: 0.06, narrow: 60.0 } },
            Finish::Mirror => Coat { albedo: [0.05; 3], gloss: Gloss::Mirror(f(crate::staging::MIRROR_FINISH)) },
        };
        let foot = Vec3A::new(f(product.x_m), f(product.y_m), f(product.table_m));
        self.add(OnSet::Product(product.id.clone()), product.solid().into(), coat);
        if let Some(half_m) = product.table() {
            // A plain table; what lights a set goes past it, as in the plan.
            let wide = f(half_m);
            let top = Shape::Solid(Solid::Crate {
                centre: foot - Vec3A::Z * 0.021,
                halves: [Vec3A::X * (wide * 1.3), Vec3A::Y * wide, Vec3A::Z * 0.02],
            });
            let coat = Coat::matt([0.20, 0.16, 0.12]);
            self.all.push(Thing { shape: top, coat, casts: false });
            self.of.push(OnSet::Product(String::new()));
        }
    }

    /// In a room nobody has drawn, and where a light is aimed at what lies behind, something stands there to be lit.
    fn backdrop(&mut self, prepared: &Prepared<'_>, stage: &Stage, beyond: Beyond) {
        let behind = &stage.receptors[prepared.background];
        let drawn = matches!(stage.laid.regions[prepared.background], RegionPlace::Point { .. });
        let aimed = prepared.lights.iter().any(|light| light.aimed_at == prepared.background);
        let upright = behind.normal.z.abs() < 0.5;
        if drawn && upright && stage.laid.set.walls.is_empty() && (beyond == Beyond::Room || aimed) {
            let (width, height) = BACKDROP_M;
            let at = behind.at - behind.normal * 0.01;
            let panel = Panel::new(Point::new(at.x, at.y, height / 2.0), behind.normal, width, height);
            let (shape, coat) = (panel.into(), Coat::matt([tolva_core::proof::MID_GREY; 3]));
            let id = prepared.setup.regions[prepared.background].id.clone();
            self.all.push(Thing { shape, coat, casts: false });
            self.of.push(OnSet::Region(id));
        }
    }
}

fn figure(person: &Person, index: usize) -> (Shape, Coat) {
    let (head, _) = person.head();
    let hair = Hair::ALL[index % Hair::ALL.len()];
    let look = Look { skin: person.skin, clothes: person.clothes, hair: u8::try_from(index % 4).unwrap_or(0) };
    let figure = Figure {
        foot: Vec3A::new(f(head.x), f(head.y), 0.0),
        ahead: single(person.looks()),
        height_m: f(person.height_m),
        seated: person.seated,
        hair,
        look,
    };
    (Shape::Figure(figure), Coat::matt([0.0; 3]))
}

/// Whoever stands behind the camera, as a mirror shows them.
fn photographer(stage: &Stage) -> Thing {
    let Photographer { foot, ahead, tall_m } = Photographer::behind(stage.camera(), stage.view.forward);
    let figure = Figure {
        foot: single(foot),
        ahead: single(ahead),
        height_m: f(tall_m),
        seated: false,
        hair: Hair::Short,
        look: Look { clothes: tolva_core::proof::Clothes::Dark, ..Look::default() },
    };
    Thing { shape: Shape::Figure(figure), coat: Coat::matt([0.0; 3]), casts: false }
}

fn coat_of(card: &Card) -> Coat {
    let gloss = match card.kind {
        CardKind::Silver | CardKind::Gold => Gloss::Soft { straight: 0.4, narrow: 25.0 },
        _ => Gloss::None,
    };
    let reflectance = if card.kind == CardKind::Diffuser { 0.6 } else { card.kind.reflectance().min(0.92) };
    Coat { albedo: tinted(reflectance, card.kind.shift()), gloss }
}

/// Outdoors there is a sky, under lamps a room.
fn beyond(prepared: &Prepared<'_>) -> Beyond {
    let outdoors =
        prepared.scene.as_ref().is_some_and(|scene| !matches!(scene.scene.surroundings, Surroundings::Artificial(_)));
    let no_windows = prepared.stage.as_ref().is_none_or(|stage| stage.laid.set.openings.is_empty());
    if outdoors && no_windows { Beyond::Open } else { Beyond::Room }
}

fn there(prepared: &Prepared<'_>, stage: &Stage, of: &[OnSet], beyond: Beyond) -> There {
    let places: Vec<Place> = (0..stage.receptors.len())
        .map(|region| {
            let things = (0_u32..).zip(of).filter(|(_, thing)| stands_for(prepared, &stage.laid, region, thing));
            Place { receptor: stage.receptors[region], things: things.map(|(index, _)| index).collect() }
        })
        .collect();
    let lit = stage.receptors[prepared.lit];
    let sun = prepared.scene.as_ref().and_then(|scene| {
        let tolva_core::ambient::AtSubject { direct_lux: direct, sky_lux: sky, .. } =
            scene.light.at_subject(&scene.now);
        let to_sun = towards_sun(scene.now.sun, scene.scene.facing_deg);
        // The plan has the sun on the lit side, or it has none.
        (direct > 0.05 * sky && lit.normal.dot(to_sun) > 0.05)
            .then(|| (single(to_sun), f(direct / sky.max(1.0) * SKY_UP)))
    });
    let depth = stage.receptors[prepared.background].at.distance(lit.at).max(1.0);
    let ground = prepared.scene.as_ref().is_some_and(|scene| scene.scene.background.what == BackgroundKind::Ground);
    There {
        sun,
        windows: stage.laid.set.openings.iter().map(Opening::glow).collect(),
        places,
        behind: prepared.background,
        main: (prepared.lit, prepared.shadow),
        depth_m: f(depth) * if ground { 0.7 } else { 1.0 },
        beyond,
    }
}

/// Whether a region says what light falls on a thing.
fn stands_for(prepared: &Prepared<'_>, laid: &Laid, region: usize, thing: &OnSet) -> bool {
    match (&laid.regions[region], thing) {
        (RegionPlace::Face { person_id, .. }, OnSet::Person(id)) => person_id == id,
        (RegionPlace::Product { product_id, .. }, OnSet::Product(id)) => product_id == id,
        (RegionPlace::Wall { wall_id }, OnSet::Wall(id)) => wall_id == id,
        (RegionPlace::Point { .. }, OnSet::Region(id)) => *id == prepared.setup.regions[region].id,
        _ => false,
    }
}
