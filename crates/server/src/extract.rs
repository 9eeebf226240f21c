//! Reading requests, with refusals as problem details.

use crate::bodies::Question;
use crate::formats::read_json;
use crate::problem::Problem;
use crate::state::App;
use crate::streams::Client;
use axum::body::Bytes;
use axum::extract::{FromRequest, FromRequestParts, Query, Request};
use axum::http::header;
use axum::http::request::Parts;
use serde::de::DeserializeOwned;
use std::convert::Infallible;
use std::net::{IpAddr, Ipv4Addr};

/// A JSON body; what does not fit is refused with its place.
pub struct Body<T>(pub T);

impl<S: Send + Sync, T: DeserializeOwned> FromRequest<S> for Body<T> {
    type Rejection = Problem;

    async fn from_request(request: Request, state: &S) -> Result<Self, Problem> {
        wants(&request, &["application/json"])?;
        let bytes = raw(request, state).await?;
        Ok(Self(read_json(&bytes)?))
    }
}

/// The bytes of a body of one of the kinds that its handler reads.
pub struct Raw(pub Bytes);

/// A whole studio document.
pub struct RawJson(pub Bytes);

impl<S: Send + Sync> FromRequest<S> for RawJson {
    type Rejection = Problem;

    async fn from_request(request: Request, state: &S) -> Result<Self, Problem> {
        wants(&request, &["application/json"])?;
        raw(request, state).await.map(Self)
    }
}

impl<S: Send + Sync> FromRequest<S> for Raw {
    type Rejection = Problem;

    async fn from_request(request: Request, state: &S) -> Result<Self, Problem> {
        wants(&request, &["application/octet-stream", "image/jpeg", "image/png", "image/webp"])?;
        raw(request, state).await.map(Self)
    }
}

/// Holds that a body is of a kind that is read: a form of another page can send none of them
/// without being asked for.
fn wants(request: &Request, kinds: &[&str]) -> Result<(), Problem> {
    let said = request.headers().get(header::CONTENT_TYPE).and_then(|v| v.to_str().ok());
    let kind = said.unwrap_or_default().split(';').next().unwrap_or_default().trim();
    if kinds.iter().any(|wanted| kind.eq_ignore_ascii_case(wanted)) {
        return Ok(());
    }
    Err(Problem::wrong_kind(&kinds.join(" or ")))
}

async fn raw<S: Send + Sync>(request: Request, state: &S) -> Result<Bytes, Problem> {
    let is_question = request.extensions().get::<Question>().is_some();
    Bytes::from_request(request, state).await.map_err(|rejection| {
        if rejection.status() == axum::http::StatusCode::PAYLOAD_TOO_LARGE {
            if is_question { Problem::too_large_a_question() } else { Problem::too_large() }
        } else {
            Problem::cut_off()
        }
    })
}

/// The query of the address.
pub struct Asked<T>(pub T);

impl<S: Send + Sync, T: DeserializeOwned> FromRequestParts<S> for Asked<T> {
    type Rejection = Problem;

    async fn from_request_parts(parts: &mut Parts, state: &S) -> Result<Self, Problem> {
        Query::<T>::from_request_parts(parts, state).await.map(|Query(asked)| Self(asked)).map_err(
            |e| {
                let said = e.body_text();
                let said = said.strip_prefix("Failed to deserialize query string: ");
                let (path, reason) = said.and_then(|s| s.split_once(": ")).unwrap_or_default();
                let name = |c: char| c.is_ascii_lowercase() || c == '_';
                let path = if path.chars().all(name) { path } else { "" };
                let reason = crate::formats::plain_words(reason);
                let reason =
                    if reason.is_empty() { "the address cannot be read".into() } else { reason };
                Problem::refused(path, reason)
            },
        )
    }
}

/// The id that an entry carries, `Idempotency-Key`: a page that heard no answer sends it again.
pub struct Once(pub Option<uuid::Uuid>);

impl<S: Send + Sync> FromRequestParts<S> for Once {
    type Rejection = Problem;

    async fn from_request_parts(parts: &mut Parts, _: &S) -> Result<Self, Problem> {
        let Some(said) = parts.headers.get("idempotency-key") else { return Ok(Self(None)) };
        let id = said.to_str().ok().and_then(|said| said.parse().ok());
        id.map(|id| Self(Some(id))).ok_or_else(|| {
            Problem::refused("idempotency-key", "it must be a UUID, a new one for each entry")
        })
    }
}

impl FromRequestParts<App> for Client {
    type Rejection = Infallible;

    async fn from_request_parts(parts: &mut Parts, app: &App) -> Result<Self, Infallible> {
        // Requests that never crossed a network (tests, the application's own) come from nowhere.
        let nowhere = Self(IpAddr::V4(Ipv4Addr::UNSPECIFIED));
        let peer = parts.extensions.get().copied().unwrap_or(nowhere);
        // A proxy of this machine that shows the application adds who asked at the end; what stands before it,
        // anybody may have written.
        if peer.0.is_loopback() && app.doors.has_proxy() {
            let said = parts.headers.get("x-forwarded-for").and_then(|v| v.to_str().ok());
            let last = said.and_then(|said| said.rsplit(',').next()?.trim().parse().ok());
            return Ok(last.map_or(peer, Self));
        }
        Ok(peer)
    }
}
