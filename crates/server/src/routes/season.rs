//! The season: all pictures to their dates, what-ifs, odds, ways to make a date. What is tried is
//! computed and not stored; what is accepted is stored in one transaction.

use super::computed::{HOURS_SHOWN_DAYS, sessions, wait_out};
use super::pictures::{check_due, check_gates, check_laid};
use super::season_wire::{
    Accept, BlockedOut, DateWay, Draft, DraftPicture, DraftStudio, FilmPoint, Going, HeldOut, Kept,
    KeptPicture, LaidOut, Odds, PictureOddsOut, Season, SeasonPicture, WaysAsk, WorkOut,
};
use super::view::{Of, Scene, answer, json, key_of, view, written};
use super::wire::{SpanOut, instant};
use crate::compute::{Answer, Lane, Progress};
use crate::desks::load;
use crate::extract::{Body, Key};
use crate::formats::{
    Refusal, check_picture, check_studio, label, picture_doc, studio_doc, turn_doc, why,
};
use crate::problem::Problem;
use crate::state::{App, commit};
use axum::Json;
use axum::extract::State;
use axum::http::{HeaderMap, StatusCode};
use axum::response::{IntoResponse, Response};
use chrono::{DateTime, Duration, NaiveDate, Utc};
use serde::Serialize;
use std::sync::Arc;
use ulvek_core::picture::Picture;
use ulvek_core::planner::{Desk, Held, PictureOdds, Plan, Request, SEED, holds, odds as sample};
use ulvek_core::studio::StudioDocument;
use ulvek_store::{Direction, StoreError, StoredStudio};
use uuid::Uuid;

/// What the season shows of the past [days]. [practice]
const PAST_DAYS: i64 = 14;
/// What it shows after the last date or finish [days]. [practice]
const AFTER_DAYS: i64 = 10;
/// Moments of a picture's film. [practice]
const RIBBON_FRAMES: usize = 160;
/// Futures sampled for the odds. [practice] a share is then known to 4.6 %, and one does not wait
const FUTURES: usize = 120;

/// The season as it is planned.
#[utoipa::path(get, operation_id = "season", path = "/api/studios/{id}/season", tag = "season", params(("id" = Uuid, Path)),
    responses((status = 200, body = Season), (status = 304, description = "nothing changed")))]
pub async fn season(
    State(app): State<App>,
    Key(id): Key,
    headers: HeaderMap,
) -> Result<Response, Problem> {
    view(&app, Of::Studio(id), &headers, "season".into(), |scene| {
        let stored = &scene.loaded.stored;
        Ok(scene.app.desks.at(&scene.loaded, |desk| make_season(stored, desk, scene.now)))
    })
    .await
}

/// The season as it would be with the changes of a draft. Nothing is stored.
#[utoipa::path(post, operation_id = "season_what_if", path = "/api/studios/{id}/season/what-if", tag = "season", params(("id" = Uuid, Path)),
    request_body = Draft, responses((status = 200, body = Season)))]
pub async fn what_if(
    State(app): State<App>,
    Key(id): Key,
    Body(draft): Body<Draft>,
) -> Result<Response, Problem> {
    let question = asked("what-if", &draft)?;
    answer(&app, (Of::Studio(id), Lane::View), question, move |scene| {
        let stored = &scene.loaded.stored;
        let mut desk = drafted_desk(scene, &draft)?;
        Ok(make_season(stored, &mut desk, scene.now))
    })
    .await
}

/// A question with its numbers, as it is known by.
pub(super) fn asked<T: Serialize>(what: &str, with: &T) -> Result<String, Problem> {
    serde_json::to_string(with).map(|with| format!("{what} {with}")).map_err(|cause| {
        tracing::error!(%cause, "a question cannot be written");
        Problem::internal()
    })
}

/// A desk of its own for the studio with the changes of a draft: what did not change is known.
fn drafted_desk(scene: &Scene, draft: &Draft) -> Result<Desk, Problem> {
    let document = drafted(&scene.loaded.stored, draft)?;
    let mut desk = scene.app.desks.at(&scene.loaded, |desk| desk.clone());
    desk.turn_to(Arc::new(document));
    Ok(desk)
}

