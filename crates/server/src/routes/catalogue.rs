//! What the application knows of the trade: kinds of step, ways of working, limits.

use crate::formats::{StepDoc, picture_doc, words};
use crate::problem::Problem;
use axum::Json;
use serde::Serialize;
use ulvek_core::picture::{Need, Picture, StepKind, WAYS};
use ulvek_core::quantity::RANGES;
use utoipa::ToSchema;

/// A kind of step.
#[derive(Serialize, ToSchema)]
pub struct KindOut {
    /// Its name in documents.
    #[schema(schema_with = words::api::kind)]
    kind: StepKind,
    /// The trade's word.
    word: String,
    /// What happens.
    does: String,
    /// What it needs of the film below.
    #[schema(schema_with = words::api::need)]
    needs: Need,
    /// Usual wet film [um]; `null` when it leaves none.
    #[schema(required)]
    usual_film_um: Option<f64>,
    /// Usual hands-on minutes for a small picture.
    usual_minutes: f64,
    /// Whether it may be split over sessions when nothing else is said.
    splittable: bool,
}

/// A way of working.
#[derive(Serialize, ToSchema)]
pub struct WayOut {
    /// Its name.
    id: String,
    /// What painters call it.
    name: String,
    /// Why one works like this.
    why: String,
    /// Its steps.
    steps: Vec<StepDoc>,
}

/// An allowed range.
#[derive(Serialize, ToSchema)]
pub struct RangeOut {
    /// Spoken name.
    name: String,
    /// Unit as spoken.
    unit: String,
    /// Lowest allowed value as stored.
    min: f64,
    /// Highest allowed value as stored.
    max: f64,
    /// Where the limits come from.
    source: String,
}

/// What the application knows of the trade.
#[derive(Serialize, ToSchema)]
pub struct Catalogue {
    /// Kinds of step in the usual order of work.
    kinds: Vec<KindOut>,
    /// Ways of working.
    ways: Vec<WayOut>,
    /// Allowed ranges.
    ranges: Vec<RangeOut>,
}

/// Kinds of step, ways of working and allowed ranges.
#[utoipa::path(get, path = "/api/catalogue", tag = "application",
    responses((status = 200, body = Catalogue)))]
pub async fn catalogue() -> Result<Json<Catalogue>, Problem> {
    let kinds = StepKind::all().map(|kind| KindOut {
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
        let steps = crate::demo::way_steps(way.id).map_err(|_| Problem::internal())?;
        let picture = Picture::new(way.id, (30.0, 40.0), steps);
        ways.push(WayOut {
            id: way.id.into(),
            name: way.name.into(),
            why: way.why.into(),
            steps: picture_doc(&picture, chrono_tz::UTC).steps,
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
