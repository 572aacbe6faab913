//! A light of a setup as quantities: what it can give each region.

use std::ops::{Index, RangeInclusive};
use std::sync::Arc;

use tolva_core::colour::{self, Shift};
use tolva_core::exposure::{Ev, IncidentReceptor};
use tolva_core::flash::{GuideNumber, Recycling, high_speed_loss, tail_loss};
use tolva_core::modifier::{Bounced, Surface, off_axis};
use tolva_core::scale::{Metres, Power, PowerStep, Setting, Shutter, Stops};

use super::{Prepared, found, gels};
use crate::refused::Refused;
use crate::setup::{Flash, FlashIndex, FlashOutput, Gel, Kit, Light, LightIndex, Modifier, Setup, Sync, light_more};
use crate::staging::{Reached, Stage, exponent_of, shape};

/// A continuous lamp.
#[derive(Clone, Debug)]
pub struct PreparedLamp<'a> {
    /// Where it stands in the setup's list.
    pub index: LightIndex,
    /// The light of the setup.
    pub light: &'a Light,
    /// Its unit.
    pub flash: &'a Flash,
    /// What is on it.
    pub modifier: Option<&'a Modifier>,
    /// How far it stands.
    pub distance: Metres,
    /// What it gives each region at full power, on the scale of EV.
    pub full: Vec<Stops>,
    /// Where its dimmer is; nothing where it is off.
    pub power: Option<Power>,
    /// The region it is aimed at.
    pub aimed_at: usize,
    /// What modifier, gels, turning and bounce take.
    pub loss: Stops,
    /// What it falls short of the inverse square, being so near.
    pub near_field: Stops,
    /// What comes of bouncing it, where it is.
    pub bounced: Option<Bounced>,
    /// Its light without gels.
    pub native: colour::Illuminant,
    /// The gels over it.
    pub gels: Vec<&'a Gel>,
    /// What they and a coloured wall do to it.
    pub shift: Shift,
    /// What a coloured wall alone does to it.
    pub way: Shift,
}

/// A light as quantities.
#[derive(Clone, Debug)]
pub struct PreparedLight<'a> {
    /// Where it stands in the setup's list.
    pub index: LightIndex,
    /// The light of the setup.
    pub light: &'a Light,
    /// Its unit.
    pub flash: &'a Flash,
    /// What is on it.
    pub modifier: Option<&'a Modifier>,
    /// Of all its units together.
    pub guide_number: GuideNumber,
    /// What glows.
    pub surface: Surface,
    /// Modifier, gels, turning and bounce.
    pub loss: Stops,
    /// What the modifier alone takes.
    pub modifier_loss: Stops,
    /// What the gels take.
    pub gel_loss: Stops,
    /// How it falls off to its sides: the exponent of the cosine.
    pub exponent: f64,
    /// What comes of bouncing it, where it is.
    pub bounced: Option<Bounced>,
    /// Its light without gels.
    pub native: colour::Illuminant,
    /// The gels over it.
    pub gels: Vec<&'a Gel>,
    /// What its gels do to its light.
    pub gel_shift: Shift,
    /// What a coloured wall does to it where the bounce was typed.
    typed_bounce: Shift,
    /// How far it stands, where that is fixed.
    pub distance: Option<Metres>,
    /// Its power, where that is fixed.
    pub power: Option<Power>,
    /// The lowest its dial goes.
    pub lowest: Power,
    /// One click of its dial.
    pub step: PowerStep,
    /// What its store and battery can do.
    pub recycling: Recycling,
    /// The region it is aimed at.
    pub aimed_at: usize,
    /// Against its own region as it was typed, one a region; nothing where it does not reach.
    typed_spill: Vec<Stops>,
    /// How much more than that frames have taught it gives each region it is not aimed at.
    spills_more: Vec<Stops>,
    /// What it gives each region by where it stands, where the set is used.
    on_set: Option<OnSet>,
}

/// A light on a set that is used.
#[derive(Clone, Debug)]
struct OnSet {
    stage: Arc<Stage>,
    reached: Reached,
}

