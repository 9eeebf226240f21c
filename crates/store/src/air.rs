//! The air of a studio: how the room is usually kept and looked ahead at in one row with a version,
//! and its readings, one row each.
//!
//! A reading belongs to every revision of the air from `since` on and before `until`: an edit writes
//! what changed, and undo moves between revisions without writing a reading. Hours that instruments
//! measured are no part of that: they lie over it, whatever is undone.

use crate::air_body::AirBody;
use crate::measured::last_hours;
use crate::revision::{self, Direction, History};
use crate::unread::{self, UnreadRow};
use crate::versioned::{AIR, Value, json};
use crate::{ONCE, StoreError};
use chrono::{DateTime, Utc};
use sqlx::mysql::MySqlRow;
use sqlx::{FromRow, MySql, MySqlConnection, QueryBuilder};
use std::collections::HashMap;
use ulvek_core::air::{Air, AirSeries, MeasuredHour, Origin};
use ulvek_core::studio::{RoomAhead, Studio};
use ulvek_core::time::{HOUR_S, exact_instant, seconds};
use uuid::Uuid;

/// Rows of one statement: what a packet of MariaDB holds with ease. [practice]
const ROWS: usize = 1000;

/// What the body of an air is called where it cannot be read.
const WHAT: &str = "the usual air and its forecast";

/// Version of an air, and what can be undone and redone of it.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct AirState {
    /// Its version.
    pub version: i64,
    /// What can be undone and redone.
    pub history: History,
}

#[derive(FromRow, Clone, PartialEq)]
struct ReadingRow {
    at: DateTime<Utc>,
    temperature_c: f64,
    relative_humidity: f64,
    air_speed_m_s: f64,
    source: String,
}

impl ReadingRow {
    fn of((t, air, origin): (f64, Air, Origin)) -> Self {
        Self {
            at: exact_instant(t),
            temperature_c: air.celsius,
            relative_humidity: air.humidity,
            air_speed_m_s: air.speed_m_s,
            source: origin.word().to_owned(),
        }
    }

    fn into_reading(self) -> Result<(f64, Air, Origin), StoreError> {
        let air = Air::try_new(self.temperature_c, self.relative_humidity, self.air_speed_m_s)
            .map_err(|e| StoreError::Unreadable(e.to_string()))?;
        let origin = Origin::from_word(&self.source)
            .ok_or_else(|| StoreError::Unreadable(format!("a reading from {}", self.source)))?;
        Ok((seconds(self.at), air, origin))
    }

    /// Whether an hour that was measured lies over it.
    fn is_under(&self, hours: &[MeasuredHour]) -> bool {
        let at = seconds(self.at);
        let n = hours.partition_point(|h| h.at <= at);
        n > 0 && at < hours[n - 1].at + HOUR_S
    }
}

pub(crate) async fn insert_air(
    conn: &mut MySqlConnection,
    studio: Uuid,
    of: &Studio,
    at: DateTime<Utc>,
) -> Result<(), StoreError> {
    let owner = Uuid::now_v7();
    let body = AirBody::of(of);
    sqlx::query("INSERT INTO air (studio_id, owner_id, body, version) VALUES (?, ?, ?, 1)")
        .bind(studio)
        .bind(owner)
        .bind(json(&body)?)
        .execute(&mut *conn)
        .await?;
    let number = revision::record(conn, owner, "begin the room", &body, at).await?;
    let rows: Vec<ReadingRow> = of.air.known().map(ReadingRow::of).collect();
    add(conn, studio, &rows, number).await
}

fn room_in(body: &str) -> Result<(Air, RoomAhead), StoreError> {
    let body: AirBody =
        serde_json::from_str(body).map_err(|e| StoreError::Unreadable(format!("air: {e}")))?;
    body.into_room()
}

