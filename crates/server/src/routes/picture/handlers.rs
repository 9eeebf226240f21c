//! Pictures: made, edited whole, taken away and brought back.

use super::wire::{PictureEdit, PictureOut, RepeatAsked, StepsAsked, UsualStep};
use crate::compute::aside;
use crate::extract::{Asked, Body, Key, Once};
use crate::formats::{PictureDoc, StepDoc, label};
use crate::problem::Problem;
use crate::reading::load_in;
use crate::routes::shared::{AtVersion, HistoryOut, OnVersion};
use crate::routes::view::{Of, view};
use crate::state::{App, commit};
use axum::Json;
use axum::extract::State;
use axum::http::{HeaderMap, HeaderName, StatusCode, header};
use axum::response::Response;
use chrono::{DateTime, Utc};
use sqlx::{MySql, MySqlConnection, Transaction};
use std::sync::Arc;
use ulvek_core::deeds::{Deed, begin_picture, edit_picture, has_place};
use ulvek_core::picture::{Picture, StepKind};
use ulvek_core::quantity::{Fault, at_most};
use ulvek_core::studio::check::MOST_STEPS;
use ulvek_core::studio::{Studio, StudioHours};
use ulvek_store::{Direction, StoredPicture};
use uuid::Uuid;

fn out(stored: StoredPicture, hours: &StudioHours) -> PictureOut {
    PictureOut {
        id: stored.id,
        studio: stored.studio,
        version: stored.version,
        history: HistoryOut::from(stored.history),
        picture: PictureDoc::of(&stored.picture, hours.zone()),
    }
}

/// A transaction in which the shelf under picture `id` stays as it is.
async fn with_shelf_held(app: &App, id: Uuid) -> Result<Transaction<'static, MySql>, Problem> {
    let mut conn = app.pool.acquire().await?;
    let studio = ulvek_store::studio_of(&mut conn, id).await?;
    drop(conn);
    let mut tx = app.begin().await?;
    ulvek_store::hold_shelf(&mut tx, studio).await?;
    Ok(tx)
}

/// A picture in its studio, as a deed finds it.
pub(in crate::routes) struct Bench {
    pub studio_id: Uuid,
    pub studio: Arc<Studio>,
    /// Its place among the studio's pictures.
    pub p: usize,
    /// When photographs of it were taken.
    pub photographs: Vec<DateTime<Utc>>,
    pub now: DateTime<Utc>,
}

impl Bench {
    /// Before anything is written in the transaction of `conn`.
    async fn at(
        app: &App,
        conn: &mut MySqlConnection,
        (id, now): (Uuid, DateTime<Utc>),
    ) -> Result<Self, Problem> {
        let of = ulvek_store::studio_of(conn, id).await?;
        let loaded = load_in(app, conn, of).await?;
        let (p, photographs) = (loaded.place_of(id)?, loaded.taken(id));
        Ok(Self { studio_id: of, studio: loaded.studio.clone(), p, photographs, now })
    }

    /// The picture.
    pub fn picture(&self) -> &Picture {
        &self.studio.pictures[self.p]
    }
}

/// Does a deed on picture `id` that is at version `given`, all in one transaction; what it says besides
/// goes to whoever asked.
pub(in crate::routes) async fn done<T: Send + 'static>(
    app: &App,
    on: (Uuid, i64),
    deed: impl FnOnce(&Bench) -> Result<(Deed, T), Fault> + Send + 'static,
) -> Result<(PictureOut, T), Problem> {
    done_once(app, Once(None), on, deed).await
}

/// The same of what carries an id of its own: sent twice it changes nothing the second time.
pub(in crate::routes) async fn done_once<T: Send + 'static>(
    app: &App,
    Once(entry): Once,
    (id, given): (Uuid, i64),
    deed: impl FnOnce(&Bench) -> Result<(Deed, T), Fault> + Send + 'static,
) -> Result<(PictureOut, T), Problem> {
    let now = app.clock.now();
    let mut tx = with_shelf_held(app, id).await?;
    if let Some(entry) = entry
        && ulvek_store::was_sent(&mut tx, entry, Some(id), now).await?
    {
        return Err(Problem::kept_already());
    }
    let bench = Bench::at(app, &mut tx, (id, now)).await?;
    let hours = bench.studio.hours.clone();
    // A deed may look at films: it is done aside.
    let (deed, said) = aside(move || deed(&bench)).await??;
    ulvek_store::save_picture(&mut tx, id, given, &deed.picture, &deed.label, now).await?;
    let answer = out(ulvek_store::load_picture(&mut tx, id).await?, &hours);
    commit(tx).await?;
    Ok((answer, said))
}

/// A picture as it is now, in the transaction that changed it.
async fn reread(conn: &mut MySqlConnection, id: Uuid) -> Result<PictureOut, Problem> {
    let stored = ulvek_store::load_picture(conn, id).await?;
    let studio = ulvek_store::load_studio(conn, stored.studio).await?.studio;
    Ok(out(stored, &studio.hours))
}

