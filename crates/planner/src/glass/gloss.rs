//! What a shiny product mirrors towards the lens, and the card that fills it from end to end.

use tolva_core::glass::{Card, Cylinder, cylinder_card, flat_card};
use tolva_core::set::{Panel, Point, Solid, Vector, mirrored, stopped};

use crate::refused::Refused;
use crate::setup::{CardKind, Finish, Kit, Product, ProductShape, Setup};
use crate::staging::{Stage, Thing};

/// A card stands so far off where none does yet, in metres.
const AWAY_M: f64 = 0.6;
/// The part of a cylinder's width that a card is to fill, to each side of its middle: the middle itself shows the camera's
/// own surroundings. Chosen.
const CYLINDER: (f64, f64) = (0.15, 0.6);

/// A shiny product.
#[derive(Clone, Debug, PartialEq)]
pub struct Gloss {
    /// Which, by its index.
    pub product: usize,
    /// What its middle shows the lens now; nothing where that is the dark room.
    pub shows: Option<Thing>,
    /// The card that fills it; nothing for a ball, which shows the whole room.
    pub card: Option<Card>,
    /// A card that is there already and fills it.
    pub filled_by: Option<String>,
}

/// The shiny products of a set.
pub fn gloss(stage: &Stage) -> Vec<Gloss> {
    let shiny = |(_, one): &(usize, &Product)| one.finish != Finish::Matt;
    stage.laid.set.products.iter().enumerate().filter(shiny).map(|(index, one)| of(stage, index, one)).collect()
}

/// The side of a box that the lens sees best.
fn face(product: &Product, lens: Point) -> Option<Panel> {
    if !matches!(product.shape, ProductShape::Box { .. }) {
        return None;
    }
    let square = |panel: &Panel| (lens - panel.centre).normalize_or_zero().dot(panel.normal);
    product.sides().into_iter().max_by(|a, b| square(a).total_cmp(&square(b)))
}

fn card_at(stage: &Stage, product: &Product, away_m: f64) -> Option<Card> {
    let lens = stage.view.at;
    match product.shape {
        ProductShape::Box { .. } => flat_card(lens, &face(product, lens)?, away_m),
        ProductShape::Cylinder { diameter_m, height_m } => {
            let foot = Point::new(product.x_m, product.y_m, product.table_m);
            // On the side the lens has more room: its right, unless a card stands at its left.
            let left = stage
                .laid
                .set
                .cards
                .iter()
                .any(|card| (card.panel().centre - product.middle()).dot(stage.view.right) < 0.0);
            let (from, to) = if left { (-CYLINDER.1, -CYLINDER.0) } else { CYLINDER };
            cylinder_card(lens, Cylinder { foot, diameter_m, height_m }, from..=to, away_m)
        }
        ProductShape::Ball { .. } => None,
    }
}

fn of(stage: &Stage, index: usize, product: &Product) -> Gloss {
    let lens = stage.view.at;
    let (spot, normal) = face(product, lens).map_or_else(
        || {
            let level = ((lens - product.middle()) * Vector::new(1.0, 1.0, 0.0)).normalize_or(-Vector::Y);
            (product.middle() + level * (product.size_m().0 / 2.0), level)
        },
        |panel| (panel.centre, panel.normal),
    );
    let out = mirrored((spot - lens).normalize_or(Vector::Y), normal);
    let own = |one: &&crate::staging::Standing| one.thing != Thing::Product(product.id.clone());
    let hit = |solid: &Solid| {
        let far = spot + out * 30.0;
        stopped(std::slice::from_ref(solid), spot, far).then(|| solid.middle().distance(spot))
    };
    let lit = stage.laid.set.openings.iter().map(|one| (Thing::Opening(one.id.clone()), Solid::Panel(one.panel())));
    let lit = lit.filter_map(|(thing, solid)| Some((hit(&solid)?, thing)));
    let met = stage.standing.iter().filter(own).filter_map(|one| Some((hit(&one.solid)?, one.thing.clone())));
    let shows = met.chain(lit).min_by(|a, b| a.0.total_cmp(&b.0)).map(|(_, thing)| thing);
    let card = card_at(stage, product, AWAY_M);
    let filled_by =
        stage.laid.set.cards.iter().find(|one| fills(stage, product, &one.panel())).map(|one| one.id.clone());
    Gloss { product: index, shows, card, filled_by }
}

/// Whether a card that stands fills it: where it stands, no more is needed than it has.
fn fills(stage: &Stage, product: &Product, panel: &Panel) -> bool {
    let away = panel.centre.distance(product.middle());
    card_at(stage, product, away).is_some_and(|needed| {
        let off = needed.centre - panel.centre;
        let room =
            |axis: Vector, needed: f64| off.dot(axis.normalize_or_zero()).abs() + needed / 2.0 <= axis.length() + 0.01;
        needed.looks.dot(panel.normal) > 0.9 && room(panel.right, needed.width_m) && room(panel.up, needed.height_m)
    })
}

impl Setup {
    /// A card stands where it fills a shiny product from end to end, as large as that takes.
    ///
    /// # Errors
    /// A product that is not there, or that no card fills; more cards than a set holds.
    pub fn card_for_gloss(&mut self, kit: &Kit, product_id: &str, kind: CardKind) -> Result<(), Refused> {
        self.use_set();
        let stage = Stage::of(self, kit);
        let there = || Refused::NoSuchThing(product_id.to_owned());
        let found = stage.laid.set.products.iter().find(|one| one.id == product_id).ok_or_else(there)?;
        let card = card_at(&stage, found, AWAY_M).ok_or_else(there)?;
        self.add_card(kind, &card)
    }
}
