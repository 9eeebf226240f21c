//! An entry of the log: what was done, and how it is kept in its row.

use crate::StoreError;
use crate::log_body::{WhatBody, WordsBody};
use crate::mix_body::{MixBody, mix_body, mix_of};
use crate::versioned::json;
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};
use sqlx::FromRow;
use ulvek_core::picture::{Happening, SealTrouble, Step, Touch};
use uuid::Uuid;

/// Digits of a second that MariaDB keeps.
pub const DIGITS: u16 = 6;

/// An entry of the log, as it was entered.
#[derive(Debug, Clone, PartialEq)]
pub struct LogEntry {
    /// Its number: a later entry has a larger one.
    pub number: i64,
    /// What was done.
    pub what: Done,
    /// On which step, by its name within the picture.
    pub step: Option<String>,
    /// When it was done.
    pub at: DateTime<Utc>,
    /// When it was entered.
    pub entered_at: DateTime<Utc>,
    /// The entry that it corrects.
    pub corrects: Option<i64>,
    /// What was planned of a coat before it was laid.
    pub planned: Option<Planned>,
}

/// What was planned of a coat before it was laid.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Planned {
    /// When.
    pub at: DateTime<Utc>,
    /// Wet film [um].
    pub wet_film_um: Option<f64>,
}

/// What was done.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum Done {
    /// A coat was laid, or a step without film was done.
    Laid(LaidCoatBody),
    /// A sealing coat was laid although the gate was closed.
    SealedAnyway {
        /// Why, in the painter's words.
        reason: String,
        /// What did not hold then.
        against: Vec<String>,
    },
    /// Trouble was found on a sealing coat.
    SealTrouble {
        /// What.
        trouble: SealTrouble,
    },
    /// The surface was dusted and looked over.
    LookedOver {},
    /// A fingertip was on a coat.
    Touched {
        /// What it felt.
        felt: Touch,
    },
    /// Something happened beside the coats.
    Happened {
        /// What.
        what: WhatBody,
        /// What the painter says of it.
        words: WordsBody,
    },
    /// A photograph was taken.
    Photographed {
        /// Its key.
        photograph: Uuid,
    },
    /// The entry that is named was a mistake: it does not stand any more.
    TakenBack {},
}

/// A coat as it was really laid.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct LaidCoatBody {
    /// Wet film [um].
    pub wet_film_um: Option<f64>,
    /// Parts of the mix: material and how many.
    pub mix: Vec<(String, f64)>,
    /// Share of the picture's area.
    pub share_of_area: f64,
    /// The section it lies on.
    #[serde(default)]
    pub section: Option<String>,
    /// The tub it was painted from.
    pub tub: Option<String>,
    /// Share of the cup that stayed in cup and brush.
    pub loss: Option<f64>,
    /// What the full cup weighed [g].
    pub cup_g: Option<f64>,
}

impl LogEntry {
    /// What it says happened, were it an entry of the day book.
    pub fn in_daybook(&self) -> Option<Happening> {
        match &self.what {
            Done::Happened { what, words } => {
                Some(words.clone().happened((self.at, None), what.clone()))
            }
            _ => None,
        }
    }
}

impl Done {
    /// What it is called in the table and over the wire.
    pub const fn kind(&self) -> &'static str {
        match self {
            Self::Laid(_) => "laid",
            Self::SealedAnyway { .. } => "sealed_anyway",
            Self::SealTrouble { .. } => "seal_trouble",
            Self::LookedOver {} => "looked_over",
            Self::Touched { .. } => "touched",
            Self::Happened { what, .. } => what.word(),
            Self::Photographed { .. } => "photographed",
            Self::TakenBack {} => "taken_back",
        }
    }

    /// What it says in words.
    pub fn words(&self) -> Vec<String> {
        match self {
            Self::SealedAnyway { reason, .. } => vec!["sealed anyway".into(), reason.clone()],
            Self::SealTrouble { trouble } => vec!["trouble".into(), trouble.looks_like().into()],
            Self::Touched { felt } => vec!["touched".into(), felt.said().into()],
            Self::Happened { what, words } => {
                let what = match what {
                    WhatBody::Noted => "note".to_owned(),
                    WhatBody::Misted => "misted the palette".to_owned(),
                    WhatBody::WipedOff(_) => "wiped off".to_owned(),
                    WhatBody::Sanded(..) => "sanded".to_owned(),
                    WhatBody::Trouble(trouble) => format!("trouble {}", trouble.said()),
                    WhatBody::Swatch(_) => "swatch".to_owned(),
                    WhatBody::Session(_) => "session".to_owned(),
                };
                vec![what, words.place.clone(), words.words.clone()]
            }
            Self::Laid(coat) => {
                [Some("laid".into()), coat.section.clone()].into_iter().flatten().collect()
            }
            Self::LookedOver {} => vec!["looked over".into()],
            Self::Photographed { .. } => vec!["photographed".into()],
            Self::TakenBack {} => vec![],
        }
    }

    pub(crate) fn body(&self) -> Result<String, StoreError> {
        let mut body = serde_json::to_value(self).map_err(unreadable)?;
        if let Some(fields) = body.as_object_mut() {
            fields.remove("kind");
        }
        json(&body)
    }
}

pub(crate) fn unreadable(error: serde_json::Error) -> StoreError {
    StoreError::Unreadable(format!("an entry of the log: {error}"))
}

impl LaidCoatBody {
    pub(crate) fn of(step: &Step) -> Self {
        let mix: MixBody = mix_body(&step.mix);
        Self {
            wet_film_um: step.wet_film_um,
            mix,
            share_of_area: step.share_of_area,
            section: step.section.clone(),
            tub: step.tub.clone(),
            loss: step.loss,
            cup_g: step.cup_g,
        }
    }

    /// Makes `step` what was really laid.
    pub(crate) fn onto(&self, step: &mut Step) {
        step.wet_film_um = self.wet_film_um;
        step.mix = mix_of(self.mix.clone());
        step.share_of_area = self.share_of_area;
        step.section.clone_from(&self.section);
        step.tub.clone_from(&self.tub);
        step.loss = self.loss;
        step.cup_g = self.cup_g;
    }
}

#[derive(FromRow)]
pub(crate) struct LogRow {
    number: i64,
    /// None where it is about no picture.
    pub picture_id: Option<Uuid>,
    kind: String,
    step_code: Option<String>,
    at: DateTime<Utc>,
    entered_at: DateTime<Utc>,
    corrects: Option<i64>,
    body: String,
    planned: Option<String>,
}

impl LogRow {
    /// What is read of a row.
    pub const COLUMNS: &str = "l.number, l.picture_id, l.kind, l.step_code, l.at, l.entered_at, l.corrects, l.body, l.planned";
}

impl LogRow {
    pub fn into_entry(self) -> Result<LogEntry, StoreError> {
        let mut body: serde_json::Value = serde_json::from_str(&self.body).map_err(unreadable)?;
        let happened = WhatBody::WORDS.contains(&self.kind.as_str());
        body["kind"] = if happened { "happened".into() } else { self.kind.into() };
        Ok(LogEntry {
            number: self.number,
            what: serde_json::from_value(body).map_err(unreadable)?,
            step: self.step_code,
            at: self.at,
            entered_at: self.entered_at,
            corrects: self.corrects,
            planned: self
                .planned
                .map(|p| serde_json::from_str(&p))
                .transpose()
                .map_err(unreadable)?,
        })
    }
}
