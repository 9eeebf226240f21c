//! What was done on pictures: an append-only log. A correction is a new row that names the one it
//! corrects; nothing that was entered is ever changed or taken out. What stands is what no later row corrects.

use crate::StoreError;
use crate::log_body::{WhatBody, WordsBody};
use crate::log_entry::{DIGITS, Done, LaidCoatBody, LogEntry, LogRow, Planned};
use crate::log_words::Words;
use crate::shelf;
use crate::unread::{self, UnreadRow, word};
use crate::versioned::json;
use chrono::{DateTime, SubsecRound, Utc};
use sqlx::mysql::MySqlRow;
use sqlx::{MySql, MySqlConnection, QueryBuilder, Row};
use std::collections::{HashMap, HashSet};
use ulvek_core::picture::{Picture, SealAnyway, TouchTest, TroubleFound};
use uuid::Uuid;

/// Everything that was entered of a picture, in the order of entry.
///
/// # Errors
/// [`StoreError`].
pub async fn log_of(
    conn: &mut MySqlConnection,
    picture: Uuid,
) -> Result<Vec<LogEntry>, StoreError> {
    entries_of(conn, Of::Picture(picture)).await
}

/// What an entry is about.
#[derive(Debug, Clone, Copy)]
pub(crate) enum Of {
    Picture(Uuid),
    /// No picture: the day book of the studio.
    Studio(Uuid),
}

impl Of {
    fn columns(self) -> (Option<Uuid>, Option<Uuid>) {
        match self {
            Self::Picture(id) => (Some(id), None),
            Self::Studio(id) => (None, Some(id)),
        }
    }
}

/// The entries about `of` in the order of entry. Those that cannot be read are named where the whole studio is
/// read.
pub(crate) async fn entries_of(
    conn: &mut MySqlConnection,
    of: Of,
) -> Result<Vec<LogEntry>, StoreError> {
    read_of(conn, of, &mut Vec::new()).await
}

/// The same; entries that cannot be read go to `unread`.
pub(crate) async fn read_of(
    conn: &mut MySqlConnection,
    of: Of,
    unread: &mut Vec<UnreadRow>,
) -> Result<Vec<LogEntry>, StoreError> {
    let (Of::Picture(id) | Of::Studio(id)) = of;
    let mut query = QueryBuilder::<MySql>::new("SELECT ");
    query.push(LogRow::COLUMNS).push(" FROM log_entry l WHERE l.of_id = ").push_bind(id);
    query.push(" ORDER BY l.number");
    let rows = query.build().fetch_all(conn).await?;
    Ok(read_entries(&rows, unread).into_iter().map(|(_, entry)| entry).collect())
}

/// The entries of `rows`, each with its picture if it is about one; those that cannot be read go to `unread`.
pub(crate) fn read_entries(
    rows: &[MySqlRow],
    unread: &mut Vec<UnreadRow>,
) -> Vec<(Option<Uuid>, LogEntry)> {
    let name = |row: &MySqlRow| {
        let number: i64 = row.try_get("number").unwrap_or_default();
        let of = match word(row, "title") {
            title if title.is_empty() => String::new(),
            title => format!(" of \"{title}\""),
        };
        format!("entry {number} of the log{of} ({})", word(row, "kind").replace('_', " "))
    };
    unread::read_each(rows, unread, name, |row| {
        let row: LogRow = unread::columns(row)?;
        Ok((row.picture_id, row.into_entry()?))
    })
}

/// The same for every picture of a studio; entries that cannot be read go to `unread`.
pub(crate) async fn logs_in(
    conn: &mut MySqlConnection,
    studio: Uuid,
    unread: &mut Vec<UnreadRow>,
) -> Result<HashMap<Uuid, Vec<LogEntry>>, StoreError> {
    let mut query = QueryBuilder::<MySql>::new("SELECT p.title, ");
    query.push(LogRow::COLUMNS).push(
        " FROM log_entry l JOIN picture p ON p.id = l.picture_id \
         WHERE p.deleted_at IS NULL AND p.studio_id = ",
    );
    query.push_bind(studio);
    let rows = query.build().fetch_all(conn).await?;
    // Put in order here: the database would do it in a table on its disk, which may be full.
    let mut entries = read_entries(&rows, unread);
    entries.sort_by_key(|(_, entry)| entry.number);
    let mut found: HashMap<Uuid, Vec<LogEntry>> = HashMap::new();
    for (picture, entry) in entries {
        found.entry(picture.unwrap_or_default()).or_default().push(entry);
    }
    Ok(found)
}

