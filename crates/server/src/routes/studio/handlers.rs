//! Studios: made, imported and exported, their settings, taken away and brought back.

use super::wire::{ListAsked, NewStudio, StudioEdit, StudioListed, StudioOut, UsualAirOut};
use crate::demo::DemoError;
use crate::demo_photographs::Demo;
use crate::extract::{Asked, Body, RawJson};
use crate::formats::{Document, MaterialDoc, StudioDoc, label, read_document, read_json};
use crate::problem::Problem;
use crate::resolved::{AnyStudio, InStudio};
use crate::routes::shared::{AtVersion, HistoryOut, OnVersion};
use crate::state::App;
use axum::Json;
use axum::extract::State;
use axum::http::{HeaderName, StatusCode, header};
use axum::response::IntoResponse;
use sqlx::MySqlConnection;
use ulvek_core::air::AirSeries;
use ulvek_core::deeds::save_settings;
use ulvek_core::mix::starter_shelf;
use ulvek_core::studio::Studio;
use ulvek_store::{Direction, StoredStudio};
use uuid::Uuid;

/// A studio that was made, and where it is.
type Created = (StatusCode, [(HeaderName, String); 1], Json<StudioOut>);

fn created(stored: StoredStudio) -> Created {
    let location = [(header::LOCATION, format!("/api/studios/{}", stored.id))];
    (StatusCode::CREATED, location, Json(out(stored)))
}

/// Every studio, the newest first; with `taken_away=true` those that were taken away.
#[utoipa::path(get, operation_id = "studio_list", path = "/api/studios", tag = "studios",
    params(("taken_away" = Option<bool>, Query)),
    responses((status = 200, body = [StudioListed])))]
pub async fn list(
    State(mut app): State<App>,
    Asked(asked): Asked<ListAsked>,
) -> Result<Json<Vec<StudioListed>>, Problem> {
    let mut conn = app.reading().await?;
    let found = ulvek_store::list_studios(&mut conn, asked.taken_away).await?;
    let listed = found.into_iter().map(|s| StudioListed {
        id: s.id,
        name: s.name,
        created_at: s.created_at,
    });
    Ok(Json(listed.collect()))
}

/// A new studio with the starter shelf and no pictures.
#[utoipa::path(post, operation_id = "studio_create", path = "/api/studios", tag = "studios", request_body = NewStudio,
    responses((status = 201, body = StudioOut)))]
pub async fn create(
    State(mut app): State<App>,
    Body(new): Body<NewStudio>,
) -> Result<Created, Problem> {
    let materials = starter_shelf().map_err(|cause| {
        tracing::error!(%cause, "the starter shelf is broken");
        Problem::internal()
    })?;
    let studio = Studio { materials, ..new.studio.read(AirSeries::constant(new.air.read()))? };
    studio.check()?;
    stored(&mut app, &studio).await
}

/// A fresh demo studio, its dates hung on now.
#[utoipa::path(post, operation_id = "studio_create_demo", path = "/api/studios/demo", tag = "studios",
    responses((status = 201, body = StudioOut)))]
pub async fn create_demo(State(mut app): State<App>) -> Result<Created, Problem> {
    let broken = |cause: DemoError| {
        tracing::error!(%cause, "the demo studio is broken");
        Problem::internal()
    };
    let now = app.clock.now();
    let demo = app.aside(move || Demo::made(now)).await?.map_err(broken)?;
    let mut tx = app.begin().await?;
    let id = demo.keep(&mut tx, now).await.map_err(broken)?;
    let stored = ulvek_store::load_studio(&mut tx, id).await?;
    tx.commit().await?;
    Ok(created(stored))
}

/// Takes in a studio document (at most 16 MB) as a new studio: all of it or nothing.
#[utoipa::path(post, operation_id = "studio_import", path = "/api/studios/import", tag = "studios", request_body = Document,
    responses((status = 201, body = StudioOut)))]
pub async fn import(
    State(mut app): State<App>,
    RawJson(bytes): RawJson,
) -> Result<Created, Problem> {
    let studio = app
        .aside(move || {
            // What is no JSON at all is told from what does not fit.
            read_json::<serde::de::IgnoredAny>(&bytes)?;
            read_document(&bytes).map_err(Problem::from)
        })
        .await??;
    stored(&mut app, &studio).await
}

async fn stored(app: &mut App, studio: &Studio) -> Result<Created, Problem> {
    let now = app.clock.now();
    let mut tx = app.begin().await?;
    let id = ulvek_store::create_studio(&mut tx, studio, now).await?;
    let stored = ulvek_store::load_studio(&mut tx, id).await?;
    tx.commit().await?;
    Ok(created(stored))
}

fn out(stored: StoredStudio) -> StudioOut {
    let zone = stored.studio.hours.zone();
    StudioOut {
        id: stored.id,
        version: stored.version,
        history: HistoryOut::from(stored.history),
        studio: StudioDoc::of(&stored.studio),
        air: UsualAirOut::of(&stored.studio, stored.air),
        materials: stored.studio.materials.iter().map(|m| MaterialDoc::of(m, zone)).collect(),
    }
}

/// A studio as it is now, in the transaction that changed it.
pub(in crate::routes) async fn reread(
    conn: &mut MySqlConnection,
    id: Uuid,
) -> Result<Json<StudioOut>, Problem> {
    Ok(Json(out(ulvek_store::load_studio(conn, id).await?)))
}

