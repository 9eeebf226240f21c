//! Taking in what instruments send.

use super::door::Sender;
use super::wire::{RefusedOut, Sent, SentReading, Taken};
use crate::extract::Body;
use crate::formats::Moment;
use crate::live::LiveOut;
use crate::problem::Problem;
use crate::state::App;
use axum::Json;
use axum::extract::State;
use chrono::{DateTime, Utc};
use std::sync::PoisonError;
use ulvek_core::air::{Air, InstrumentKind, Measured, ORDINARY_M_S, RoomHour, untimely};
use ulvek_core::time::{HOUR_S, seconds};
use ulvek_store::Instrument;

/// Readings at most in what is sent at once: two days of minutes. [practice]
const MOST_READINGS: usize = 2880;
/// Hours at most of a forecast: sixteen days. [practice]
const MOST_HOURS: usize = 384;

/// Takes in what an instrument sends, which is known by its token (`Authorization: Bearer`). What
/// cannot be is left out and said; what was sent before changes nothing.
#[utoipa::path(post, operation_id = "instrument_send", path = "/api/instruments/readings", tag = "instruments",
    request_body = Sent, responses((status = 200, body = Taken)))]
pub async fn send(
    State(mut app): State<App>,
    Sender(instrument): Sender,
    Body(sent): Body<Sent>,
) -> Result<Json<Taken>, Problem> {
    match (instrument.kind, sent) {
        (
            InstrumentKind::Hygrometer,
            Sent { readings: Some(readings), grams: None, hours: None },
        ) => measured(&mut app, &instrument, &readings).await,
        (InstrumentKind::Scale, Sent { grams: Some(grams), readings: None, hours: None }) => {
            weighed(&mut app, &instrument, grams).await
        }
        (InstrumentKind::Forecast, Sent { hours: Some(hours), readings: None, grams: None }) => {
            forecast(&mut app, &instrument, &hours).await
        }
        (kind, _) => {
            let (what, only) = match kind {
                InstrumentKind::Hygrometer => ("thermo-hygrometer", "readings"),
                InstrumentKind::Scale => ("scale", "grams"),
                InstrumentKind::Forecast => ("forecast", "hours"),
            };
            Err(Problem::refused(only, format!("a {what} sends \"{only}\" and nothing else")))
        }
    }
}

fn at_most(path: &str, len: usize, most: usize) -> Result<(), Problem> {
    match len {
        0 => Err(Problem::refused(path, "there is nothing in it")),
        len if len > most => {
            Err(Problem::refused(path, format!("at most {most} are taken at once, not {len}")))
        }
        _ => Ok(()),
    }
}

async fn measured(
    app: &mut App,
    instrument: &Instrument,
    sent: &[SentReading],
) -> Result<Json<Taken>, Problem> {
    at_most("readings", sent.len(), MOST_READINGS)?;
    let now = app.clock.now();
    let mut good: Vec<Measured> = Vec::with_capacity(sent.len());
    let mut refused = Vec::new();
    for (n, reading) in sent.iter().enumerate() {
        let refusal =
            |field: &str, why: String| RefusedOut { path: format!("readings[{n}]{field}"), why };
        let at = match reading.at.map(Moment::utc) {
            Ok(at) => at,
            Err(fault) => {
                refused.push(refusal(".at", fault.to_string()));
                continue;
            }
        };
        if let Some(why) = untimely(at, now) {
            refused.push(refusal(".at", why));
        } else {
            match Air::try_new(reading.temperature_c, reading.relative_humidity, ORDINARY_M_S) {
                Ok(air) => good.push(Measured {
                    at: seconds(at),
                    celsius: air.celsius,
                    humidity: air.humidity,
                }),
                Err(e) => refused.push(refusal("", e.to_string())),
            }
        }
    }
    good.sort_by(|a, b| a.at.total_cmp(&b.at));
    // What is refused uses no allowance.
    app.pace.hold(instrument.id, good.len())?;
    let mut tx = app.begin().await?;
    let why = refused.last().map(|r| (r.why.as_str(), now));
    let last = good.last().copied();
    let of = |m: &Measured| ulvek_core::time::exact_instant(m.at);
    let mut taken = 0;
    let mut plan = false;
    if let (Some(first), Some(last)) = (good.first(), good.last()) {
        // All that send for one studio do so one after the other: each would stand in the way of the next.
        ulvek_store::hold_air(&mut tx, instrument.studio).await?;
        taken = ulvek_store::keep_measured(&mut tx, instrument.id, &good).await?;
        if taken > 0 {
            let span = (of(first), of(last));
            plan = ulvek_store::make_hours(&mut tx, instrument.studio, span, now).await?;
        }
    }
    ulvek_store::heard_of(&mut tx, instrument.id, last.as_ref().map(of), why).await?;
    tx.commit().await?;
    if let Some(last) = last.filter(|_| taken > 0) {
        app.live.tell(LiveOut {
            studio: instrument.studio,
            at: of(&last),
            temperature_c: Some(last.celsius),
            relative_humidity: Some(last.humidity),
            plan,
        });
    }
    Ok(Json(Taken { taken, known: good.len() as u64 - taken, refused }))
}

