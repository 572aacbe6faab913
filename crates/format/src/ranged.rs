//! What is declared of a value and what it is checked against: least and most, lengths and counts. The declarations stand
//! in the `#[schema(…)]` attributes of the types; `#[derive(Ranged)]` makes the checks of them.

use crate::problems::Checker;

/// What is declared of one field.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(crate) struct Range {
    /// The least a number may be.
    pub least: f64,
    /// The most it may be.
    pub most: f64,
    /// The fewest characters or items.
    pub fewest: usize,
    /// The most characters or items.
    pub greatest: usize,
}

impl Range {
    /// Nothing is declared.
    pub const ANY: Self = Self { least: f64::NEG_INFINITY, most: f64::INFINITY, fewest: 0, greatest: usize::MAX };
    /// An item of a list, where a text is a line.
    pub const OF_ITEM: Self = Self { greatest: 400, ..Self::ANY };
}

/// What can be held against what is declared of it.
pub(crate) trait Ranged {
    /// Notes what is wrong with a field's value, or inside it.
    fn ranged(&self, c: &mut Checker, field: &'static str, range: &Range);
}

impl Ranged for f64 {
    fn ranged(&self, c: &mut Checker, field: &'static str, range: &Range) {
        // What is no number lies in no range, also where none is declared.
        c.number(field, *self, &(range.least..=range.most));
    }
}

impl Ranged for u8 {
    fn ranged(&self, c: &mut Checker, field: &'static str, range: &Range) {
        f64::from(*self).ranged(c, field, range);
    }
}

impl Ranged for u32 {
    fn ranged(&self, c: &mut Checker, field: &'static str, range: &Range) {
        f64::from(*self).ranged(c, field, range);
    }
}

impl Ranged for bool {
    fn ranged(&self, _: &mut Checker, _: &'static str, _: &Range) {}
}

impl Ranged for String {
    fn ranged(&self, c: &mut Checker, field: &'static str, range: &Range) {
        c.text(field, self, range.fewest, range.greatest);
    }
}

impl<T: Ranged> Ranged for Option<T> {
    fn ranged(&self, c: &mut Checker, field: &'static str, range: &Range) {
        if let Some(value) = self {
            value.ranged(c, field, range);
        }
    }
}

impl<T: Ranged> Ranged for Vec<T> {
    fn ranged(&self, c: &mut Checker, field: &'static str, range: &Range) {
        c.count_of(field, self.len(), range.fewest, range.greatest);
        if self.len() > range.greatest {
            return;
        }
        // The range of the list is none of its items'.
        c.each(field, self, |c, item| item.ranged(c, "", &Range::OF_ITEM));
    }
}
