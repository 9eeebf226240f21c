//! Searching for a better order of work, in the background, with its progress told as it comes.

use super::wire::{ObjectiveOut, SearchAsk, SearchOut};
use crate::extract::Body;
use crate::formats::OrderEntryDoc;
use crate::problem::Problem;
use crate::reading::load;
use crate::resolved::InStudio;
use crate::searches::Reporter;
use crate::state::App;
use crate::streams::{Client, placed};
use axum::Json;
use axum::extract::State;
use axum::http::{HeaderName, StatusCode, header};
use axum::response::sse::{Event, KeepAlive, Sse};
use chrono::{DateTime, Utc};
use std::convert::Infallible;
use std::sync::{Mutex, PoisonError};
use std::time::{Duration, Instant};
use tokio_stream::wrappers::WatchStream;
use tokio_stream::{Stream, StreamExt};
use ulvek_core::planner::{Planner, Request, SEED, SearchProgress, threads};
use ulvek_core::studio::Studio;

/// Longest search [s]. [practice]
const MOST_SECONDS: f64 = 600.0;
/// How often progress is told [s]. [practice]
const TOLD_EVERY_S: f64 = 0.25;
/// Most seeds it looks from at once: each keeps films of its own in memory. [practice]
const MOST_SEEDS: usize = 4;

/// Begins to look for a better order of work.
#[utoipa::path(post, operation_id = "search_begin", path = "/api/studios/{id}/season/search", tag = "season", params(("id" = Uuid, Path)),
    request_body = SearchAsk,
    responses((status = 202, body = SearchOut)))]
pub async fn begin(
    State(mut app): State<App>,
    InStudio(id): InStudio,
    Body(ask): Body<SearchAsk>,
) -> Result<(StatusCode, [(HeaderName, String); 1], Json<SearchOut>), Problem> {
    if !(ask.seconds > 0.0 && ask.seconds <= MOST_SECONDS) {
        let reason = format!("must be above 0 and at most {MOST_SECONDS}, not {}", ask.seconds);
        return Err(Problem::refused("seconds", reason));
    }
    let loaded = load(&mut app, id).await?;
    let now = app.clock.now();
    let begun = Instant::now();
    let place = app.searches.place(id)?;
    let studio = loaded.studio.clone();
    let version = loaded.stored.version;
    let first = app
        .aside(move || {
            let mut planner = Planner::new(Request { studio: &studio, from: now });
            out(&mut planner, (now, ask.seconds, version), begun, None)
        })
        .await?;
    let reporter = place.begin(first.clone());
    let start = first.clone();
    let studio = loaded.studio.clone();
    tokio::task::spawn_blocking(move || run(&studio, &start, begun, &reporter));
    let location = [(header::LOCATION, format!("/api/studios/{id}/season/search"))];
    Ok((StatusCode::ACCEPTED, location, Json(first)))
}

fn run(studio: &Studio, start: &SearchOut, begun: Instant, reporter: &Reporter) {
    let limit = Duration::from_secs_f64(start.seconds);
    let told = Mutex::new(Instant::now());
    // A core is left to those who wait for an answer.
    let cores = threads().saturating_sub(1).clamp(1, MOST_SEEDS) as u64;
    let seeds: Vec<u64> = (0..cores).map(|n| SEED + n).collect();
    let mut planner = None;
    // Stopped, it leaves a film half-way and keeps the best plan that it had.
    let ended = reporter.cancel.unless_cancelled(|| {
        let planner = planner.insert(Planner::new(Request { studio, from: start.began }));
        planner.improve_beside(&seeds, u64::MAX / 2, |progress| {
            let mut told = told.lock().unwrap_or_else(PoisonError::into_inner);
            if told.elapsed().as_secs_f64() >= TOLD_EVERY_S {
                *told = Instant::now();
                reporter.state.send_modify(|s| tell(s, progress, begun));
            }
            begun.elapsed() < limit
        });
    });
    let Some(mut planner) = planner else { return };
    if ended.is_some() {
        let given = (start.began, start.seconds, start.version);
        let end = out(&mut planner, given, begun, Some(start));
        reporter.state.send_replace(end);
        return;
    }
    let best = planner.plan().objective;
    let order = planner.order().iter().map(OrderEntryDoc::of).collect();
    reporter.state.send_modify(|s| {
        s.running = false;
        s.took_s = begun.elapsed().as_secs_f64();
        s.best = best.into();
        s.better = s.best != s.start;
        s.order = order;
    });
}

fn tell(state: &mut SearchOut, progress: &SearchProgress, begun: Instant) {
    state.took_s = begun.elapsed().as_secs_f64();
    state.tried = progress.tried;
    state.best = progress.best.into();
    state.better = state.best != state.start;
    state.bound = progress.bound.into();
}

/// The search as it is; ended when `start` is given.
fn out(
    planner: &mut Planner<'_>,
    (began, seconds, version): (DateTime<Utc>, f64, i64),
    begun: Instant,
    start: Option<&SearchOut>,
) -> SearchOut {
    let progress = planner.progress();
    let best = ObjectiveOut::from(progress.best);
    let began_with = start.map_or(best, |s| s.start);
    SearchOut {
        running: start.is_none(),
        began,
        seconds,
        took_s: begun.elapsed().as_secs_f64(),
        tried: progress.tried,
        start: began_with,
        best,
        // A plan takes the place of the best only when it is better.
        better: best != began_with,
        bound: progress.bound.into(),
        at_bound: planner.is_at_bound(),
        version,
        order: start
            .map(|_| planner.order().iter().map(OrderEntryDoc::of).collect())
            .unwrap_or_default(),
    }
}

/// The search of a studio, running or ended.
#[utoipa::path(get, operation_id = "search_read", path = "/api/studios/{id}/season/search", tag = "season", params(("id" = Uuid, Path)),
    responses((status = 200, body = Option<SearchOut>)))]
pub async fn read(State(app): State<App>, InStudio(id): InStudio) -> Json<Option<SearchOut>> {
    Json(app.searches.of(id).map(|state| state.borrow().clone()))
}

/// Stops the search of a studio, which keeps its best plan; one that has ended is forgotten.
#[utoipa::path(delete, operation_id = "search_stop", path = "/api/studios/{id}/season/search", tag = "season", params(("id" = Uuid, Path)),
    responses((status = 204)))]
pub async fn stop(State(app): State<App>, InStudio(id): InStudio) -> StatusCode {
    app.searches.stop(id);
    StatusCode::NO_CONTENT
}

/// The search of a studio as it goes on: server-sent events named `search`, each a search.
#[utoipa::path(get, operation_id = "search_events", path = "/api/studios/{id}/season/search/events", tag = "season", params(("id" = Uuid, Path)),
    responses((status = 200, content_type = "text/event-stream", body = SearchOut)))]
pub async fn events(
    State(app): State<App>,
    client: Client,
    InStudio(id): InStudio,
) -> Result<Sse<impl Stream<Item = Result<Event, Infallible>>>, Problem> {
    let state = app.searches.of(id).ok_or_else(|| Problem::not_found("search"))?;
    let mut ended = false;
    // The stream ends with the search: the browser then has its last state.
    let told = WatchStream::new(state).take_while(move |state| {
        let go_on = !ended;
        ended = !state.running;
        go_on
    });
    let events = told
        .map(|state| Ok(Event::default().event("search").json_data(&state).unwrap_or_default()));
    Ok(Sse::new(placed(app.streams.open(client), events)).keep_alive(KeepAlive::default()))
}
