//! The dates that anything may have, at every door.

use chrono::{DateTime, NaiveDate, Utc};
use thiserror::Error;

/// First day that anything may have. [practice] older pictures are finished; a year typed with two
/// digits is caught
pub const FIRST_DAY: NaiveDate = day(2000, 1, 1);
/// Last day that anything may have. [practice]
pub const LAST_DAY: NaiveDate = day(2099, 12, 31);

/// Nanoseconds of a second [ns]. definition
const NANOS_OF_SECOND: u32 = 1_000_000_000;

const fn day(year: i32, month: u32, day: u32) -> NaiveDate {
    match NaiveDate::from_ymd_opt(year, month, day) {
        Some(day) => day,
        None => NaiveDate::MIN,
    }
}

/// A date that lies outside what is taken.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Error)]
#[error("must be from {FIRST_DAY} to {LAST_DAY}, not {0}")]
pub struct DateOutOfRange(pub NaiveDate);

/// Returns `day` when it may be.
///
/// # Errors
/// [`DateOutOfRange`] otherwise.
///
/// ```
/// use ulvek_core::quantity::check_day;
/// assert!(check_day("2027-02-12".parse().unwrap()).is_ok());
/// let typed = "0026-02-12".parse().unwrap();
/// assert_eq!(
///     check_day(typed).unwrap_err().to_string(),
///     "must be from 2000-01-01 to 2099-12-31, not 0026-02-12"
/// );
/// ```
pub fn check_day(day: NaiveDate) -> Result<NaiveDate, DateOutOfRange> {
    if (FIRST_DAY..=LAST_DAY).contains(&day) { Ok(day) } else { Err(DateOutOfRange(day)) }
}

/// Why a moment cannot be.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Error)]
pub enum MomentFault {
    /// Its day (in UTC) lies outside what is taken.
    #[error(transparent)]
    Day(#[from] DateOutOfRange),
    /// It names second 60 of a minute: no clock of a studio shows it, and no database keeps it.
    #[error("must have seconds from 00 to 59, not 60")]
    LeapSecond,
}

/// Returns `at` when its day (in UTC) may be and its second is not a leap second.
///
/// # Errors
/// [`MomentFault`] otherwise.
///
/// ```
/// use ulvek_core::quantity::{MomentFault, check_moment};
/// assert!(check_moment("2027-02-12T10:59:59.5Z".parse().unwrap()).is_ok());
/// let leap = "2027-02-12T10:59:60Z".parse().unwrap();
/// assert_eq!(check_moment(leap), Err(MomentFault::LeapSecond));
/// ```
pub fn check_moment(at: DateTime<Utc>) -> Result<DateTime<Utc>, MomentFault> {
    // chrono keeps a leap second as second 59 with more than a second of nanoseconds.
    if at.timestamp_subsec_nanos() >= NANOS_OF_SECOND {
        return Err(MomentFault::LeapSecond);
    }
    check_day(at.date_naive())?;
    Ok(at)
}
