//! Which revisions stay: all of the last day, one an hour for a week, one a day after; those with a name, and the one
//! that is shown, for ever.

use std::collections::{HashMap, HashSet};

use sqlx::SqliteConnection;

use crate::error::StoreError;

const HOUR_MS: i64 = 3_600_000;
pub(crate) const DAY_MS: i64 = 24 * HOUR_MS;
const WEEK_MS: i64 = 7 * DAY_MS;
/// Every so many saves of a document its old ones are looked through.
const EVERY: i64 = 32;

/// A revision, as far as it matters here.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Kept {
    number: i64,
    parent: Option<i64>,
    saved_at: i64,
    /// Whether it has a name.
    named: i64,
}

/// The revisions that go: of each hour or day all but the newest.
fn going(revisions: &[Kept], head: i64, now: i64) -> HashSet<i64> {
    let bucket = |one: &Kept| match now - one.saved_at {
        age if age < DAY_MS => None,
        age if age < WEEK_MS => Some((HOUR_MS, one.saved_at.div_euclid(HOUR_MS))),
        _ => Some((DAY_MS, one.saved_at.div_euclid(DAY_MS))),
    };
    let mut newest: HashMap<(i64, i64), i64> = HashMap::new();
    for one in revisions {
        if let Some(bucket) = bucket(one) {
            let number = newest.entry(bucket).or_insert(one.number);
            *number = (*number).max(one.number);
        }
    }
    let stays = |one: &Kept| {
        one.number == head || one.named > 0 || bucket(one).is_none_or(|bucket| newest.get(&bucket) == Some(&one.number))
    };
    revisions.iter().filter(|one| !stays(one)).map(|one| one.number).collect()
}

/// The new parent of each revision that stays and whose parent goes: the nearest before it that stays.
fn adopted(revisions: &[Kept], going: &HashSet<i64>) -> Vec<(i64, Option<i64>)> {
    let parents: HashMap<i64, Option<i64>> = revisions.iter().map(|one| (one.number, one.parent)).collect();
    let staying = revisions.iter().filter(|one| !going.contains(&one.number));
    let orphans = staying.filter(|one| one.parent.is_some_and(|parent| going.contains(&parent)));
    orphans
        .map(|one| {
            let mut parent = one.parent;
            while let Some(gone) = parent.filter(|parent| going.contains(parent)) {
                parent = parents.get(&gone).copied().flatten();
            }
            (one.number, parent)
        })
        .collect()
}

/// Thins out a document's revisions, every so many saves.
pub(crate) async fn thin_out(work: &mut SqliteConnection, id: &str, number: i64, now: i64) -> Result<(), StoreError> {
    if number % EVERY == 0 { thin_out_now(work, id, now).await } else { Ok(()) }
}

/// The same at once.
pub(crate) async fn thin_out_now(work: &mut SqliteConnection, id: &str, now: i64) -> Result<(), StoreError> {
    let revisions = sqlx::query_as!(
        Kept,
        r#"SELECT number, parent, saved_at, point IS NOT NULL AS "named!: i64" FROM revisions WHERE document_id = ?
           ORDER BY number"#,
        id
    )
    .fetch_all(&mut *work)
    .await?;
    let head = sqlx::query_scalar!("SELECT head FROM documents WHERE id = ?", id).fetch_one(&mut *work).await?;
    let going = going(&revisions, head, now);
    for (number, parent) in adopted(&revisions, &going) {
        sqlx::query!("UPDATE revisions SET parent = ? WHERE document_id = ? AND number = ?", parent, id, number)
            .execute(&mut *work)
            .await?;
    }
    for number in going {
        sqlx::query!("DELETE FROM revisions WHERE document_id = ? AND number = ?", id, number)
            .execute(&mut *work)
            .await?;
    }
    Ok(())
}

#[cfg(test)]
mod tests {
    use super::*;

    const NOW: i64 = 2_000 * DAY_MS;

    /// One every ten minutes for so many days, each made from the one before.
    fn every_ten_minutes(days: i64) -> Vec<Kept> {
        let count = days * 144;
        (1..=count)
            .map(|number| Kept {
                number,
                parent: (number > 1).then(|| number - 1),
                saved_at: NOW - (count - number) * DAY_MS / 144,
                named: 0,
            })
            .collect()
    }

    #[test]
    fn a_day_whole_a_week_by_the_hour_and_the_rest_by_the_day() {
        let revisions = every_ten_minutes(30);
        let going = going(&revisions, 30 * 144, NOW);
        let stay: Vec<&Kept> = revisions.iter().filter(|one| !going.contains(&one.number)).collect();
        let within = |from: i64, to: i64| stay.iter().filter(|one| (from..to).contains(&(NOW - one.saved_at))).count();
        assert_eq!(within(0, DAY_MS), 144);
        // The hour and the day that a limit falls into count on both sides of it.
        assert_eq!(within(DAY_MS, WEEK_MS), 6 * 24 + 1);
        assert_eq!(within(WEEK_MS, 40 * DAY_MS), 24);
        let hours: HashSet<i64> = stay.iter().map(|one| one.saved_at.div_euclid(HOUR_MS)).collect();
        assert_eq!(hours.len(), 24 + 6 * 24 + 24, "of each hour or day one");
    }

    #[test]
    fn what_has_a_name_and_what_is_shown_stay() {
        let mut revisions = every_ten_minutes(30);
        revisions[9].named = 1;
        let going = going(&revisions, 5, NOW);
        assert!(!going.contains(&10) && !going.contains(&5) && going.contains(&6));
    }

    #[test]
    fn undo_leads_to_the_nearest_before_that_stays() {
        let revisions = every_ten_minutes(30);
        let going = going(&revisions, 30 * 144, NOW);
        let adopted = adopted(&revisions, &going);
        assert!(adopted.iter().all(|(number, parent)| parent.is_none_or(|parent| parent < *number)));
        let whole = |one: &i64| !going.contains(one);
        let of_the_second_day = adopted.iter().find(|(number, _)| (289..432).contains(number)).expect("one");
        assert!(of_the_second_day.1.is_some_and(|parent| whole(&parent) && parent < 289));
        let parents: HashSet<Option<i64>> = adopted.iter().map(|(_, parent)| *parent).collect();
        assert_eq!(parents.len(), adopted.len(), "a line stays a line");
    }
}
