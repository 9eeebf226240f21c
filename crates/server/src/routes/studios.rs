//! Studios: settings, shelf, import and export.

use super::wire::{HistoryOut, NewStudio, OnVersion, StudioEdit, StudioListed, StudioOut};
use crate::demo::{DemoError, demo_studio};
use crate::demo_photographs::keep_photographs;
use crate::extract::{Body, Key, Raw};
use crate::formats::{
    Document, check_studio, material_doc, read_document, studio_doc, write_document,
};
use crate::problem::Problem;
use crate::state::{App, compute};
use axum::Json;
use axum::extract::State;
use axum::http::{StatusCode, header};
use axum::response::IntoResponse;
use ulvek_core::studio::{StudioDocument, starter_shelf};
use ulvek_store::{Direction, StoredStudio};
use uuid::Uuid;

/// Every studio, the newest first.
#[utoipa::path(get, operation_id = "studio_list", path = "/api/studios", tag = "studios",
    responses((status = 200, body = [StudioListed]), (status = 503, body = Problem)))]
pub async fn list(State(app): State<App>) -> Result<Json<Vec<StudioListed>>, Problem> {
    let mut conn = app.pool.acquire().await?;
    let found = ulvek_store::list_studios(&mut conn).await?;
    let listed = found.into_iter().map(|s| StudioListed {
        id: s.id,
        name: s.name,
        created_at: s.created_at,
    });
    Ok(Json(listed.collect()))
}

/// A new studio with the starter shelf and no pictures.
#[utoipa::path(post, operation_id = "studio_create", path = "/api/studios", tag = "studios", request_body = NewStudio,
    responses((status = 201, body = StudioOut), (status = 422, body = Problem)))]
pub async fn create(
    State(app): State<App>,
    Body(new): Body<NewStudio>,
) -> Result<(StatusCode, Json<StudioOut>), Problem> {
    let mut document = check_studio(&new.studio, &new.air)?;
    document.materials = starter_shelf().map_err(|cause| {
        tracing::error!(%cause, "the starter shelf is broken");
        Problem::internal()
    })?;
    stored(&app, &document).await
}

/// A fresh demo studio, its dates hung on now.
#[utoipa::path(post, operation_id = "studio_create_demo", path = "/api/studios/demo", tag = "studios",
    responses((status = 201, body = StudioOut)))]
pub async fn create_demo(State(app): State<App>) -> Result<(StatusCode, Json<StudioOut>), Problem> {
    let broken = |cause: DemoError| {
        tracing::error!(%cause, "the demo studio is broken");
        Problem::internal()
    };
    let now = app.clock.now();
    let document = demo_studio(now).map_err(broken)?;
    let mut tx = app.pool.begin().await?;
    let id = ulvek_store::create_studio(&mut tx, &document, now).await?;
    let stored = ulvek_store::load_studio(&mut tx, id).await?;
    keep_photographs(&mut tx, &stored, now).await.map_err(broken)?;
    tx.commit().await?;
    Ok((StatusCode::CREATED, Json(out(stored))))
}

/// Takes in a studio document (at most 16 MB) as a new studio: all of it or nothing.
#[utoipa::path(post, operation_id = "studio_import", path = "/api/studios/import", tag = "studios", request_body = Document,
    responses((status = 201, body = StudioOut), (status = 413, body = Problem), (status = 422, body = Problem)))]
pub async fn import(
    State(app): State<App>,
    Raw(bytes): Raw,
) -> Result<(StatusCode, Json<StudioOut>), Problem> {
    let document = compute(move || read_document(&bytes)).await??;
    stored(&app, &document).await
}

async fn stored(
    app: &App,
    document: &StudioDocument,
) -> Result<(StatusCode, Json<StudioOut>), Problem> {
    let mut tx = app.pool.begin().await?;
    let id = ulvek_store::create_studio(&mut tx, document, app.clock.now()).await?;
    let stored = ulvek_store::load_studio(&mut tx, id).await?;
    tx.commit().await?;
    Ok((StatusCode::CREATED, Json(out(stored))))
}

