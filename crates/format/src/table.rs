//! Cells of tables that a spreadsheet would take for a formula.

use std::borrow::Cow;

/// What a spreadsheet begins to compute at.
const FORMULA: [char; 6] = ['=', '+', '-', '@', '\t', '\r'];

/// A cell that no spreadsheet takes for a formula: one that begins like one and is no number gets an apostrophe before
/// it, which spreadsheets take for the mark of a text.
///
/// ```
/// use tolva_format::harmless;
/// assert_eq!(harmless("=1+1"), "'=1+1");
/// assert_eq!(harmless("-1.5"), "-1.5");
/// ```
pub fn harmless(cell: &str) -> Cow<'_, str> {
    if cell.starts_with(FORMULA) && cell.parse::<f64>().is_err() || begins_marked(cell) {
        Cow::Owned(format!("'{cell}"))
    } else {
        Cow::Borrowed(cell)
    }
}

/// Whether reading would take an apostrophe away that is the text's own.
fn begins_marked(cell: &str) -> bool {
    cell.strip_prefix('\'').is_some_and(|rest| rest.starts_with(FORMULA) || rest.starts_with('\''))
}

/// The cell that was made harmless, as it was.
pub(crate) fn harmful_no_more(cell: &str) -> &str {
    match cell.strip_prefix('\'') {
        Some(rest) if rest.starts_with(FORMULA) || rest.starts_with('\'') => rest,
        _ => cell,
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case("=SUM(A1)", "'=SUM(A1)")]
    #[case("+fill", "'+fill")]
    #[case("-1.32", "-1.32")]
    #[case("@noon", "'@noon")]
    #[case("’s", "’s")]
    #[case("'=", "''=")]
    #[case("", "")]
    fn there_and_back(#[case] cell: &str, #[case] written: &str) {
        assert_eq!(harmless(cell), written);
        assert_eq!(harmful_no_more(written), cell);
    }
}
