//! The season: all pictures to their dates, what-ifs, odds, ways to make a date. What is tried is
//! computed and not stored; what is accepted is stored in one transaction.

use super::wire::{
    Accept, BlockedOut, CauseOut, DateWayOut, Draft, DraftPicture, DraftRoom, DraftStudio,
    FilmPoint, Going, HeldOut, Kept, KeptPicture, LaidOut, Odds, PictureOddsOut, Season,
    SeasonPicture, WaysAsk, WorkOut,
};
use crate::compute::{Answer, Key, Lane, Progress};
use crate::extract::Body;
use crate::formats::{OrderEntryDoc, PictureDoc, StudioDoc, label};
use crate::problem::Problem;
use crate::reading::load;
use crate::resolved::{InPicture, InStudio};
use crate::routes::outlook::handlers::{hours_shown, sessions};
use crate::routes::shared::SpanOut;
use crate::routes::view::{Scene, answer, asked, json, view, written};
use crate::state::App;
use axum::Json;
use axum::extract::State;
use axum::http::{HeaderMap, StatusCode};
use axum::response::{IntoResponse, Response};
use chrono::{DateTime, Duration, Utc};
use serde::Serialize;
use sqlx::MySqlConnection;
use std::sync::Arc;
use ulvek_core::deeds::{self, drafted, keep_draft};
use ulvek_core::picture::Picture;
use ulvek_core::planner::{
    Aim, DateWay, Desk, FilmMoment, PictureOdds, Plan, PlannedStep, Request, SEED, a_day_apart,
    cause, futures_for, holds, in_ten, odds as sample, promise,
};
use ulvek_core::quantity::{Checked, Fault};
use ulvek_core::studio::Studio;
use ulvek_core::time::{instant, seconds};
use ulvek_store::{Direction, StoreError, StoredPicture, StoredStudio};
use uuid::Uuid;

/// What the season shows of the past [days]. [practice]
const PAST_DAYS: i64 = 14;
/// What it shows after the last date or finish [days]. [practice]
const AFTER_DAYS: i64 = 10;
/// Moments of a picture's film. [practice]
const RIBBON_FRAMES: usize = 160;

/// The season as it is planned.
#[utoipa::path(get, operation_id = "season", path = "/api/studios/{id}/season", tag = "season", params(("id" = Uuid, Path)),
    responses((status = 200, body = Season), (status = 304, description = "nothing changed")))]
pub async fn season(
    State(mut app): State<App>,
    InStudio(id): InStudio,
    headers: HeaderMap,
) -> Result<Response, Problem> {
    view(&mut app, id, &headers, "season".into(), |scene| {
        let stored = &scene.loaded.stored;
        scene.app.desks.at(&scene.loaded, |desk| make_season(stored, desk, scene.now))
    })
    .await
}

/// The season as it would be with the changes of a draft. Nothing is stored.
#[utoipa::path(post, operation_id = "season_what_if", path = "/api/studios/{id}/season/what-if", tag = "season", params(("id" = Uuid, Path)),
    request_body = Draft, responses((status = 200, body = Season)))]
pub async fn what_if(
    State(mut app): State<App>,
    InStudio(id): InStudio,
    Body(draft): Body<Draft>,
) -> Result<Response, Problem> {
    let question = asked("what-if", &draft)?;
    answer(&mut app, (id, Lane::View), question, move |scene| {
        let stored = &scene.loaded.stored;
        let mut desk = drafted_desk(scene, &draft)?;
        make_season(stored, &mut desk, scene.now)
    })
    .await
}

/// A desk of its own for the studio with the changes of a draft: what did not change is known.
fn drafted_desk(scene: &Scene, draft: &Draft) -> Result<Desk, Problem> {
    let studio = drafted(&scene.loaded.studio, &read(&scene.loaded.stored, draft)?, scene.now)?;
    let mut desk = scene.app.desks.at(&scene.loaded, |desk| desk.clone());
    desk.turn_to(Arc::new(studio));
    Ok(desk)
}

