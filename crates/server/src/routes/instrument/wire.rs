//! What is said of instruments, and what they say.

use crate::formats::moment::{Moment, of_a_row};
use crate::formats::words;
use crate::instruments::Behaviour;
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};
use ulvek_core::air::{InstrumentKind, Measured, dew_point_c, vapour_concentration_kg_m3};
use ulvek_core::quantity::MomentFault;
use ulvek_core::time::exact_instant;
use utoipa::ToSchema;
use uuid::Uuid;

/// The instruments of a studio.
#[derive(Serialize, ToSchema)]
pub struct InstrumentsOut {
    /// The moment it was asked at.
    pub now: DateTime<Utc>,
    /// IANA name of the studio's time zone.
    pub time_zone: String,
    /// The instruments, the first added first.
    pub instruments: Vec<InstrumentOut>,
}

/// One instrument.
#[derive(Serialize, ToSchema)]
pub struct InstrumentOut {
    /// Its key.
    pub id: Uuid,
    /// What it measures.
    #[schema(schema_with = words::api::instrument_kind)]
    pub kind: InstrumentKind,
    /// What the painter calls it.
    pub name: String,
    /// Of when its last reading is.
    #[schema(required)]
    pub heard_at: Option<DateTime<Utc>>,
    /// Its last reading, of a hygrometer.
    #[schema(required)]
    pub last: Option<MeasuredOut>,
    /// How a simulated one behaves.
    #[schema(required, schema_with = words::api::behaviour_if_any)]
    pub behaves: Option<Behaviour>,
    /// What is wrong with it, in sentences.
    pub faults: Vec<String>,
}

/// A reading of a hygrometer.
#[derive(Serialize, ToSchema)]
pub struct MeasuredOut {
    /// When it was taken.
    pub at: DateTime<Utc>,
    /// Temperature [C].
    pub temperature_c: f64,
    /// Relative humidity, fraction of 1.
    pub relative_humidity: f64,
    /// Dew point [C].
    pub dew_point_c: f64,
    /// Water in the air [g/m3].
    pub water_g_m3: f64,
}

impl From<&Measured> for MeasuredOut {
    fn from(m: &Measured) -> Self {
        Self {
            at: exact_instant(m.at),
            temperature_c: m.celsius,
            relative_humidity: m.humidity,
            dew_point_c: dew_point_c(m.celsius, m.humidity),
            water_g_m3: m.humidity * vapour_concentration_kg_m3(m.celsius) * 1000.0,
        }
    }
}

/// An instrument that is added.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewInstrument {
    /// What it measures.
    #[schema(schema_with = words::api::instrument_kind)]
    pub kind: InstrumentKind,
    /// What the painter calls it.
    pub name: String,
    /// Whether it is a simulated one, which sends by itself.
    #[serde(default)]
    pub simulated: bool,
}

/// An instrument that was added.
#[derive(Serialize, ToSchema)]
pub struct InstrumentAdded {
    /// Its key.
    pub id: Uuid,
    /// The token that it sends with. It is said once and kept nowhere.
    pub token: String,
}

/// How a simulated instrument is to behave.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Behave {
    /// How.
    #[schema(schema_with = words::api::behaviour)]
    pub behaves: Behaviour,
}

/// What an instrument sends: one of the three, by its kind.
#[derive(Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Sent {
    /// Readings of a thermo-hygrometer.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub readings: Option<Vec<SentReading>>,
    /// What lies on a scale now [g].
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub grams: Option<f64>,
    /// The outside hour by hour, of a forecast.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub hours: Option<Vec<SentReading>>,
}

/// Air at one time.
#[derive(Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SentReading {
    /// When (RFC 3339).
    #[serde(with = "of_a_row")]
    #[schema(value_type = Moment)]
    pub at: Result<Moment, MomentFault>,
    /// Temperature [C].
    pub temperature_c: f64,
    /// Relative humidity, fraction of 1.
    pub relative_humidity: f64,
}

/// What became of what was sent.
#[derive(Serialize, Deserialize, ToSchema)]
pub struct Taken {
    /// How many were taken in.
    pub taken: u64,
    /// How many were there before: sending twice changes nothing.
    pub known: u64,
    /// Those that were not taken, each with place and reason.
    pub refused: Vec<RefusedOut>,
}

/// Something that was not taken.
#[derive(Serialize, Deserialize, ToSchema)]
pub struct RefusedOut {
    /// Its place in what was sent.
    pub path: String,
    /// Why.
    pub why: String,
}
