//! `ulvek serve`: database, migrations, application, and an orderly end.

use crate::database::{DatabaseError, PrivateDatabase};
use crate::demo::{DemoError, demo_studio};
use crate::demo_photographs::keep_photographs;
use crate::state::{App, Clock};
use crate::web::application;
use axum::serve::ListenerExt;
use chrono::{DateTime, Utc};
use std::io::Write;
use std::path::PathBuf;
use thiserror::Error;
use tokio::net::TcpListener;
use ulvek_store::{MIGRATIONS, StoreError};

/// What the server is told at its start.
#[derive(Debug, Clone)]
pub struct Settings {
    /// Address to listen on.
    pub listen: String,
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
    #[error("the database cannot be brought up to date: {0}")]
    Migration(#[from] sqlx::migrate::MigrateError),
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
}

/// Runs the application until it is told to stop.
///
/// # Errors
/// [`ServeError`] when it cannot start.
pub async fn serve(settings: Settings) -> Result<(), ServeError> {
    let page = settings.front.join("index.html");
    if !page.exists() {
        return Err(ServeError::NoFront(page));
    }
    let listener = TcpListener::bind(&settings.listen)
        .await
        .map_err(|e| ServeError::Listen(settings.listen.clone(), e))?;
    let private = match &settings.database_url {
        Some(_) => None,
        None => Some(PrivateDatabase::start(&settings.data, true).await?),
    };
    let url = private.as_ref().map(|p| p.url().to_owned()).or(settings.database_url.clone());
    let result = run(&settings, listener, &url.unwrap_or_default()).await;
    if let Some(private) = private {
        private.stop().await;
    }
    result
}

async fn run(settings: &Settings, listener: TcpListener, url: &str) -> Result<(), ServeError> {
    let pool = ulvek_store::pool(url)?;
    MIGRATIONS.run(&pool).await?;
    let clock = settings.clock.map_or_else(Clock::default, Clock::starting_at);
    if settings.demo {
        let mut tx = pool.begin().await?;
        if ulvek_store::list_studios(&mut tx).await?.is_empty() {
            let now = clock.now();
            let id = ulvek_store::create_studio(&mut tx, &demo_studio(now)?, now).await?;
            let stored = ulvek_store::load_studio(&mut tx, id).await?;
            keep_photographs(&mut tx, &stored, now).await?;
        }
        tx.commit().await?;
    }
    let address =
        listener.local_addr().map_err(|e| ServeError::Listen(settings.listen.clone(), e))?;
    let app = App::new(pool.clone(), clock);
    let searches = app.searches.clone();
    let app = application(app, &settings.front);
    let mut out = std::io::stdout().lock();
    let _ = writeln!(out, "Ulvek is at http://{address}").and_then(|()| out.flush());
    drop(out);
    // Small answers leave at once instead of waiting for more.
    let listener = listener.tap_io(|io| {
        let _ = io.set_nodelay(true);
    });
    axum::serve(listener, app)
        .with_graceful_shutdown(async move {
            told_to_stop().await;
            // Whoever watches a search would otherwise keep the application from ending.
            searches.stop_all();
        })
        .await
        .map_err(|e| ServeError::Listen(settings.listen.clone(), e))?;
    pool.close().await;
    Ok(())
}

/// Waits for Ctrl-C or SIGTERM.
pub async fn told_to_stop() {
    use tokio::signal::unix::{SignalKind, signal};
    let (Ok(mut end), Ok(mut interrupt), Ok(mut hangup)) = (
        signal(SignalKind::terminate()),
        signal(SignalKind::interrupt()),
        signal(SignalKind::hangup()),
    ) else {
        let _ = tokio::signal::ctrl_c().await;
        return;
    };
    tokio::select! {
        _ = end.recv() => {}
        _ = interrupt.recv() => {}
        _ = hangup.recv() => {}
    }
}
