//! What cards do to daylight: reflectors throw sun and sky onto a face, diffusers and black cards take it away.
//!
//! The sun is counted by its disc, the sky as even, as in the model of daylight that the face is lit by. One bounce.

use std::sync::Arc;

use tolva_core::ambient::{AtSubject, LightNow, Role, Scene, SceneLight};
use tolva_core::scale::Stops;
use tolva_core::set::{
    Lustre, Mirror, Panel, Patch, Point, Receptor, SUN_DEG, Solid, Vector, form_factor, mirrored, patches, sides,
    stopped,
};

use super::bearings::towards_sun;
use super::stage::{Stage, Thing};
use crate::setup::{Card, CardKind};

/// Daylight on a set: the scene, its light over time, and its light at an instant.
#[derive(Clone, Copy, Debug)]
pub struct DaylightOnSet<'a> {
    /// Where and when.
    pub scene: &'a Scene,
    /// Its light over time.
    pub light: &'a SceneLight,
    /// Its light at the instant.
    pub now: &'a LightNow,
}

/// The cards of a set in daylight, and what stands around them: the same for every region.
#[derive(Debug)]
pub struct CardsOutdoors {
    light: SceneLight,
    facing_deg: f64,
    cards: Vec<CardOutdoors>,
}

#[derive(Debug)]
struct CardOutdoors {
    kind: CardKind,
    panel: Panel,
    patches: Vec<Patch>,
    /// What keeps light off but for the card itself.
    others: Vec<Solid>,
}

/// What the cards do to one region.
#[derive(Clone, Debug)]
pub struct CardsOnRegion {
    cards: Arc<CardsOutdoors>,
    role: Role,
    receptor: Receptor,
    views: Vec<CardView>,
}

/// A card as one region sees it.
#[derive(Clone, Debug)]
struct CardView {
    /// The part of what the region sees that the card's front and its back hide.
    front: f64,
    back: f64,
    /// Which of its patches the region sees.
    clear: Vec<bool>,
}

/// Cards are cut into patches of about this size, in metres.
const PATCH_M: f64 = 0.15;
/// Length of a ray towards the sun, in metres: longer than any set.
const SUN_M: f64 = 60.0;
/// Samples of the sun's disc: its centre, and this many points on a ring at this fraction of its radius (equal areas).
const DISC: (u32, f64) = (6, 0.75);
/// At most this part of a region's light is taken for sun: the sky is never nothing.
const MOST_SUN: f64 = 0.98;
/// A region keeps this part of its light at least. Chosen.
const DARKEST: f64 = 1.0 / 256.0;
/// The meter constant of a flat receptor, as the model of daylight has it. Source: ISO 2720.
const FLAT: f64 = 250.0;

impl CardsOutdoors {
    /// The cards of a set; nothing where it has none.
    pub fn of(stage: &Stage, scene: &Scene, light: &SceneLight) -> Option<Arc<Self>> {
        let card = |card: &Card| {
            let others = stage.solids_but(&Thing::Card(card.id.clone()));
            CardOutdoors { kind: card.kind, panel: card.panel(), patches: patches(&[card.matt()], PATCH_M), others }
        };
        let cards: Vec<CardOutdoors> = stage.laid.set.cards.iter().map(card).collect();
        let is_daylight = light.is_daylight() && stage.laid.set.openings.is_empty();
        let outdoors = || Arc::new(Self { light: light.clone(), facing_deg: scene.facing_deg, cards });
        (is_daylight && !stage.laid.set.cards.is_empty()).then(outdoors)
    }

    /// The same, as a region sees them.
    pub fn on_region(self: &Arc<Self>, role: Role, receptor: Receptor) -> CardsOnRegion {
        let view = |card: &CardOutdoors| {
            let front = form_factor(&card.panel, &receptor, &card.others);
            let back = form_factor(&card.panel.back(), &receptor, &card.others);
            let clear = card.patches.iter().map(|patch| !stopped(&card.others, patch.at, receptor.at)).collect();
            CardView { front, back, clear }
        };
        let views = self.cards.iter().map(view).collect();
        CardsOnRegion { cards: Arc::clone(self), role, receptor, views }
    }
}

