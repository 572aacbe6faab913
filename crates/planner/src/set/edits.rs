//! What is done to a set: things are put somewhere, raised and turned. Nothing else moves by it: a light stays where it
//! stands when who it is aimed at steps aside.

use tolva_core::scale::LengthUnit;
use tolva_core::set::{Direction, Point, Vector};

use super::distances::{LightDistances, distances};
use crate::refused::Refused;
use crate::setup::{Hazard, Kit, LightIndex, Person, RegionPlace, Set, Setup};
use crate::staging::{Laid, Thing};

/// One step of the arrow keys, in metres.
pub(super) const STEP_M: f64 = 0.05;
/// The same where lengths are feet and inches: two inches.
const STEP_INCHES_M: f64 = 0.0508;

/// Where a number goes: to a value, or by so much from where it is.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct To {
    /// To this; left out, from where it is.
    pub to: Option<f64>,
    /// By so much.
    pub by: f64,
}

impl To {
    fn from(self, now: f64) -> f64 {
        self.to.unwrap_or(now) + self.by
    }
}

pub(super) fn gone(thing: &Thing) -> Refused {
    Refused::NoSuchThing(format!("{thing:?}"))
}

pub(super) fn hundredth(value: f64) -> f64 {
    (value * 100.0).round() / 100.0
}

pub(crate) fn thousandth(value: f64) -> f64 {
    (value * 1000.0).round() / 1000.0
}

pub(super) fn held(value: f64) -> f64 {
    thousandth(value).clamp(-100.0, 100.0)
}

impl Setup {
    /// The set is used from now on: it is written down as it was laid out, and what lights reach follows from it. What
    /// came since without a place gets its usual one.
    pub fn use_set(&mut self) {
        let placed = self.regions.iter().all(|region| region.place.is_some())
            && self.lights.iter().all(|light| light.place.is_some());
        if self.set.is_some() && placed {
            return;
        }
        let laid = Laid::of(self);
        for (region, place) in self.regions.iter_mut().zip(laid.regions) {
            region.place.get_or_insert(place);
        }
        for (light, place) in self.lights.iter_mut().zip(laid.lights) {
            light.place.get_or_insert(place);
        }
        self.set = Some(laid.set);
    }

    /// The set is put aside: what lights reach is as it was typed. What was drawn goes with it.
    pub fn put_set_aside(&mut self) {
        self.set = None;
        self.regions.iter_mut().for_each(|region| region.place = None);
        self.lights.iter_mut().for_each(|light| light.place = None);
    }

    pub(crate) fn set_mut(&mut self) -> &mut Set {
        self.use_set();
        let empty = || Laid::of(&Self { set: None, ..Self::new("", &Kit::starter()) }).set;
        self.set.get_or_insert_with(empty)
    }

    /// Does something to the set while every light, and the camera, stays where it stands.
    pub(super) fn while_lights_stay(
        &mut self,
        kit: &Kit,
        camera: bool,
        change: impl FnOnce(&mut Self) -> Result<(), Refused>,
    ) -> Result<(), Refused> {
        self.use_set();
        let away = distances(self, kit);
        let laid = Laid::of(self);
        let stood: Vec<Point> = away.each().map(|(light, away)| laid.light(self, light, away)).collect();
        let camera = camera.then(|| laid.camera(self));
        let named: Vec<String> = self.lights.iter().map(|light| light.id.clone()).collect();
        change(self)?;
        if let Some(camera) = camera {
            self.camera_to(camera);
        }
        for (id, at) in named.iter().zip(stood) {
            if let Some(light) = self.light_called(id) {
                self.light_to(light, at);
            }
        }
        Ok(())
    }