/// The changes of `draft`, by the places of pictures in the studio.
fn read(stored: &StoredStudio, draft: &Draft) -> Checked<deeds::Draft> {
    let air = || stored.studio.air.clone();
    let settings = draft.studio.as_ref().map(|s| s.studio.read(air())).transpose();
    let mut pictures = Vec::with_capacity(draft.pictures.len());
    for (n, change) in draft.pictures.iter().enumerate() {
        let p = stored.pictures.iter().position(|s| s.id == change.id).ok_or_else(|| {
            Fault::new(format!("draft.pictures[{n}].id"), "the studio has no such picture")
        })?;
        pictures.push((p, change.picture.read()));
    }
    Ok(deeds::Draft {
        settings: settings.map_err(|f| f.within("draft.studio"))?,
        room: draft.room.as_ref().map(DraftRoom::read),
        pictures,
    })
}

fn make_season(
    stored: &StoredStudio,
    desk: &mut Desk,
    now: DateTime<Utc>,
) -> Result<Season, Problem> {
    let studio = desk.studio();
    let plan = desk.plan(now);
    let ready = desk.ready(now)?;
    let ends = ready.iter().filter_map(|r| r.at);
    // A date far away is not drawn out to.
    let farthest = now + hours_shown();
    let dues = studio.pictures.iter().filter_map(|p| p.due.map(|d| studio.hours.end_of(d)));
    let until = ends.chain(dues.map(|due| due.min(farthest))).max().unwrap_or(now).max(now)
        + Duration::days(AFTER_DAYS);
    let mut pictures = Vec::with_capacity(studio.pictures.len());
    for p in 0..studio.pictures.len() {
        pictures.push(season_picture(stored, desk, (p, &plan), (now, until))?);
    }
    Ok(Season {
        now,
        time_zone: studio.hours.zone().name().to_owned(),
        version: stored.version,
        until,
        sessions: sessions(&studio, now - Duration::days(PAST_DAYS), until),
        objective: plan.objective.into(),
        order: desk.order(now).iter().map(OrderEntryDoc::of).collect(),
        pictures,
    })
}

fn season_picture(
    stored: &StoredStudio,
    desk: &mut Desk,
    (p, plan): (usize, &Plan),
    (now, until): (DateTime<Utc>, DateTime<Utc>),
) -> Result<SeasonPicture, Problem> {
    let shared = desk.studio();
    let studio = shared.as_ref();
    let picture = &studio.pictures[p];
    let ready = desk.ready(now)?[p];
    let mine = || plan.steps.iter().filter(|s| s.picture == p);
    let film = desk.film_line(p, now, (seconds(until), RIBBON_FRAMES))?;
    let last_hours = picture.due.and_then(|due| studio.hours.last_before_day_off(due));
    Ok(SeasonPicture {
        id: stored.pictures[p].id,
        version: stored.pictures[p].version,
        code: picture.id.clone(),
        title: picture.title.clone(),
        weight: picture.weight,
        due: picture.due,
        last_hours: last_hours.map(|s| SpanOut::new((s.from, s.to))),
        finish: ready.at,
        days_late: ready.days_late,
        date: promise(studio, p, &ready, None, now).into(),
        ready_by: picture.ready_by,
        earliest: desk.earliest(now)[p],
        done: !picture.steps.is_empty() && picture.steps.iter().all(|s| s.laid_at.is_some()),
        laid: laid(picture),
        work: mine().flat_map(|planned| WorkOut::all(planned, studio)).collect(),
        blocked: mine().filter_map(|planned| blocked(planned, picture)).collect(),
        film: film.iter().map(film_point).collect(),
        held_by: holds(studio, plan, p, now)
            .iter()
            .map(|link| HeldOut::of(link, studio, picture))
            .collect(),
    })
}

