//! The devices that were let in. A restore leaves them as they are.

use crate::Store;
use crate::documents::{now, rfc3339};
use crate::error::StoreError;

/// What a device may do.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Rights {
    /// Look only.
    Look,
    /// Look, tick and note.
    Tick,
    /// Everything but what belongs to the machine itself.
    All,
}

impl Rights {
    /// As it is kept.
    pub fn code(self) -> &'static str {
        match self {
            Self::Look => "look",
            Self::Tick => "tick",
            Self::All => "all",
        }
    }

    fn of(code: &str) -> Self {
        match code {
            "all" => Self::All,
            "tick" => Self::Tick,
            _ => Self::Look,
        }
    }
}

/// A device that was let in.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Device {
    /// Its id.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// The hash of what it carries.
    pub token_hash: String,
    /// What it may do.
    pub rights: Rights,
    /// When it was let in (RFC 3339).
    pub joined_at: String,
}

impl Store {
    /// All devices, the first let in first.
    ///
    /// # Errors
    /// The database's.
    pub async fn devices(&self) -> Result<Vec<Device>, StoreError> {
        let rows = sqlx::query!("SELECT id, name, token_hash, rights, joined_at FROM devices ORDER BY joined_at, id")
            .fetch_all(&self.connections.readers)
            .await?;
        let device = |row: (String, String, String, String, i64)| Device {
            id: row.0,
            name: row.1,
            token_hash: row.2,
            rights: Rights::of(&row.3),
            joined_at: rfc3339(row.4),
        };
        let rows = rows.into_iter().map(|row| (row.id, row.name, row.token_hash, row.rights, row.joined_at));
        Ok(rows.map(device).collect())
    }

    /// Lets a device in, or changes what one is called and may do: by its id.
    ///
    /// # Errors
    /// A full disk, or the database's.
    pub async fn keep_device(&self, device: &Device) -> Result<(), StoreError> {
        let mut work = self.connections.writing().await?;
        let (now, rights) = (now(), device.rights.code());
        sqlx::query!(
            "INSERT INTO devices (id, name, token_hash, rights, joined_at) VALUES (?1, ?2, ?3, ?4, ?5)
             ON CONFLICT (id) DO UPDATE SET name = ?2, rights = ?4",
            device.id,
            device.name,
            device.token_hash,
            rights,
            now
        )
        .execute(&mut *work)
        .await?;
        work.commit().await
    }

    /// Puts a device out.
    ///
    /// # Errors
    /// A full disk, or the database's.
    pub async fn put_out(&self, id: &str) -> Result<bool, StoreError> {
        let mut work = self.connections.writing().await?;
        let done = sqlx::query!("DELETE FROM devices WHERE id = ?", id).execute(&mut *work).await?;
        work.commit().await?;
        Ok(done.rows_affected() > 0)
    }
}
