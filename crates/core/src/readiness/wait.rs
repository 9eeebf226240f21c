//! Why a step does not start at once, and what painters are told of it.

use crate::picture::{Need, Picture};
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
    /// The air is not fit for it.
    Air,
    /// A flat place must come free.
    FlatPlace,
    /// It comes after the painter's next hours.
    Hours,
    /// It would lie over a sealing coat.
    OverSeal,
    /// The painter pinned it to a time.
    Pinned,
    /// It could be done: what lies below it dries sooner uncovered.
    OnPurpose,
}

/// Why a step does not start at once.
#[derive(Debug, Clone, PartialEq)]
pub struct Wait {
    /// What decides.
    pub reason: WaitReason,
    /// The state the step needs.
    pub state: Need,
    /// Index of the step waited for, in the same picture; `None` when it stands on nothing.
    pub of: Option<usize>,
    /// When the wait is over.
    pub until: DateTime<Utc>,
    /// Minutes from the end of that step to then; 0 when it stands on nothing.
    pub lag_min: f64,
    /// When the film alone would be ready, if it has to reach a state.
    pub film_ready: Option<DateTime<Utc>>,
}

impl Wait {
    /// Why the step, one of `picture`, waits: a sentence without its end.
    pub fn said(&self, picture: &Picture) -> String {
        match self.of {
            Some(of) => self.after(&picture.steps[of].called()),
            None => format!("Waits for {}", self.reason.word()),
        }
    }

    /// The same where it waits for the step called `below`.
    fn after(&self, below: &str) -> String {
        match self.reason {
            WaitReason::Film => format!("Waits for {below} to be {}", self.state.word()),
            WaitReason::Order => format!("Comes after {below}"),
            WaitReason::OnPurpose => {
                format!("Waits on purpose: {below} dries sooner uncovered, and the picture with it")
            }
            reason => format!("Waits after {below}: {}", reason.word()),
        }
    }
}

impl WaitReason {
    /// What is waited for, in words.
    pub const fn word(self) -> &'static str {
        match self {
            Self::Film => "the film below",
            Self::Order => "what it stands on",
            Self::School => "the studio's waiting time before varnish",
            Self::SlowPaint => "two weeks at least, because slow-drying paint is in the stack",
            Self::Retarder => "longer than usual, because retarder is in the stack",
            Self::SolventOverWater => "three days before solvent varnish over a water-borne coat",
            Self::FreshEyes => "a night, to look at it with fresh eyes",
            Self::BetweenVarnish => "the gap between varnish coats",
            Self::Gap => "the gap you asked for",
            Self::NotBefore => "the date you set",
            Self::Air => "air that is fit for it",
            Self::FlatPlace => "a flat place that comes free",
            Self::Hours => "your next hours",
            Self::OverSeal => "nothing: it would lie over a sealing coat",
            Self::Pinned => "the time you pinned it to",
            Self::OnPurpose => "what lies below, which dries sooner uncovered",
        }
    }

    /// What would lift it, in a few words.
    pub const fn lifts(self) -> &'static str {
        match self {
            Self::Film => "thinner coats, less retarder, a warmer, drier or airier room",
            Self::Order => "doing that first, or not letting it stand on it",
            Self::School => "another school of waiting, at its risk",
            Self::SlowPaint => "ordinary paint in place of the slow-drying",
            Self::Retarder => "no retarder in the coats to come",
            Self::SolventOverWater => "water-borne varnish",
            Self::FreshEyes => "no night for fresh eyes, in the studio's schools",
            Self::BetweenVarnish => "the brisk school, which waits an hour",
            Self::Gap | Self::NotBefore | Self::Pinned => "taking back what you asked for",
            Self::OnPurpose => "nothing: it may be done sooner, and the picture is ready later",
            Self::Air => "another air in the room",
            Self::FlatPlace => "one more flat place",
            Self::Hours => "an extra session",
            Self::OverSeal => "taking it out, or saying that paint over varnish is meant",
        }
    }
}
