//! Revisions of one aggregate, so that edits can be undone and redone.
//!
//! Revisions are numbered; one is current. Undo and redo move the mark; a new edit after an undo
//! drops the revisions that were ahead of it.

use crate::StoreError;
use crate::versioned::json;
use chrono::{DateTime, Utc};
use serde::{Serialize, de::DeserializeOwned};
use sqlx::MySqlConnection;
use std::collections::HashMap;
use uuid::Uuid;

/// Revisions kept of one aggregate. [practice]
pub(crate) const KEPT: i64 = 200;

/// Which way to go through the revisions.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Direction {
    /// Back to the one before.
    Undo,
    /// Forward again.
    Redo,
}

/// What could be undone and redone now.
#[derive(Debug, Clone, PartialEq, Eq, Default)]
pub struct History {
    /// The edit that undo would take back.
    pub undo: Option<String>,
    /// The edit that redo would make again.
    pub redo: Option<String>,
}

/// When anything of a studio was last changed before `before`, as far as its revisions are kept.
///
/// # Errors
/// [`StoreError`].
pub async fn last_change(
    conn: &mut MySqlConnection,
    studio: Uuid,
    before: DateTime<Utc>,
) -> Result<Option<DateTime<Utc>>, StoreError> {
    let (last,): (Option<DateTime<Utc>>,) = sqlx::query_as(
        "SELECT MAX(r.made_at) FROM revision r JOIN ( \
           SELECT id FROM studio WHERE id = ? \
           UNION ALL SELECT owner_id FROM shelf WHERE studio_id = ? \
           UNION ALL SELECT owner_id FROM air WHERE studio_id = ? \
           UNION ALL SELECT id FROM picture WHERE studio_id = ? \
         ) o ON o.id = r.owner_id WHERE r.made_at < ?",
    )
    .bind(studio)
    .bind(studio)
    .bind(studio)
    .bind(studio)
    .bind(before.naive_utc())
    .fetch_one(conn)
    .await?;
    Ok(last)
}

/// Records `body` as the current revision; returns its number.
pub(crate) async fn record(
    conn: &mut MySqlConnection,
    owner: Uuid,
    label: &str,
    body: &impl Serialize,
    at: DateTime<Utc>,
) -> Result<i64, StoreError> {
    let current = current(conn, owner).await?.unwrap_or(0);
    // Rows are named one by one: a range would lock the gaps beside it, and two painters who edit
    // different pictures would wait for each other.
    let numbers: Vec<(i64,)> = sqlx::query_as("SELECT number FROM revision WHERE owner_id = ?")
        .bind(owner)
        .fetch_all(&mut *conn)
        .await?;
    for (number,) in numbers.into_iter().filter(|(n,)| *n > current || *n <= current - KEPT) {
        sqlx::query("DELETE FROM revision WHERE owner_id = ? AND number = ?")
            .bind(owner)
            .bind(number)
            .execute(&mut *conn)
            .await?;
    }
    mark(conn, owner, current, false).await?;
    sqlx::query(
        "INSERT INTO revision (owner_id, number, label, body, is_current, made_at) \
         VALUES (?, ?, ?, ?, TRUE, ?)",
    )
    .bind(owner)
    .bind(current + 1)
    .bind(label.chars().take(200).collect::<String>())
    .bind(json(body)?)
    .bind(at.naive_utc())
    .execute(&mut *conn)
    .await?;
    Ok(current + 1)
}

/// Moves the mark one revision back or forward and returns the body found there.
pub(crate) async fn go<T: DeserializeOwned>(
    conn: &mut MySqlConnection,
    owner: Uuid,
    direction: Direction,
) -> Result<T, StoreError> {
    let from = current(conn, owner).await?.ok_or(StoreError::NoSuchRevision)?;
    let to = match direction {
        Direction::Undo => from - 1,
        Direction::Redo => from + 1,
    };
    let body: Option<(String,)> =
        sqlx::query_as("SELECT body FROM revision WHERE owner_id = ? AND number = ?")
            .bind(owner)
            .bind(to)
            .fetch_optional(&mut *conn)
            .await?;
    let (body,) = body.ok_or(StoreError::NoSuchRevision)?;
    mark(conn, owner, from, false).await?;
    mark(conn, owner, to, true).await?;
    serde_json::from_str(&body).map_err(|e| StoreError::Unreadable(e.to_string()))
}

/// The bodies that are kept of `owner` and when they were made: the current one first, then the newest.
pub(crate) async fn bodies(
    conn: &mut MySqlConnection,
    owner: Uuid,
) -> Result<Vec<(String, DateTime<Utc>)>, StoreError> {
    Ok(sqlx::query_as(
        "SELECT body, made_at FROM revision WHERE owner_id = ? ORDER BY is_current DESC, number DESC",
    )
    .bind(owner)
    .fetch_all(conn)
    .await?)
}

/// What could be undone and redone now.
pub(crate) async fn history(
    conn: &mut MySqlConnection,
    owner: Uuid,
) -> Result<History, StoreError> {
    let Some(now) = current(conn, owner).await? else { return Ok(History::default()) };
    let around: Vec<(i64, String)> = sqlx::query_as(
        "SELECT number, label FROM revision WHERE owner_id = ? AND number BETWEEN ? AND ?",
    )
    .bind(owner)
    .bind(now - 1)
    .bind(now + 1)
    .fetch_all(conn)
    .await?;
    let label = |n| around.iter().find(|(number, _)| *number == n).map(|(_, label)| label.clone());
    // The first revision is where the aggregate began: it can be returned to, not taken back.
    let undo = label(now - 1).and_then(|_| label(now));
    Ok(History { undo, redo: label(now + 1) })
}

/// The same for every picture of `studio` that has been edited.
pub(crate) async fn histories_in(
    conn: &mut MySqlConnection,
    studio: Uuid,
) -> Result<HashMap<Uuid, History>, StoreError> {
    type Row = (Uuid, Option<String>, String, Option<String>);
    let rows: Vec<Row> = sqlx::query_as(
        "SELECT c.owner_id, b.label, c.label, a.label \
         FROM picture p JOIN revision c ON c.owner_id = p.id AND c.is_current \
         LEFT JOIN revision b ON b.owner_id = c.owner_id AND b.number = c.number - 1 \
         LEFT JOIN revision a ON a.owner_id = c.owner_id AND a.number = c.number + 1 \
         WHERE p.studio_id = ? AND p.deleted_at IS NULL",
    )
    .bind(studio)
    .fetch_all(conn)
    .await?;
    // As above: the first revision cannot be taken back.
    let history = |(owner, before, now, after): Row| {
        (owner, History { undo: before.map(|_| now), redo: after })
    };
    Ok(rows.into_iter().map(history).collect())
}

/// Makes one revision current, or not.
async fn mark(
    conn: &mut MySqlConnection,
    owner: Uuid,
    number: i64,
    is_current: bool,
) -> Result<(), StoreError> {
    sqlx::query("UPDATE revision SET is_current = ? WHERE owner_id = ? AND number = ?")
        .bind(is_current)
        .bind(owner)
        .bind(number)
        .execute(conn)
        .await?;
    Ok(())
}

/// The number of the current revision.
pub(crate) async fn current(
    conn: &mut MySqlConnection,
    owner: Uuid,
) -> Result<Option<i64>, StoreError> {
    let row: Option<(i64,)> =
        sqlx::query_as("SELECT number FROM revision WHERE owner_id = ? AND is_current")
            .bind(owner)
            .fetch_optional(conn)
            .await?;
    Ok(row.map(|(n,)| n))
}
