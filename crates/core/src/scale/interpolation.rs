//! Between the points of a table.

/// A value between the points of a table, straight from one to the next, held beyond the ends. Nothing where the table is
/// empty.
///
/// ```
/// use tolva_core::scale::interpolated;
/// let table = [(0.0, 1.0), (10.0, 3.0)];
/// assert_eq!(interpolated(table.into_iter(), 2.5), Some(1.5));
/// assert_eq!(interpolated(table.into_iter(), 99.0), Some(3.0));
/// ```
pub fn interpolated(points: impl Iterator<Item = (f64, f64)>, x: f64) -> Option<f64> {
    let (mut below, mut above) = (None::<(f64, f64)>, None::<(f64, f64)>);
    for point in points {
        if point.0 <= x && below.is_none_or(|best| point.0 > best.0) {
            below = Some(point);
        }
        if point.0 >= x && above.is_none_or(|best| point.0 < best.0) {
            above = Some(point);
        }
    }
    match (below, above) {
        (Some(a), Some(b)) if b.0 > a.0 => Some(a.1 + (b.1 - a.1) * (x - a.0) / (b.0 - a.0)),
        (Some(one), _) | (None, Some(one)) => Some(one.1),
        (None, None) => None,
    }
}
