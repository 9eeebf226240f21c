//! What hygrometers measured: kept as it came, judged, and made into hours of the room.

use crate::{ONCE, StoreError};
use chrono::{DateTime, SubsecRound, TimeDelta, Utc};
use sqlx::{FromRow, MySql, MySqlConnection, QueryBuilder};
use std::collections::{BTreeMap, HashMap};
use ulvek_core::air::{Measured, MeasuredHour, doubts, hours_of};
use ulvek_core::time::{HOUR_S, exact_instant, seconds};
use uuid::Uuid;

/// Rows of one statement: what a packet of MariaDB holds with ease. [practice]
const ROWS: usize = 1000;
/// How far around what came its neighbours are judged anew [h]: longer than a sensor may stick.
const AROUND_H: i64 = 7;
/// Hours of the past that are kept in mind: more than a year. [practice]
const MOST_HOURS: i64 = 10_000;

#[derive(FromRow)]
struct MeasuredRow {
    instrument_id: Uuid,
    at: DateTime<Utc>,
    temperature_c: f64,
    relative_humidity: f64,
}

/// Keeps what an instrument measured. What it sent before changes nothing. Returns how many are new.
///
/// # Errors
/// [`StoreError`].
pub async fn keep_measured(
    conn: &mut MySqlConnection,
    instrument: Uuid,
    readings: &[Measured],
) -> Result<u64, StoreError> {
    let mut new = 0;
    for chunk in readings.chunks(ROWS) {
        let mut query = QueryBuilder::<MySql>::new(
            "INSERT IGNORE INTO measurement (instrument_id, at, temperature_c, relative_humidity) ",
        );
        query.push_values(chunk, |mut row, m| {
            row.push_bind(instrument)
                .push_bind(exact_instant(m.at).trunc_subsecs(3).naive_utc())
                .push_bind(m.celsius)
                .push_bind(m.humidity);
        });
        new += query.build().persistent(ONCE).execute(&mut *conn).await?.rows_affected();
    }
    Ok(new)
}

/// What the hygrometers of a studio measured from `from` on and before `to`, each in order of time;
/// what was taken back is left out.
///
/// # Errors
/// [`StoreError`].
pub async fn measured_between(
    conn: &mut MySqlConnection,
    studio: Uuid,
    (from, to): (DateTime<Utc>, DateTime<Utc>),
) -> Result<HashMap<Uuid, Vec<Measured>>, StoreError> {
    // One after the other: joined, all that each of them ever sent would be read.
    let instruments: Vec<(Uuid,)> =
        sqlx::query_as("SELECT id FROM instrument WHERE studio_id = ? AND kind = 'hygrometer'")
            .bind(studio)
            .fetch_all(&mut *conn)
            .await?;
    let mut rows: Vec<MeasuredRow> = Vec::new();
    for (instrument,) in instruments {
        rows.extend(
            sqlx::query_as::<_, MeasuredRow>(
                "SELECT instrument_id, at, temperature_c, relative_humidity FROM measurement \
                 WHERE instrument_id = ? AND at >= ? AND at < ? AND NOT taken_back ORDER BY at",
            )
            .bind(instrument)
            .bind(from.naive_utc())
            .bind(to.naive_utc())
            .fetch_all(&mut *conn)
            .await?,
        );
    }
    let mut found: HashMap<Uuid, Vec<Measured>> = HashMap::new();
    for row in rows {
        found.entry(row.instrument_id).or_default().push(Measured {
            at: seconds(row.at),
            celsius: row.temperature_c,
            humidity: row.relative_humidity,
        });
    }
    Ok(found)
}

#[derive(FromRow)]
struct HourRow {
    at: DateTime<Utc>,
    temperature_c: f64,
    relative_humidity: f64,
    readings: u32,
    left_out: u32,
}

impl HourRow {
    fn read(self) -> MeasuredHour {
        MeasuredHour {
            at: seconds(self.at),
            celsius: self.temperature_c,
            humidity: self.relative_humidity,
            readings: self.readings,
            left_out: self.left_out,
        }
    }
}

/// The hours of a studio that were measured, from `from` on and before `to`, in order of time.
async fn hours_between(
    conn: &mut MySqlConnection,
    studio: Uuid,
    (from, to): (DateTime<Utc>, DateTime<Utc>),
) -> Result<Vec<MeasuredHour>, StoreError> {
    let rows: Vec<HourRow> = sqlx::query_as(
        "SELECT at, temperature_c, relative_humidity, readings, left_out FROM measured_hour \
         WHERE studio_id = ? AND at >= ? AND at < ? ORDER BY at",
    )
    .bind(studio)
    .bind(from.naive_utc())
    .bind(to.naive_utc())
    .fetch_all(conn)
    .await?;
    Ok(rows.into_iter().map(HourRow::read).collect())
}

/// The last hours that were measured, in order of time.
pub(crate) async fn last_hours(
    conn: &mut MySqlConnection,
    studio: Uuid,
) -> Result<Vec<MeasuredHour>, StoreError> {
    let mut rows: Vec<HourRow> = sqlx::query_as(
        "SELECT at, temperature_c, relative_humidity, readings, left_out FROM measured_hour \
         WHERE studio_id = ? ORDER BY at DESC LIMIT ?",
    )
    .bind(studio)
    .bind(MOST_HOURS)
    .fetch_all(conn)
    .await?;
    rows.reverse();
    Ok(rows.into_iter().map(HourRow::read).collect())
}

