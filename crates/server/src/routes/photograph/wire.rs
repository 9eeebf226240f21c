//! What is said of photographs.

use crate::formats::Moment;
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};
use ulvek_store::Photograph;
use utoipa::ToSchema;
use uuid::Uuid;

/// A photograph, without its pixels.
#[derive(Serialize, ToSchema)]
pub struct PhotographOut {
    /// Its key; its pixels are at `/api/photographs/{id}/whole` and `.../small`, as JPEG.
    pub id: Uuid,
    /// When it was taken.
    pub taken_at: DateTime<Utc>,
    /// When it was brought here.
    pub kept_at: DateTime<Utc>,
    /// The step it shows.
    pub step: Option<String>,
    /// The painter's words on it.
    pub caption: String,
    /// Width [px].
    pub width: i32,
    /// Height [px].
    pub height: i32,
    /// Its version: an edit names the one it was made on.
    pub version: i64,
}

impl From<&Photograph> for PhotographOut {
    fn from(photograph: &Photograph) -> Self {
        Self {
            id: photograph.id,
            taken_at: photograph.taken_at,
            kept_at: photograph.kept_at,
            step: photograph.step_code.clone(),
            caption: photograph.caption.clone(),
            width: photograph.width,
            height: photograph.height,
            version: photograph.version,
        }
    }
}

/// What is said of a photograph that is brought.
#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Said {
    /// When it was taken; as the camera says when not said.
    pub taken_at: Option<Moment>,
    /// The step it shows.
    pub step: Option<String>,
    /// The painter's words on it.
    #[serde(default)]
    pub caption: String,
}

/// What is said of a photograph.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PhotographEdit {
    /// The version the edit is made on.
    pub version: i64,
    /// When it was taken.
    pub taken_at: Moment,
    /// The step it shows.
    #[serde(default)]
    pub step: Option<String>,
    /// The painter's words on it.
    #[serde(default)]
    pub caption: String,
}
