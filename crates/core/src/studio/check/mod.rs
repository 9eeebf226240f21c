//! The one check of a studio: values, not only that a name exists. Whoever brings a studio, or a part
//! of one, through any door (import, save, shelf, accept, undo) is judged here.
//!
//! Places are those of the studio document.

mod mix;
mod picture;
mod settings;
mod shelf;

use picture::check_daybook;
pub use picture::{ENDS_BEFORE, check_choice};

use super::whole::Studio;
use crate::quantity::{Checked, Fault, Range, at_most, check_day, check_moment};
use chrono::{DateTime, NaiveDate, Utc};
use std::collections::HashSet;

/// Most pictures in a studio. [practice]
pub const MOST_PICTURES: usize = 500;
/// Most steps on a picture. [practice]
pub const MOST_STEPS: usize = 500;
/// Most readings of the air: ten years of hours. [practice]
pub const MOST_READINGS: usize = 90_000;
/// Most findings set aside on a picture. [practice]
pub const MOST_ASIDE: usize = 1000;
/// Most entries of one list in the record of sealing. [practice]
pub const MOST_SEALED: usize = 200;
/// Most touch tests of a picture. [practice] a thousand fingertips, and as many again
pub const MOST_TESTS: usize = 2000;
/// Entries of what happened beside the coats in a picture. [practice] seven a day for two years
pub const MOST_HAPPENED: usize = 5000;
/// Entries of the day book. [practice] fifteen an evening, every evening for more than three years
pub const MOST_IN_DAYBOOK: usize = 20_000;
/// Most entries of an order of work: every step of the most pictures. [practice]
pub const MOST_ORDERED: usize = MOST_PICTURES * MOST_STEPS;
/// Most closed times. [practice] holidays of ten years
pub const MOST_CLOSED: usize = 1000;
/// Most stretches of hours in a week. [practice]
pub const MOST_HOURS: usize = 100;
/// Most flat places. [practice]
pub const MOST_PLACES: u32 = 1000;
/// Most materials, tubs or ways on a shelf. [practice]
pub const MOST_ENTRIES: usize = 2000;
/// Most pigments in a material. [practice]
pub const MOST_PIGMENTS: usize = 20;
/// Most looks kept of a tub. [practice]
pub const MOST_CHECKS: usize = 1000;

impl Studio {
    /// Holds that everything in the studio may be.
    ///
    /// # Errors
    /// [`Fault`] of the first place that does not fit.
    pub fn check(&self) -> Checked {
        self.check_settings()?;
        self.check_air()?;
        self.check_entries()?;
        at_most("pictures", self.pictures.len(), MOST_PICTURES, "pictures")?;
        for p in 0..self.pictures.len() {
            self.check_picture(p).map_err(|fault| fault.within(&format!("pictures[{p}]")))?;
        }
        unique("pictures", self.pictures.iter().map(|p| p.id.as_str()))?;
        at_most("happened", self.happened.len(), MOST_IN_DAYBOOK, "entries")?;
        each("happened", &self.happened, |happening| check_daybook(self, happening))
    }
}

fn unique<'a>(list: &str, ids: impl Iterator<Item = &'a str>) -> Checked {
    let mut seen = HashSet::new();
    for (i, id) in ids.enumerate() {
        if !seen.insert(id) {
            return Err(Fault::new(format!("{list}[{i}].id"), format!("\"{id}\" is used twice")));
        }
    }
    Ok(())
}

fn number(place: &str, range: &Range, value: f64) -> Checked {
    range.check(value).map(|_| ()).map_err(|e| Fault::new(place, e))
}

fn number_if(place: &str, range: &Range, value: Option<f64>) -> Checked {
    value.map_or(Ok(()), |value| number(place, range, value))
}

fn dated<T>(place: &str, judged: Result<T, impl std::fmt::Display>) -> Checked {
    judged.map(|_| ()).map_err(|e| Fault::new(place, e))
}

fn moment(place: &str, at: DateTime<Utc>) -> Checked {
    dated(place, check_moment(at))
}

fn moment_if(place: &str, at: Option<DateTime<Utc>>) -> Checked {
    at.map_or(Ok(()), |at| moment(place, at))
}

fn day(place: &str, day: NaiveDate) -> Checked {
    dated(place, check_day(day))
}

/// Checks every entry of a list; its place is counted.
fn each<T>(list: &str, entries: &[T], check: impl Fn(&T) -> Checked) -> Checked {
    for (i, entry) in entries.iter().enumerate() {
        check(entry).map_err(|fault| fault.within(&format!("{list}[{i}]")))?;
    }
    Ok(())
}
