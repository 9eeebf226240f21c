//! Texts and times as they are written and read.

use serde::{Deserialize, Serialize};
use ulvek_core::mix::Swatch;
use ulvek_core::quantity::{Checked, MOST_LETTERS, check_line};

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
