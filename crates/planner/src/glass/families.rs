//! The kinds of moves that are tried for something that shows, each with how far it goes.

use tolva_core::scale::{Metres, Millimetres};
use tolva_core::set::Vector;

use super::moves::Move;
use super::showing::{By, Finding, Shown};
use super::tries::Tries;
use crate::set::thousandth;
use crate::setup::FeatherTo;

/// A kind of move: how far it goes at most, on what grid, and the move of an amount.
pub(super) struct Family {
    pub most: f64,
    pub grain: f64,
    pub make: Box<dyn Fn(f64) -> Move>,
}

impl Tries<'_> {
    pub(super) fn families(&self, what: &Shown, findings: &[Finding]) -> Vec<Family> {
        let mut all = Vec::new();
        let mut add = |most: f64, grain: f64, make: Box<dyn Fn(f64) -> Move>| {
            if most >= grain {
                all.push(Family { most, grain, make });
            }
        };
        let setup = &self.pinned;
        if let Shown::Light(light) = what
            && !setup.lights[*light].on_camera
        {
            let id = || setup.lights[*light].id.clone();
            let (at, room) = (
                self.stage.at(*light, Metres(self.away[*light])),
                self.stage.laid.set.ceiling.map_or(5.0, |ceiling| ceiling.height_m - 0.3),
            );
            let light_id = id();
            add((room - at.z).min(2.5), 0.05, Box::new(move |by_m| Move::Raise { light_id: light_id.clone(), by_m }));
            for side in [1.0, -1.0] {
                let light_id = id();
                add(90.0, 1.0, Box::new(move |by| Move::Round { light_id: light_id.clone(), by_deg: side * by }));
            }
            let light_id = id();
            add(self.away[*light] - 0.4, 0.05, Box::new(move |by_m| Move::Nearer { light_id: light_id.clone(), by_m }));
            if self.stage.laid.lights[*light].head.is_none() {
                let now = setup.lights[*light].feather_deg;
                for to in [FeatherTo::Camera, FeatherTo::Away, FeatherTo::Up, FeatherTo::Down] {
                    let from = if self.stage.laid.lights[*light].feather_to == to { now } else { 0.0 };
                    let light_id = id();
                    add(
                        70.0 - from,
                        1.0,
                        Box::new(move |by| Move::Feather { light_id: light_id.clone(), to, to_deg: from + by }),
                    );
                }
            }
        }
        let camera = self.stage.camera();
        add(2.6 - camera.z, 0.05, Box::new(|by_m| Move::CameraHeight { by_m }));
        add(camera.z - 0.3, 0.05, Box::new(|by_m| Move::CameraHeight { by_m: -by_m }));
        for side in [1.0, -1.0] {
            add(60.0, 1.0, Box::new(move |by| Move::CameraRound { by_deg: side * by }));
            add(12.0, 0.5, Box::new(move |by| Move::CameraTurn { by_deg: side * by }));
        }
        self.longer_lens(&mut add);
        self.panes_and_people(what, findings, &mut add);
        all
    }

    fn longer_lens(&self, add: &mut impl FnMut(f64, f64, Box<dyn Fn(f64) -> Move>)) {
        let setup = &self.pinned;
        let (focal, distance) = (setup.focal_length_mm, setup.camera_distance_m);
        let longest = self.kit.lenses.iter().max_by(|a, b| a.longest_mm.total_cmp(&b.longest_mm));
        let Some(longest) = longest.filter(|lens| lens.longest_mm > focal * 1.02) else { return };
        let own = self.kit.lenses.iter().find(|lens| lens.id == setup.lens_id).cloned();
        let other = longest.clone();
        add(
            longest.longest_mm - focal,
            1.0,
            Box::new(move |by| {
                let wanted = Millimetres(focal + by);
                let lens = own.as_ref().filter(|lens| lens.longest_mm >= wanted.0).unwrap_or(&other);
                let focal_length_mm = wanted.0.clamp(lens.shortest_mm, lens.longest_mm);
                Move::LongerLens {
                    lens_id: lens.id.clone(),
                    focal_length_mm,
                    camera_distance_m: thousandth(distance * focal_length_mm / focal),
                }
            }),
        );
    }

    fn panes_and_people(
        &self,
        what: &Shown,
        findings: &[Finding],
        add: &mut impl FnMut(f64, f64, Box<dyn Fn(f64) -> Move>),
    ) {
        let set = &self.stage.laid.set;
        let mine = || findings.iter().filter(|one| one.what == *what && one.shows());
        for (index, pane) in set.panes.iter().enumerate().filter(|(_, pane)| pane.turns) {
            let in_it = |one: &Finding| matches!(&one.by, By::Pane(by) | By::Twice(by, _) if *by == index);
            if mine().any(in_it) {
                for side in [1.0, -1.0] {
                    let pane_id = pane.id.clone();
                    add(60.0, 1.0, Box::new(move |by| Move::TurnPane { pane_id: pane_id.clone(), by_deg: side * by }));
                }
            }
        }
        for (index, person) in set.people.iter().enumerate() {
            let worn = mine().any(|one| matches!(one.by, By::Glasses(whose, _) if whose == index));
            if worn {
                let (tilt, person_id) = (person.spectacles.map_or(0.0, |one| one.tilt_deg), person.id.clone());
                add(
                    (20.0 - tilt).max(0.0),
                    1.0,
                    Box::new(move |by_deg| Move::TiltSpectacles { person_id: person_id.clone(), by_deg }),
                );
                for side in [1.0, -1.0] {
                    let person_id = person.id.clone();
                    add(
                        40.0,
                        1.0,
                        Box::new(move |by| Move::TurnHead { person_id: person_id.clone(), by_deg: side * by }),
                    );
                }
            }
        }
        // Somebody stands before it: who is nearest to the line goes aside onto it.
        if mine().any(|one| matches!(one.by, By::Pane(_) | By::Twice(..))) {
            let level = (self.stage.view.right * Vector::new(1.0, 1.0, 0.0)).normalize_or(Vector::X);
            for person in set.people.iter().take(4) {
                for side in [1.0, -1.0] {
                    let person_id = person.id.clone();
                    let by = level * side;
                    add(
                        1.2,
                        0.05,
                        Box::new(move |amount| Move::StandBefore {
                            person_id: person_id.clone(),
                            by_m: (by.x * amount, by.y * amount),
                        }),
                    );
                }
            }
        }
    }
}
