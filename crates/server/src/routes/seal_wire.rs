//! What the gate, the varnish plan and the bench are on the wire.

use super::photographs::PhotographOut;
use super::wire::SpanOut;
use crate::formats::{AnywayDoc, ChoiceDoc, TroubleDoc, words};
use chrono::{DateTime, NaiveDate, Utc};
use serde::{Deserialize, Serialize};
use ulvek_core::seal::{ConditionId, Purpose, SealTrouble, Stage, Standing};
use utoipa::ToSchema;
use uuid::Uuid;

/// One condition of a gate.
#[derive(Serialize, ToSchema)]
pub struct ConditionOut {
    /// Which.
    #[schema(schema_with = words::api::condition)]
    pub id: ConditionId,
    /// What is asked.
    pub asks: String,
    /// How it stands.
    #[schema(schema_with = words::api::standing)]
    pub standing: Standing,
    /// What it is judged by.
    pub evidence: String,
    /// From when it holds, where time brings it.
    pub from: Option<DateTime<Utc>>,
}

/// Whether a picture may be sealed, in short.
#[derive(Serialize, ToSchema)]
pub struct GateBrief {
    /// The picture's key.
    pub picture: Uuid,
    /// Its title.
    pub title: String,
    /// The day it must be ready.
    pub due: Option<NaiveDate>,
    /// Where it stands.
    #[schema(schema_with = words::api::stage)]
    pub stage: Stage,
    /// The next sealing coat, as the painter calls it.
    pub coat: Option<String>,
    /// Whether it goes over another sealing coat.
    pub between: bool,
    /// What keeps it closed.
    pub against: Vec<ConditionOut>,
    /// The first hour within the studio's hours in which all that time brings holds.
    pub earliest: Option<SpanOut>,
    /// When it may be wrapped, once every sealing coat is on.
    pub wrap_from: Option<DateTime<Utc>>,
}

/// A change that opens the gate earlier.
#[derive(Serialize, ToSchema)]
pub struct ForwardOut {
    /// What is changed.
    pub what: String,
    /// What is risked or lost.
    pub risk: String,
    /// The earliest hour then.
    pub earliest: DateTime<Utc>,
    /// How much earlier that is [min].
    pub gain_min: f64,
}

/// One coat of a varnish plan.
#[derive(Serialize, ToSchema)]
pub struct VarnishCoatOut {
    /// What it is called.
    pub title: String,
    /// What goes into the bowl.
    pub material: String,
    /// Wet film [um].
    pub wet_film_um: Option<f64>,
    /// What it waits for.
    pub gap: String,
    /// The direction of its strokes.
    pub strokes: String,
}

/// A varnish plan.
#[derive(Serialize, ToSchema)]
pub struct VarnishOut {
    /// What was chosen.
    pub choice: ChoiceDoc,
    /// The coats still to lay.
    pub coats: Vec<VarnishCoatOut>,
    /// To pour for each [ml].
    pub pour_ml: f64,
    /// Of it on the edges [ml].
    pub edges_ml: f64,
    /// Width of the brush [cm].
    pub brush_cm: f64,
    /// Order of areas.
    pub areas: Vec<String>,
    /// What the carrier does to the picture.
    pub carrier_effect: String,
    /// What the finish does to darks and lights.
    pub finish_effect: String,
    /// For and against the isolation coat as it was chosen.
    pub isolation: String,
    /// Coats that are usual for what it is for.
    pub usual_coats: u8,
}

/// One line of the bench sheet.
#[derive(Serialize, ToSchema)]
pub struct SheetLineOut {
    /// What to do.
    pub what: String,
    /// Whether it is about what can hurt someone.
    pub care: bool,
}

/// What may be found on a coat, and what to do then.
#[derive(Serialize, ToSchema)]
pub struct TroubleOut {
    /// What.
    #[schema(schema_with = words::api::seal_trouble)]
    pub trouble: SealTrouble,
    /// What it looks like.
    pub looks_like: String,
    /// What to do while it is wet.
    pub while_wet: String,
    /// What to do when it has set.
    pub when_set: String,
}