/// Settings and shelf of a studio.
#[utoipa::path(get, operation_id = "studio_read", path = "/api/studios/{id}", tag = "studios", params(("id" = Uuid, Path)),
    responses((status = 200, body = StudioOut)))]
pub async fn read(
    State(mut app): State<App>,
    InStudio(id): InStudio,
) -> Result<Json<StudioOut>, Problem> {
    let mut tx = app.reading().await?;
    let answer = reread(&mut tx, id).await?;
    tx.commit().await?;
    Ok(answer)
}

/// Changes the settings of a studio.
#[utoipa::path(put, operation_id = "studio_save", path = "/api/studios/{id}", tag = "studios", params(("id" = Uuid, Path)),
    request_body = StudioEdit,
    responses((status = 200, body = StudioOut)))]
pub async fn save(
    State(mut app): State<App>,
    InStudio(id): InStudio,
    Body(edit): Body<StudioEdit>,
) -> Result<Json<StudioOut>, Problem> {
    let label = label("label", &edit.label)?;
    let now = app.clock.now();
    let mut tx = app.begin().await?;
    let before = ulvek_store::load_studio(&mut tx, id).await?.studio;
    let mut studio = save_settings(&before, edit.studio.read(before.air.clone())?)?;
    let air = edit.air.as_ref().filter(|air| air.usual.read() != *before.air.usual());
    // Of settings and room each is saved that was changed, the settings also when nothing was.
    if air.is_none() || studio != *before {
        ulvek_store::save_settings(&mut tx, id, edit.version, &studio, &label, now).await?;
    }
    if let Some(air) = air {
        studio.air = studio.air.kept_at(air.usual.read());
        studio.check_air()?;
        let label = "change the room";
        ulvek_store::save_air(&mut tx, id, air.version, &studio, label, now).await?;
    }
    let answer = reread(&mut tx, id).await?;
    tx.commit().await?;
    Ok(answer)
}

async fn undo_or_redo(
    mut app: App,
    id: Uuid,
    on: OnVersion,
    direction: Direction,
) -> Result<Json<StudioOut>, Problem> {
    let mut tx = app.begin().await?;
    ulvek_store::undo_settings(&mut tx, id, on.version, direction).await?;
    ulvek_store::load_studio(&mut tx, id).await?.studio.check()?;
    let answer = reread(&mut tx, id).await?;
    tx.commit().await?;
    Ok(answer)
}

/// Takes the last change of the settings back.
#[utoipa::path(post, operation_id = "studio_undo", path = "/api/studios/{id}/undo", tag = "studios", params(("id" = Uuid, Path)),
    request_body = OnVersion,
    responses((status = 200, body = StudioOut)))]
pub async fn undo(
    State(app): State<App>,
    InStudio(id): InStudio,
    Body(on): Body<OnVersion>,
) -> Result<Json<StudioOut>, Problem> {
    undo_or_redo(app, id, on, Direction::Undo).await
}

/// Makes the change of the settings that was taken back again.
#[utoipa::path(post, operation_id = "studio_redo", path = "/api/studios/{id}/redo", tag = "studios", params(("id" = Uuid, Path)),
    request_body = OnVersion,
    responses((status = 200, body = StudioOut)))]
pub async fn redo(
    State(app): State<App>,
    InStudio(id): InStudio,
    Body(on): Body<OnVersion>,
) -> Result<Json<StudioOut>, Problem> {
    undo_or_redo(app, id, on, Direction::Redo).await
}

/// The whole studio as a studio document.
#[utoipa::path(get, operation_id = "studio_export", path = "/api/studios/{id}/document", tag = "studios", params(("id" = Uuid, Path)),
    responses((status = 200, body = Document)))]
pub async fn export(
    State(mut app): State<App>,
    InStudio(id): InStudio,
) -> Result<impl IntoResponse, Problem> {
    // Settings, shelf and pictures of one moment.
    let mut tx = app.reading().await?;
    let stored = ulvek_store::load_studio(&mut tx, id).await?;
    tx.commit().await?;
    let headers = [(header::CONTENT_DISPOSITION, "attachment; filename=\"studio.ulvek.json\"")];
    Ok((headers, Json(Document::of(&stored.studio))))
}

/// Takes a studio away with all that is in it; it can be brought back.
#[utoipa::path(delete, operation_id = "studio_delete", path = "/api/studios/{id}", tag = "studios",
    params(("id" = Uuid, Path), ("version" = i64, Query)),
    responses((status = 204, description = "it is away")))]
pub async fn delete(
    State(mut app): State<App>,
    InStudio(id): InStudio,
    Asked(at): Asked<AtVersion>,
) -> Result<StatusCode, Problem> {
    let now = app.clock.now();
    let mut tx = app.begin().await?;
    ulvek_store::delete_studio(&mut tx, id, at.version, now).await?;
    tx.commit().await?;
    app.searches.stop(id);
    Ok(StatusCode::NO_CONTENT)
}

/// Brings a studio back that was taken away.
#[utoipa::path(post, operation_id = "studio_restore", path = "/api/studios/{id}/restore", tag = "studios", params(("id" = Uuid, Path)),
    responses((status = 200, body = StudioOut)))]
pub async fn restore(
    State(mut app): State<App>,
    AnyStudio(id): AnyStudio,
) -> Result<Json<StudioOut>, Problem> {
    let mut tx = app.begin().await?;
    ulvek_store::restore_studio(&mut tx, id).await?;
    let answer = reread(&mut tx, id).await?;
    tx.commit().await?;
    Ok(answer)
}