/// Keeps everybody else from the air of a studio until the transaction ends: two instruments that send at once
/// are taken in one after the other. Comes before anything is written.
///
/// # Errors
/// [`StoreError::NotFound`] when there is no such studio.
pub async fn hold_air(conn: &mut MySqlConnection, studio: Uuid) -> Result<(), StoreError> {
    let _: (i64,) = sqlx::query_as("SELECT version FROM air WHERE studio_id = ? FOR UPDATE")
        .bind(studio)
        .fetch_one(conn)
        .await?;
    Ok(())
}

/// Makes the hours of a studio anew around what came or went from `from` to `to`. Belongs in the
/// transaction of that. Returns whether the plan must be worked out anew.
///
/// # Errors
/// [`StoreError`].
pub async fn make_hours(
    conn: &mut MySqlConnection,
    studio: Uuid,
    (from, to): (DateTime<Utc>, DateTime<Utc>),
    now: DateTime<Utc>,
) -> Result<bool, StoreError> {
    hold_air(conn, studio).await?;
    let hour = |at: DateTime<Utc>| exact_instant((seconds(at) / HOUR_S).floor() * HOUR_S);
    let around = TimeDelta::hours(AROUND_H);
    let span = (hour(from) - around, hour(to) + around);
    let judged = (span.0 - around, span.1);
    let measured = measured_between(&mut *conn, studio, judged).await?;
    let all = measured.into_values().flat_map(|m| {
        let doubts = doubts(&m);
        m.into_iter().zip(doubts)
    });
    let mut old: BTreeMap<i64, MeasuredHour> = hours_between(&mut *conn, studio, span)
        .await?
        .into_iter()
        .map(|h| (h.at as i64, h))
        .collect();
    let mut news = Vec::new();
    for made in hours_of(all).into_iter().filter(|h| h.at >= seconds(span.0)) {
        let known = old.remove(&(made.at as i64));
        if made.is_news(known.as_ref(), made.at + HOUR_S <= seconds(now)) {
            news.push(made);
        }
    }
    let gone: Vec<MeasuredHour> = old.into_values().collect();
    put_hours(&mut *conn, studio, &news).await?;
    for hour in &gone {
        sqlx::query("DELETE FROM measured_hour WHERE studio_id = ? AND at = ?")
            .bind(studio)
            .bind(exact_instant(hour.at).naive_utc())
            .execute(&mut *conn)
            .await?;
    }
    let changed = !news.is_empty() || !gone.is_empty();
    if changed {
        sqlx::query("UPDATE air SET measured = measured + 1 WHERE studio_id = ?")
            .bind(studio)
            .execute(conn)
            .await?;
    }
    Ok(changed)
}

async fn put_hours(
    conn: &mut MySqlConnection,
    studio: Uuid,
    hours: &[MeasuredHour],
) -> Result<(), StoreError> {
    for chunk in hours.chunks(ROWS) {
        let mut query = QueryBuilder::<MySql>::new(
            "REPLACE INTO measured_hour (studio_id, at, temperature_c, relative_humidity, readings, \
             left_out) ",
        );
        query.push_values(chunk, |mut row, h| {
            row.push_bind(studio)
                .push_bind(exact_instant(h.at).naive_utc())
                .push_bind(h.celsius)
                .push_bind(h.humidity)
                .push_bind(h.readings)
                .push_bind(h.left_out);
        });
        query.build().persistent(ONCE).execute(&mut *conn).await?;
    }
    Ok(())
}

/// Takes back what the hygrometers of a studio measured from `from` on and before `to`, or gives it
/// back. Belongs in a transaction with [`make_hours`]. Returns how many readings that were.
///
/// # Errors
/// [`StoreError`].
pub async fn take_back_measured(
    conn: &mut MySqlConnection,
    studio: Uuid,
    (from, to): (DateTime<Utc>, DateTime<Utc>),
    back: bool,
) -> Result<u64, StoreError> {
    let done = sqlx::query(
        "UPDATE measurement m JOIN instrument i ON i.id = m.instrument_id SET m.taken_back = ? \
         WHERE i.studio_id = ? AND m.at >= ? AND m.at < ? AND m.taken_back <> ?",
    )
    .bind(back)
    .bind(studio)
    .bind(from.naive_utc())
    .bind(to.naive_utc())
    .bind(back)
    .execute(conn)
    .await?;
    Ok(done.rows_affected())
}

/// What the painter of a studio typed of the room's air since `from`, also where an instrument
/// measured it too.
///
/// # Errors
/// [`StoreError`].
pub async fn typed_since(
    conn: &mut MySqlConnection,
    studio: Uuid,
    from: DateTime<Utc>,
) -> Result<Vec<Measured>, StoreError> {
    let rows: Vec<MeasuredRow> = sqlx::query_as(
        "SELECT r.studio_id AS instrument_id, r.at, r.temperature_c, r.relative_humidity \
         FROM reading r WHERE r.studio_id = ? AND r.source = 'typed' AND r.until IS NULL \
         AND r.at >= ? ORDER BY r.at",
    )
    .bind(studio)
    .bind(from.naive_utc())
    .fetch_all(conn)
    .await?;
    let read = |row: MeasuredRow| Measured {
        at: seconds(row.at),
        celsius: row.temperature_c,
        humidity: row.relative_humidity,
    };
    Ok(rows.into_iter().map(read).collect())
}
