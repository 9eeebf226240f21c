//! Pictures: made, edited whole, taken away and brought back.

use super::wire::{AwayOut, PictureEdit, PictureOut, RepeatAsked, StepsAsked, UsualStep};
use crate::extract::{Asked, Body, Once};
use crate::formats::{PictureDoc, StepDoc, label};
use crate::problem::Problem;
use crate::reading::{load, load_around};
use crate::resolved::{AnyPicture, InPicture, InStudio};
use crate::routes::shared::{AtVersion, HistoryOut, OnVersion};
use crate::routes::view::view;
use crate::state::{App, Held};
use axum::Json;
use axum::extract::State;
use axum::http::{HeaderMap, HeaderName, StatusCode, header};
use axum::response::Response;
use chrono::{DateTime, Utc};
use chrono_tz::Tz;
use sqlx::MySqlConnection;
use std::sync::Arc;
use ulvek_core::deeds::{Deed, begin_picture, edit_picture, has_place};
use ulvek_core::picture::{Picture, StepKind};
use ulvek_core::quantity::{Fault, at_most};
use ulvek_core::studio::Studio;
use ulvek_core::studio::check::MOST_STEPS;
use ulvek_store::{Direction, StoreError, StoredPicture};
use uuid::Uuid;

fn out(stored: StoredPicture, zone: Tz) -> PictureOut {
    PictureOut {
        id: stored.id,
        studio: stored.studio,
        version: stored.version,
        history: HistoryOut::from(stored.history),
        picture: PictureDoc::of(&stored.picture, zone),
    }
}

/// A transaction in which the shelf and the settings of `studio` stay as they are.
async fn with_ground_held(app: &mut App, studio: Uuid) -> Result<Held<'_>, Problem> {
    let mut tx = app.begin().await?;
    ulvek_store::hold_ground(&mut tx, studio).await?;
    Ok(tx)
}

/// A picture in its studio, as a deed finds it.
pub(in crate::routes) struct Bench {
    pub studio: Arc<Studio>,
    /// Its place among the studio's pictures.
    pub p: usize,
    /// When photographs of it were taken.
    pub photographs: Vec<DateTime<Utc>>,
    pub now: DateTime<Utc>,
}

impl Bench {
    /// The picture.
    pub fn picture(&self) -> &Picture {
        &self.studio.pictures[self.p]
    }
}

/// Does a deed on picture `id` that is at version `given`; what it says besides goes to whoever asked. It is
/// computed before the transaction that keeps it, and kept only when what it leaned on (picture, shelf, settings)
/// is the same there.
pub(in crate::routes) async fn done<T: Send + 'static>(
    app: &mut App,
    on: (Uuid, i64),
    deed: impl FnOnce(&Bench) -> Result<(Deed, T), Fault> + Send + 'static,
) -> Result<(PictureOut, T), Problem> {
    done_once(app, (Once(None), ""), on, deed).await
}

/// The same of an entry of a kind that carries an id of its own: sent twice it changes nothing the second time.
pub(in crate::routes) async fn done_once<T: Send + 'static>(
    app: &mut App,
    (Once(entry), kind): (Once, &str),
    (id, given): (Uuid, i64),
    deed: impl FnOnce(&Bench) -> Result<(Deed, T), Fault> + Send + 'static,
) -> Result<(PictureOut, T), Problem> {
    let now = app.clock.now();
    let loaded = load_around(app, id).await?;
    let (p, photographs) = (loaded.place_of(id)?, loaded.taken(id));
    let studio_id = loaded.stored.id;
    let current = loaded.stored.pictures[p].version;
    // A stale one is not computed; an entry that was sent before is told so first of all.
    let computed = if current == given {
        let studio = loaded.studio.clone();
        let bench = Bench { studio, p, photographs, now };
        app.aside(move || deed(&bench)).await?.map_err(Problem::from)
    } else {
        Err(StoreError::Stale { given, current }.into())
    };
    let mut tx = app.begin().await?;
    let ground = ulvek_store::hold_ground(&mut tx, studio_id).await?;
    if let Some(entry) = entry
        && ulvek_store::was_sent(&mut tx, entry, (kind, id), now).await?
    {
        return Err(Problem::kept_already());
    }
    let (deed, said) = computed?;
    if ground != loaded.state.ground() {
        return Err(Problem::in_the_way());
    }
    let zone = loaded.studio.hours.zone();
    ulvek_store::save_picture(&mut tx, id, given, &deed.picture, &deed.label, now).await?;
    let answer = out(ulvek_store::load_picture(&mut tx, id).await?, zone);
    tx.commit().await?;
    Ok((answer, said))
}

