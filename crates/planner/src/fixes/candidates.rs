//! What is worth trying where something is missing, and what can be done about it outside Tolva.

use super::{Fix, FixKind, Outside};
use crate::change::{Change, changed};
use crate::depth::Sharp;
use crate::lighting::{Prepared, PreparedLight};
use crate::place::wish_at;
use crate::plan::Plan;
use crate::setup::{Blend, Depth, Filter, Flash, Gel, Kit, LOWEST_PLACE, LightIndex, Modifier, Setup, Sync};
use crate::shortfall::Limit;
use crate::solver::{DialledLight, HALF_CLICK};
use crate::staging::shape;
use tolva_core::flash::GuideNumber;
use tolva_core::optics::Movement;
use tolva_core::scale::{DialEnd, Metres, Power, Setting, Shutter, Stops};

/// A light that is feathered farther than this hardly lights what it is aimed at any more. Common practice, no source.
const MOST_FEATHER_DEG: f64 = 75.0;

/// The lowest a blend puts the ambient on the subject, in stops: as its range says.
const LOWEST_AMBIENT: f64 = -8.0;
/// What sits on a camera's shoe is no larger than this, in metres, and no heavier, in kilograms. Common practice, no source.
const ON_CAMERA_M: f64 = 0.35;
const ON_CAMERA_KG: f64 = 0.6;
/// How much slower than safe a proposed shutter may be where something moves, in stops.
const MOST_SLOWER: f64 = 2.0;
/// A pose is held for so long at most, in seconds. Common practice, no source.
const LONGEST_POSE_S: f64 = 1.0;
/// How far over the highest acceptable a proposed ISO may be, in stops.
const MOST_OVER_ISO: f64 = 2.0;
/// A setup has so many lights at most, and its camera stands so far away.
const MOST_LIGHTS: usize = 8;
const FARTHEST_M: f64 = 200.0;

/// What may close the shortfalls of a setup as it came out.
pub struct Candidates<'a> {
    setup: &'a Prepared<'a>,
    plan: &'a Plan,
    kit: &'a Kit,
    /// Changes worth trying.
    pub changes: Vec<Change>,
    /// Things to do outside Tolva.
    pub outside: Vec<Fix>,
}

impl<'a> Candidates<'a> {
    pub fn of(setup: &'a Prepared<'a>, plan: &'a Plan, kit: &'a Kit) -> Self {
        let mut all = Self { setup, plan, kit, changes: Vec::new(), outside: Vec::new() };
        // By itself, what is done outside closes the shortfall where there is no other.
        let alone = plan.shortfalls.len() == 1;
        for shortfall in &plan.shortfalls {
            let missing = shortfall.missing;
            let of_light = shortfall.light.and_then(|index| setup.lights.iter().find(|light| light.index == index));
            match (shortfall.limit, of_light, shortfall.at) {
                (Limit::FlashTooWeak, Some(light), Some(at)) => {
                    all.too_weak(light, at);
                    if let Some(stronger) = stronger(light, at) {
                        all.outside(stronger, alone);
                    }
                }
                (Limit::FlashTooStrong, Some(light), Some(at)) => all.too_strong(light, at),
                (Limit::NoFlash, ..) if setup.setup.lights.len() < MOST_LIGHTS => all.changes.push(Change::AddFlash),
                (
                    Limit::FlashTooWeak
                    | Limit::FlashTooStrong
                    | Limit::ShutterOverSync
                    | Limit::NoHighSpeed
                    | Limit::NoFlash,
                    ..,
                ) => {}
                (Limit::AmbientTooBright, ..) => {
                    all.ambient_too_bright(missing);
                    all.outside(Outside::ShadeSubject(missing), alone);
                }
                (Limit::CameraTooBright, ..) => match all.filtered(missing) {
                    Some(change) => all.changes.push(change),
                    None => all.outside(Outside::DenserFilter(missing), true),
                },
                (Limit::CameraTooDark, ..) => all.too_dark(missing, alone),
                (Limit::NotASilhouette, ..) => all.outside(Outside::DarkenSubject(missing), alone),
                (limit @ (Limit::RegionOver | Limit::RegionUnder), light, _) => {
                    all.changes.extend(light.and_then(|light| all.accept(light)));
                    if let (Limit::RegionOver, Some(region)) = (limit, shortfall.region) {
                        all.outside(Outside::KeepSpillOff(region), false);
                    }
                }
                (Limit::TooShallow, ..) => all.too_shallow(),
            }
        }
        all.releases();
        all.changes.extend(all.other_sync());
        all
    }

    fn outside(&mut self, outside: Outside, closes: bool) {
        self.outside.push(Fix { what: FixKind::Outside(outside), closes });
    }

