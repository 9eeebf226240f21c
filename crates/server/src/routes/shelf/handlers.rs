//! The shelf: materials, tubs and own ways of working, edited whole.

use super::wire::{ShelfEdit, ShelfMaterial, ShelfOut, ShelfTub, WaysAsked};
use crate::extract::{Asked, Body};
use crate::formats::{MaterialDoc, Moment, TubDoc, WayDoc, label, read_shelf, with_shelf};
use crate::problem::Problem;
use crate::resolved::InStudio;
use crate::routes::application::wire::WayOut;
use crate::routes::shared::{HistoryOut, OnVersion};
use crate::state::App;
use axum::Json;
use axum::extract::State;
use chrono::{DateTime, Utc};
use ulvek_core::deeds::put_shelf;
use ulvek_core::mix::Lightfastness;
use ulvek_core::picture::{Step, WAYS};
use ulvek_core::studio::{TubCondition, TubTrouble};
use ulvek_store::{Direction, StoredStudio};
use uuid::Uuid;

fn out(stored: StoredStudio, now: DateTime<Utc>) -> ShelfOut {
    let studio = &stored.studio;
    let zone = studio.hours.zone();
    let materials = studio.materials.iter().map(|m| ShelfMaterial {
        material: MaterialDoc::of(m, zone),
        left_ml: studio.left_of(&m.id),
        used: studio.uses(&m.id),
        lightfastness: m
            .lightfastness()
            .filter(|_| !m.pigments.is_empty())
            .map(Lightfastness::said),
        hurts: m.hurts(),
    });
    let tubs = studio.tubs.iter().map(|t| {
        let (condition, trouble) = match t.condition(now) {
            TubCondition::Good => ("good", None),
            TubCondition::Past => ("past", None),
            TubCondition::Spoiled(trouble) => ("spoiled", Some(trouble)),
        };
        ShelfTub {
            tub: TubDoc::of(t, zone),
            left_ml: studio.left_in(t),
            last_good: Moment::local(t.last_good(), zone),
            condition: condition.into(),
            trouble: trouble.map(TubTrouble::word).map(Into::into),
            used: studio.uses_tub(&t.id),
        }
    });
    ShelfOut {
        version: stored.shelf.version,
        materials: materials.collect(),
        tubs: tubs.collect(),
        ways: studio.ways.iter().map(|w| WayDoc::of(w, zone)).collect(),
        history: HistoryOut::from(stored.shelf.history),
    }
}

/// The shelf of a studio.
#[utoipa::path(get, operation_id = "shelf_read", path = "/api/studios/{id}/shelf", tag = "shelf", params(("id" = Uuid, Path)),
    responses((status = 200, body = ShelfOut)))]
pub async fn read(
    State(mut app): State<App>,
    InStudio(id): InStudio,
) -> Result<Json<ShelfOut>, Problem> {
    let mut tx = app.reading().await?;
    let stored = ulvek_store::load_studio(&mut tx, id).await?;
    tx.commit().await?;
    Ok(Json(out(stored, app.clock.now())))
}

/// Every way of working, the painter's own first, with its steps as they begin in this studio: with an
/// isolation coat where the studio lays one, and with minutes for the size that is asked for. The painter's own
/// keep the minutes that the painter gave them.
#[utoipa::path(get, operation_id = "ways", path = "/api/studios/{id}/ways", tag = "shelf",
    params(("id" = Uuid, Path), ("width_cm" = Option<f64>, Query), ("height_cm" = Option<f64>, Query)),
    responses((status = 200, body = [WayOut])))]
pub async fn ways(
    State(mut app): State<App>,
    InStudio(id): InStudio,
    Asked(asked): Asked<WaysAsked>,
) -> Result<Json<Vec<WayOut>>, Problem> {
    let size = asked.size()?;
    let mut tx = app.reading().await?;
    let studio = ulvek_store::load_studio(&mut tx, id).await?.studio;
    tx.commit().await?;
    let zone = studio.hours.zone();
    let way = |named: (&str, &str, &str), steps: Vec<Step>| {
        WayOut::of(named, &studio.begun(size, steps), zone)
    };
    let own = studio.ways.iter().map(|w| way((&w.id, &w.name, &w.why), w.steps.clone()));
    let mut all: Vec<WayOut> = own.collect();
    let usual = WAYS.iter().map(|w| way((w.id, w.name, w.why), w.steps_on(size)));
    all.extend(usual);
    Ok(Json(all))
}

/// Replaces the shelf of a studio.
#[utoipa::path(put, operation_id = "shelf_save", path = "/api/studios/{id}/shelf", tag = "shelf", params(("id" = Uuid, Path)),
    request_body = ShelfEdit,
    responses((status = 200, body = ShelfOut)))]
pub async fn save(
    State(mut app): State<App>,
    InStudio(id): InStudio,
    Body(edit): Body<ShelfEdit>,
) -> Result<Json<ShelfOut>, Problem> {
    let now = app.clock.now();
    let label = label("label", &edit.label)?;
    let read = read_shelf(&edit.materials, &edit.tubs, &edit.ways)?;
    let mut reading = app.reading().await?;
    let before = ulvek_store::load_studio(&mut reading, id).await?.studio;
    reading.commit().await?;
    let studio = put_shelf(&before, with_shelf(before.as_ref().clone(), read))?;
    let mut tx = app.begin().await?;
    ulvek_store::save_shelf(&mut tx, id, edit.version, &studio, &label, now).await?;
    // From here on no picture can begin to use what is no longer there; one may have meanwhile.
    let stored = ulvek_store::load_studio(&mut tx, id).await?;
    stored.studio.check_shelf()?;
    let answer = Json(out(stored, now));
    tx.commit().await?;
    Ok(answer)
}

async fn undo_or_redo(
    mut app: App,
    id: Uuid,
    on: OnVersion,
    direction: Direction,
) -> Result<Json<ShelfOut>, Problem> {
    let now = app.clock.now();
    let mut tx = app.begin().await?;
    ulvek_store::undo_shelf(&mut tx, id, on.version, direction).await?;
    let stored = ulvek_store::load_studio(&mut tx, id).await?;
    stored.studio.check_shelf()?;
    let answer = Json(out(stored, now));
    tx.commit().await?;
    Ok(answer)
}

/// Takes the last change of the shelf back.
#[utoipa::path(post, operation_id = "shelf_undo", path = "/api/studios/{id}/shelf/undo", tag = "shelf", params(("id" = Uuid, Path)),
    request_body = OnVersion,
    responses((status = 200, body = ShelfOut)))]
pub async fn undo(
    State(app): State<App>,
    InStudio(id): InStudio,
    Body(on): Body<OnVersion>,
) -> Result<Json<ShelfOut>, Problem> {
    undo_or_redo(app, id, on, Direction::Undo).await
}

/// Makes the change of the shelf that was taken back again.
#[utoipa::path(post, operation_id = "shelf_redo", path = "/api/studios/{id}/shelf/redo", tag = "shelf", params(("id" = Uuid, Path)),
    request_body = OnVersion,
    responses((status = 200, body = ShelfOut)))]
pub async fn redo(
    State(app): State<App>,
    InStudio(id): InStudio,
    Body(on): Body<OnVersion>,
) -> Result<Json<ShelfOut>, Problem> {
    undo_or_redo(app, id, on, Direction::Redo).await
}
