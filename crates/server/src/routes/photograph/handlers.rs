//! Photographs of pictures: brought, shown, named, taken away and brought back.

use super::wire::{PhotographEdit, PhotographOut, Said};
use crate::extract::{Asked, Body, Raw};
use crate::formats::Moment;
use crate::photograph::{Developed, Taken, develop};
use crate::problem::Problem;
use crate::resolved::{AnyPhotograph, InPhotograph, InPicture};
use crate::routes::shared::AtVersion;
use crate::state::App;
use axum::Json;
use axum::extract::State;
use axum::http::{HeaderName, StatusCode, header};
use axum::response::IntoResponse;
use chrono::{DateTime, Duration, TimeZone, Utc};
use sqlx::MySqlConnection;
use ulvek_core::deeds::CLOCKS_APART_S;
use ulvek_core::picture::Picture;
use ulvek_core::quantity::{check_line, check_moment};
use ulvek_store::{NewPhotograph, Rendition};
use uuid::Uuid;

fn check_said(
    picture: &Picture,
    step: Option<&str>,
    caption: &str,
    taken_at: Option<Moment>,
    now: DateTime<Utc>,
) -> Result<(), Problem> {
    step.map(|id| picture.step_called(id)).transpose()?;
    if !caption.trim().is_empty() {
        check_line("caption", caption)?;
    }
    if taken_at.is_some_and(|at| at.utc() > now + Duration::seconds(CLOCKS_APART_S)) {
        let reason = "a photograph cannot have been taken in the future";
        return Err(Problem::refused("taken_at", reason));
    }
    Ok(())
}

/// Brings a photograph of a picture: the bytes of a JPEG, PNG or WebP file of at most 16 MB. Type
/// and size are judged by the content; it is turned upright, and everything that is not picture, the
/// place where it was taken among it, is left out.
#[utoipa::path(post, operation_id = "photograph_add", path = "/api/pictures/{id}/photographs", tag = "photographs",
    params(("id" = Uuid, Path), ("taken_at" = Option<DateTime<Utc>>, Query), ("step" = Option<String>, Query),
           ("caption" = Option<String>, Query)),
    request_body(content = String, content_type = "application/octet-stream"),
    responses((status = 201, body = PhotographOut)))]
pub async fn add(
    State(mut app): State<App>,
    InPicture { id, .. }: InPicture,
    Asked(said): Asked<Said>,
    Raw(bytes): Raw,
) -> Result<(StatusCode, [(HeaderName, String); 1], Json<PhotographOut>), Problem> {
    let now = app.clock.now();
    let mut reading = app.reading().await?;
    let stored = ulvek_store::load_picture(&mut reading, id).await?;
    let studio = ulvek_store::load_studio(&mut reading, stored.studio).await?.studio;
    reading.commit().await?;
    check_said(&stored.picture, said.step.as_deref(), &said.caption, said.taken_at, now)?;
    let place = app.darkroom.place(bytes.len()).await?;
    // The place is held as long as the work takes, also when whoever sent it has hung up.
    let developed: Developed = app
        .aside(move || {
            let developed = develop(&bytes);
            drop(place);
            developed
        })
        .await?
        .map_err(|e| Problem::refused("", e.to_string()))?;
    let zone = studio.hours.zone();
    let by_camera = developed.taken.and_then(|taken| match taken {
        Taken::At(at) => Some(at.with_timezone(&Utc)),
        Taken::Local(at) => zone.from_local_datetime(&at).earliest().map(|t| t.with_timezone(&Utc)),
    });
    // A camera whose clock is wrong says nothing.
    let by_camera = by_camera.filter(|at| *at <= now && check_moment(*at).is_ok());
    let new = NewPhotograph {
        taken_at: said.taken_at.map(Moment::utc).or(by_camera).unwrap_or(now),
        step: said.step,
        caption: said.caption.trim().to_owned(),
        size: developed.size,
        whole: developed.whole,
        small: developed.small,
    };
    let mut tx = app.begin().await?;
    let key = ulvek_store::add_photograph(&mut tx, id, &new, now).await?;
    let answer = Json(one(&mut tx, id, key).await?);
    tx.commit().await?;
    let location = [(header::LOCATION, format!("/api/photographs/{key}/whole"))];
    Ok((StatusCode::CREATED, location, answer))
}

async fn one(
    conn: &mut MySqlConnection,
    picture: Uuid,
    key: Uuid,
) -> Result<PhotographOut, Problem> {
    let all = ulvek_store::photographs_of(conn, picture).await?;
    let found = all.iter().find(|f| f.id == key);
    found.map(PhotographOut::from).ok_or_else(|| Problem::not_found("such photograph"))
}

