//! What can go wrong with stored data.

use sqlx::mysql::MySqlDatabaseError;
use thiserror::Error;

/// Errors of MariaDB that pass by themselves; nothing was changed, and asking again helps: 1047 a
/// Galera node that is not ready, 1053 and 1927 a server that is going, 1205 and 1213 a lock that
/// another transaction holds (on Galera also a lost certification), 4031 an idle connection that
/// was dropped. [source: MariaDB error codes, mariadb.com/kb]
const PASSING: [u16; 6] = [1047, 1053, 1205, 1213, 1927, 4031];

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
    /// The database does not answer just now, or another transaction is in the way.
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
            sqlx::Error::Database(ref e)
                if e.try_downcast_ref::<MySqlDatabaseError>()
                    .is_some_and(|e| PASSING.contains(&e.number())) =>
            {
                Self::Away(error)
            }
            other => Self::Refused(other),
        }
    }
}
