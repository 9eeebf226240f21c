//! The air of a studio: shape, reading and writing.

use super::moment::Moment;
use super::words;
use chrono_tz::Tz;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use std::collections::HashSet;
use ulvek_core::air::{Air, AirSeries, ORDINARY_M_S, Origin, Room};
use ulvek_core::quantity::{Checked, Fault};
use ulvek_core::studio::{AirSource, RoomAhead, Studio};
use ulvek_core::time::{exact_instant, seconds};
use utoipa::ToSchema;

/// The room's air.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AirDoc {
    /// Usual temperature [C].
    pub temperature_c: f64,
    /// Usual relative humidity, fraction of 1.
    pub relative_humidity: f64,
    /// Air speed over the pictures [m/s]; 0.15 when not said.
    #[serde(default = "ordinary_air")]
    pub air_speed_m_s: f64,
    /// Readings; each stands until the next one, the last one to the end.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub hourly: Vec<HourlyDoc>,
    /// How the room is looked ahead at; constant when not said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub ahead: Option<AheadDoc>,
}

/// How the room is looked ahead at.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AheadDoc {
    /// Where the readings to come are from.
    #[schemars(schema_with = "words::json::air_source")]
    #[schema(schema_with = words::api::air_source)]
    pub source: AirSource,
    /// When they were taken in.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub taken_at: Option<Moment>,
    /// How the room follows the outside.
    #[serde(default)]
    pub room: RoomDoc,
}

/// How a room follows the outside; what is not said is that of an ordinary heated room.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct RoomDoc {
    /// Temperature it is heated to [C]; `null` when it is not heated.
    pub held_c: Option<f64>,
    /// How much warmer than outside it is when not heated [K].
    pub warmer_k: f64,
    /// How slowly its temperature follows [h].
    pub lag_h: f64,
    /// Air changed with the outside [1/h].
    pub changes_per_h: f64,
    /// Water given off in it [g/(m3 h)].
    pub moisture_g_m3_h: f64,
}

impl Default for RoomDoc {
    fn default() -> Self {
        let usual = ulvek_core::air::Room::default();
        Self {
            held_c: usual.held_c,
            warmer_k: usual.warmer_k,
            lag_h: usual.lag_h,
            changes_per_h: usual.changes_per_h,
            moisture_g_m3_h: usual.moisture_g_m3_h,
        }
    }
}

const fn ordinary_air() -> f64 {
    ORDINARY_M_S
}

/// One reading of the room's air.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct HourlyDoc {
    /// From when it stands.
    pub at: Moment,
    /// Temperature [C].
    pub temperature_c: f64,
    /// Relative humidity, fraction of 1.
    pub relative_humidity: f64,
    /// Air speed [m/s]; the usual one when not said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub air_speed_m_s: Option<f64>,
    /// Where it is from; a table that was brought when not said.
    #[serde(default = "brought")]
    #[schemars(schema_with = "words::json::origin")]
    #[schema(schema_with = words::api::origin)]
    pub origin: Origin,
}

const fn brought() -> Origin {
    Origin::Table
}

impl AirDoc {
    /// Writes the air of a studio; times in `zone`.
    pub fn of(studio: &Studio, zone: Tz) -> Self {
        let usual = studio.air.usual();
        let hourly = studio.air.known().map(|(t, air, origin)| HourlyDoc {
            at: Moment::local(exact_instant(t), zone),
            temperature_c: air.celsius,
            relative_humidity: air.humidity,
            air_speed_m_s: Some(air.speed_m_s),
            origin,
        });
        Self {
            temperature_c: usual.celsius,
            relative_humidity: usual.humidity,
            air_speed_m_s: usual.speed_m_s,
            hourly: hourly.collect(),
            ahead: (studio.room != RoomAhead::default()).then(|| AheadDoc::of(&studio.room, zone)),
        }
    }

    /// The air and how it is looked ahead at; whether it may be is the check's to say.
    ///
    /// # Errors
    /// [`Fault`] of a reading at a time that another one has.
    pub fn read(&self) -> Checked<(AirSeries, RoomAhead)> {
        let usual = Air {
            celsius: self.temperature_c,
            humidity: self.relative_humidity,
            speed_m_s: self.air_speed_m_s,
        };
        let mut times = HashSet::new();
        let mut readings = Vec::with_capacity(self.hourly.len());
        for (i, hour) in self.hourly.iter().enumerate() {
            let at = hour.at.utc();
            if !times.insert(at) {
                let why = "another reading has that very time";
                return Err(Fault::new(format!("air.hourly[{i}].at"), why));
            }
            let air = Air {
                celsius: hour.temperature_c,
                humidity: hour.relative_humidity,
                speed_m_s: hour.air_speed_m_s.unwrap_or(usual.speed_m_s),
            };
            readings.push((seconds(at), air, hour.origin));
        }
        // Hours that are given without a word on where they are from were read.
        let read = RoomAhead { source: AirSource::Readings, ..RoomAhead::default() };
        let usual_room = if readings.is_empty() { RoomAhead::default() } else { read };
        let room = self.ahead.as_ref().map_or(usual_room, AheadDoc::read);
        Ok((AirSeries::of(usual, readings), room))
    }
}

impl AheadDoc {
    fn of(room: &RoomAhead, zone: Tz) -> Self {
        Self {
            source: room.source,
            taken_at: room.taken_at.map(|at| Moment::local(at, zone)),
            room: RoomDoc::of(&room.follows),
        }
    }

    fn read(&self) -> RoomAhead {
        RoomAhead {
            source: self.source,
            taken_at: self.taken_at.map(Moment::utc),
            follows: self.room.read(),
        }
    }
}

impl RoomDoc {
    /// Writes how a room follows the outside.
    pub fn of(room: &Room) -> Self {
        Self {
            held_c: room.held_c,
            warmer_k: room.warmer_k,
            lag_h: room.lag_h,
            changes_per_h: room.changes_per_h,
            moisture_g_m3_h: room.moisture_g_m3_h,
        }
    }

    /// How a room follows the outside; whether it may be is the check's to say.
    pub fn read(&self) -> Room {
        Room {
            held_c: self.held_c,
            warmer_k: self.warmer_k,
            lag_h: self.lag_h,
            changes_per_h: self.changes_per_h,
            moisture_g_m3_h: self.moisture_g_m3_h,
        }
    }
}