fn out(stored: StoredStudio) -> StudioOut {
    let (studio, air) = studio_doc(&stored.document);
    let zone = stored.document.hours.zone();
    StudioOut {
        id: stored.id,
        version: stored.version,
        history: HistoryOut::from(stored.history),
        studio,
        air,
        materials: stored.document.materials.iter().map(|m| material_doc(m, zone)).collect(),
    }
}

pub(super) async fn reread(app: &App, id: Uuid) -> Result<Json<StudioOut>, Problem> {
    let mut conn = app.pool.acquire().await?;
    Ok(Json(out(ulvek_store::load_studio(&mut conn, id).await?)))
}

/// Settings and shelf of a studio.
#[utoipa::path(get, operation_id = "studio_read", path = "/api/studios/{id}", tag = "studios", params(("id" = Uuid, Path)),
    responses((status = 200, body = StudioOut), (status = 404, body = Problem)))]
pub async fn read(State(app): State<App>, Key(id): Key) -> Result<Json<StudioOut>, Problem> {
    reread(&app, id).await
}

/// Changes the settings of a studio.
#[utoipa::path(put, operation_id = "studio_save", path = "/api/studios/{id}", tag = "studios", params(("id" = Uuid, Path)),
    request_body = StudioEdit,
    responses((status = 200, body = StudioOut), (status = 404, body = Problem),
              (status = 409, body = Problem), (status = 422, body = Problem)))]
pub async fn save(
    State(app): State<App>,
    Key(id): Key,
    Body(edit): Body<StudioEdit>,
) -> Result<Json<StudioOut>, Problem> {
    let document = check_studio(&edit.studio, &edit.air)?;
    let mut tx = app.pool.begin().await?;
    let now = app.clock.now();
    ulvek_store::save_settings(&mut tx, id, edit.version, &document, &edit.label, now).await?;
    tx.commit().await?;
    reread(&app, id).await
}

async fn step(
    app: App,
    id: Uuid,
    on: OnVersion,
    direction: Direction,
) -> Result<Json<StudioOut>, Problem> {
    let mut tx = app.pool.begin().await?;
    ulvek_store::step_settings(&mut tx, id, on.version, direction).await?;
    tx.commit().await?;
    reread(&app, id).await
}

/// Takes the last change of the settings back.
#[utoipa::path(post, operation_id = "studio_undo", path = "/api/studios/{id}/undo", tag = "studios", params(("id" = Uuid, Path)),
    request_body = OnVersion,
    responses((status = 200, body = StudioOut), (status = 409, body = Problem)))]
pub async fn undo(
    State(app): State<App>,
    Key(id): Key,
    Body(on): Body<OnVersion>,
) -> Result<Json<StudioOut>, Problem> {
    step(app, id, on, Direction::Undo).await
}

/// Makes the change of the settings that was taken back again.
#[utoipa::path(post, operation_id = "studio_redo", path = "/api/studios/{id}/redo", tag = "studios", params(("id" = Uuid, Path)),
    request_body = OnVersion,
    responses((status = 200, body = StudioOut), (status = 409, body = Problem)))]
pub async fn redo(
    State(app): State<App>,
    Key(id): Key,
    Body(on): Body<OnVersion>,
) -> Result<Json<StudioOut>, Problem> {
    step(app, id, on, Direction::Redo).await
}

/// The whole studio as a studio document.
#[utoipa::path(get, operation_id = "studio_export", path = "/api/studios/{id}/document", tag = "studios", params(("id" = Uuid, Path)),
    responses((status = 200, body = Document), (status = 404, body = Problem)))]
pub async fn export(State(app): State<App>, Key(id): Key) -> Result<impl IntoResponse, Problem> {
    let mut conn = app.pool.acquire().await?;
    let stored = ulvek_store::load_studio(&mut conn, id).await?;
    let headers = [(header::CONTENT_DISPOSITION, "attachment; filename=\"studio.ulvek.json\"")];
    Ok((headers, Json(write_document(&stored.document))))
}
