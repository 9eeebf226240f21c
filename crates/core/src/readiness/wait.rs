//! Why a step does not start at once, and what painters are told of it.

use crate::picture::Need;
use chrono::{DateTime, Utc};

/// What decides when a step may start.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum WaitReason {
    /// The film below must reach a state.
    Film,
    /// The step below must be done.
    Order,
    /// The school's floor before sealing.
    School,
    /// Slow-drying paint in the stack: two weeks in every school.
    SlowPaint,
    /// Retarder in the stack: longer in every school.
    Retarder,
    /// A night between blocking in and glazing.
    FreshEyes,
    /// Varnish coats a day (or in the brisk school an hour) apart.
    BetweenVarnish,
    /// A solvent varnish over a water-borne coat: three days at least.
    SolventOverWater,
    /// A gap that the painter asked for.
    Gap,
    /// A date that the painter set.
    NotBefore,
    /// A flat place must come free.
    FlatPlace,
    /// The painter pinned it to a time.
    Pinned,
}

/// Why a step does not start at once.
#[derive(Debug, Clone, PartialEq)]
pub struct Wait {
    /// What decides.
    pub reason: WaitReason,
    /// The state the step needs.
    pub state: Need,
    /// Index of the step waited for, in the same picture.
    pub of: usize,
    /// When the wait is over.
    pub until: DateTime<Utc>,
    /// Minutes from the end of that step to then.
    pub lag_min: f64,
    /// When the film alone would be ready, if it has to reach a state.
    pub film_ready: Option<DateTime<Utc>>,
}

impl Wait {
    /// Why the step waits for the one called `below`, as a sentence without its end.
    pub fn said(&self, below: &str) -> String {
        let reason = match self.reason {
            WaitReason::Film => return format!("Waits for {below} to be {}", self.state.word()),
            WaitReason::Order => return format!("Comes after {below}"),
            WaitReason::School => "the studio's waiting time before varnish",
            WaitReason::SlowPaint => "two weeks, because slow-drying paint is in the stack",
            WaitReason::Retarder => "longer than usual, because retarder is in the stack",
            WaitReason::SolventOverWater => {
                "three days before solvent varnish over a water-borne coat"
            }
            WaitReason::FreshEyes => "a night, to look at it with fresh eyes",
            WaitReason::BetweenVarnish => "the gap between varnish coats",
            WaitReason::Gap => "the gap you asked for",
            WaitReason::NotBefore => "the date you set",
            WaitReason::FlatPlace => "a flat place that comes free",
            WaitReason::Pinned => "the time you pinned it to",
        };
        format!("Waits after {below}: {reason}")
    }
}
