//! What shows in which glass, and how strongly against what lies behind it there.

use crate::setup::LightIndex;
use tolva_core::glass::{Eyeglass, Glazing, Pane, Reflection, reflection};
use tolva_core::modifier::Surface;
use tolva_core::scale::{Metres, Stops};
use tolva_core::set::{Glow, Panel, Point, Solid, Vector, between_deg, sides};

use crate::set::LightDistances;
use crate::staging::{Photographer, Stage, Thing};

/// From so much under what lies behind it on, a reflection shows. Chosen; measure it.
pub const LEAST_SHOWN: Stops = Stops(-3.0);
/// A bare head glows as wide as its reflector, in metres. Common practice, no source.
pub(super) const BARE_M: f64 = 0.12;
/// The photographer is so wide, in metres. Common practice, no source.
const SHOULDERS_M: f64 = 0.5;
/// What may show.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Shown {
    /// A light's glowing face, by its index.
    Light(LightIndex),
    /// The photographer, with the tripod.
    Photographer,
    /// What is lit behind the camera or beside it: a wall.
    Surroundings(Thing),
}

/// In what it shows.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum By {
    /// A pane, by its index in the set.
    Pane(usize),
    /// By one pane and then another: the first is the one that is looked at.
    Twice(usize, usize),
    /// A spectacle glass: whose, by index, and whether it is their left one.
    Glasses(usize, bool),
}

/// Something that stands in a glass as the lens sees it.
#[derive(Clone, Debug, PartialEq)]
pub struct Finding {
    /// In what.
    pub by: By,
    /// What.
    pub what: Shown,
    /// Where and how much of it; for spectacles a place in the frame and the part that falls on the glass.
    pub seen: Reflection,
    /// How bright it is, in stops from mid grey.
    pub bright: Stops,
    /// What lies behind the glass there, in stops from mid grey.
    pub behind: Stops,
    /// Over what lies behind.
    pub over: Stops,
    /// The same if the frame were exposed for the light that is there.
    pub over_before: Stops,
}

impl Finding {
    /// Whether it is seen.
    pub fn shows(&self) -> bool {
        self.over >= LEAST_SHOWN
    }
}

/// What a look at the glass of a set goes by.
pub struct Look<'a> {
    /// The set.
    pub stage: &'a Stage,
    /// How far each light stands.
    pub distances: &'a LightDistances,
    pub(super) panes: Vec<Pane>,
    hiders: Vec<(Thing, Solid)>,
}

impl<'a> Look<'a> {
    /// The glass of a set.
    pub fn new(stage: &'a Stage, distances: &'a LightDistances) -> Self {
        let panes = stage.laid.set.panes.iter().map(crate::setup::Pane::pane).collect();
        let hiding = |one: &&crate::staging::Standing| !matches!(one.thing, Thing::Pane(_));
        let mut hiders: Vec<(Thing, Solid)> =
            stage.standing.iter().filter(hiding).map(|one| (one.thing.clone(), one.solid)).collect();
        hiders.push((Thing::Camera, photographer(stage.camera(), stage.view.forward).1));
        Self { stage, distances, panes, hiders }
    }

    /// Whether there is any glass.
    pub fn any(&self) -> bool {
        !self.panes.is_empty() || self.stage.laid.set.people.iter().any(|one| one.spectacles.is_some())
    }

    pub(super) fn glow(&self, light: LightIndex) -> Glow {
        self.stage.glow(light, Metres(self.distances[light]))
    }

    /// The outline of what may show, and the way it glows where it does so to one side only.
    fn outline(&self, what: &Shown) -> (Vec<Point>, Option<Vector>) {
        match what {
            Shown::Light(light) => (face(&self.glow(*light)), Some(self.glow(*light).axis)),
            Shown::Photographer => (photographer(self.stage.camera(), self.stage.view.forward).0, None),
            Shown::Surroundings(thing) => {
                let panel = self.wall(thing);
                (panel.map_or_else(Vec::new, |panel| panel.corners().into()), panel.map(|panel| panel.normal))
            }
        }
    }

