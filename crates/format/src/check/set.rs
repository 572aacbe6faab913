//! What the things of a set say of each other.

use std::collections::HashSet;

use super::unique;
use crate::problems::Checker;
use crate::set::Set;

/// Ids are unique among things of a kind. Where something stands is never refused: what cannot be is told at the thing.
pub(super) fn set(c: &mut Checker, set: &Set) {
    let ids = |c: &mut Checker, field: &'static str, all: Vec<&String>| {
        let mut seen = HashSet::new();
        c.each(field, &all, |c, id| unique(c, &mut seen, id));
    };
    ids(c, "people", set.people.iter().map(|one| &one.id).collect());
    ids(c, "products", set.products.iter().map(|one| &one.id).collect());
    ids(c, "cards", set.cards.iter().map(|one| &one.id).collect());
    ids(c, "walls", set.walls.iter().map(|one| &one.id).collect());
    ids(c, "openings", set.openings.iter().map(|one| &one.id).collect());
    ids(c, "panes", set.panes.iter().map(|one| &one.id).collect());
    ids(c, "hazards", set.hazards.iter().map(|one| &one.id).collect());
}
