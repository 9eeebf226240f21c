//! The room's air for the coming days: the hours that are fit for varnish, and where they come from.

use super::past::past_of;
use super::wire::{
    AirAhead, AirEdit, AirPast, DayOut, HourOut, PastQuery, TakenBack, TypedReading, WantedOut,
};
use crate::desks::Loaded;
use crate::extract::{Asked, Body};
use crate::formats::{Moment, RoomDoc, read_readings};
use crate::instruments::outside;
use crate::problem::Problem;
use crate::reading::load;
use crate::resolved::InStudio;
use crate::routes::shared::{HistoryOut, OnVersion, SpanOut};
use crate::routes::studio::handlers::reread;
use crate::routes::studio::wire::StudioOut;
use crate::state::App;
use axum::Json;
use axum::extract::State;
use chrono::{DateTime, TimeDelta, Utc};
use std::sync::Arc;
use ulvek_core::air::RoomHour;
use ulvek_core::deeds::{AirAhead as Ahead, take_in_air, type_reading};
use ulvek_core::quantity::{Checked, Fault};
use ulvek_core::readiness::{DAMPEST, DRIEST, WARM};
use ulvek_core::seal::{good_hours, varnish_days};
use ulvek_core::studio::{AirSource, Studio};
use ulvek_core::time::{HOUR_S, seconds};
use ulvek_store::Direction;
use uuid::Uuid;

/// Days that are looked ahead. [practice] as far as a forecast says anything
const DAYS: i64 = 10;

/// The coming ten days of the room, with the hours that are fit for varnish.
#[utoipa::path(get, operation_id = "air", path = "/api/studios/{id}/air", tag = "seal", params(("id" = Uuid, Path)),
    responses((status = 200, body = AirAhead)))]
pub async fn read(
    State(mut app): State<App>,
    InStudio(id): InStudio,
) -> Result<Json<AirAhead>, Problem> {
    let loaded = load(&mut app, id).await?;
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
    State(mut app): State<App>,
    InStudio(id): InStudio,
    Body(edit): Body<AirEdit>,
) -> Result<Json<StudioOut>, Problem> {
    let now = app.clock.now();
    let mut tx = app.begin().await?;
    let studio = ulvek_store::load_studio(&mut tx, id).await?.studio;
    let follows = edit.room.as_ref().map_or(studio.room.follows, RoomDoc::read);
    let heard = ulvek_store::forecast_of(&mut tx, id).await?;
    let ahead = what_comes(&studio, &edit, heard, now)?;
    let label = ahead.label();
    let studio = take_in_air(&studio, follows, ahead, now).map_err(|f| told(&f))?;
    ulvek_store::save_air(&mut tx, id, edit.version, &studio, label, now).await?;
    let answer = reread(&mut tx, id).await?;
    tx.commit().await?;
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

/// What is taken in; of a forecast what an instrument sent last, `heard`, or the simulated one.
fn what_comes(
    studio: &Studio,
    edit: &AirEdit,
    heard: Vec<RoomHour>,
    now: DateTime<Utc>,
) -> Checked<Ahead> {
    let begun = (seconds(now) / HOUR_S).floor() * HOUR_S;
    let comes: Vec<RoomHour> = heard.into_iter().filter(|hour| hour.at >= begun).collect();
    match (edit.source, &edit.csv) {
        (AirSource::Constant, None) => Ok(Ahead::Constant),
        (AirSource::Forecast, None) if !comes.is_empty() => Ok(Ahead::Forecast(comes)),
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

/// Days of readings at most that are taken back at once. [practice]
const MOST_BACK_DAYS: i64 = 31;

/// The room as it was, and where that is known from.
#[utoipa::path(get, operation_id = "air_past", path = "/api/studios/{id}/air/past", tag = "seal",
    params(("id" = Uuid, Path), ("from" = DateTime<Utc>, Query), ("to" = Option<DateTime<Utc>>, Query)),
    responses((status = 200, body = AirPast)))]
pub async fn past(
    State(mut app): State<App>,
    InStudio(id): InStudio,
    Asked(asked): Asked<PastQuery>,
) -> Result<Json<AirPast>, Problem> {
    let now = app.clock.now();
    let span = (asked.from.utc(), asked.to.map_or(now, Moment::utc));
    if span.0 >= span.1 {
        return Err(Problem::refused("to", "it is not after the beginning"));
    }
    Ok(Json(past_of(&mut app, id, span).await?))
}

/// Takes in one reading that the painter took. Where an instrument measured the same hour, that one
/// counts, and the two are compared.
#[utoipa::path(post, operation_id = "air_typed", path = "/api/studios/{id}/air/typed", tag = "seal", params(("id" = Uuid, Path)),
    request_body = TypedReading, responses((status = 200, body = StudioOut)))]