async fn weighed(
    app: &mut App,
    instrument: &Instrument,
    grams: f64,
) -> Result<Json<Taken>, Problem> {
    let now = app.clock.now();
    app.pace.hold(instrument.id, 1)?;
    {
        // A panic elsewhere leaves the scale as it was.
        let mut scales = app.scales.lock().unwrap_or_else(PoisonError::into_inner);
        let scale = scales.entry(instrument.studio).or_default();
        let by = Some(instrument.name.as_str());
        scale.put(grams, by).map_err(|e| Problem::refused("grams", e.to_string()))?;
    }
    let mut tx = app.begin().await?;
    ulvek_store::heard_of(&mut tx, instrument.id, Some(now), None).await?;
    tx.commit().await?;
    Ok(Json(Taken { taken: 1, known: 0, refused: Vec::new() }))
}

async fn forecast(
    app: &mut App,
    instrument: &Instrument,
    sent: &[SentReading],
) -> Result<Json<Taken>, Problem> {
    at_most("hours", sent.len(), MOST_HOURS)?;
    let now = app.clock.now();
    let mut hours: Vec<RoomHour> = Vec::with_capacity(sent.len());
    // A forecast with a hole in it is none: it is taken whole or not at all.
    for (n, hour) in sent.iter().enumerate() {
        let refuse = |why: String| Problem::refused(format!("hours[{n}]"), why);
        let outside = Air::try_new(hour.temperature_c, hour.relative_humidity, ORDINARY_M_S)
            .map_err(|e| refuse(e.to_string()))?;
        let at = seconds(hour.at.map_err(|e| refuse(e.to_string()))?.utc());
        if at.rem_euclid(HOUR_S) != 0.0 {
            return Err(refuse("its time is no full hour".to_owned()));
        }
        if hours.last().is_some_and(|last| at - last.at != HOUR_S) {
            return Err(refuse("it does not follow the hour before it".to_owned()));
        }
        hours.push(RoomHour { at, outside });
    }
    if hours.last().is_none_or(|last| last.at < seconds(now)) {
        return Err(Problem::refused("hours", "all of it is past: a forecast is of what comes"));
    }
    app.pace.hold(instrument.id, hours.len())?;
    let mut tx = app.begin().await?;
    ulvek_store::keep_forecast(&mut tx, instrument.id, &hours).await?;
    ulvek_store::heard_of(&mut tx, instrument.id, Some(now), None).await?;
    tx.commit().await?;
    tell_of_forecast(app, instrument, now);
    Ok(Json(Taken { taken: hours.len() as u64, known: 0, refused: Vec::new() }))
}

fn tell_of_forecast(app: &mut App, instrument: &Instrument, at: DateTime<Utc>) {
    let (temperature_c, relative_humidity) = (None, None);
    let studio = instrument.studio;
    app.live.tell(LiveOut { studio, at, temperature_c, relative_humidity, plan: false });
}
