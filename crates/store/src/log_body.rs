//! How what happened beside the coats is written into JSON columns.

use crate::mix_body::{MixBody, mix_body, mix_of};
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};
use ulvek_core::mix::{Swatch, SwatchSeen};
use ulvek_core::picture::{Happening, PaintTrouble, What};

/// What happened, in a revision of a picture.
#[derive(Clone, Serialize, Deserialize)]
pub(crate) struct HappeningBody {
    at: DateTime<Utc>,
    step: Option<String>,
    what: WhatBody,
    #[serde(flatten)]
    words: WordsBody,
}

/// What the painter says of it.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize)]
pub struct WordsBody {
    /// The material it is about.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub material: Option<String>,
    /// Where.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub place: String,
    /// The words.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub words: String,
}

/// What happened.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum WhatBody {
    /// A note.
    Noted,
    /// The palette was misted.
    Misted,
    /// The coat was wiped off; its wet film before [um].
    WipedOff(f64),
    /// It was sanded: how deep [um, dry], and the wet film it counted as before [um].
    Sanded(Option<f64>, f64),
    /// Something went wrong.
    Trouble(PaintTrouble),
    /// A swatch was made.
    Swatch(SwatchBody),
    /// The painter worked in the studio until then.
    Session(DateTime<Utc>),
}

/// A swatch: its mix, its wet film [um], what was predicted over white and black, and what was seen.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct SwatchBody {
    mix: MixBody,
    wet_film_um: f64,
    predicted: [[u8; 3]; 2],
    seen: [[u8; 3]; 2],
}

impl WhatBody {
    /// Their words in the log.
    pub(crate) const WORDS: [&str; 7] =
        ["noted", "misted", "wiped_off", "sanded", "trouble", "swatch", "session"];

    /// Its word in the log.
    pub(crate) const fn word(&self) -> &'static str {
        match self {
            Self::Noted => "noted",
            Self::Misted => "misted",
            Self::WipedOff(_) => "wiped_off",
            Self::Sanded(..) => "sanded",
            Self::Trouble(_) => "trouble",
            Self::Swatch(_) => "swatch",
            Self::Session(_) => "session",
        }
    }

    pub(crate) fn of(what: &What) -> Self {
        match what {
            What::Noted => Self::Noted,
            What::Misted => Self::Misted,
            What::WipedOff { was_um } => Self::WipedOff(*was_um),
            What::Sanded { dry_um, was_um } => Self::Sanded(*dry_um, *was_um),
            What::Trouble(trouble) => Self::Trouble(*trouble),
            What::Session { until } => Self::Session(*until),
            What::Swatch(seen) => Self::Swatch(SwatchBody {
                mix: mix_body(&seen.mix),
                wet_film_um: seen.wet_film_um,
                predicted: [seen.predicted.0.0, seen.predicted.1.0],
                seen: [seen.seen.0.0, seen.seen.1.0],
            }),
        }
    }

    pub(crate) fn into_what(self) -> What {
        match self {
            Self::Noted => What::Noted,
            Self::Misted => What::Misted,
            Self::WipedOff(was_um) => What::WipedOff { was_um },
            Self::Sanded(dry_um, was_um) => What::Sanded { dry_um, was_um },
            Self::Trouble(trouble) => What::Trouble(trouble),
            Self::Session(until) => What::Session { until },
            Self::Swatch(body) => What::Swatch(SwatchSeen {
                mix: mix_of(body.mix),
                wet_film_um: body.wet_film_um,
                predicted: (Swatch(body.predicted[0]), Swatch(body.predicted[1])),
                seen: (Swatch(body.seen[0]), Swatch(body.seen[1])),
            }),
        }
    }
}

impl WordsBody {
    pub(crate) fn of(happening: &Happening) -> Self {
        Self {
            material: happening.material.clone(),
            place: happening.place.clone(),
            words: happening.words.clone(),
        }
    }

    pub(crate) fn happened(
        self,
        (at, step): (DateTime<Utc>, Option<String>),
        what: WhatBody,
    ) -> Happening {
        let Self { material, place, words } = self;
        Happening { at, step, material, place, words, what: what.into_what() }
    }
}

impl HappeningBody {
    pub fn of(happening: &Happening) -> Self {
        Self {
            at: happening.at,
            step: happening.step.clone(),
            what: WhatBody::of(&happening.what),
            words: WordsBody::of(happening),
        }
    }

    pub fn into_happening(self) -> Happening {
        self.words.happened((self.at, self.step), self.what)
    }
}
