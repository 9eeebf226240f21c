//! Photographs of pictures: kept as they came out of the check, beside the picture they show.

use crate::StoreError;
use crate::log;
use crate::log_entry::Done;
use chrono::{DateTime, Utc};
use sqlx::{FromRow, MySql, MySqlConnection, QueryBuilder};
use uuid::Uuid;

/// A photograph, without its pixels.
#[derive(Debug, Clone, PartialEq, Eq, FromRow)]
pub struct Photograph {
    /// Its key.
    pub id: Uuid,
    /// The picture it shows.
    pub picture_id: Uuid,
    /// When it was taken.
    pub taken_at: DateTime<Utc>,
    /// When it was brought here.
    pub kept_at: DateTime<Utc>,
    /// The step it shows, by its name within the picture.
    pub step_code: Option<String>,
    /// The painter's words on it.
    pub caption: String,
    /// Width [px].
    pub width: i32,
    /// Height [px].
    pub height: i32,
    /// Its version: an edit names the one it was made on.
    pub version: i64,
}

impl Photograph {
    const COLUMNS: &str = "f.id, f.picture_id, f.taken_at, f.kept_at, f.step_code, f.caption, f.width, f.height, f.version";
}

/// A photograph to be kept.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct NewPhotograph {
    /// When it was taken.
    pub taken_at: DateTime<Utc>,
    /// The step it shows.
    pub step: Option<String>,
    /// The painter's words on it.
    pub caption: String,
    /// Width and height [px].
    pub size: (u32, u32),
    /// The whole photograph, JPEG.
    pub whole: Vec<u8>,
    /// The same, small, JPEG.
    pub small: Vec<u8>,
}

/// Which of the two kept sizes.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Rendition {
    /// As large as it is kept.
    Whole,
    /// For lists.
    Small,
}

/// Keeps a photograph of a picture that is not deleted.
///
/// # Errors
/// [`StoreError::NotFound`] when there is no such picture.
pub async fn add_photograph(
    conn: &mut MySqlConnection,
    picture: Uuid,
    new: &NewPhotograph,
    at: DateTime<Utc>,
) -> Result<Uuid, StoreError> {
    let id = Uuid::now_v7();
    let done = sqlx::query(
        "INSERT INTO photograph \
         (id, picture_id, taken_at, kept_at, step_code, caption, width, height, whole, small) \
         SELECT ?, id, ?, ?, ?, ?, ?, ?, ?, ? FROM picture WHERE id = ? AND deleted_at IS NULL",
    )
    .bind(id)
    .bind(new.taken_at.naive_utc())
    .bind(at.naive_utc())
    .bind(&new.step)
    .bind(&new.caption)
    .bind(new.size.0)
    .bind(new.size.1)
    .bind(&new.whole)
    .bind(&new.small)
    .bind(picture)
    .execute(&mut *conn)
    .await?;
    if done.rows_affected() != 1 {
        return Err(StoreError::NotFound);
    }
    let what = Done::Photographed { photograph: id };
    let taken = (&what, new.step.as_deref(), new.taken_at);
    log::append(conn, log::Of::Picture(picture), taken, (at, None, &shown(&new.caption))).await?;
    Ok(id)
}

/// The photographs of a picture, the first taken first.
///
/// # Errors
/// [`StoreError`].
pub async fn photographs_of(
    conn: &mut MySqlConnection,
    picture: Uuid,
) -> Result<Vec<Photograph>, StoreError> {
    let mut query = QueryBuilder::<MySql>::new("SELECT ");
    query.push(Photograph::COLUMNS).push(" FROM photograph f WHERE f.picture_id = ");
    query.push_bind(picture).push(" AND f.deleted_at IS NULL ORDER BY f.taken_at, f.id");
    Ok(query.build_query_as().fetch_all(conn).await?)
}

/// The photographs of every picture of a studio, the first taken first.
///
/// # Errors
/// [`StoreError`].
pub async fn photographs_of_studio(
    conn: &mut MySqlConnection,
    studio: Uuid,
) -> Result<Vec<Photograph>, StoreError> {
    let mut query = QueryBuilder::<MySql>::new("SELECT ");
    query.push(Photograph::COLUMNS).push(
        " FROM photograph f JOIN picture p ON p.id = f.picture_id \
         WHERE p.deleted_at IS NULL AND f.deleted_at IS NULL AND p.studio_id = ",
    );
    query.push_bind(studio).push(" ORDER BY f.taken_at, f.id");
    Ok(query.build_query_as().fetch_all(conn).await?)
}

/// The JPEG of a photograph.
///
/// # Errors
/// [`StoreError::NotFound`] when there is none, or it was taken away.
pub async fn load_rendition(
    conn: &mut MySqlConnection,
    id: Uuid,
    rendition: Rendition,
) -> Result<Vec<u8>, StoreError> {
    let query = match rendition {
        Rendition::Whole => {
            "SELECT f.whole FROM photograph f JOIN picture p ON p.id = f.picture_id \
             JOIN studio s ON s.id = p.studio_id WHERE f.id = ? AND f.deleted_at IS NULL \
             AND p.deleted_at IS NULL AND s.deleted_at IS NULL"
        }
        Rendition::Small => {
            "SELECT f.small FROM photograph f JOIN picture p ON p.id = f.picture_id \
             JOIN studio s ON s.id = p.studio_id WHERE f.id = ? AND f.deleted_at IS NULL \
             AND p.deleted_at IS NULL AND s.deleted_at IS NULL"
        }
    };
    let (bytes,): (Vec<u8>,) = sqlx::query_as(query).bind(id).fetch_one(conn).await?;
    Ok(bytes)
}