/// A picture as it is now, in the transaction that changed it.
async fn reread(conn: &mut MySqlConnection, id: Uuid) -> Result<PictureOut, Problem> {
    let stored = ulvek_store::load_picture(conn, id).await?;
    let zone = ulvek_store::zone_of(conn, stored.studio).await?;
    Ok(out(stored, zone))
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
    State(mut app): State<App>,
    InStudio(studio): InStudio,
    Body(doc): Body<PictureDoc>,
) -> Result<(StatusCode, [(HeaderName, String); 1], Json<PictureOut>), Problem> {
    let now = app.clock.now();
    let loaded = load(&mut app, studio).await?;
    // Its name within the studio is made here: names of deleted pictures stay taken.
    let picture = Picture { id: Uuid::now_v7().simple().to_string(), ..doc.read() };
    let (around, zone) = (loaded.studio.clone(), loaded.studio.hours.zone());
    let picture = app.aside(move || begin_picture(&around, picture, now)).await??;
    let mut tx = app.begin().await?;
    if ulvek_store::hold_ground_alone(&mut tx, studio).await? != loaded.state.ground() {
        return Err(Problem::in_the_way());
    }
    has_place(ulvek_store::count_pictures(&mut tx, studio).await?)?;
    let id = ulvek_store::create_picture(&mut tx, studio, &picture, now).await?;
    let stored = ulvek_store::load_picture(&mut tx, id).await?;
    tx.commit().await?;
    let location = [(header::LOCATION, format!("/api/pictures/{id}"))];
    Ok((StatusCode::CREATED, location, Json(out(stored, zone))))
}

/// One picture.
#[utoipa::path(get, operation_id = "picture_read", path = "/api/pictures/{id}", tag = "pictures", params(("id" = Uuid, Path)),
    responses((status = 200, body = PictureOut)))]
pub async fn read(
    State(mut app): State<App>,
    InPicture { id, .. }: InPicture,
) -> Result<Json<PictureOut>, Problem> {
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
    State(mut app): State<App>,
    InPicture { id, .. }: InPicture,
    Body(edit): Body<PictureEdit>,
) -> Result<Json<PictureOut>, Problem> {
    let label = label("label", &edit.label)?;
    let (answer, ()) = done(&mut app, (id, edit.version), move |bench| {
        let picture = edit.picture.read();
        let shots = &bench.photographs;
        let picture = edit_picture(&bench.studio, bench.p, picture, shots, bench.now)?;
        Ok((Deed { picture, label }, ()))
    })
    .await?;
    Ok(Json(answer))
}

async fn undo_or_redo(
    app: &mut App,
    (id, studio): (Uuid, Uuid),
    on: OnVersion,
    direction: Direction,
) -> Result<Json<PictureOut>, Problem> {
    let now = app.clock.now();
    let mut tx = with_ground_held(app, studio).await?;
    ulvek_store::undo_picture(&mut tx, id, on.version, direction, now).await?;
    still_fits(&mut tx, id).await?;
    let answer = reread(&mut tx, id).await?;
    tx.commit().await?;
    Ok(Json(answer))
}

/// Takes the last edit of a picture back.
#[utoipa::path(post, operation_id = "picture_undo", path = "/api/pictures/{id}/undo", tag = "pictures", params(("id" = Uuid, Path)),
    request_body = OnVersion,
    responses((status = 200, body = PictureOut)))]
