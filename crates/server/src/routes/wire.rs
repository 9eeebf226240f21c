//! What the API says and hears, beside the shapes of the studio document.

use crate::formats::{AirDoc, MaterialDoc, PictureDoc, StudioDoc, words};
use chrono::{DateTime, NaiveDate, Utc};
use serde::{Deserialize, Serialize};
use ulvek_core::film::{Events, FilmState};
use ulvek_core::picture::Need;
use ulvek_core::rules::Severity;
use utoipa::ToSchema;
use uuid::Uuid;

/// What can be undone and redone now.
#[derive(Serialize, ToSchema)]
pub struct HistoryOut {
    /// The edit that undo would take back.
    #[schema(required)]
    pub undo: Option<String>,
    /// The edit that redo would make again.
    #[schema(required)]
    pub redo: Option<String>,
}

impl From<ulvek_store::History> for HistoryOut {
    fn from(history: ulvek_store::History) -> Self {
        Self { undo: history.undo, redo: history.redo }
    }
}

/// A studio in a list.
#[derive(Serialize, ToSchema)]
pub struct StudioListed {
    /// Its key.
    pub id: Uuid,
    /// Its name.
    pub name: String,
    /// When it was made or imported.
    pub created_at: DateTime<Utc>,
}

/// The settings and the shelf of a studio.
#[derive(Serialize, ToSchema)]
pub struct StudioOut {
    /// Its key.
    pub id: Uuid,
    /// Version of its settings.
    pub version: i64,
    /// What can be undone and redone.
    pub history: HistoryOut,
    /// Hours, places and schools.
    pub studio: StudioDoc,
    /// The room.
    pub air: AirDoc,
    /// The shelf.
    pub materials: Vec<MaterialDoc>,
}

/// A new studio.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewStudio {
    /// Hours, places and schools.
    pub studio: StudioDoc,
    /// The room.
    pub air: AirDoc,
}

/// New settings of a studio.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct StudioEdit {
    /// The version the edit was made on.
    pub version: i64,
    /// What the edit did, for undo.
    pub label: String,
    /// Hours, places and schools.
    pub studio: StudioDoc,
    /// The room.
    pub air: AirDoc,
}

/// The version a step back or forward is made on.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OnVersion {
    /// The version.
    pub version: i64,
}

/// A picture.
#[derive(Serialize, ToSchema)]
pub struct PictureOut {
    /// Its key.
    pub id: Uuid,
    /// The studio it belongs to.
    pub studio: Uuid,
    /// Its version.
    pub version: i64,
    /// What can be undone and redone.
    pub history: HistoryOut,
    /// The picture.
    pub picture: PictureDoc,
}

/// A picture after an edit.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PictureEdit {
    /// The version the edit was made on.
    pub version: i64,
    /// What the edit did, for undo.
    pub label: String,
    /// The picture as it shall be.
    pub picture: PictureDoc,
}

/// A coat that was really laid, or a step that was really done.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Laid {
    /// The version the log entry is made on.
    pub version: i64,
    /// The step's name within the picture.
    pub step: String,
    /// When the coat was there; the moment this arrives when not said.
    #[serde(default)]
    pub at: Option<DateTime<Utc>>,
    /// How thick it really was [um]; as planned when neither this nor the amount is said.
    #[serde(default)]
    pub wet_film_um: Option<f64>,
    /// Or how much mix went onto the picture [ml].
    #[serde(default)]
    pub amount_ml: Option<f64>,
    /// Or what the cup weighs now, brush and all [g]; it was weighed before the coat.
    #[serde(default)]
    pub cup_after_g: Option<f64>,
    /// Why a sealing coat was laid although the gate was closed; it stays in the record.
    #[serde(default)]
    pub anyway: Option<String>,
}

/// One stretch of time.
#[derive(Serialize, ToSchema)]
pub struct SpanOut {
    /// Start.
    pub from: DateTime<Utc>,
    /// End.
    pub to: DateTime<Utc>,
}

