//! The one place that turns errors into HTTP: problem details (RFC 9457).

use crate::formats::Refusal;
use axum::Json;
use axum::http::{StatusCode, header};
use axum::response::{IntoResponse, Response};
use serde::Serialize;
use ulvek_store::StoreError;
use utoipa::ToSchema;

/// A problem, as `application/problem+json`.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct Problem {
    /// What kind of problem, `urn:ulvek:problem:...`.
    #[schema(value_type = String)]
    pub r#type: &'static str,
    /// The kind in words.
    #[schema(value_type = String)]
    pub title: &'static str,
    /// The HTTP status again.
    pub status: u16,
    /// What is wrong here, in one sentence.
    pub detail: String,
    /// The place in the input, where one is at fault.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub path: Option<String>,
    /// For a conflict: the version the edit was made on.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub given_version: Option<i64>,
    /// For a conflict: the version that is stored.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub current_version: Option<i64>,
}

impl Problem {
    fn new(
        status: StatusCode,
        kind: &'static str,
        title: &'static str,
        detail: impl Into<String>,
    ) -> Self {
        Self {
            r#type: kind,
            title,
            status: status.as_u16(),
            detail: detail.into(),
            path: None,
            given_version: None,
            current_version: None,
        }
    }

    /// Nothing at this address.
    pub fn not_found(what: &str) -> Self {
        Self::new(
            StatusCode::NOT_FOUND,
            "urn:ulvek:problem:not-found",
            "Not found",
            format!("There is no {what} here."),
        )
    }

    /// Input that does not fit.
    pub fn refused(path: impl Into<String>, reason: impl Into<String>) -> Self {
        let (path, reason) = (path.into(), reason.into());
        let mut problem = Self::new(
            StatusCode::UNPROCESSABLE_ENTITY,
            "urn:ulvek:problem:refused",
            "Input refused",
            Refusal::new(path.clone(), reason).to_string(),
        );
        problem.path = Some(path).filter(|p| !p.is_empty());
        problem
    }

    /// More than is taken.
    pub fn too_large() -> Self {
        Self::new(
            StatusCode::PAYLOAD_TOO_LARGE,
            "urn:ulvek:problem:too-large",
            "Too large",
            "What was sent is larger than 16 MB, the most that is taken.",
        )
    }

    /// The wrong method on a known address.
    pub fn method_not_allowed() -> Self {
        Self::new(
            StatusCode::METHOD_NOT_ALLOWED,
            "urn:ulvek:problem:method",
            "Not possible here",
            "This address does not take that method.",
        )
    }

    /// A page of another site.
    pub fn foreign() -> Self {
        Self::new(
            StatusCode::FORBIDDEN,
            "urn:ulvek:problem:foreign",
            "From another site",
            "Only Ulvek's own pages may change something here.",
        )
    }

    /// A fault of the program; the cause is in the log, not here.
    pub fn internal() -> Self {
        Self::new(
            StatusCode::INTERNAL_SERVER_ERROR,
            "urn:ulvek:problem:internal",
            "A fault of the program",
            "Something went wrong in the application. Nothing was changed; please try again.",
        )
    }

    /// Took too long.
    pub fn timeout() -> Self {
        Self::new(
            StatusCode::SERVICE_UNAVAILABLE,
            "urn:ulvek:problem:timeout",
            "Took too long",
            "The answer took too long. Nothing was changed; please try again.",
        )
    }
}

impl From<Refusal> for Problem {
    fn from(refusal: Refusal) -> Self {
        Self::refused(refusal.path, refusal.reason)
    }
}

impl From<StoreError> for Problem {
    fn from(error: StoreError) -> Self {
        match error {
            StoreError::NotFound => Self::not_found("such studio or picture"),
            StoreError::Stale { given, current } => {
                let mut problem = Self::new(
                    StatusCode::CONFLICT,
                    "urn:ulvek:problem:conflict",
                    "Edited elsewhere",
                    format!(
                        "It was edited elsewhere in the meantime: your edit was made on version \
                         {given}, version {current} is stored. Nothing was changed."
                    ),
                );
                problem.given_version = Some(given);
                problem.current_version = Some(current);
                problem
            }
            StoreError::NoSuchRevision => Self::new(
                StatusCode::CONFLICT,
                "urn:ulvek:problem:no-revision",
                "Nothing to step to",
                "There is nothing to undo or redo.",
            ),
            StoreError::Away(cause) => {
                tracing::warn!(%cause, "the database does not answer");
                Self::new(
                    StatusCode::SERVICE_UNAVAILABLE,
                    "urn:ulvek:problem:database-away",
                    "The database is away",
                    "The database does not answer just now. Nothing was changed; try again in a moment.",
                )
            }
            StoreError::Refused(cause) => {
                tracing::error!(%cause, "the database refused a statement");
                Self::internal()
            }
            StoreError::Unreadable(cause) => {
                tracing::error!(%cause, "stored data cannot be read");
                Self::internal()
            }
        }
    }
}

impl From<sqlx::Error> for Problem {
    fn from(error: sqlx::Error) -> Self {
        StoreError::from(error).into()
    }
}

impl IntoResponse for Problem {
    fn into_response(self) -> Response {
        let status = StatusCode::from_u16(self.status).unwrap_or(StatusCode::INTERNAL_SERVER_ERROR);
        {
            let mut response = (status, Json(self)).into_response();
            let kind = axum::http::HeaderValue::from_static("application/problem+json");
            response.headers_mut().insert(header::CONTENT_TYPE, kind);
            response
        }
    }
}
