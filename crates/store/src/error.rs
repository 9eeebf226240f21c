//! What can go wrong with stored data.

use thiserror::Error;

/// Why the store did not do what was asked.
#[derive(Debug, Error)]
pub enum StoreError {
    /// There is no such studio or picture.
    #[error("not found")]
    NotFound,
    /// The edit was made on an older version; nothing was changed.
    #[error("made on version {given}, but version {current} is stored")]
    Stale {
        /// The version the edit was made on.
        given: i64,
        /// The version that is stored.
        current: i64,
    },
    /// There is nothing to undo or redo.
    #[error("nothing to undo or redo")]
    NoSuchRevision,
    /// What is stored is not what this program writes.
    #[error("stored data cannot be read: {0}")]
    Unreadable(String),
    /// The database does not answer.
    #[error("the database does not answer")]
    Away(#[source] sqlx::Error),
    /// The database refused a statement.
    #[error("the database refused a statement")]
    Refused(#[source] sqlx::Error),
}

impl From<sqlx::Error> for StoreError {
    fn from(error: sqlx::Error) -> Self {
        match error {
            sqlx::Error::RowNotFound => Self::NotFound,
            sqlx::Error::Io(_)
            | sqlx::Error::PoolTimedOut
            | sqlx::Error::PoolClosed
            | sqlx::Error::WorkerCrashed
            | sqlx::Error::Protocol(_)
            | sqlx::Error::Tls(_) => Self::Away(error),
            // 1053: the server is shutting down; 1927, 4031: it dropped this connection.
            sqlx::Error::Database(ref e)
                if ["1053", "1927", "4031"].iter().any(|n| e.message().contains(n)) =>
            {
                Self::Away(error)
            }
            other => Self::Refused(other),
        }
    }
}