    fn wall(&self, thing: &Thing) -> Option<Panel> {
        self.stage.surfaces.iter().find(|(of, ..)| of == thing).map(|(_, matt, _)| matt.panel)
    }

    /// Everything that may show.
    fn all(&self) -> Vec<Shown> {
        let lights = self.distances.each().map(|(light, _)| Shown::Light(light));
        // What lies behind the subject is the picture; what lies behind the camera comes into it by glass alone.
        let behind = |panel: &Panel| {
            let middle = panel.centre - self.stage.view.at;
            middle.dot(self.stage.view.forward) < 0.0
        };
        let walls = self
            .stage
            .surfaces
            .iter()
            .filter(|(thing, matt, _)| matches!(thing, Thing::Wall(_)) && behind(&matt.panel));
        let walls = walls.map(|(thing, ..)| Shown::Surroundings(thing.clone()));
        lights.chain([Shown::Photographer]).chain(walls).collect()
    }

    /// What stands where in which glass, whether it is bright enough to be seen or not.
    pub fn seen(&self) -> Vec<(By, Shown, Reflection)> {
        self.all().iter().flat_map(|what| self.seen_of(what)).collect()
    }

    /// One thing in every glass.
    fn seen_of(&self, what: &Shown) -> Vec<(By, Shown, Reflection)> {
        let mut all = Vec::new();
        self.each_of(what, &mut |by, seen| {
            all.push((by, what.clone(), seen));
            true
        });
        all
    }

    /// Whether a thing stands in no glass but where it may.
    fn only_where(&self, what: &Shown, may: impl Fn(&By) -> bool) -> bool {
        let mut only = true;
        self.each_of(what, &mut |by, _| {
            only = may(&by);
            only
        });
        only
    }

    /// Tells one thing in each glass it stands in, as long as it is asked to go on.
    fn each_of(&self, what: &Shown, tell: &mut dyn FnMut(By, Reflection) -> bool) {
        let (outline, looks) = self.outline(what);
        if outline.len() < 3 {
            return;
        }
        let itself = |thing: &Thing| match what {
            Shown::Light(_) => false,
            Shown::Photographer => *thing == Thing::Camera,
            Shown::Surroundings(wall) => thing == wall,
        };
        let hiders: Vec<Solid> =
            self.hiders.iter().filter(|(thing, _)| !itself(thing)).map(|(_, solid)| *solid).collect();
        let seen = |way: &[Pane]| reflection(&self.stage.view, way, &outline, looks, &hiders).filter(Reflection::shows);
        for (first, pane) in self.panes.iter().enumerate() {
            if let Some(once) = seen(&[*pane])
                && !tell(By::Pane(first), once)
            {
                return;
            }
            for (second, other) in self.panes.iter().enumerate().filter(|(second, _)| *second != first) {
                if let Some(twice) = seen(&[*pane, *other])
                    && !tell(By::Twice(first, second), twice)
                {
                    return;
                }
            }
        }
        let Shown::Light(light) = what else { return };
        for (person, one) in self.stage.laid.set.people.iter().enumerate() {
            for (left, glass) in one.eyeglasses().into_iter().enumerate() {
                if let Some(seen) = self.in_glass(&glass, *light, &outline)
                    && !tell(By::Glasses(person, left == 1), seen)
                {
                    return;
                }
            }
        }
    }

