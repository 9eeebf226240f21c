//! Texts and dates as they come through a door.

use super::check::{Checked, Refusal};
use chrono::{DateTime, FixedOffset, NaiveDate, Utc};
use ulvek_core::quantity::{check_day, check_moment};

/// Longest text of one line. [practice]
pub const MOST_LETTERS: usize = 200;
/// Longest text of a few lines. [practice]
pub(super) const LONGEST_TEXT: usize = 1000;

/// Whether a letter would do something instead of being shown: line breaks write events into a
/// calendar, marks of direction turn a name round. (Unicode: controls, line and paragraph
/// separators, marks of direction.)
fn acts(letter: char) -> bool {
    letter.is_control()
        || matches!(letter, '\u{2028}' | '\u{2029}' | '\u{202a}'..='\u{202e}' | '\u{2066}'..='\u{2069}')
}

fn fits(path: &str, text: &str, most: usize, lines: bool) -> Checked<()> {
    let letters = text.chars().count();
    if letters > most {
        return Err(Refusal::new(path, format!("has {letters} letters; at most {most} fit")));
    }
    if text.chars().any(|c| acts(c) && !(lines && c == '\n')) {
        let reason = if lines {
            "must not have control characters"
        } else {
            "must be one line without control characters"
        };
        return Err(Refusal::new(path, reason));
    }
    Ok(())
}

/// A line of text, not empty.
///
/// # Errors
/// [`Refusal`] when it is empty, too long or not one line.
pub fn line(path: &str, text: &str) -> Checked<String> {
    let text = text.trim();
    if text.is_empty() {
        return Err(Refusal::new(path, "must not be empty"));
    }
    fits(path, text, MOST_LETTERS, false)?;
    Ok(text.to_owned())
}

/// A line of text that may be empty.
///
/// # Errors
/// As [`line`].
pub fn line_or_none(path: &str, text: &str) -> Checked<Option<String>> {
    if text.trim().is_empty() { Ok(None) } else { line(path, text).map(Some) }
}

/// A text of a few lines that may be left open.
pub(super) fn few_lines(path: &str, text: Option<&str>) -> Checked<Option<String>> {
    let Some(text) = text.map(str::trim).filter(|t| !t.is_empty()) else { return Ok(None) };
    let text = text.replace("\r\n", "\n");
    fits(path, &text, LONGEST_TEXT, true)?;
    Ok(Some(text))
}

/// What an edit is called, for undo; one that is too long is shortened.
///
/// # Errors
/// [`Refusal`] when it is empty or not one line.
pub fn label(path: &str, text: &str) -> Checked<String> {
    line(path, &text.trim().chars().take(MOST_LETTERS).collect::<String>())
}

/// A moment that may be.
///
/// # Errors
/// [`Refusal`] when it lies outside the table of dates.
pub fn moment(path: &str, at: DateTime<FixedOffset>) -> Checked<DateTime<Utc>> {
    check_moment(at.with_timezone(&Utc)).map_err(|e| Refusal::new(path, e.to_string()))
}

/// The same for one that need not be there.
///
/// # Errors
/// As [`moment`].
pub fn moment_if(path: &str, at: Option<DateTime<FixedOffset>>) -> Checked<Option<DateTime<Utc>>> {
    at.map(|at| moment(path, at)).transpose()
}

/// A day that may be.
///
/// # Errors
/// [`Refusal`] when it lies outside the table of dates.
pub fn a_day(path: &str, day: NaiveDate) -> Checked<NaiveDate> {
    check_day(day).map_err(|e| Refusal::new(path, e.to_string()))
}