/// Reads the air of a studio; what of it cannot be read goes to `unread`.
pub(crate) async fn load_air(
    conn: &mut MySqlConnection,
    studio: Uuid,
    unread: &mut Vec<UnreadRow>,
) -> Result<(AirSeries, RoomAhead, AirState), StoreError> {
    let (owner, body, version): (Uuid, String, i64) =
        sqlx::query_as("SELECT owner_id, body, version FROM air WHERE studio_id = ?")
            .bind(studio)
            .fetch_one(&mut *conn)
            .await?;
    let (usual, room) =
        unread::read_or_as_it_was(conn, (owner, WHAT, &body), unread, room_in).await?;
    let number = revision::current(conn, owner).await?.unwrap_or(0);
    let rows = reading_rows(conn, studio, number).await?;
    let named = |_: &MySqlRow| "a reading of the air".to_owned();
    let readings = unread::read_each(&rows, unread, named, |row| {
        unread::columns::<ReadingRow>(row)?.into_reading()
    });
    let history = revision::history(conn, owner).await?;
    let series = AirSeries::of(usual, readings).measured(&last_hours(conn, studio).await?);
    Ok((series, room, AirState { version, history }))
}

/// How the room of a studio is usually kept.
///
/// # Errors
/// [`StoreError`].
pub async fn usual_air(conn: &mut MySqlConnection, studio: Uuid) -> Result<Air, StoreError> {
    let (owner, body): (Uuid, String) =
        sqlx::query_as("SELECT owner_id, body FROM air WHERE studio_id = ?")
            .bind(studio)
            .fetch_one(&mut *conn)
            .await?;
    let named = (owner, WHAT, body.as_str());
    Ok(unread::read_or_as_it_was(conn, named, &mut Vec::new(), room_in).await?.0)
}

async fn readings(
    conn: &mut MySqlConnection,
    studio: Uuid,
    number: i64,
) -> Result<Vec<ReadingRow>, StoreError> {
    reading_rows(conn, studio, number).await?.iter().map(unread::columns).collect()
}

async fn reading_rows(
    conn: &mut MySqlConnection,
    studio: Uuid,
    number: i64,
) -> Result<Vec<MySqlRow>, StoreError> {
    Ok(sqlx::query(
        "SELECT at, temperature_c, relative_humidity, air_speed_m_s, source FROM reading \
         WHERE studio_id = ? AND since <= ? AND (until IS NULL OR until > ?) ORDER BY at",
    )
    .bind(studio)
    .bind(number)
    .bind(number)
    .fetch_all(conn)
    .await?)
}

/// Replaces the air of a studio at version `given`. Belongs in a transaction. Returns the new version.
///
/// # Errors
/// [`StoreError::Stale`] when another edit came first; nothing is changed then.
pub async fn save_air(
    conn: &mut MySqlConnection,
    studio: Uuid,
    given: i64,
    of: &Studio,
    label: &str,
    at: DateTime<Utc>,
) -> Result<i64, StoreError> {
    let body = AirBody::of(of);
    let version = AIR.update(conn, (studio, given), [("body", Value::Text(json(&body)?))]).await?;
    let owner = owner(conn, studio).await?;
    let before = revision::current(conn, owner).await?.unwrap_or(0);
    forget_after(conn, studio, before).await?;
    let number = revision::record(conn, owner, label, &body, at).await?;
    let old = readings(conn, studio, before).await?;
    // What was measured is no part of it, and what lies under that stays as it is.
    let hours = last_hours(conn, studio).await?;
    let own = |row: &ReadingRow| row.source != Origin::Measured.word() || !row.is_under(&hours);
    let new: Vec<ReadingRow> = of.air.known().map(ReadingRow::of).filter(own).collect();
    let key = |row: &ReadingRow| row.at.timestamp_micros();
    let were: HashMap<i64, &ReadingRow> = old.iter().map(|row| (key(row), row)).collect();
    let are: HashMap<i64, &ReadingRow> = new.iter().map(|row| (key(row), row)).collect();
    let goes = |row: &&ReadingRow| are.get(&key(row)) != Some(row) && !row.is_under(&hours);
    let gone: Vec<DateTime<Utc>> = old.iter().filter(goes).map(|row| row.at).collect();
    let come: Vec<ReadingRow> =
        new.iter().filter(|row| were.get(&key(row)) != Some(row)).cloned().collect();
    end(conn, studio, &gone, number).await?;
    add(conn, studio, &come, number).await?;
    Ok(version)
}