    /// A light stands at a point: its line and its distance follow. Where the distance is left to Tolva it stays so.
    pub(crate) fn light_to(&mut self, light: LightIndex, at: Point) {
        let laid = Laid::of(self);
        let way = at - laid.aim(self, light);
        let direction = Direction::of(way);
        let (distance, place) = (way.length(), laid.lights[light]);
        let one = &mut self.lights[light];
        if one.on_camera {
            return;
        }
        one.place = Some(crate::setup::LightPlace {
            direction_deg: hundredth(direction.azimuth_deg).rem_euclid(360.0),
            elevation_deg: hundredth(direction.elevation_deg).clamp(-85.0, 90.0),
            ..place
        });
        one.distance_m = one.distance_m.map(|_| thousandth(distance).clamp(0.1, 50.0));
    }

    /// The camera stands at a point.
    pub(crate) fn camera_to(&mut self, at: Point) {
        let way = at - Laid::of(self).anchor();
        let direction = Direction::of(way);
        self.camera_distance_m = thousandth(way.length()).clamp(0.05, 200.0);
        let camera = &mut self.set_mut().camera;
        camera.direction_deg = hundredth(direction.azimuth_deg).rem_euclid(360.0);
        camera.elevation_deg = hundredth(direction.elevation_deg).clamp(-80.0, 80.0);
    }

    /// Where a thing stands: its middle.
    ///
    /// # Errors
    /// A thing that is not there.
    pub fn stands(&self, kit: &Kit, thing: &Thing) -> Result<Point, Refused> {
        self.stands_at(thing, self.distances_for(kit, thing).as_ref())
    }

    /// How far lights stand, where that is asked for a light: it may take a plan to say.
    fn distances_for(&self, kit: &Kit, thing: &Thing) -> Option<LightDistances> {
        matches!(thing, Thing::Light(_)).then(|| distances(self, kit))
    }

    /// Where a thing stands, with how far each light does where it is one.
    fn stands_at(&self, thing: &Thing, away: Option<&LightDistances>) -> Result<Point, Refused> {
        let laid = Laid::of(self);
        let set = &laid.set;
        let found = match thing {
            Thing::Person(id) => set.people.iter().find(|one| &one.id == id).map(Person::eyes),
            Thing::Product(id) => set.products.iter().find(|one| &one.id == id).map(crate::setup::Product::middle),
            Thing::Camera => Some(laid.camera(self)),
            Thing::Light(id) => {
                self.light_called(id).zip(away).map(|(light, away)| laid.light(self, light, away[light]))
            }
            Thing::Card(id) => set.cards.iter().find(|one| &one.id == id).map(|one| one.panel().centre),
            Thing::Wall(id) => set.walls.iter().find(|one| &one.id == id).map(|one| one.panel(laid.anchor()).centre),
            Thing::Opening(id) => set.openings.iter().find(|one| &one.id == id).map(|one| one.panel().centre),
            Thing::Pane(id) => set.panes.iter().find(|one| &one.id == id).map(|one| one.panel().centre),
            Thing::Hazard(id) => set.hazards.iter().find(|one| &one.id == id).map(Hazard::middle),
            Thing::Region(id) => {
                self.regions.iter().position(|one| &one.id == id).map(|region| laid.receptor(region).at)
            }
            Thing::Ceiling => set.ceiling.map(|one| Point::new(0.0, 0.0, one.height_m)),
            Thing::Floor => set.floor.map(|_| Point::ZERO),
        };
        found.ok_or_else(|| gone(thing))
    }

    /// A thing is put somewhere on the floor plan: to a place, or by steps of the arrow keys from where it is. `snap` takes
    /// it into line with others, to equal angles and to the grid.
    ///
    /// # Errors
    /// A thing that is not there, or that cannot be moved.
    pub fn move_on_set(
        &mut self,
        kit: &Kit,
        thing: &Thing,
        to: Option<(f64, f64)>,
        steps: (i32, i32),
        (snap, unit): (bool, LengthUnit),
    ) -> Result<(), Refused> {
        let away = self.distances_for(kit, thing);
        let now = self.stands_at(thing, away.as_ref())?;
        let step = if unit == LengthUnit::Metres { STEP_M } else { STEP_INCHES_M };
        let (x, y) = to.unwrap_or((now.x, now.y));
        let (x, y) = (x + f64::from(steps.0) * step, y + f64::from(steps.1) * step);
        let there = Point::new(held(x), held(y), now.z);
        let there = if snap && steps == (0, 0) { self.snapped(thing, there, step, away.as_ref()) } else { there };
        self.put(kit, thing, there, there - now)
    }