/// The photographs of a picture, the first taken first.
#[utoipa::path(get, operation_id = "photographs", path = "/api/pictures/{id}/photographs", tag = "photographs",
    params(("id" = Uuid, Path)),
    responses((status = 200, body = [PhotographOut])))]
pub async fn list(
    State(mut app): State<App>,
    InPicture { id, .. }: InPicture,
) -> Result<Json<Vec<PhotographOut>>, Problem> {
    let mut conn = app.reading().await?;
    ulvek_store::load_picture(&mut conn, id).await?;
    let all = ulvek_store::photographs_of(&mut conn, id).await?;
    Ok(Json(all.iter().map(PhotographOut::from).collect()))
}

async fn pixels(
    mut app: App,
    id: Uuid,
    rendition: Rendition,
) -> Result<impl IntoResponse, Problem> {
    let mut conn = app.reading().await?;
    let bytes = ulvek_store::load_rendition(&mut conn, id, rendition).await?;
    let headers = [
        (header::CONTENT_TYPE, "image/jpeg"),
        // The pixels of a key never change.
        (header::CACHE_CONTROL, "private, max-age=31536000, immutable"),
        (header::X_CONTENT_TYPE_OPTIONS, "nosniff"),
    ];
    Ok((headers, bytes))
}

/// A photograph as large as it is kept.
#[utoipa::path(get, operation_id = "photograph_whole", path = "/api/photographs/{id}/whole", tag = "photographs",
    params(("id" = Uuid, Path)),
    responses((status = 200, content_type = "image/jpeg", body = String)))]
pub async fn whole(
    State(app): State<App>,
    InPhotograph { id, .. }: InPhotograph,
) -> Result<impl IntoResponse, Problem> {
    pixels(app, id, Rendition::Whole).await
}

/// A photograph, small.
#[utoipa::path(get, operation_id = "photograph_small", path = "/api/photographs/{id}/small", tag = "photographs",
    params(("id" = Uuid, Path)),
    responses((status = 200, content_type = "image/jpeg", body = String)))]
pub async fn small(
    State(app): State<App>,
    InPhotograph { id, .. }: InPhotograph,
) -> Result<impl IntoResponse, Problem> {
    pixels(app, id, Rendition::Small).await
}

/// Changes what is said of a photograph.
#[utoipa::path(put, operation_id = "photograph_save", path = "/api/photographs/{id}", tag = "photographs",
    params(("id" = Uuid, Path)), request_body = PhotographEdit,
    responses((status = 200, body = PhotographOut)))]
pub async fn save(
    State(mut app): State<App>,
    InPhotograph { id: photograph, picture: id }: InPhotograph,
    Body(edit): Body<PhotographEdit>,
) -> Result<Json<PhotographOut>, Problem> {
    let now = app.clock.now();
    let mut tx = app.begin().await?;
    let picture = ulvek_store::load_picture(&mut tx, id).await?.picture;
    let (step, caption) = (edit.step.as_deref(), edit.caption.trim());
    check_said(&picture, step, caption, Some(edit.taken_at), now)?;
    let said = (edit.taken_at.utc(), step, caption);
    ulvek_store::name_photograph(&mut tx, (id, photograph), edit.version, said, now).await?;
    let answer = Json(one(&mut tx, id, photograph).await?);
    tx.commit().await?;
    Ok(answer)
}

/// Takes a photograph away; it can be restored.
#[utoipa::path(delete, operation_id = "photograph_delete", path = "/api/photographs/{id}", tag = "photographs",
    params(("id" = Uuid, Path), ("version" = i64, Query)),
    responses((status = 204)))]
pub async fn delete(
    State(mut app): State<App>,
    InPhotograph { id, picture }: InPhotograph,
    Asked(at): Asked<AtVersion>,
) -> Result<StatusCode, Problem> {
    let now = app.clock.now();
    let mut tx = app.begin().await?;
    ulvek_store::delete_photograph(&mut tx, (picture, id), at.version, now).await?;
    tx.commit().await?;
    Ok(StatusCode::NO_CONTENT)
}

/// Brings a photograph back that was taken away.
#[utoipa::path(post, operation_id = "photograph_restore", path = "/api/photographs/{id}/restore", tag = "photographs",
    params(("id" = Uuid, Path)),
    responses((status = 200, body = PhotographOut)))]
pub async fn restore(
    State(mut app): State<App>,
    AnyPhotograph { id, picture }: AnyPhotograph,
) -> Result<Json<PhotographOut>, Problem> {
    let now = app.clock.now();
    let mut tx = app.begin().await?;
    ulvek_store::restore_photograph(&mut tx, (picture, id), now).await?;
    let answer = Json(one(&mut tx, picture, id).await?);
    tx.commit().await?;
    Ok(answer)
}