/// The studio with the changes of `draft`.
fn drafted(stored: &StoredStudio, draft: &Draft) -> Result<StudioDocument, Problem> {
    let mut document = stored.document.clone();
    if let Some(settings) = &draft.studio {
        let place = |refusal: Refusal| refused("draft.studio", refusal);
        let changed = check_studio(&settings.studio, &settings.air).map_err(place)?;
        document = StudioDocument {
            materials: document.materials,
            tubs: document.tubs,
            ways: document.ways,
            pictures: document.pictures,
            ..changed
        };
    }
    for (n, change) in draft.pictures.iter().enumerate() {
        let base = format!("draft.pictures[{n}]");
        let p = stored.pictures.iter().position(|s| s.id == change.id).ok_or_else(|| {
            Problem::refused(format!("{base}.id"), "the studio has no such picture")
        })?;
        let mut doc = change.picture.clone();
        doc.id.clone_from(&document.pictures[p].id);
        let changed = check_picture("", &doc, &document)
            .map_err(|refusal| refused(&format!("{base}.picture"), refusal))?;
        // The record of sealing has doors of its own.
        let seal = stored.document.pictures[p].seal.clone();
        document.pictures[p] = Picture { seal, ..changed };
    }
    Ok(document)
}

fn refused(base: &str, refusal: Refusal) -> Problem {
    let path = [base, refusal.path.as_str()].join(".");
    Problem::refused(path.trim_end_matches('.'), refusal.reason)
}

fn make_season(stored: &StoredStudio, desk: &mut Desk, now: DateTime<Utc>) -> Season {
    let document = desk.document();
    let plan = desk.plan(now);
    let ends = plan.pictures.iter().filter_map(|p| p.finish);
    // A date far away is not drawn out to.
    let farthest = now + Duration::days(HOURS_SHOWN_DAYS);
    let dues = document.pictures.iter().filter_map(|p| p.due.map(|d| document.hours.end_of(d)));
    let until = ends.chain(dues.map(|due| due.min(farthest))).max().unwrap_or(now).max(now)
        + Duration::days(AFTER_DAYS);
    let pictures = (0..document.pictures.len())
        .map(|p| season_picture(stored, desk, (p, &plan), (now, until)))
        .collect();
    Season {
        now,
        time_zone: document.hours.zone().name().to_owned(),
        version: stored.version,
        until,
        sessions: sessions(&document, now - Duration::days(PAST_DAYS), until),
        objective: plan.objective.into(),
        order: desk.order(now).iter().map(turn_doc).collect(),
        pictures,
    }
}

fn season_picture(
    stored: &StoredStudio,
    desk: &mut Desk,
    (p, plan): (usize, &Plan),
    (now, until): (DateTime<Utc>, DateTime<Utc>),
) -> SeasonPicture {
    let shared = desk.document();
    let document = shared.as_ref();
    let picture = &document.pictures[p];
    let outcome = &plan.pictures[p];
    let mut laid: Vec<LaidOut> = picture
        .steps
        .iter()
        .filter_map(|s| {
            let (step, title) = (s.id.clone(), s.title().to_owned());
            Some(LaidOut { step, title, at: s.laid_at? })
        })
        .collect();
    laid.sort_by_key(|l| l.at);
    let mine = || plan.steps.iter().filter(|s| s.picture == p);
    let work = mine()
        .flat_map(|planned| {
            let step = &picture.steps[planned.step];
            planned.sittings.iter().enumerate().map(move |(n, sitting)| WorkOut {
                step: step.id.clone(),
                title: step.title().to_owned(),
                from: sitting.from,
                to: sitting.to,
                sitting: n + 1,
                of: planned.sittings.len(),
                pinned_at: step.pinned_at,
                waits_for: planned.wait.as_ref().map(|w| wait_out(w, picture)),
            })
        })
        .collect();
    let blocked = mine()
        .filter_map(|planned| {
            let step = &picture.steps[planned.step];
            let why = planned.blocked.as_ref()?.to_string();
            Some(BlockedOut { step: step.id.clone(), title: step.title().to_owned(), why })
        })
        .collect();
    let film = desk.film_line(p, now, (until.timestamp() as f64, RIBBON_FRAMES));
    SeasonPicture {
        id: stored.pictures[p].id,
        version: stored.pictures[p].version,
        code: picture.id.clone(),
        title: picture.title.clone(),
        weight: picture.weight,
        due: picture.due,
        last_hours: picture
            .due
            .and_then(|due| document.hours.last_before_day_off(due))
            .map(|s| SpanOut { from: s.from, to: s.to }),
        finish: outcome.finish,
        days_late: outcome.days_late,
        earliest: desk.earliest(now)[p],
        done: !picture.steps.is_empty() && picture.steps.iter().all(|s| s.laid_at.is_some()),
        laid,
        work,
        blocked,
        film: film
            .iter()
            .map(|m| FilmPoint {
                at: instant(m.at),
                um: (m.thickness_m * 1e7).round() as f32 / 10.0,
                state: m.state,
            })
            .collect(),
        held_by: held_by(document, plan, p, now),
    }
}