    fn too_weak(&mut self, light: &PreparedLight<'_>, at: DialledLight) {
        let light_id = || light.light.id.clone();
        let needed = light.gives(at.distance, at.exact);
        let power = light.power.unwrap_or(Power::FULL);
        if light.distance.is_some() && light.bounced.is_none() && !light.light.on_camera {
            // Rounded to nearer, so that it does close the shortfall.
            let exact = light.distance_giving(needed, power, Metres(0.1)..=at.distance);
            let nearer = Metres(((exact.0 * 20.0).floor() / 20.0).max(light.free_distances().start().0));
            if nearer.0 < at.distance.0 {
                self.changes.push(Change::MoveLight { light_id: light_id(), distance_m: nearer.0, nearer: true });
            }
        }
        if light.bounced.is_some() {
            self.changes.push(Change::RemoveBounce { light_id: light_id() });
        }
        self.swap_units(light, true);
        if light.light.units < 6 && light.power.is_none() && !light.light.on_camera {
            // As many as make up for what is missing, if that few do.
            let together = ((at.exact.0 - at.power.0).ratio() * f64::from(light.light.units)).ceil();
            if together <= 6.0 {
                #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "at most six")]
                let units = together as u8;
                self.changes.push(Change::ManyUnits { light_id: light_id(), units });
            }
        }
        self.swap_modifiers(light, |loss| loss < light.modifier_loss.0 - 0.01);
        if light.gel_loss.0 > 0.0 {
            self.changes.push(Change::RemoveGels { light_id: light_id() });
        }
    }

    /// A flash that gives too much even at its lowest power, as at dusk and indoors.
    fn too_strong(&mut self, light: &PreparedLight<'_>, at: DialledLight) {
        let light_id = || light.light.id.clone();
        let needed = light.gives(at.distance, at.exact);
        let power = light.power.unwrap_or(light.lowest);
        let over = at.power.0 - at.exact.0;
        if light.distance.is_some() && light.bounced.is_none() && !light.light.on_camera {
            let exact = light.distance_giving(needed, power, at.distance..=Metres(12.0));
            let farther = Metres((exact.0 * 20.0).ceil() / 20.0);
            self.changes.push(Change::MoveLight { light_id: light_id(), distance_m: farther.0, nearer: false });
        }
        match neutral_gels(light, self.kit, over) {
            Some(gel_ids) => self.changes.push(Change::AddNeutralGel { light_id: light_id(), gel_ids }),
            None => self.outside(Outside::NeutralGel { light_id: light_id(), stops: over }, false),
        }
        self.swap_modifiers(light, |loss| loss > light.modifier_loss.0 + 0.01);
        self.swap_units(light, false);
        if light.bounced.is_none() {
            let turned = light.feather_losing(over, at.distance);
            if turned <= MOST_FEATHER_DEG {
                self.changes.push(Change::FeatherLight { light_id: light_id(), feather_deg: turned.ceil() });
            }
            self.outside(Outside::Bounce { light_id: light_id(), stops: over }, false);
        }
        // A filter takes from flash and ambient alike; the ambient has it back by a slower shutter, or a higher ISO is
        // kept.
        self.changes.extend(self.filtered(over));
    }

    /// Other units of the kit that are stronger, or weaker.
    fn swap_units(&mut self, light: &PreparedLight<'_>, stronger: bool) {
        // What sits on the camera is no heavier than a camera carries.
        let fits = |flash: &&Flash| !light.light.on_camera || flash.weight_kg.is_none_or(|kg| kg <= ON_CAMERA_KG);
        for flash in self.kit.flashes.iter().filter(fits).filter(|flash| flash.id != light.flash.id) {
            let change = Change::ChangeUnit { light_id: light.light.id.clone(), flash_id: flash.id.clone() };
            let other = strength_with(self.setup.setup, &change, light.index, self.kit);
            if other.is_some_and(|other| (other > light.guide_number) == stronger) {
                self.changes.push(change);
            }
        }
    }

    /// Other modifiers of the kit whose loss is as asked.
    fn swap_modifiers(&mut self, light: &PreparedLight<'_>, asked: impl Fn(f64) -> bool) {
        let fits = |modifier: &Modifier| {
            let size = shape(Some(modifier)).0.largest().0;
            !light.light.on_camera || (size <= ON_CAMERA_M && modifier.weight_kg <= ON_CAMERA_KG)
        };
        let other = |modifier: &&Modifier| {
            Some(&modifier.id) != light.light.modifier_id.as_ref() && asked(modifier.loss_stops) && fits(modifier)
        };
        self.changes.extend(self.kit.modifiers.iter().filter(other).map(|modifier| {
            let (light_id, modifier_id) = (light.light.id.clone(), modifier.id.clone());
            Change::ChangeModifier { light_id, modifier_id }
        }));
    }

