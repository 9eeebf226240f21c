//! The hours a painter has, in the time zone of the studio.

use chrono::{DateTime, Datelike, Days, NaiveDate, NaiveTime, TimeZone, Utc, Weekday};
use chrono_tz::Tz;
use thiserror::Error;

/// Hours on one day of the week.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct OpenHours {
    /// Day of the week.
    pub day: Weekday,
    /// Start, local time.
    pub from: NaiveTime,
    /// End, local time, later than the start; [`MIDNIGHT`] is the end of the day.
    pub to: NaiveTime,
}

/// When a painter's day begins [h after midnight]: a night lies between two of them. [practice]
const WAKES: chrono::Duration = chrono::Duration::hours(4);

/// How the end of a day, `24:00`, is written as a time of that day: its last second.
pub const MIDNIGHT: NaiveTime = match NaiveTime::from_hms_opt(23, 59, 59) {
    Some(time) => time,
    None => NaiveTime::MIN,
};

/// Days off, first and last included.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Closed {
    /// First day off.
    pub from: NaiveDate,
    /// Last day off.
    pub to: NaiveDate,
}

/// Why hours do not fit.
#[derive(Debug, Clone, PartialEq, Eq, Error)]
pub enum HoursError {
    /// They end before they begin.
    #[error("the hours must end after they begin, not run from {from} to {to}")]
    Order {
        /// Start as given.
        from: NaiveTime,
        /// End as given.
        to: NaiveTime,
    },
    /// The days off end before they begin.
    #[error("the days off must end on or after their first day, not run from {from} to {to}")]
    ClosedOrder {
        /// First day as given.
        from: NaiveDate,
        /// Last day as given.
        to: NaiveDate,
    },
}

/// One stretch of time in which the painter can work.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Session {
    /// Start.
    pub from: DateTime<Utc>,
    /// End.
    pub to: DateTime<Utc>,
}

/// Weekly hours less the days off.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct StudioHours {
    zone: Tz,
    weekly: Vec<OpenHours>,
    closed: Vec<Closed>,
}

impl StudioHours {
    /// Hours in `zone`: a weekly pattern and days off.
    ///
    /// # Errors
    /// [`HoursError`], with the index of the row in `weekly` or `closed`.
    pub fn try_new(
        zone: Tz,
        weekly: Vec<OpenHours>,
        closed: Vec<Closed>,
    ) -> Result<Self, (usize, HoursError)> {
        for (i, h) in weekly.iter().enumerate() {
            if h.to <= h.from {
                return Err((i, HoursError::Order { from: h.from, to: h.to }));
            }
        }
        for (i, c) in closed.iter().enumerate() {
            if c.to < c.from {
                return Err((i, HoursError::ClosedOrder { from: c.from, to: c.to }));
            }
        }
        Ok(Self { zone, weekly, closed })
    }

    /// The studio's time zone.
    pub const fn zone(&self) -> Tz {
        self.zone
    }

    /// The weekly pattern.
    pub fn weekly(&self) -> &[OpenHours] {
        &self.weekly
    }

    /// The days off.
    pub fn closed(&self) -> &[Closed] {
        &self.closed
    }

    /// The day it is in the studio at `at`.
    pub fn day(&self, at: DateTime<Utc>) -> NaiveDate {
        at.with_timezone(&self.zone).date_naive()
    }

    /// Calendar days from the day `due` to `at`; 0 in time.
    pub fn days_late(&self, at: DateTime<Utc>, due: NaiveDate) -> i64 {
        (self.day(at) - due).num_days().max(0)
    }

    /// The moment a day begins in the studio.
    pub fn start_of(&self, day: NaiveDate) -> DateTime<Utc> {
        self.instant(day, NaiveTime::MIN)
    }

    /// The moment a day ends in the studio.
    pub fn end_of(&self, day: NaiveDate) -> DateTime<Utc> {
        self.instant(day.succ_opt().unwrap_or(day), NaiveTime::MIN)
    }

    /// The moment the night after `after` is over in the studio, and the next day begins: not at midnight, at
    /// which one may be painting.
    pub fn next_day(&self, after: DateTime<Utc>) -> DateTime<Utc> {
        let waking = self.day(after - WAKES);
        let next = waking.succ_opt().unwrap_or(waking);
        let at = NaiveTime::MIN + WAKES;
        self.instant(next, at)
    }

    /// When hours that end at `to` on `day` are over.
    fn ends(&self, day: NaiveDate, to: NaiveTime) -> DateTime<Utc> {
        if to == MIDNIGHT { self.end_of(day) } else { self.instant(day, to) }
    }

    /// The sessions that touch `from..to`, in order, hours that meet joined (also at midnight), cut
    /// at `from` and `to`.
    pub fn sessions(&self, from: DateTime<Utc>, to: DateTime<Utc>) -> Vec<Session> {
        let mut found: Vec<Session> = Vec::new();
        if self.weekly.is_empty() || to <= from {
            return found;
        }
        let mut day = self.day(from);
        let last = self.day(to);
        while day <= last {
            if !self.closed.iter().any(|c| (c.from..=c.to).contains(&day)) {
                for hours in self.weekly.iter().filter(|h| h.day == day.weekday()) {
                    let session = Session {
                        from: self.instant(day, hours.from).max(from),
                        to: self.ends(day, hours.to).min(to),
                    };
                    if session.to > session.from {
                        found.push(session);
                    }
                }
            }
            let Some(next) = day.checked_add_days(Days::new(1)) else { break };
            day = next;
        }
        found.sort_by_key(|s| s.from);
        let mut joined: Vec<Session> = Vec::with_capacity(found.len());
        for session in found {
            match joined.last_mut() {
                Some(last) if session.from <= last.to => last.to = last.to.max(session.to),
                _ => joined.push(session),
            }
        }
        joined
    }

