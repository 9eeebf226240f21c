//! Reading a studio as it is now, or taking it as it was read when nothing changed since.

use crate::desks::Loaded;
use crate::problem::Problem;
use crate::state::App;
use sqlx::MySqlConnection;
use std::sync::Arc;
use uuid::Uuid;

/// A studio as it is now, all of one moment.
///
/// # Errors
/// Not found, or the database is away.
pub async fn load(app: &App, studio: Uuid) -> Result<Arc<Loaded>, Problem> {
    let mut tx = app.reading().await?;
    let loaded = load_in(app, &mut tx, studio).await?;
    tx.commit().await?;
    Ok(loaded)
}

/// The studio of a picture as it is now, all of one moment.
///
/// # Errors
/// Not found, or the database is away.
pub async fn load_around(app: &App, picture: Uuid) -> Result<Arc<Loaded>, Problem> {
    let mut tx = app.reading().await?;
    let studio = ulvek_store::studio_of(&mut tx, picture).await?;
    let loaded = load_in(app, &mut tx, studio).await?;
    tx.commit().await?;
    Ok(loaded)
}

/// A studio as it is in the transaction of `conn`; what is known of that state already is not read again.
///
/// # Errors
/// Not found, or the database is away.
pub async fn load_in(
    app: &App,
    conn: &mut MySqlConnection,
    studio: Uuid,
) -> Result<Arc<Loaded>, Problem> {
    let state = Arc::new(ulvek_store::studio_state(conn, studio).await?);
    let key = (studio, state.clone());
    if let Some(known) = app.desks.loaded.get(&key) {
        return Ok(known);
    }
    let stored = ulvek_store::load_studio(conn, studio).await?;
    let photographs = ulvek_store::photographs_of_studio(conn, studio).await?;
    let around = Arc::new(stored.studio.clone());
    let loaded = Arc::new(Loaded { state, stored, studio: around, photographs });
    app.desks.loaded.insert(key, loaded.clone());
    Ok(loaded)
}