    fn ambient_too_bright(&mut self, over: Stops) {
        let ends = self.plan.outcome.regions[self.setup.lit].ambient.to_third().0.min(3.0);
        match self.setup.setup.blend {
            Blend::Lift { background_stops, .. } => {
                // A third under the subject's place leaves the flash something to do.
                let darker = (Stops(background_stops) - over - Stops(1.0 / 3.0)).to_third();
                self.changes.push(Change::PlaceBackground { stops: darker.0 });
                self.changes.push(Change::PlaceSubject { stops: ends });
            }
            Blend::Overpower { subject_stops, .. } => {
                let darker = (Stops(subject_stops) - Stops(2.0)).to_third();
                self.changes.push(Change::PlaceAmbient { stops: darker.0 });
            }
            Blend::HalfAndHalf { .. } | Blend::Fill { .. } | Blend::Silhouette { .. } | Blend::AmbientOnly { .. } => {}
        }
    }

    fn too_dark(&mut self, missing: Stops, alone: bool) {
        let (setup, settings) = (self.setup, self.plan.outcome.settings);
        if setup.density.0 > 0.0 {
            self.changes.push(Change::RemoveFilters);
        }
        // The subject comes first: what is behind may fall to where it comes anyway.
        let behind = self.plan.outcome.regions[setup.background].together.to_third().0;
        if let Blend::Lift { .. } | Blend::Silhouette { .. } = setup.setup.blend {
            self.changes.push(Change::PlaceBackground { stops: behind.max(LOWEST_PLACE) });
        }
        let ambient = self.plan.outcome.regions[setup.lit].ambient.to_third().0;
        if let Blend::Overpower { .. } | Blend::Fill { .. } = setup.setup.blend
            && ambient >= LOWEST_AMBIENT
        {
            self.changes.push(Change::PlaceAmbient { stops: ambient });
        }
        let subject = self.plan.outcome.regions[setup.lit].together.to_third().0;
        if let Blend::AmbientOnly { .. } = setup.setup.blend {
            self.changes.push(Change::PlaceSubject { stops: subject.max(LOWEST_PLACE) });
        }
        if setup.shutter.is_none() {
            let position = settings.shutter.position() - missing - Stops(1.0 / 6.0);
            let slower: Setting<Shutter> = setup.shutters.nearest(position);
            // Of what moves, a little slower is worth a try; much slower is another picture.
            let slow_enough = match setup.setup.speed.movement {
                Movement::Still => true,
                Movement::HeldPose => slower.nominal <= LONGEST_POSE_S,
                _ => false,
            };
            if slow_enough || (setup.slowest.position() - slower.position()).0 <= MOST_SLOWER {
                self.changes.push(Change::AllowSlowerShutter { shutter_s: slower.nominal });
            }
        }
        let highest = setup.isos.end(DialEnd::High);
        let over = (settings.iso.position() + missing - highest.position()).0;
        if setup.iso.is_none() && over > 0.0 && over <= MOST_OVER_ISO {
            let to = Setting::of(settings.iso.exact * missing.ratio());
            self.outside(Outside::HigherIso { to, highest }, alone);
        }
    }

    /// What gives more depth, or asks for less.
    fn too_shallow(&mut self) {
        let (setup, aperture) = (self.setup, self.plan.outcome.settings.aperture);
        if setup.aperture.is_some() {
            let sharp = Sharp::of(setup).least.map_or(8.0, |least| (least.0 / 2.0).exp2());
            let wanted = setup.apertures.nearest(Stops(2.0 * sharp.log2()));
            self.changes.push(Change::FixAperture { f_number: wanted.nominal });
        }
        match setup.setup.depth {
            Depth::Rows { .. } | Depth::Deep { .. } => {
                let missing = Sharp::of(setup).missing(aperture);
                // Twice as far away is two stops less of aperture, or nearly.
                let distance_m = (setup.setup.camera_distance_m * (missing.0 / 2.0).exp2() * 10.0).ceil() / 10.0;
                if distance_m <= FARTHEST_M {
                    self.changes.push(Change::StepBack { distance_m });
                }
            }
            // What moves is another picture in each frame.
            Depth::CloseUp { stacked: false, .. } if setup.setup.speed.movement == Movement::Still => {
                self.changes.push(Change::TakeStack);
            }
            _ => {}
        }
        self.changes.push(Change::FreeDepth { f_number: aperture.nominal });
    }

