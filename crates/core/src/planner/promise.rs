//! What is said of a date: one sentence, by its odds and the two days that matter. Every screen, sheet and command
//! says it with these words.

use super::odds::PictureOdds;
use super::ready::ReadyOutcome;
use crate::studio::Studio;
use crate::words::words;
use chrono::{DateTime, Datelike, NaiveDate, Utc};

words! {
    /// How a picture stands to its date.
    DateStanding {
        /// Every step is done.
        Done = "done",
        /// It cannot be finished as planned.
        Stuck = "stuck",
        /// It has no date.
        NoDate = "no_date",
        /// As sure as its painter wants to be.
        InTime = "in_time",
        /// Less sure than that, but rather in time than not.
        NotSure = "not_sure",
        /// Rather late than in time.
        Late = "late",
    }
}

/// A date as it is said.
#[derive(Debug, Clone, PartialEq)]
pub struct Promise {
    /// How it stands.
    pub standing: DateStanding,
    /// In a few words, without an end: `Not sure: 6 in 10`.
    pub short: String,
    /// In a sentence: `Likely ready 26 December, surely by 8 January; due 28 December: 6 in 10.`
    pub said: String,
}

/// Shares are told in tenths; nearer to none or all than this they are told as a bound [-]. [practice] of 120
/// futures a share is known to 0.05
const TOLD_AS_BOUND: f64 = 0.05;

/// The tenths that a share is told in, 0 and 10 for the two bounds.
fn tenths(share: f64) -> u32 {
    if share < TOLD_AS_BOUND {
        0
    } else if share > 1.0 - TOLD_AS_BOUND {
        10
    } else {
        (share * 10.0).round().clamp(1.0, 9.0) as u32
    }
}

/// A share of futures in words, never as if it were certain: `6 in 10`.
pub fn in_ten(share: f64) -> String {
    match tenths(share) {
        0 => "1 in 20".into(),
        10 => "19 in 20".into(),
        n => format!("{n} in 10"),
    }
}

/// What a date `due` would have a day earlier and a day later, in a sentence; nothing where that is told alike.
pub fn a_day_apart(odds: &PictureOdds, due: NaiveDate) -> Option<String> {
    let told = |day: Option<NaiveDate>| day.map(|day| in_ten(odds.told_by(day)));
    let (before, after) = (told(due.pred_opt())?, told(due.succ_opt())?);
    (before != after).then(|| format!("A day earlier {before}, a day later {after}."))
}

/// What is said of the date of picture `p` on the day of `now`, by its plan and, where they are sampled, by its odds.
pub fn promise(
    studio: &Studio,
    p: usize,
    ready: &ReadyOutcome,
    sampled: Option<&PictureOdds>,
    now: DateTime<Utc>,
) -> Promise {
    let picture = &studio.pictures[p];
    if !picture.steps.is_empty() && picture.steps.iter().all(|s| s.laid_at.is_some()) {
        let said = "Every step is done.".into();
        return Promise { standing: DateStanding::Done, short: "Done".into(), said };
    }
    if picture.steps.is_empty() {
        let said = "It has no steps yet.".into();
        return Promise { standing: DateStanding::NoDate, short: "No steps yet".into(), said };
    }
    let Some(at) = ready.at else {
        let said = "It cannot be finished as planned.".into();
        return Promise { standing: DateStanding::Stuck, short: "Cannot be finished".into(), said };
    };
    let today = studio.hours.day(now);
    let day = |day| day_said(day, today);
    let days = match sampled {
        None => format!("Planned ready {}", day(studio.hours.day(at))),
        Some(odds) => match (odds.day_of(0.5), odds.day_of(studio.sure.get())) {
            (Some(likely), Some(surely)) if likely == surely => {
                format!("Surely ready by {}", day(surely))
            }
            (Some(likely), Some(surely)) => {
                format!("Likely ready {}, surely by {}", day(likely), day(surely))
            }
            (Some(likely), None) => format!("Likely ready {}, sure of no day", day(likely)),
            (None, _) => "Not ready in half of the futures".into(),
        },
    };
    let Some(due) = picture.due else {
        return Promise { standing: DateStanding::NoDate, said: format!("{days}."), short: days };
    };
    let share = sampled.map(|odds| odds.told_by(due));
    let standing = match share {
        None if ready.days_late.unwrap_or(0) > 0 => DateStanding::NotSure,
        None => DateStanding::InTime,
        Some(share) => standing_of(share, studio.sure.get()),
    };
    let odds = share.map(|share| format!(": {}", in_ten(share))).unwrap_or_default();
    let word = match standing {
        DateStanding::Late => "Late",
        DateStanding::NotSure => "Not sure",
        _ => "In time",
    };
    let planned = if share.is_none() { " as planned" } else { "" };
    Promise {
        standing,
        short: format!("{word}{planned}{odds}"),
        said: format!("{days}; due {}{odds}.", day(due)),
    }
}

/// How a date stands that `share` of the futures meet, judged as it is told.
fn standing_of(share: f64, sure: f64) -> DateStanding {
    let told = f64::from(tenths(share)) / 10.0;
    if share >= sure || told >= sure {
        DateStanding::InTime
    } else if told >= 0.5 {
        DateStanding::NotSure
    } else {
        DateStanding::Late
    }
}

/// `today`, `tomorrow`, `26 December`, with its year where that is another.
fn day_said(day: NaiveDate, today: NaiveDate) -> String {
    match (day - today).num_days() {
        0 => "today".into(),
        1 => "tomorrow".into(),
        _ if day.year() == today.year() => day.format("%-d %B").to_string(),
        _ => day.format("%-d %B %Y").to_string(),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_share_is_told_in_tenths_and_never_as_certain() {
        let told = [0.0, 0.04, 0.06, 0.44, 0.56, 0.86, 0.94, 0.96, 1.0].map(in_ten);
        let expected = [
            "1 in 20", "1 in 20", "1 in 10", "4 in 10", "6 in 10", "9 in 10", "9 in 10",
            "19 in 20", "19 in 20",
        ];
        assert_eq!(told, expected);
    }

    #[test]
    fn late_is_a_word_for_less_than_half_and_not_sure_for_less_than_is_wanted() {
        let at = |share| standing_of(share, 0.9);
        assert_eq!([0.2, 0.44, 0.5, 0.84, 0.86, 0.97].map(at), {
            use DateStanding::{InTime, Late, NotSure};
            [Late, Late, NotSure, NotSure, InTime, InTime]
        });
        // Who wants to be surer than tenths tell is judged by the share itself.
        assert_eq!(standing_of(0.96, 0.97), DateStanding::InTime);
        assert_eq!(standing_of(0.94, 0.97), DateStanding::NotSure);
        assert_eq!(standing_of(0.5, 0.5), DateStanding::InTime);
    }

    #[test]
    fn a_day_is_said_by_its_year_only_where_that_is_another() {
        let day = |text: &str| text.parse::<NaiveDate>().unwrap();
        let said = |text| day_said(day(text), day("2026-12-01"));
        assert_eq!(
            ["2026-12-01", "2026-12-02", "2026-12-26", "2027-01-08"].map(said),
            ["today", "tomorrow", "26 December", "8 January 2027"]
        );
    }
}
