//! What is said of pictures.

use crate::formats::{PictureDoc, StepDoc};
use crate::routes::shared::HistoryOut;
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;

/// A picture.
#[derive(Serialize, ToSchema)]
pub struct PictureOut {
    /// Its key.
    pub id: Uuid,
    /// The studio it belongs to.
    pub studio: Uuid,
    /// Its version.
    pub version: i64,
    /// What can be undone and redone.
    pub history: HistoryOut,
    /// The picture.
    pub picture: PictureDoc,
}

/// Steps of which one is to be taken out.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct StepsAsked {
    /// The steps in order.
    pub steps: Vec<StepDoc>,
    /// The one to be taken out, by its name among them.
    pub take_out: String,
}

/// Steps of which one is to be repeated.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RepeatAsked {
    /// The steps in order.
    pub steps: Vec<StepDoc>,
    /// The one to be repeated, by its name among them.
    pub repeat: String,
    /// How many coats of it there are to be.
    pub coats: usize,
}

/// A step as it usually begins on a picture, and where it belongs.
#[derive(Serialize, ToSchema)]
pub struct UsualStep {
    /// Its place among the picture's steps.
    pub place: usize,
    /// The step; it has no name yet.
    pub step: StepDoc,
}

/// A picture after an edit.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PictureEdit {
    /// The version the edit was made on.
    pub version: i64,
    /// What the edit did, for undo.
    pub label: String,
    /// The picture as it shall be.
    pub picture: PictureDoc,
}

/// A picture that was taken away.
#[derive(Serialize, ToSchema)]
pub struct AwayOut {
    /// Its key, by which it is brought back.
    pub id: Uuid,
    /// Its title.
    pub title: String,
    /// When it was taken away.
    pub taken_away_at: DateTime<Utc>,
}