/// The room at one moment.
#[derive(Serialize, ToSchema)]
pub struct AirOut {
    /// From when it stands.
    pub at: DateTime<Utc>,
    /// Temperature [C].
    pub temperature_c: f64,
    /// Relative humidity, fraction of 1.
    pub relative_humidity: f64,
}

/// When a film reaches each state; `null` when not before the next coat, or not in 400 days.
#[derive(Serialize, ToSchema)]
pub struct StatesOut {
    /// Leave it alone from here.
    #[schema(required)]
    pub setting_at: Option<DateTime<Utc>>,
    /// A fingertip takes nothing.
    #[schema(required)]
    pub touch_dry_at: Option<DateTime<Utc>>,
    /// The next coat is safe.
    #[schema(required)]
    pub paintable_at: Option<DateTime<Utc>>,
    /// Sand, stencil, tape.
    #[schema(required)]
    pub dry_through_at: Option<DateTime<Utc>>,
    /// Varnish or isolation coat, by the computed cure alone.
    #[schema(required)]
    pub ready_to_seal_at: Option<DateTime<Utc>>,
}

/// Seconds of the Unix epoch as an instant, to the second and never early.
pub fn instant(t: f64) -> DateTime<Utc> {
    DateTime::<Utc>::from_timestamp(t.ceil() as i64, 0).unwrap_or_default()
}

impl From<&Events> for StatesOut {
    fn from(events: &Events) -> Self {
        let at = |state| events.at(state).map(instant);
        Self {
            setting_at: at(FilmState::Setting),
            touch_dry_at: at(FilmState::TouchDry),
            paintable_at: at(FilmState::Paintable),
            dry_through_at: at(FilmState::DryThrough),
            ready_to_seal_at: at(FilmState::ReadyToSeal),
        }
    }
}

/// A coat, laid or planned.
#[derive(Serialize, ToSchema)]
pub struct CoatOut {
    /// The step's name within the picture.
    pub step: String,
    /// What the painter calls it.
    pub title: String,
    /// Whether it seals the picture.
    pub seals: bool,
    /// Whether it is only planned.
    pub planned: bool,
    /// When its drying starts.
    pub laid_at: DateTime<Utc>,
    /// Wet thickness as laid [um].
    pub wet_um: f64,
    /// Colour to draw it with, `#rrggbb`, when its material has one.
    #[schema(required)]
    pub swatch: Option<String>,
    /// States before the next coat.
    pub states: StatesOut,
    /// States if nothing more were laid.
    pub if_left: StatesOut,
    /// Whether `if_left` was followed to its end; in an outlook only the last laid coat's is,
    /// and deep in a stack of hundreds none.
    pub followed: bool,
    /// From when the stack may be sealed if nothing more were laid: the later of the computed
    /// cure and the school's floor.
    #[schema(required)]
    pub seal_from: Option<DateTime<Utc>>,
}

/// Why a step does not start at once.
#[derive(Serialize, ToSchema)]
pub struct WaitOut {
    /// The state it needs.
    #[schema(schema_with = words::api::need)]
    pub state: Need,
    /// Title of the step waited for.
    pub of: String,
    /// When the wait is over.
    pub until: DateTime<Utc>,
    /// Minutes from the end of that step to then.
    pub lag_min: f64,
    /// Why it waits, as a sentence without its end.
    pub because: String,
    /// When the film alone would be ready.
    #[schema(required)]
    pub film_ready: Option<DateTime<Utc>>,
}

/// A step still to do.
#[derive(Serialize, ToSchema)]
pub struct PlannedOut {
    /// The step's name within the picture.
    pub step: String,
    /// What the painter calls it.
    pub title: String,
    /// Its sittings; empty when it cannot be placed.
    pub sittings: Vec<SpanOut>,
    /// What it waits for.
    #[schema(required)]
    pub waits_for: Option<WaitOut>,
    /// Why it cannot be placed.
    #[schema(required)]
    pub blocked: Option<String>,
    /// What the full cup weighed, when it was weighed [g].
    #[schema(required)]
    pub cup_g: Option<f64>,
}

