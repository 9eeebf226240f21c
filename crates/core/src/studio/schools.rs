//! Where painters differ: settings of the studio, each school a sound way of working.

use crate::mix::Thinning;
use chrono::Duration;
use serde::{Deserialize, Serialize};

/// How long to wait before varnish, beside the computed cure; the later of the two counts.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum Waiting {
    /// An hour to a day for thin ordinary coats.
    Brisk,
    /// Three to four days.
    #[default]
    Standard,
    /// Two weeks and more.
    Patient,
}

/// Floor of the brisk school [h]. [practice] an hour to a day; a day is taken
const BRISK_H: i64 = 24;
/// Floor of the standard school [h]. [practice] three to four days; three is the floor
const STANDARD_H: i64 = 72;
/// Floor of the patient school, and of slow-drying paint in every school [h]. [practice] two weeks
const PATIENT_H: i64 = 14 * 24;

/// Floor of every school when retarder was used, and no slow-drying paint [h]. [practice] longer in
/// every school; no number is handed down, a week is taken
const RETARDED_H: i64 = 7 * 24;
/// Floor of the patient school when retarder or slow-drying paint was used [h]. [practice] "weeks";
/// three are taken
const PATIENT_SLOWED_H: i64 = 21 * 24;

/// What in a stack makes every school wait longer, the lesser first.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Default)]
pub enum Slowed {
    /// Nothing.
    #[default]
    No,
    /// Retarder in a cup.
    Retarder,
    /// Slow-drying paint.
    SlowPaint,
}

impl Waiting {
    /// Every school, the shortest wait first.
    pub const ALL: [Self; 3] = [Self::Brisk, Self::Standard, Self::Patient];

    /// What painters call it, and how long it waits where nothing slows the stack.
    pub fn said(self) -> String {
        let what = match self {
            Self::Brisk => "Brisk",
            Self::Standard => "Standard",
            Self::Patient => "Patient",
        };
        let days = self.floor(Slowed::No).num_days();
        format!("{what}: {days} day{}", if days == 1 { "" } else { "s" })
    }

    /// The shortest wait from the last painted coat to the first sealing one.
    pub fn floor(self, slowed: Slowed) -> Duration {
        Duration::hours(match (self, slowed) {
            (Self::Brisk, Slowed::No) => BRISK_H,
            (Self::Standard, Slowed::No) => STANDARD_H,
            (Self::Brisk | Self::Standard, Slowed::Retarder) => RETARDED_H,
            (Self::Brisk | Self::Standard, Slowed::SlowPaint) | (Self::Patient, Slowed::No) => {
                PATIENT_H
            }
            (Self::Patient, Slowed::Retarder | Slowed::SlowPaint) => PATIENT_SLOWED_H,
        })
    }
}

/// The schools of one studio.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
pub struct Schools {
    /// How paint is made thinner.
    pub thinning: Thinning,
    /// How long to wait before varnish.
    pub waiting: Waiting,
    /// A night between blocking in and glazing, to look again.
    pub fresh_eyes: bool,
    /// A clear permanent coat between paint and removable varnish.
    pub isolation_coat: bool,
}

impl Default for Schools {
    fn default() -> Self {
        Self {
            thinning: Thinning::default(),
            waiting: Waiting::default(),
            fresh_eyes: true,
            isolation_coat: false,
        }
    }
}
