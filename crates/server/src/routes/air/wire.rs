//! What is said of the air.

use crate::formats::{Moment, RoomDoc, words};
use crate::routes::shared::{HistoryOut, SpanOut};
use chrono::{DateTime, NaiveDate, Utc};
use serde::{Deserialize, Serialize};
use ulvek_core::air::Origin;
use ulvek_core::studio::AirSource;
use utoipa::ToSchema;

/// The room for ten days.
#[derive(Serialize, ToSchema)]
pub struct AirAhead {
    /// The moment it was computed for.
    pub now: DateTime<Utc>,
    /// IANA name of the studio's time zone.
    pub time_zone: String,
    /// Version of the air.
    pub version: i64,
    /// What can be undone and redone of it.
    pub history: HistoryOut,
    /// Where the readings to come are from.
    #[schema(schema_with = words::api::air_source)]
    pub source: AirSource,
    /// When they were taken in.
    pub taken_at: Option<DateTime<Utc>>,
    /// How the room follows the outside.
    pub room: RoomDoc,
    /// Temperatures wanted for varnish, lowest and highest [C].
    pub wanted_c: WantedOut,
    /// Humidities wanted for varnish, lowest and highest, fractions of 1.
    pub wanted_rh: WantedOut,
    /// Hour by hour.
    pub hours: Vec<HourOut>,
    /// Day by day.
    pub days: Vec<DayOut>,
}

/// A range that varnish wants.
#[derive(Serialize, ToSchema)]
pub struct WantedOut {
    /// Lowest.
    pub low: f64,
    /// Highest.
    pub high: f64,
}

/// One hour of the room.
#[derive(Serialize, ToSchema)]
pub struct HourOut {
    /// When it begins.
    pub at: DateTime<Utc>,
    /// Temperature [C].
    pub temperature_c: f64,
    /// Relative humidity, fraction of 1.
    pub relative_humidity: f64,
    /// Whether it is fit for varnish.
    pub fit: bool,
    /// Whether the studio is open then.
    pub open: bool,
}

/// One day.
#[derive(Serialize, ToSchema)]
pub struct DayOut {
    /// The day.
    pub day: NaiveDate,
    /// Stretches within the studio's hours that are fit for varnish.
    pub good: Vec<SpanOut>,
    /// Minutes of the studio's hours that are left of it.
    pub open_min: f64,
    /// What is wrong at the worst hour, when none is fit.
    pub fault: Option<String>,
    /// What would make it fit, each by itself.
    pub remedies: Vec<String>,
}

/// Where the readings to come are taken from.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AirEdit {
    /// The version of the air.
    pub version: i64,
    /// From where.
    #[schema(schema_with = words::api::air_source)]
    pub source: AirSource,
    /// How the room follows the outside; needed for the forecast and for readings of the outside.
    #[serde(default)]
    pub room: Option<RoomDoc>,
    /// The readings, as CSV with the columns `at`, `temperature_c` and `relative_humidity` or
    /// `relative_humidity_percent`.
    #[serde(default)]
    pub csv: Option<String>,
    /// Whether those readings are of the outside.
    #[serde(default)]
    pub outside: bool,
}

/// One reading that the painter took.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TypedReading {
    /// The version of the air.
    pub version: i64,
    /// When it was taken.
    pub at: Moment,
    /// Temperature [C].
    pub temperature_c: f64,
    /// Relative humidity, fraction of 1.
    pub relative_humidity: f64,
}

/// Readings that are taken back, or given back.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TakenBack {
    /// The version of the air.
    pub version: i64,
    /// From when on.
    pub from: Moment,
    /// Before when.
    pub to: Moment,
    /// Whether what an instrument measured is given back.
    #[serde(default)]
    pub give: bool,
}

/// What stretch of the past is asked for.
#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
pub struct PastQuery {
    /// From when on.
    pub from: Moment,
    /// Until when; now when not said.
    pub to: Option<Moment>,
}

/// The room as it was.
#[derive(Serialize, ToSchema)]
pub struct AirPast {
    /// From when.
    pub from: DateTime<Utc>,
    /// Until when.
    pub to: DateTime<Utc>,
    /// IANA name of the studio's time zone.
    pub time_zone: String,
    /// The version of the air.
    pub version: i64,
    /// How it was, at most [`POINTS`](super::past::POINTS) stretches of equal length.
    pub points: Vec<PastPoint>,
    /// Where it is from, stretch by stretch.
    pub origins: Vec<OriginOut>,
}

/// The room in one short stretch.
#[derive(Serialize, ToSchema)]
pub struct PastPoint {
    /// When it begins.
    pub at: DateTime<Utc>,
    /// Lowest, middle and highest temperature [C].
    pub temperature_c: [f64; 3],
    /// The same of the relative humidity, fractions of 1.
    pub relative_humidity: [f64; 3],
}

/// A stretch that is of one origin.
#[derive(Serialize, ToSchema)]
pub struct OriginOut {
    /// When it begins.
    pub from: DateTime<Utc>,
    /// When it ends.
    pub to: DateTime<Utc>,
    /// Where it is from.
    #[schema(schema_with = words::api::origin)]
    pub origin: Origin,
}
