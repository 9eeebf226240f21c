//! Rows that cannot be read: left out and named, so that none of them takes its studio with it.

use crate::StoreError;
use sqlx::mysql::MySqlRow;
use sqlx::{FromRow, Row};

/// A row that cannot be read, and is left out.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct UnreadRow {
    /// What it is, in words: `entry 12 of the log of "Fog lamp" (laid)`.
    pub what: String,
    /// Why it cannot be read, for whoever mends it.
    pub why: String,
}

/// Reads each row by itself; one that cannot be read goes to `unread` under the name that `name` gives it.
pub(crate) fn read_each<T>(
    rows: &[MySqlRow],
    unread: &mut Vec<UnreadRow>,
    name: impl Fn(&MySqlRow) -> String,
    read: impl Fn(&MySqlRow) -> Result<T, StoreError>,
) -> Vec<T> {
    let mut found = Vec::with_capacity(rows.len());
    for row in rows {
        match read(row) {
            Ok(one) => found.push(one),
            Err(error) => {
                let why = std::error::Error::source(&error)
                    .map_or_else(|| error.to_string(), ToString::to_string);
                unread.push(UnreadRow { what: name(row), why });
            }
        }
    }
    found
}

/// A row as the columns of `R`.
pub(crate) fn columns<R: for<'r> FromRow<'r, MySqlRow>>(row: &MySqlRow) -> Result<R, StoreError> {
    Ok(R::from_row(row)?)
}

/// What a text column holds, as far as it can be read: for naming a row.
pub(crate) fn word(row: &MySqlRow, column: &str) -> String {
    row.try_get(column).unwrap_or_default()
}
