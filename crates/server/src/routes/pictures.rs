//! Pictures: made, edited whole, logged on, taken away and brought back.

use super::seal::against;
use super::wire::{HistoryOut, Laid, OnVersion, PictureEdit, PictureOut};
use crate::compute::aside;
use crate::extract::{Asked, Body, Key};
use crate::formats::{
    MOST_PICTURES, PictureDoc, check_picture, label, line_or_none, moment, picture_doc,
};
use crate::problem::Problem;
use crate::state::{App, commit};
use axum::Json;
use axum::extract::State;
use axum::http::{HeaderName, StatusCode, header};
use chrono::{DateTime, Duration, NaiveDate, Utc};
use serde::Deserialize;
use sqlx::{MySql, MySqlConnection, Transaction};
use ulvek_core::cup::weighed;
use ulvek_core::picture::{Picture, check_chain};
use ulvek_core::quantity::WetFilm;
use ulvek_core::seal::SealAnyway;
use ulvek_core::studio::{StudioDocument, StudioHours};
use ulvek_store::{Direction, StoredPicture};
use uuid::Uuid;

/// How far ahead of the application's clock a painter's clock may go [s]. [practice]
const CLOCKS_APART_S: i64 = 120;

fn out(stored: StoredPicture, hours: &StudioHours) -> PictureOut {
    PictureOut {
        id: stored.id,
        studio: stored.studio,
        version: stored.version,
        history: HistoryOut::from(stored.history),
        picture: picture_doc(&stored.picture, hours.zone()),
    }
}

/// A picture with the studio it belongs to.
pub(super) async fn with_studio(
    conn: &mut MySqlConnection,
    id: Uuid,
) -> Result<(StoredPicture, StudioDocument), Problem> {
    let stored = ulvek_store::load_picture(conn, id).await?;
    let studio = ulvek_store::load_studio(conn, stored.studio).await?;
    Ok((stored, studio.document))
}

/// A transaction in which the shelf under picture `id` stays as it is.
pub(super) async fn with_shelf_held(
    app: &App,
    id: Uuid,
) -> Result<Transaction<'static, MySql>, Problem> {
    let mut conn = app.pool.acquire().await?;
    let studio = ulvek_store::studio_of(&mut conn, id).await?;
    drop(conn);
    let mut tx = app.begin().await?;
    ulvek_store::hold_shelf(&mut tx, studio).await?;
    Ok(tx)
}

/// A picture as it is now, in the transaction that changed it.
pub(super) async fn reread(
    conn: &mut MySqlConnection,
    id: Uuid,
) -> Result<Json<PictureOut>, Problem> {
    let (stored, studio) = with_studio(conn, id).await?;
    Ok(Json(out(stored, &studio.hours)))
}

/// A date that is newly set must not be past; one that has passed meanwhile may stay.
pub(super) fn check_due(
    due: Option<NaiveDate>,
    was: Option<NaiveDate>,
    hours: &StudioHours,
    now: DateTime<Utc>,
) -> Result<(), Problem> {
    let today = hours.day(now);
    match due {
        Some(day) if due != was && day < today => Err(Problem::refused(
            "due",
            format!(
                "{} is in the past; today is {}",
                day.format("%-d %B %Y"),
                today.format("%-d %B")
            ),
        )),
        _ => Ok(()),
    }
}

/// Nothing can have been done in the future.
pub(super) fn check_laid(picture: &Picture, now: DateTime<Utc>) -> Result<(), Problem> {
    let latest = now + Duration::seconds(CLOCKS_APART_S);
    match picture.steps.iter().position(|s| s.laid_at.is_some_and(|at| at > latest)) {
        Some(i) => Err(Problem::refused(
            format!("steps[{i}].laid_at"),
            format!("{} cannot have been done in the future", picture.steps[i].title()),
        )),
        None => Ok(()),
    }
}

/// Holds that a studio can take one more picture and still be exported and imported.
async fn has_place(conn: &mut MySqlConnection, studio: Uuid) -> Result<(), Problem> {
    if ulvek_store::count_pictures(conn, studio).await? >= MOST_PICTURES {
        let reason = format!("a studio holds at most {MOST_PICTURES} pictures");
        return Err(Problem::refused("", reason));
    }
    Ok(())
}

