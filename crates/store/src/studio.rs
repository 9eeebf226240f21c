//! Studios: settings in one row with a version; air, shelf and pictures beside it.

use crate::StoreError;
use crate::air::{self, AirState};
use crate::daybook;
use crate::log;
use crate::picture::{self, PictureRow, StoredPicture, create_picture};
use crate::revision::{self, Direction, History};
use crate::settings_body::SettingsBody;
use crate::shelf::{self, Ground, ShelfState};
use crate::unread::{self, UnreadRow, word};
use crate::versioned::{STUDIO, Value, json};
use chrono::{DateTime, Utc};
use chrono_tz::Tz;
use sqlx::mysql::MySqlRow;
use sqlx::{FromRow, MySqlConnection};
use std::sync::Arc;
use ulvek_core::studio::Studio;
use uuid::Uuid;

/// A studio in a list.
#[derive(Debug, Clone, PartialEq, Eq, FromRow)]
pub struct StudioListing {
    /// Its key.
    pub id: Uuid,
    /// Its name.
    pub name: String,
    /// When it was made or imported.
    pub created_at: DateTime<Utc>,
}

/// A whole studio as stored.
#[derive(Debug, Clone)]
pub struct StoredStudio {
    /// Its key.
    pub id: Uuid,
    /// Version of its settings.
    pub version: i64,
    /// Settings, air, shelf and pictures; pictures in the order of `pictures`.
    pub studio: Arc<Studio>,
    /// Key, version and history of each picture.
    pub pictures: Vec<StoredPicture>,
    /// What can be undone and redone of the settings.
    pub history: History,
    /// The air's own version and history.
    pub air: AirState,
    /// The shelf's own version and history.
    pub shelf: ShelfState,
    /// What of it cannot be read and is left out.
    pub unread: Vec<UnreadRow>,
}

/// Every studio, the newest first: those that are there, or those that were taken away.
///
/// # Errors
/// [`StoreError`].
pub async fn list_studios(
    conn: &mut MySqlConnection,
    taken_away: bool,
) -> Result<Vec<StudioListing>, StoreError> {
    Ok(sqlx::query_as(
        "SELECT id, name, created_at FROM studio WHERE (deleted_at IS NOT NULL) = ? \
         ORDER BY created_at DESC, id DESC",
    )
    .bind(taken_away)
    .fetch_all(conn)
    .await?)
}

/// Takes a studio away with all that is in it; it can be brought back.
///
/// # Errors
/// [`StoreError::Stale`] when its settings were edited since version `given`.
pub async fn delete_studio(
    conn: &mut MySqlConnection,
    id: Uuid,
    given: i64,
    at: DateTime<Utc>,
) -> Result<(), StoreError> {
    STUDIO.take_away(conn, (id, given), at).await
}

/// Brings a studio back that was taken away.
///
/// # Errors
/// [`StoreError::NotFound`] when there never was one.
pub async fn restore_studio(conn: &mut MySqlConnection, id: Uuid) -> Result<(), StoreError> {
    STUDIO.bring_back(conn, id).await
}

/// What a studio is made of, by versions: the same as long as nothing in it was changed.
#[derive(Debug, Clone, PartialEq, Eq, Hash, Default)]
pub struct StudioState {
    settings: i64,
    shelf: i64,
    air: i64,
    measured: i64,
    daybook: i64,
    pictures: Vec<(Uuid, i64)>,
    photographs: Vec<(Uuid, i64)>,
}

impl StudioState {
    /// What edits of its pictures lean on.
    pub const fn ground(&self) -> Ground {
        Ground { settings: self.settings, shelf: self.shelf }
    }

    /// The same without the day book: nothing that is computed hangs on what stands there.
    #[must_use]
    pub fn without_daybook(&self) -> Self {
        Self { daybook: 0, ..self.clone() }
    }
}

