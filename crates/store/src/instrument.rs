//! Instruments of a studio, and the forecast that one sent last.

use crate::{ONCE, StoreError};
use chrono::{DateTime, Utc};
use sqlx::{FromRow, MySql, MySqlConnection, QueryBuilder};
use ulvek_core::air::{Air, InstrumentKind, ORDINARY_M_S, RoomHour};
use ulvek_core::time::{exact_instant, seconds};
use uuid::Uuid;

/// Rows of one statement: what a packet of MariaDB holds with ease. [practice]
const ROWS: usize = 1000;
/// An instrument of a studio.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Instrument {
    /// Its key.
    pub id: Uuid,
    /// Its studio.
    pub studio: Uuid,
    /// What it measures.
    pub kind: InstrumentKind,
    /// What the painter calls it.
    pub name: String,
    /// Of when its last reading is.
    pub heard_at: Option<DateTime<Utc>>,
    /// What of it was refused last, and when.
    pub refused: Option<(String, DateTime<Utc>)>,
    /// How it behaves and since when, when it is a simulated one.
    pub simulated: Option<(String, DateTime<Utc>)>,
}

#[derive(FromRow)]
struct InstrumentRow {
    id: Uuid,
    studio_id: Uuid,
    kind: String,
    name: String,
    heard_at: Option<DateTime<Utc>>,
    refused: Option<String>,
    refused_at: Option<DateTime<Utc>>,
    behaviour: Option<String>,
    behaves_since: Option<DateTime<Utc>>,
}

impl InstrumentRow {
    fn read(self) -> Result<Instrument, StoreError> {
        let kind = InstrumentKind::from_word(&self.kind)
            .ok_or_else(|| StoreError::Unreadable(format!("instrument {}", self.kind)))?;
        Ok(Instrument {
            id: self.id,
            studio: self.studio_id,
            kind,
            name: self.name,
            heard_at: self.heard_at,
            refused: self.refused.zip(self.refused_at),
            simulated: self.behaviour.zip(self.behaves_since),
        })
    }
}

const COLUMNS: &str = "i.id, i.studio_id, i.kind, i.name, i.heard_at, i.refused, i.refused_at, \
                       i.behaviour, i.behaves_since";

/// Adds an instrument that is known by the SHA-256 of its token.
///
/// # Errors
/// [`StoreError`].
pub async fn add_instrument(
    conn: &mut MySqlConnection,
    new: &Instrument,
    token: [u8; 32],
    at: DateTime<Utc>,
) -> Result<(), StoreError> {
    sqlx::query(
        "INSERT INTO instrument (id, studio_id, kind, name, token_sha256, made_at, behaviour, \
         behaves_since) VALUES (?, ?, ?, ?, ?, ?, ?, ?)",
    )
    .bind(new.id)
    .bind(new.studio)
    .bind(new.kind.word())
    .bind(&new.name)
    .bind(token.as_slice())
    .bind(at.naive_utc())
    .bind(new.simulated.as_ref().map(|(how, _)| how))
    .bind(new.simulated.as_ref().map(|(_, since)| since.naive_utc()))
    .execute(conn)
    .await?;
    Ok(())
}

/// The instruments of a studio, the first added first.
///
/// # Errors
/// [`StoreError`].
pub async fn instruments_of(
    conn: &mut MySqlConnection,
    studio: Uuid,
) -> Result<Vec<Instrument>, StoreError> {
    let query = format!(
        "SELECT {COLUMNS} FROM instrument i WHERE i.studio_id = ? AND i.removed_at IS NULL \
         ORDER BY i.made_at, i.id"
    );
    let rows: Vec<InstrumentRow> =
        sqlx::query_as(sqlx::AssertSqlSafe(query)).bind(studio).fetch_all(conn).await?;
    rows.into_iter().map(InstrumentRow::read).collect()
}

/// Every simulated instrument of a studio that is there.
///
/// # Errors
/// [`StoreError`].
pub async fn simulated_instruments(
    conn: &mut MySqlConnection,
) -> Result<Vec<Instrument>, StoreError> {
    let query = format!(
        "SELECT {COLUMNS} FROM instrument i JOIN studio s ON s.id = i.studio_id \
         WHERE i.behaviour IS NOT NULL AND i.removed_at IS NULL AND s.deleted_at IS NULL"
    );
    let rows: Vec<InstrumentRow> =
        sqlx::query_as(sqlx::AssertSqlSafe(query)).fetch_all(conn).await?;
    rows.into_iter().map(InstrumentRow::read).collect()
}

/// The instrument that a token belongs to, by the token's SHA-256.
///
/// # Errors
/// [`StoreError::NotFound`] when there is none, or it or its studio was taken away.
pub async fn instrument_of_token(
    conn: &mut MySqlConnection,
    token: [u8; 32],
) -> Result<Instrument, StoreError> {
    let query = format!(
        "SELECT {COLUMNS} FROM instrument i JOIN studio s ON s.id = i.studio_id \
         WHERE i.token_sha256 = ? AND i.removed_at IS NULL AND s.deleted_at IS NULL"
    );
    let row: InstrumentRow =
        sqlx::query_as(sqlx::AssertSqlSafe(query)).bind(token.as_slice()).fetch_one(conn).await?;
    row.read()
}

