//! Keys of a path, resolved once: to a row that is there, in a studio that is there. No handler sees a key that
//! was not looked up.

use crate::problem::Problem;
use crate::state::App;
use axum::extract::{FromRequestParts, Path};
use axum::http::request::Parts;
use std::collections::HashMap;
use ulvek_store::{StoreError, Wanted};
use uuid::Uuid;

/// The key that the path names `name`; one that is no key is not found.
async fn key(parts: &mut Parts, app: &App, name: &str, what: &str) -> Result<Uuid, Problem> {
    let path = Path::<HashMap<String, String>>::from_request_parts(parts, app).await;
    let named = path.ok().and_then(|Path(path)| path.get(name).and_then(|key| key.parse().ok()));
    named.ok_or_else(|| Problem::not_found(what))
}

/// Says what was not found.
fn named<T>(found: Result<T, StoreError>, what: &str) -> Result<T, Problem> {
    found.map_err(|error| match error {
        StoreError::NotFound => Problem::not_found(what),
        other => other.into(),
    })
}

/// A studio that is there.
pub struct InStudio(pub Uuid);
/// A studio that is there or was taken away.
pub struct AnyStudio(pub Uuid);

/// A picture that is there, in a studio that is there.
pub struct InPicture {
    /// Its key.
    pub id: Uuid,
    /// Its studio.
    pub studio: Uuid,
}
/// A picture that is there or was taken away, in a studio that is there.
pub struct AnyPicture {
    /// Its key.
    pub id: Uuid,
    /// Its studio.
    pub studio: Uuid,
}

/// A photograph that is there, of a picture and a studio that are there.
pub struct InPhotograph {
    /// Its key.
    pub id: Uuid,
    /// The picture it shows.
    pub picture: Uuid,
}
/// A photograph that is there or was taken away, of a picture and a studio that are there.
pub struct AnyPhotograph {
    /// Its key.
    pub id: Uuid,
    /// The picture it shows.
    pub picture: Uuid,
}

/// An instrument that is there, of a studio that is there.
pub struct InInstrument {
    /// Its key.
    pub id: Uuid,
    /// Its studio.
    pub studio: Uuid,
}

async fn studio(parts: &mut Parts, app: &App, wanted: Wanted) -> Result<Uuid, Problem> {
    let what = "such studio";
    let id = key(parts, app, "id", what).await?;
    let mut app = app.clone();
    let mut conn = app.glance().await?;
    named(ulvek_store::find_studio(&mut conn, id, wanted).await, what)?;
    Ok(id)
}

impl FromRequestParts<App> for InStudio {
    type Rejection = Problem;

    async fn from_request_parts(parts: &mut Parts, app: &App) -> Result<Self, Problem> {
        studio(parts, app, Wanted::There).await.map(Self)
    }
}

impl FromRequestParts<App> for AnyStudio {
    type Rejection = Problem;

    async fn from_request_parts(parts: &mut Parts, app: &App) -> Result<Self, Problem> {
        studio(parts, app, Wanted::AlsoTakenAway).await.map(Self)
    }
}

async fn picture(parts: &mut Parts, app: &App, wanted: Wanted) -> Result<(Uuid, Uuid), Problem> {
    let what = "such picture";
    let id = key(parts, app, "id", what).await?;
    let mut app = app.clone();
    let mut conn = app.glance().await?;
    let studio = named(ulvek_store::find_picture(&mut conn, id, wanted).await, what)?;
    Ok((id, studio))
}

impl FromRequestParts<App> for InPicture {
    type Rejection = Problem;

    async fn from_request_parts(parts: &mut Parts, app: &App) -> Result<Self, Problem> {
        let (id, studio) = picture(parts, app, Wanted::There).await?;
        Ok(Self { id, studio })
    }
}

impl FromRequestParts<App> for AnyPicture {
    type Rejection = Problem;

    async fn from_request_parts(parts: &mut Parts, app: &App) -> Result<Self, Problem> {
        let (id, studio) = picture(parts, app, Wanted::AlsoTakenAway).await?;
        Ok(Self { id, studio })
    }
}

async fn photograph(parts: &mut Parts, app: &App, wanted: Wanted) -> Result<(Uuid, Uuid), Problem> {
    let what = "such photograph";
    let id = key(parts, app, "id", what).await?;
    let mut app = app.clone();
    let mut conn = app.glance().await?;
    let place = named(ulvek_store::find_photograph(&mut conn, id, wanted).await, what)?;
    Ok((id, place.picture))
}

impl FromRequestParts<App> for InPhotograph {
    type Rejection = Problem;

    async fn from_request_parts(parts: &mut Parts, app: &App) -> Result<Self, Problem> {
        let (id, picture) = photograph(parts, app, Wanted::There).await?;
        Ok(Self { id, picture })
    }
}

impl FromRequestParts<App> for AnyPhotograph {
    type Rejection = Problem;

    async fn from_request_parts(parts: &mut Parts, app: &App) -> Result<Self, Problem> {
        let (id, picture) = photograph(parts, app, Wanted::AlsoTakenAway).await?;
        Ok(Self { id, picture })
    }
}

impl FromRequestParts<App> for InInstrument {
    type Rejection = Problem;

    async fn from_request_parts(parts: &mut Parts, app: &App) -> Result<Self, Problem> {
        let what = "such instrument";
        let studio = key(parts, app, "id", what).await?;
        let id = key(parts, app, "instrument", what).await?;
        let mut app = app.clone();
        let mut conn = app.glance().await?;
        named(ulvek_store::find_instrument(&mut conn, studio, id).await, what)?;
        Ok(Self { id, studio })
    }
}