pub async fn typed(
    State(mut app): State<App>,
    InStudio(id): InStudio,
    Body(typed): Body<TypedReading>,
) -> Result<Json<StudioOut>, Problem> {
    let now = app.clock.now();
    let mut tx = app.begin().await?;
    let studio = ulvek_store::load_studio(&mut tx, id).await?.studio;
    let air = (typed.temperature_c, typed.relative_humidity);
    let studio = type_reading(&studio, typed.at.utc(), air, now)?;
    let label = "type a reading";
    ulvek_store::save_air(&mut tx, id, typed.version, &studio, label, now).await?;
    let answer = reread(&mut tx, id).await?;
    tx.commit().await?;
    Ok(answer)
}

/// Takes readings of a stretch back: what was typed or brought is gone (undo brings it back), what an
/// instrument measured counts no longer until it is given back.
#[utoipa::path(post, operation_id = "air_taken_back", path = "/api/studios/{id}/air/taken-back", tag = "seal", params(("id" = Uuid, Path)),
    request_body = TakenBack, responses((status = 200, body = StudioOut)))]
pub async fn taken_back(
    State(mut app): State<App>,
    InStudio(id): InStudio,
    Body(back): Body<TakenBack>,
) -> Result<Json<StudioOut>, Problem> {
    let now = app.clock.now();
    let span = (back.from.utc(), back.to.utc());
    if span.0 >= span.1 || span.1 - span.0 > TimeDelta::days(MOST_BACK_DAYS) {
        let why = format!("it must be after the beginning, by at most {MOST_BACK_DAYS} days");
        return Err(Problem::refused("to", why));
    }
    let mut tx = app.begin().await?;
    let studio = ulvek_store::load_studio(&mut tx, id).await?.studio;
    let by_hand = studio.air.without(seconds(span.0), seconds(span.1));
    let mut changed = false;
    if !back.give && by_hand != studio.air {
        let studio = Studio { air: by_hand, ..Arc::unwrap_or_clone(studio) };
        let label = "take readings back";
        ulvek_store::save_air(&mut tx, id, back.version, &studio, label, now).await?;
        changed = true;
    }
    let moved = ulvek_store::take_back_measured(&mut tx, id, span, !back.give).await?;
    if moved > 0 {
        ulvek_store::make_hours(&mut tx, id, span, now).await?;
        changed = true;
    }
    if !changed {
        let what = if back.give { "none that was taken back" } else { "no reading" };
        return Err(Problem::refused("from", format!("{what} lies between these times")));
    }
    let answer = reread(&mut tx, id).await?;
    tx.commit().await?;
    Ok(answer)
}

async fn undo_or_redo(
    mut app: App,
    id: Uuid,
    on: OnVersion,
    direction: Direction,
) -> Result<Json<StudioOut>, Problem> {
    let mut tx = app.begin().await?;
    ulvek_store::undo_air(&mut tx, id, on.version, direction).await?;
    ulvek_store::load_studio(&mut tx, id).await?.studio.check_air()?;
    let answer = reread(&mut tx, id).await?;
    tx.commit().await?;
    Ok(answer)
}

/// Takes the last change of the air back.
#[utoipa::path(post, operation_id = "air_undo", path = "/api/studios/{id}/air/undo", tag = "seal", params(("id" = Uuid, Path)),
    request_body = OnVersion,
    responses((status = 200, body = StudioOut)))]
pub async fn undo(
    State(app): State<App>,
    InStudio(id): InStudio,
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
    InStudio(id): InStudio,
    Body(on): Body<OnVersion>,
) -> Result<Json<StudioOut>, Problem> {
    undo_or_redo(app, id, on, Direction::Redo).await
}
