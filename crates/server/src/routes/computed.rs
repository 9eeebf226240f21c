//! What is computed from a studio: outlook, strata, calendar. Nothing of it is stored.

use super::view::{Of, Scene, key_of, view};
use super::wire::{
    AirOut, AsideOut, CoatOut, FilmOut, FindingOut, Outlook, PictureOutlook, PlannedOut,
    ShortageOut, SpanOut, StatesOut, Strata, WaitOut, instant,
};
use crate::compute::Lane;
use crate::desks::load;
use crate::extract::{Asked, Key};
use crate::formats::{calendar, why};
use crate::problem::Problem;
use crate::state::App;
use axum::extract::State;
use axum::http::{HeaderMap, header};
use axum::response::{IntoResponse, Response};
use chrono::{DateTime, Duration, DurationRound, Utc};
use serde::Deserialize;
use ulvek_core::picture::{Frame, Picture};
use ulvek_core::planner::{CoatOutlook, Plan, PlannedStep, Wait, outlook as follow};
use ulvek_core::rules::Finding;
use ulvek_core::studio::{StudioDocument, Swatch};
use ulvek_store::StoredStudio;
use uuid::Uuid;

/// What the rail shows of the past [days]. [practice]
const RAIL_PAST_DAYS: i64 = 1;
/// What it shows of the future [days]. [practice]
const RAIL_AHEAD_DAYS: i64 = 8;
/// Moments of the film that strata keep, spread over the coats. [practice]
const STRATA_FRAMES: usize = 600;
/// How far from now hours are shown as a background [days]: nothing is followed farther, formats.md.
pub(super) const HOURS_SHOWN_DAYS: i64 = 400;
/// How long strata go on after the last coat [days]. [practice]
const STRATA_AFTER_DAYS: i64 = 4;

/// A studio as it stands now: what dries, what may be touched, what to do next.
#[utoipa::path(get, path = "/api/studios/{id}/outlook", tag = "computed", params(("id" = Uuid, Path)),
    responses((status = 200, body = Outlook), (status = 304, description = "nothing changed")))]
pub async fn outlook(
    State(app): State<App>,
    Key(id): Key,
    headers: HeaderMap,
) -> Result<Response, Problem> {
    view(&app, Of::Studio(id), &headers, "outlook".into(), |scene| Ok(make_outlook(scene))).await
}

fn make_outlook(scene: &Scene) -> Outlook {
    let (stored, now) = (&scene.loaded.stored, scene.now);
    let document = &stored.document;
    let from = now - Duration::days(RAIL_PAST_DAYS);
    let to = now + Duration::days(RAIL_AHEAD_DAYS);
    scene.app.desks.at(&scene.loaded, |desk| {
        let made = desk.plan(now);
        let findings = desk.findings(now);
        let pictures = (0..document.pictures.len()).map(|p| {
            let coats = desk.outlook(p, now);
            picture_outlook(stored, p, &made, &findings, &coats)
        });
        Outlook {
            now,
            time_zone: document.hours.zone().name().to_owned(),
            sessions: sessions(document, from, to),
            air: hourly(document, from, to),
            pictures: pictures.collect(),
            shortages: shortages(stored, &made),
        }
    })
}

/// What planned work runs short of, with the sitting at which it does.
fn shortages(stored: &StoredStudio, made: &Plan) -> Vec<ShortageOut> {
    let document = &stored.document;
    let starts = |s: &PlannedStep| s.sittings.first().map(|x| x.from);
    let mut work: Vec<_> =
        made.steps.iter().filter_map(|s| Some((starts(s)?, (s.picture, s.step)))).collect();
    work.sort_unstable();
    let order: Vec<_> = work.iter().map(|(_, at)| *at).collect();
    document
        .shortages(&order)
        .into_iter()
        .map(|s| {
            let (p, i) = s.at;
            ShortageOut {
                of: s.of,
                name: s.name,
                tub: s.tub,
                left_ml: s.left_ml,
                needs_ml: s.needs_ml,
                picture: stored.pictures[p].id,
                picture_title: document.pictures[p].title.clone(),
                title: document.pictures[p].steps[i].title().to_owned(),
                at: work.iter().find(|(_, at)| *at == s.at).map(|(from, _)| *from),
            }
        })
        .collect()
}

