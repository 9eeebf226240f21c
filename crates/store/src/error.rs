//! What can go wrong with stored data.

use sqlx::mysql::MySqlDatabaseError;
use thiserror::Error;

/// Errors of MariaDB that pass by themselves; nothing was changed, and asking again helps: 1047 a
/// Galera node that is not ready, 1053 and 1927 a server that is going, 4031 an idle connection
/// that was dropped. [source: MariaDB error codes, mariadb.com/kb]
const PASSING: [u16; 4] = [1047, 1053, 1927, 4031];
/// A lock that another transaction holds: 1205 waited for too long, 1213 a deadlock (on Galera
/// also a lost certification). The transaction was or will be rolled back whole. [source: as above]
const IN_THE_WAY: [u16; 2] = [1205, 1213];
/// Another edit came first: 1020 what was read has changed since (snapshot isolation of newer
/// servers), 1062 a name or number that was just taken. [source: as above]
const OVERTAKEN: [u16; 2] = [1020, 1062];
/// Nothing may be changed: 1036 a table, 1290 and 1792 the server is set or switched to read only. [source: as
/// above]
const READ_ONLY: [u16; 3] = [1036, 1290, 1792];
/// No room: 1021 disk full, 1114 table full. [source: as above]
const FULL: [u16; 2] = [1021, 1114];

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
    /// Another edit came first, and it cannot be said which; nothing was changed.
    #[error("another edit came first")]
    Overtaken,
    /// Other transactions are in the way: trying the whole edit again may help.
    #[error("another edit is in the way")]
    InTheWay(#[source] sqlx::Error),
    /// There is no room left on the disk.
    #[error("the disk is full")]
    Full(#[source] sqlx::Error),
    /// The database is read-only.
    #[error("the database is read-only")]
    ReadOnly(#[source] sqlx::Error),
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
            sqlx::Error::Database(ref e) => {
                let number = e.try_downcast_ref::<MySqlDatabaseError>().map(|e| e.number());
                match number {
                    Some(n) if PASSING.contains(&n) => Self::Away(error),
                    Some(n) if IN_THE_WAY.contains(&n) => Self::InTheWay(error),
                    Some(n) if OVERTAKEN.contains(&n) => Self::Overtaken,
                    Some(n) if READ_ONLY.contains(&n) => Self::ReadOnly(error),
                    Some(n) if FULL.contains(&n) => Self::Full(error),
                    _ => Self::Refused(error),
                }
            }
            other => Self::Refused(other),
        }
    }
}
