//! Rows that cannot be read: left out and named, so that none of them takes its studio with it.

use crate::StoreError;
use crate::revision;
use sqlx::mysql::MySqlRow;
use sqlx::{FromRow, MySqlConnection, Row};
use uuid::Uuid;

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

/// Reads the one `body` of `owner`, called `what` in the plural, without which there is no studio. Where it cannot be
/// read, its newest revision that can stands in and `unread` says so.
///
/// # Errors
/// What `read` says of the body when no revision can be read either.
pub(crate) async fn read_or_as_it_was<T>(
    conn: &mut MySqlConnection,
    (owner, what, body): (Uuid, &str, &str),
    unread: &mut Vec<UnreadRow>,
    read: impl Fn(&str) -> Result<T, StoreError>,
) -> Result<T, StoreError> {
    let fault = match read(body) {
        Ok(found) => return Ok(found),
        Err(fault) => fault,
    };
    let older = revision::bodies(conn, owner).await?;
    let known = older.iter().find_map(|(body, at)| Some((read(body).ok()?, *at)));
    let Some((found, at)) = known else { return Err(fault) };
    let what = format!("{what}, as of {}", at.format("%-d %B %Y, %H:%M UTC"));
    unread.push(UnreadRow { what, why: fault.to_string() });
    Ok(found)
}

/// A row as the columns of `R`.
pub(crate) fn columns<R: for<'r> FromRow<'r, MySqlRow>>(row: &MySqlRow) -> Result<R, StoreError> {
    Ok(R::from_row(row)?)
}

/// What a text column holds, as far as it can be read: for naming a row.
pub(crate) fn word(row: &MySqlRow, column: &str) -> String {
    row.try_get(column).unwrap_or_default()
}
