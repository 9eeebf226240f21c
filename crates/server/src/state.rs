//! What every handler shares.

use crate::instruments::Scale;
use crate::problem::Problem;
use crate::searches::Searches;
use chrono::{DateTime, Duration, Utc};
use sqlx::mysql::MySqlPool;
use std::sync::{Arc, Mutex};

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

    /// The present moment.
    pub fn now(&self) -> DateTime<Utc> {
        Utc::now() + self.ahead
    }
}

/// What every handler shares; cheap to clone. Nothing is remembered in it between requests but what
/// lies on the simulated scale and the searches that run.
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
}

impl App {
    /// The application on a database, with an empty scale and no search.
    pub fn new(pool: MySqlPool, clock: Clock) -> Self {
        Self { pool, clock, scale: Arc::default(), searches: Searches::default() }
    }
}

/// Runs a computation away from the threads that answer requests.
///
/// # Errors
/// An internal problem when the computation panics.
pub async fn compute<T: Send + 'static>(
    work: impl FnOnce() -> T + Send + 'static,
) -> Result<T, Problem> {
    tokio::task::spawn_blocking(work).await.map_err(|cause| {
        tracing::error!(%cause, "a computation failed");
        Problem::internal()
    })
}
