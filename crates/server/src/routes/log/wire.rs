//! What is entered into a log and read from it.

use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};
use ulvek_store::{Done, LogEntry};
use utoipa::ToSchema;

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

/// An entry of the log, as it was entered. What stands is what no later entry corrects.
#[derive(Serialize, ToSchema)]
pub struct LogOut {
    /// Its number: a later entry has a larger one.
    pub number: i64,
    /// `laid`, `sealed_anyway`, `seal_trouble`, `looked_over`, `photographed`, or `taken_back`.
    pub kind: String,
    /// On which step, by its name within the picture.
    #[schema(required)]
    pub step: Option<String>,
    /// When it was done.
    pub at: DateTime<Utc>,
    /// When it was entered.
    pub entered_at: DateTime<Utc>,
    /// The entry that it corrects.
    #[schema(required)]
    pub corrects: Option<i64>,
    /// Wet film that was laid [um].
    #[schema(required)]
    pub wet_film_um: Option<f64>,
    /// The painter's reason, or what was found.
    #[schema(required)]
    pub said: Option<String>,
}

impl From<LogEntry> for LogOut {
    fn from(entry: LogEntry) -> Self {
        let kind = entry.what.kind().to_owned();
        let (wet_film_um, said) = match entry.what {
            Done::Laid(coat) => (coat.wet_film_um, None),
            Done::SealedAnyway { reason, .. } => (None, Some(reason)),
            Done::SealTrouble { trouble } => (None, Some(trouble.looks_like().to_owned())),
            Done::LookedOver {} | Done::Photographed { .. } | Done::TakenBack {} => (None, None),
        };
        Self {
            number: entry.number,
            kind,
            step: entry.step,
            at: entry.at,
            entered_at: entry.entered_at,
            corrects: entry.corrects,
            wet_film_um,
            said,
        }
    }
}