fn seconds(at: DateTime<Utc>) -> f64 {
    at.timestamp_micros() as f64 / 1e6
}

pub(super) fn sessions(
    document: &StudioDocument,
    from: DateTime<Utc>,
    to: DateTime<Utc>,
) -> Vec<SpanOut> {
    let found = document.hours.sessions(from, to);
    found.into_iter().map(|s| SpanOut { from: s.from, to: s.to }).collect()
}

/// The room at every full hour.
fn hourly(document: &StudioDocument, from: DateTime<Utc>, to: DateTime<Utc>) -> Vec<AirOut> {
    let mut at = from.duration_trunc(Duration::hours(1)).unwrap_or(from);
    let mut found = Vec::new();
    while at <= to {
        let air = document.air.at(seconds(at));
        found.push(AirOut { at, temperature_c: air.celsius, relative_humidity: air.humidity });
        at += Duration::hours(1);
    }
    found
}

fn picture_outlook(
    stored: &StoredStudio,
    p: usize,
    made: &Plan,
    findings: &[Finding],
    coats: &[CoatOutlook],
) -> PictureOutlook {
    let document = &stored.document;
    let picture = &document.pictures[p];
    let outcome = &made.pictures[p];
    PictureOutlook {
        id: stored.pictures[p].id,
        version: stored.pictures[p].version,
        title: picture.title.clone(),
        width_cm: picture.width_cm,
        height_cm: picture.height_cm,
        due: picture.due,
        finish: outcome.finish,
        days_late: outcome.days_late,
        steps: picture.steps.len(),
        done: picture.steps.iter().filter(|s| s.laid_at.is_some()).count(),
        coats: coats.iter().map(|coat| coat_out(document, p, coat)).collect(),
        plan: made
            .steps
            .iter()
            .filter(|s| s.picture == p)
            .map(|s| planned_out(document, s))
            .collect(),
        findings: findings
            .iter()
            .filter(|f| f.picture == p)
            .map(|f| FindingOut {
                rule: f.rule.into(),
                severity: f.severity,
                step: picture.steps[f.step].id.clone(),
                title: picture.steps[f.step].title().into(),
                what: f.what.clone(),
                remedy: f.remedy.into(),
                provenance: f.provenance.into(),
                set_aside: f
                    .set_aside
                    .as_ref()
                    .map(|a| AsideOut { reason: a.reason.clone(), at: a.at }),
            })
            .collect(),
    }
}

fn coat_out(document: &StudioDocument, p: usize, coat: &CoatOutlook) -> CoatOut {
    let step = &document.pictures[p].steps[coat.history.coat.step];
    let swatch = coat.material.and_then(|i| document.materials[i].swatch);
    CoatOut {
        step: step.id.clone(),
        title: step.title().to_owned(),
        seals: step.kind.seals(),
        planned: coat.planned,
        laid_at: instant(coat.history.coat.at),
        wet_um: coat.history.coat.wet_m * 1e6,
        swatch: swatch.map(Swatch::to_hex),
        states: StatesOut::from(&coat.history.events),
        if_left: StatesOut::from(&coat.history.if_left),
        followed: coat.history.followed,
        seal_from: coat.seal_from.map(instant),
    }
}

/// Why a step of `picture` waits.
pub(super) fn wait_out(wait: &Wait, picture: &Picture) -> WaitOut {
    WaitOut {
        state: wait.state,
        of: picture.steps[wait.of].title().to_owned(),
        until: wait.until,
        lag_min: wait.lag_min,
        because: why(wait, picture.steps[wait.of].title()),
        film_ready: wait.film_ready,
    }
}

fn planned_out(document: &StudioDocument, planned: &PlannedStep) -> PlannedOut {
    let picture = &document.pictures[planned.picture];
    let step = &picture.steps[planned.step];
    PlannedOut {
        step: step.id.clone(),
        title: step.title().to_owned(),
        sittings: planned.sittings.iter().map(|s| SpanOut { from: s.from, to: s.to }).collect(),
        waits_for: planned.wait.as_ref().map(|wait| wait_out(wait, picture)),
        blocked: planned.blocked.as_ref().map(ToString::to_string),
        cup_g: step.cup_g,
    }
}