fn held_by(document: &StudioDocument, plan: &Plan, p: usize, now: DateTime<Utc>) -> Vec<HeldOut> {
    let picture = &document.pictures[p];
    holds(document, plan, p, now)
        .into_iter()
        .map(|link| {
            let step = &picture.steps[link.step];
            HeldOut {
                step: step.id.clone(),
                title: step.title().to_owned(),
                from: link.from,
                to: link.to,
                because: link.wait.as_ref().map(|w| why(w, picture.steps[w.of].title())),
                until: link.wait.as_ref().map(|w| w.until),
                then: match link.held {
                    Held::Wait => None,
                    Held::Hours => Some("your next hours".to_owned()),
                    Held::Work(q, i) => {
                        let other = &document.pictures[q];
                        Some(format!("{} of {}", other.steps[i].title(), other.title))
                    }
                },
                idle_min: link.idle_min,
            }
        })
        .collect()
}

/// How long odds and ways hold, at least [min]; at most twice as long. [practice] an hour changes
/// little
const LONG_HOLDS_MIN: i64 = 10;
/// How long odds and ways are waited for before it is said how far they are [s]. [practice]
const PATIENCE_S: u64 = 2;

/// Odds of the dates with the changes of a draft (or none), in 120 sampled futures.
/// While they are sampled it says how far it is (202): ask again. Nobody asks any more: it is given
/// up.
#[utoipa::path(post, operation_id = "season_odds", path = "/api/studios/{id}/season/odds", tag = "season", params(("id" = Uuid, Path)),
    request_body = Draft, responses((status = 200, body = Odds), (status = 202, body = Going)))]
pub async fn odds(
    State(app): State<App>,
    Key(id): Key,
    Body(draft): Body<Draft>,
) -> Result<Response, Problem> {
    let question = asked("odds", &draft)?;
    long_answer(&app, id, question, move |scene, progress| {
        let stored = &scene.loaded.stored;
        let mut desk = drafted_desk(scene, &draft)?;
        let document = desk.document();
        let turns = desk.order(scene.now);
        let threads = std::thread::available_parallelism().map_or(1, usize::from);
        let request = Request { document: &document, from: scene.now };
        let told = |_| progress.one_more(FUTURES as u64);
        let sampled = sample(request, &turns, SEED, (FUTURES, threads), told);
        let out = |o: PictureOdds| {
            let due = document.pictures[o.picture].due;
            let by = |day: Option<NaiveDate>| day.map(|day| o.by(day));
            PictureOddsOut {
                id: stored.pictures[o.picture].id,
                on_day: by(due),
                day_earlier: by(due.and_then(|d| d.pred_opt())),
                day_later: by(due.and_then(|d| d.succ_opt())),
                day_10: o.day_of(0.1),
                day_50: o.day_of(0.5),
                day_90: o.sure_day(),
            }
        };
        Ok(Odds { futures: FUTURES, pictures: sampled.into_iter().map(out).collect() })
    })
    .await
}

async fn long_answer<T: Serialize>(
    app: &App,
    studio: Uuid,
    question: String,
    make: impl FnOnce(&Scene, &Progress) -> Result<T, Problem> + Send + 'static,
) -> Result<Response, Problem> {
    let loaded = load(app, studio).await?;
    let now = app.clock.now();
    // What takes longer than a minute must not begin anew with every minute.
    let mut key = key_of(&loaded, now, question);
    key.minute = key.minute.div_euclid(LONG_HOLDS_MIN);
    let before = crate::compute::Key { minute: key.minute - 1, ..key.clone() };
    let key = if app.computer.knows(&before) { before } else { key };
    let scene = Scene { app: app.clone(), loaded, now };
    let patience = std::time::Duration::from_secs(PATIENCE_S);
    let made =
        app.computer.ask_within(patience, key, move |progress| written(make(&scene, progress)));
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
    request_body = WaysAsk, responses((status = 200, body = [DateWay]), (status = 202, body = Going)))]
pub async fn ways_to(
    State(app): State<App>,
    Key(id): Key,
    Body(ask): Body<WaysAsk>,
) -> Result<Response, Problem> {
    long_answer(&app, id, format!("ways {}", ask.picture), move |scene, progress| {
        let stored = &scene.loaded.stored;
        let p = stored
            .pictures
            .iter()
            .position(|s| s.id == ask.picture)
            .ok_or_else(|| Problem::refused("picture", "the studio has no such picture"))?;
        let mut desk = scene.app.desks.at(&scene.loaded, |desk| desk.clone());
        let told = |done, of| progress.tell(done as u64, of as u64);
        let found = desk.ways(p, scene.now, told).into_iter().map(|way| DateWay {
            what: way.what,
            risk: way.kind.risk().to_owned(),
            harm: way.kind.harm(),
            gain_min: Some(way.gain_min).filter(|m| m.is_finite()),
            finish: way.plan.pictures[p].finish,
            days_late: way.days_late,
            others_later: way.others_later,
            draft: draft_of(stored, &way.document),
        });
        Ok(found.collect::<Vec<_>>())
    })
    .await
}

