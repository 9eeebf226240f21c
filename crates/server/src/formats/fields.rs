//! Texts and times as they are written and read.

use chrono::{DateTime, FixedOffset, Utc};
use chrono_tz::Tz;
use serde::{Deserialize, Serialize};
use ulvek_core::mix::Swatch;
use ulvek_core::quantity::{Checked, Fault, MOST_LETTERS, check_line, check_moment};

/// An instant with the offset of the studio's zone.
pub fn local(at: DateTime<Utc>, zone: Tz) -> DateTime<FixedOffset> {
    at.with_timezone(&zone).fixed_offset()
}

/// The instant that was written.
pub(super) fn utc(at: DateTime<FixedOffset>) -> DateTime<Utc> {
    at.with_timezone(&Utc)
}

/// A line as it was meant: without the space around it.
pub(super) fn line(text: &str) -> String {
    text.trim().to_owned()
}

/// A text of a few lines as it was meant; one that is empty is none.
pub(super) fn few_lines(text: Option<&str>) -> Option<String> {
    let text = text.map(str::trim).filter(|t| !t.is_empty())?;
    Some(text.replace("\r\n", "\n"))
}

/// What an edit is called, for undo; one that is too long is shortened.
///
/// # Errors
/// [`Fault`] when it is empty or not one line.
pub fn label(place: &str, text: &str) -> Checked<String> {
    let short: String = text.trim().chars().take(MOST_LETTERS).collect();
    check_line(place, &short)?;
    Ok(short)
}

/// A moment that may be.
///
/// # Errors
/// [`Fault`] when it lies outside the table of dates.
pub fn moment(place: &str, at: DateTime<Utc>) -> Checked<DateTime<Utc>> {
    check_moment(at).map_err(|e| Fault::new(place, e))
}

/// A colour as it is written: `#rrggbb`.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(try_from = "String", into = "String")]
pub struct Hex(pub Swatch);

impl TryFrom<String> for Hex {
    type Error = String;

    fn try_from(text: String) -> Result<Self, String> {
        let why = || format!("\"{text}\" is not a colour; write it as in #c4923e");
        Swatch::from_hex(&text).map(Self).ok_or_else(why)
    }
}

impl From<Hex> for String {
    fn from(hex: Hex) -> Self {
        hex.0.to_hex()
    }
}