/// The ways to the sun's disc, each standing for the same part of it.
fn disc(to_sun: Vector) -> impl Iterator<Item = Vector> {
    let (right, up) = sides(to_sun, 0.0);
    let radius = (SUN_DEG / 2.0).to_radians().tan() * DISC.1;
    let ring = (0..DISC.0).map(move |index| {
        let (sin, cos) = (std::f64::consts::TAU * f64::from(index) / f64::from(DISC.0)).sin_cos();
        (to_sun + (right * cos + up * sin) * radius).normalize()
    });
    std::iter::once(to_sun).chain(ring)
}

/// Mean of some transmittances; 0 without any.
fn part_of(ways: impl Iterator<Item = f64>) -> f64 {
    let (mut sum, mut count) = (0.0, 0.0);
    for way in ways {
        sum += way;
        count += 1.0;
    }
    if count > 0.0 { sum / count } else { 0.0 }
}

impl CardOutdoors {
    /// What falls on its front from sky and ground, in lux: it sees so much of each by its tilt.
    fn sky_lux(&self, at: AtSubject, sun_altitude_deg: f64) -> f64 {
        let up = self.panel.normal.z;
        let on_ground = at.sky_lux + at.direct_lux * sun_altitude_deg.to_radians().sin().max(0.0);
        at.sky_lux * f64::midpoint(1.0, up) + at.ground * on_ground * f64::midpoint(1.0, -up)
    }

    /// What each of its patches gets of the sun, in parts of what falls on a face turned to it; on the side that is lit.
    fn sun_on(&self, patch: &Patch, to_sun: Vector, solids: &[Solid]) -> f64 {
        let cosine = patch.normal.dot(to_sun);
        let lit = if self.kind == CardKind::Diffuser { cosine.abs() } else { cosine.max(0.0) };
        let at = patch.at + to_sun * 1e-3;
        if lit > 0.0 && !stopped(solids, at, patch.at + to_sun * SUN_M) { lit } else { 0.0 }
    }
}

impl CardsOnRegion {
    /// What the cards do to the region's light at an instant, in stops.
    pub fn by(&self, now: &LightNow) -> Stops {
        let without = now.of(self.role).lux(FLAT);
        let CardsOutdoors { light, facing_deg, cards, .. } = &*self.cards;
        if without <= 0.0 || light.is_sky_behind(self.role) {
            return Stops::ZERO;
        }
        let at = light.at_subject(now);
        let to_sun = towards_sun(now.sun, *facing_deg);
        let straight = (at.direct_lux * self.receptor.weight(to_sun)).min(MOST_SUN * without);
        let rest = without - straight;
        let through = part_of(disc(to_sun).map(|way| self.sun_through(way)));
        let mut hidden = 0.0;
        let mut given = 0.0;
        for (card, view) in cards.iter().zip(&self.views) {
            let both = view.front + view.back;
            hidden += match card.kind {
                CardKind::Diffuser => both * (1.0 - card.kind.reflectance()),
                _ => both,
            };
            given += match card.kind {
                // What it lets through of the sky stays; what it scatters of the sun is beside that.
                CardKind::Diffuser => self.scattered(card, view, (at, to_sun), 0.0),
                // Its image of the sky is as bright as the sky it hides.
                CardKind::Mirror => {
                    let sky = rest * view.front * card.kind.reflectance();
                    sky + at.direct_lux * card.kind.reflectance() * self.sun_in_mirror(card, to_sun)
                }
                _ => {
                    let sky_lux = card.sky_lux(at, now.sun.apparent_altitude_deg);
                    let sky = card.kind.reflectance() * view.front * sky_lux;
                    self.scattered(card, view, (at, to_sun), sky)
                }
            };
        }
        let with = straight * through + rest * (1.0 - hidden.min(1.0)) + given;
        Stops::of_ratio((with / without).max(DARKEST))
    }

    /// The part of the sun that comes past the cards this way: a diffuser takes its rated loss, any other card all.
    fn sun_through(&self, way: Vector) -> f64 {
        let (from, to) = (self.receptor.at, self.receptor.at + way * SUN_M);
        let crossed = self.cards.cards.iter().filter(|card| Solid::Panel(card.panel).stops(from, to));
        crossed.map(|card| if card.kind == CardKind::Diffuser { card.kind.reflectance() } else { 0.0 }).product()
    }

