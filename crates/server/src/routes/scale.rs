//! The bench scale, simulated: it shows what it is told lies on it.

use crate::extract::Body;
use crate::instruments::Scale;
use crate::problem::Problem;
use crate::state::App;
use axum::Json;
use axum::extract::State;
use serde::{Deserialize, Serialize};
use std::sync::PoisonError;
use utoipa::ToSchema;

/// What the scale shows.
#[derive(Serialize, ToSchema)]
pub struct ScaleOut {
    /// What it shows [g].
    shows_g: f64,
    /// What lies on it [g], as it was told.
    load_g: f64,
    /// Whether it is a stand-in: always, for now.
    simulated: bool,
}

/// What is put onto the simulated scale.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ScaleLoad {
    /// All that lies on it [g].
    load_g: f64,
}

fn with(
    app: &App,
    act: impl FnOnce(&mut Scale) -> Result<(), Problem>,
) -> Result<Json<ScaleOut>, Problem> {
    // A panic elsewhere leaves the scale as it was.
    let mut scale = app.scale.lock().unwrap_or_else(PoisonError::into_inner);
    act(&mut scale)?;
    Ok(Json(ScaleOut { shows_g: scale.shows_g(), load_g: scale.load_g(), simulated: true }))
}

/// What the scale shows now.
#[utoipa::path(get, operation_id = "scale_read", path = "/api/scale", tag = "instruments",
    responses((status = 200, body = ScaleOut)))]
pub async fn read(State(app): State<App>) -> Result<Json<ScaleOut>, Problem> {
    with(&app, |_| Ok(()))
}

/// Puts something onto the simulated scale in place of what was there.
#[utoipa::path(put, operation_id = "scale_load", path = "/api/scale", tag = "instruments", request_body = ScaleLoad,
    responses((status = 200, body = ScaleOut)))]
pub async fn load(
    State(app): State<App>,
    Body(load): Body<ScaleLoad>,
) -> Result<Json<ScaleOut>, Problem> {
    with(&app, |scale| {
        scale.put(load.load_g).map_err(|e| Problem::refused("load_g", e.to_string()))
    })
}

/// Sets the scale to zero with what lies on it.
#[utoipa::path(post, operation_id = "scale_tare", path = "/api/scale/tare", tag = "instruments",
    responses((status = 200, body = ScaleOut)))]
pub async fn tare(State(app): State<App>) -> Result<Json<ScaleOut>, Problem> {
    with(&app, |scale| {
        scale.tare();
        Ok(())
    })
}
