//! What every handler shares.

use crate::bodies::Bodies;
use crate::compute::Computer;
use crate::darkroom::Darkroom;
use crate::database::Condition;
use crate::desks::Desks;
use crate::doors::Doors;
use crate::instruments::Scale;
use crate::leaving::unless_left;
use crate::live::Live;
use crate::pace::Pace;
use crate::problem::Problem;
use crate::searches::Searches;
use crate::streams::Streams;
use chrono::{DateTime, Duration, SubsecRound, Utc};
use sqlx::mysql::MySqlPool;
use sqlx::pool::PoolConnection;
use sqlx::{MySql, MySqlConnection, Transaction};
use std::collections::HashMap;
use std::marker::PhantomData;
use std::ops::{Deref, DerefMut};
use std::sync::{Arc, Mutex};
use tokio::sync::Notify;
use ulvek_core::cancel::Cancel;
use ulvek_store::StoreError;
use uuid::Uuid;

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
    /// Connections to the database, lent one at a time: see [`Held`].
    pool: MySqlPool,
    /// The time it is.
    pub clock: Clock,
    /// The bench scale of each studio.
    pub scales: Arc<Mutex<HashMap<Uuid, Scale>>>,
    /// Searches for better plans that run or have ended.
    pub searches: Searches,
    computer: Computer,
    /// Studios that were looked at lately, with what is known of their films.
    pub desks: Desks,
    /// What instruments send, told to the pages that look.
    pub live: Live,
    /// How often each instrument may send.
    pub pace: Pace,
    /// Wakes the simulated instruments.
    pub simulated: Arc<Notify>,
    /// Places to develop photographs.
    pub darkroom: Darkroom,
    /// Room for what is sent.
    pub bodies: Bodies,
    /// Streams of events that are open.
    pub streams: Streams,
    /// The private database, if there is one.
    pub database: Option<Condition>,
    /// The names under which the application answers.
    pub doors: Arc<Doors>,
}

impl App {
    /// The application on a database, with no scale and no search.
    pub fn new(pool: MySqlPool, clock: Clock) -> Self {
        Self {
            pool,
            clock,
            scales: Arc::default(),
            searches: Searches::default(),
            computer: Computer::default(),
            desks: Desks::default(),
            live: Live::default(),
            pace: Pace::default(),
            simulated: Arc::default(),
            darkroom: Darkroom::default(),
            bodies: Bodies::default(),
            streams: Streams::default(),
            database: None,
            doors: Arc::default(),
        }
    }

    /// Begins a transaction that changes something.
    ///
    /// # Errors
    /// A problem when the disk is full or the database away.
    pub async fn begin(&mut self) -> Result<Held<'_>, Problem> {
        if self.database.as_ref().is_some_and(|d| !d.has_room()) {
            return Err(Problem::no_room());
        }
        self.reading().await
    }

    /// Begins a transaction that only reads: everything in it is of one moment.
    ///
    /// # Errors
    /// A problem when the database is away.
    pub async fn reading(&mut self) -> Result<Held<'_>, Problem> {
        Ok(OnLoan { conn: self.pool.begin().await?, _lent: Lent(PhantomData) })
    }

    /// A connection for one statement that reads: it is of one moment without a transaction.
    ///
    /// # Errors
    /// A problem when the database is away.
    pub async fn glance(&mut self) -> Result<Glance<'_>, Problem> {
        Ok(OnLoan { conn: self.pool.acquire().await?, _lent: Lent(PhantomData) })
    }

    /// The one place that computes: for who holds no connection.
    pub const fn computing(&mut self) -> &Computer {
        &self.computer
    }

    /// Does `work` away from the threads that answer requests, and gives it up when nobody waits.
    ///
    /// # Errors
    /// An internal problem when it panics.
    pub async fn aside<T: Send + 'static>(
        &mut self,
        work: impl FnOnce() -> T + Send + 'static,
    ) -> Result<T, Problem> {
        struct GoneWithMe(Cancel);
        impl Drop for GoneWithMe {
            fn drop(&mut self) {
                self.0.cancel();
            }
        }
        let flag = GoneWithMe(Cancel::default());
        let mine = flag.0.clone();
        let done = tokio::task::spawn_blocking(move || mine.unless_cancelled(work));
        let done = unless_left(done).await?;
        match done {
            Ok(Some(value)) => Ok(value),
            Ok(None) => Err(Problem::busy()),
            Err(cause) => {
                tracing::error!(%cause, "a computation failed");
                Err(Problem::internal())
            }
        }
    }

    /// Whether the database answers.
    ///
    /// # Errors
    /// A problem when it does not.
    pub async fn database_answers(&self) -> Result<(), Problem> {
        Ok(ulvek_store::answers(&self.pool).await?)
    }

    /// Gives up everything that is computed: the application ends.
    pub fn end_computations(&self) {
        self.searches.stop_all();
        self.computer.end();
        self.live.end();
    }
}

/// A connection in a transaction, on loan. As long as it is held its holder has lent the whole [`App`], and
/// whatever computes wants that: a computation while a connection is held does not compile.
///
/// ```no_run
/// # async fn deed(mut app: ulvek_server::state::App) -> Result<(), ulvek_server::problem::Problem> {
/// app.aside(|| 6 * 7).await?;
/// let tx = app.begin().await?;
/// tx.commit().await
/// # }
/// ```
///
/// ```compile_fail
/// # async fn deed(mut app: ulvek_server::state::App) -> Result<(), ulvek_server::problem::Problem> {
/// let tx = app.begin().await?;
/// app.aside(|| 6 * 7).await?; // the application is lent to `tx`
/// tx.commit().await
/// # }
/// ```
pub type Held<'a> = OnLoan<'a, Transaction<'static, MySql>>;
/// A connection outside of a transaction, on loan as [`Held`] is.
pub type Glance<'a> = OnLoan<'a, PoolConnection<MySql>>;

/// A connection on loan.
pub struct OnLoan<'a, C> {
    conn: C,
    _lent: Lent<'a>,
}

/// The loan: it lasts until its holder is dropped, which is what having a `Drop` of its own makes the compiler see.
struct Lent<'a>(PhantomData<&'a mut App>);

impl Drop for Lent<'_> {
    fn drop(&mut self) {}
}

impl<C: Deref<Target = MySqlConnection>> Deref for OnLoan<'_, C> {
    type Target = MySqlConnection;

    fn deref(&self) -> &MySqlConnection {
        &self.conn
    }
}

impl<C: DerefMut<Target = MySqlConnection>> DerefMut for OnLoan<'_, C> {
    fn deref_mut(&mut self) -> &mut MySqlConnection {
        &mut self.conn
    }
}

impl Held<'_> {
    /// Keeps what the transaction changed and gives the connection back. The answer to whoever asked is made
    /// before, in the transaction: after this nothing can go wrong any more.
    ///
    /// # Errors
    /// A problem that says whether it may have been saved all the same.
    pub async fn commit(self) -> Result<(), Problem> {
        commit(self.conn).await
    }
}

async fn commit(tx: Transaction<'static, MySql>) -> Result<(), Problem> {
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
