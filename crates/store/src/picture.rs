//! Pictures: one row each, written whole, with a version.

use crate::StoreError;
use crate::body::PictureBody;
use crate::revision::{self, Direction, History};
use chrono::{DateTime, Utc};
use sqlx::{FromRow, MySqlConnection};
use ulvek_core::picture::Picture;
use uuid::Uuid;

/// A picture as stored.
#[derive(Debug, Clone, PartialEq)]
pub struct StoredPicture {
    /// Its key.
    pub id: Uuid,
    /// The studio it belongs to.
    pub studio: Uuid,
    /// Its version.
    pub version: i64,
    /// The picture.
    pub picture: Picture,
    /// What can be undone and redone.
    pub history: History,
}

#[derive(FromRow)]
pub(crate) struct PictureRow {
    pub id: Uuid,
    studio_id: Uuid,
    code: String,
    body: String,
    version: i64,
}

impl PictureRow {
    pub fn into_stored(self, history: History) -> Result<StoredPicture, StoreError> {
        let body: PictureBody = serde_json::from_str(&self.body)
            .map_err(|e| StoreError::Unreadable(format!("picture {}: {e}", self.code)))?;
        Ok(StoredPicture {
            id: self.id,
            studio: self.studio_id,
            version: self.version,
            picture: body.into_picture(self.code),
            history,
        })
    }
}

fn text(body: &PictureBody) -> Result<String, StoreError> {
    serde_json::to_string(body).map_err(|e| StoreError::Unreadable(e.to_string()))
}

/// Adds a picture to a studio, last in order. Belongs in a transaction: it writes the row and its
/// first revision.
///
/// # Errors
/// [`StoreError`].
pub async fn create_picture(
    conn: &mut MySqlConnection,
    studio: Uuid,
    picture: &Picture,
    at: DateTime<Utc>,
) -> Result<Uuid, StoreError> {
    let id = Uuid::now_v7();
    let body = PictureBody::of(picture);
    sqlx::query(
        "INSERT INTO picture (id, studio_id, code, position, title, due, body, version) \
         SELECT ?, ?, ?, COALESCE(MAX(position), 0) + 1, ?, ?, ?, 1 \
         FROM picture WHERE studio_id = ?",
    )
    .bind(id)
    .bind(studio)
    .bind(&picture.id)
    .bind(&picture.title)
    .bind(picture.due)
    .bind(text(&body)?)
    .bind(studio)
    .execute(&mut *conn)
    .await?;
    revision::record(conn, id, "begin the picture", &body, at).await?;
    Ok(id)
}

/// The studio a picture belongs to, which never changes.
///
/// # Errors
/// [`StoreError::NotFound`] when there is no such picture.
pub async fn studio_of(conn: &mut MySqlConnection, picture: Uuid) -> Result<Uuid, StoreError> {
    let (studio,): (Uuid,) = sqlx::query_as("SELECT studio_id FROM picture WHERE id = ?")
        .bind(picture)
        .fetch_one(conn)
        .await?;
    Ok(studio)
}

/// Reads one picture that is not deleted.
///
/// # Errors
/// [`StoreError::NotFound`] when there is none.
pub async fn load_picture(
    conn: &mut MySqlConnection,
    id: Uuid,
) -> Result<StoredPicture, StoreError> {
    let row: PictureRow = sqlx::query_as(
        "SELECT id, studio_id, code, body, version FROM picture \
         WHERE id = ? AND deleted_at IS NULL",
    )
    .bind(id)
    .fetch_one(&mut *conn)
    .await?;
    let history = revision::history(conn, id).await?;
    row.into_stored(history)
}

/// Replaces a picture that is at version `given` and records a revision called `label`. Belongs in
/// a transaction. Returns the new version.
///
/// # Errors
/// [`StoreError::Stale`] when another edit came first; nothing is changed then.
pub async fn save_picture(
    conn: &mut MySqlConnection,
    id: Uuid,
    given: i64,
    picture: &Picture,
    label: &str,
    at: DateTime<Utc>,
) -> Result<i64, StoreError> {
    let body = PictureBody::of(picture);
    replace(conn, id, given, picture, &body).await?;
    revision::record(conn, id, label, &body, at).await?;
    Ok(given + 1)
}

/// Undoes or redoes the last edit of a picture that is at version `given`. Belongs in a
/// transaction. Returns the new version.
///
/// # Errors
/// [`StoreError::Stale`], or [`StoreError::NoSuchRevision`] when there is nothing to step to.
pub async fn step_picture(
    conn: &mut MySqlConnection,
    id: Uuid,
    given: i64,
    direction: Direction,
) -> Result<i64, StoreError> {
    let stored = load_picture(conn, id).await?;
    let body: PictureBody = revision::step(conn, id, direction).await?;
    let picture = body.clone().into_picture(stored.picture.id);
    replace(conn, id, given, &picture, &body).await?;
    Ok(given + 1)
}

async fn replace(
    conn: &mut MySqlConnection,
    id: Uuid,
    given: i64,
    picture: &Picture,
    body: &PictureBody,
) -> Result<(), StoreError> {
    let done = sqlx::query(
        "UPDATE picture SET title = ?, due = ?, body = ?, version = version + 1 \
         WHERE id = ? AND version = ? AND deleted_at IS NULL",
    )
    .bind(&picture.title)
    .bind(picture.due)
    .bind(text(body)?)
    .bind(id)
    .bind(given)
    .execute(&mut *conn)
    .await?;
    if done.rows_affected() == 1 { Ok(()) } else { Err(why_not(conn, id, given).await) }
}

/// How many pictures a studio has.
///
/// # Errors
/// [`StoreError`].
pub async fn count_pictures(conn: &mut MySqlConnection, studio: Uuid) -> Result<usize, StoreError> {
    let (count,): (i64,) =
        sqlx::query_as("SELECT COUNT(*) FROM picture WHERE studio_id = ? AND deleted_at IS NULL")
            .bind(studio)
            .fetch_one(conn)
            .await?;
    Ok(usize::try_from(count).unwrap_or_default())
}

/// Why a write with a version changed no row.
async fn why_not(conn: &mut MySqlConnection, id: Uuid, given: i64) -> StoreError {
    match load_picture(conn, id).await {
        Ok(stored) => StoreError::Stale { given, current: stored.version },
        Err(error) => error,
    }
}

/// Takes a picture away; it can be restored.
///
/// # Errors
/// [`StoreError::Stale`] when it was edited since version `given`.
pub async fn delete_picture(
    conn: &mut MySqlConnection,
    id: Uuid,
    given: i64,
    at: DateTime<Utc>,
) -> Result<(), StoreError> {
    let done = sqlx::query(
        "UPDATE picture SET deleted_at = ?, version = version + 1 \
         WHERE id = ? AND version = ? AND deleted_at IS NULL",
    )
    .bind(at)
    .bind(id)
    .bind(given)
    .execute(&mut *conn)
    .await?;
    if done.rows_affected() == 1 { Ok(()) } else { Err(why_not(conn, id, given).await) }
}

/// Brings a deleted picture back.
///
/// # Errors
/// [`StoreError::NotFound`] when there never was one.
pub async fn restore_picture(
    conn: &mut MySqlConnection,
    id: Uuid,
) -> Result<StoredPicture, StoreError> {
    sqlx::query(
        "UPDATE picture SET deleted_at = NULL, version = version + 1 \
         WHERE id = ? AND deleted_at IS NOT NULL",
    )
    .bind(id)
    .execute(&mut *conn)
    .await?;
    load_picture(conn, id).await
}