/// Adds a picture to a studio.
#[utoipa::path(post, operation_id = "picture_create", path = "/api/studios/{id}/pictures", tag = "pictures", params(("id" = Uuid, Path)),
    request_body = PictureDoc,
    responses((status = 201, body = PictureOut)))]
pub async fn create(
    State(app): State<App>,
    Key(studio): Key,
    Body(doc): Body<PictureDoc>,
) -> Result<(StatusCode, [(HeaderName, String); 1], Json<PictureOut>), Problem> {
    let now = app.clock.now();
    let mut tx = app.begin().await?;
    ulvek_store::hold_shelf(&mut tx, studio).await?;
    let document = ulvek_store::load_studio(&mut tx, studio).await?.document;
    has_place(&mut tx, studio).await?;
    // Its name within the studio is made here: names of deleted pictures stay taken.
    let doc = PictureDoc { id: Uuid::now_v7().simple().to_string(), ..doc };
    let picture = check_picture("", &doc, &document)?;
    check_due(picture.due, None, &document.hours, now)?;
    check_laid(&picture, now)?;
    let id = ulvek_store::create_picture(&mut tx, studio, &picture, now).await?;
    let stored = ulvek_store::load_picture(&mut tx, id).await?;
    commit(tx).await?;
    let location = [(header::LOCATION, format!("/api/pictures/{id}"))];
    Ok((StatusCode::CREATED, location, Json(out(stored, &document.hours))))
}

/// One picture.
#[utoipa::path(get, operation_id = "picture_read", path = "/api/pictures/{id}", tag = "pictures", params(("id" = Uuid, Path)),
    responses((status = 200, body = PictureOut)))]
pub async fn read(State(app): State<App>, Key(id): Key) -> Result<Json<PictureOut>, Problem> {
    let mut tx = app.reading().await?;
    let answer = reread(&mut tx, id).await?;
    tx.commit().await?;
    Ok(answer)
}

/// Replaces a picture.
#[utoipa::path(put, operation_id = "picture_save", path = "/api/pictures/{id}", tag = "pictures", params(("id" = Uuid, Path)),
    request_body = PictureEdit,
    responses((status = 200, body = PictureOut)))]
pub async fn save(
    State(app): State<App>,
    Key(id): Key,
    Body(edit): Body<PictureEdit>,
) -> Result<Json<PictureOut>, Problem> {
    let now = app.clock.now();
    let mut tx = with_shelf_held(&app, id).await?;
    let (stored, studio) = with_studio(&mut tx, id).await?;
    let doc = PictureDoc { id: stored.picture.id.clone(), ..edit.picture };
    let picture = check_picture("", &doc, &studio)?;
    // What was seen and decided on the way to the seal has doors of its own.
    let picture = Picture { seal: stored.picture.seal.clone(), ..picture };
    check_due(picture.due, stored.picture.due, &studio.hours, now)?;
    check_laid(&picture, now)?;
    check_gates(&mut tx, id, &studio, &stored.picture, &picture).await?;
    let label = label("label", &edit.label)?;
    ulvek_store::save_picture(&mut tx, id, edit.version, &picture, &label, now).await?;
    let answer = reread(&mut tx, id).await?;
    commit(tx).await?;
    Ok(answer)
}

/// Logs a coat that was laid, or a step that was done: the plan moves from what really happened.
#[utoipa::path(post, operation_id = "picture_laid", path = "/api/pictures/{id}/laid", tag = "pictures", params(("id" = Uuid, Path)),
    request_body = Laid,
    responses((status = 200, body = PictureOut)))]
