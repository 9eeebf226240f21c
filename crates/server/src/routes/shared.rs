//! What several routes say and hear alike.

use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What can be undone and redone now.
#[derive(Serialize, ToSchema)]
pub struct HistoryOut {
    /// The edit that undo would take back.
    #[schema(required)]
    pub undo: Option<String>,
    /// The edit that redo would make again.
    #[schema(required)]
    pub redo: Option<String>,
}

impl From<ulvek_store::History> for HistoryOut {
    fn from(history: ulvek_store::History) -> Self {
        Self { undo: history.undo, redo: history.redo }
    }
}

/// The version that undo or redo is made on.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OnVersion {
    /// The version.
    pub version: i64,
}

/// The version something is taken away at.
#[derive(Deserialize)]
pub struct AtVersion {
    /// The version.
    pub version: i64,
}

/// One stretch of time.
#[derive(Serialize, ToSchema)]
pub struct SpanOut {
    /// Start.
    pub from: DateTime<Utc>,
    /// End.
    pub to: DateTime<Utc>,
}

impl SpanOut {
    /// From one moment to another.
    pub const fn new((from, to): (DateTime<Utc>, DateTime<Utc>)) -> Self {
        Self { from, to }
    }
}