/// The film of one picture over time, laid and planned, placed among the studio's other pictures.
#[utoipa::path(get, path = "/api/pictures/{id}/strata", tag = "computed", params(("id" = Uuid, Path)),
    responses((status = 200, body = Strata), (status = 304, description = "nothing changed")))]
pub async fn strata(
    State(app): State<App>,
    Key(id): Key,
    headers: HeaderMap,
) -> Result<Response, Problem> {
    let question = format!("strata {id}");
    view(&app, Of::Picture(id), &headers, question, move |scene| {
        scene.loaded.place_of(id).map(|p| make_strata(scene, p))
    })
    .await
}

fn make_strata(scene: &Scene, p: usize) -> Strata {
    let (stored, now) = (&scene.loaded.stored, scene.now);
    let document = &stored.document;
    let (made, findings) =
        scene.app.desks.at(&scene.loaded, |desk| (desk.plan(now), desk.findings(now)));
    let planned_end = made
        .steps
        .iter()
        .filter(|s| s.picture == p)
        .filter_map(|s| s.sittings.last().map(|x| x.to))
        .max();
    let laid_end = document.pictures[p].steps.iter().filter_map(|s| s.laid_at).max();
    let last = planned_end.max(laid_end).unwrap_or(now).max(now);
    let until = last + Duration::days(STRATA_AFTER_DAYS);
    let (coats, frames) = follow(document, p, &made, (seconds(until), STRATA_FRAMES));
    let first = coats.first().map_or(now, |c| instant(c.history.coat.at));
    let from = (first.min(now) - Duration::days(1)).max(now - Duration::days(HOURS_SHOWN_DAYS));
    let to = until.min(now + Duration::days(HOURS_SHOWN_DAYS));
    Strata {
        now,
        outlook: picture_outlook(stored, p, &made, &findings, &coats),
        absorbs_um: document.pictures[p].absorbs_um,
        sessions: sessions(document, from, to),
        films: films(&coats, &frames),
        frames: frames.iter().map(|f| instant(f.at)).collect(),
    }
}

fn films(coats: &[CoatOutlook], frames: &[Frame]) -> Vec<FilmOut> {
    (0..coats.len())
        .map(|n| {
            let from = frames.iter().position(|f| f.coats.len() > n).unwrap_or(frames.len());
            let views = || frames[from..].iter().map(|f| &f.coats[n]);
            FilmOut {
                from,
                um: views().map(|v| (v.thickness_m * 1e8).round() as f32 / 100.0).collect(),
                state: views().map(|v| v.state).collect(),
            }
        })
        .collect()
}

/// Which pictures a calendar holds.
#[derive(Deserialize)]
pub struct CalendarAsked {
    picture: Option<Uuid>,
}

/// The plan as iCalendar (RFC 5545): one event per sitting, alarms for "paintable" and "ready to
/// seal". Subscribe to this address, or download it.
#[utoipa::path(get, path = "/api/studios/{id}/plan.ics", tag = "computed",
    params(("id" = Uuid, Path), ("picture" = Option<Uuid>, Query)),
    responses((status = 200, content_type = "text/calendar", body = String)))]
pub async fn plan_calendar(
    State(app): State<App>,
    Key(id): Key,
    Asked(asked): Asked<CalendarAsked>,
) -> Result<impl IntoResponse, Problem> {
    let question = format!("calendar {:?}", asked.picture);
    let loaded = load(&app, id).await?;
    let now = app.clock.now();
    let key = key_of(&loaded, now, question);
    let scene = Scene { app: app.clone(), loaded, now };
    let text = app.computer.ask(key, Lane::View, move || {
        let stored = &scene.loaded.stored;
        let made = scene.app.desks.at(&scene.loaded, |desk| desk.plan(now));
        let mut made = made.as_ref().clone();
        if let Some(only) = asked.picture {
            made.steps.retain(|s| stored.pictures[s.picture].id == only);
        }
        let text = calendar(stored.id, &stored.document, &made, now);
        (u32::try_from(text.len()).unwrap_or(u32::MAX), text)
    });
    let text = text.await?.as_ref().clone();
    let headers = [
        (header::CONTENT_TYPE, "text/calendar; charset=utf-8"),
        (header::CONTENT_DISPOSITION, "inline; filename=\"ulvek.ics\""),
        (header::CACHE_CONTROL, "no-cache"),
    ];
    Ok((headers, text))
}