/// The bench sheet of the next sealing coat.
#[derive(Serialize, ToSchema)]
pub struct SheetOut {
    /// Before the bottle is opened.
    pub preparation: Vec<SheetLineOut>,
    /// While it is laid.
    pub application: Vec<SheetLineOut>,
    /// What to look for.
    pub inspection: Vec<TroubleOut>,
    /// Minutes after which it is not touched any more.
    pub stop_after_min: Option<f64>,
    /// Minutes after which it is touch-dry.
    pub touch_dry_min: Option<f64>,
}

/// Coats that are usual for a purpose.
#[derive(Serialize, ToSchema)]
pub struct PurposeOut {
    /// What the thing is for.
    #[schema(schema_with = words::api::purpose)]
    pub purpose: Purpose,
    /// Varnish coats.
    pub coats: u8,
}

/// A sealing coat that is on.
#[derive(Serialize, ToSchema)]
pub struct SealedOut {
    /// Its step.
    pub step: String,
    /// What it is called.
    pub title: String,
    /// When it was laid.
    pub at: DateTime<Utc>,
    /// When it may no longer be touched, by the film model.
    pub setting_at: Option<DateTime<Utc>>,
    /// When it is touch-dry.
    pub touch_dry_at: Option<DateTime<Utc>>,
}

/// The gate of one picture, with all that belongs to sealing it.
#[derive(Serialize, ToSchema)]
pub struct GateOut {
    /// The moment it was computed for.
    pub now: DateTime<Utc>,
    /// IANA name of the studio's time zone.
    pub time_zone: String,
    /// The picture's version.
    pub version: i64,
    /// The gate in short.
    pub brief: GateBrief,
    /// The next sealing coat's step.
    pub step: Option<String>,
    /// Every condition.
    pub conditions: Vec<ConditionOut>,
    /// What would bring it forward.
    pub forward: Vec<ForwardOut>,
    /// The varnish plan; absent when it cannot be made.
    pub varnish: Option<VarnishOut>,
    /// Why not.
    pub no_varnish: Option<String>,
    /// What was settled on, or is usual.
    pub choice: ChoiceDoc,
    /// Coats that are usual for each purpose.
    pub purposes: Vec<PurposeOut>,
    /// The studio's habit with isolation coats.
    pub habit_isolation: bool,
    /// The bench sheet of the next coat.
    pub sheet: Option<SheetOut>,
    /// Sealing coats that are on.
    pub sealed: Vec<SealedOut>,
    /// What may be found on a coat, and what to do then.
    pub advice: Vec<TroubleOut>,
    /// When the surface was last looked over.
    pub inspected_at: Option<DateTime<Utc>>,
    /// Coats laid although the gate was closed.
    pub anyway: Vec<AnywayDoc>,
    /// Trouble that was found.
    pub troubles: Vec<TroubleDoc>,
    /// How to pack it.
    pub packing: Vec<String>,
    /// How the varnish comes off.
    pub removal: String,
    /// Photographs of it.
    pub photographs: Vec<PhotographOut>,
}

/// The gates of a studio.
#[derive(Serialize, ToSchema)]
pub struct GatesOut {
    /// The moment they were computed for.
    pub now: DateTime<Utc>,
    /// IANA name of the studio's time zone.
    pub time_zone: String,
    /// One for each picture.
    pub pictures: Vec<GateBrief>,
}

/// A varnish to be planned.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct VarnishAsked {
    /// What is chosen.
    pub choice: ChoiceDoc,
}

/// A varnish that is settled on.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct VarnishEdit {
    /// The version of the picture it was chosen on.
    pub version: i64,
    /// What is chosen.
    pub choice: ChoiceDoc,
}

/// Trouble that was found on a coat.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TroubleFoundIn {
    /// The version of the picture.
    pub version: i64,
    /// The step it was found on.
    pub step: String,
    /// What.
    #[schema(schema_with = words::api::seal_trouble)]
    pub trouble: SealTrouble,
}

/// What finding it changed.
#[derive(Serialize, ToSchema)]
pub struct MendedOut {
    /// The picture's new version.
    pub version: i64,
    /// What was changed in the plan, in words.
    pub changed: Vec<String>,
}