    /// The last hours before the end of `day`, when `day` itself has none: a date on a day off is
    /// met by then or not at all. `None` when the day has hours, or nothing in a year before it has.
    pub fn last_before_day_off(&self, day: NaiveDate) -> Option<Session> {
        let (from, to) = (self.start_of(day), self.end_of(day));
        if !self.sessions(from, to).is_empty() {
            return None;
        }
        self.sessions(from - chrono::Duration::days(366), from).pop()
    }

    /// A local time as an instant: the first of two when clocks go back, the next hour that
    /// exists when they go forward.
    fn instant(&self, day: NaiveDate, time: NaiveTime) -> DateTime<Utc> {
        let local = day.and_time(time);
        for ahead in 0..=3 {
            let shifted = local + chrono::Duration::hours(ahead);
            if let Some(at) = self.zone.from_local_datetime(&shifted).earliest() {
                return at.with_timezone(&Utc);
            }
        }
        Utc.from_utc_datetime(&local)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn time(text: &str) -> NaiveTime {
        text.parse().unwrap()
    }

    fn utc(text: &str) -> DateTime<Utc> {
        text.parse().unwrap()
    }

    #[test]
    fn a_session_keeps_its_local_hour_over_the_change_of_clocks() {
        // Europe/Oslo leaves daylight saving on 25 October 2026 (IANA time zone database).
        let hours =
            vec![OpenHours { day: Weekday::Sun, from: time("10:00:00"), to: time("12:00:00") }];
        let studio = StudioHours::try_new(chrono_tz::Europe::Oslo, hours, vec![]).unwrap();
        let found = studio.sessions(utc("2026-10-17T00:00:00Z"), utc("2026-10-27T00:00:00Z"));
        let starts: Vec<_> = found.iter().map(|s| s.from).collect();
        assert_eq!(starts, [utc("2026-10-18T08:00:00Z"), utc("2026-10-25T09:00:00Z")]);
    }

    #[test]
    fn a_date_on_a_day_off_hangs_on_the_last_hours_before_it() {
        let hours =
            vec![OpenHours { day: Weekday::Sat, from: time("10:00:00"), to: time("12:00:00") }];
        let studio = StudioHours::try_new(chrono_tz::UTC, hours, vec![]).unwrap();
        let day = |d| NaiveDate::from_ymd_opt(2027, 1, d).unwrap();
        assert_eq!(studio.last_before_day_off(day(9)), None, "a Saturday");
        let last = studio.last_before_day_off(day(13)).unwrap();
        assert_eq!(last.to, utc("2027-01-09T12:00:00Z"));
    }

    #[test]
    fn days_off_have_no_session_and_backward_hours_are_refused() {
        let hours =
            vec![OpenHours { day: Weekday::Sat, from: time("10:00:00"), to: time("12:00:00") }];
        let day = |d| NaiveDate::from_ymd_opt(2027, 1, d).unwrap();
        let off = vec![Closed { from: day(1), to: day(3) }];
        let studio = StudioHours::try_new(chrono_tz::UTC, hours, off).unwrap();
        let found = studio.sessions(utc("2027-01-01T00:00:00Z"), utc("2027-01-10T00:00:00Z"));
        assert_eq!(found.len(), 1);
        assert_eq!(found[0].from, utc("2027-01-09T10:00:00Z"));
        let backward =
            OpenHours { day: Weekday::Sat, from: time("12:00:00"), to: time("10:00:00") };
        assert!(StudioHours::try_new(chrono_tz::UTC, vec![backward], vec![]).is_err());
    }

    #[test]
    fn an_hour_that_the_clocks_leave_out_begins_when_they_go_on() {
        // Europe/Oslo has no 02:30 on 28 March 2027 (IANA time zone database).
        let hours =
            vec![OpenHours { day: Weekday::Sun, from: time("02:30:00"), to: time("05:00:00") }];
        let studio = StudioHours::try_new(chrono_tz::Europe::Oslo, hours, vec![]).unwrap();
        let found = studio.sessions(utc("2027-03-28T00:00:00Z"), utc("2027-03-28T12:00:00Z"));
        assert_eq!(
            found,
            [Session { from: utc("2027-03-28T01:30:00Z"), to: utc("2027-03-28T03:00:00Z") }]
        );
    }

    #[test]
    fn a_day_ends_at_midnight_and_hours_that_meet_there_are_one_session() {
        let open = |day, from, to| OpenHours { day, from: time(from), to };
        let weekly = vec![
            open(Weekday::Fri, "22:00:00", MIDNIGHT),
            open(Weekday::Sat, "00:00:00", time("02:00:00")),
        ];
        let studio = StudioHours::try_new(chrono_tz::UTC, weekly, vec![]).unwrap();
        let found = studio.sessions(utc("2027-01-05T00:00:00Z"), utc("2027-01-12T00:00:00Z"));
        let night = Session { from: utc("2027-01-08T22:00:00Z"), to: utc("2027-01-09T02:00:00Z") };
        assert_eq!(found, [night]);
    }

    #[test]
    fn overlapping_hours_are_one_session_and_now_cuts_it() {
        let open = |from, to| OpenHours { day: Weekday::Wed, from: time(from), to: time(to) };
        let weekly = vec![open("13:00:00", "16:00:00"), open("10:00:00", "14:00:00")];
        let studio = StudioHours::try_new(chrono_tz::UTC, weekly, vec![]).unwrap();
        let found = studio.sessions(utc("2027-01-06T11:15:00Z"), utc("2027-01-07T00:00:00Z"));
        assert_eq!(
            found,
            [Session { from: utc("2027-01-06T11:15:00Z"), to: utc("2027-01-06T16:00:00Z") }]
        );
    }
}