impl OnSet {
    /// A light of the set, with how far it stands where that is not left to Tolva.
    fn of(
        stage: &Arc<Stage>,
        index: LightIndex,
        light: &Light,
        setup: &Setup,
        (surface, aimed_at): (Surface, usize),
    ) -> (Option<Metres>, Self) {
        let free = || Metres((surface.largest().0 / 2.0).max(NEAREST_M))..=Metres(FARTHEST_M);
        let fixed = stage.held_at(index).or(light.distance_m.map(Metres));
        // What is bounced is not moved along its line to give more or less: it stands where the camera does.
        let turned = stage.laid.lights[index].head.map(|_| Metres(setup.camera_distance_m));
        let at = fixed.or(turned);
        let bounds = at.map_or_else(free, |fixed| fixed..=fixed);
        let reached = Reached::between(stage, index, aimed_at, &bounds);
        (at, Self { stage: Arc::clone(stage), reached })
    }
}

impl<'a> Index<FlashIndex> for Vec<PreparedLight<'a>> {
    type Output = PreparedLight<'a>;

    fn index(&self, at: FlashIndex) -> &PreparedLight<'a> {
        &self[at.0]
    }
}

pub enum Either<'a> {
    Flash(Box<PreparedLight<'a>>),
    Lamp(Box<PreparedLamp<'a>>),
}

/// How much more a light gives than its figures say: where it is aimed, and on each region beside that.
fn taught(setup: &Setup, light: &Light, flash: &Flash) -> (Stops, Vec<Stops>) {
    let learnt = setup.learnt.as_ref();
    let on = |id: &str| learnt.map_or(Stops::ZERO, |learnt| learnt.spill(&light.id, id));
    let spills = setup.regions.iter().map(|region| on(&region.id)).collect();
    (light_more(setup, light, flash), spills)
}

pub fn prepared<'a>(
    index: LightIndex,
    light: &'a Light,
    setup: &'a Setup,
    kit: &'a Kit,
    lit: usize,
    stage: Option<&Arc<Stage>>,
) -> Result<Either<'a>, Refused> {
    let flash = found("flash", &light.flash_id, &kit.flashes, |flash| &flash.id)?;
    let modifier = match &light.modifier_id {
        Some(id) => Some(found("modifier", id, &kit.modifiers, |modifier| &modifier.id)?),
        None => None,
    };
    let gels = gels(&light.gel_ids, kit)?;
    let gel_loss: Stops = gels.iter().map(|gel| Stops(gel.loss_stops)).sum();
    let region = |id: &String| {
        let position = setup.regions.iter().position(|region| &region.id == id);
        position.ok_or_else(|| Refused::NoSuchRegion(id.clone()))
    };
    let aimed_at = light.aimed_at.as_ref().map_or(Ok(lit), region)?;
    let mut spill = vec![Stops::NOTHING; setup.regions.len()];
    for reach in &light.spill {
        spill[region(&reach.region_id)?] = Stops(reach.stops);
    }
    spill[aimed_at] = Stops::ZERO;
    let (surface, modifier_loss) = shape(modifier);
    let exponent = exponent_of(modifier);
    let on_set = stage.map(|stage| OnSet::of(stage, index, light, setup, (surface, aimed_at)));
    let (on_set_at, on_set) = on_set.map_or((None, None), |(at, on_set)| (at, Some(on_set)));
    let away = on_set_at.unwrap_or(Metres(light.distance_m.unwrap_or(setup.camera_distance_m)));
    let bounced = match &on_set {
        None => light.bounce.map(|bounce| bounce.at(away)),
        Some(OnSet { stage, reached }) => (stage.laid.lights[index].head.is_some()).then(|| Bounced {
            loss: -(reached.on(aimed_at, away) + Stops(2.0 * away.0.log2())),
            angle_deg: stage.bounced_angle_deg(index, away, aimed_at),
        }),
    };
    // On the set, where it stands and looks says what is lost by turning it and by the way it takes.
    let (turned, by_bounce) = match (&on_set, bounced) {
        (Some(_), _) => (Stops::ZERO, Stops::ZERO),
        (None, Some(bounced)) => (Stops::ZERO, bounced.loss),
        (None, None) => (off_axis(light.feather_deg, exponent), Stops::ZERO),
    };
    // What frames have taught of it is as if it lost so much less.
    let (more, spills_more) = taught(setup, light, flash);
    let loss = modifier_loss + gel_loss - turned + by_bounce - more;
    let lowest = Power(Stops(flash.power.lowest_stops));
    // What comes back from a ceiling or wall has its own loss by distance, no near field, and the surface's colour.
    let surface = if bounced.is_some() && on_set.is_none() { Surface::Bare } else { surface };
    let typed_bounce = light.bounce.map_or_else(Shift::default, |bounce| bounce.colour.shift());
    let gel_shift: Shift = gels.iter().map(|gel| gel.shift()).sum();
    if let FlashOutput::Continuous(lamp) = &flash.output {
        let lux = lamp.lux_at_1_m * f64::from(light.units) / (away.0 * away.0);
        let near_field = if on_set.is_some() { Stops::ZERO } else { surface.near_field(away) };
        let gives = Stops(Ev::from_lux(lux, IncidentReceptor::Flat.constant()).0) - loss + near_field;
        let full = match &on_set {
            // From 1 m on the axis: the set says the rest.
            Some(OnSet { reached, .. }) => {
                (0..spill.len()).map(|region| gives + Stops(2.0 * away.0.log2()) + reached.on(region, away)).collect()
            }
            None => spill.iter().map(|reach| gives + *reach).collect(),
        };
        let native = flash.light();
        let way = on_set.as_ref().map_or(typed_bounce, |on_set| on_set.reached.shift(away));
        let shift = [gel_shift, way].into_iter().sum();
        let lamp = PreparedLamp {
            index,
            light,
            flash,
            modifier,
            distance: away,
            full,
            // Until it is solved, at full power.
            power: Some(Power(Stops(light.power_stops.unwrap_or(0.0)))),
            aimed_at,
            loss,
            near_field,
            bounced,
            native,
            gels,
            shift,
            way,
        };
        return Ok(Either::Lamp(Box::new(lamp)));
    }
    let one = guide_number(flash, kit, light.zoom_mm);
    Ok(Either::Flash(Box::new(PreparedLight {
        index,
        light,
        flash,
        modifier,
        // Energies add: two units are a stop, √2 in guide number.
        guide_number: GuideNumber(one.0 * f64::from(light.units).sqrt()),
        surface,
        loss,
        modifier_loss,
        gel_loss,
        exponent,
        distance: if bounced.is_some() || on_set_at.is_some() { Some(away) } else { light.distance_m.map(Metres) },
        bounced,
        native: flash.light(),
        gel_shift,
        gels,
        power: light.power_stops.map(|stops| Power(Stops(stops))),
        lowest,
        step: flash.power.step,
        recycling: flash.recycling(),
        aimed_at,
        typed_spill: spill,
        spills_more,
        on_set,
        typed_bounce,
    })))
}

