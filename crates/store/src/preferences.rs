//! How one person likes numbers shown: a small document whose shape is the caller's.

use crate::{Store, StoreError};

impl Store {
    /// The preferences as they were last kept, as JSON.
    ///
    /// # Errors
    /// The database's.
    pub async fn preferences(&self) -> Result<Option<String>, StoreError> {
        Ok(sqlx::query_scalar!("SELECT document FROM preference WHERE id = 1")
            .fetch_optional(&self.connections.readers)
            .await?)
    }

    /// Keeps the preferences.
    ///
    /// # Errors
    /// The database's.
    pub async fn set_preferences(&self, document: &str) -> Result<(), StoreError> {
        let mut work = self.connections.writing().await?;
        sqlx::query!(
            "INSERT INTO preference (id, document) VALUES (1, ?) ON CONFLICT (id) DO UPDATE SET document = excluded.document",
            document
        )
        .execute(&mut *work)
        .await?;
        work.commit().await
    }
}
