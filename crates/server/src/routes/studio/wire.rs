//! What is said of studios.

use crate::formats::{MaterialDoc, StudioDoc};
use crate::routes::air::wire::{UsualAirDoc, UsualAirEdit, UsualAirOut};
use crate::routes::shared::HistoryOut;
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;

/// A studio in a list.
#[derive(Serialize, ToSchema)]
pub struct StudioListed {
    /// Its key.
    pub id: Uuid,
    /// Its name.
    pub name: String,
    /// When it was made or imported.
    pub created_at: DateTime<Utc>,
}

/// The settings and the shelf of a studio.
#[derive(Serialize, ToSchema)]
pub struct StudioOut {
    /// Its key.
    pub id: Uuid,
    /// Version of its settings.
    pub version: i64,
    /// What can be undone and redone.
    pub history: HistoryOut,
    /// Hours, places and schools.
    pub studio: StudioDoc,
    /// The room as it is usually kept.
    pub air: UsualAirOut,
    /// The shelf.
    pub materials: Vec<MaterialDoc>,
}

/// A new studio.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewStudio {
    /// Hours, places and schools.
    pub studio: StudioDoc,
    /// The room as it is usually kept.
    pub air: UsualAirDoc,
}

/// New settings of a studio.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct StudioEdit {
    /// The version the edit was made on.
    pub version: i64,
    /// What the edit did, for undo.
    pub label: String,
    /// Hours, places and schools.
    pub studio: StudioDoc,
    /// The room as it is usually kept, when that is changed with them.
    #[serde(default)]
    pub air: Option<UsualAirEdit>,
}

/// Which studios are listed.
#[derive(Deserialize)]
pub struct ListAsked {
    /// Those that were taken away, instead of those that are there.
    #[serde(default)]
    pub taken_away: bool,
}