    /// What a card scatters onto the region: of the sun, patch by patch, and this much of the sky.
    fn scattered(
        &self,
        card: &CardOutdoors,
        view: &CardView,
        (at, to_sun): (AtSubject, Vector),
        of_sky_lux: f64,
    ) -> f64 {
        if at.direct_lux <= 0.0 || to_sun.z <= 0.0 {
            return of_sky_lux;
        }
        let (far, to) = (to_sun * 1e6, self.receptor.at + to_sun * SUN_M);
        // In the sun's line a diffuser lets its part straight through: that is counted there.
        let in_line = card.kind == CardKind::Diffuser && Solid::Panel(card.panel).stops(self.receptor.at, to);
        if in_line {
            return of_sky_lux;
        }
        let lit = card.patches.iter().zip(&view.clear).filter(|(_, clear)| **clear);
        let of_sun: f64 = lit
            .map(|(patch, _)| {
                let lux = at.direct_lux * card.sun_on(patch, to_sun, &card.others);
                if lux <= 0.0 {
                    return 0.0;
                }
                let turned = if patch.lustre == Lustre::Through && patch.normal.dot(to_sun) > 0.0 {
                    Patch { normal: -patch.normal, ..*patch }
                } else {
                    *patch
                };
                lux * turned.given(patch.at + far, &self.receptor)
            })
            .sum();
        of_sky_lux + of_sun
    }