/// What is different in `other`, as a draft.
pub(super) fn draft_of(stored: &StoredStudio, other: &StudioDocument) -> Draft {
    let was = &stored.document;
    let same = was.air == other.air
        && was.schools == other.schools
        && was.hours == other.hours
        && was.order == other.order;
    let settings = (!same).then(|| {
        let (studio, air) = studio_doc(other);
        DraftStudio { version: stored.version, studio, air }
    });
    let zone = was.hours.zone();
    let changed = (0..was.pictures.len()).filter(|p| was.pictures[*p] != other.pictures[*p]);
    let pictures = changed.map(|p| DraftPicture {
        id: stored.pictures[p].id,
        version: stored.pictures[p].version,
        picture: picture_doc(&other.pictures[p], zone),
    });
    Draft { studio: settings, pictures: pictures.collect() }
}

/// Keeps a draft: all of it in one transaction, or nothing when any of it was changed meanwhile.
#[utoipa::path(post, operation_id = "season_accept", path = "/api/studios/{id}/season/accept", tag = "season", params(("id" = Uuid, Path)),
    request_body = Accept,
    responses((status = 200, body = Kept)))]
pub async fn accept(
    State(app): State<App>,
    Key(id): Key,
    Body(accept): Body<Accept>,
) -> Result<Json<Kept>, Problem> {
    let now = app.clock.now();
    let mut tx = app.begin().await?;
    ulvek_store::hold_shelf(&mut tx, id).await?;
    let stored = ulvek_store::load_studio(&mut tx, id).await?;
    let document = drafted(&stored, &accept.draft)?;
    let label = label("label", &accept.label)?;
    let label = label.as_str();
    let mut kept = Kept { studio: None, pictures: Vec::new() };
    if let Some(settings) = &accept.draft.studio {
        let version =
            ulvek_store::save_settings(&mut tx, id, settings.version, &document, label, now);
        kept.studio = Some(version.await?);
    }
    for change in &accept.draft.pictures {
        let Some(p) = stored.pictures.iter().position(|s| s.id == change.id) else { continue };
        let picture = &document.pictures[p];
        check_due(picture.due, stored.document.pictures[p].due, &document.hours, now)?;
        check_laid(picture, now)?;
        let before = &stored.document.pictures[p];
        check_gates(&mut tx, change.id, &document, before, picture).await?;
        let version =
            ulvek_store::save_picture(&mut tx, change.id, change.version, picture, label, now);
        kept.pictures.push(KeptPicture { id: change.id, version: version.await? });
    }
    commit(tx).await?;
    Ok(Json(kept))
}

/// Takes back what was kept together: all of it, or nothing when any of it was changed since.
#[utoipa::path(post, operation_id = "season_undo", path = "/api/studios/{id}/season/undo", tag = "season", params(("id" = Uuid, Path)),
    request_body = Kept,
    responses((status = 200, body = Kept)))]
pub async fn undo(
    State(app): State<App>,
    Key(id): Key,
    Body(kept): Body<Kept>,
) -> Result<Json<Kept>, Problem> {
    let mut tx = app.begin().await?;
    ulvek_store::hold_shelf(&mut tx, id).await?;
    let mut now = Kept { studio: None, pictures: Vec::new() };
    if let Some(version) = kept.studio {
        let stepped = ulvek_store::step_settings(&mut tx, id, version, Direction::Undo).await?;
        now.studio = Some(stepped);
    }
    for picture in kept.pictures {
        if ulvek_store::studio_of(&mut tx, picture.id).await? != id {
            return Err(StoreError::NotFound.into());
        }
        let version =
            ulvek_store::step_picture(&mut tx, picture.id, picture.version, Direction::Undo);
        now.pictures.push(KeptPicture { id: picture.id, version: version.await? });
    }
    // A material may have been taken off the shelf since.
    let stored = ulvek_store::load_studio(&mut tx, id).await?;
    let studio = &stored.document;
    for p in &now.pictures {
        let Some(at) = stored.pictures.iter().position(|s| s.id == p.id) else { continue };
        let doc = picture_doc(&studio.pictures[at], studio.hours.zone());
        check_picture("", &doc, studio)?;
    }
    commit(tx).await?;
    Ok(Json(now))
}