fn laid(picture: &Picture) -> Vec<LaidOut> {
    let mut laid: Vec<LaidOut> = picture
        .steps
        .iter()
        .filter_map(|s| {
            let (step, title) = (s.id.clone(), s.called());
            Some(LaidOut { step, title, at: s.laid_at? })
        })
        .collect();
    laid.sort_by_key(|l| l.at);
    laid
}

fn blocked(planned: &PlannedStep, picture: &Picture) -> Option<BlockedOut> {
    let step = &picture.steps[planned.step];
    let why = planned.blocked.as_ref()?.to_string();
    Some(BlockedOut { step: step.id.clone(), title: step.called(), why })
}

fn film_point(moment: &FilmMoment) -> FilmPoint {
    FilmPoint {
        at: instant(moment.at),
        // Tenths of a micrometre.
        um: (moment.thickness_m * 1e7).round() as f32 / 10.0,
        state: moment.state,
    }
}

/// How long odds and ways hold, at least [min]; at most twice as long. [practice] an hour changes
/// little
const LONG_HOLDS_MIN: i64 = 10;
/// What a picture would be ready soonest without: each thing that can hold it is taken away in turn.
#[utoipa::path(get, operation_id = "picture_cause", path = "/api/pictures/{id}/cause", tag = "season", params(("id" = Uuid, Path)),
    responses((status = 200, body = CauseOut), (status = 304, description = "nothing changed")))]
pub async fn picture_cause(
    State(mut app): State<App>,
    InPicture { id, studio }: InPicture,
    headers: HeaderMap,
) -> Result<Response, Problem> {
    view(&mut app, studio, &headers, format!("cause {id}"), move |scene| {
        let p = scene.loaded.place_of(id)?;
        let plan = scene.app.desks.at(&scene.loaded, |desk| desk.plan(scene.now));
        let found = cause(&scene.loaded.studio, &plan, p, scene.now);
        Ok(CauseOut { said: found.map(|cause| cause.said()) })
    })
    .await
}

/// How long odds and ways are waited for before it is said how far they are [s]. [practice]
const PATIENCE_S: u64 = 2;

/// Odds of the dates with the changes of a draft (or none), in 120 sampled futures, of a large studio in fewer.
/// While they are sampled it says how far it is (202): ask again. Nobody asks any more: it is given
/// up.
#[utoipa::path(post, operation_id = "season_odds", path = "/api/studios/{id}/season/odds", tag = "season", params(("id" = Uuid, Path)),
    request_body = Draft, responses((status = 200, body = Odds), (status = 202, body = Going)))]
pub async fn odds(
    State(mut app): State<App>,
    InStudio(id): InStudio,
    Body(draft): Body<Draft>,
) -> Result<Response, Problem> {
    let question = asked("odds", &draft)?;
    long_answer(&mut app, id, question, move |scene, progress| {
        let stored = &scene.loaded.stored;
        let mut desk = drafted_desk(scene, &draft)?;
        let studio = desk.studio();
        let turns = desk.order(scene.now);
        let plan = desk.plan(scene.now);
        let threads = ulvek_core::planner::threads();
        let request = Request { studio: &studio, from: scene.now };
        let futures = futures_for(plan.steps.len());
        let told = |_| progress.one_more(futures as u64);
        let sampled =
            sample(request, (&turns, &plan.held), SEED, (futures, threads), Aim::Ready, told);
        let ready = desk.ready(scene.now)?;
        let out = |o: PictureOdds| {
            let due = studio.pictures[o.picture].due;
            let share = due.map(|due| o.told_by(due));
            let (p, now) = (o.picture, scene.now);
            PictureOddsOut {
                id: stored.pictures[p].id,
                date: promise(&studio, p, &ready[p], Some(&o), now).into(),
                on_day: share,
                told: share.map(in_ten),
                beside: due.and_then(|due| a_day_apart(&o, due)),
                day_10: o.day_of(0.1),
                day_50: o.day_of(0.5),
                day_90: o.sure_day(),
            }
        };
        Ok(Odds { futures, pictures: sampled.into_iter().map(out).collect() })
    })
    .await
}

