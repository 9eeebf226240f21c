//! The one place that turns errors into HTTP: problem details (RFC 9457).

use crate::formats::Unread;
use axum::Json;
use axum::http::{HeaderValue, StatusCode, header};
use axum::response::{IntoResponse, Response};
use serde::Serialize;
use ulvek_core::picture::CoatFault;
use ulvek_core::quantity::Fault;
use ulvek_store::StoreError;
use utoipa::ToSchema;

/// The database does not answer.
const DATABASE_AWAY: &str = "urn:ulvek:problem:database-away";
/// When to ask again [s]. [practice]
const AGAIN_S: u16 = 1;

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
    /// Whether the very same edit may go through at once.
    #[serde(skip)]
    pub again: bool,
    /// When to ask again, where that helps [s].
    #[serde(skip)]
    pub after_s: u16,
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
            again: false,
            after_s: AGAIN_S,
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
            Fault::new(path.clone(), reason).to_string(),
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

    /// More than one question may hold.
    pub fn too_large_a_question() -> Self {
        let detail =
            "What was sent is larger than 1 MB, the most that a question may hold.".to_owned();
        Self { detail, ..Self::too_large() }
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

    /// No name of the application.
    pub fn no_host() -> Self {
        Self::new(
            StatusCode::BAD_REQUEST,
            "urn:ulvek:problem:no-host",
            "No host",
            "The request does not say which host it is for.",
        )
    }

    /// A name that is not the application's.
    pub fn misdirected() -> Self {
        Self::new(
            StatusCode::MISDIRECTED_REQUEST,
            "urn:ulvek:problem:misdirected",
            "Not this application",
            "Ulvek does not answer to this host name. For a proxy or a name of your own, start it \
             with --public-url.",
        )
    }

    /// A body of a kind that is not read here.
    pub fn wrong_kind(wanted: &str) -> Self {
        Self::new(
            StatusCode::UNSUPPORTED_MEDIA_TYPE,
            "urn:ulvek:problem:media-type",
            "Not read here",
            format!("This address reads {wanted} only (Content-Type)."),
        )
    }

    /// A body that is not JSON at all.
    pub fn not_json(reason: impl Into<String>) -> Self {
        Self::new(StatusCode::BAD_REQUEST, "urn:ulvek:problem:not-json", "Not JSON", reason)
    }

    /// A request that ended too soon.
    pub fn cut_off() -> Self {
        Self::new(
            StatusCode::BAD_REQUEST,
            "urn:ulvek:problem:cut-off",
            "Cut off",
            "The request ended before its body was complete.",
        )
    }

    /// More is asked at once than can be computed.
    pub fn busy() -> Self {
        Self::new(
            StatusCode::TOO_MANY_REQUESTS,
            "urn:ulvek:problem:busy",
            "Too much at once",
            "More is asked at once than can be computed. Ask again in a moment.",
        )
    }

    /// An entry was sent before.
    pub fn kept_already() -> Self {
        Self::new(
            StatusCode::CONFLICT,
            "urn:ulvek:problem:kept-already",
            "Kept already",
            "This very entry is kept already; sending it again changed nothing.",
        )
    }

    /// An instrument sends more than is taken.
    pub fn too_fast(per_second: u32, after_s: u16) -> Self {
        let problem = Self::new(
            StatusCode::TOO_MANY_REQUESTS,
            "urn:ulvek:problem:too-fast",
            "Too many readings",
            format!(
                "More readings came than are taken: {per_second} in a second in the long run. Send \
                 fewer, or one in a minute."
            ),
        );
        Self { after_s, ..problem }
    }

    /// No token, or one that is not known.
    pub fn no_token() -> Self {
        Self::new(
            StatusCode::UNAUTHORIZED,
            "urn:ulvek:problem:no-token",
            "Not an instrument of a studio",
            "Say the token that was given when the instrument was added, as \"Authorization: Bearer \
             <token>\". One that was taken away has none any more.",
        )
    }

    /// A search that runs already, or too many of them.
    pub fn search_running(detail: &str) -> Self {
        Self::new(
            StatusCode::CONFLICT,
            "urn:ulvek:problem:search-running",
            "Searching already",
            detail,
        )
    }

    /// No room on the disk.
    pub fn no_room() -> Self {
        Self::new(
            StatusCode::INSUFFICIENT_STORAGE,
            "urn:ulvek:problem:no-room",
            "The disk is full",
            "The disk is nearly full, so nothing is changed any more; everything can still be \
             looked at. Nothing was changed: free some space, then try again.",
        )
    }

    /// The answer to a commit did not come: it may or may not have happened.
    pub fn unsure() -> Self {
        Self::new(
            StatusCode::SERVICE_UNAVAILABLE,
            "urn:ulvek:problem:unsure",
            "May have been saved",
            "The database went away while it saved this. It may have been saved: look before you \
             try again.",
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
            "Something went wrong in the application. It may have been saved: look before you try again.",
        )
    }

    /// A fault of the program before anything was kept.
    fn undone() -> Self {
        Self {
            detail:
                "Something went wrong in the application. Nothing was changed; please try again."
                    .to_owned(),
            ..Self::internal()
        }
    }

    /// Another edit came between: what was computed may not hold any more. It is tried once more before anybody
    /// hears of it.
    pub fn in_the_way() -> Self {
        let mut problem = Self::new(
            StatusCode::SERVICE_UNAVAILABLE,
            "urn:ulvek:problem:in-the-way",
            "Another edit is in the way",
            "Another edit held this up. Nothing was changed; try again in a moment.",
        );
        problem.again = true;
        problem
    }

    /// The same with why the database is away, when it is that.
    pub fn with_cause(mut self, cause: Option<String>) -> Self {
        if self.r#type == DATABASE_AWAY
            && let Some(cause) = cause
        {
            self.detail = format!("{} ({cause}.)", self.detail);
        }
        self
    }

    /// Took too long.
    pub fn timeout() -> Self {
        Self::new(
            StatusCode::SERVICE_UNAVAILABLE,
            "urn:ulvek:problem:timeout",
            "Took too long",
            "The answer took too long. If something was to be changed, it may have been saved: look \
             before you try again.",
        )
    }
}

