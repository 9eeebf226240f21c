//! The day book: what happened in the studio that is about no picture.

use super::happen::{Told, ToldWhat, check_said};
use super::log::CLOCKS_APART_S;
use crate::picture::{Happening, What};
use crate::quantity::{Fault, at_most, check_moment};
use crate::studio::Studio;
use crate::studio::check::{ENDS_BEFORE, MOST_IN_DAYBOOK};
use chrono::{DateTime, Duration, Utc};

/// Longest session [h]. [practice] a night through, and a forgotten one shows
const LONGEST_SESSION_H: i64 = 24;

/// The entry of the day book that `told` makes.
///
/// # Errors
/// [`Fault`] naming the field of `told` that does not fit.
pub fn enter(studio: &Studio, told: &Told, now: DateTime<Utc>) -> Result<Happening, Fault> {
    let new = read(studio, told, now)?;
    at_most("happened", studio.happened.len(), MOST_IN_DAYBOOK, "entries")?;
    if studio.happened.contains(&new) {
        return Err(Fault::new("at", "that very entry is kept already"));
    }
    Ok(new)
}

/// What stands in the stead of entry `old` of the day book once its words, its material and its times are
/// those of `instead`.
///
/// # Errors
/// [`Fault`] when there is no such entry, or naming the field that does not fit.
pub fn put_right(
    studio: &Studio,
    old: &Happening,
    instead: &Told,
    now: DateTime<Utc>,
) -> Result<Happening, Fault> {
    if !studio.happened.contains(old) {
        return Err(Fault::new("entry", "that entry is not kept any more"));
    }
    read(studio, instead, now)
}

fn read(studio: &Studio, told: &Told, now: DateTime<Utc>) -> Result<Happening, Fault> {
    check_said(studio, told, now)?;
    if told.step.is_some() || !told.place.is_empty() {
        return Err(Fault::new("step", "what is about a coat or a place stands with its picture"));
    }
    let what = match &told.what {
        ToldWhat::Noted => What::Noted,
        ToldWhat::Misted => What::Misted,
        ToldWhat::Session(until) => What::Session { until: session(told.at, *until, now)? },
        _ => return Err(Fault::new("what", "what happens on a picture stands with that picture")),
    };
    Ok(Happening {
        at: told.at,
        step: None,
        material: told.material.clone(),
        place: String::new(),
        words: told.words.clone(),
        what,
    })
}

/// The end of a session that began at `at`.
fn session(
    at: DateTime<Utc>,
    until: DateTime<Utc>,
    now: DateTime<Utc>,
) -> Result<DateTime<Utc>, Fault> {
    let fault = |why: &str| Err(Fault::new("until", why));
    check_moment(until).map_err(|e| Fault::new("until", e))?;
    if until <= at {
        return fault(ENDS_BEFORE);
    }
    if until > now + Duration::seconds(CLOCKS_APART_S) {
        return fault("a session that goes on is entered when it ends");
    }
    if until - at > Duration::hours(LONGEST_SESSION_H) {
        return Err(Fault::new(
            "until",
            format!("a session lasts {LONGEST_SESSION_H} hours at most: say when it ended"),
        ));
    }
    Ok(until)
}
