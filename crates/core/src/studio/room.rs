//! Where the room's readings come from.

use crate::air::Room;
use crate::words::words;
use chrono::{DateTime, Utc};

words! {
    /// Where the room's readings to come are from.
    AirSource {
        /// Nowhere: the room stays as it is usually kept.
        Constant = "constant",
        /// A forecast of the outside, through the room.
        Forecast = "forecast",
        /// Readings that the painter brought.
        Readings = "readings",
    }
}

impl AirSource {
    /// What painters call it.
    pub const fn said(self) -> &'static str {
        match self {
            Self::Constant => "The room as it is usually kept",
            Self::Forecast => "The forecast of the outside, followed by the room",
            Self::Readings => "Readings you brought",
        }
    }
}

/// How the room is looked ahead at.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct RoomAhead {
    /// How the room follows the outside.
    pub follows: Room,
    /// Where its readings to come are from.
    pub source: AirSource,
    /// When they were taken in.
    pub taken_at: Option<DateTime<Utc>>,
}

impl Default for RoomAhead {
    fn default() -> Self {
        Self { follows: Room::default(), source: AirSource::Constant, taken_at: None }
    }
}
