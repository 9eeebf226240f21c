//! Reading requests, with refusals as problem details.

use crate::problem::Problem;
use axum::body::Bytes;
use axum::extract::{FromRequest, FromRequestParts, Path, Query, Request};
use axum::http::request::Parts;
use serde::de::DeserializeOwned;

/// A JSON body; what does not fit is refused with its place.
pub struct Body<T>(pub T);

impl<S: Send + Sync, T: DeserializeOwned> FromRequest<S> for Body<T> {
    type Rejection = Problem;

    async fn from_request(request: Request, state: &S) -> Result<Self, Problem> {
        let bytes = raw(request, state).await?;
        let mut reader = serde_json::Deserializer::from_slice(&bytes);
        serde_path_to_error::deserialize(&mut reader).map(Self).map_err(|e| {
            let path = e.path().to_string();
            let path = if path == "." || path.contains('?') { String::new() } else { path };
            Problem::refused(path, e.inner().to_string())
        })
    }
}

/// The bytes of a body of any kind.
pub struct Raw(pub Bytes);

impl<S: Send + Sync> FromRequest<S> for Raw {
    type Rejection = Problem;

    async fn from_request(request: Request, state: &S) -> Result<Self, Problem> {
        raw(request, state).await.map(Self)
    }
}

async fn raw<S: Send + Sync>(request: Request, state: &S) -> Result<Bytes, Problem> {
    Bytes::from_request(request, state).await.map_err(|rejection| {
        if rejection.status() == axum::http::StatusCode::PAYLOAD_TOO_LARGE {
            Problem::too_large()
        } else {
            Problem::refused("", "the request ended before its body was complete")
        }
    })
}

/// A key in the path; one that is no key is not found.
pub struct Key(pub uuid::Uuid);

impl<S: Send + Sync> FromRequestParts<S> for Key {
    type Rejection = Problem;

    async fn from_request_parts(parts: &mut Parts, state: &S) -> Result<Self, Problem> {
        Path::<uuid::Uuid>::from_request_parts(parts, state)
            .await
            .map(|Path(id)| Self(id))
            .map_err(|_| Problem::not_found("such studio or picture"))
    }
}

/// The query of the address.
pub struct Asked<T>(pub T);

impl<S: Send + Sync, T: DeserializeOwned> FromRequestParts<S> for Asked<T> {
    type Rejection = Problem;

    async fn from_request_parts(parts: &mut Parts, state: &S) -> Result<Self, Problem> {
        Query::<T>::from_request_parts(parts, state)
            .await
            .map(|Query(asked)| Self(asked))
            .map_err(|e| Problem::refused("", e.body_text()))
    }
}