impl PreparedLight<'_> {
    /// Colour shift by walls, ceiling and cards where it is aimed, from this distance.
    pub fn way(&self, distance: Metres) -> Shift {
        self.on_set.as_ref().map_or(self.typed_bounce, |on_set| on_set.reached.shift(distance))
    }

    /// Its light without gels where it is aimed, from this distance.
    pub fn native_from(&self, distance: Metres) -> colour::Illuminant {
        self.native.shifted(self.way(distance))
    }

    /// How far it is: as it is fixed, or where Tolva would put it at first.
    pub fn distance_or_usual(&self) -> Metres {
        self.distance.unwrap_or_else(|| self.usual_distance())
    }
}

impl PreparedLamp<'_> {
    /// What it gives a region where its dimmer is, on the scale of EV.
    pub fn gives(&self, region: usize) -> Stops {
        self.power.map_or(Stops::NOTHING, |power| self.full[region] + power.0)
    }

    /// An exact power put on its dimmer; nothing where it is under its lowest by more than half a click, and so off.
    pub fn on_dial(&self, exact: Power) -> Option<Power> {
        let lowest = self.flash.power.lowest_stops;
        let dialled = self.flash.power.step.nearest(exact).0.0;
        (dialled > lowest - 0.17).then(|| Power(Stops(dialled.clamp(lowest, 0.0))))
    }

    /// Its light without gels, as it comes back from where it is bounced.
    pub fn bounced_native(&self) -> colour::Illuminant {
        self.native.shifted(self.way)
    }
}

/// The nearest and farthest Tolva would put a light by itself, in metres (common practice, no source).
const NEAREST_M: f64 = 0.4;
const FARTHEST_M: f64 = 6.0;

/// The least and the most a light can give its region.
#[derive(Clone, Copy, Debug)]
pub struct FlashRange {
    /// The least.
    pub least: Stops,
    /// The most.
    pub most: Stops,
}