pub async fn laid(
    State(app): State<App>,
    Key(id): Key,
    Body(laid): Body<Laid>,
) -> Result<Json<PictureOut>, Problem> {
    let now = app.clock.now();
    let at = laid.at.map(|at| moment("at", at.fixed_offset())).transpose()?.unwrap_or(now);
    let anyway = line_or_none("anyway", laid.anyway.as_deref().unwrap_or_default())?;
    let mut tx = app.begin().await?;
    let (stored, studio) = with_studio(&mut tx, id).await?;
    let mut picture = stored.picture;
    let Some(i) = picture.steps.iter().position(|s| s.id == laid.step) else {
        return Err(Problem::refused("step", format!("the picture has no step \"{}\"", laid.step)));
    };
    let film = film(&studio, &picture, i, &laid)?;
    let step = &mut picture.steps[i];
    step.laid_at = Some(at);
    step.wet_film_um = film;
    let label = format!("log {}", step.title());
    if at > now + Duration::seconds(CLOCKS_APART_S) {
        return Err(Problem::refused("at", "a coat cannot have been laid in the future"));
    }
    check_chain(&picture).map_err(|e| Problem::refused("at", e.to_string()))?;
    if picture.steps[i].kind.seals() {
        let against = against_gate(&mut tx, id, &studio, &picture, (i, at)).await?;
        match anyway {
            _ if against.is_empty() => {}
            Some(reason) => {
                let step = laid.step.clone();
                picture.seal.anyway.push(SealAnyway { at, step, reason, against });
            }
            None => return Err(Problem::refused("anyway", closed(&against))),
        }
    }
    ulvek_store::save_picture(&mut tx, id, laid.version, &picture, &label, now).await?;
    let answer = reread(&mut tx, id).await?;
    commit(tx).await?;
    Ok(answer)
}

/// Why a gate is closed, and what it takes to go on.
fn closed(against: &[String]) -> String {
    format!("the gate is closed ({}); to seal it anyway, say why", against.join("; "))
}

/// What did not hold when sealing coat `i` of `picture` was laid at `at`.
async fn against_gate(
    conn: &mut MySqlConnection,
    id: Uuid,
    studio: &StudioDocument,
    picture: &Picture,
    (i, at): (usize, DateTime<Utc>),
) -> Result<Vec<String>, Problem> {
    let photographs = ulvek_store::photographs_of(conn, id).await?;
    let mut studio = studio.clone();
    let Some(p) = studio.pictures.iter().position(|p| p.id == picture.id) else {
        return Err(Problem::not_found("such picture"));
    };
    studio.pictures[p] = picture.clone();
    aside(move || against(&studio, (p, i), &photographs, at)).await
}

/// Holds that no sealing coat of `after` was newly laid through a closed gate.
pub(super) async fn check_gates(
    conn: &mut MySqlConnection,
    id: Uuid,
    studio: &StudioDocument,
    before: &Picture,
    after: &Picture,
) -> Result<(), Problem> {
    for (i, step) in after.steps.iter().enumerate().filter(|(_, s)| s.kind.seals()) {
        let Some(at) = step.laid_at else { continue };
        if before.steps.iter().any(|s| s.id == step.id && s.kind.seals() && s.laid_at.is_some()) {
            continue;
        }
        let against = against_gate(conn, id, studio, after, (i, at)).await?;
        if !against.is_empty() {
            let said = format!("{}, where the coat is logged", closed(&against));
            return Err(Problem::refused(format!("steps[{i}].laid_at"), said));
        }
    }
    Ok(())
}

/// The wet film [um] that was really laid: as said, from the amount or the scale, or as planned.
fn film(
    studio: &StudioDocument,
    picture: &Picture,
    i: usize,
    laid: &Laid,
) -> Result<Option<f64>, Problem> {
    let step = &picture.steps[i];
    let said = [laid.wet_film_um, laid.amount_ml, laid.cup_after_g];
    if said.iter().flatten().count() > 1 {
        return Err(Problem::refused(
            "amount_ml",
            "say the thickness, the amount or the weight, not two of them",
        ));
    }
    if said.iter().all(Option::is_none) {
        return Ok(step.wet_film_um);
    }
    if !step.kind.leaves_film() {
        return Err(Problem::refused("wet_film_um", format!("{} leaves no film", step.title())));
    }
    if let Some(um) = laid.wet_film_um {
        return WetFilm::try_new(um)
            .map(|q| Some(q.get()))
            .map_err(|e| Problem::refused("wet_film_um", e.to_string()));
    }
    if let Some(ml) = laid.amount_ml {
        return picture.film_from_amount_um(ml, step.share_of_area).map(Some).map_err(|e| {
            Problem::refused("amount_ml", format!("that amount gives no sound coat: {e}"))
        });
    }
    let (Some(before), Some(after)) = (step.cup_g, laid.cup_after_g) else {
        let reason = "the full cup was not weighed before the coat: say the amount instead";
        return Err(Problem::refused("cup_after_g", reason));
    };
    weighed(picture, step.share_of_area, &step.mix, &studio.materials, (before, after))
        .map(|w| Some(w.wet_film_um))
        .map_err(|e| Problem::refused("cup_after_g", e.to_string()))
}