/// Notes that the entry of that id is kept: of that kind, about that picture or studio. The same id of another
/// kind or about another one is another entry. Belongs in the transaction that keeps it. Returns whether it was
/// kept before.
///
/// # Errors
/// [`StoreError`].
pub async fn was_sent(
    conn: &mut MySqlConnection,
    id: Uuid,
    (kind, of): (&str, Uuid),
    at: DateTime<Utc>,
) -> Result<bool, StoreError> {
    // Before kinds were kept, an entry was known by its picture alone.
    let before: Option<(i64,)> =
        sqlx::query_as("SELECT 1 FROM sent WHERE id = ? AND kind = '' AND of_id = ?")
            .bind(id)
            .bind(of)
            .fetch_optional(&mut *conn)
            .await?;
    if before.is_some() {
        return Ok(true);
    }
    let done =
        sqlx::query("INSERT IGNORE INTO sent (id, kind, of_id, sent_at) VALUES (?, ?, ?, ?)")
            .bind(id)
            .bind(kind)
            .bind(of)
            .bind(at.naive_utc())
            .execute(conn)
            .await?;
    Ok(done.rows_affected() == 0)
}

/// The entries that stand: those that no later one corrects.
pub(crate) fn standing(log: &[LogEntry]) -> Vec<&LogEntry> {
    let corrected: HashSet<i64> = log.iter().filter_map(|e| e.corrects).collect();
    let stands =
        |e: &&LogEntry| !corrected.contains(&e.number) && !matches!(e.what, Done::TakenBack {});
    log.iter().filter(stands).collect()
}

/// Puts what was done onto the plan of a picture.
pub(crate) fn played(log: &[LogEntry], mut picture: Picture) -> Picture {
    for entry in standing(log) {
        let named = entry.step.clone().unwrap_or_default();
        match &entry.what {
            Done::Laid(coat) => {
                let step = picture.steps.iter_mut().find(|s| s.id == named);
                if let Some(step) = step {
                    coat.onto(step);
                    step.laid_at = Some(entry.at);
                }
            }
            Done::SealedAnyway { reason, against } => picture.seal.anyway.push(SealAnyway {
                at: entry.at,
                step: named,
                reason: reason.clone(),
                against: against.clone(),
            }),
            Done::SealTrouble { trouble } => picture.seal.troubles.push(TroubleFound {
                at: entry.at,
                step: named,
                trouble: *trouble,
            }),
            Done::LookedOver {} => picture.seal.inspected_at = Some(entry.at),
            Done::Touched { felt } => {
                picture.tests.push(TouchTest { at: entry.at, step: named, felt: *felt });
            }
            Done::Happened { what, words } => {
                let about = (entry.at, entry.step.clone());
                picture.happened.push(words.clone().happened(about, what.clone()));
            }
            Done::Photographed { .. } | Done::TakenBack {} => {}
        }
    }
    picture.tests.sort();
    picture.happened.sort_by_key(|h| h.at);
    picture
}

/// Something that a picture says was done.
struct Said {
    what: Done,
    step: Option<String>,
    at: DateTime<Utc>,
}

fn said(picture: &Picture) -> Vec<Said> {
    let say = |what, step: Option<&str>, at: DateTime<Utc>| Said {
        what,
        step: step.map(str::to_owned),
        at: at.trunc_subsecs(DIGITS),
    };
    let laid = picture
        .steps
        .iter()
        .filter_map(|s| Some(say(Done::Laid(LaidCoatBody::of(s)), Some(&s.id), s.laid_at?)));
    let seal = &picture.seal;
    let anyway = seal.anyway.iter().map(|a| {
        let what = Done::SealedAnyway { reason: a.reason.clone(), against: a.against.clone() };
        say(what, Some(&a.step), a.at)
    });
    let troubles = seal
        .troubles
        .iter()
        .map(|t| say(Done::SealTrouble { trouble: t.trouble }, Some(&t.step), t.at));
    let looked = seal.inspected_at.map(|at| say(Done::LookedOver {}, None, at));
    let touched =
        picture.tests.iter().map(|t| say(Done::Touched { felt: t.felt }, Some(&t.step), t.at));
    let done = laid.chain(anyway).chain(troubles).chain(looked);
    let happened = picture.happened.iter().map(|h| {
        let what = Done::Happened { what: WhatBody::of(&h.what), words: WordsBody::of(h) };
        say(what, h.step.as_deref(), h.at)
    });
    let mut found: Vec<Said> = done.chain(touched).chain(happened).collect();
    found.sort_by_key(|s| s.at);
    found
}