impl PreparedLight<'_> {
    /// What the light gives its region from a distance at a power: see [`tolva_core::flash::FlashStrength`].
    pub fn gives(&self, distance: Metres, power: Power) -> Stops {
        match &self.on_set {
            Some(OnSet { reached, .. }) => self.strength_at_1_m(power) + reached.on(self.aimed_at, distance),
            None => self.guide_number.strength(distance, self.surface, self.loss).at(power),
        }
    }

    /// What it gives on its axis 1 m away, if it were a point, on the scale of [`tolva_core::flash::FlashStrength`].
    pub fn strength_at_1_m(&self, power: Power) -> Stops {
        self.guide_number.strength(Metres(1.0), Surface::Bare, self.loss).at(power)
    }

    /// What it gives a region against what it gives its own, where it stands so far away; nothing where it does not
    /// reach.
    pub fn spill(&self, region: usize, distance: Metres) -> Stops {
        match &self.on_set {
            _ if region == self.aimed_at => Stops::ZERO,
            Some(OnSet { reached, .. }) => {
                let (there, own) = (reached.on(region, distance), reached.on(self.aimed_at, distance));
                let reaches = there.0.is_finite() && own.0.is_finite();
                if reaches { there - own + self.spills_more[region] } else { Stops::NOTHING }
            }
            None => self.typed_spill[region] + self.spills_more[region],
        }
    }

    /// Whether any of it reaches a region.
    pub fn reaches(&self, region: usize) -> bool {
        let usual = self.distance.unwrap_or_else(|| self.usual_distance());
        match &self.on_set {
            Some(OnSet { reached, .. }) => reached.on(region, usual).0.is_finite(),
            None => self.typed_spill[region].0.is_finite(),
        }
    }

    /// Whether what it reaches is worked out from the set, and not typed.
    pub fn is_on_set(&self) -> bool {
        self.on_set.is_some()
    }

    /// What falls short of the inverse square because it is so near. On the set it is in what reaches there.
    pub fn near_field(&self, distance: Metres) -> Stops {
        if self.is_on_set() { Stops::ZERO } else { self.surface.near_field(distance) }
    }

    /// What reaches its own region, over its intensity on the axis at 1 m, where the set says so.
    pub fn reach(&self, distance: Metres) -> Option<Stops> {
        self.on_set.as_ref().map(|on_set| on_set.reached.on(self.aimed_at, distance))
    }

    /// The part of what its own region gets that comes back from walls, ceiling, floor or cards, where the set says so.
    pub fn bounced_part(&self, distance: Metres) -> f64 {
        self.on_set.as_ref().map_or(0.0, |on_set| on_set.reached.bounced_part(distance))
    }

    /// Where it stands to give its region so much at a power, held between two distances. On the set it moves along its
    /// own line.
    pub fn distance_giving(&self, wanted: Stops, power: Power, bounds: RangeInclusive<Metres>) -> Metres {
        match &self.on_set {
            Some(OnSet { stage, reached }) => {
                let reach = wanted - self.strength_at_1_m(power);
                if self.distance.is_none() {
                    return reached.distance_for(self.aimed_at, reach, &bounds);
                }
                let along = Reached::between(stage, self.index, self.aimed_at, &bounds);
                along.distance_for(self.aimed_at, reach, &bounds)
            }
            None => self.guide_number.distance_for(wanted, power, self.surface, self.loss, bounds),
        }
    }

    /// How far it must be turned off its aim to give its region so much less, in degrees; where that is not enough, more
    /// than a right angle.
    pub fn feather_losing(&self, less: Stops, distance: Metres) -> f64 {
        let Some(OnSet { stage, reached }) = &self.on_set else {
            // From cosⁿ of the angle.
            let now = self.light.feather_deg.to_radians().cos();
            return ((-less.0 / self.exponent.max(0.1)).exp2() * now).acos().to_degrees();
        };
        let wanted = reached.on(self.aimed_at, distance) - less;
        let turned =
            |deg: f64| stage.feathered(self.index, deg).to_regions(self.index, distance)[self.aimed_at].reach();
        let (mut low, mut high) = (self.light.feather_deg, 90.0);
        if turned(high) > wanted {
            return 180.0;
        }
        for _ in 0..16 {
            let middle = f64::midpoint(low, high);
            if turned(middle) > wanted {
                low = middle;
            } else {
                high = middle;
            }
        }
        high
    }

    /// The nearest and farthest Tolva would put a light by itself (common practice, no source).
    pub fn free_distances(&self) -> RangeInclusive<Metres> {
        Metres((self.surface.largest().0 / 2.0).max(NEAREST_M))..=Metres(FARTHEST_M)
    }

    /// Where Tolva puts a light when nothing is fixed: one and a half times the modifier's size away, 2 m for a bare
    /// head (common practice, no source).
    pub fn usual_distance(&self) -> Metres {
        let size = self.surface.largest().0;
        Metres(if size == 0.0 { 2.0 } else { (size * 1.5).clamp(0.7, 3.0) })
    }

    /// The least and the most it can give its region.
    pub fn range(&self) -> FlashRange {
        let stands = self.distance.map_or_else(|| self.free_distances(), |fixed| fixed..=fixed);
        let (low, full) = self.power.map_or((self.lowest, Power::FULL), |fixed| (fixed, fixed));
        FlashRange { least: self.gives(*stands.end(), low), most: self.gives(*stands.start(), full) }
    }

    /// Where the light stands to give its region so much by itself.
    pub fn distance_for(&self, wanted: Stops) -> Metres {
        let solve = |power: Power| self.distance_giving(wanted, power, self.free_distances());
        match (self.distance, self.power) {
            (Some(fixed), _) => fixed,
            (None, Some(power)) => to_centimetre(solve(power)),
            (None, None) => {
                let usual = self.usual_distance();
                if self.gives(usual, Power::FULL) < wanted {
                    to_centimetre(solve(Power::FULL))
                } else if self.gives(usual, self.lowest) > wanted {
                    to_centimetre(solve(self.lowest))
                } else {
                    usual
                }
            }
        }
    }

    /// An exact power put on the dial.
    pub fn on_dial(&self, exact: Power) -> Power {
        self.power.unwrap_or_else(|| Power(Stops(self.step.nearest(exact).0.0.clamp(self.lowest.0.0, 0.0))))
    }

    /// What high-speed sync takes at a shutter; nothing where it is not used.
    pub fn high_speed(&self, setup: &Prepared<'_>, shutter: Setting<Shutter>) -> Option<Stops> {
        let fixed = self.flash.high_speed_loss_stops.filter(|_| setup.setup.sync == Sync::HighSpeed)?;
        high_speed_loss(shutter, setup.sync_safe, Stops(fixed))
    }

    /// What the shutter takes of the flash: in high-speed sync its train of pulses, otherwise the tail of a flash that
    /// outlasts it.
    pub fn shutter_loss(&self, setup: &Prepared<'_>, power: Power, shutter: Setting<Shutter>) -> Stops {
        let tail = || tail_loss(&self.flash.durations, power, shutter);
        self.high_speed(setup, shutter).unwrap_or_else(tail)
    }
}