/// Changes what is said of a photograph of `picture` that is at version `given`; the log is corrected. Belongs
/// in a transaction.
///
/// # Errors
/// [`StoreError::NotFound`] when that picture has no such photograph, [`StoreError::Stale`] when another edit
/// came first; nothing is changed then.
pub async fn name_photograph(
    conn: &mut MySqlConnection,
    (picture, id): (Uuid, Uuid),
    given: i64,
    (taken_at, step, caption): (DateTime<Utc>, Option<&str>, &str),
    at: DateTime<Utc>,
) -> Result<(), StoreError> {
    let done = sqlx::query(
        "UPDATE photograph SET taken_at = ?, step_code = ?, caption = ?, version = version + 1 \
         WHERE id = ? AND picture_id = ? AND version = ? AND deleted_at IS NULL",
    )
    .bind(taken_at.naive_utc())
    .bind(step)
    .bind(caption)
    .bind(id)
    .bind(picture)
    .bind(given)
    .execute(&mut *conn)
    .await?;
    if done.rows_affected() != 1 {
        return Err(overtaken(conn, (picture, id), given).await);
    }
    let corrected = log::photographed(conn, (picture, id)).await?;
    let what = Done::Photographed { photograph: id };
    log::append(
        conn,
        log::Of::Picture(picture),
        (&what, step, taken_at),
        (at, corrected, &shown(caption)),
    )
    .await
}

/// Why an edit of a photograph at version `given` changed nothing.
async fn overtaken(
    conn: &mut MySqlConnection,
    (picture, id): (Uuid, Uuid),
    given: i64,
) -> StoreError {
    let current: Result<(i64,), _> = sqlx::query_as(
        "SELECT version FROM photograph WHERE id = ? AND picture_id = ? AND deleted_at IS NULL",
    )
    .bind(id)
    .bind(picture)
    .fetch_one(conn)
    .await;
    match current {
        Ok((current,)) => StoreError::Stale { given, current },
        Err(error) => error.into(),
    }
}

/// Takes a photograph of `picture` that is at version `given` away; it can be restored. Belongs in a
/// transaction.
///
/// # Errors
/// [`StoreError::NotFound`] when there is none, [`StoreError::Stale`] when it was edited since.
pub async fn delete_photograph(
    conn: &mut MySqlConnection,
    (picture, id): (Uuid, Uuid),
    given: i64,
    at: DateTime<Utc>,
) -> Result<(), StoreError> {
    let done = sqlx::query(
        "UPDATE photograph SET deleted_at = ?, version = version + 1 \
         WHERE id = ? AND picture_id = ? AND version = ? AND deleted_at IS NULL",
    )
    .bind(at.naive_utc())
    .bind(id)
    .bind(picture)
    .bind(given)
    .execute(&mut *conn)
    .await?;
    if done.rows_affected() != 1 {
        return Err(overtaken(conn, (picture, id), given).await);
    }
    let Some(number) = log::photographed(conn, (picture, id)).await? else { return Ok(()) };
    log::append(
        conn,
        log::Of::Picture(picture),
        (&Done::TakenBack {}, None, at),
        (at, Some(number), ""),
    )
    .await
}

/// Brings a photograph of `picture` back. Belongs in a transaction.
///
/// # Errors
/// [`StoreError::NotFound`] when there never was one.
pub async fn restore_photograph(
    conn: &mut MySqlConnection,
    (picture, id): (Uuid, Uuid),
    at: DateTime<Utc>,
) -> Result<(), StoreError> {
    sqlx::query(
        "UPDATE photograph SET deleted_at = NULL, version = version + 1 \
         WHERE id = ? AND picture_id = ? AND deleted_at IS NOT NULL",
    )
    .bind(id)
    .bind(picture)
    .execute(&mut *conn)
    .await?;
    let (taken_at, step, caption): (DateTime<Utc>, Option<String>, String) = sqlx::query_as(
        "SELECT taken_at, step_code, caption FROM photograph WHERE id = ? AND picture_id = ?",
    )
    .bind(id)
    .bind(picture)
    .fetch_one(&mut *conn)
    .await?;
    if log::photographed(conn, (picture, id)).await?.is_none() {
        let what = Done::Photographed { photograph: id };
        log::append(
            conn,
            log::Of::Picture(picture),
            (&what, step.as_deref(), taken_at),
            (at, None, &shown(&caption)),
        )
        .await?;
    }
    Ok(())
}

/// What the entry of a photograph says in words.
fn shown(caption: &str) -> String {
    format!("photographed {caption}")
}
