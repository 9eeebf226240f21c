//! The season: all pictures to their dates, what-ifs, odds, ways to make a date. What is tried is
//! computed and not stored; what is accepted is stored in one transaction.

use super::computed::{load, sessions, wait_out};
use super::pictures::{check_due, check_gates, check_laid};
use super::season_wire::{
    Accept, BlockedOut, DateWay, Draft, DraftPicture, DraftStudio, FilmPoint, HeldOut, Kept,
    KeptPicture, LaidOut, Odds, PictureOddsOut, Season, SeasonPicture, WaysAsk, WorkOut,
};
use super::wire::{SpanOut, instant};
use crate::extract::{Body, Key};
use crate::formats::{
    Refusal, check_picture, check_studio, picture_doc, studio_doc, turn_doc, why,
};
use crate::problem::Problem;
use crate::state::{App, compute};
use axum::Json;
use axum::extract::State;
use chrono::{DateTime, Duration, NaiveDate, Utc};
use ulvek_core::picture::Picture;
use ulvek_core::planner::{
    Held, PictureOdds, Plan, Planner, Request, SEED, film_line, holds, odds as sample, ways,
};
use ulvek_core::studio::StudioDocument;
use ulvek_store::{Direction, StoreError, StoredStudio};

/// What the season shows of the past [days]. [practice]
const PAST_DAYS: i64 = 14;
/// What it shows after the last date or finish [days]. [practice]
const AFTER_DAYS: i64 = 10;
/// Moments of a picture's film. [practice]
const RIBBON_FRAMES: usize = 160;
/// Futures sampled for the odds. [practice] 5 % steps are safe to tell apart
const FUTURES: usize = 200;

/// The season as it is planned.
#[utoipa::path(get, operation_id = "season", path = "/api/studios/{id}/season", tag = "season", params(("id" = Uuid, Path)),
    responses((status = 200, body = Season), (status = 404, body = Problem)))]
pub async fn season(State(app): State<App>, Key(id): Key) -> Result<Json<Season>, Problem> {
    let stored = load(&app, id).await?;
    let now = app.clock.now();
    compute(move || Json(make_season(&stored, &stored.document, now))).await
}

/// The season as it would be with the changes of a draft. Nothing is stored.
#[utoipa::path(post, operation_id = "season_what_if", path = "/api/studios/{id}/season/what-if", tag = "season", params(("id" = Uuid, Path)),
    request_body = Draft,
    responses((status = 200, body = Season), (status = 404, body = Problem), (status = 422, body = Problem)))]
pub async fn what_if(
    State(app): State<App>,
    Key(id): Key,
    Body(draft): Body<Draft>,
) -> Result<Json<Season>, Problem> {
    let stored = load(&app, id).await?;
    let now = app.clock.now();
    let document = drafted(&stored, &draft)?;
    compute(move || Json(make_season(&stored, &document, now))).await
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

fn make_season(stored: &StoredStudio, document: &StudioDocument, now: DateTime<Utc>) -> Season {
    let mut planner = Planner::new(Request { document, from: now });
    let plan = planner.plan();
    let ends = plan.pictures.iter().filter_map(|p| p.finish);
    let dues = document.pictures.iter().filter_map(|p| p.due.map(|d| document.hours.end_of(d)));
    let until = ends.chain(dues).max().unwrap_or(now).max(now) + Duration::days(AFTER_DAYS);
    let pictures = (0..document.pictures.len())
        .map(|p| season_picture(stored, document, &mut planner, (p, &plan), (now, until)))
        .collect();
    Season {
        now,
        time_zone: document.hours.zone().name().to_owned(),
        version: stored.version,
        until,
        sessions: sessions(document, now - Duration::days(PAST_DAYS), until),
        objective: plan.objective.into(),
        order: planner.order().iter().map(turn_doc).collect(),
        pictures,
    }
}

fn season_picture(
    stored: &StoredStudio,
    document: &StudioDocument,
    planner: &mut Planner<'_>,
    (p, plan): (usize, &Plan),
    (now, until): (DateTime<Utc>, DateTime<Utc>),
) -> SeasonPicture {
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
    let film = film_line(document, p, plan, (until.timestamp() as f64, RIBBON_FRAMES));
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
        earliest: planner.earliest_finish(p),
        done: !picture.steps.is_empty() && picture.steps.iter().all(|s| s.laid_at.is_some()),
        laid,
        work,
        blocked,
        film: film
            .into_iter()
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

/// Odds of the dates with the changes of a draft (or none), in 200 sampled futures.
#[utoipa::path(post, operation_id = "season_odds", path = "/api/studios/{id}/season/odds", tag = "season", params(("id" = Uuid, Path)),
    request_body = Draft,
    responses((status = 200, body = Odds), (status = 404, body = Problem), (status = 422, body = Problem)))]