    /// Everything that is fixed, let go one at a time.
    fn releases(&mut self) {
        let setup = self.setup;
        let fixed = [
            (setup.shutter.is_some(), Change::FreeShutter),
            (setup.aperture.is_some(), Change::FreeAperture),
            (setup.iso.is_some(), Change::FreeIso),
        ];
        self.changes.extend(fixed.into_iter().filter_map(|(fixed, change)| fixed.then_some(change)));
        for light in setup.lights.iter().filter(|light| light.power.is_some()) {
            let light_id = || light.light.id.clone();
            self.changes.push(Change::FreePower { light_id: light_id() });
            if light.light.distance_m.is_some() {
                self.changes.push(Change::FreeDistance { light_id: light_id() });
            }
        }
    }

    /// Another sync, where the shutter or the brightness is what holds.
    fn other_sync(&self) -> Option<Change> {
        let limits = [Limit::CameraTooBright, Limit::ShutterOverSync, Limit::NoHighSpeed];
        let held = self.plan.shortfalls.iter().any(|shortfall| limits.contains(&shortfall.limit));
        let asks = self.setup.with_flash() && held;
        let sync = match self.setup.setup.sync {
            Sync::HighSpeed => Sync::Ordinary,
            Sync::Ordinary | Sync::Electronic => Sync::HighSpeed,
        };
        asks.then_some(Change::ChangeSync { sync })
    }

    /// So many stops of filter more, from the kit: one filter, or two, the least that does.
    fn filtered(&self, more: Stops) -> Option<Change> {
        let on = &self.setup.setup.filter_ids;
        let spare: Vec<&Filter> = self.kit.filters.iter().filter(|filter| !on.contains(&filter.id)).collect();
        let density = |set: &[&Filter]| set.iter().map(|filter| filter.density_stops).sum::<f64>();
        let enough = |set: &Vec<&Filter>| density(set) >= more.0 - HALF_CLICK && set.len() + on.len() <= 3;
        let sets = sets_of(&spare).into_iter().filter(enough);
        let set = sets.min_by(|a, b| density(a).total_cmp(&density(b)))?;
        Some(Change::AddFilters { filter_ids: set.iter().map(|filter| filter.id.clone()).collect() })
    }

    /// The wish of a light becomes what its region comes to.
    fn accept(&self, light: &PreparedLight<'_>) -> Option<Change> {
        let ends = self.plan.outcome.regions[light.aimed_at].together;
        let wish = wish_at(light, ends.to_third(), &self.plan.outcome, self.setup);
        let region_id = self.setup.setup.regions[light.aimed_at].id.clone();
        let light_id = light.light.id.clone();
        (wish != light.light.wish).then_some(Change::AcceptRegion { region_id, light_id, wish, stops: ends.0 })
    }
}

/// What another unit would have to be.
fn stronger(light: &PreparedLight<'_>, at: DialledLight) -> Option<Outside> {
    let short = at.exact.0 - at.power.0;
    light.power.is_none().then(|| Outside::StrongerUnit {
        short,
        guide_number_m: light.guide_number.0 * (short.0 / 2.0).exp2(),
        side_by_side: (short.ratio() * f64::from(light.light.units)).ceil(),
    })
}

/// The guide number a light has after a change.
pub fn strength_with(setup: &Setup, change: &Change, index: LightIndex, kit: &Kit) -> Option<GuideNumber> {
    let other = changed(setup, std::slice::from_ref(change), kit);
    let checked = Prepared::new(&other, kit).ok()?;
    checked.lights.iter().find(|light| light.index == index).map(|light| light.guide_number)
}

/// Neutral gels of the kit that take at least so much, the least that does, or the densest there are.
fn neutral_gels(light: &PreparedLight<'_>, kit: &Kit, over: Stops) -> Option<Vec<String>> {
    let spare: Vec<&Gel> = kit.gels.iter().filter(|gel| gel.is_neutral()).collect();
    let fits = |set: &Vec<&Gel>| set.len() + light.light.gel_ids.len() <= 4;
    let sets: Vec<Vec<&Gel>> = sets_of(&spare).into_iter().filter(fits).collect();
    let loss = |set: &[&Gel]| set.iter().map(|gel| gel.loss_stops).sum::<f64>();
    let enough = sets.iter().filter(|set| loss(set) >= over.0 - HALF_CLICK);
    let least = enough.min_by(|a, b| loss(a).total_cmp(&loss(b)));
    let set = least.or_else(|| sets.iter().max_by(|a, b| loss(a).total_cmp(&loss(b))))?;
    Some(set.iter().map(|gel| gel.id.clone()).collect())
}

/// Every one, and every pair.
fn sets_of<'a, T>(spare: &[&'a T]) -> Vec<Vec<&'a T>> {
    let mut sets: Vec<Vec<&T>> = spare.iter().map(|one| vec![*one]).collect();
    for (index, one) in spare.iter().enumerate() {
        sets.extend(spare[index + 1..].iter().map(|other| vec![*one, *other]));
    }
    sets
}
