//! Whether the application and its database answer.

use crate::problem::Problem;
use crate::state::App;
use axum::Json;
use axum::extract::State;
use serde::Serialize;
use utoipa::ToSchema;

/// All is well.
#[derive(Serialize, ToSchema)]
pub struct Health {
    /// Always `ok`.
    status: &'static str,
}

/// Answers when the application and its database do.
#[utoipa::path(get, path = "/api/health", tag = "application",
    responses((status = 200, body = Health)))]
pub async fn health(State(app): State<App>) -> Result<Json<Health>, Problem> {
    ulvek_store::answers(&app.pool).await?;
    Ok(Json(Health { status: "ok" }))
}
