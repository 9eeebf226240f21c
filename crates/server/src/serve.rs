//! `ulvek serve`: database, migrations, application, and an orderly end.

use crate::connections::{MOST_CONNECTIONS, serve_connections};
use crate::database::{DatabaseError, PrivateDatabase};
use crate::demo::DemoError;
use crate::demo_photographs::Demo;
use crate::doors::{Doors, PublicUrl};
use crate::signals::{AtOnce, Stop};
use crate::state::{App, Clock};
use crate::web::application;
use chrono::{DateTime, Utc};
use nix::sys::resource::{Resource, getrlimit, setrlimit};
use std::io::Write;
use std::net::SocketAddr;
use std::path::PathBuf;
use std::time::Duration;
use thiserror::Error;
use tokio::net::TcpListener;
use ulvek_store::{SetupError, SetupLock, StoreError};

/// How long connections to the database are waited for at the end [s]. [practice]
const LAST_CONNECTIONS: Duration = Duration::from_secs(5);

/// What the server is told at its start.
#[derive(Debug, Clone)]
pub struct Settings {
    /// Address to listen on.
    pub listen: String,
    /// Whether others on the network may be let in.
    pub open_to_network: bool,
    /// Addresses under which a proxy shows the application.
    pub public_urls: Vec<PublicUrl>,
    /// Folder of the private database and its data.
    pub data: PathBuf,
    /// Folder of the built front end.
    pub front: PathBuf,
    /// An existing database instead of the private one.
    pub database_url: Option<String>,
    /// Load the demo studio if there is no studio yet.
    pub demo: bool,
    /// Show this time now, for tests and screenshots.
    pub clock: Option<DateTime<Utc>>,
}

/// Why the server does not start.
#[derive(Debug, Error)]
pub enum ServeError {
    /// The private database.
    #[error(transparent)]
    Database(#[from] DatabaseError),
    /// The store.
    #[error(transparent)]
    Store(#[from] StoreError),
    /// The tables cannot be brought up to date.
    #[error(transparent)]
    Setup(#[from] SetupError),
    /// A connection.
    #[error("the database does not answer: {0}")]
    Connection(#[from] sqlx::Error),
    /// The demo.
    #[error(transparent)]
    Demo(#[from] DemoError),
    /// The front end is not built.
    #[error("the front end is not built ({0} is missing): run ./start, which builds it")]
    NoFront(PathBuf),
    /// The network.
    #[error("cannot listen on {0}: {1}")]
    Listen(String, #[source] std::io::Error),
    /// An address that others can reach, without the word for it.
    #[error(
        "{0} can be reached from the network, and Ulvek has no accounts: whoever reaches it reads \
         and changes everything. If that is meant, add --open-to-network; better, put a proxy that \
         signs people in before it"
    )]
    Open(SocketAddr),
    /// The system.
    #[error("cannot listen to signals: {0}")]
    Signals(#[source] std::io::Error),
}

/// Runs the application until it is told to stop.
///
/// # Errors
/// [`ServeError`] when it cannot start.
pub async fn serve(settings: Settings) -> Result<(), ServeError> {
    let at_once = AtOnce::default();
    let stop = Stop::listen(at_once.clone()).map_err(ServeError::Signals)?;
    let page = settings.front.join("index.html");
    if !page.exists() {
        return Err(ServeError::NoFront(page));
    }
    let listener = listen(&settings).await?;
    let starting = async {
        match &settings.database_url {
            Some(_) => Ok(None),
            None => PrivateDatabase::start(&settings.data, true).await.map(Some),
        }
    };
    let private = tokio::select! {
        started = starting => started?,
        () = stop.told() => return Ok(()),
    };
    if let Some(private) = &private {
        let last = private.last_word();
        *at_once.lock().unwrap_or_else(std::sync::PoisonError::into_inner) = Some(last);
    }
    let result = run(&settings, listener, private.as_ref(), &stop).await;
    if let Some(private) = private {
        private.stop().await;
    }
    result
}

async fn listen(settings: &Settings) -> Result<TcpListener, ServeError> {
    let fault = |e| ServeError::Listen(settings.listen.clone(), e);
    let listener = TcpListener::bind(&settings.listen).await.map_err(fault)?;
    let address = listener.local_addr().map_err(fault)?;
    if !address.ip().is_loopback() && !settings.open_to_network {
        return Err(ServeError::Open(address));
    }
    // Each connection is an open file; the usual limit is hardly more than the bound on them.
    if let Ok((soft, hard)) = getrlimit(Resource::RLIMIT_NOFILE) {
        let wanted = (4 * MOST_CONNECTIONS as u64).min(hard);
        if soft < wanted && setrlimit(Resource::RLIMIT_NOFILE, wanted, hard).is_err() {
            tracing::warn!(soft, "few files may be open at once");
        }
    }
    Ok(listener)
}

async fn run(
    settings: &Settings,
    listener: TcpListener,
    private: Option<&PrivateDatabase>,
    stop: &Stop,
) -> Result<(), ServeError> {
    let url = private.map(PrivateDatabase::url).or(settings.database_url.as_deref());
    let pool = ulvek_store::pool(url.unwrap_or_default())?;
    let clock = settings.clock.map_or_else(Clock::default, Clock::starting_at);
    let prepared = tokio::select! {
        done = prepare(settings, &pool, clock) => { done?; true }
        () = stop.told() => false,
    };
    if prepared {
        if let Some(private) = private {
            private.set_up()?;
        }
        let address =
            listener.local_addr().map_err(|e| ServeError::Listen(settings.listen.clone(), e))?;
        let mut app = App::new(pool.clone(), clock);
        app.database = private.map(PrivateDatabase::condition);
        app.doors = Doors::new(settings.public_urls.clone()).into();
        let shared = app.clone();
        let app = application(app, &settings.front);
        let simulated = tokio::spawn(crate::simulation::run(shared.clone(), app.clone()));
        let mut out = std::io::stdout().lock();
        let _ = writeln!(out, "Ulvek is at http://{address}").and_then(|()| out.flush());
        drop(out);
        serve_connections(listener, app, async move {
            stop.told().await;
            // Whoever waits for a long computation would otherwise keep the application from
            // ending.
            shared.end_computations();
        })
        .await;
        simulated.abort();
    }
    // A connection whose question was broken off may never come back: the application ends all the same.
    if tokio::time::timeout(LAST_CONNECTIONS, pool.close()).await.is_err() {
        tracing::warn!("some connections to the database did not come back and are cut off");
    }
    Ok(())
}

/// Brings the tables up to date and loads the demo, once, also of several applications that start together.
async fn prepare(
    settings: &Settings,
    pool: &sqlx::MySqlPool,
    clock: Clock,
) -> Result<(), ServeError> {
    let mut lock = SetupLock::take(pool).await?;
    lock.bring_up_to_date().await?;
    ulvek_store::index_log(pool).await?;
    if settings.demo {
        let begun = ulvek_store::is_begun(&mut *pool.acquire().await?).await?;
        if !begun {
            let now = clock.now();
            let demo = Demo::made(now)?;
            let mut tx = pool.begin().await?;
            demo.keep(&mut tx, now).await?;
            tx.commit().await?;
        }
    }
    lock.release().await;
    Ok(())
}
