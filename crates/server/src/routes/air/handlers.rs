//! The room's air for the coming days: the hours that are fit for varnish, and where they come from.

use super::wire::{AirAhead, AirEdit, DayOut, HourOut, WantedOut};
use crate::desks::Loaded;
use crate::extract::{Body, Key};
use crate::formats::{RoomDoc, read_readings};
use crate::instruments::outside;
use crate::problem::Problem;
use crate::reading::load;
use crate::routes::shared::{HistoryOut, OnVersion, SpanOut};
use crate::routes::studio::handlers::reread;
use crate::routes::studio::wire::StudioOut;
use crate::state::{App, commit};
use axum::Json;
use axum::extract::State;
use chrono::{DateTime, Utc};
use ulvek_core::air::RoomHour;
use ulvek_core::deeds::{AirAhead as Ahead, take_in_air};
use ulvek_core::quantity::{Checked, Fault};
use ulvek_core::readiness::{DAMPEST, DRIEST, WARM};
use ulvek_core::seal::{good_hours, varnish_days};
use ulvek_core::studio::{AirSource, Studio};
use ulvek_store::Direction;
use uuid::Uuid;

/// Days that are looked ahead.
const DAYS: i64 = 10;

/// The coming ten days of the room, with the hours that are fit for varnish.
#[utoipa::path(get, operation_id = "air", path = "/api/studios/{id}/air", tag = "seal", params(("id" = Uuid, Path)),
    responses((status = 200, body = AirAhead)))]
pub async fn read(State(app): State<App>, Key(id): Key) -> Result<Json<AirAhead>, Problem> {
    let loaded = load(&app, id).await?;
    Ok(Json(ahead(&loaded, app.clock.now())))
}

fn ahead(loaded: &Loaded, now: DateTime<Utc>) -> AirAhead {
    let studio = &loaded.studio;
    let hours = good_hours(studio, now, DAYS).into_iter().map(|h| HourOut {
        at: h.at,
        temperature_c: h.air.celsius,
        relative_humidity: h.air.humidity,
        fit: h.faults.is_empty(),
        open: h.open,
    });
    let days = varnish_days(studio, now, DAYS).into_iter().map(|d| DayOut {
        day: d.day,
        good: d.good.into_iter().map(SpanOut::new).collect(),
        open_min: d.open_min,
        fault: d.fault.map(|f| f.to_string()),
        remedies: d.remedies.iter().map(ToString::to_string).collect(),
    });
    let air = &loaded.stored.air;
    AirAhead {
        now,
        time_zone: studio.hours.zone().name().to_owned(),
        version: air.version,
        history: HistoryOut::from(air.history.clone()),
        source: studio.room.source,
        taken_at: studio.room.taken_at,
        room: RoomDoc::of(&studio.room.follows),
        wanted_c: WantedOut { low: *WARM.start(), high: *WARM.end() },
        wanted_rh: WantedOut { low: DRIEST, high: DAMPEST },
        hours: hours.collect(),
        days: days.collect(),
    }
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
    let studio = ulvek_store::load_studio(&mut tx, id).await?.studio;
    let follows = edit.room.as_ref().map_or(studio.room.follows, RoomDoc::read);
    let ahead = what_comes(&studio, &edit, now)?;
    let label = ahead.label();
    let studio = take_in_air(&studio, follows, ahead, now).map_err(|f| told(&f))?;
    ulvek_store::save_air(&mut tx, id, edit.version, &studio, label, now).await?;
    let answer = reread(&mut tx, id).await?;
    commit(tx).await?;
    Ok(answer)
}

/// A fault of the air at the field it was sent in.
fn told(fault: &Fault) -> Fault {
    match fault.place.strip_prefix("air.ahead.") {
        Some(room) => Fault::new(room, &fault.why),
        None if fault.place == "air.hourly" => {
            Fault::new("csv", format!("with it the studio {}", fault.why))
        }
        None => Fault::new("csv", &fault.why),
    }
}

fn what_comes(studio: &Studio, edit: &AirEdit, now: DateTime<Utc>) -> Checked<Ahead> {
    match (edit.source, &edit.csv) {
        (AirSource::Constant, None) => Ok(Ahead::Constant),
        (AirSource::Forecast, None) => Ok(Ahead::Forecast(outside(now.timestamp(), DAYS * 24))),
        (AirSource::Readings, Some(csv)) => {
            let speed = studio.air.usual().speed_m_s;
            let read = read_readings(csv, studio.hours.zone(), speed)?;
            if !edit.outside {
                return Ok(Ahead::Readings(read));
            }
            let hours = read.into_iter().map(|(at, outside)| RoomHour { at, outside });
            Ok(Ahead::Outside(hours.collect()))
        }
        (AirSource::Readings, None) => Err(Fault::new("csv", "the readings are missing")),
        (_, Some(_)) => Err(Fault::new("csv", "readings go with the source \"readings\" only")),
    }
}

async fn undo_or_redo(
    app: App,
    id: Uuid,
    on: OnVersion,
    direction: Direction,
) -> Result<Json<StudioOut>, Problem> {
    let mut tx = app.begin().await?;
    ulvek_store::undo_air(&mut tx, id, on.version, direction).await?;
    ulvek_store::load_studio(&mut tx, id).await?.studio.check_air()?;
    let answer = reread(&mut tx, id).await?;
    commit(tx).await?;
    Ok(answer)
}

/// Takes the last change of the air back.
#[utoipa::path(post, operation_id = "air_undo", path = "/api/studios/{id}/air/undo", tag = "seal", params(("id" = Uuid, Path)),
    request_body = OnVersion,
    responses((status = 200, body = StudioOut)))]
pub async fn undo(
    State(app): State<App>,
    Key(id): Key,
    Body(on): Body<OnVersion>,
) -> Result<Json<StudioOut>, Problem> {
    undo_or_redo(app, id, on, Direction::Undo).await
}

/// Makes the change of the air that was taken back again.
#[utoipa::path(post, operation_id = "air_redo", path = "/api/studios/{id}/air/redo", tag = "seal", params(("id" = Uuid, Path)),
    request_body = OnVersion,
    responses((status = 200, body = StudioOut)))]
pub async fn redo(
    State(app): State<App>,
    Key(id): Key,
    Body(on): Body<OnVersion>,
) -> Result<Json<StudioOut>, Problem> {
    undo_or_redo(app, id, on, Direction::Redo).await
}
