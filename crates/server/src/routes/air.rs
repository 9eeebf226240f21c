//! The room's air for the coming days: the hours that are fit for varnish, and where they come from.

use super::studios;
use super::wire::{SpanOut, StudioOut};
use crate::desks::load;
use crate::extract::{Body, Key};
use crate::formats::{MOST_READINGS, RoomDoc, check_room, read_readings, room_doc, words};
use crate::instruments::outside;
use crate::problem::Problem;
use crate::state::{App, commit};
use axum::Json;
use axum::extract::State;
use chrono::{DateTime, NaiveDate, Utc};
use serde::{Deserialize, Serialize};
use ulvek_core::air::{Air, RoomHour};
use ulvek_core::seal::{DAMPEST, DRIEST, WARM, good_hours, varnish_days};
use ulvek_core::studio::{AirSource, RoomAhead};
use utoipa::ToSchema;

/// Days that are looked ahead.
const DAYS: i64 = 10;

/// The room for ten days.
#[derive(Serialize, ToSchema)]
pub struct AirAhead {
    /// The moment it was computed for.
    pub now: DateTime<Utc>,
    /// IANA name of the studio's time zone.
    pub time_zone: String,
    /// Version of the studio's settings.
    pub version: i64,
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

/// The coming ten days of the room, with the hours that are fit for varnish.
#[utoipa::path(get, operation_id = "air", path = "/api/studios/{id}/air", tag = "seal", params(("id" = Uuid, Path)),
    responses((status = 200, body = AirAhead)))]
pub async fn read(State(app): State<App>, Key(id): Key) -> Result<Json<AirAhead>, Problem> {
    let loaded = load(&app, id).await?;
    let stored = &loaded.stored;
    let document = &stored.document;
    let now = app.clock.now();
    let hours = good_hours(document, now, DAYS).into_iter().map(|h| HourOut {
        at: h.at,
        temperature_c: h.air.celsius,
        relative_humidity: h.air.humidity,
        fit: h.faults.is_empty(),
        open: h.open,
    });
    let days = varnish_days(document, now, DAYS).into_iter().map(|d| DayOut {
        day: d.day,
        good: d.good.into_iter().map(|(from, to)| SpanOut { from, to }).collect(),
        open_min: d.open_min,
        fault: d.fault.map(|f| f.to_string()),
        remedies: d
            .remedies
            .iter()
            .map(|r| {
                let actions: Vec<String> = r.actions.iter().map(ToString::to_string).collect();
                actions.join(", then ")
            })
            .collect(),
    });
    Ok(Json(AirAhead {
        now,
        time_zone: document.hours.zone().name().to_owned(),
        version: stored.version,
        source: document.room.source,
        taken_at: document.room.taken_at,
        room: room_doc(&document.room.follows),
        wanted_c: WantedOut { low: *WARM.start(), high: *WARM.end() },
        wanted_rh: WantedOut { low: DRIEST, high: DAMPEST },
        hours: hours.collect(),
        days: days.collect(),
    }))
}

/// Where the readings to come are taken from.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AirEdit {
    /// The version of the studio's settings.
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

/// Takes in the air to come: the room as it is usually kept, the (simulated) forecast through the
/// room, or readings that the painter brings. What is past stays, except where readings are of it.
#[utoipa::path(put, operation_id = "air_save", path = "/api/studios/{id}/air", tag = "seal", params(("id" = Uuid, Path)),
    request_body = AirEdit,
    responses((status = 200, body = StudioOut)))]
pub async fn save(
    State(app): State<App>,
    Key(id): Key,
    Body(edit): Body<AirEdit>,
) -> Result<Json<StudioOut>, Problem> {
    let now = app.clock.now();
    let mut tx = app.begin().await?;
    let mut document = ulvek_store::load_studio(&mut tx, id).await?.document;
    let follows = match &edit.room {
        None => document.room.follows,
        Some(room) => check_room("room", room)?,
    };
    let at = now.timestamp() as f64;
    let usual = *document.air.usual();
    let zone = document.hours.zone();
    let through = |outside: &[RoomHour], from: Air| follows.follow(from, outside);
    let (readings, label) = match (edit.source, &edit.csv) {
        (AirSource::Constant, None) => (Vec::new(), "keep the room as usual"),
        (AirSource::Forecast, None) => {
            let ahead = outside(now.timestamp(), DAYS * 24);
            (through(&ahead, *document.air.at(at)), "take in the forecast")
        }
        (AirSource::Readings, Some(csv)) => {
            let read = read_readings(csv, zone, usual.speed_m_s)?;
            let readings = if edit.outside {
                let hours: Vec<RoomHour> =
                    read.iter().map(|(at, air)| RoomHour { at: *at, outside: *air }).collect();
                let first = hours.first().map_or(at, |h| h.at);
                through(&hours, *document.air.at(first))
            } else {
                read
            };
            (readings, "take in readings")
        }
        (AirSource::Readings, None) => {
            return Err(Problem::refused("csv", "the readings are missing"));
        }
        (_, Some(_)) => {
            return Err(Problem::refused("csv", "readings go with the source \"readings\" only"));
        }
    };
    // The past stays as it was measured, unless readings are of it.
    let readings: Vec<(f64, Air)> = match edit.source {
        AirSource::Forecast => readings.into_iter().filter(|(t, _)| *t + 3600.0 > at).collect(),
        _ => readings,
    };
    document.air = match edit.source {
        // A log says what was: it takes the place of what is known of its own span, no more.
        AirSource::Readings => document.air.replaced_within(readings),
        _ => document.air.replaced_from(at, readings),
    };
    let kept = document.air.readings().len();
    if kept > MOST_READINGS {
        let reason = format!(
            "with it the studio would have {kept} readings; at most {MOST_READINGS} are kept"
        );
        return Err(Problem::refused("csv", reason));
    }
    document.room = RoomAhead { follows, source: edit.source, taken_at: Some(now) };
    ulvek_store::save_settings(&mut tx, id, edit.version, &document, label, now).await?;
    let answer = studios::reread(&mut tx, id).await?;
    commit(tx).await?;
    Ok(answer)
}