/// Holds that a picture that was brought back still fits to its studio: a material may have been
/// taken off the shelf since.
async fn still_fits(conn: &mut MySqlConnection, id: Uuid) -> Result<(), Problem> {
    let (stored, studio) = with_studio(conn, id).await?;
    let doc = picture_doc(&stored.picture, studio.hours.zone());
    check_picture("", &doc, &studio)?;
    Ok(())
}

async fn step(
    app: App,
    id: Uuid,
    on: OnVersion,
    direction: Direction,
) -> Result<Json<PictureOut>, Problem> {
    let mut tx = with_shelf_held(&app, id).await?;
    ulvek_store::step_picture(&mut tx, id, on.version, direction).await?;
    still_fits(&mut tx, id).await?;
    let answer = reread(&mut tx, id).await?;
    commit(tx).await?;
    Ok(answer)
}

/// Takes the last edit of a picture back.
#[utoipa::path(post, operation_id = "picture_undo", path = "/api/pictures/{id}/undo", tag = "pictures", params(("id" = Uuid, Path)),
    request_body = OnVersion,
    responses((status = 200, body = PictureOut)))]
pub async fn undo(
    State(app): State<App>,
    Key(id): Key,
    Body(on): Body<OnVersion>,
) -> Result<Json<PictureOut>, Problem> {
    step(app, id, on, Direction::Undo).await
}

/// Makes the edit that was taken back again.
#[utoipa::path(post, operation_id = "picture_redo", path = "/api/pictures/{id}/redo", tag = "pictures", params(("id" = Uuid, Path)),
    request_body = OnVersion,
    responses((status = 200, body = PictureOut)))]
pub async fn redo(
    State(app): State<App>,
    Key(id): Key,
    Body(on): Body<OnVersion>,
) -> Result<Json<PictureOut>, Problem> {
    step(app, id, on, Direction::Redo).await
}

/// The version a picture is taken away at.
#[derive(Deserialize)]
pub struct AtVersion {
    version: i64,
}

/// Takes a picture away; it can be restored.
#[utoipa::path(delete, operation_id = "picture_delete", path = "/api/pictures/{id}", tag = "pictures",
    params(("id" = Uuid, Path), ("version" = i64, Query)),
    responses((status = 204)))]
pub async fn delete(
    State(app): State<App>,
    Key(id): Key,
    Asked(at): Asked<AtVersion>,
) -> Result<StatusCode, Problem> {
    let mut tx = app.begin().await?;
    ulvek_store::delete_picture(&mut tx, id, at.version, app.clock.now()).await?;
    commit(tx).await?;
    Ok(StatusCode::NO_CONTENT)
}

/// Brings a picture back that was taken away.
#[utoipa::path(post, operation_id = "picture_restore", path = "/api/pictures/{id}/restore", tag = "pictures", params(("id" = Uuid, Path)),
    responses((status = 200, body = PictureOut)))]
pub async fn restore(State(app): State<App>, Key(id): Key) -> Result<Json<PictureOut>, Problem> {
    let mut tx = with_shelf_held(&app, id).await?;
    let studio = ulvek_store::studio_of(&mut tx, id).await?;
    has_place(&mut tx, studio).await?;
    ulvek_store::restore_picture(&mut tx, id).await?;
    still_fits(&mut tx, id).await?;
    let answer = reread(&mut tx, id).await?;
    commit(tx).await?;
    Ok(answer)
}
