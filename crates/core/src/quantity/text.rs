//! Texts of painters: what is one line, and what a few.

use super::fault::{Checked, Fault};

/// Longest text of one line. [practice]
pub const MOST_LETTERS: usize = 200;
/// Longest text of a few lines. [practice]
pub const LONGEST_TEXT: usize = 1000;

/// Whether a letter would do something instead of being shown: line breaks write events into a
/// calendar, marks of direction turn a name round. (Unicode: controls, line and paragraph
/// separators, marks of direction.)
fn acts(letter: char) -> bool {
    letter.is_control()
        || matches!(letter, '\u{2028}' | '\u{2029}' | '\u{202a}'..='\u{202e}' | '\u{2066}'..='\u{2069}')
}

fn fits(place: &str, text: &str, most: usize, lines: bool) -> Checked {
    let letters = text.chars().count();
    if letters > most {
        return Err(Fault::new(place, format!("has {letters} letters; at most {most} fit")));
    }
    if text.chars().any(|c| acts(c) && !(lines && c == '\n')) {
        let why = if lines {
            "must not have control characters"
        } else {
            "must be one line without control characters"
        };
        return Err(Fault::new(place, why));
    }
    Ok(())
}

/// Holds that `text` is one line, and not empty.
///
/// # Errors
/// [`Fault`] at `place`.
///
/// ```
/// use ulvek_core::quantity::check_line;
/// assert!(check_line("title", "Lamp over the quay").is_ok());
/// assert!(check_line("title", "Lamp\nSUMMARY:another").is_err());
/// ```
pub fn check_line(place: &str, text: &str) -> Checked {
    if text.trim().is_empty() {
        return Err(Fault::new(place, "must not be empty"));
    }
    fits(place, text, MOST_LETTERS, false)
}

/// Holds that `text` is a text of a few lines.
///
/// # Errors
/// [`Fault`] at `place`.
pub fn check_text(place: &str, text: &str) -> Checked {
    fits(place, text, LONGEST_TEXT, true)
}