/// What revisions after `number`, which can no longer be redone, wrote of readings is undone.
async fn forget_after(
    conn: &mut MySqlConnection,
    studio: Uuid,
    number: i64,
) -> Result<(), StoreError> {
    sqlx::query("DELETE FROM reading WHERE studio_id = ? AND since > ?")
        .bind(studio)
        .bind(number)
        .execute(&mut *conn)
        .await?;
    sqlx::query("UPDATE reading SET until = NULL WHERE studio_id = ? AND until > ?")
        .bind(studio)
        .bind(number)
        .execute(&mut *conn)
        .await?;
    // What no revision that is kept can lead back to.
    sqlx::query("DELETE FROM reading WHERE studio_id = ? AND until <= ?")
        .bind(studio)
        .bind(number - revision::KEPT)
        .execute(conn)
        .await?;
    Ok(())
}

async fn end(
    conn: &mut MySqlConnection,
    studio: Uuid,
    gone: &[DateTime<Utc>],
    number: i64,
) -> Result<(), StoreError> {
    for chunk in gone.chunks(ROWS) {
        let mut query = QueryBuilder::<MySql>::new("UPDATE reading SET until = ");
        query.push_bind(number).push(" WHERE studio_id = ").push_bind(studio);
        query.push(" AND until IS NULL AND at IN (");
        let mut at = query.separated(", ");
        for moment in chunk {
            at.push_bind(moment.naive_utc());
        }
        query.push(")");
        query.build().persistent(ONCE).execute(&mut *conn).await?;
    }
    Ok(())
}

async fn add(
    conn: &mut MySqlConnection,
    studio: Uuid,
    rows: &[ReadingRow],
    number: i64,
) -> Result<(), StoreError> {
    for chunk in rows.chunks(ROWS) {
        let mut query = QueryBuilder::<MySql>::new(
            "INSERT INTO reading (studio_id, at, since, temperature_c, relative_humidity, \
             air_speed_m_s, source) ",
        );
        query.push_values(chunk, |mut row, reading| {
            row.push_bind(studio)
                .push_bind(reading.at.naive_utc())
                .push_bind(number)
                .push_bind(reading.temperature_c)
                .push_bind(reading.relative_humidity)
                .push_bind(reading.air_speed_m_s)
                .push_bind(reading.source.clone());
        });
        query.build().persistent(ONCE).execute(&mut *conn).await?;
    }
    Ok(())
}

/// Undoes or redoes the last edit of the air at version `given`. Belongs in a transaction. Returns the
/// new version.
///
/// # Errors
/// [`StoreError::Stale`], or [`StoreError::NoSuchRevision`] when there is nothing to go to.
pub async fn undo_air(
    conn: &mut MySqlConnection,
    studio: Uuid,
    given: i64,
    direction: Direction,
) -> Result<i64, StoreError> {
    let owner = owner(conn, studio).await?;
    let body: AirBody = revision::go(conn, owner, direction).await?;
    AIR.update(conn, (studio, given), [("body", Value::Text(json(&body)?))]).await
}

async fn owner(conn: &mut MySqlConnection, studio: Uuid) -> Result<Uuid, StoreError> {
    let (owner,): (Uuid,) = sqlx::query_as("SELECT owner_id FROM air WHERE studio_id = ?")
        .bind(studio)
        .fetch_one(conn)
        .await?;
    Ok(owner)
}