async fn long_answer<T: Serialize>(
    app: &mut App,
    studio: Uuid,
    question: String,
    make: impl FnOnce(&Scene, &Progress) -> Result<T, Problem> + Send + 'static,
) -> Result<Response, Problem> {
    let loaded = load(app, studio).await?;
    let now = app.clock.now();
    // What takes longer than a minute must not begin anew with every minute.
    let turn = now.timestamp().div_euclid(60).div_euclid(LONG_HOLDS_MIN);
    let of = |turn: i64| Key::named(loaded.stored.id, &loaded.state, turn, &question);
    let before = of(turn - 1);
    let key = if app.computing().knows(&before.key) { before } else { of(turn) };
    let scene = Scene { app: app.clone(), loaded, now };
    let patience = std::time::Duration::from_secs(PATIENCE_S);
    let made =
        app.computing().ask_within(patience, key, move |progress| written(make(&scene, progress)));
    match made.await? {
        Answer::Ready(bytes) => Ok(json(bytes.as_ref().clone()?)),
        Answer::Going(progress) => {
            let (done, of) = progress.of();
            Ok((StatusCode::ACCEPTED, Json(Going { done, of })).into_response())
        }
    }
}

/// Ways to make the date of one picture, each planned anew, the least harmful that meet it first.
/// While they are planned it says how far it is (202): ask again. Nobody asks any more: it is given
/// up.
#[utoipa::path(post, operation_id = "season_ways", path = "/api/studios/{id}/season/ways", tag = "season", params(("id" = Uuid, Path)),
    request_body = WaysAsk, responses((status = 200, body = [DateWayOut]), (status = 202, body = Going)))]
pub async fn ways_to(
    State(mut app): State<App>,
    InStudio(id): InStudio,
    Body(ask): Body<WaysAsk>,
) -> Result<Response, Problem> {
    long_answer(&mut app, id, format!("ways {}", ask.picture), move |scene, progress| {
        let stored = &scene.loaded.stored;
        let p = stored
            .pictures
            .iter()
            .position(|s| s.id == ask.picture)
            .ok_or_else(|| Problem::refused("picture", "the studio has no such picture"))?;
        let mut desk = scene.app.desks.at(&scene.loaded, |desk| desk.clone());
        let told = |done, of| progress.tell(done as u64, of as u64);
        let found = desk.ways(p, scene.now, told).into_iter().map(|way| DateWayOut {
            what: way.what.clone(),
            risk: way.risk.clone(),
            harm: way.harm,
            gain_min: Some(way.gain_min).filter(|m| m.is_finite()),
            finish: Some(way.ready),
            days_late: way.days_late,
            date: way.date.clone().into(),
            others_later: way.others_later,
            draft: draft_of(stored, &way),
        });
        Ok(found.collect::<Vec<_>>())
    })
    .await
}

/// What is different on a way, as a draft.
fn draft_of(stored: &StoredStudio, way: &DateWay) -> Draft {
    let (was, other) = (&stored.studio, &way.studio);
    let same = was.schools == other.schools && was.hours == other.hours && was.order == other.order;
    let settings =
        (!same).then(|| DraftStudio { version: stored.version, studio: StudioDoc::of(other) });
    let zone = was.hours.zone();
    let changed = (0..was.pictures.len()).filter(|p| was.pictures[*p] != other.pictures[*p]);
    let pictures = changed.map(|p| DraftPicture {
        id: stored.pictures[p].id,
        version: stored.pictures[p].version,
        picture: PictureDoc::of(&other.pictures[p], zone),
    });
    let room = way.room.as_ref().map(|change| DraftRoom::of(change, stored.air.version));
    Draft { studio: settings, room, pictures: pictures.collect() }
}

/// Keeps a draft: all of it in one transaction, or nothing when any of it was changed meanwhile.
#[utoipa::path(post, operation_id = "season_accept", path = "/api/studios/{id}/season/accept", tag = "season", params(("id" = Uuid, Path)),
    request_body = Accept,
    responses((status = 200, body = Kept)))]
