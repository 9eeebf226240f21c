//! What happened beside the coats: notes, coats wiped off, sanding, what went wrong; and what is about no
//! picture: a session, the palette, a material.

use crate::mix::SwatchSeen;
use crate::words::words;
use chrono::{DateTime, Utc};

words! {
    /// What goes wrong with paint.
    PaintTrouble {
        /// The coat below came off with it.
        Lifted = "lifted",
        /// It was torn while it was tacky.
        Torn = "torn",
        /// Water made spots.
        Spots = "spots",
        /// Streaks or bands, uneven depth.
        Streaks = "streaks",
        /// It is milky.
        Cloudy = "cloudy",
        /// It came out too dark.
        TooDark = "too_dark",
        /// It came out too light.
        TooLight = "too_light",
        /// It came out in another colour.
        WrongCast = "wrong_cast",
        /// Dust or a hair is in it.
        Dust = "dust",
    }
}

impl PaintTrouble {
    /// What painters call it.
    pub const fn said(self) -> &'static str {
        match self {
            Self::Lifted => "Lifted the coat below",
            Self::Torn => "Torn while tacky",
            Self::Spots => "Spots from water",
            Self::Streaks => "Streaks or bands",
            Self::Cloudy => "Cloudy, milky",
            Self::TooDark => "Too dark",
            Self::TooLight => "Too light",
            Self::WrongCast => "Wrong cast",
            Self::Dust => "Dust or a hair",
        }
    }

    /// What to do at once; docs/trade.md, "When it goes wrong with paint". [practice]
    pub const fn at_once(self) -> &'static str {
        match self {
            Self::Lifted => "Stop and leave it. Do not rub.",
            Self::Torn => "Leave it alone: every stroke tears it further.",
            Self::Spots => {
                "Leave them. Only where it is dry through, wet the whole passage evenly."
            }
            Self::Streaks => "Wipe it off evenly while it is workable, else leave it.",
            Self::Cloudy => {
                "Leave it: the film is not dry through. If it stays, it was laid too thick or too cold."
            }
            Self::TooDark | Self::TooLight | Self::WrongCast => {
                "Leave it: judge it again when it is dry."
            }
            Self::Dust => "Leave it and do not pick: it comes off when the coat is dry through.",
        }
    }
}

/// What happened.
#[derive(Debug, Clone, PartialEq)]
pub enum What {
    /// Only what the painter wrote.
    Noted,
    /// The palette was misted.
    Misted,
    /// The coat was wiped off while it was wet.
    WipedOff {
        /// Its wet film before [um].
        was_um: f64,
    },
    /// The coat was sanded or scraped back when it was dry.
    Sanded {
        /// How deep [um, dry]; through to the coat below when not said.
        dry_um: Option<f64>,
        /// The wet film that its coat counted as before [um].
        was_um: f64,
    },
    /// Something went wrong.
    Trouble(PaintTrouble),
    /// A swatch was made.
    Swatch(SwatchSeen),
    /// The painter worked in the studio.
    Session {
        /// Until when.
        until: DateTime<Utc>,
    },
}

impl What {
    /// The word in the log and in studio documents.
    pub const fn word(&self) -> &'static str {
        match self {
            Self::Noted => "noted",
            Self::Misted => "misted",
            Self::WipedOff { .. } => "wiped_off",
            Self::Sanded { .. } => "sanded",
            Self::Trouble(_) => "trouble",
            Self::Swatch(_) => "swatch",
            Self::Session { .. } => "session",
        }
    }

    /// Whether it may stand in the day book of the studio, about no picture.
    pub const fn is_of_studio(&self) -> bool {
        matches!(self, Self::Noted | Self::Misted | Self::Session { .. })
    }

    /// Whether it may stand on a picture.
    pub const fn is_of_picture(&self) -> bool {
        !matches!(self, Self::Session { .. })
    }
}

/// Something that happened, on a picture or in the studio.
#[derive(Debug, Clone, PartialEq)]
pub struct Happening {
    /// When.
    pub at: DateTime<Utc>,
    /// The step it is about.
    pub step: Option<String>,
    /// The material it is about.
    pub material: Option<String>,
    /// Where on the picture, in the painter's words; empty when not said.
    pub place: String,
    /// What the painter wrote; empty when nothing.
    pub words: String,
    /// What.
    pub what: What,
}

impl Happening {
    /// The step when the coat of that step counts otherwise since.
    pub fn changed(&self) -> Option<&str> {
        match self.what {
            What::WipedOff { .. } | What::Sanded { .. } => self.step.as_deref(),
            _ => None,
        }
    }

    /// The same, but for what the painter wrote and when it was.
    pub fn is_of(&self, other: &Self) -> bool {
        self.step == other.step && self.what == other.what
    }
}

/// Wet film that is left of a coat that was wiped off [um]: a veil in the tooth of the ground. [practice]
pub const WIPED_UM: f64 = 2.0;
