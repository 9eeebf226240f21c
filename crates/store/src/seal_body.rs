//! How sealing is written into JSON columns.

use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};
use ulvek_core::mix::Finish;
use ulvek_core::picture::{
    Carrier, Purpose, SealAnyway, SealRecord, SealTrouble, Strokes, TroubleFound, VarnishChoice,
};

#[derive(Clone, Default, Serialize, Deserialize)]
pub(crate) struct SealBody {
    choice: Option<ChoiceBody>,
    inspected_at: Option<DateTime<Utc>>,
    anyway: Vec<AnywayBody>,
    /// When, on which step, what.
    troubles: Vec<(DateTime<Utc>, String, SealTrouble)>,
}

#[derive(Clone, Serialize, Deserialize)]
struct ChoiceBody {
    carrier: Carrier,
    finish: Finish,
    purpose: Purpose,
    coats: u8,
    isolation: bool,
    isolation_reason: Option<String>,
    strokes: Strokes,
    edge_cm: f64,
}

#[derive(Clone, Serialize, Deserialize)]
struct AnywayBody {
    at: DateTime<Utc>,
    step: String,
    reason: String,
    against: Vec<String>,
}

impl SealBody {
    /// The same with what was decided alone: what was done is kept in the log.
    pub fn without_log(self) -> Self {
        Self { choice: self.choice, ..Self::default() }
    }

    pub fn of(seal: &SealRecord) -> Self {
        Self {
            choice: seal.choice.as_ref().map(|c| ChoiceBody {
                carrier: c.carrier,
                finish: c.finish,
                purpose: c.purpose,
                coats: c.coats,
                isolation: c.isolation,
                isolation_reason: c.isolation_reason.clone(),
                strokes: c.strokes,
                edge_cm: c.edge_cm,
            }),
            inspected_at: seal.inspected_at,
            anyway: seal
                .anyway
                .iter()
                .map(|a| AnywayBody {
                    at: a.at,
                    step: a.step.clone(),
                    reason: a.reason.clone(),
                    against: a.against.clone(),
                })
                .collect(),
            troubles: seal.troubles.iter().map(|t| (t.at, t.step.clone(), t.trouble)).collect(),
        }
    }

    pub fn into_seal(self) -> SealRecord {
        SealRecord {
            choice: self.choice.map(|c| VarnishChoice {
                carrier: c.carrier,
                finish: c.finish,
                purpose: c.purpose,
                coats: c.coats,
                isolation: c.isolation,
                isolation_reason: c.isolation_reason,
                strokes: c.strokes,
                edge_cm: c.edge_cm,
            }),
            inspected_at: self.inspected_at,
            anyway: self
                .anyway
                .into_iter()
                .map(|a| SealAnyway {
                    at: a.at,
                    step: a.step,
                    reason: a.reason,
                    against: a.against,
                })
                .collect(),
            troubles: self
                .troubles
                .into_iter()
                .map(|(at, step, trouble)| TroubleFound { at, step, trouble })
                .collect(),
        }
    }
}