    /// Something is put at a point; what has no single point goes by as much.
    fn put(&mut self, kit: &Kit, thing: &Thing, at: Point, by: Vector) -> Result<(), Refused> {
        self.use_set();
        let missing = || gone(thing);
        match thing {
            Thing::Light(id) => {
                let light = self.light_called(id).ok_or_else(missing)?;
                self.light_to(light, at);
                Ok(())
            }
            Thing::Camera => {
                self.camera_to(at);
                Ok(())
            }
            Thing::Person(id) => self.while_lights_stay(kit, true, |setup| {
                let one = setup.set_mut().people.iter_mut().find(|one| &one.id == id).ok_or_else(missing)?;
                (one.x_m, one.y_m) = (held(at.x), held(at.y));
                Ok(())
            }),
            Thing::Product(id) => self.while_lights_stay(kit, true, |setup| {
                let one = setup.set_mut().products.iter_mut().find(|one| &one.id == id).ok_or_else(missing)?;
                (one.x_m, one.y_m) = (held(at.x), held(at.y));
                one.table_m = thousandth(one.table_m + by.z).clamp(0.0, 3.0);
                Ok(())
            }),
            Thing::Card(id) => {
                let one = self.set_mut().cards.iter_mut().find(|one| &one.id == id).ok_or_else(missing)?;
                (one.x_m, one.y_m, one.z_m) = (held(at.x), held(at.y), thousandth(at.z).clamp(0.0, 30.0));
                Ok(())
            }
            Thing::Opening(id) => {
                let one = self.set_mut().openings.iter_mut().find(|one| &one.id == id).ok_or_else(missing)?;
                (one.x_m, one.y_m, one.z_m) = (held(at.x), held(at.y), thousandth(at.z).clamp(0.0, 30.0));
                Ok(())
            }
            Thing::Pane(id) => {
                let one = self.set_mut().panes.iter_mut().find(|one| &one.id == id).ok_or_else(missing)?;
                (one.x_m, one.y_m, one.z_m) = (held(at.x), held(at.y), thousandth(at.z).clamp(0.0, 30.0));
                Ok(())
            }
            Thing::Wall(id) => self.while_lights_stay(kit, false, |setup| {
                let one = setup.set_mut().walls.iter_mut().find(|one| &one.id == id).ok_or_else(missing)?;
                (one.from_x_m, one.to_x_m) = (held(one.from_x_m + by.x), held(one.to_x_m + by.x));
                (one.from_y_m, one.to_y_m) = (held(one.from_y_m + by.y), held(one.to_y_m + by.y));
                Ok(())
            }),
            Thing::Hazard(id) => {
                let one = self.set_mut().hazards.iter_mut().find(|one| &one.id == id).ok_or_else(missing)?;
                (one.from_x_m, one.to_x_m) = (held(one.from_x_m + by.x), held(one.to_x_m + by.x));
                (one.from_y_m, one.to_y_m) = (held(one.from_y_m + by.y), held(one.to_y_m + by.y));
                Ok(())
            }
            Thing::Region(id) => self.while_lights_stay(kit, false, |setup| {
                let region = setup.regions.iter_mut().find(|one| &one.id == id).ok_or_else(missing)?;
                if let Some(RegionPlace::Point { x_m, y_m, z_m, .. }) = &mut region.place {
                    (*x_m, *y_m, *z_m) = (held(at.x), held(at.y), thousandth(at.z).clamp(0.0, 30.0));
                }
                Ok(())
            }),
            Thing::Ceiling | Thing::Floor => Ok(()),
        }
    }

