//! Whether the application answers, and what it knows of the trade.

use super::wire::{Catalogue, Health, KindOut, RangeOut, WayOut};
use crate::demo::way_steps;
use crate::formats::StepDoc;
use crate::problem::Problem;
use crate::state::App;
use axum::Json;
use axum::extract::State;
use ulvek_core::picture::{StepKind, WAYS};
use ulvek_core::quantity::RANGES;

/// Answers when the application and its database do.
#[utoipa::path(get, path = "/api/health", tag = "application",
    responses((status = 200, body = Health)))]
pub async fn health(State(app): State<App>) -> Result<Json<Health>, Problem> {
    ulvek_store::answers(&app.pool).await?;
    Ok(Json(Health { status: "ok" }))
}

/// Kinds of step, ways of working and allowed ranges.
#[utoipa::path(get, path = "/api/catalogue", tag = "application",
    responses((status = 200, body = Catalogue)))]
pub async fn catalogue() -> Result<Json<Catalogue>, Problem> {
    let kinds = StepKind::ALL.iter().copied().map(|kind| KindOut {
        kind,
        word: kind.word().into(),
        does: kind.does().into(),
        needs: kind.needs(),
        usual_film_um: kind.usual_film_um(),
        usual_minutes: kind.usual_minutes(),
        splittable: kind.usually_splittable(),
    });
    let mut ways = Vec::new();
    for way in WAYS {
        let steps = way_steps(way.id).map_err(|_| Problem::internal())?;
        ways.push(WayOut {
            id: way.id.into(),
            name: way.name.into(),
            why: way.why.into(),
            steps: steps.iter().map(|s| StepDoc::of(s, chrono_tz::UTC)).collect(),
        });
    }
    let ranges = RANGES.iter().map(|r| RangeOut {
        name: r.name.into(),
        unit: r.unit.into(),
        min: r.min,
        max: r.max,
        source: r.source.into(),
    });
    Ok(Json(Catalogue { kinds: kinds.collect(), ways, ranges: ranges.collect() }))
}