    /// What the region gets of the sun's image in a mirror, as a part of what falls on a face turned to the sun.
    fn sun_in_mirror(&self, card: &CardOutdoors, to_sun: Vector) -> f64 {
        if card.panel.normal.dot(to_sun) <= 0.0 || to_sun.z <= 0.0 {
            return 0.0;
        }
        let mirror = Mirror { panel: card.panel, reflectance: 1.0 };
        let one = |way: Vector| {
            let image = mirrored(way, card.panel.normal);
            let Some(at) = mirror.crossing(self.receptor.at, self.receptor.at + image * SUN_M) else { return 0.0 };
            let is_clear = |from: Point, to: Point| !stopped(&card.others, from, to);
            let arrives = is_clear(self.receptor.at, at) && is_clear(at, at + way * SUN_M);
            if arrives { self.receptor.weight(image) } else { 0.0 }
        };
        part_of(disc(to_sun).map(one))
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::lighting::Prepared;
    use crate::setup::{Kit, Setup};
    use proptest::prelude::*;
    use rstest::rstest;
    use tolva_core::ambient::Site;
    use tolva_core::exposure::Ev;
    use tolva_core::set::{Direction, between_deg};
    use tolva_core::time::LocalTime;

    /// 36° N, 15 April, 17:00: the sun is 26° high, behind the subject where they face away from it.
    fn outdoors(facing_from_sun_deg: f64) -> (Setup, Kit) {
        let kit = Kit::starter();
        let site = Site {
            name: String::new(),
            latitude_deg: 36.0,
            longitude_deg: 0.0,
            elevation_m: 0.0,
            time_zone: "Etc/UTC".into(),
        };
        let at = LocalTime { date: "2026-04-15".into(), time: "16:24".into(), second_time: false };
        let mut scene = Scene::new(site, at);
        let sun = SceneLight::new(&scene).map(|light| light.at(light.at).sun).expect("a good scene");
        assert!((sun.apparent_altitude_deg - 26.0).abs() < 1.0, "{sun:?}");
        scene.facing_deg = (sun.azimuth_deg + facing_from_sun_deg).rem_euclid(360.0);
        let mut setup = Setup { scene: Some(scene), ..Setup::new("one", &kit) };
        setup.use_set();
        (setup, kit)
    }

    fn ev(setup: &Setup, kit: &Kit, region: usize) -> f64 {
        Prepared::new(setup, kit).expect("a setup").ambient[region].0
    }

    /// Adds a card of 0.8 × 1.2 m: its offset from a point, and the direction it faces.
    fn hold(setup: &mut Setup, kind: CardKind, from: Point, way: Vector, looks: Vector) {
        let (at, looks) = (from + way, Direction::of(looks));
        let set = setup.set.as_mut().expect("used");
        set.cards.push(Card {
            id: format!("card-{}", set.cards.len()),
            name: String::new(),
            kind,
            x_m: at.x,
            y_m: at.y,
            z_m: at.z,
            facing_deg: looks.azimuth_deg,
            tilt_deg: looks.elevation_deg,
            width_m: 0.8,
            height_m: 1.2,
        });
    }

    fn lit_place(setup: &Setup, kit: &Kit) -> (usize, Receptor, Vector) {
        let prepared = Prepared::new(setup, kit).expect("a setup");
        let scene = prepared.scene.as_ref().expect("a scene");
        let to_sun = towards_sun(scene.now.sun, scene.scene.facing_deg);
        (prepared.lit, prepared.stage.as_ref().expect("used").receptors[prepared.lit], to_sun)
    }

    /// The back to the sun, a card 1 m before the face. Facing the sun squarely, matt white 0.8 × 1.2 m at 1 m gives the
    /// face 0.85 × its form factor of 0.23: a fifth of what the sun gives the card, a stop on a face 2½ stops under the
    /// sun. Half way between sun and face, a mirror or silver gives several.
    #[rstest]
    #[case::white(CardKind::White, 0.5, 1.3)]
    #[case::silver(CardKind::Silver, 1.0, 3.2)]
    #[case::gold(CardKind::Gold, 0.9, 3.2)]
    #[case::mirror(CardKind::Mirror, 1.8, 3.5)]
    #[case::black(CardKind::Black, -0.8, -0.05)]
    fn a_card_before_a_backlit_face(#[case] kind: CardKind, #[case] least: f64, #[case] most: f64) {
        let (mut setup, kit) = outdoors(180.0);
        let (lit, face, to_sun) = lit_place(&setup, &kit);
        let bare = ev(&setup, &kit, lit);
        let way = face.normal;
        // Half way between the sun and the face: it throws the sun there.
        hold(&mut setup, kind, face.at, way, (to_sun - way).normalize());
        let by = ev(&setup, &kit, lit) - bare;
        assert!((least..most).contains(&by), "{kind:?} {by}");
    }

    /// A white card facing the sun, 1 m in front of skin that sees no sun: reflectance × form factor × the sun on the card.
    #[test]
    fn white_gives_a_fifth_of_the_sun_on_it() {
        let (mut setup, kit) = outdoors(180.0);
        let (lit, face, to_sun) = lit_place(&setup, &kit);
        let prepared = Prepared::new(&setup, &kit).expect("a setup");
        let scene = prepared.scene.as_ref().expect("a scene");
        let (at, bare) = (scene.light.at_subject(&scene.now), prepared.ambient[lit].lux(FLAT));
        let (panel, normal) = (Panel::new(face.at + face.normal, to_sun, 0.8, 1.2), face.normal);
        let receptor = Receptor { normal, ..face };
        let wanted = at.direct_lux * 0.9 * form_factor(&panel, &receptor, &[]);
        hold(&mut setup, CardKind::White, face.at, face.normal, to_sun);
        let with = Prepared::new(&setup, &kit).expect("a setup").ambient[lit].lux(FLAT);
        // What it hides of the sky, and what it gives of it, come to less than a tenth.
        assert!((with - bare - wanted).abs() < 0.12 * bare, "{with} {bare} {wanted}");
        assert!(wanted > 0.05 * at.direct_lux);
    }

    /// In the sun's line: a diffuser takes its rated stop of the sun, black all of it.
    #[test]
    fn a_diffuser_takes_its_rated_loss_and_black_all() {
        let (setup, kit) = outdoors(0.0);
        let (lit, face, to_sun) = lit_place(&setup, &kit);
        let with = |kind: CardKind| {
            let mut setup = setup.clone();
            hold(&mut setup, kind, face.at, to_sun, -to_sun);
            ev(&setup, &kit, lit)
        };
        let prepared = Prepared::new(&setup, &kit).expect("a setup");
        let scene = prepared.scene.as_ref().expect("a scene");
        let whole = prepared.ambient[lit].lux(FLAT);
        let straight = scene.light.at_subject(&scene.now).direct_lux * face.normal.dot(to_sun).max(0.0);
        let shade = Ev::from_lux(whole - straight, FLAT).0;
        let bare = prepared.ambient[lit].0;
        assert!(bare - shade > 1.5, "most of it is sun: {bare} {shade}");
        let (diffuser, black) = (with(CardKind::Diffuser), with(CardKind::Black));
        assert!((0.8..1.1).contains(&(bare - diffuser)), "{bare} {diffuser}");
        assert!(black < shade && black > shade - 0.6, "{black} {shade}");
        assert!((with(CardKind::White) - with(CardKind::Silver)).abs() < 0.3, "the backs of both are dark");
    }

    /// The beam of a mirror moves with the sun: it hits, and half an hour later it does not.
    #[test]
    fn a_beam_moves() {
        let (mut setup, kit) = outdoors(180.0);
        let (lit, face, to_sun) = lit_place(&setup, &kit);
        let bare = Prepared::new(&setup, &kit).expect("good").light[lit].clone();
        hold(&mut setup, CardKind::Mirror, face.at, face.normal * 4.0, (to_sun - face.normal).normalize());
        let prepared = Prepared::new(&setup, &kit).expect("good");
        let scene = prepared.scene.as_ref().expect("a scene");
        let by = |minutes: i64| {
            let now = scene.light.at(scene.light.at + jiff::SignedDuration::from_mins(minutes));
            (prepared.light[lit].there(Some(&now)) - bare.there(Some(&now))).0
        };
        assert!(by(0) > 1.0, "{}", by(0));
        assert!(by(60) < 0.1 && by(-60) < 0.1, "{} {}", by(60), by(-60));
    }

    /// The sky behind is the sky, whatever is held up.
    #[test]
    fn the_sky_behind_knows_no_card() {
        let (mut setup, kit) = outdoors(180.0);
        setup.scene.as_mut().expect("one").background.what = tolva_core::ambient::BackgroundKind::Sky;
        let background = Prepared::new(&setup, &kit).expect("good").background;
        let bare = ev(&setup, &kit, background);
        let (_, face, to_sun) = lit_place(&setup, &kit);
        hold(&mut setup, CardKind::Silver, face.at, face.normal, to_sun);
        assert!((ev(&setup, &kit, background) - bare).abs() < 1e-9);
    }

    proptest! {
        #![proptest_config(ProptestConfig::with_cases(48))]

        /// Anywhere, any way up, at any hour: a number, never darker than nothing is, never brighter than the sun and its
        /// image together; black never adds.
        #[test]
        fn cards_anywhere(
            turned in 0.0..360.0_f64, x in -2.0..2.0_f64, y in -2.0..2.0_f64, z in -1.0..1.0_f64,
            azimuth in 0.0..360.0_f64, tilt in -90.0..=90.0_f64, hour in 0_u32..24, kind in 0_usize..6,
        ) {
            let (mut setup, kit) = outdoors(turned);
            setup.scene.as_mut().expect("one").at.time = format!("{hour:02}:10");
            let (lit, face, _) = lit_place(&setup, &kit);
            let bare = ev(&setup, &kit, lit);
            let kind = [CardKind::White, CardKind::Silver, CardKind::Gold, CardKind::Black, CardKind::Diffuser,
                CardKind::Mirror][kind];
            hold(&mut setup, kind, face.at, Vector::new(x, y, z), Direction::new(azimuth, tilt).vector());
            let by = ev(&setup, &kit, lit) - bare;
            prop_assert!(by.is_finite() && (-8.1..7.0).contains(&by), "{kind:?} {by}");
            prop_assert!(kind != CardKind::Black || by < 0.02, "{by}");
        }
    }

    /// The sun is no point, and no wider than it is.
    #[test]
    fn a_disc_is_round_the_sun() {
        let to_sun = Direction::new(200.0, 26.0).vector();
        let ways: Vec<Vector> = disc(to_sun).collect();
        assert_eq!(ways.len(), 7);
        assert!(ways.iter().all(|way| between_deg(*way, to_sun) < SUN_DEG / 2.0));
        assert!((part_of([1.0, 0.0].into_iter()) - 0.5).abs() < 1e-12 && part_of(std::iter::empty()) == 0.0);
    }
}
