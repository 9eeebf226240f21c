//! The shelf: materials, tubs and own ways of working, edited whole.

use super::wire::{HistoryOut, OnVersion};
use crate::extract::{Body, Key};
use crate::formats::{
    MaterialDoc, TubDoc, WayDoc, check_shelf, label, local, material_doc, tub_doc, way_doc,
};
use crate::problem::Problem;
use crate::state::{App, commit};
use axum::Json;
use axum::extract::State;
use chrono::{DateTime, FixedOffset, Utc};
use serde::{Deserialize, Serialize};
use ulvek_core::studio::{Condition, StudioDocument, Trouble};
use ulvek_store::{Direction, StoredStudio};
use utoipa::ToSchema;
use uuid::Uuid;

/// A material with what is computed of it.
#[derive(Serialize, ToSchema)]
pub struct ShelfMaterial {
    /// The material.
    pub material: MaterialDoc,
    /// What is left of it [ml], when its stock is kept.
    #[schema(required)]
    pub left_ml: Option<f64>,
    /// Whether a picture, a tub or a way uses it: then it can be put away, but not taken out.
    pub used: bool,
}

/// A tub with what is computed of it.
#[derive(Serialize, ToSchema)]
pub struct ShelfTub {
    /// The tub.
    pub tub: TubDoc,
    /// What is left in it [ml].
    pub left_ml: f64,
    /// The last moment it is good for.
    pub last_good: DateTime<FixedOffset>,
    /// `good`, `past` or `spoiled`.
    pub condition: String,
    /// What was found in it, when it is spoiled.
    #[schema(required)]
    pub trouble: Option<String>,
    /// Whether a picture was or is to be painted from it.
    pub used: bool,
}

/// A shelf.
#[derive(Serialize, ToSchema)]
pub struct ShelfOut {
    /// Its version.
    pub version: i64,
    /// What can be undone and redone.
    pub history: HistoryOut,
    /// Paints, mediums, varnishes.
    pub materials: Vec<ShelfMaterial>,
    /// Pre-mixed colour.
    pub tubs: Vec<ShelfTub>,
    /// Own ways of working.
    pub ways: Vec<WayDoc>,
}

/// A shelf after an edit.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ShelfEdit {
    /// The version the edit was made on.
    pub version: i64,
    /// What the edit did, for undo.
    pub label: String,
    /// Paints, mediums, varnishes.
    pub materials: Vec<MaterialDoc>,
    /// Pre-mixed colour.
    pub tubs: Vec<TubDoc>,
    /// Own ways of working.
    pub ways: Vec<WayDoc>,
}

fn out(stored: StoredStudio, now: DateTime<Utc>) -> ShelfOut {
    let document = &stored.document;
    let zone = document.hours.zone();
    let materials = document.materials.iter().map(|m| ShelfMaterial {
        material: material_doc(m, zone),
        left_ml: document.left_of(&m.id),
        used: document.uses(&m.id),
    });
    let tubs = document.tubs.iter().map(|t| {
        let (condition, trouble) = match t.condition(now) {
            Condition::Good => ("good", None),
            Condition::Past => ("past", None),
            Condition::Spoiled(trouble) => ("spoiled", Some(trouble)),
        };
        ShelfTub {
            tub: tub_doc(t, zone),
            left_ml: document.left_in(t),
            last_good: local(t.last_good(), zone),
            condition: condition.into(),
            trouble: trouble.map(Trouble::word).map(Into::into),
            used: uses_tub(document, &t.id),
        }
    });
    ShelfOut {
        version: stored.shelf.version,
        materials: materials.collect(),
        tubs: tubs.collect(),
        ways: document.ways.iter().map(|w| way_doc(w, zone)).collect(),
        history: HistoryOut::from(stored.shelf.history),
    }
}

fn uses_tub(document: &StudioDocument, id: &str) -> bool {
    document.pictures.iter().flat_map(|p| &p.steps).any(|s| s.tub.as_deref() == Some(id))
}

