//! The record of a job: its log with its frames, as it is sent and as files.

use serde::Serialize;
use serde_json::{Value, json};
use tolva_format::{DeedKind, Job};
use tolva_store::{FrameListing, Store, StoreError};
use tolva_wording::deed_name;
use utoipa::ToSchema;

use crate::table;

/// A line of the log.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct LogEntry {
    /// When, in UTC (RFC 3339).
    pub utc: String,
    /// Its code: `tick`, `reading`, `frame`, `note`, `change` and so on.
    pub kind: String,
    /// The same in words.
    pub kind_says: String,
    /// The device it was done on; empty for the machine Tolva runs on.
    pub who: String,
    /// The setup it is about; null where it is about the job.
    pub setup_id: Option<String>,
    /// What that is called, or was.
    pub setup: Option<String>,
    /// What was done.
    pub says: String,
    /// The frame that came; null where none did.
    pub frame_id: Option<String>,
}

/// What was done to a job, the oldest first, and the job.
///
/// # Errors
/// No such job, one that cannot be read, or the database's.
pub async fn entries(id: &str, store: &Store) -> Result<(Vec<LogEntry>, Job), StoreError> {
    let lines = store.log(id).await?;
    let job = store.job(id).await?.document;
    let name = |setup_id: &str| job.setups.iter().find(|setup| setup.id == setup_id).map(|setup| setup.name.clone());
    let mut all: Vec<LogEntry> = lines
        .into_iter()
        .map(|line| LogEntry {
            utc: line.at,
            kind_says: deed_name(&line.kind).unwrap_or("Other").to_owned(),
            kind: line.kind,
            who: line.who,
            setup: line.setup_id.as_deref().and_then(name),
            setup_id: line.setup_id,
            says: line.says,
            frame_id: None,
        })
        .collect();
    // Frames are rows of their own: what is in the bin is in no log.
    let frame = DeedKind::Frame.code();
    all.extend(store.frame_list(id, &FrameListing::default()).await?.frames.into_iter().map(|taken| LogEntry {
        utc: taken.added_at,
        kind: frame.to_owned(),
        kind_says: deed_name(frame).unwrap_or_default().to_owned(),
        who: String::new(),
        setup: Some(taken.setup_name),
        setup_id: Some(taken.setup_id),
        says: taken.name,
        frame_id: Some(taken.id),
    }));
    all.sort_by(|a, b| a.utc.cmp(&b.utc));
    Ok((all, job))
}

/// A log as a table.
pub fn csv(entries: &[LogEntry]) -> String {
    let head = ["utc", "kind", "setup", "who", "says", "frame_id"];
    let rows = entries.iter().map(|entry| {
        let setup = entry.setup.as_deref().unwrap_or_default();
        let frame = entry.frame_id.as_deref().unwrap_or_default();
        [&entry.utc, &entry.kind, setup, &entry.who, &entry.says, frame]
    });
    table::csv(std::iter::once(head).chain(rows))
}

/// A log as JSON, to keep.
pub fn json(job: &str, entries: &[LogEntry]) -> Value {
    json!({ "format": "tolva-log", "job": job, "entries": entries })
}

#[cfg(test)]
mod tests {
    use super::*;

    /// Every kind of deed has words.
    #[test]
    fn every_deed_has_a_name() {
        let unnamed: Vec<_> = DeedKind::ALL.into_iter().filter(|kind| deed_name(kind.code()).is_none()).collect();
        assert!(unnamed.is_empty(), "{unnamed:?}");
    }
}
