//! The day book of a studio: entries of the log that are about no picture.

use crate::StoreError;
use crate::log::{self, Of};
use crate::log_body::{WhatBody, WordsBody};
use crate::log_entry::{DIGITS, Done, LogEntry};
use crate::log_words::Words;
use crate::unread::UnreadRow;
use chrono::{DateTime, SubsecRound, Utc};
use sqlx::MySqlConnection;
use ulvek_core::mix::Material;
use ulvek_core::picture::Happening;
use uuid::Uuid;

/// Everything that was entered of a studio about no picture, in the order of entry.
///
/// # Errors
/// [`StoreError`].
pub async fn daybook_of(
    conn: &mut MySqlConnection,
    studio: Uuid,
) -> Result<Vec<LogEntry>, StoreError> {
    log::entries_of(conn, Of::Studio(studio)).await
}

/// What stands in the day book, in the order of time; entries that cannot be read go to `unread`.
pub(crate) async fn daybook_in(
    conn: &mut MySqlConnection,
    studio: Uuid,
    unread: &mut Vec<UnreadRow>,
) -> Result<Vec<Happening>, StoreError> {
    let log = log::read_of(conn, Of::Studio(studio), unread).await?;
    let mut found: Vec<Happening> =
        log::standing(&log).into_iter().filter_map(LogEntry::in_daybook).collect();
    found.sort_by_key(|h| h.at);
    Ok(found)
}

/// Keeps an entry of the day book. Belongs in a transaction.
///
/// # Errors
/// [`StoreError`].
pub async fn enter_in_daybook(
    conn: &mut MySqlConnection,
    studio: Uuid,
    (new, shelf): (&Happening, &[Material]),
    at: DateTime<Utc>,
) -> Result<(), StoreError> {
    append(conn, studio, (new, shelf), (at, None)).await
}

/// Puts `instead` in the stead of entry `old` of the day book, or takes it back. Belongs in a transaction.
/// Returns whether `old` still stood; without it nothing is changed.
///
/// # Errors
/// [`StoreError`].
pub async fn put_right_in_daybook(
    conn: &mut MySqlConnection,
    studio: Uuid,
    old: &Happening,
    instead: Option<(&Happening, &[Material])>,
    at: DateTime<Utc>,
) -> Result<bool, StoreError> {
    let log = daybook_of(conn, studio).await?;
    let stands = log::standing(&log).into_iter().find(|e| e.in_daybook().as_ref() == Some(old));
    let Some(number) = stands.map(|e| e.number) else { return Ok(false) };
    // Of two who do so at once the second one finds it gone.
    let mine =
        sqlx::query("UPDATE log_entry SET stands = FALSE WHERE number = ? AND stands = TRUE")
            .bind(number)
            .execute(&mut *conn)
            .await?;
    if mine.rows_affected() == 0 {
        return Ok(false);
    }
    if let Some(instead) = instead {
        append(conn, studio, instead, (at, Some(number))).await?;
    } else {
        let back = (&Done::TakenBack {}, None, old.at);
        log::append(conn, Of::Studio(studio), back, (at, Some(number), "")).await?;
    }
    Ok(true)
}

async fn append(
    conn: &mut MySqlConnection,
    studio: Uuid,
    (new, shelf): (&Happening, &[Material]),
    (at, corrects): (DateTime<Utc>, Option<i64>),
) -> Result<(), StoreError> {
    let what = Done::Happened { what: WhatBody::of(&new.what), words: WordsBody::of(new) };
    let text = Words::of_none(shelf).said(&what, None);
    let said = (&what, None, new.at.trunc_subsecs(DIGITS));
    log::append(conn, Of::Studio(studio), said, (at, corrects, &text)).await
}
