//! The instruments of a studio, and what is new of them.

pub use super::taken::*;

use super::state::told;
use super::wire::{Behave, InstrumentAdded, InstrumentsOut, NewInstrument};
use crate::extract::Body;
use crate::formats::label;
use crate::instruments::Behaviour;
use crate::live::LiveOut;
use crate::pace::new_token;
use crate::problem::Problem;
use crate::reading::load;
use crate::resolved::{InInstrument, InStudio};
use crate::state::App;
use crate::streams::{Client, placed};
use axum::Json;
use axum::extract::State;
use axum::http::StatusCode;
use axum::response::sse::{Event, KeepAlive, Sse};
use chrono::TimeDelta;
use std::collections::HashMap;
use std::convert::Infallible;
use tokio_stream::wrappers::BroadcastStream;
use tokio_stream::{Stream, StreamExt};
use ulvek_core::air::InstrumentKind;
use ulvek_core::quantity::Fault;
use ulvek_store::Instrument;
use uuid::Uuid;

/// Days that an instrument is judged by. [practice] a day and the one before
const DAYS: i64 = 2;
/// Instruments of one studio at most. [practice]
const MOST: usize = 20;

/// The instruments of a studio: what each said last, and what is wrong with it.
#[utoipa::path(get, operation_id = "instruments", path = "/api/studios/{id}/instruments", tag = "instruments", params(("id" = Uuid, Path)),
    responses((status = 200, body = InstrumentsOut)))]
pub async fn list(
    State(mut app): State<App>,
    InStudio(id): InStudio,
) -> Result<Json<InstrumentsOut>, Problem> {
    let loaded = load(&mut app, id).await?;
    let zone = loaded.studio.hours.zone();
    let now = app.clock.now();
    let from = now - TimeDelta::days(DAYS);
    let mut tx = app.reading().await?;
    let instruments = ulvek_store::instruments_of(&mut tx, id).await?;
    let span = (from, now + TimeDelta::hours(1));
    let mut measured = if instruments.iter().any(|i| i.kind == InstrumentKind::Hygrometer) {
        ulvek_store::measured_between(&mut tx, id, span).await?
    } else {
        HashMap::new()
    };
    let typed = ulvek_store::typed_since(&mut tx, id, from).await?;
    tx.commit().await?;
    let one = |instrument: Instrument| {
        let measured = measured.remove(&instrument.id).unwrap_or_default();
        told(instrument, &measured, &typed, (now, zone))
    };
    let instruments = instruments.into_iter().map(one).collect();
    Ok(Json(InstrumentsOut { now, time_zone: zone.name().to_owned(), instruments }))
}

/// Adds an instrument; its token is said once, in the answer.
#[utoipa::path(post, operation_id = "instrument_add", path = "/api/studios/{id}/instruments", tag = "instruments", params(("id" = Uuid, Path)),
    request_body = NewInstrument, responses((status = 200, body = InstrumentAdded)))]
pub async fn add(
    State(mut app): State<App>,
    InStudio(id): InStudio,
    Body(new): Body<NewInstrument>,
) -> Result<Json<InstrumentAdded>, Problem> {
    let name = label("name", &new.name)?;
    if new.simulated && new.kind == InstrumentKind::Scale {
        return Err(Problem::refused("simulated", "the simulated scale is on every cup already"));
    }
    let now = app.clock.now();
    let (token, hash) = new_token();
    let works = (Behaviour::Works.word().to_owned(), now);
    let instrument = Instrument {
        id: Uuid::now_v7(),
        studio: id,
        kind: new.kind,
        name,
        heard_at: None,
        refused: None,
        simulated: new.simulated.then_some(works),
    };
    let mut tx = app.begin().await?;
    ulvek_store::studio_state(&mut tx, id).await?;
    if ulvek_store::instruments_of(&mut tx, id).await?.len() >= MOST {
        return Err(Fault::new("name", format!("a studio has at most {MOST} instruments")).into());
    }
    ulvek_store::add_instrument(&mut tx, &instrument, hash, now).await?;
    tx.commit().await?;
    app.simulated.notify_one();
    Ok(Json(InstrumentAdded { id: instrument.id, token }))
}

/// Takes an instrument away: its token opens nothing any more, what it sent stays.
#[utoipa::path(delete, operation_id = "instrument_remove", path = "/api/studios/{id}/instruments/{instrument}", tag = "instruments",
    params(("id" = Uuid, Path), ("instrument" = Uuid, Path)), responses((status = 204)))]
pub async fn remove(
    State(mut app): State<App>,
    InInstrument { id: instrument, studio: id }: InInstrument,
) -> Result<StatusCode, Problem> {
    let now = app.clock.now();
    let mut tx = app.begin().await?;
    ulvek_store::remove_instrument(&mut tx, (id, instrument), now).await?;
    tx.commit().await?;
    Ok(StatusCode::NO_CONTENT)
}

/// Lets a simulated instrument behave otherwise, from now on.
#[utoipa::path(put, operation_id = "instrument_behave", path = "/api/studios/{id}/instruments/{instrument}", tag = "instruments",
    params(("id" = Uuid, Path), ("instrument" = Uuid, Path)), request_body = Behave, responses((status = 204)))]
pub async fn behave(
    State(mut app): State<App>,
    InInstrument { id: instrument, studio: id }: InInstrument,
    Body(how): Body<Behave>,
) -> Result<StatusCode, Problem> {
    let now = app.clock.now();
    let (keys, how) = ((id, instrument), how.behaves.word());
    let mut tx = app.begin().await?;
    ulvek_store::let_behave(&mut tx, keys, how, now).await?;
    tx.commit().await?;
    app.simulated.notify_one();
    Ok(StatusCode::NO_CONTENT)
}

/// What is new of the room, as it comes: server-sent events named `air`.
#[utoipa::path(get, operation_id = "air_live", path = "/api/studios/{id}/air/live", tag = "instruments", params(("id" = Uuid, Path)),
    responses((status = 200, content_type = "text/event-stream", body = LiveOut)))]
pub async fn live(
    State(app): State<App>,
    client: Client,
    InStudio(id): InStudio,
) -> Result<Sse<impl Stream<Item = Result<Event, Infallible>>>, Problem> {
    let news = app.live.listen().ok_or_else(Problem::busy)?;
    // Who was too slow for some of it hears the next one: each says how it is now.
    let events = BroadcastStream::new(news).filter_map(move |news| {
        let news = news.ok().filter(|news| news.studio == id)?;
        Event::default().event("air").json_data(&news).ok().map(Ok)
    });
    Ok(Sse::new(placed(app.streams.open(client), events)).keep_alive(KeepAlive::default()))
}