/// Enters what `picture` says was done and the log does not: what is new, what is corrected, and what
/// is taken back. Of what came with a whole picture it is not known when it was entered: the time of the
/// deed stands in. Belongs in the transaction that saves the picture.
pub(crate) async fn enter(
    conn: &mut MySqlConnection,
    id: Uuid,
    picture: &Picture,
    at: Option<DateTime<Utc>>,
) -> Result<(), StoreError> {
    let log = log_of(conn, id).await?;
    let mut known: Vec<&LogEntry> = standing(&log)
        .into_iter()
        .filter(|e| !matches!(e.what, Done::Photographed { .. }))
        .collect();
    let mut news: Vec<Said> = Vec::new();
    for said in said(picture) {
        let same = |e: &&LogEntry| e.what == said.what && e.step == said.step && e.at == said.at;
        match known.iter().position(same) {
            Some(n) => {
                known.remove(n);
            }
            None => news.push(said),
        }
    }
    let shelf =
        if news.is_empty() { Vec::new() } else { shelf::materials_around(conn, id).await? };
    let words = Words::of(picture, &shelf);
    for said in news {
        // A step is done once, and the surface was looked over last at one time: another time, film or
        // mix corrects what was entered.
        let about = |e: &&LogEntry| match (&e.what, &said.what) {
            (Done::Laid(_), Done::Laid(_)) => e.step == said.step,
            (Done::LookedOver {}, Done::LookedOver {}) => true,
            // Another time or another feeling of a test that is gone is that test, corrected.
            (Done::Touched { felt: was }, Done::Touched { felt }) => {
                e.step == said.step && (was == felt || e.at == said.at)
            }
            // Other words, another place or another time of the same.
            (Done::Happened { what: was, words: old }, Done::Happened { what, words }) => {
                e.step == said.step && was == what && (e.at == said.at || old == words)
            }
            _ => false,
        };
        let corrected = known.iter().position(about).map(|n| known.remove(n).number);
        let text = words.said(&said.what, said.step.as_deref());
        let entered = at.unwrap_or(said.at);
        let said = (&said.what, said.step.as_deref(), said.at);
        append(conn, Of::Picture(id), said, (entered, corrected, &text)).await?;
    }
    for entry in known {
        let back = (&Done::TakenBack {}, entry.step.as_deref(), entry.at);
        let entered = at.unwrap_or(entry.at);
        append(conn, Of::Picture(id), back, (entered, Some(entry.number), "")).await?;
    }
    Ok(())
}

pub(crate) async fn append(
    conn: &mut MySqlConnection,
    of: Of,
    (what, step, at): (&Done, Option<&str>, DateTime<Utc>),
    (entered_at, corrects, said): (DateTime<Utc>, Option<i64>, &str),
) -> Result<(), StoreError> {
    let (picture, studio) = of.columns();
    // What was planned before a coat was laid stays beside it, however it is put right, and also where the
    // coat is undone and done again: the same coat at the same moment.
    let done = sqlx::query(
        "INSERT INTO log_entry \
         (picture_id, studio_id, kind, step_code, at, entered_at, corrects, body, said, stands, planned) \
         VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, COALESCE( \
           (SELECT c.planned FROM log_entry c WHERE c.number = ?), \
           (SELECT c.planned FROM log_entry c WHERE c.picture_id = ? AND c.kind = ? AND c.kind = 'laid' \
            AND c.step_code = ? AND c.at = ? AND c.planned IS NOT NULL ORDER BY c.number DESC LIMIT 1)))",
    )
    .bind(picture)
    .bind(studio)
    .bind(what.kind())
    .bind(step)
    .bind(at.naive_utc())
    .bind(entered_at.naive_utc())
    .bind(corrects)
    .bind(what.body()?)
    .bind(said)
    .bind(!matches!(what, Done::TakenBack {}))
    .bind(corrects)
    .bind(picture)
    .bind(what.kind())
    .bind(step)
    .bind(at.naive_utc())
    .execute(&mut *conn)
    .await?;
    read_back(conn, done.last_insert_id(), (what, step, at)).await?;
    if let Some(corrected) = corrects {
        sqlx::query("UPDATE log_entry SET stands = FALSE WHERE number = ?")
            .bind(corrected)
            .execute(conn)
            .await?;
    }
    Ok(())
}

/// Holds that the entry `number` is read as it was meant: otherwise the transaction must not be kept.
async fn read_back(
    conn: &mut MySqlConnection,
    number: u64,
    meant: (&Done, Option<&str>, DateTime<Utc>),
) -> Result<(), StoreError> {
    let mut query = QueryBuilder::<MySql>::new("SELECT ");
    query.push(LogRow::COLUMNS).push(" FROM log_entry l WHERE l.number = ").push_bind(number);
    let row: LogRow = query.build_query_as().fetch_one(conn).await?;
    let entry = row.into_entry()?;
    if (&entry.what, entry.step.as_deref(), entry.at) == meant {
        return Ok(());
    }
    Err(StoreError::Unreadable(format!("entry {number} of the log is not what was written")))
}

/// Keeps what was planned of a coat beside the entry that says it was laid; once said it stays.
///
/// # Errors
/// [`StoreError`].
pub async fn keep_planned(
    conn: &mut MySqlConnection,
    picture: Uuid,
    step: &str,
    planned: &Planned,
) -> Result<(), StoreError> {
    sqlx::query(
        "UPDATE log_entry SET planned = ? WHERE picture_id = ? AND step_code = ? AND kind = 'laid' \
         AND stands = TRUE AND planned IS NULL",
    )
    .bind(json(planned)?)
    .bind(picture)
    .bind(step)
    .execute(conn)
    .await?;
    Ok(())
}

/// The standing entry of a photograph.
pub(crate) async fn photographed(
    conn: &mut MySqlConnection,
    (picture, photograph): (Uuid, Uuid),
) -> Result<Option<i64>, StoreError> {
    let log = log_of(conn, picture).await?;
    let found = standing(&log)
        .into_iter()
        .find(|e| e.what == Done::Photographed { photograph })
        .map(|e| e.number);
    Ok(found)
}
