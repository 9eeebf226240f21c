//! What is said of the application.

use crate::formats::{StepDoc, words};
use serde::Serialize;
use ulvek_core::picture::{Need, StepKind};
use utoipa::ToSchema;

/// All is well.
#[derive(Serialize, ToSchema)]
pub struct Health {
    /// Always `ok`.
    pub status: &'static str,
}

/// A kind of step.
#[derive(Serialize, ToSchema)]
pub struct KindOut {
    /// Its name in documents.
    #[schema(schema_with = words::api::kind)]
    pub kind: StepKind,
    /// The trade's word.
    pub word: String,
    /// What happens.
    pub does: String,
    /// What it needs of the film below.
    #[schema(schema_with = words::api::need)]
    pub needs: Need,
    /// Usual wet film [um]; `null` when it leaves none.
    #[schema(required)]
    pub usual_film_um: Option<f64>,
    /// Usual hands-on minutes for a small picture.
    pub usual_minutes: f64,
    /// Whether it may be split over sessions when nothing else is said.
    pub splittable: bool,
}

/// A way of working.
#[derive(Serialize, ToSchema)]
pub struct WayOut {
    /// Its name.
    pub id: String,
    /// What painters call it.
    pub name: String,
    /// Why one works like this.
    pub why: String,
    /// Its steps.
    pub steps: Vec<StepDoc>,
}

/// An allowed range.
#[derive(Serialize, ToSchema)]
pub struct RangeOut {
    /// Spoken name.
    pub name: String,
    /// Unit as spoken.
    pub unit: String,
    /// Lowest allowed value as stored.
    pub min: f64,
    /// Highest allowed value as stored.
    pub max: f64,
    /// Where the limits come from.
    pub source: String,
}

/// What the application knows of the trade.
#[derive(Serialize, ToSchema)]
pub struct Catalogue {
    /// Kinds of step in the usual order of work.
    pub kinds: Vec<KindOut>,
    /// Ways of working.
    pub ways: Vec<WayOut>,
    /// Allowed ranges.
    pub ranges: Vec<RangeOut>,
}
