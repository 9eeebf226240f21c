//! Ulvek's data in MariaDB: the only place with SQL.
//!
//! A studio's settings, its air, its shelf, and a picture with its steps are each one aggregate: read
//! whole, written whole, with a version. Every write names the version it was made on, and a stale
//! one changes nothing. Each write leaves a revision, so that it can be undone and redone.
//! Functions take a connection, so that a caller can put several into one transaction.

mod air;
mod air_body;
mod daybook;
mod error;
mod instrument;
mod log;
mod log_body;
mod log_entry;
mod log_search;
mod log_words;
mod measured;
mod mix_body;
mod photograph;
mod picture;
mod picture_body;
mod place;
mod revision;
mod seal_body;
mod settings_body;
mod setup;
mod shelf;
mod shelf_body;
mod studio;
mod unread;
mod versioned;

pub use air::{AirState, save_air, undo_air, usual_air};
pub use daybook::{daybook_of, enter_in_daybook, put_right_in_daybook};
pub use error::StoreError;
pub use instrument::{
    Instrument, add_instrument, change_token, forecast_of, heard_of, instrument_of_token,
    instruments_of, keep_forecast, let_behave, remove_instrument, simulated_instruments,
};
pub use log::{keep_planned, log_of, was_sent};
pub use log_body::{SwatchBody, WhatBody, WordsBody};
pub use log_entry::{DIGITS, Done, LaidCoatBody, LogEntry, Planned};
pub use log_search::{LogAsked, LogFound, index_log, search_log};
pub use measured::{
    hold_air, keep_measured, make_hours, measured_between, take_back_measured, typed_since,
};
pub use photograph::{
    NewPhotograph, Photograph, Rendition, add_photograph, delete_photograph, load_rendition,
    name_photograph, photographs_of, photographs_of_studio, restore_photograph,
};
pub use picture::{
    PictureAway, StoredPicture, count_pictures, create_picture, delete_picture, load_picture,
    pictures_away, restore_picture, save_picture, studio_of, undo_picture,
};
pub use place::{
    PhotographPlace, Wanted, find_instrument, find_photograph, find_picture, find_studio,
};
pub use revision::{Direction, History, last_change};
pub use setup::{SetupError, SetupLock};
pub use shelf::{Ground, ShelfState, hold_ground, hold_ground_alone, save_shelf, undo_shelf};
pub use studio::{
    StoredStudio, StudioListing, StudioState, create_studio, delete_studio, is_begun, list_studios,
    load_studio, load_studio_again, restore_studio, save_settings, studio_state, undo_settings,
    zone_of,
};

pub use unread::UnreadRow;

use sqlx::Connection;
use sqlx::mysql::{MySqlConnectOptions, MySqlPool, MySqlPoolOptions};
use std::str::FromStr;
use std::time::Duration;

/// The migrations. An application runs them under a [`SetupLock`].
pub static MIGRATIONS: sqlx::migrate::Migrator = sqlx::migrate!();

/// Connections kept open at most. [practice] a painter's machine or one node of an atelier
const CONNECTIONS: u32 = 8;
/// How long a request waits for a connection [s] before the database counts as away. [practice]
const PATIENCE_S: u64 = 3;

/// How long a connection may have been idle to be lent untested. [practice] a database takes longer to start again
const UNTESTED: Duration = Duration::from_secs(1);

/// How long an edit waits for a lock of another one [s]. [practice]
const LOCK_WAIT_S: u64 = 5;

/// Statements that a connection keeps prepared. [practice] the store has some hundred
const PREPARED: usize = 256;
/// What is said of a statement that is written anew each time (so many rows, these numbers): kept prepared it would only
/// drive out those that come again.
pub(crate) const ONCE: bool = false;

/// What the database must refuse instead of changing it silently. [source: mariadb.com/kb, SQL_MODE]
const STRICT: &str =
    "SET SESSION sql_mode = CONCAT(@@sql_mode, ',STRICT_ALL_TABLES,NO_ZERO_DATE,NO_ZERO_IN_DATE')";
/// Character set of every connection and text column: any name of any script.
const CHARSET: &str = "utf8mb4";
/// How names are compared where nothing else is said.
const COLLATION: &str = "utf8mb4_unicode_ci";

/// A pool of connections to the database at `url`; connects when first used.
///
/// # Errors
/// [`StoreError`] when the URL cannot be read.
pub fn pool(url: &str) -> Result<MySqlPool, StoreError> {
    Ok(MySqlPoolOptions::new()
        .max_connections(CONNECTIONS)
        .acquire_timeout(Duration::from_secs(PATIENCE_S))
        .test_before_acquire(false)
        .before_acquire(|conn, lent| {
            Box::pin(async move {
                if lent.idle_for > UNTESTED {
                    conn.ping().await?;
                }
                Ok(true)
            })
        })
        .after_connect(|conn, _| {
            Box::pin(async move {
                // Shorter than the patience of whoever asks: the edit is then tried again.
                sqlx::query("SET SESSION innodb_lock_wait_timeout = ?")
                    .bind(LOCK_WAIT_S)
                    .execute(&mut *conn)
                    .await?;
                // What is no date is refused, never kept as the date zero.
                sqlx::query(STRICT).execute(conn).await.map(|_| ())
            })
        })
        .connect_lazy_with(
            MySqlConnectOptions::from_str(url)?
                .charset(CHARSET)
                .collation(COLLATION)
                .statement_cache_capacity(PREPARED),
        ))
}

/// Whether the database at `url` answers and lets its user in.
pub async fn lets_in(url: &str) -> bool {
    match sqlx::MySqlConnection::connect(url).await {
        Ok(connection) => connection.close().await.is_ok(),
        Err(_) => false,
    }
}

/// Asks the database for a sign of life.
///
/// # Errors
/// [`StoreError::Away`] when it gives none.
pub async fn answers(pool: &MySqlPool) -> Result<(), StoreError> {
    sqlx::query("SELECT 1").execute(pool).await?;
    Ok(())
}