/// Reads what a studio is made of, in one statement: all of one moment.
///
/// # Errors
/// [`StoreError::NotFound`] when there is none.
pub async fn studio_state(conn: &mut MySqlConnection, id: Uuid) -> Result<StudioState, StoreError> {
    let rows: Vec<StateRow> = sqlx::query_as(
        "SELECT 'studio' AS part, s.id, 0 AS place, s.version, h.version AS shelf, a.version AS air, a.measured, \
         (SELECT COALESCE(MAX(l.number), 0) FROM log_entry l WHERE l.studio_id = s.id) AS daybook FROM studio s \
         JOIN shelf h ON h.studio_id = s.id JOIN air a ON a.studio_id = s.id \
         WHERE s.id = ? AND s.deleted_at IS NULL \
         UNION ALL SELECT 'picture', id, position, version, 0, 0, 0, 0 FROM picture \
         WHERE studio_id = ? AND deleted_at IS NULL \
         UNION ALL SELECT 'photograph', f.id, 0, f.version, 0, 0, 0, 0 FROM photograph f \
         JOIN picture p ON p.id = f.picture_id \
         WHERE p.studio_id = ? AND p.deleted_at IS NULL AND f.deleted_at IS NULL",
    )
    .bind(id)
    .bind(id)
    .bind(id)
    .fetch_all(conn)
    .await?;
    let studio = rows.iter().find(|row| row.part == "studio").ok_or(StoreError::NotFound)?;
    let of = |what: &str| {
        let mut mine: Vec<_> = rows.iter().filter(|row| row.part == what).collect();
        mine.sort_by_key(|row| (row.place, row.id));
        mine.into_iter().map(|row| (row.id, row.version)).collect()
    };
    Ok(StudioState {
        settings: studio.version,
        shelf: studio.shelf,
        air: studio.air,
        measured: studio.measured,
        daybook: studio.daybook,
        pictures: of("picture"),
        photographs: of("photograph"),
    })
}

/// A part of a studio with its version: the studio itself with those of shelf, air and day book, a picture or a
/// photograph.
#[derive(FromRow)]
struct StateRow {
    part: String,
    id: Uuid,
    place: i64,
    version: i64,
    shelf: i64,
    air: i64,
    measured: i64,
    daybook: i64,
}

/// Stores a whole studio as a new one. Belongs in a transaction: all of it or nothing.
///
/// # Errors
/// [`StoreError`].
pub async fn create_studio(
    conn: &mut MySqlConnection,
    studio: &Studio,
    at: DateTime<Utc>,
) -> Result<Uuid, StoreError> {
    let id = Uuid::now_v7();
    let body = SettingsBody::of(studio);
    sqlx::query(
        "INSERT INTO studio (id, name, settings, version, created_at) VALUES (?, ?, ?, 1, ?)",
    )
    .bind(id)
    .bind(body.name())
    .bind(json(&body)?)
    .bind(at.naive_utc())
    .execute(&mut *conn)
    .await?;
    revision::record(conn, id, "begin the studio", &body, at).await?;
    air::insert_air(conn, id, studio, at).await?;
    shelf::insert_shelf(conn, id, studio, at).await?;
    for picture in &studio.pictures {
        create_picture(conn, id, picture, at).await?;
    }
    // When they were entered is not known any more: the time of the deed stands in.
    for entry in &studio.happened {
        let told = (entry, studio.materials.as_slice());
        daybook::enter_in_daybook(conn, id, told, entry.at).await?;
    }
    Ok(id)
}

/// Reads a whole studio.
///
/// # Errors
/// [`StoreError::NotFound`] when there is none.
pub async fn load_studio(conn: &mut MySqlConnection, id: Uuid) -> Result<StoredStudio, StoreError> {
    let (settings, version): (String, i64) =
        sqlx::query_as("SELECT settings, version FROM studio WHERE id = ? AND deleted_at IS NULL")
            .bind(id)
            .fetch_one(&mut *conn)
            .await?;
    let mut unread = Vec::new();
    let (series, room, air) = air::load_air(conn, id, &mut unread).await?;
    let named = (id, "the settings of the studio", settings.as_str());
    let studio = unread::read_or_as_it_was(conn, named, &mut unread, |body| {
        settings_in(body)?.into_studio(series.clone())
    });
    let mut studio = Studio { room, ..studio.await? };
    let shelf = shelf::load_shelf(conn, id, (&mut studio, &mut unread)).await?;
    let rows = sqlx::query(
        "SELECT id, studio_id, code, title, body, version FROM picture \
         WHERE studio_id = ? AND deleted_at IS NULL ORDER BY position, id",
    )
    .bind(id)
    .fetch_all(&mut *conn)
    .await?;
    let mut histories = revision::histories_in(conn, id).await?;
    let mut logs = log::logs_in(conn, id, &mut unread).await?;
    let named = |row: &MySqlRow| format!("the picture \"{}\"", word(row, "title"));
    let plans = unread::read_each(&rows, &mut unread, named, |row| {
        unread::columns::<PictureRow>(row)?.into_planned()
    });
    let pictures: Vec<StoredPicture> = plans
        .into_iter()
        .map(|planned| {
            let history = histories.remove(&planned.id).unwrap_or_default();
            let log = logs.remove(&planned.id).unwrap_or_default();
            planned.with(&log, history)
        })
        .collect();
    studio.happened = daybook::daybook_in(conn, id, &mut unread).await?;
    studio.pictures = pictures.iter().map(|p| p.picture.clone()).collect();
    let history = revision::history(conn, id).await?;
    let studio = Arc::new(studio);
    Ok(StoredStudio { id, version, studio, pictures, history, air, shelf, unread })
}

