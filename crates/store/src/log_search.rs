//! The log of a studio as one list: what its entries say, kept for searching, and searching in it.

use crate::log_entry::{LogEntry, LogRow};
use crate::log_words::Words;
use crate::{StoreError, shelf};
use chrono::{DateTime, Utc};
use sqlx::{FromRow, MySqlConnection, MySqlPool, QueryBuilder};
use uuid::Uuid;

/// Shortest word that the full-text index holds [letters]; `innodb_ft_min_token_size` of MariaDB.
const SHORTEST: usize = 3;
/// Words that the index leaves out; `INFORMATION_SCHEMA.INNODB_FT_DEFAULT_STOPWORD` of MariaDB.
const LEFT_OUT: [&str; 36] = [
    "a", "about", "an", "are", "as", "at", "be", "by", "com", "de", "en", "for", "from", "how",
    "i", "in", "is", "it", "la", "of", "on", "or", "that", "the", "this", "to", "was", "what",
    "when", "where", "who", "will", "with", "und", "the", "www",
];

/// What is looked for in the log of a studio.
#[derive(Debug, Clone, Default)]
pub struct LogAsked {
    /// Words; nothing looks for none.
    pub words: String,
    /// Only this picture.
    pub picture: Option<Uuid>,
    /// Only this kind.
    pub kind: Option<String>,
    /// Only what uses this material, by its name on the shelf.
    pub material: Option<String>,
    /// Not before, and before.
    pub within: (Option<DateTime<Utc>>, Option<DateTime<Utc>>),
    /// How many to leave out, and how many to give.
    pub page: (u32, u32),
}

/// Entries that were found, the last done first.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct LogFound {
    /// Each with its picture.
    pub entries: Vec<(Uuid, LogEntry)>,
    /// How many there are in all.
    pub of: u64,
    /// Whether no entry has all the words, and these have some of them.
    pub some: bool,
}

/// Says again in words what older entries say that were kept before they could be searched.
///
/// # Errors
/// [`StoreError`].
pub async fn index_log(pool: &MySqlPool) -> Result<(), StoreError> {
    let pictures: Vec<(Uuid,)> = sqlx::query_as(
        "SELECT DISTINCT picture_id FROM log_entry WHERE said = '' AND kind <> 'taken_back'",
    )
    .fetch_all(pool)
    .await?;
    for (picture,) in pictures {
        let mut tx = pool.begin().await?;
        // One that is taken away stays as it is until it is brought back.
        match crate::load_picture(&mut tx, picture).await {
            Ok(stored) => {
                let shelf = shelf::materials_around(&mut tx, picture).await?;
                let words = Words::of(&stored.picture, &shelf);
                for entry in crate::log_of(&mut tx, picture).await? {
                    let said = words.said(&entry.what, entry.step.as_deref());
                    append_words(&mut tx, entry.number, &said).await?;
                }
            }
            Err(StoreError::NotFound) => {}
            Err(e) => return Err(e),
        }
        tx.commit().await?;
    }
    Ok(())
}

/// Entries of the log of `studio` that stand and fit to what is asked.
///
/// # Errors
/// [`StoreError`].
pub async fn search_log(
    conn: &mut MySqlConnection,
    studio: Uuid,
    asked: &LogAsked,
) -> Result<LogFound, StoreError> {
    let words: Vec<String> = asked
        .words
        .split(|c: char| !c.is_alphanumeric())
        .filter(|w| !w.is_empty())
        .map(str::to_lowercase)
        .collect();
    let strong = |w: &&String| w.chars().count() >= SHORTEST && !LEFT_OUT.contains(&w.as_str());
    let kept: Vec<&String> = words.iter().filter(strong).collect();
    if kept.is_empty() {
        // Short words alone are looked for as they are written.
        let like = (!words.is_empty()).then(|| asked.words.trim().to_owned());
        let of = By { all: None, like };
        return found(conn, studio, asked, &of).await;
    }
    let each =
        |sign: &str| kept.iter().map(|w| format!("{sign}{w}*")).collect::<Vec<_>>().join(" ");
    let all = By { all: Some(each("+")), like: None };
    let first = found(conn, studio, asked, &all).await?;
    if first.of > 0 || kept.len() < 2 {
        return Ok(first);
    }
    let some = By { all: Some(each("")), like: None };
    Ok(LogFound { some: true, ..found(conn, studio, asked, &some).await? })
}

