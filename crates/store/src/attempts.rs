//! Answers to drills.

use crate::Store;
use crate::documents::{now, rfc3339};
use crate::error::StoreError;

/// An answer to a drill.
#[derive(Clone, Debug, PartialEq)]
pub struct KeptAttempt {
    /// When (RFC 3339); given by the store.
    pub at: String,
    /// The day it was where it was answered, counted from 1970-01-01.
    pub day: i64,
    /// Which device; empty for the machine Tolva runs on.
    pub who: String,
    /// What was practised, by its code.
    pub skill: String,
    /// How hard, 1 to 3.
    pub level: i64,
    /// What the drill was drawn with.
    pub seed: i64,
    /// Which option was chosen.
    pub answer: i64,
    /// Whether it is right.
    pub right: bool,
    /// By how many stops it is off; nothing where that is no matter of stops.
    pub off_stops: Option<f64>,
    /// The class it was asked for; empty for one's own.
    pub class: String,
}

impl Store {
    /// Keeps an answer. Sent again under its key it is the same one.
    ///
    /// # Errors
    /// A full disk, or the database's.
    pub async fn keep_attempt(&self, one: &KeptAttempt, key: Option<&str>) -> Result<(), StoreError> {
        let mut work = self.connections.writing().await?;
        let at = now();
        sqlx::query!(
            "INSERT INTO attempts (at, day, who, skill, level, seed, answer, right, off_stops, class, key)
             VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?) ON CONFLICT (key) DO NOTHING",
            at,
            one.day,
            one.who,
            one.skill,
            one.level,
            one.seed,
            one.answer,
            one.right,
            one.off_stops,
            one.class,
            key
        )
        .execute(&mut *work)
        .await?;
        work.commit().await
    }

    /// All answers, in the order they were given.
    ///
    /// # Errors
    /// The database's.
    pub async fn attempts(&self) -> Result<Vec<KeptAttempt>, StoreError> {
        let rows = sqlx::query!(
            r#"SELECT at, day, who, skill, level, seed, answer, right AS "right: bool", off_stops, class FROM attempts ORDER BY row"#
        )
        .fetch_all(&self.connections.readers)
        .await?;
        let kept = rows.into_iter().map(|row| KeptAttempt {
            at: rfc3339(row.at),
            day: row.day,
            who: row.who,
            skill: row.skill,
            level: row.level,
            seed: row.seed,
            answer: row.answer,
            right: row.right,
            off_stops: row.off_stops,
            class: row.class,
        });
        Ok(kept.collect())
    }
}
