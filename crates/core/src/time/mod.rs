//! The one way between instants, seconds of the Unix epoch and minutes of work.
//!
//! Films are followed in seconds as `f64`; painters are told instants. Nothing else converts.

use chrono::{DateTime, Duration, TimeZone, Utc};
use chrono_tz::Tz;

/// Seconds of a minute [s].
pub const MINUTE_S: f64 = 60.0; // definition
/// Seconds of an hour [s].
pub const HOUR_S: f64 = 3600.0; // definition
/// Seconds of a day [s].
pub const DAY_S: f64 = 86_400.0; // definition

/// Seconds of the Unix epoch [s], to the microsecond.
///
/// ```
/// use ulvek_core::time::{instant, seconds};
/// let at = "2027-01-15T17:00:00.5Z".parse().unwrap();
/// assert_eq!(seconds(at).fract(), 0.5);
/// assert!(instant(seconds(at)) > at, "never early");
/// ```
pub fn seconds(at: DateTime<Utc>) -> f64 {
    at.timestamp_micros() as f64 / 1e6
}

/// The instant `t` [s] after the Unix epoch, to the second and never early.
pub fn instant(t: f64) -> DateTime<Utc> {
    whole_instant(t.ceil() as i64)
}

/// The instant `t` [s] after the Unix epoch, to the microsecond: the way back from [`seconds`].
pub fn exact_instant(t: f64) -> DateTime<Utc> {
    DateTime::from_timestamp_micros((t * 1e6).round() as i64).unwrap_or(DateTime::<Utc>::MAX_UTC)
}

/// Whole seconds of the Unix epoch [s], rounded up.
pub fn whole_seconds(at: DateTime<Utc>) -> i64 {
    at.timestamp() + i64::from(at.timestamp_subsec_nanos() > 0)
}

/// The instant of a whole second of the Unix epoch [s].
pub fn whole_instant(second: i64) -> DateTime<Utc> {
    Utc.timestamp_opt(second, 0).single().unwrap_or(DateTime::<Utc>::MAX_UTC)
}

/// One stretch of time [s of the epoch].
pub type Stretch = (i64, i64);

/// Up to the full minute [s]: nobody starts a coat at 18:44:17.
pub const fn full_minute(second: i64) -> i64 {
    second + (-second).rem_euclid(60)
}

/// A moment as painters are told it, up to the full minute as every view says it:
/// `Thursday 14 January, 18:58`.
pub fn told(at: DateTime<Utc>, zone: Tz) -> String {
    let at = whole_instant(full_minute(whole_seconds(at)));
    at.with_timezone(&zone).format("%A %-d %B, %H:%M").to_string()
}

/// A length of time as it is said: `18 minutes`, `2.5 hours`, `3 days`.
pub fn lasting(min: f64) -> String {
    let (number, word) = rounded(min);
    let many = if (number - 1.0).abs() < f64::EPSILON { "" } else { "s" };
    format!("{number} {word}{many}")
}

/// A length of time between two, as it is said: `11 to 30 minutes`.
pub fn lasting_between(least: f64, most: f64) -> String {
    let ((number, unit), most_unit) = (rounded(least), rounded(most).1);
    let least = if unit == most_unit { number.to_string() } else { lasting(least) };
    format!("{least} to {}", lasting(most))
}

/// A length of time in the unit in which it is said.
fn rounded(min: f64) -> (f64, &'static str) {
    let hours = min / 60.0;
    match min {
        _ if min.round() < 90.0 => (min.round(), "minute"),
        _ if hours.round() < 48.0 => ((hours * 2.0).round() / 2.0, "hour"),
        _ => ((hours / 24.0).round(), "day"),
    }
}

/// Minutes [min] as whole seconds [s].
pub fn minutes_s(min: f64) -> i64 {
    (min * MINUTE_S).round() as i64
}

/// Minutes [min] as a length of time, to the second.
pub fn minutes(min: f64) -> Duration {
    Duration::seconds(minutes_s(min))
}

/// Minutes from `from` to `to` [min]; negative when `to` is before.
pub fn minutes_between(from: DateTime<Utc>, to: DateTime<Utc>) -> f64 {
    (to - from).num_seconds() as f64 / MINUTE_S
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    proptest! {
        #[test]
        fn seconds_and_back_is_the_same_microsecond(micros in 946_684_800_000_000i64..4_102_444_800_000_000) {
            // The table of dates, 2000 to 2099: every microsecond of it is told apart by an f64.
            let at = DateTime::from_timestamp_micros(micros).unwrap();
            prop_assert_eq!(exact_instant(seconds(at)), at);
            prop_assert!(instant(seconds(at)) >= at && instant(seconds(at)) - at < Duration::seconds(1));
            prop_assert!((whole_instant(whole_seconds(at)) - at).num_seconds() == 0);
        }
    }
}
