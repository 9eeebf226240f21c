//! What every handler shares.

use crate::compute::Computer;
use crate::database::Condition;
use crate::desks::Desks;
use crate::doors::Doors;
use crate::instruments::Scale;
use crate::live::Live;
use crate::pace::Pace;
use crate::problem::Problem;
use crate::searches::Searches;
use chrono::{DateTime, Duration, SubsecRound, Utc};
use sqlx::mysql::MySqlPool;
use sqlx::{MySql, Transaction};
use std::sync::{Arc, Mutex};
use tokio::sync::{Notify, Semaphore};
use ulvek_store::StoreError;

/// Photographs that are developed at once: each may take half a gigabyte. [practice]
const DARKROOM: usize = 2;

/// Now, possibly shifted: tests and screenshots run on a day of their own.
#[derive(Debug, Clone, Copy, Default)]
pub struct Clock {
    ahead: Duration,
}

impl Clock {
    /// A clock that shows `start` now and runs on.
    pub fn starting_at(start: DateTime<Utc>) -> Self {
        Self { ahead: start - Utc::now() }
    }

    /// The present moment, as fine as it is stored: what was read again is the same.
    pub fn now(&self) -> DateTime<Utc> {
        (Utc::now() + self.ahead).trunc_subsecs(STORED_DIGITS)
    }
}

/// Digits of a second that the database keeps (DATETIME(6)). definition
const STORED_DIGITS: u16 = 6;

/// What every handler shares; cheap to clone. What it remembers between requests can be computed
/// again, but for what lies on the simulated scale and the searches that run.
#[derive(Clone)]
pub struct App {
    /// Connections to the database.
    pub pool: MySqlPool,
    /// The time it is.
    pub clock: Clock,
    /// The simulated bench scale.
    pub scale: Arc<Mutex<Scale>>,
    /// Searches for better plans that run or have ended.
    pub searches: Searches,
    /// The one place that computes.
    pub computer: Computer,
    /// Studios that were looked at lately, with what is known of their films.
    pub desks: Desks,
    /// What instruments send, told to the pages that look.
    pub live: Live,
    /// How often each instrument may send.
    pub pace: Pace,
    /// Wakes the simulated instruments.
    pub simulated: Arc<Notify>,
    /// Places to develop photographs.
    pub darkroom: Arc<Semaphore>,
    /// The private database, if there is one.
    pub database: Option<Condition>,
    /// The names under which the application answers.
    pub doors: Arc<Doors>,
}

impl App {
    /// The application on a database, with an empty scale and no search.
    pub fn new(pool: MySqlPool, clock: Clock) -> Self {
        Self {
            pool,
            clock,
            scale: Arc::default(),
            searches: Searches::default(),
            computer: Computer::default(),
            desks: Desks::default(),
            live: Live::default(),
            pace: Pace::default(),
            simulated: Arc::default(),
            darkroom: Arc::new(Semaphore::new(DARKROOM)),
            database: None,
            doors: Arc::default(),
        }
    }

    /// Begins a transaction that changes something.
    ///
    /// # Errors
    /// A problem when the disk is full or the database away.
    pub async fn begin(&self) -> Result<Transaction<'static, MySql>, Problem> {
        if self.database.as_ref().is_some_and(|d| !d.has_room()) {
            return Err(Problem::no_room());
        }
        Ok(self.pool.begin().await?)
    }

    /// Begins a transaction that only reads: everything in it is of one moment.
    ///
    /// # Errors
    /// A problem when the database is away.
    pub async fn reading(&self) -> Result<Transaction<'static, MySql>, Problem> {
        Ok(self.pool.begin().await?)
    }

    /// Gives up everything that is computed: the application ends.
    pub fn end_computations(&self) {
        self.searches.stop_all();
        self.computer.end();
        self.live.end();
    }
}

/// Keeps what a transaction changed. The answer to whoever asked is made before, in the transaction:
/// after this nothing can go wrong any more.
///
/// # Errors
/// A problem that says whether it may have been saved all the same.
pub async fn commit(tx: Transaction<'static, MySql>) -> Result<(), Problem> {
    match tx.commit().await.map_err(StoreError::from) {
        Ok(()) => Ok(()),
        Err(StoreError::Away(cause)) => {
            tracing::warn!(%cause, "the database went away during a commit");
            Err(Problem::unsure())
        }
        Err(StoreError::Refused(cause)) => {
            tracing::error!(%cause, "the database refused a commit");
            Err(Problem::unsure())
        }
        Err(other) => Err(other.into()),
    }
}
