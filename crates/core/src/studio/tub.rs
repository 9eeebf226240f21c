//! Pre-mixed colour: what is in it, when it was mixed, and how long it keeps.

use crate::mix::{Mix, Stock};
use crate::time::DAY_S;
use crate::words::words;
use chrono::{DateTime, Duration, Utc};

words! {
    /// How well a container keeps the air out.
    Tightness {
        /// An airtight tub.
        Airtight = "airtight",
        /// A lid that leaks a little.
        Leaky = "leaky",
        /// A covered damp palette.
        Palette = "palette",
    }
}

words! {
    /// What a look into a tub before use can find.
    TubTrouble {
        /// A skin on top, or dry lumps.
        Skin = "skin",
        /// Mould, or a smell of it.
        Mould = "mould",
        /// Something that does not belong in it.
        Contamination = "contamination",
    }
}

impl Tightness {
    /// How long colour keeps in it [days].
    pub const fn keeps_days(self) -> f64 {
        match self {
            Self::Airtight => 21.0, // [practice] days to weeks: three weeks
            Self::Leaky => 5.0,     // [practice] less if the lid leaks
            Self::Palette => 3.0,   // [practice] days on a covered damp palette
        }
    }
}

impl Tightness {
    /// What it is, and how long colour keeps in it.
    pub fn said(self) -> String {
        let what = match self {
            Self::Airtight => "Airtight tub",
            Self::Leaky => "Lid that leaks",
            Self::Palette => "Covered damp palette",
        };
        format!("{what}: keeps for {:.0} days", self.keeps_days())
    }
}

impl TubTrouble {
    /// What was found, in the middle of a sentence.
    pub const fn said(self) -> &'static str {
        match self {
            Self::Skin => "a skin or dry lumps",
            Self::Mould => "mould",
            Self::Contamination => "something that does not belong in it",
        }
    }
}

/// A look into a tub.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct TubCheck {
    /// When.
    pub at: DateTime<Utc>,
    /// What was found; nothing when it is good.
    pub found: Vec<TubTrouble>,
}

/// Whether colour from a tub can be used.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum TubCondition {
    /// It keeps.
    Good,
    /// Its last good day is past and nobody looked since.
    Past,
    /// The last look found trouble.
    Spoiled(TubTrouble),
}

/// A tub of pre-mixed colour. What is in it never changes: another mix is another tub.
#[derive(Debug, Clone, PartialEq)]
pub struct Tub {
    /// Its name within the studio.
    pub id: String,
    /// What the painter calls it.
    pub name: String,
    /// What is in it.
    pub mix: Mix,
    /// When it was mixed.
    pub mixed_at: DateTime<Utc>,
    /// How much was mixed [ml].
    pub mixed_ml: f64,
    /// How much there was when it was last measured; at first what was mixed.
    pub level: Stock,
    /// Its container.
    pub tightness: Tightness,
    /// How long this mix keeps [days], when the painter knows better than the container.
    pub keeps_days: Option<f64>,
    /// Looks into it, the oldest first.
    pub checks: Vec<TubCheck>,
    /// Put away: empty or thrown out.
    pub archived: bool,
}

impl Tub {
    /// The last moment it is good for, by its container or the painter's own measure.
    pub fn last_good(&self) -> DateTime<Utc> {
        let days = self.keeps_days.unwrap_or(self.tightness.keeps_days());
        self.mixed_at + Duration::seconds((days * DAY_S) as i64)
    }

    /// Its condition when it is used at `when`. A good look after the last good day counts for
    /// that day alone.
    pub fn condition(&self, when: DateTime<Utc>) -> TubCondition {
        let last = self.checks.iter().rfind(|c| c.at <= when);
        if let Some(trouble) = last.and_then(|c| c.found.first()) {
            return TubCondition::Spoiled(*trouble);
        }
        let looked = last.is_some_and(|c| when - c.at <= Duration::days(1));
        if when <= self.last_good() || looked { TubCondition::Good } else { TubCondition::Past }
    }
}
