//! The instruments of a studio: their kinds, and how long one may be silent.

use crate::words::words;
use chrono::{DateTime, TimeDelta, Utc};

words! {
    /// What an instrument measures.
    InstrumentKind {
        /// Temperature and humidity of the room.
        Hygrometer = "hygrometer",
        /// What lies on the bench.
        Scale = "scale",
        /// The outside in the days to come.
        Forecast = "forecast",
    }
}

impl InstrumentKind {
    /// What painters call it.
    pub const fn said(self) -> &'static str {
        match self {
            Self::Hygrometer => "Thermo-hygrometer",
            Self::Scale => "Scale",
            Self::Forecast => "Forecast",
        }
    }

    /// How long nothing may be heard of one before it is said. [practice] a hygrometer sends at least
    /// every five minutes, a forecast every six hours
    fn quiet(self) -> Option<TimeDelta> {
        match self {
            Self::Hygrometer => Some(TimeDelta::minutes(15)),
            Self::Forecast => Some(TimeDelta::hours(12)),
            Self::Scale => None,
        }
    }

    /// Whether one that was `heard` last then is silent by `now`.
    pub fn is_silent(self, heard: Option<DateTime<Utc>>, now: DateTime<Utc>) -> bool {
        heard.zip(self.quiet()).is_some_and(|(heard, quiet)| now - heard > quiet)
    }
}

/// How late a reading may come: what a device keeps while it cannot send. [practice]
pub const LATEST: TimeDelta = TimeDelta::days(7);
/// How far ahead of ours the clock of a device may be. [practice]
pub const AHEAD: TimeDelta = TimeDelta::minutes(2);

/// Why a reading of `at` is not taken at `now`.
pub fn untimely(at: DateTime<Utc>, now: DateTime<Utc>) -> Option<String> {
    if at > now + AHEAD {
        return Some("it is of the future: the clock of the device is wrong".to_owned());
    }
    let late = format!("it is more than {} days old: too late to be taken in", LATEST.num_days());
    (at < now - LATEST).then_some(late)
}