pub async fn accept(
    State(mut app): State<App>,
    InStudio(id): InStudio,
    Body(accept): Body<Accept>,
) -> Result<Json<Kept>, Problem> {
    let now = app.clock.now();
    let loaded = load(&mut app, id).await?;
    let stored = &loaded.stored;
    let label = label("label", &accept.label)?;
    let draft = read(stored, &accept.draft)?;
    let around = loaded.clone();
    let studio = app
        .aside(move || -> Checked<Studio> {
            let before = &around.studio;
            let after = drafted(before, &draft, now)?;
            let taken = |p: usize| around.taken(around.stored.pictures[p].id);
            keep_draft(before, &after, &draft, taken, now)?;
            Ok(after)
        })
        .await??;
    let mut tx = app.begin().await?;
    if ulvek_store::hold_ground(&mut tx, id).await? != loaded.state.ground() {
        return Err(Problem::in_the_way());
    }
    let kept = keep(&mut tx, id, &accept.draft, (&studio, &stored.pictures), (&label, now)).await?;
    tx.commit().await?;
    Ok(Json(kept))
}

async fn keep(
    conn: &mut MySqlConnection,
    id: Uuid,
    draft: &Draft,
    (studio, pictures): (&Studio, &[StoredPicture]),
    (label, now): (&str, DateTime<Utc>),
) -> Result<Kept, Problem> {
    let mut kept = Kept { studio: None, air: None, pictures: Vec::new() };
    if let Some(settings) = &draft.studio {
        let version = settings.version;
        let saved = ulvek_store::save_settings(conn, id, version, studio, label, now);
        kept.studio = Some(saved.await?);
    }
    if let Some(room) = &draft.room {
        let saved = ulvek_store::save_air(conn, id, room.version, studio, label, now);
        kept.air = Some(saved.await?);
    }
    for change in &draft.pictures {
        let Some(p) = pictures.iter().position(|s| s.id == change.id) else { continue };
        let (picture, version) = (&studio.pictures[p], change.version);
        let saved = ulvek_store::save_picture(conn, change.id, version, picture, label, now);
        kept.pictures.push(KeptPicture { id: change.id, version: saved.await? });
    }
    Ok(kept)
}

/// Takes back what was kept together: all of it, or nothing when any of it was changed since.
#[utoipa::path(post, operation_id = "season_undo", path = "/api/studios/{id}/season/undo", tag = "season", params(("id" = Uuid, Path)),
    request_body = Kept,
    responses((status = 200, body = Kept)))]
pub async fn undo(
    State(mut app): State<App>,
    InStudio(id): InStudio,
    Body(kept): Body<Kept>,
) -> Result<Json<Kept>, Problem> {
    let now = app.clock.now();
    let mut tx = app.begin().await?;
    ulvek_store::hold_ground(&mut tx, id).await?;
    let mut back = Kept { studio: None, air: None, pictures: Vec::new() };
    if let Some(version) = kept.studio {
        let undone = ulvek_store::undo_settings(&mut tx, id, version, Direction::Undo).await?;
        back.studio = Some(undone);
    }
    if let Some(version) = kept.air {
        back.air = Some(ulvek_store::undo_air(&mut tx, id, version, Direction::Undo).await?);
    }
    for picture in kept.pictures {
        if ulvek_store::studio_of(&mut tx, picture.id).await? != id {
            return Err(StoreError::NotFound.into());
        }
        let (key, version) = (picture.id, picture.version);
        let undone = ulvek_store::undo_picture(&mut tx, key, version, Direction::Undo, now);
        back.pictures.push(KeptPicture { id: key, version: undone.await? });
    }
    // A material may have been taken off the shelf since.
    ulvek_store::load_studio(&mut tx, id).await?.studio.check()?;
    tx.commit().await?;
    Ok(Json(back))
}
