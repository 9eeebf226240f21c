//! The simulated instruments, which send as real ones would: through the same address, with a token.

use crate::formats::Moment;
use crate::instruments::{Behaviour, measure, outside};
use crate::pace::new_token;
use crate::problem::Problem;
use crate::routes::instrument::wire::{Sent, SentReading};
use crate::state::App;
use axum::Router;
use axum::body::Body;
use axum::http::{Method, Request, StatusCode, header};
use chrono::{DateTime, DurationRound, TimeDelta, Utc};
use chrono_tz::Tz;
use std::collections::HashMap;
use std::time::Duration;
use tower::ServiceExt;
use ulvek_core::air::InstrumentKind;
use ulvek_core::time::exact_instant;
use ulvek_store::Instrument;
use uuid::Uuid;

/// How often they send [s]. [practice] what small sensors do
const EVERY_S: u64 = 60;
/// What a hygrometer has kept when it sends for the first time [min]. [practice] a day
const KEPT_MIN: i64 = 24 * 60;
/// How often a forecast is sent [h], and how far it goes [h]. [practice] what weather services do
const FORECAST_H: (i64, i64) = (6, 240);

/// Sends for every simulated instrument, each minute and when one was added or behaves otherwise,
/// for as long as the application runs.
pub async fn run(mut app: App, router: Router) {
    // A token is known to nobody but who sends with it: a new one for each start.
    let mut tokens = HashMap::new();
    loop {
        if let Err(problem) = send_all(&mut app, &router, &mut tokens).await {
            tracing::warn!(?problem, "the simulated instruments could not send");
        }
        tokio::select! {
            () = tokio::time::sleep(Duration::from_secs(EVERY_S)) => {}
            () = app.simulated.notified() => {}
        }
    }
}

async fn send_all(
    app: &mut App,
    router: &Router,
    tokens: &mut HashMap<Uuid, String>,
) -> Result<(), Problem> {
    let now = app.clock.now();
    let mut ready = Vec::new();
    let mut tx = app.begin().await?;
    for instrument in ulvek_store::simulated_instruments(&mut tx).await? {
        let token = match tokens.get(&instrument.id) {
            Some(token) => token.clone(),
            None => {
                let (token, hash) = new_token();
                ulvek_store::change_token(&mut tx, instrument.id, hash).await?;
                tokens.insert(instrument.id, token.clone());
                token
            }
        };
        let usual = ulvek_store::usual_air(&mut tx, instrument.studio).await?;
        if let Some(sent) = sends(&instrument, &usual, now) {
            ready.push((instrument, token, sent));
        }
    }
    tx.commit().await?;
    for (instrument, token, sent) in ready {
        let status = post(router, &token, &sent).await;
        if status == StatusCode::UNAUTHORIZED {
            // Another server of the same database sends for it too, with a token of its own.
            tokens.remove(&instrument.id);
        } else if status != StatusCode::OK {
            tracing::warn!(%status, name = instrument.name, "a simulated instrument was refused");
        }
    }
    Ok(())
}

/// What an instrument sends at `now`: all minutes since it was heard last, or a forecast when that is
/// due.
fn sends(
    instrument: &Instrument,
    usual: &ulvek_core::air::Air,
    now: DateTime<Utc>,
) -> Option<Sent> {
    let (how, since) = instrument.simulated.as_ref()?;
    let behaves = Behaviour::from_word(how)?;
    let sent = Sent { readings: None, grams: None, hours: None };
    match instrument.kind {
        InstrumentKind::Hygrometer => {
            let kept = now - TimeDelta::minutes(KEPT_MIN);
            // What it did not send while it was out is lost.
            let from = instrument.heard_at.map_or(kept, |heard| heard.max(*since).max(kept));
            let first = from.duration_trunc(TimeDelta::minutes(1)).ok()?;
            let minutes = (1..=(now - first).num_minutes())
                .map(|m| first + TimeDelta::minutes(m))
                .filter_map(|at| measure(usual, (behaves, *since), at));
            let readings: Vec<SentReading> = minutes
                .map(|m| SentReading {
                    at: Ok(Moment::local(exact_instant(m.at), Tz::UTC)),
                    temperature_c: m.celsius,
                    relative_humidity: m.humidity,
                })
                .collect();
            (!readings.is_empty()).then_some(Sent { readings: Some(readings), ..sent })
        }
        InstrumentKind::Forecast => {
            let due = instrument
                .heard_at
                .is_none_or(|heard| now - heard >= TimeDelta::hours(FORECAST_H.0));
            if !due || behaves == Behaviour::DropsOut {
                return None;
            }
            let hours = outside(now.timestamp(), FORECAST_H.1).into_iter();
            let hours = hours.map(|h| SentReading {
                at: Ok(Moment::local(exact_instant(h.at), Tz::UTC)),
                temperature_c: h.outside.celsius,
                relative_humidity: h.outside.humidity,
            });
            Some(Sent { hours: Some(hours.collect()), ..sent })
        }
        InstrumentKind::Scale => None,
    }
}

async fn post(router: &Router, token: &str, sent: &Sent) -> StatusCode {
    let request = Request::builder()
        .method(Method::POST)
        .uri("/api/instruments/readings")
        .header(header::HOST, "localhost")
        .header(header::CONTENT_TYPE, "application/json")
        .header(header::AUTHORIZATION, format!("Bearer {token}"))
        .body(Body::from(serde_json::to_vec(sent).unwrap_or_default()));
    match request {
        Ok(request) => match router.clone().oneshot(request).await {
            Ok(response) => response.status(),
            Err(never) => match never {},
        },
        Err(_) => StatusCode::BAD_REQUEST,
    }
}
