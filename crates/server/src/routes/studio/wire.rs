//! What is said of studios.

use crate::formats::{MaterialDoc, StudioDoc};
use crate::routes::shared::HistoryOut;
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};
use ulvek_core::air::{Air, ORDINARY_M_S};
use ulvek_core::studio::Studio;
use ulvek_store::AirState;
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

const fn ordinary_air() -> f64 {
    ORDINARY_M_S
}

/// The room as it is usually kept.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct UsualAirDoc {
    /// Temperature [C].
    pub temperature_c: f64,
    /// Relative humidity, fraction of 1.
    pub relative_humidity: f64,
    /// Air speed over the pictures [m/s]; 0.15 when not said.
    #[serde(default = "ordinary_air")]
    pub air_speed_m_s: f64,
}

impl UsualAirDoc {
    fn of(air: &Air) -> Self {
        Self {
            temperature_c: air.celsius,
            relative_humidity: air.humidity,
            air_speed_m_s: air.speed_m_s,
        }
    }

    /// The air; whether it may be is the check's to say.
    pub const fn read(&self) -> Air {
        Air {
            celsius: self.temperature_c,
            humidity: self.relative_humidity,
            speed_m_s: self.air_speed_m_s,
        }
    }
}

/// The room as it is usually kept, as it is stored.
#[derive(Serialize, ToSchema)]
pub struct UsualAirOut {
    /// Version of the air.
    pub version: i64,
    /// What can be undone and redone of it.
    pub history: HistoryOut,
    /// How the room is usually kept.
    pub usual: UsualAirDoc,
}

impl UsualAirOut {
    /// The room of `studio` as it is usually kept.
    pub fn of(studio: &Studio, air: AirState) -> Self {
        Self {
            version: air.version,
            history: HistoryOut::from(air.history),
            usual: UsualAirDoc::of(studio.air.usual()),
        }
    }
}

/// Another way to keep the room.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct UsualAirEdit {
    /// The version of the air.
    pub version: i64,
    /// How the room is usually kept from now on known.
    pub usual: UsualAirDoc,
}