impl From<Fault> for Problem {
    fn from(fault: Fault) -> Self {
        Self::refused(fault.place, fault.why)
    }
}

impl From<CoatFault> for Problem {
    fn from(fault: CoatFault) -> Self {
        Fault::from(fault).into()
    }
}

impl From<Unread> for Problem {
    fn from(unread: Unread) -> Self {
        match unread {
            Unread::NotJson(said) => {
                Self::not_json(format!("What was sent cannot be read: {said}."))
            }
            Unread::Misfit(fault) => fault.into(),
        }
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
            StoreError::Overtaken => Self::new(
                StatusCode::CONFLICT,
                "urn:ulvek:problem:conflict",
                "Edited elsewhere",
                "It was edited elsewhere at the same moment. Nothing was changed; look at it and \
                 try again.",
            ),
            StoreError::InTheWay(cause) => {
                tracing::warn!(%cause, "another edit is in the way");
                Self::in_the_way()
            }
            StoreError::Full(cause) => {
                tracing::error!(%cause, "the disk is full");
                Self::no_room()
            }
            StoreError::ReadOnly(cause) => {
                tracing::error!(%cause, "the database is read-only");
                Self::new(
                    StatusCode::SERVICE_UNAVAILABLE,
                    "urn:ulvek:problem:read-only",
                    "The database is read-only",
                    "The database takes no changes just now; everything can be looked at. Nothing was \
                     changed: try again later, or ask who looks after the database.",
                )
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
                    DATABASE_AWAY,
                    "The database is away",
                    "The database does not answer just now. Nothing was changed; try again in a moment.",
                )
            }
            StoreError::Refused(cause) => {
                tracing::error!(%cause, "the database refused a statement");
                Self::undone()
            }
            StoreError::Unreadable(cause) => {
                tracing::error!(%cause, "stored data cannot be read");
                Self::undone()
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
        let mut response = (status, Json(&self)).into_response();
        let headers = response.headers_mut();
        let kind = HeaderValue::from_static("application/problem+json");
        headers.insert(header::CONTENT_TYPE, kind);
        if matches!(self.status, 429 | 503) {
            headers.insert(header::RETRY_AFTER, HeaderValue::from(self.after_s));
        }
        if self.status == 401 {
            headers.insert(header::WWW_AUTHENTICATE, HeaderValue::from_static("Bearer"));
        }
        // For those around the handlers: to try again, to name a cause.
        response.extensions_mut().insert(self);
        response
    }
}
