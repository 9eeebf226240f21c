//! Taking in the air to come.

use crate::air::{Air, Origin, Room, RoomHour};
use crate::quantity::{Celsius, Fault, RelativeHumidity, check_moment};
use crate::studio::{AirSource, RoomAhead, Studio};
use crate::time::{HOUR_S, seconds};
use chrono::{DateTime, Utc};

/// Where the air to come is taken from.
#[derive(Debug, Clone, PartialEq)]
pub enum AirAhead {
    /// The room stays as it is usually kept.
    Constant,
    /// A forecast of the outside, through the room.
    Forecast(Vec<RoomHour>),
    /// Readings of the room itself.
    Readings(Vec<(f64, Air)>),
    /// Readings of the outside, through the room.
    Outside(Vec<RoomHour>),
}

impl AirAhead {
    const fn source(&self) -> AirSource {
        match self {
            Self::Constant => AirSource::Constant,
            Self::Forecast(_) => AirSource::Forecast,
            Self::Readings(_) | Self::Outside(_) => AirSource::Readings,
        }
    }

    /// What it is called, for undo.
    pub const fn label(&self) -> &'static str {
        match self {
            Self::Constant => "keep the room as usual",
            Self::Forecast(_) => "take in the forecast",
            Self::Readings(_) | Self::Outside(_) => "take in readings",
        }
    }
}

/// `studio` with one reading that the painter typed, which stands for an hour.
///
/// # Errors
/// [`Fault`] when it is of the future, or cannot be.
pub fn type_reading(
    studio: &Studio,
    at: DateTime<Utc>,
    (celsius, humidity): (f64, f64),
    now: DateTime<Utc>,
) -> Result<Studio, Fault> {
    if at > now {
        return Err(Fault::new("at", "it is of the future; a reading is of what was"));
    }
    check_moment(at).map_err(|e| Fault::new("at", e))?;
    Celsius::try_new(celsius).map_err(|e| Fault::new("temperature_c", e))?;
    RelativeHumidity::try_new(humidity).map_err(|e| Fault::new("relative_humidity", e))?;
    let air = Air { celsius, humidity, ..*studio.air.usual() };
    let air = studio.air.replaced_within(vec![(seconds(at), air)], Origin::Typed);
    let after = Studio { air, ..studio.clone() };
    after.check_air()?;
    Ok(after)
}

/// `studio` with the air to come taken in at `now`. What is past stays, except where readings are of
/// it: a log says what was, and takes the place of what is known of its own span, no more.
///
/// # Errors
/// [`Fault`] when the room cannot be, or more readings would be kept than may be.
pub fn take_in_air(
    studio: &Studio,
    follows: Room,
    ahead: AirAhead,
    now: DateTime<Utc>,
) -> Result<Studio, Fault> {
    let at = seconds(now);
    let source = ahead.source();
    let room = RoomAhead { follows, source, taken_at: Some(now) };
    // Air that went through a room that cannot be would be blamed on the air.
    Studio { room, ..studio.clone() }.check_air()?;
    let through = |from: Air, outside: &[RoomHour]| follows.follow(from, outside);
    let air = match ahead {
        AirAhead::Constant => studio.air.replaced_from(at, Vec::new(), Origin::Usual),
        AirAhead::Forecast(outside) => {
            let mut room = through(*studio.air.at(at), &outside);
            room.retain(|(t, _)| *t + HOUR_S > at);
            studio.air.replaced_from(at, room, Origin::Forecast)
        }
        AirAhead::Readings(readings) => studio.air.replaced_within(readings, Origin::Table),
        AirAhead::Outside(outside) => {
            let first = outside.first().map_or(at, |hour| hour.at);
            studio.air.replaced_within(through(*studio.air.at(first), &outside), Origin::Table)
        }
    };
    let after = Studio { air, room, ..studio.clone() };
    after.check_air()?;
    Ok(after)
}
