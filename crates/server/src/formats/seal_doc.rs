//! How sealing is written in a studio document, and its check.

use super::check::{Checked, Refusal, at_most, quantity};
use super::document::{AheadDoc, RoomDoc};
use super::texts::{line, moment, moment_if};
use super::words;
use super::write::local;
use chrono::{DateTime, FixedOffset};
use chrono_tz::Tz;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use ulvek_core::air::Room;
use ulvek_core::quantity::{AirChanges, Celsius, LagHours, Moisture, Warmth};
use ulvek_core::seal::{
    Carrier, DEEPEST_EDGE_CM, MOST_COATS, Purpose, SealAnyway, SealRecord, SealTrouble, Strokes,
    TroubleFound, USUAL_EDGE_CM, VarnishChoice, VarnishError,
};
use ulvek_core::studio::{Finish, RoomAhead};
use utoipa::ToSchema;

/// Most entries of one list in the record of sealing. [practice]
const MOST_ENTRIES: usize = 200;

/// How a picture is sealed, and what was seen and decided on the way.
#[derive(Debug, Clone, Default, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SealDoc {
    /// The varnish that was settled on.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub choice: Option<ChoiceDoc>,
    /// When the surface was last dusted and looked over.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub inspected_at: Option<DateTime<FixedOffset>>,
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
    pub at: DateTime<FixedOffset>,
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
    pub at: DateTime<FixedOffset>,
    /// The step's name.
    pub step: String,
    /// What.
    #[schemars(schema_with = "words::json::seal_trouble")]
    #[schema(schema_with = words::api::seal_trouble)]
    pub trouble: SealTrouble,
}

/// Writes a choice of varnish.
pub fn choice_doc(choice: &VarnishChoice) -> ChoiceDoc {
    ChoiceDoc {
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

/// Checks a choice of varnish by itself; whether it suits a picture is the plan's to say.
///
/// # Errors
/// [`Refusal`] of the field that does not fit.
pub fn check_choice(path: &str, doc: &ChoiceDoc) -> Checked<VarnishChoice> {
    let at = |field: &str| if path.is_empty() { field.into() } else { format!("{path}.{field}") };
    if !(1..=MOST_COATS).contains(&doc.coats) {
        return Err(Refusal::new(at("coats"), VarnishError::Coats(doc.coats).to_string()));
    }
    if !doc.edge_cm.is_finite() || !(0.0..=DEEPEST_EDGE_CM).contains(&doc.edge_cm) {
        return Err(Refusal::new(at("edge_cm"), VarnishError::Edge(doc.edge_cm).to_string()));
    }
    let reason = doc.isolation_reason.as_deref().filter(|r| !r.trim().is_empty());
    Ok(VarnishChoice {
        carrier: doc.carrier,
        finish: doc.finish,
        purpose: doc.purpose,
        coats: doc.coats,
        isolation: doc.isolation,
        isolation_reason: reason.map(|r| line(&at("isolation_reason"), r)).transpose()?,
        strokes: doc.strokes,
        edge_cm: doc.edge_cm,
    })
}

/// Writes the record of sealing; `None` when there is nothing in it.
pub(super) fn seal_doc(seal: &SealRecord, zone: Tz) -> Option<SealDoc> {
    (*seal != SealRecord::default()).then(|| SealDoc {
        choice: seal.choice.as_ref().map(choice_doc),
        inspected_at: seal.inspected_at.map(|at| local(at, zone)),
        anyway: seal
            .anyway
            .iter()
            .map(|a| AnywayDoc {
                at: local(a.at, zone),
                step: a.step.clone(),
                reason: a.reason.clone(),
                against: a.against.clone(),
            })
            .collect(),
        troubles: seal
            .troubles
            .iter()
            .map(|t| TroubleDoc { at: local(t.at, zone), step: t.step.clone(), trouble: t.trouble })
            .collect(),
    })
}

/// Checks the record of sealing.
pub(super) fn check_seal(path: &str, doc: &SealDoc) -> Checked<SealRecord> {
    at_most(&format!("{path}.anyway"), doc.anyway.len(), MOST_ENTRIES, "entries")?;
    at_most(&format!("{path}.troubles"), doc.troubles.len(), MOST_ENTRIES, "entries")?;
    let mut anyway = Vec::new();
    for (i, a) in doc.anyway.iter().enumerate() {
        let at = |field: &str| format!("{path}.anyway[{i}].{field}");
        at_most(&at("against"), a.against.len(), MOST_ENTRIES, "conditions")?;
        anyway.push(SealAnyway {
            at: moment(&at("at"), a.at)?,
            step: line(&at("step"), &a.step)?,
            reason: line(&at("reason"), &a.reason)?,
            against: a.against.iter().map(|c| line(&at("against"), c)).collect::<Result<_, _>>()?,
        });
    }
    let mut troubles = Vec::new();
    for (i, t) in doc.troubles.iter().enumerate() {
        let step = line(&format!("{path}.troubles[{i}].step"), &t.step)?;
        let at = moment(&format!("{path}.troubles[{i}].at"), t.at)?;
        troubles.push(TroubleFound { at, step, trouble: t.trouble });
    }
    let choice = doc.choice.as_ref().map(|c| check_choice(&format!("{path}.choice"), c));
    Ok(SealRecord {
        choice: choice.transpose()?,
        inspected_at: moment_if(&format!("{path}.inspected_at"), doc.inspected_at)?,
        anyway,
        troubles,
    })
}

/// Writes how the room is looked ahead at; `None` when it is as usual.
pub(super) fn ahead_doc(ahead: &RoomAhead, zone: Tz) -> Option<AheadDoc> {
    (*ahead != RoomAhead::default()).then(|| AheadDoc {
        source: ahead.source,
        taken_at: ahead.taken_at.map(|at| local(at, zone)),
        room: room_doc(&ahead.follows),
    })
}

/// Writes how a room follows the outside.
pub fn room_doc(room: &Room) -> RoomDoc {
    RoomDoc {
        held_c: room.held_c,
        warmer_k: room.warmer_k,
        lag_h: room.lag_h,
        changes_per_h: room.changes_per_h,
        moisture_g_m3_h: room.moisture_g_m3_h,
    }
}

/// Checks how a room follows the outside.
///
/// # Errors
/// [`Refusal`] of the field that does not fit.
pub fn check_room(path: &str, doc: &RoomDoc) -> Checked<Room> {
    let at = |field: &str| format!("{path}.{field}");
    Ok(Room {
        held_c: match doc.held_c {
            None => None,
            Some(c) => Some(quantity!(Celsius, at("held_c"), c)?),
        },
        warmer_k: quantity!(Warmth, at("warmer_k"), doc.warmer_k)?,
        lag_h: quantity!(LagHours, at("lag_h"), doc.lag_h)?,
        changes_per_h: quantity!(AirChanges, at("changes_per_h"), doc.changes_per_h)?,
        moisture_g_m3_h: quantity!(Moisture, at("moisture_g_m3_h"), doc.moisture_g_m3_h)?,
    })
}

/// Checks how the room is looked ahead at.
pub(super) fn check_ahead(path: &str, doc: &AheadDoc) -> Checked<RoomAhead> {
    Ok(RoomAhead {
        follows: check_room(&format!("{path}.room"), &doc.room)?,
        source: doc.source,
        taken_at: moment_if(&format!("{path}.taken_at"), doc.taken_at)?,
    })
}
