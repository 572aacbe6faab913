//! What a light of the set looks at, and where it stands by what is said of it: round its aim and over it.

use tolva_core::set::{Direction, Point};

use super::distances::distances;
use super::edits::{gone, hundredth};
use super::even::Stand;
use crate::refused::Refused;
use crate::setup::{Head, Kit, Setup};
use crate::staging::{Laid, Stage, Thing, aimed_at};

impl Setup {
    /// A light looks at a region, or at a wall, the ceiling or a card. It stays where it stands.
    ///
    /// # Errors
    /// A light, a region or a thing that is not there.
    pub fn aim_on_set(&mut self, kit: &Kit, light_id: &str, at: &Thing) -> Result<(), Refused> {
        self.use_set();
        let light = self.light_called(light_id);
        let light = light.ok_or_else(|| Refused::NoSuchLight(light_id.to_owned()))?;
        if let Thing::Region(id) = at {
            if !self.regions.iter().any(|region| &region.id == id) {
                return Err(Refused::NoSuchRegion(id.clone()));
            }
            return self.while_lights_stay(kit, false, |setup| {
                let one = &mut setup.lights[light];
                one.aimed_at = Some(id.clone());
                one.bounce = None;
                if let Some(place) = &mut one.place {
                    place.head = None;
                }
                Ok(())
            });
        }
        let away = distances(self, kit)[light];
        let laid = Laid::of(self);
        let from = laid.light(self, light, away);
        let subject = laid.aim(self, light);
        let spot = match at {
            // Where a mirror would show the subject: that part gives it most.
            Thing::Ceiling => {
                let height = laid.set.ceiling.ok_or_else(|| gone(at))?.height_m;
                let (up, down) = ((height - from.z).max(0.1), (height - subject.z).max(0.1));
                let level = from + (subject - from) * (up / (up + down));
                Point::new(level.x, level.y, height)
            }
            Thing::Wall(id) => {
                let wall = laid.set.walls.iter().find(|one| &one.id == id).ok_or_else(|| gone(at))?;
                let panel = wall.panel(laid.anchor());
                let off = |point: Point| (point - panel.centre).dot(panel.normal).abs().max(0.1);
                let on = from + (subject - from) * (off(from) / (off(from) + off(subject)));
                on - panel.normal * (on - panel.centre).dot(panel.normal)
            }
            other => self.stands(kit, other)?,
        };
        let head = Direction::of(spot - from);
        let one = &mut self.lights[light];
        one.feather_deg = 0.0;
        if let Some(place) = &mut one.place {
            let (azimuth_deg, elevation_deg) = (hundredth(head.azimuth_deg), hundredth(head.elevation_deg));
            place.head = Some(Head { azimuth_deg: azimuth_deg.rem_euclid(360.0), elevation_deg });
        }
        Ok(())
    }

    /// A light stands so high over what it is aimed at; it stays as far round and as far off on the floor.
    ///
    /// # Errors
    /// A light that is not there.
    pub fn light_over(&mut self, kit: &Kit, light_id: &str, over_m: f64) -> Result<(), Refused> {
        self.use_set();
        let light = self.light_called(light_id);
        let light = light.ok_or_else(|| Refused::NoSuchLight(light_id.to_owned()))?;
        let now = self.stands(kit, &Thing::Light(light_id.to_owned()))?;
        let aim = Laid::of(self).aim(self, light);
        self.light_to(light, Point::new(now.x, now.y, (aim.z + over_m).max(0.0)));
        Ok(())
    }

    /// A light stands so far round what it is aimed at, in degrees to its right; as high and as far off as it was.
    ///
    /// # Errors
    /// A light that is not there.
    pub fn light_round(&mut self, kit: &Kit, light_id: &str, right_deg: f64) -> Result<(), Refused> {
        self.use_set();
        let light = self.light_called(light_id);
        let light = light.ok_or_else(|| Refused::NoSuchLight(light_id.to_owned()))?;
        let now = self.stands(kit, &Thing::Light(light_id.to_owned()))?;
        let laid = Laid::of(self);
        let aim = laid.aim(self, light);
        let faces = laid.faces_deg(aimed_at(self, &self.lights[light]));
        let flat = (now - aim).truncate().length();
        let there = Direction::new(faces + right_deg, 0.0).vector() * flat;
        self.light_to(light, Point::new(aim.x + there.x, aim.y + there.y, now.z));
        Ok(())
    }

    /// What a light is there for, on a set that is used: it is aimed where that usually is, and stays where it stands.
    ///
    /// # Errors
    /// A light that is not there.
    pub fn wish_on_set(&mut self, kit: &Kit, light_id: &str, wish: crate::setup::LightWish) -> Result<(), Refused> {
        if self.set.is_none() {
            return self.wish_for(light_id, wish);
        }
        self.while_lights_stay(kit, false, |setup| setup.wish_for(light_id, wish))
    }

    /// A light is put at a place that was found for it.
    pub(super) fn stand_at(&mut self, stage: &Stage, Stand { light, direction, distance }: Stand) {
        let place = stage.laid.lights[light];
        self.lights[light].place = Some(crate::setup::LightPlace {
            direction_deg: hundredth(direction.azimuth_deg),
            elevation_deg: hundredth(direction.elevation_deg),
            head: None,
            ..place
        });
        self.lights[light].distance_m = Some(hundredth(distance.0));
        self.lights[light].feather_deg = 0.0;
    }
}