/// A rule broken.
#[derive(Serialize, ToSchema)]
pub struct FindingOut {
    /// The rule's name.
    pub rule: String,
    /// How much it weighs.
    #[schema(schema_with = words::api::severity)]
    pub severity: Severity,
    /// The step's name within the picture.
    pub step: String,
    /// What the painter calls it.
    pub title: String,
    /// What is wrong.
    pub what: String,
    /// What to do.
    pub remedy: String,
    /// Where the rule comes from.
    pub provenance: String,
    /// The painter's word on it, when it was set aside.
    #[schema(required)]
    pub set_aside: Option<AsideOut>,
}

/// Why a finding was set aside, and when.
#[derive(Serialize, ToSchema)]
pub struct AsideOut {
    /// Why, in the painter's words.
    pub reason: String,
    /// When.
    pub at: DateTime<Utc>,
}

/// Something planned work needs more of than there is.
#[derive(Serialize, ToSchema)]
pub struct ShortageOut {
    /// Its name on the shelf.
    pub of: String,
    /// What it is called.
    pub name: String,
    /// Whether it is a tub.
    pub tub: bool,
    /// What is left now [ml].
    pub left_ml: f64,
    /// What is needed up to and with the first step that runs short [ml].
    pub needs_ml: f64,
    /// The picture of that step.
    pub picture: Uuid,
    /// Its title.
    pub picture_title: String,
    /// What the painter calls the step.
    pub title: String,
    /// When that step is planned.
    #[schema(required)]
    pub at: Option<DateTime<Utc>>,
}

/// One picture as it stands and as it is planned.
#[derive(Serialize, ToSchema)]
pub struct PictureOutlook {
    /// Its key.
    pub id: Uuid,
    /// Its version.
    pub version: i64,
    /// Title.
    pub title: String,
    /// Width [cm].
    pub width_cm: f64,
    /// Height [cm].
    pub height_cm: f64,
    /// The day it must be ready.
    #[schema(required)]
    pub due: Option<NaiveDate>,
    /// End of the last step's hands-on work; `null` while a step cannot be placed.
    #[schema(required)]
    pub finish: Option<DateTime<Utc>>,
    /// Days after the due day; 0 in time.
    #[schema(required)]
    pub days_late: Option<i64>,
    /// Steps in all, and done.
    pub steps: usize,
    /// Steps done.
    pub done: usize,
    /// Coats in order of time.
    pub coats: Vec<CoatOut>,
    /// Steps still to do, in order of time.
    pub plan: Vec<PlannedOut>,
    /// Rules broken.
    pub findings: Vec<FindingOut>,
}

/// A studio as it stands at one moment.
#[derive(Serialize, ToSchema)]
pub struct Outlook {
    /// The moment.
    pub now: DateTime<Utc>,
    /// IANA name of the studio's time zone.
    pub time_zone: String,
    /// The painter's hours from yesterday to a week ahead.
    pub sessions: Vec<SpanOut>,
    /// The room, hour by hour over the same time.
    pub air: Vec<AirOut>,
    /// The pictures.
    pub pictures: Vec<PictureOutlook>,
    /// What planned work runs short of.
    pub shortages: Vec<ShortageOut>,
}

/// The film of one picture over time, coat by coat.
#[derive(Serialize, ToSchema)]
pub struct Strata {
    /// The moment it was computed for.
    pub now: DateTime<Utc>,
    /// The picture as it stands and as it is planned.
    pub outlook: PictureOutlook,
    /// Water the ground can take up [um].
    pub absorbs_um: f64,
    /// The painter's hours over the time that is shown.
    pub sessions: Vec<SpanOut>,
    /// Moments, in order.
    pub frames: Vec<DateTime<Utc>>,
    /// One per coat: its film from the frame where it begins.
    pub films: Vec<FilmOut>,
}

/// The film of one coat.
#[derive(Serialize, ToSchema)]
pub struct FilmOut {
    /// Index of the frame where it begins.
    pub from: usize,
    /// Thickness at each frame [um].
    pub um: Vec<f32>,
    /// State at each frame.
    #[schema(schema_with = words::api::states)]
    pub state: Vec<FilmState>,
}
