//! Bringing a database up to date: one application at a time, and gone on with where a start was cut off.

use crate::StoreError;
use sqlx::migrate::{MigrateError, Migrator};
use sqlx::{Connection, MySqlConnection, MySqlPool};
use thiserror::Error;

/// How long another application may set the same database up before this one gives up [s]. [practice]
const LOCK_S: u32 = 60;
/// The first migration whose statements can be run again after a start that was cut off in the middle of it.
const FIRST_REPEATABLE: i64 = 16;

/// Why a database is not up to date.
#[derive(Debug, Error)]
pub enum SetupError {
    /// Another application is at it.
    #[error(
        "another Ulvek has been setting this database up for {LOCK_S} s: wait until it has started, then start \
         this one again"
    )]
    Busy,
    /// An older application was cut off in the middle of it, and there are studios in it.
    #[error(
        "an older Ulvek was cut off while it brought this database up to date (at step {0}): bring back the copy \
         that you made before, or ask for help; nothing was changed now"
    )]
    HalfWay(i64),
    /// It was used by a later version.
    #[error("this database was used by a newer Ulvek (step {0} is not known here): start that one")]
    Newer(i64),
    /// A migration failed.
    #[error("the database cannot be brought up to date: {0}")]
    Migration(MigrateError),
    /// The database.
    #[error(transparent)]
    Store(#[from] StoreError),
}

impl From<sqlx::Error> for SetupError {
    fn from(error: sqlx::Error) -> Self {
        Self::Store(error.into())
    }
}

impl From<MigrateError> for SetupError {
    fn from(error: MigrateError) -> Self {
        match error {
            MigrateError::VersionMissing(step) => Self::Newer(step),
            other => Self::Migration(other),
        }
    }
}

/// The right to set a database up, which one application has at a time; given back when it is dropped.
pub struct SetupLock(MySqlConnection);

impl SetupLock {
    /// Waits for the right to set up the database of `pool`.
    ///
    /// # Errors
    /// [`SetupError::Busy`] when another application has it for too long.
    pub async fn take(pool: &MySqlPool) -> Result<Self, SetupError> {
        // A connection of its own: the lock is the connection's, and ends with it.
        let mut connection = pool.acquire().await?.detach();
        let (taken,): (Option<i64>,) =
            sqlx::query_as("SELECT GET_LOCK(CONCAT('ulvek ', MD5(DATABASE())), ?)")
                .bind(LOCK_S)
                .fetch_one(&mut connection)
                .await?;
        if taken == Some(1) { Ok(Self(connection)) } else { Err(SetupError::Busy) }
    }

    /// Makes the tables, or brings them up to date.
    ///
    /// # Errors
    /// [`SetupError`] with what is to be done.
    pub async fn bring_up_to_date(&mut self) -> Result<(), SetupError> {
        let migrator = migrator();
        match migrator.run(&mut self.0).await {
            Err(MigrateError::Dirty(step)) => {
                self.clear_half_way(step).await?;
                Ok(migrator.run(&mut self.0).await?)
            }
            done => Ok(done?),
        }
    }

    /// Clears what is in the way of going on after a start that was cut off in migration `step`.
    async fn clear_half_way(&mut self, step: i64) -> Result<(), SetupError> {
        if step >= FIRST_REPEATABLE {
            sqlx::query("DELETE FROM _sqlx_migrations WHERE version = ? AND NOT success")
                .bind(step)
                .execute(&mut self.0)
                .await?;
            return Ok(());
        }
        if self.has_studios().await? {
            return Err(SetupError::HalfWay(step));
        }
        // A first start: nothing was ever kept in it, and it begins anew.
        sqlx::query("SET SESSION foreign_key_checks = 0").execute(&mut self.0).await?;
        sqlx::query(
            "DROP TABLE IF EXISTS sent, forecast_hour, measured_hour, measurement, instrument, log_entry, \
             reading, air, photograph, shelf, revision, picture, material, studio, _sqlx_migrations",
        )
        .execute(&mut self.0)
        .await?;
        sqlx::query("SET SESSION foreign_key_checks = 1").execute(&mut self.0).await?;
        Ok(())
    }

    async fn has_studios(&mut self) -> Result<bool, SetupError> {
        let (table,): (i64,) = sqlx::query_as(
            "SELECT COUNT(*) FROM information_schema.tables \
             WHERE table_schema = DATABASE() AND table_name = 'studio'",
        )
        .fetch_one(&mut self.0)
        .await?;
        if table == 0 {
            return Ok(false);
        }
        let (studios,): (i64,) =
            sqlx::query_as("SELECT COUNT(*) FROM studio").fetch_one(&mut self.0).await?;
        Ok(studios > 0)
    }

    /// Gives the right back.
    pub async fn release(self) {
        // A connection that is gone has given it back too.
        let _ = self.0.close().await;
    }
}

/// The migrations, under the lock of this file: the driver's own waits with a time that MariaDB answers with
/// nothing, and so locks nothing.
fn migrator() -> Migrator {
    let mut migrator = sqlx::migrate!();
    migrator.set_locking(false);
    migrator
}