    /// A thing is raised or lowered: to a height over the floor, or by steps.
    ///
    /// # Errors
    /// A thing that is not there.
    pub fn raise_on_set(&mut self, kit: &Kit, thing: &Thing, to: To, unit: LengthUnit) -> Result<(), Refused> {
        self.use_set();
        let now = self.stands(kit, thing)?;
        let step = if unit == LengthUnit::Metres { STEP_M } else { STEP_INCHES_M };
        let z = thousandth(To { by: to.by * step, ..to }.from(now.z)).clamp(0.0, 30.0);
        if *thing == Thing::Ceiling {
            if let Some(ceiling) = &mut self.set_mut().ceiling {
                ceiling.height_m = z.clamp(1.5, 30.0);
            }
            return Ok(());
        }
        let there = Point::new(now.x, now.y, z);
        self.put(kit, thing, there, there - now)
    }

    /// A thing is turned about the upright: to an azimuth, or by degrees. A light is turned off its aim towards the camera
    /// or away from it, or, where its head looks elsewhere, by its head.
    ///
    /// # Errors
    /// A thing that is not there.
    pub fn turn_on_set(&mut self, kit: &Kit, thing: &Thing, to: To) -> Result<(), Refused> {
        self.use_set();
        let missing = || gone(thing);
        let round = |now: f64| hundredth(to.from(now)).rem_euclid(360.0);
        match thing {
            Thing::Person(id) => self.while_lights_stay(kit, true, |setup| {
                let one = setup.set_mut().people.iter_mut().find(|one| &one.id == id).ok_or_else(missing)?;
                one.facing_deg = round(one.facing_deg);
                Ok(())
            }),
            Thing::Product(id) => self.while_lights_stay(kit, true, |setup| {
                let one = setup.set_mut().products.iter_mut().find(|one| &one.id == id).ok_or_else(missing)?;
                one.facing_deg = round(one.facing_deg);
                Ok(())
            }),
            Thing::Card(id) => {
                let one = self.set_mut().cards.iter_mut().find(|one| &one.id == id).ok_or_else(missing)?;
                one.facing_deg = round(one.facing_deg);
                Ok(())
            }
            Thing::Opening(id) => {
                let one = self.set_mut().openings.iter_mut().find(|one| &one.id == id).ok_or_else(missing)?;
                one.facing_deg = round(one.facing_deg);
                Ok(())
            }
            Thing::Pane(id) => {
                let one = self.set_mut().panes.iter_mut().find(|one| &one.id == id).ok_or_else(missing)?;
                one.facing_deg = round(one.facing_deg);
                Ok(())
            }
            Thing::Wall(id) => self.while_lights_stay(kit, false, |setup| {
                let one = setup.set_mut().walls.iter_mut().find(|one| &one.id == id).ok_or_else(missing)?;
                let (from, to_end) =
                    (Point::new(one.from_x_m, one.from_y_m, 0.0), Point::new(one.to_x_m, one.to_y_m, 0.0));
                let (middle, half) = ((from + to_end) / 2.0, (to_end - from) / 2.0);
                let turned = Direction::new(round(Direction::of(half).azimuth_deg), 0.0).vector() * half.length();
                (one.from_x_m, one.from_y_m) = (held(middle.x - turned.x), held(middle.y - turned.y));
                (one.to_x_m, one.to_y_m) = (held(middle.x + turned.x), held(middle.y + turned.y));
                Ok(())
            }),
            Thing::Light(id) => {
                let light = self.light_called(id).ok_or_else(missing)?;
                let one = &mut self.lights[light];
                match one.place.as_mut().and_then(|place| place.head.as_mut()) {
                    Some(head) => head.azimuth_deg = round(head.azimuth_deg),
                    None => one.feather_deg = hundredth(to.from(one.feather_deg)).clamp(0.0, 85.0),
                }
                Ok(())
            }
            Thing::Camera | Thing::Hazard(_) | Thing::Region(_) | Thing::Ceiling | Thing::Floor => Ok(()),
        }
    }
}

impl Hazard {
    /// Its middle.
    pub fn middle(&self) -> Point {
        Point::new(f64::midpoint(self.from_x_m, self.to_x_m), f64::midpoint(self.from_y_m, self.to_y_m), 0.0)
    }
}
