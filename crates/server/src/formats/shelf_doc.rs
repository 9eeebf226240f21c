//! The shelf as it is written: materials, tubs, own ways of working.

use super::document::{PartDoc, StepDoc};
use super::words;
use chrono::{DateTime, FixedOffset};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use ulvek_core::studio::{Finish, Line, Opacity, Tightness, Trouble};
use utoipa::ToSchema;

/// A material on the shelf.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MaterialDoc {
    /// Its name in mixes.
    pub id: String,
    /// What the painter calls it.
    pub name: String,
    /// `paint`, `medium`, `retarder`, `water`, `primer`, `varnish`, `solvent_varnish`, or another
    /// word of the studio's own.
    pub kind: String,
    /// Polymer and pigment, volume fraction.
    pub solids: f64,
    /// Water, volume fraction.
    pub water: f64,
    /// Slow volatile (retarder, humectant, coalescent), volume fraction.
    pub glycol: f64,
    /// Polymer alone, volume fraction of the wet material; at most the solids.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub binder: Option<f64>,
    /// Density [g/ml]; without it the cup gives no grams.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub density_g_ml: Option<f64>,
    /// Colour to draw it with, `#rrggbb`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub swatch: Option<String>,
    /// Factor on every time of its drying, beside what its composition says; 1 when not said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub pace: Option<f64>,
    /// The line a paint belongs to.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schemars(schema_with = "words::json::line")]
    #[schema(schema_with = words::api::line)]
    pub line: Option<Line>,
    /// How much it hides.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schemars(schema_with = "words::json::opacity")]
    #[schema(schema_with = words::api::opacity)]
    pub opacity: Option<Opacity>,
    /// The sheen of a medium or varnish.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schemars(schema_with = "words::json::finish")]
    #[schema(schema_with = words::api::finish)]
    pub finish: Option<Finish>,
    /// Pigments by Colour Index Generic Name, e.g. `PB29`.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub pigments: Vec<String>,
    /// What can hurt, in plain words.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub hazards: Option<String>,
    /// Most retarder a mix with it stands, volume fraction, when less than usual.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub most_retarder: Option<f64>,
    /// Most added water a mix with it stands on a sealed surface, volume fraction, likewise.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub most_water: Option<f64>,
    /// How much there is of it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub stock: Option<StockDoc>,
    /// Where its numbers come from.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub source: Option<String>,
    /// Put away: kept for the coats it was used in, not offered any more.
    #[serde(default, skip_serializing_if = "is_false")]
    pub archived: bool,
}

#[expect(clippy::trivially_copy_pass_by_ref, reason = "serde passes a reference")]
const fn is_false(value: &bool) -> bool {
    !*value
}

/// An amount that was there at a moment; what was laid since is taken off.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct StockDoc {
    /// How much there was [ml].
    pub ml: f64,
    /// When.
    pub at: DateTime<FixedOffset>,
}

/// A tub of pre-mixed colour.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TubDoc {
    /// Its name within the studio.
    pub id: String,
    /// What the painter calls it.
    pub name: String,
    /// What is in it, parts by volume.
    pub mix: Vec<PartDoc>,
    /// When it was mixed.
    pub mixed_at: DateTime<FixedOffset>,
    /// How much was mixed [ml].
    pub mixed_ml: f64,
    /// How much there was when it was last measured; what was mixed when not said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub level: Option<StockDoc>,
    /// Its container.
    #[schemars(schema_with = "words::json::tightness")]
    #[schema(schema_with = words::api::tightness)]
    pub tightness: Tightness,
    /// Days it keeps, when the painter knows better than the container.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub keeps_days: Option<f64>,
    /// Looks into it.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub checks: Vec<TubCheckDoc>,
    /// Put away: empty or thrown out.
    #[serde(default, skip_serializing_if = "is_false")]
    pub archived: bool,
}

/// A look into a tub.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TubCheckDoc {
    /// When.
    pub at: DateTime<FixedOffset>,
    /// What was found; nothing when it is good.
    #[serde(default)]
    #[schemars(schema_with = "words::json::troubles")]
    #[schema(schema_with = words::api::troubles)]
    pub found: Vec<Trouble>,
}

/// A painter's own way of working.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct WayDoc {
    /// Its name within the studio.
    pub id: String,
    /// What the painter calls it.
    pub name: String,
    /// Why one works like this.
    pub why: String,
    /// Its steps, none of them laid.
    pub steps: Vec<StepDoc>,
}
