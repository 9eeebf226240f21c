//! Where a key leads: whether what it names is there, and what it belongs to.

use crate::StoreError;
use sqlx::MySqlConnection;
use uuid::Uuid;

/// Whether what is asked for may have been taken away itself; what it belongs to must be there in any case.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Wanted {
    /// It must be there.
    There,
    /// It may have been taken away: to be brought back.
    AlsoTakenAway,
}

/// A photograph with what it belongs to.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct PhotographPlace {
    /// Its studio.
    pub studio: Uuid,
    /// The picture it shows.
    pub picture: Uuid,
}

/// Holds that there is a studio of that key.
///
/// # Errors
/// [`StoreError::NotFound`] otherwise.
pub async fn find_studio(
    conn: &mut MySqlConnection,
    id: Uuid,
    wanted: Wanted,
) -> Result<(), StoreError> {
    let (_,): (i64,) =
        sqlx::query_as("SELECT 1 FROM studio WHERE id = ? AND (? OR deleted_at IS NULL)")
            .bind(id)
            .bind(wanted == Wanted::AlsoTakenAway)
            .fetch_one(conn)
            .await?;
    Ok(())
}

/// The studio of a picture.
///
/// # Errors
/// [`StoreError::NotFound`] when there is no such picture, or its studio was taken away.
pub async fn find_picture(
    conn: &mut MySqlConnection,
    id: Uuid,
    wanted: Wanted,
) -> Result<Uuid, StoreError> {
    let (studio,): (Uuid,) = sqlx::query_as(
        "SELECT s.id FROM picture p JOIN studio s ON s.id = p.studio_id \
         WHERE p.id = ? AND (? OR p.deleted_at IS NULL) AND s.deleted_at IS NULL",
    )
    .bind(id)
    .bind(wanted == Wanted::AlsoTakenAway)
    .fetch_one(conn)
    .await?;
    Ok(studio)
}

/// The picture and the studio of a photograph.
///
/// # Errors
/// [`StoreError::NotFound`] when there is no such photograph, or its picture or studio was taken away.
pub async fn find_photograph(
    conn: &mut MySqlConnection,
    id: Uuid,
    wanted: Wanted,
) -> Result<PhotographPlace, StoreError> {
    let (studio, picture): (Uuid, Uuid) = sqlx::query_as(
        "SELECT s.id, p.id FROM photograph f JOIN picture p ON p.id = f.picture_id \
         JOIN studio s ON s.id = p.studio_id WHERE f.id = ? AND (? OR f.deleted_at IS NULL) \
         AND p.deleted_at IS NULL AND s.deleted_at IS NULL",
    )
    .bind(id)
    .bind(wanted == Wanted::AlsoTakenAway)
    .fetch_one(conn)
    .await?;
    Ok(PhotographPlace { studio, picture })
}

/// Holds that `studio` has an instrument of that key.
///
/// # Errors
/// [`StoreError::NotFound`] otherwise, or when the studio was taken away.
pub async fn find_instrument(
    conn: &mut MySqlConnection,
    studio: Uuid,
    id: Uuid,
) -> Result<(), StoreError> {
    let (_,): (i64,) = sqlx::query_as(
        "SELECT 1 FROM instrument i JOIN studio s ON s.id = i.studio_id \
         WHERE i.id = ? AND s.id = ? AND i.removed_at IS NULL AND s.deleted_at IS NULL",
    )
    .bind(id)
    .bind(studio)
    .fetch_one(conn)
    .await?;
    Ok(())
}
