//! What was done on pictures: an append-only log. A correction is a new row that names the one it
//! corrects; no row is ever changed or taken out. What stands is what no later row corrects.

use crate::StoreError;
use crate::log_body::{WhatBody, WordsBody};
use crate::log_entry::{DIGITS, Done, LaidCoatBody, LogEntry, LogRow};
use crate::log_words::Words;
use crate::shelf;
use chrono::{DateTime, SubsecRound, Utc};
use sqlx::MySqlConnection;
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
    let rows: Vec<LogRow> = sqlx::query_as(
        "SELECT number, picture_id, kind, step_code, at, entered_at, corrects, body \
         FROM log_entry WHERE picture_id = ? ORDER BY number",
    )
    .bind(picture)
    .fetch_all(conn)
    .await?;
    rows.into_iter().map(LogRow::into_entry).collect()
}

/// The same for every picture of a studio.
pub(crate) async fn logs_in(
    conn: &mut MySqlConnection,
    studio: Uuid,
) -> Result<HashMap<Uuid, Vec<LogEntry>>, StoreError> {
    let rows: Vec<LogRow> = sqlx::query_as(
        "SELECT l.number, l.picture_id, l.kind, l.step_code, l.at, l.entered_at, l.corrects, l.body \
         FROM log_entry l JOIN picture p ON p.id = l.picture_id \
         WHERE p.studio_id = ? AND p.deleted_at IS NULL ORDER BY l.number",
    )
    .bind(studio)
    .fetch_all(conn)
    .await?;
    let mut found: HashMap<Uuid, Vec<LogEntry>> = HashMap::new();
    for row in rows {
        let picture = row.picture_id;
        found.entry(picture).or_default().push(row.into_entry()?);
    }
    Ok(found)
}

/// The entries that stand: those that no later one corrects.
fn standing(log: &[LogEntry]) -> Vec<&LogEntry> {
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
        append(conn, id, said, (entered, corrected, &text)).await?;
    }
    for entry in known {
        let back = (&Done::TakenBack {}, entry.step.as_deref(), entry.at);
        append(conn, id, back, (at.unwrap_or(entry.at), Some(entry.number), "")).await?;
    }
    Ok(())
}

pub(crate) async fn append(
    conn: &mut MySqlConnection,
    picture: Uuid,
    (what, step, at): (&Done, Option<&str>, DateTime<Utc>),
    (entered_at, corrects, said): (DateTime<Utc>, Option<i64>, &str),
) -> Result<(), StoreError> {
    sqlx::query(
        "INSERT INTO log_entry (picture_id, kind, step_code, at, entered_at, corrects, body, said) \
         VALUES (?, ?, ?, ?, ?, ?, ?, ?)",
    )
    .bind(picture)
    .bind(what.kind())
    .bind(step)
    .bind(at.naive_utc())
    .bind(entered_at.naive_utc())
    .bind(corrects)
    .bind(what.body()?)
    .bind(said)
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
