//! How sealing, and the room ahead, are written into JSON columns.

use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};
use ulvek_core::air::Room;
use ulvek_core::seal::{
    Carrier, Purpose, SealAnyway, SealRecord, SealTrouble, Strokes, TroubleFound, VarnishChoice,
};
use ulvek_core::studio::{AirSource, Finish, RoomAhead};

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

#[derive(Clone, Serialize, Deserialize)]
pub(crate) struct AheadBody {
    source: AirSource,
    taken_at: Option<DateTime<Utc>>,
    held_c: Option<f64>,
    warmer_k: f64,
    lag_h: f64,
    changes_per_h: f64,
    moisture_g_m3_h: f64,
}

impl AheadBody {
    pub fn of(ahead: &RoomAhead) -> Self {
        let room = ahead.follows;
        Self {
            source: ahead.source,
            taken_at: ahead.taken_at,
            held_c: room.held_c,
            warmer_k: room.warmer_k,
            lag_h: room.lag_h,
            changes_per_h: room.changes_per_h,
            moisture_g_m3_h: room.moisture_g_m3_h,
        }
    }

    pub fn into_room(self) -> RoomAhead {
        RoomAhead {
            source: self.source,
            taken_at: self.taken_at,
            follows: Room {
                held_c: self.held_c,
                warmer_k: self.warmer_k,
                lag_h: self.lag_h,
                changes_per_h: self.changes_per_h,
                moisture_g_m3_h: self.moisture_g_m3_h,
            },
        }
    }
}
