//! Views: answers that are computed from a studio as it is, kept as they are sent, and told by a
//! mark, so that who asks again is told that nothing changed.

use crate::compute::{Key, Lane, Named};
use crate::desks::Loaded;
use crate::problem::Problem;
use crate::reading::load;
use crate::state::App;
use axum::body::{Body, Bytes};
use axum::http::{HeaderMap, HeaderValue, StatusCode, header};
use axum::response::{IntoResponse, Response};
use chrono::{DateTime, Utc};
use serde::Serialize;
use std::sync::Arc;
use uuid::Uuid;

/// A studio as it was loaded, the desk it is worked on, and the moment.
pub(super) struct Scene {
    pub app: App,
    pub loaded: Arc<Loaded>,
    pub now: DateTime<Utc>,
}

/// Answers `question` about a studio, or a picture in it, with what `make` makes; a browser that has that very answer already
/// is told so.
pub(super) async fn view<T: Serialize>(
    app: &mut App,
    studio: Uuid,
    headers: &HeaderMap,
    question: String,
    make: impl FnOnce(&Scene) -> Result<T, Problem> + Send + 'static,
) -> Result<Response, Problem> {
    let loaded = load(app, studio).await?;
    let now = app.clock.now();
    let key = key_of(&loaded, now, &question);
    let mark = mark_of(&key.key);
    if headers.get(header::IF_NONE_MATCH).is_some_and(|known| holds(known, &mark)) {
        return Ok((StatusCode::NOT_MODIFIED, marked(&mark)).into_response());
    }
    let bytes = computed(app, loaded, (key, Lane::View), now, make).await?;
    Ok((marked(&mark), json(bytes)).into_response())
}

/// A question with its numbers, as it is known by.
pub(super) fn asked<T: Serialize>(what: &str, with: &T) -> Result<String, Problem> {
    serde_json::to_string(with).map(|with| format!("{what} {with}")).map_err(|cause| {
        tracing::error!(%cause, "a question cannot be written");
        Problem::internal()
    })
}

/// Answers a question that was sent with numbers of its own; nobody polls it.
pub(super) async fn answer<T: Serialize>(
    app: &mut App,
    (studio, lane): (Uuid, Lane),
    question: String,
    make: impl FnOnce(&Scene) -> Result<T, Problem> + Send + 'static,
) -> Result<Response, Problem> {
    let loaded = load(app, studio).await?;
    let now = app.clock.now();
    let key = key_of(&loaded, now, &question);
    let bytes = computed(app, loaded, (key, lane), now, make).await?;
    Ok(json(bytes))
}

pub(super) fn key_of(loaded: &Loaded, now: DateTime<Utc>, question: &str) -> Named {
    let minute = now.timestamp().div_euclid(60);
    Key::named(loaded.stored.id, &loaded.state, minute, question)
}

type Made = Result<Bytes, Problem>;

async fn computed<T: Serialize>(
    app: &mut App,
    loaded: Arc<Loaded>,
    (key, lane): (Named, Lane),
    now: DateTime<Utc>,
    make: impl FnOnce(&Scene) -> Result<T, Problem> + Send + 'static,
) -> Made {
    let scene = Scene { app: app.clone(), loaded, now };
    let made = app.computing().ask(key, lane, move || written(make(&scene))).await?;
    made.as_ref().clone()
}

/// An answer as it is sent, with what it weighs; a refusal weighs nothing and is not kept.
pub(super) fn written<T: Serialize>(made: Result<T, Problem>) -> (u32, Made) {
    let bytes = made.and_then(|made| {
        serde_json::to_vec(&made).map(Bytes::from).map_err(|cause| {
            tracing::error!(%cause, "an answer cannot be written");
            Problem::internal()
        })
    });
    let weight = bytes.as_ref().map_or(0, |b| u32::try_from(b.len()).unwrap_or(u32::MAX));
    (weight, bytes)
}

/// JSON that is written already.
pub(super) fn json(bytes: Bytes) -> Response {
    let kind = HeaderValue::from_static("application/json");
    ([(header::CONTENT_TYPE, kind)], Body::from(bytes)).into_response()
}

/// A weak mark: two answers with the same one say the same, for this minute.
fn mark_of(key: &Key) -> String {
    format!("W/\"{}-{}\"", env!("CARGO_PKG_VERSION"), key.mark())
}

fn holds(known: &HeaderValue, mark: &str) -> bool {
    known.to_str().is_ok_and(|known| known.split(',').any(|one| one.trim() == mark))
}

fn marked(mark: &str) -> HeaderMap {
    let mut headers = HeaderMap::new();
    if let Ok(mark) = HeaderValue::from_str(mark) {
        headers.insert(header::ETAG, mark);
    }
    headers.insert(header::CACHE_CONTROL, HeaderValue::from_static("no-cache"));
    headers
}