/// Holds that a picture that was brought back still fits to its studio: a material may have been
/// taken off the shelf since.
async fn still_fits(conn: &mut MySqlConnection, id: Uuid) -> Result<(), Problem> {
    let of = ulvek_store::studio_of(conn, id).await?;
    let stored = ulvek_store::load_studio(conn, of).await?;
    let p = stored.pictures.iter().position(|s| s.id == id);
    Ok(stored.studio.check_picture(p.ok_or_else(|| Problem::not_found("such picture"))?)?)
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
    let around = ulvek_store::load_studio(&mut tx, studio).await?.studio;
    // Its name within the studio is made here: names of deleted pictures stay taken.
    let picture = Picture { id: Uuid::now_v7().simple().to_string(), ..doc.read() };
    let hours = around.hours.clone();
    let picture = aside(move || begin_picture(&around, picture, now)).await??;
    let id = ulvek_store::create_picture(&mut tx, studio, &picture, now).await?;
    let stored = ulvek_store::load_picture(&mut tx, id).await?;
    commit(tx).await?;
    let location = [(header::LOCATION, format!("/api/pictures/{id}"))];
    Ok((StatusCode::CREATED, location, Json(out(stored, &hours))))
}

/// One picture.
#[utoipa::path(get, operation_id = "picture_read", path = "/api/pictures/{id}", tag = "pictures", params(("id" = Uuid, Path)),
    responses((status = 200, body = PictureOut)))]
pub async fn read(State(app): State<App>, Key(id): Key) -> Result<Json<PictureOut>, Problem> {
    let mut tx = app.reading().await?;
    let answer = reread(&mut tx, id).await?;
    tx.commit().await?;
    Ok(Json(answer))
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
    let label = label("label", &edit.label)?;
    let (answer, ()) = done(&app, (id, edit.version), move |bench| {
        let picture = edit.picture.read();
        let shots = &bench.photographs;
        let picture = edit_picture(&bench.studio, bench.p, picture, shots, bench.now)?;
        Ok((Deed { picture, label }, ()))
    })
    .await?;
    Ok(Json(answer))
}

async fn undo_or_redo(
    app: App,
    id: Uuid,
    on: OnVersion,
    direction: Direction,
) -> Result<Json<PictureOut>, Problem> {
    let now = app.clock.now();
    let mut tx = with_shelf_held(&app, id).await?;
    ulvek_store::undo_picture(&mut tx, id, on.version, direction, now).await?;
    still_fits(&mut tx, id).await?;
    let answer = reread(&mut tx, id).await?;
    commit(tx).await?;
    Ok(Json(answer))
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
    undo_or_redo(app, id, on, Direction::Undo).await
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
    undo_or_redo(app, id, on, Direction::Redo).await
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
    has_place(ulvek_store::count_pictures(&mut tx, studio).await?)?;
    ulvek_store::restore_picture(&mut tx, id).await?;
    still_fits(&mut tx, id).await?;
    let answer = reread(&mut tx, id).await?;
    commit(tx).await?;
    Ok(Json(answer))
}

/// A step of every kind as it usually begins on a picture: with the film, area and minutes of its kind,
/// a mix of what is on the shelf, and the place where it belongs.
#[utoipa::path(get, operation_id = "steps_usual", path = "/api/pictures/{id}/usual-steps", tag = "computed",
    params(("id" = Uuid, Path)), responses((status = 200, body = [UsualStep]), (status = 304, description = "nothing changed")))]
pub async fn usual_steps(
    State(app): State<App>,
    Key(id): Key,
    headers: HeaderMap,
) -> Result<Response, Problem> {
    view(&app, Of::Picture(id), &headers, format!("usual steps {id}"), move |scene| {
        let studio = &scene.loaded.studio;
        let picture = &studio.pictures[scene.loaded.place_of(id)?];
        let usual = |kind: &StepKind| UsualStep {
            place: picture.place_for(*kind),
            step: StepDoc::of(&studio.usual_step(picture, *kind, ""), studio.hours.zone()),
        };
        Ok(StepKind::ALL.iter().map(usual).collect::<Vec<_>>())
    })
    .await
}

/// Steps with one of them repeated: each coat stands on the one before, what stood on the step on the last.
/// Stores nothing.
#[utoipa::path(post, operation_id = "steps_repeated", path = "/api/steps/repeated", tag = "computed",
    request_body = RepeatAsked, responses((status = 200, body = [StepDoc])))]
pub async fn repeat_step(Body(asked): Body<RepeatAsked>) -> Result<Json<Vec<StepDoc>>, Problem> {
    at_most("steps", asked.steps.len() + asked.coats, MOST_STEPS, "steps")?;
    let mut picture = loose(&asked.steps);
    let missing = || Problem::refused("repeat", format!("there is no step \"{}\"", asked.repeat));
    let i = picture.place_of(&asked.repeat).ok_or_else(missing)?;
    picture.repeat(i, asked.coats);
    Ok(Json(picture.steps.iter().map(|s| StepDoc::of(s, chrono_tz::UTC)).collect()))
}

/// A picture of nothing but steps: the size does not matter where only what stands on what is asked.
fn loose(steps: &[StepDoc]) -> Picture {
    Picture::new("steps", (30.0, 40.0), steps.iter().map(StepDoc::read).collect())
}

/// Steps without one of them: what stood on it stands on what it stood on. Stores nothing.
#[utoipa::path(post, operation_id = "steps_without", path = "/api/steps/without", tag = "computed",
    request_body = StepsAsked, responses((status = 200, body = [StepDoc])))]
pub async fn without_step(Body(asked): Body<StepsAsked>) -> Result<Json<Vec<StepDoc>>, Problem> {
    at_most("steps", asked.steps.len(), MOST_STEPS, "steps")?;
    let mut picture = loose(&asked.steps);
    let gone = picture.place_of(&asked.take_out).and_then(|i| picture.take_out(i));
    if gone.is_none() {
        let why = format!("there is no step \"{}\"", asked.take_out);
        return Err(Problem::refused("take_out", why));
    }
    Ok(Json(picture.steps.iter().map(|s| StepDoc::of(s, chrono_tz::UTC)).collect()))
}
