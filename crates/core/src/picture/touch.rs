//! What a fingertip felt on a coat.

use crate::film::FilmState;
use crate::words::words;
use chrono::{DateTime, Utc};

words! {
    /// What a coat feels like to a fingertip.
    Touch {
        /// It smears: it has not set.
        Wet = "wet",
        /// It has set and still takes a print.
        Tacky = "tacky",
        /// A fingertip takes nothing.
        Dry = "dry",
        /// A fingernail leaves no mark.
        Hard = "hard",
    }
}

impl Touch {
    /// What painters call it.
    pub const fn said(self) -> &'static str {
        match self {
            Self::Wet => "Wet: it smears",
            Self::Tacky => "Tacky: it takes a print",
            Self::Dry => "Dry to a fingertip",
            Self::Hard => "Hard to a fingernail",
        }
    }

    /// The state that was reached then, and the one that was not.
    pub const fn tells(self) -> (Option<FilmState>, Option<FilmState>) {
        match self {
            Self::Wet => (None, Some(FilmState::Setting)),
            Self::Tacky => (Some(FilmState::Setting), Some(FilmState::TouchDry)),
            Self::Dry => (Some(FilmState::TouchDry), None),
            Self::Hard => (Some(FilmState::DryThrough), None),
        }
    }
}

/// A fingertip on a coat.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord)]
pub struct TouchTest {
    /// When.
    pub at: DateTime<Utc>,
    /// The step whose coat it was, by its name within the picture.
    pub step: String,
    /// What was felt.
    pub felt: Touch,
}