pub async fn undo(
    State(mut app): State<App>,
    InPicture { id, studio }: InPicture,
    Body(on): Body<OnVersion>,
) -> Result<Json<PictureOut>, Problem> {
    undo_or_redo(&mut app, (id, studio), on, Direction::Undo).await
}

/// Makes the edit that was taken back again.
#[utoipa::path(post, operation_id = "picture_redo", path = "/api/pictures/{id}/redo", tag = "pictures", params(("id" = Uuid, Path)),
    request_body = OnVersion,
    responses((status = 200, body = PictureOut)))]
pub async fn redo(
    State(mut app): State<App>,
    InPicture { id, studio }: InPicture,
    Body(on): Body<OnVersion>,
) -> Result<Json<PictureOut>, Problem> {
    undo_or_redo(&mut app, (id, studio), on, Direction::Redo).await
}

/// Takes a picture away; it can be restored.
#[utoipa::path(delete, operation_id = "picture_delete", path = "/api/pictures/{id}", tag = "pictures",
    params(("id" = Uuid, Path), ("version" = i64, Query)),
    responses((status = 204)))]
pub async fn delete(
    State(mut app): State<App>,
    InPicture { id, .. }: InPicture,
    Asked(at): Asked<AtVersion>,
) -> Result<StatusCode, Problem> {
    let now = app.clock.now();
    let mut tx = app.begin().await?;
    ulvek_store::delete_picture(&mut tx, id, at.version, now).await?;
    tx.commit().await?;
    Ok(StatusCode::NO_CONTENT)
}

/// The pictures of a studio that were taken away, the last one first.
#[utoipa::path(get, operation_id = "pictures_away", path = "/api/studios/{id}/pictures/away", tag = "pictures",
    params(("id" = Uuid, Path)), responses((status = 200, body = [AwayOut])))]
pub async fn away(
    State(mut app): State<App>,
    InStudio(id): InStudio,
) -> Result<Json<Vec<AwayOut>>, Problem> {
    let mut conn = app.reading().await?;
    let found = ulvek_store::pictures_away(&mut conn, id).await?;
    let listed = found.into_iter().map(|p| AwayOut {
        id: p.id,
        title: p.title,
        taken_away_at: p.taken_away_at,
    });
    Ok(Json(listed.collect()))
}

/// Brings a picture back that was taken away.
#[utoipa::path(post, operation_id = "picture_restore", path = "/api/pictures/{id}/restore", tag = "pictures", params(("id" = Uuid, Path)),
    responses((status = 200, body = PictureOut)))]
pub async fn restore(
    State(mut app): State<App>,
    AnyPicture { id, studio }: AnyPicture,
) -> Result<Json<PictureOut>, Problem> {
    let mut tx = app.begin().await?;
    ulvek_store::hold_ground_alone(&mut tx, studio).await?;
    has_place(ulvek_store::count_pictures(&mut tx, studio).await?)?;
    ulvek_store::restore_picture(&mut tx, id).await?;
    still_fits(&mut tx, id).await?;
    let answer = reread(&mut tx, id).await?;
    tx.commit().await?;
    Ok(Json(answer))
}

/// A step of every kind as it usually begins on a picture: with the film, area and minutes of its kind,
/// a mix of what is on the shelf, and the place where it belongs.
#[utoipa::path(get, operation_id = "steps_usual", path = "/api/pictures/{id}/usual-steps", tag = "computed",
    params(("id" = Uuid, Path)), responses((status = 200, body = [UsualStep]), (status = 304, description = "nothing changed")))]
pub async fn usual_steps(
    State(mut app): State<App>,
    InPicture { id, studio }: InPicture,
    headers: HeaderMap,
) -> Result<Response, Problem> {
    view(&mut app, studio, &headers, format!("usual steps {id}"), move |scene| {
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