pub async fn odds(
    State(app): State<App>,
    Key(id): Key,
    Body(draft): Body<Draft>,
) -> Result<Json<Odds>, Problem> {
    let stored = load(&app, id).await?;
    let now = app.clock.now();
    let document = drafted(&stored, &draft)?;
    compute(move || {
        let planner = Planner::new(Request { document: &document, from: now });
        let threads = std::thread::available_parallelism().map_or(1, usize::from);
        let sampled = sample(&planner, SEED, FUTURES, threads);
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
        Json(Odds { futures: FUTURES, pictures: sampled.into_iter().map(out).collect() })
    })
    .await
}

/// Ways to make the date of one picture, each planned anew, the least harmful that meet it first.
#[utoipa::path(post, operation_id = "season_ways", path = "/api/studios/{id}/season/ways", tag = "season", params(("id" = Uuid, Path)),
    request_body = WaysAsk,
    responses((status = 200, body = [DateWay]), (status = 404, body = Problem), (status = 422, body = Problem)))]
pub async fn ways_to(
    State(app): State<App>,
    Key(id): Key,
    Body(ask): Body<WaysAsk>,
) -> Result<Json<Vec<DateWay>>, Problem> {
    let stored = load(&app, id).await?;
    let now = app.clock.now();
    let p = stored
        .pictures
        .iter()
        .position(|s| s.id == ask.picture)
        .ok_or_else(|| Problem::refused("picture", "the studio has no such picture"))?;
    compute(move || {
        let planner = Planner::new(Request { document: &stored.document, from: now });
        let found = ways(&planner, p, now).into_iter().map(|way| DateWay {
            what: way.what,
            risk: way.kind.risk().to_owned(),
            harm: way.kind.harm(),
            gain_min: Some(way.gain_min).filter(|m| m.is_finite()),
            finish: way.plan.pictures[p].finish,
            days_late: way.days_late,
            others_later: way.others_later,
            draft: draft_of(&stored, &way.document),
        });
        Json(found.collect())
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
    responses((status = 200, body = Kept), (status = 404, body = Problem),
              (status = 409, body = Problem), (status = 422, body = Problem)))]
pub async fn accept(
    State(app): State<App>,
    Key(id): Key,
    Body(accept): Body<Accept>,
) -> Result<Json<Kept>, Problem> {
    let now = app.clock.now();
    let mut tx = app.pool.begin().await?;
    ulvek_store::hold_shelf(&mut tx, id).await?;
    let stored = ulvek_store::load_studio(&mut tx, id).await?;
    let document = drafted(&stored, &accept.draft)?;
    let label = accept.label.as_str();
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
    tx.commit().await?;
    Ok(Json(kept))
}

/// Takes back what was kept together: all of it, or nothing when any of it was changed since.
#[utoipa::path(post, operation_id = "season_undo", path = "/api/studios/{id}/season/undo", tag = "season", params(("id" = Uuid, Path)),
    request_body = Kept,
    responses((status = 200, body = Kept), (status = 404, body = Problem), (status = 409, body = Problem)))]
pub async fn undo(
    State(app): State<App>,
    Key(id): Key,
    Body(kept): Body<Kept>,
) -> Result<Json<Kept>, Problem> {
    let mut tx = app.pool.begin().await?;
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
    tx.commit().await?;
    Ok(Json(now))
}
