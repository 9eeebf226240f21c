//! The shelf of a studio: materials, tubs and own ways of working, one aggregate in one row.

use crate::StoreError;
use crate::revision::{self, Direction, History};
use crate::shelf_body::ShelfBody;
use crate::unread::{self, UnreadRow};
use crate::versioned::{SHELF, Value, json};
use chrono::{DateTime, Utc};
use sqlx::MySqlConnection;
use ulvek_core::mix::Material;
use ulvek_core::studio::Studio;
use uuid::Uuid;

/// What the body of a shelf is called where it cannot be read.
const WHAT: &str = "the materials, tubs and ways of the shelf";

/// Version of a shelf, and what can be undone and redone of it.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct ShelfState {
    /// Its version.
    pub version: i64,
    /// What can be undone and redone.
    pub history: History,
}

pub(crate) async fn insert_shelf(
    conn: &mut MySqlConnection,
    studio: Uuid,
    of: &Studio,
    at: DateTime<Utc>,
) -> Result<(), StoreError> {
    let owner = Uuid::now_v7();
    let body = ShelfBody::of(of);
    sqlx::query("INSERT INTO shelf (studio_id, owner_id, body, version) VALUES (?, ?, ?, 1)")
        .bind(studio)
        .bind(owner)
        .bind(json(&body)?)
        .execute(&mut *conn)
        .await?;
    revision::record(conn, owner, "fill the shelf", &body, at).await.map(|_| ())
}

/// Fills in materials, tubs and ways of `of`; a shelf that cannot be read goes to `unread`, as it was last stands in.
pub(crate) async fn load_shelf(
    conn: &mut MySqlConnection,
    studio: Uuid,
    (of, unread): (&mut Studio, &mut Vec<UnreadRow>),
) -> Result<ShelfState, StoreError> {
    let (owner, body, version): (Uuid, String, i64) =
        sqlx::query_as("SELECT owner_id, body, version FROM shelf WHERE studio_id = ?")
            .bind(studio)
            .fetch_one(&mut *conn)
            .await?;
    let named = (owner, WHAT, body.as_str());
    let empty = of.clone();
    *of = unread::read_or_as_it_was(conn, named, unread, |body| {
        let mut filled = empty.clone();
        shelf_in(body)?.fill(&mut filled)?;
        Ok(filled)
    })
    .await?;
    Ok(ShelfState { version, history: revision::history(conn, owner).await? })
}

fn shelf_in(body: &str) -> Result<ShelfBody, StoreError> {
    serde_json::from_str(body).map_err(|e| StoreError::Unreadable(format!("shelf: {e}")))
}

/// The materials of the shelf around a picture.
pub(crate) async fn materials_around(
    conn: &mut MySqlConnection,
    picture: Uuid,
) -> Result<Vec<Material>, StoreError> {
    let (owner, body): (Uuid, String) = sqlx::query_as(
        "SELECT s.owner_id, s.body FROM shelf s JOIN picture p ON p.studio_id = s.studio_id WHERE p.id = ?",
    )
    .bind(picture)
    .fetch_one(&mut *conn)
    .await?;
    let read = |body: &str| shelf_in(body)?.into_materials();
    unread::read_or_as_it_was(conn, (owner, WHAT, &body), &mut Vec::new(), read).await
}

/// What every edit of a picture leans on: the versions of the studio's settings and of its shelf.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Default)]
pub struct Ground {
    /// Version of the settings.
    pub settings: i64,
    /// Version of the shelf.
    pub shelf: i64,
}

/// Keeps settings and shelf of a studio as they are until the transaction ends, and says which they are: an edit
/// of a picture that leans on them takes this first, before it reads anything else.
///
/// # Errors
/// [`StoreError::NotFound`] when there is no such studio.
pub async fn hold_ground(conn: &mut MySqlConnection, studio: Uuid) -> Result<Ground, StoreError> {
    let (settings, shelf): (i64, i64) = sqlx::query_as(
        "SELECT s.version, h.version FROM studio s JOIN shelf h ON h.studio_id = s.id \
         WHERE s.id = ? AND s.deleted_at IS NULL LOCK IN SHARE MODE",
    )
    .bind(studio)
    .fetch_one(conn)
    .await?;
    Ok(Ground { settings, shelf })
}

/// The same for who adds a picture: of many who do so at once each waits for the one before.
///
/// # Errors
/// As there.
pub async fn hold_ground_alone(
    conn: &mut MySqlConnection,
    studio: Uuid,
) -> Result<Ground, StoreError> {
    let _: (i64,) = sqlx::query_as("SELECT version FROM studio WHERE id = ? FOR UPDATE")
        .bind(studio)
        .fetch_one(&mut *conn)
        .await?;
    hold_ground(conn, studio).await
}

/// Replaces the shelf (materials, tubs, ways of `of`) of a studio at version `given`. Belongs
/// in a transaction, before anything is read in it: from here on no picture can begin to use what
/// the shelf no longer holds. Returns the new version.
///
/// # Errors
/// [`StoreError::Stale`] when another edit came first; nothing is changed then.
pub async fn save_shelf(
    conn: &mut MySqlConnection,
    studio: Uuid,
    given: i64,
    of: &Studio,
    label: &str,
    at: DateTime<Utc>,
) -> Result<i64, StoreError> {
    let body = ShelfBody::of(of);
    let version = replaced(conn, (studio, given), &body).await?;
    let owner = owner(conn, studio).await?;
    revision::record(conn, owner, label, &body, at).await?;
    Ok(version)
}

/// Undoes or redoes the last edit of the shelf at version `given`. Belongs in a transaction.
/// Returns the new version.
///
/// # Errors
/// [`StoreError::Stale`], or [`StoreError::NoSuchRevision`] when there is nothing to go to.
pub async fn undo_shelf(
    conn: &mut MySqlConnection,
    studio: Uuid,
    given: i64,
    direction: Direction,
) -> Result<i64, StoreError> {
    let owner = owner(conn, studio).await?;
    let body: ShelfBody = revision::go(conn, owner, direction).await?;
    replaced(conn, (studio, given), &body).await
}

async fn replaced(
    conn: &mut MySqlConnection,
    row: (Uuid, i64),
    body: &ShelfBody,
) -> Result<i64, StoreError> {
    SHELF.update(conn, row, [("body", Value::Text(json(body)?))]).await
}

async fn owner(conn: &mut MySqlConnection, studio: Uuid) -> Result<Uuid, StoreError> {
    let (owner,): (Uuid,) = sqlx::query_as("SELECT owner_id FROM shelf WHERE studio_id = ?")
        .bind(studio)
        .fetch_one(conn)
        .await?;
    Ok(owner)
}