/// How words are looked for.
struct By {
    all: Option<String>,
    like: Option<String>,
}

#[derive(FromRow)]
struct Of {
    of: i64,
}

async fn found(
    conn: &mut MySqlConnection,
    studio: Uuid,
    asked: &LogAsked,
    by: &By,
) -> Result<LogFound, StoreError> {
    let mut count = QueryBuilder::new("SELECT COUNT(*) AS of ");
    narrow(&mut count, studio, asked, by);
    let of: Of = count.build_query_as().fetch_one(&mut *conn).await?;
    let mut list = QueryBuilder::new(
        "SELECT l.number, l.picture_id, l.kind, l.step_code, l.at, l.entered_at, l.corrects, l.body ",
    );
    narrow(&mut list, studio, asked, by);
    let (skip, take) = asked.page;
    list.push(" ORDER BY l.at DESC, l.number DESC LIMIT ").push_bind(take);
    list.push(" OFFSET ").push_bind(skip);
    let rows: Vec<LogRow> = list.build_query_as().fetch_all(conn).await?;
    let entries = rows.into_iter().map(|row| Ok((row.picture_id, row.into_entry()?)));
    Ok(LogFound {
        entries: entries.collect::<Result<_, StoreError>>()?,
        of: u64::try_from(of.of).unwrap_or_default(),
        some: false,
    })
}

fn narrow(query: &mut QueryBuilder<sqlx::MySql>, studio: Uuid, asked: &LogAsked, by: &By) {
    query.push(
        "FROM log_entry l JOIN picture p ON p.id = l.picture_id \
         LEFT JOIN log_entry c ON c.corrects = l.number \
         WHERE c.number IS NULL AND l.kind <> 'taken_back' AND p.deleted_at IS NULL AND p.studio_id = ",
    );
    query.push_bind(studio);
    if let Some(picture) = asked.picture {
        query.push(" AND l.picture_id = ").push_bind(picture);
    }
    if let Some(kind) = &asked.kind {
        query.push(" AND l.kind = ").push_bind(kind.as_str());
    }
    if let Some(material) = &asked.material {
        query.push(
            " AND (JSON_CONTAINS(COALESCE(JSON_EXTRACT(l.body, '$.mix[*][0]'), '[]'), JSON_QUOTE(",
        );
        query.push_bind(material.as_str());
        query.push(")) OR JSON_VALUE(l.body, '$.words.material') = ");
        query.push_bind(material.as_str()).push(")");
    }
    let (from, to) = asked.within;
    if let Some(from) = from {
        query.push(" AND l.at >= ").push_bind(from.naive_utc());
    }
    if let Some(to) = to {
        query.push(" AND l.at < ").push_bind(to.naive_utc());
    }
    if let Some(all) = &by.all {
        query
            .push(" AND MATCH(l.said) AGAINST (")
            .push_bind(all.as_str())
            .push(" IN BOOLEAN MODE)");
    }
    if let Some(like) = &by.like {
        query.push(" AND LOCATE(").push_bind(like.as_str()).push(", l.said) > 0");
    }
}

/// Keeps what entry `number` says in words.
async fn append_words(
    conn: &mut MySqlConnection,
    number: i64,
    said: &str,
) -> Result<(), StoreError> {
    sqlx::query("UPDATE log_entry SET said = ? WHERE number = ?")
        .bind(said)
        .bind(number)
        .execute(conn)
        .await?;
    Ok(())
}