/// Reads a studio again that was `known` when it was made of `was`, and is made of `is` now: only the pictures and the
/// day book that changed since. All of it where anything else did, or something could not be read.
///
/// # Errors
/// [`StoreError::NotFound`] when there is none.
pub async fn load_studio_again(
    conn: &mut MySqlConnection,
    known: &StoredStudio,
    (was, is): (&StudioState, &StudioState),
) -> Result<StoredStudio, StoreError> {
    let pictures = was.pictures.iter().zip(&is.pictures);
    let same = known.unread.is_empty()
        && was.pictures.len() == is.pictures.len()
        && pictures.clone().all(|((old, _), (new, _))| old == new)
        && (was.settings, was.shelf, was.air, was.measured)
            == (is.settings, is.shelf, is.air, is.measured);
    if !same {
        return load_studio(conn, known.id).await;
    }
    let mut again = known.clone();
    for (stored, (_, (id, _))) in
        again.pictures.iter_mut().zip(pictures).filter(|(_, (was, is))| was != is)
    {
        *stored = match picture::read_picture(conn, *id, &mut again.unread).await {
            Err(StoreError::Unreadable(_)) => return load_studio(conn, known.id).await,
            read => read?,
        };
    }
    let mut studio = Studio::clone(&known.studio);
    studio.pictures = again.pictures.iter().map(|p| p.picture.clone()).collect();
    if was.daybook != is.daybook {
        studio.happened = daybook::daybook_in(conn, known.id, &mut again.unread).await?;
    }
    // Rows are named in full where all of them are read.
    if !again.unread.is_empty() {
        return load_studio(conn, known.id).await;
    }
    again.studio = Arc::new(studio);
    Ok(again)
}

fn settings_in(body: &str) -> Result<SettingsBody, StoreError> {
    serde_json::from_str(body).map_err(|e| StoreError::Unreadable(format!("settings: {e}")))
}

/// The time zone of a studio.
///
/// # Errors
/// [`StoreError::NotFound`] when there is none.
pub async fn zone_of(conn: &mut MySqlConnection, id: Uuid) -> Result<Tz, StoreError> {
    let (settings,): (String,) =
        sqlx::query_as("SELECT settings FROM studio WHERE id = ? AND deleted_at IS NULL")
            .bind(id)
            .fetch_one(&mut *conn)
            .await?;
    let named = (id, "the settings of the studio", settings.as_str());
    Ok(unread::read_or_as_it_was(conn, named, &mut Vec::new(), settings_in).await?.zone())
}

/// Replaces the settings of a studio at version `given`; air, shelf and pictures stay. Belongs in a
/// transaction. Returns the new version.
///
/// # Errors
/// [`StoreError::Stale`] when another edit came first; nothing is changed then.
pub async fn save_settings(
    conn: &mut MySqlConnection,
    id: Uuid,
    given: i64,
    studio: &Studio,
    label: &str,
    at: DateTime<Utc>,
) -> Result<i64, StoreError> {
    let body = SettingsBody::of(studio);
    let version = replaced(conn, (id, given), &body).await?;
    revision::record(conn, id, label, &body, at).await?;
    Ok(version)
}

/// Undoes or redoes the last edit of the settings at version `given`. Belongs in a transaction.
/// Returns the new version.
///
/// # Errors
/// [`StoreError::Stale`], or [`StoreError::NoSuchRevision`] when there is nothing to go to.
pub async fn undo_settings(
    conn: &mut MySqlConnection,
    id: Uuid,
    given: i64,
    direction: Direction,
) -> Result<i64, StoreError> {
    // Revisions of pictures are kept beside: only those of a studio are gone through here.
    STUDIO.version(conn, id).await?;
    let body: SettingsBody = revision::go(conn, id, direction).await?;
    replaced(conn, (id, given), &body).await
}

async fn replaced(
    conn: &mut MySqlConnection,
    row: (Uuid, i64),
    body: &SettingsBody,
) -> Result<i64, StoreError> {
    let columns =
        [("name", Value::Text(body.name().to_owned())), ("settings", Value::Text(json(body)?))];
    STUDIO.update(conn, row, columns).await
}

/// Whether there ever was a studio, also one that was taken away since.
///
/// # Errors
/// [`StoreError`].
pub async fn is_begun(conn: &mut MySqlConnection) -> Result<bool, StoreError> {
    let (count,): (i64,) = sqlx::query_as("SELECT COUNT(*) FROM studio").fetch_one(conn).await?;
    Ok(count > 0)
}