/// A distance is shown to the centimetre, so it is computed with to the centimetre.
fn to_centimetre(distance: Metres) -> Metres {
    Metres((distance.0 * 100.0).round() / 100.0)
}

/// One bare unit's guide number in metres, whichever way its output is known. A lamp has none.
fn guide_number(flash: &Flash, kit: &Kit, zoom_mm: Option<f64>) -> GuideNumber {
    match &flash.output {
        FlashOutput::GuideNumberMetres(gn) => GuideNumber(gn.guide_number_m),
        FlashOutput::GuideNumberFeet(gn) => GuideNumber::from_feet(gn.guide_number_ft),
        FlashOutput::GuideNumberZoom(zoom) => {
            // Without a zoom that was said, the widest its table knows.
            GuideNumber::at_zoom(&zoom.table, zoom_mm.unwrap_or(0.001)).unwrap_or(GuideNumber(1.0))
        }
        FlashOutput::Continuous(_) => GuideNumber(1.0),
        FlashOutput::Measured(read) => {
            let through = read.modifier_id.as_ref().and_then(|id| kit.modifiers.iter().find(|m| &m.id == id));
            let (surface, loss) = shape(through);
            let power = Power(Stops(read.power_stops));
            GuideNumber::from_reading(read.f_number, read.iso, Metres(read.distance_m), power, surface, loss)
        }
    }
}
