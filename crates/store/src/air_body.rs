//! How the room is written into a JSON column: all but its readings, which are rows.

use crate::StoreError;
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};
use ulvek_core::air::{Air, Room};
use ulvek_core::studio::{AirSource, RoomAhead, Studio};

/// Temperature [C], relative humidity and speed [m/s].
type UsualBody = (f64, f64, f64);

#[derive(Clone, Serialize, Deserialize)]
pub(crate) struct AirBody {
    usual: UsualBody,
    #[serde(default)]
    ahead: Option<AheadBody>,
}

impl AirBody {
    pub fn of(studio: &Studio) -> Self {
        let usual = studio.air.usual();
        Self {
            usual: (usual.celsius, usual.humidity, usual.speed_m_s),
            ahead: Some(AheadBody::of(&studio.room)),
        }
    }

    /// The room as it is usually kept, and how it is looked ahead at.
    pub fn into_room(self) -> Result<(Air, RoomAhead), StoreError> {
        let (celsius, humidity, speed) = self.usual;
        let usual = Air::try_new(celsius, humidity, speed)
            .map_err(|e| StoreError::Unreadable(e.to_string()))?;
        Ok((usual, self.ahead.map(AheadBody::into_room).unwrap_or_default()))
    }
}

#[derive(Clone, Serialize, Deserialize)]
struct AheadBody {
    source: AirSource,
    taken_at: Option<DateTime<Utc>>,
    held_c: Option<f64>,
    warmer_k: f64,
    lag_h: f64,
    changes_per_h: f64,
    moisture_g_m3_h: f64,
}

impl AheadBody {
    fn of(ahead: &RoomAhead) -> Self {
        let room = ahead.follows;
        Self {
            source: ahead.source,
            taken_at: ahead.taken_at,
            held_c: room.held_c,
            warmer_k: room.warmer_k,
            lag_h: room.lag_h,
            changes_per_h: room.changes_per_h,
            moisture_g_m3_h: room.moisture_g_m3_h,
        }
    }

    fn into_room(self) -> RoomAhead {
        RoomAhead {
            source: self.source,
            taken_at: self.taken_at,
            follows: Room {
                held_c: self.held_c,
                warmer_k: self.warmer_k,
                lag_h: self.lag_h,
                changes_per_h: self.changes_per_h,
                moisture_g_m3_h: self.moisture_g_m3_h,
            },
        }
    }
}