/// Gives an instrument another token, by its SHA-256.
///
/// # Errors
/// [`StoreError`].
pub async fn change_token(
    conn: &mut MySqlConnection,
    instrument: Uuid,
    token: [u8; 32],
) -> Result<(), StoreError> {
    sqlx::query("UPDATE instrument SET token_sha256 = ? WHERE id = ?")
        .bind(token.as_slice())
        .bind(instrument)
        .execute(conn)
        .await?;
    Ok(())
}

/// Takes an instrument of a studio away; what it sent stays.
///
/// # Errors
/// [`StoreError::NotFound`] when the studio has no such instrument.
pub async fn remove_instrument(
    conn: &mut MySqlConnection,
    (studio, instrument): (Uuid, Uuid),
    at: DateTime<Utc>,
) -> Result<(), StoreError> {
    let done = sqlx::query(
        "UPDATE instrument SET removed_at = ? WHERE id = ? AND studio_id = ? AND removed_at IS NULL",
    )
    .bind(at.naive_utc())
    .bind(instrument)
    .bind(studio)
    .execute(conn)
    .await?;
    if done.rows_affected() == 0 { Err(StoreError::NotFound) } else { Ok(()) }
}

/// Says how a simulated instrument behaves from `since` on.
///
/// # Errors
/// [`StoreError::NotFound`] when the studio has no such simulated instrument.
pub async fn let_behave(
    conn: &mut MySqlConnection,
    (studio, instrument): (Uuid, Uuid),
    how: &str,
    since: DateTime<Utc>,
) -> Result<(), StoreError> {
    let done = sqlx::query(
        "UPDATE instrument SET behaviour = ?, behaves_since = ? WHERE id = ? AND studio_id = ? \
         AND removed_at IS NULL AND behaviour IS NOT NULL",
    )
    .bind(how)
    .bind(since.naive_utc())
    .bind(instrument)
    .bind(studio)
    .execute(conn)
    .await?;
    if done.rows_affected() == 0 { Err(StoreError::NotFound) } else { Ok(()) }
}

/// Notes that an instrument was heard of `at`, and what of it was refused.
///
/// # Errors
/// [`StoreError`].
pub async fn heard_of(
    conn: &mut MySqlConnection,
    instrument: Uuid,
    at: Option<DateTime<Utc>>,
    refused: Option<(&str, DateTime<Utc>)>,
) -> Result<(), StoreError> {
    sqlx::query(
        "UPDATE instrument SET heard_at = GREATEST(COALESCE(heard_at, ?), COALESCE(?, heard_at)), \
         refused = COALESCE(?, refused), refused_at = COALESCE(?, refused_at) WHERE id = ?",
    )
    .bind(at.map(|at| at.naive_utc()))
    .bind(at.map(|at| at.naive_utc()))
    .bind(refused.map(|(why, _)| why))
    .bind(refused.map(|(_, at)| at.naive_utc()))
    .bind(instrument)
    .execute(conn)
    .await?;
    Ok(())
}

/// Keeps a forecast in place of the one that the instrument sent before.
///
/// # Errors
/// [`StoreError`].
pub async fn keep_forecast(
    conn: &mut MySqlConnection,
    instrument: Uuid,
    hours: &[RoomHour],
) -> Result<(), StoreError> {
    sqlx::query("DELETE FROM forecast_hour WHERE instrument_id = ?")
        .bind(instrument)
        .execute(&mut *conn)
        .await?;
    for chunk in hours.chunks(ROWS) {
        let mut query = QueryBuilder::<MySql>::new(
            "INSERT INTO forecast_hour (instrument_id, at, temperature_c, relative_humidity) ",
        );
        query.push_values(chunk, |mut row, h| {
            row.push_bind(instrument)
                .push_bind(exact_instant(h.at).naive_utc())
                .push_bind(h.outside.celsius)
                .push_bind(h.outside.humidity);
        });
        query.build().persistent(ONCE).execute(&mut *conn).await?;
    }
    Ok(())
}

#[derive(FromRow)]
struct ForecastRow {
    at: DateTime<Utc>,
    temperature_c: f64,
    relative_humidity: f64,
}

/// The forecast that a studio heard last; none when no instrument of it forecasts.
///
/// # Errors
/// [`StoreError`].
pub async fn forecast_of(
    conn: &mut MySqlConnection,
    studio: Uuid,
) -> Result<Vec<RoomHour>, StoreError> {
    let rows: Vec<ForecastRow> = sqlx::query_as(
        "SELECT f.at, f.temperature_c, f.relative_humidity FROM forecast_hour f \
         WHERE f.instrument_id = (SELECT i.id FROM instrument i WHERE i.studio_id = ? \
         AND i.kind = 'forecast' AND i.removed_at IS NULL AND i.heard_at IS NOT NULL \
         ORDER BY i.heard_at DESC, i.id DESC LIMIT 1) ORDER BY f.at",
    )
    .bind(studio)
    .fetch_all(conn)
    .await?;
    let hour = |row: ForecastRow| {
        let outside = Air::try_new(row.temperature_c, row.relative_humidity, ORDINARY_M_S)
            .map_err(|e| StoreError::Unreadable(e.to_string()))?;
        Ok(RoomHour { at: seconds(row.at), outside })
    };
    rows.into_iter().map(hour).collect()
}