    /// A light in one spectacle glass, as a point of the frame.
    fn in_glass(&self, glass: &Eyeglass, light: LightIndex, outline: &[Point]) -> Option<Reflection> {
        let (view, glow) = (&self.stage.view, self.glow(light));
        let centre = view.project(glass.centre).filter(tolva_core::set::InFrame::inside)?;
        // Only its glowing side, and only where the face of the glass is seen.
        if glow.axis.dot(glass.centre - glow.centre) <= 0.0 || glass.axis.dot(view.at - glass.centre) <= 0.0 {
            return None;
        }
        let share = glass.share(view.at, outline);
        let (right, up) = sides(glass.axis, 0.0);
        let (x, y) = (right * (glass.width_m / 2.0), up * (glass.height_m / 2.0));
        let corners = [-x - y, x - y, x + y, y - x].map(|off| view.project(glass.centre + off));
        let outline: Vec<[f64; 2]> = corners.into_iter().flatten().map(|at| [at.right, at.up]).collect();
        let half = between_deg(view.at - glass.centre, glow.centre - glass.centre) / 2.0;
        let seen = Reflection {
            centre: Some(centre),
            centre_shows: share > 0.0,
            incidence_deg: half,
            reflectance: Glazing::Single.reflectance(half),
            shapes: vec![vec![outline]],
            share,
            unhidden: share,
            spot: glass.centre,
        };
        seen.shows().then_some(seen)
    }

    /// What stands in glass, without how bright it is.
    pub(super) fn places(&self) -> Vec<(By, Shown)> {
        self.seen().into_iter().map(|(by, what, _)| (by, what)).collect()
    }

    /// Who and what hides a part of something that stands in a pane: what stands in the way of its middle or of its corners.
    pub fn hidden_by(&self, by: &By, what: &Shown, seen: &Reflection) -> Vec<Thing> {
        let mut all = Vec::new();
        let By::Pane(pane) = by else { return all };
        if seen.unhidden - seen.share < 0.01 {
            return all;
        }
        let (lens, pane) = (self.stage.view.at, &self.panes[*pane]);
        let (outline, _) = self.outline(what);
        for point in outline {
            let along = pane.mirror(point) - lens;
            let spot = lens + along * (-pane.before(lens) / along.dot(pane.panel.normal));
            for (thing, solid) in &self.hiders {
                let own = matches!((what, thing), (Shown::Photographer, Thing::Camera));
                if !own && !all.contains(thing) && (solid.stops(lens, spot) || solid.stops(spot, point)) {
                    all.push(thing.clone());
                }
            }
        }
        all
    }

    /// Whether nothing of `gone` stands in any glass, and nothing that did not before.
    pub(super) fn clears(&self, before: &[(By, Shown)], gone: &Shown) -> bool {
        // What is to be gone first: most tries end there.
        let stood = |by: &By, what: &Shown| before.iter().any(|(was, one)| was == by && one == what);
        self.only_where(gone, |_| false)
            && self.all().iter().filter(|what| *what != gone).all(|what| self.only_where(what, |by| stood(by, what)))
    }

    /// Whether a pane stands between the lens and the subject.
    pub(super) fn is_shot_through(&self, pane: usize) -> bool {
        let pane = &self.panes[pane];
        pane.glazing != Glazing::Mirror && Solid::Panel(pane.panel).stops(self.stage.view.at, self.stage.laid.anchor())
    }
}

/// The face of a light as an outline; a bare head has its reflector's.
fn face(glow: &Glow) -> Vec<Point> {
    let outline = glow.outline();
    if outline.len() > 2 {
        return outline;
    }
    let bare = Surface::Disc { diameter: Metres(BARE_M) };
    Glow { surface: bare, ..*glow }.outline()
}

/// The photographer as a flat outline behind the lens, and as a body that hides.
fn photographer(lens: Point, forward: Vector) -> (Vec<Point>, Solid) {
    let Photographer { foot, ahead, tall_m } = Photographer::behind(lens, forward);
    let panel = Panel::new(foot + Vector::Z * (tall_m / 2.0), ahead, SHOULDERS_M, tall_m);
    let solid = Solid::Column { foot, radius_m: SHOULDERS_M / 2.0, height_m: tall_m };
    (panel.corners().into(), solid)
}
