//! Reading a studio as it is now, or taking it as it was read when nothing changed since.

use crate::desks::Loaded;
use crate::problem::Problem;
use crate::state::App;
use std::sync::{Arc, PoisonError};
use ulvek_store::Wanted;
use uuid::Uuid;

/// A studio as it is now, all of one moment; what is known of that state already is not read again.
///
/// # Errors
/// Not found, or the database is away.
pub async fn load(app: &mut App, studio: Uuid) -> Result<Arc<Loaded>, Problem> {
    let desks = app.desks.clone();
    let state = ulvek_store::studio_state(&mut *app.glance().await?, studio).await?;
    if let Some(known) = desks.loaded.get(&(studio, Arc::new(state))) {
        return Ok(known);
    }
    let mut reading = app.reading().await?;
    // It may have been changed since.
    let state = Arc::new(ulvek_store::studio_state(&mut reading, studio).await?);
    let key = (studio, state.clone());
    let mut stored = match desks.last_loaded(studio) {
        Some(last) => {
            let states = (&*last.state, &*state);
            ulvek_store::load_studio_again(&mut reading, &last.stored, states).await?
        }
        None => ulvek_store::load_studio(&mut reading, studio).await?,
    };
    let photographs = ulvek_store::photographs_of_studio(&mut reading, studio).await?;
    reading.commit().await?;
    for row in &stored.unread {
        tracing::error!(what = row.what, why = row.why, "a row cannot be read and is left out");
    }
    let times = desks.times_of(studio);
    let loaded = app
        .aside(move || {
            // What the tests teach is never kept: the same tests always teach the same.
            let learned = {
                let mut times = times.lock().unwrap_or_else(PoisonError::into_inner);
                Arc::make_mut(&mut stored.studio).learn_with(&mut times)
            };
            Arc::new(Loaded { state, studio: stored.studio.clone(), stored, learned, photographs })
        })
        .await?;
    desks.keep(key, &loaded);
    Ok(loaded)
}

/// The studio of a picture as it is now, all of one moment.
///
/// # Errors
/// Not found, or the database is away.
pub async fn load_around(app: &mut App, picture: Uuid) -> Result<Arc<Loaded>, Problem> {
    let mut glance = app.glance().await?;
    let studio = ulvek_store::find_picture(&mut glance, picture, Wanted::There).await?;
    drop(glance);
    load(app, studio).await
}
