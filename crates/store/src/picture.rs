//! Pictures: one row each, written whole, with a version.

use crate::StoreError;
use crate::log;
use crate::log_entry::LogEntry;
use crate::picture_body::PictureBody;
use crate::revision::{self, Direction, History};
use crate::unread::UnreadRow;
use crate::versioned::{PICTURE, Value, json};
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
    /// What is planned of it.
    pub fn into_planned(self) -> Result<PlannedPicture, StoreError> {
        let body: PictureBody = serde_json::from_str(&self.body)
            .map_err(|e| StoreError::Unreadable(format!("picture {}: {e}", self.code)))?;
        let plan = body.into_picture(self.code);
        Ok(PlannedPicture { id: self.id, studio: self.studio_id, version: self.version, plan })
    }
}

/// A picture as it is planned, without what was done on it.
pub(crate) struct PlannedPicture {
    pub id: Uuid,
    studio: Uuid,
    version: i64,
    plan: Picture,
}

impl PlannedPicture {
    /// The same with what was done on it.
    pub fn with(self, log: &[LogEntry], history: History) -> StoredPicture {
        let Self { id, studio, version, plan } = self;
        StoredPicture { id, studio, version, picture: log::played(log, plan), history }
    }
}

/// Adds a picture to a studio, last in order. Belongs in a transaction: it writes the row, its first
/// revision and what was done on it.
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
    .bind(json(&PictureBody::plan_of(picture))?)
    .bind(studio)
    .execute(&mut *conn)
    .await?;
    revision::record(conn, id, "begin the picture", &PictureBody::of(picture), at).await?;
    log::enter(conn, id, picture, None).await?;
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
    read_picture(conn, id, &mut Vec::new()).await
}

/// The same; entries of its log that cannot be read go to `unread`.
pub(crate) async fn read_picture(
    conn: &mut MySqlConnection,
    id: Uuid,
    unread: &mut Vec<UnreadRow>,
) -> Result<StoredPicture, StoreError> {
    let row: PictureRow = sqlx::query_as(
        "SELECT id, studio_id, code, body, version FROM picture \
         WHERE id = ? AND deleted_at IS NULL",
    )
    .bind(id)
    .fetch_one(&mut *conn)
    .await?;
    let history = revision::history(conn, id).await?;
    let log = log::read_of(conn, log::Of::Picture(id), unread).await?;
    Ok(row.into_planned()?.with(&log, history))
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
    let version = replaced(conn, (id, given), picture).await?;
    revision::record(conn, id, label, &PictureBody::of(picture), at).await?;
    log::enter(conn, id, picture, Some(at)).await?;
    Ok(version)
}

/// Undoes or redoes the last edit of a picture that is at version `given`, also what was logged: that
/// is corrected at `at`. Belongs in a transaction. Returns the new version.
///
/// # Errors
/// [`StoreError::Stale`], or [`StoreError::NoSuchRevision`] when there is nothing to go to.
pub async fn undo_picture(
    conn: &mut MySqlConnection,
    id: Uuid,
    given: i64,
    direction: Direction,
    at: DateTime<Utc>,
) -> Result<i64, StoreError> {
    let stored = load_picture(conn, id).await?;
    let body: PictureBody = revision::go(conn, id, direction).await?;
    let picture = body.into_picture(stored.picture.id);
    let version = replaced(conn, (id, given), &picture).await?;
    log::enter(conn, id, &picture, Some(at)).await?;
    Ok(version)
}

async fn replaced(
    conn: &mut MySqlConnection,
    row: (Uuid, i64),
    picture: &Picture,
) -> Result<i64, StoreError> {
    let columns = [
        ("title", Value::Text(picture.title.clone())),
        ("due", Value::Day(picture.due)),
        ("body", Value::Text(json(&PictureBody::plan_of(picture))?)),
    ];
    PICTURE.update(conn, row, columns).await
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

/// A picture that was taken away.
#[derive(Debug, Clone, PartialEq, Eq, FromRow)]
pub struct PictureAway {
    /// Its key.
    pub id: Uuid,
    /// Its title.
    pub title: String,
    /// When it was taken away.
    #[sqlx(rename = "deleted_at")]
    pub taken_away_at: DateTime<Utc>,
}

/// Pictures of a studio that were taken away, the last one first.
///
/// # Errors
/// [`StoreError`].
pub async fn pictures_away(
    conn: &mut MySqlConnection,
    studio: Uuid,
) -> Result<Vec<PictureAway>, StoreError> {
    let away = sqlx::query_as(
        "SELECT id, title, deleted_at FROM picture \
         WHERE studio_id = ? AND deleted_at IS NOT NULL ORDER BY deleted_at DESC, id DESC",
    );
    Ok(away.bind(studio).fetch_all(conn).await?)
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
    PICTURE.take_away(conn, (id, given), at).await
}

/// Brings a deleted picture back.
///
/// # Errors
/// [`StoreError::NotFound`] when there never was one.
pub async fn restore_picture(
    conn: &mut MySqlConnection,
    id: Uuid,
) -> Result<StoredPicture, StoreError> {
    PICTURE.bring_back(conn, id).await?;
    load_picture(conn, id).await
}
