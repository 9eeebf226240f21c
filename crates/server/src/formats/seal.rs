//! How a picture is sealed: shape, reading and writing.

use super::fields::line;
use super::moment::Moment;
use super::words;
use chrono_tz::Tz;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use ulvek_core::mix::Finish;
use ulvek_core::picture::{
    Carrier, Purpose, SealAnyway, SealRecord, SealTrouble, Strokes, TroubleFound, USUAL_EDGE_CM,
    VarnishChoice,
};
use utoipa::ToSchema;

/// How a picture is sealed, and what was seen and decided on the way.
#[derive(Debug, Clone, Default, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SealDoc {
    /// The varnish that was settled on.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub choice: Option<ChoiceDoc>,
    /// When the surface was last dusted and looked over.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub inspected_at: Option<Moment>,
    /// Coats laid although the gate was not open.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub anyway: Vec<AnywayDoc>,
    /// Trouble that was found.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub troubles: Vec<TroubleDoc>,
}

/// A varnish as it was settled on.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ChoiceDoc {
    /// What carries it.
    #[schemars(schema_with = "words::json::carrier")]
    #[schema(schema_with = words::api::carrier)]
    pub carrier: Carrier,
    /// The sheen of the last coat.
    #[schemars(schema_with = "words::json::sheen")]
    #[schema(schema_with = words::api::sheen)]
    pub finish: Finish,
    /// What the thing is for.
    #[schemars(schema_with = "words::json::purpose")]
    #[schema(schema_with = words::api::purpose)]
    pub purpose: Purpose,
    /// Varnish coats in all, 1 to 10, without the sealer of handled things.
    pub coats: u8,
    /// Whether an isolation coat goes between paint and varnish.
    pub isolation: bool,
    /// Why, or why not, when that is not the studio's habit.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub isolation_reason: Option<String>,
    /// The direction of strokes.
    #[schemars(schema_with = "words::json::strokes")]
    #[schema(schema_with = words::api::strokes)]
    pub strokes: Strokes,
    /// Depth of the edges that are varnished too [cm]; 2 when not said.
    #[serde(default = "usual_edge")]
    pub edge_cm: f64,
}

const fn usual_edge() -> f64 {
    USUAL_EDGE_CM
}

/// A coat laid although the gate was not open.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AnywayDoc {
    /// When.
    pub at: Moment,
    /// The step's name.
    pub step: String,
    /// Why, in the painter's words.
    pub reason: String,
    /// What did not hold.
    pub against: Vec<String>,
}

/// Trouble found on a sealing coat.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TroubleDoc {
    /// When.
    pub at: Moment,
    /// The step's name.
    pub step: String,
    /// What.
    #[schemars(schema_with = "words::json::seal_trouble")]
    #[schema(schema_with = words::api::seal_trouble)]
    pub trouble: SealTrouble,
}

impl ChoiceDoc {
    /// Writes a choice of varnish.
    pub fn of(choice: &VarnishChoice) -> Self {
        Self {
            carrier: choice.carrier,
            finish: choice.finish,
            purpose: choice.purpose,
            coats: choice.coats,
            isolation: choice.isolation,
            isolation_reason: choice.isolation_reason.clone(),
            strokes: choice.strokes,
            edge_cm: choice.edge_cm,
        }
    }

    /// The choice; whether it may be is the check's to say, whether it suits a picture the plan's.
    pub fn read(&self) -> VarnishChoice {
        let reason = self.isolation_reason.as_deref().map(line);
        VarnishChoice {
            carrier: self.carrier,
            finish: self.finish,
            purpose: self.purpose,
            coats: self.coats,
            isolation: self.isolation,
            isolation_reason: reason.filter(|r| !r.is_empty()),
            strokes: self.strokes,
            edge_cm: self.edge_cm,
        }
    }
}

impl SealDoc {
    /// Writes the record of sealing, times in `zone`; `None` when there is nothing in it.
    pub fn of(seal: &SealRecord, zone: Tz) -> Option<Self> {
        let anyway = |a: &SealAnyway| AnywayDoc {
            at: Moment::local(a.at, zone),
            step: a.step.clone(),
            reason: a.reason.clone(),
            against: a.against.clone(),
        };
        let trouble = |t: &TroubleFound| TroubleDoc {
            at: Moment::local(t.at, zone),
            step: t.step.clone(),
            trouble: t.trouble,
        };
        (*seal != SealRecord::default()).then(|| Self {
            choice: seal.choice.as_ref().map(ChoiceDoc::of),
            inspected_at: seal.inspected_at.map(|at| Moment::local(at, zone)),
            anyway: seal.anyway.iter().map(anyway).collect(),
            troubles: seal.troubles.iter().map(trouble).collect(),
        })
    }

    /// The record; whether it may be is the check's to say.
    pub fn read(&self) -> SealRecord {
        let anyway = |a: &AnywayDoc| SealAnyway {
            at: a.at.utc(),
            step: line(&a.step),
            reason: line(&a.reason),
            against: a.against.iter().map(|c| line(c)).collect(),
        };
        let trouble = |t: &TroubleDoc| TroubleFound {
            at: t.at.utc(),
            step: line(&t.step),
            trouble: t.trouble,
        };
        SealRecord {
            choice: self.choice.as_ref().map(ChoiceDoc::read),
            inspected_at: self.inspected_at.map(Moment::utc),
            anyway: self.anyway.iter().map(anyway).collect(),
            troubles: self.troubles.iter().map(trouble).collect(),
        }
    }
}