/// What the pictures use must be on the shelf: material by material and tub by tub.
fn holds_all(document: &StudioDocument) -> Result<(), Problem> {
    let steps = document.pictures.iter().flat_map(|p| p.steps.iter().map(move |s| (p, s)));
    for (picture, step) in steps {
        let at = || format!("{} of \"{}\"", step.title(), picture.title);
        if let Some(part) = step.mix.iter().find(|p| document.material(&p.material).is_none()) {
            let reason = format!(
                "\"{}\" is used in {}: put it away instead of taking it out",
                part.material,
                at()
            );
            return Err(Problem::refused("materials", reason));
        }
        if let Some(tub) = step.tub.as_deref().filter(|id| document.tub(id).is_none()) {
            let reason = format!("the tub \"{tub}\" is used in {}: put it away instead", at());
            return Err(Problem::refused("tubs", reason));
        }
    }
    Ok(())
}

/// The shelf of a studio.
#[utoipa::path(get, operation_id = "shelf_read", path = "/api/studios/{id}/shelf", tag = "shelf", params(("id" = Uuid, Path)),
    responses((status = 200, body = ShelfOut)))]
pub async fn read(State(app): State<App>, Key(id): Key) -> Result<Json<ShelfOut>, Problem> {
    let mut tx = app.reading().await?;
    let stored = ulvek_store::load_studio(&mut tx, id).await?;
    tx.commit().await?;
    Ok(Json(out(stored, app.clock.now())))
}

/// Replaces the shelf of a studio.
#[utoipa::path(put, operation_id = "shelf_save", path = "/api/studios/{id}/shelf", tag = "shelf", params(("id" = Uuid, Path)),
    request_body = ShelfEdit,
    responses((status = 200, body = ShelfOut)))]
pub async fn save(
    State(app): State<App>,
    Key(id): Key,
    Body(edit): Body<ShelfEdit>,
) -> Result<Json<ShelfOut>, Problem> {
    let now = app.clock.now();
    let label = label("label", &edit.label)?;
    let mut reading = app.reading().await?;
    let mut document = ulvek_store::load_studio(&mut reading, id).await?.document;
    reading.commit().await?;
    check_shelf("", &edit.materials, &edit.tubs, &edit.ways, &mut document)?;
    let mut tx = app.begin().await?;
    ulvek_store::save_shelf(&mut tx, id, edit.version, &document, &label, now).await?;
    let stored = ulvek_store::load_studio(&mut tx, id).await?;
    holds_all(&stored.document)?;
    let answer = Json(out(stored, now));
    commit(tx).await?;
    Ok(answer)
}

async fn step(
    app: App,
    id: Uuid,
    on: OnVersion,
    direction: Direction,
) -> Result<Json<ShelfOut>, Problem> {
    let mut tx = app.begin().await?;
    ulvek_store::step_shelf(&mut tx, id, on.version, direction).await?;
    let stored = ulvek_store::load_studio(&mut tx, id).await?;
    holds_all(&stored.document)?;
    let answer = Json(out(stored, app.clock.now()));
    commit(tx).await?;
    Ok(answer)
}

/// Takes the last change of the shelf back.
#[utoipa::path(post, operation_id = "shelf_undo", path = "/api/studios/{id}/shelf/undo", tag = "shelf", params(("id" = Uuid, Path)),
    request_body = OnVersion,
    responses((status = 200, body = ShelfOut)))]
pub async fn undo(
    State(app): State<App>,
    Key(id): Key,
    Body(on): Body<OnVersion>,
) -> Result<Json<ShelfOut>, Problem> {
    step(app, id, on, Direction::Undo).await
}

/// Makes the change of the shelf that was taken back again.
#[utoipa::path(post, operation_id = "shelf_redo", path = "/api/studios/{id}/shelf/redo", tag = "shelf", params(("id" = Uuid, Path)),
    request_body = OnVersion,
    responses((status = 200, body = ShelfOut)))]
pub async fn redo(
    State(app): State<App>,
    Key(id): Key,
    Body(on): Body<OnVersion>,
) -> Result<Json<ShelfOut>, Problem> {
    step(app, id, on, Direction::Redo).await
}
