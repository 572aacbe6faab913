//! Where something that is dragged comes to rest: in line with others, at equal angles, on the grid.

use tolva_core::set::{Direction, Point, signed_deg};

use super::distances::LightDistances;
use super::edits::thousandth;
use crate::setup::{Person, Setup};
use crate::staging::{Laid, Thing};

/// So near a line through something else, a thing that is dragged stands in line with it, in metres.
const IN_LINE_M: f64 = 0.08;
/// So near the mirrored angle of another light, a light that is dragged stands at that angle, in degrees.
const EQUAL_DEG: f64 = 3.0;

impl Setup {
    /// A point taken into line with other things, to the mirrored angle of another light, or to the grid.
    pub(super) fn snapped(&self, thing: &Thing, at: Point, step: f64, away: Option<&LightDistances>) -> Point {
        let laid = Laid::of(self);
        let mut lines: Vec<Point> = vec![Point::ZERO];
        lines.extend(laid.set.people.iter().filter(|one| Thing::Person(one.id.clone()) != *thing).map(Person::eyes));
        lines.extend(
            laid.set.cards.iter().filter(|one| Thing::Card(one.id.clone()) != *thing).map(|c| c.panel().centre),
        );
        if *thing != Thing::Camera {
            lines.push(laid.camera(self));
        }
        if let Thing::Light(id) = thing
            && let Some(light) = self.light_called(id)
        {
            let aim = laid.aim(self, light);
            let camera = Direction::of(laid.camera(self) - laid.anchor()).azimuth_deg;
            let mine = Direction::of(at - aim).azimuth_deg;
            for (other, away) in away.into_iter().flat_map(LightDistances::each).filter(|(other, _)| *other != light) {
                let stands = laid.light(self, other, away);
                let theirs = Direction::of(stands - laid.aim(self, other)).azimuth_deg;
                let mirrored = 2.0 * camera - theirs;
                if signed_deg(mine - mirrored).abs() < EQUAL_DEG {
                    let flat = (at - aim).truncate().length();
                    let there = Direction::new(mirrored, 0.0).vector() * flat;
                    return Point::new(aim.x + there.x, aim.y + there.y, at.z);
                }
            }
        }
        let to = |value: f64, others: &mut dyn Iterator<Item = f64>| {
            let near = others.filter(|other| (value - other).abs() < IN_LINE_M);
            let near = near.min_by(|a, b| (value - a).abs().total_cmp(&(value - b).abs()));
            near.unwrap_or_else(|| (value / step).round() * step)
        };
        let x = to(at.x, &mut lines.iter().map(|point| point.x));
        let y = to(at.y, &mut lines.iter().map(|point| point.y));
        Point::new(thousandth(x), thousandth(y), at.z)
    }
}

#[cfg(test)]
mod tests {
    use tolva_core::scale::LengthUnit;

    use super::*;
    use crate::setup::Kit;

    fn at(setup: &Setup, kit: &Kit, thing: &Thing) -> Point {
        setup.stands(kit, thing).expect("there")
    }

    /// A light that is dragged comes to rest on 5 cm, in line with the camera, and opposite another at its angle.
    #[test]
    fn what_is_dragged_comes_to_rest() {
        let kit = Kit::starter();
        let mut setup = Setup::new("one", &kit);
        setup.add_light(&kit).expect("a second");
        setup.use_set();
        let (a, b) = (Thing::Light("A".to_owned()), Thing::Light("B".to_owned()));
        let mut drag = |thing: &Thing, to: (f64, f64)| {
            setup.move_on_set(&kit, thing, Some(to), (0, 0), (true, LengthUnit::Metres)).expect("moved");
            at(&setup, &kit, thing)
        };
        let grid = drag(&b, (2.51, 1.12));
        assert!((grid.x - 2.5).abs() < 0.006 && (grid.y - 1.1).abs() < 0.006, "{grid}");
        let line = drag(&a, (0.06, -1.52));
        assert!(line.x.abs() < 0.006, "{line}");
        drag(&a, (-1.0, -1.0));
        let opposite = drag(&b, (1.02, -0.97));
        // Both are aimed at the main subject's face, 10 cm apart at most: the angles are those of their aims.
        assert!((opposite.x - 1.0).abs() < 0.05 && (opposite.y + 1.0).abs() < 0.05, "{opposite}");
        assert!((opposite.x.abs() - 1.0).abs() > 1e-6 || (opposite.y + 1.0).abs() > 1e-6, "by its angle, not the grid");
    }
}
