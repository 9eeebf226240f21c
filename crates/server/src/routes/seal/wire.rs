//! What the gate, the varnish plan and the bench are on the wire.

use crate::formats::{AnywayDoc, ChoiceDoc, TroubleDoc, words};
use crate::routes::photograph::wire::PhotographOut;
use crate::routes::shared::SpanOut;
use chrono::{DateTime, NaiveDate, Utc};
use serde::{Deserialize, Serialize};
use ulvek_core::film::FilmState;
use ulvek_core::picture::{Picture, Purpose, SealTrouble, VarnishChoice};
use ulvek_core::planner::CoatOutlook;
use ulvek_core::seal::{
    Condition, ConditionId, Forward, Gate, Sheet, SheetLine, Stage, Standing, VarnishPlan,
};
use ulvek_core::studio::Studio;
use ulvek_core::time::instant;
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
    /// What is missing when it does not hold, as a part of a sentence.
    pub lacks: String,
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
    /// When the plan has it: later than that where the painter is at other work then.
    pub planned: Option<SpanOut>,
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
    /// One for each picture: what can go on now first, what is done last.
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

/// Whether the sheet is to be kept as a file.
#[derive(Deserialize)]
pub struct SheetAsked {
    /// As a file, with the photographs in it.
    #[serde(default)]
    pub file: bool,
}

impl ConditionOut {
    /// One condition.
    pub fn of(condition: &Condition) -> Self {
        Self {
            id: condition.id,
            asks: condition.id.asks().to_owned(),
            lacks: condition.id.lacks().to_owned(),
            standing: condition.standing,
            evidence: condition.evidence.clone(),
            from: condition.from,
        }
    }
}

impl GateBrief {
    /// The gate of `picture`, whose key is `id`, in short.
    pub fn of(picture: &Picture, id: Uuid, gate: &Gate) -> Self {
        Self {
            picture: id,
            title: picture.title.clone(),
            due: picture.due,
            stage: gate.stage,
            coat: gate.step.map(|i| picture.steps[i].called()),
            between: gate.between,
            against: gate.against().map(ConditionOut::of).collect(),
            earliest: gate.earliest.map(SpanOut::new),
            planned: gate.planned.map(SpanOut::new),
            wrap_from: gate.wrap_from,
        }
    }
}

impl From<Forward> for ForwardOut {
    fn from(f: Forward) -> Self {
        Self { what: f.what, risk: f.risk, earliest: f.earliest, gain_min: f.gain_min }
    }
}

impl SealedOut {
    /// The sealing coats that are on, with when they set and are touch-dry.
    pub fn all(picture: &Picture, coats: &[CoatOutlook]) -> Vec<Self> {
        let sealing =
            |c: &&CoatOutlook| !c.planned && picture.steps[c.history.coat.step].kind.seals();
        let one = |c: &CoatOutlook| {
            let step = &picture.steps[c.history.coat.step];
            let states = &c.history.if_left;
            Self {
                step: step.id.clone(),
                title: step.called(),
                at: instant(c.history.coat.at),
                setting_at: states.at(FilmState::Setting).map(instant),
                touch_dry_at: states.at(FilmState::TouchDry).map(instant),
            }
        };
        coats.iter().filter(sealing).map(one).collect()
    }
}

impl VarnishOut {
    /// The plan of a choice.
    pub fn of(studio: &Studio, choice: &VarnishChoice, plan: &VarnishPlan) -> Self {
        let coats = plan.coats.iter().zip(&plan.gaps).zip(&plan.strokes);
        let coats = coats.map(|((step, gap), strokes)| VarnishCoatOut {
            title: step.called(),
            material: step
                .mix
                .materials(&studio.materials)
                .next()
                .map(|m| m.name.clone())
                .unwrap_or_default(),
            wet_film_um: step.wet_film_um,
            gap: gap.clone(),
            strokes: strokes.clone(),
        });
        Self {
            choice: ChoiceDoc::of(choice),
            coats: coats.collect(),
            pour_ml: plan.pour_ml,
            edges_ml: plan.edges_ml,
            brush_cm: plan.brush_cm,
            areas: plan.areas.clone(),
            carrier_effect: choice.carrier.effect().to_owned(),
            finish_effect: choice.finish.effect().to_owned(),
            isolation: plan.isolation.to_owned(),
            usual_coats: choice.purpose.usual_coats(),
        }
    }
}

impl From<SealTrouble> for TroubleOut {
    fn from(trouble: SealTrouble) -> Self {
        Self {
            trouble,
            looks_like: trouble.looks_like().to_owned(),
            while_wet: trouble.while_wet().to_owned(),
            when_set: trouble.when_set().to_owned(),
        }
    }
}

impl SheetOut {
    /// The bench sheet.
    pub fn of(sheet: &Sheet) -> Self {
        let lines = |of: &[SheetLine]| {
            of.iter().map(|l| SheetLineOut { what: l.what.clone(), care: l.care }).collect()
        };
        Self {
            preparation: lines(&sheet.preparation),
            application: lines(&sheet.application),
            inspection: sheet.inspection.iter().copied().map(TroubleOut::from).collect(),
            stop_after_min: sheet.stop_after_min,
            touch_dry_min: sheet.touch_dry_min,
        }
    }
}
