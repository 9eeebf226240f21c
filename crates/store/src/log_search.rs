//! The log of a studio as one list: what its entries say, kept for searching, and searching in it.

use crate::log::read_entries;
use crate::log_entry::{LogEntry, LogRow};
use crate::log_words::Words;
use crate::{StoreError, shelf};
use chrono::{DateTime, Utc};
use sqlx::{FromRow, MySql, MySqlConnection, MySqlPool, QueryBuilder};
use std::ops::Range;
use uuid::Uuid;

/// Shortest word that the full-text index holds [letters]; `innodb_ft_min_token_size` of MariaDB.
const SHORTEST: usize = 3;
/// Words that the index leaves out; `INFORMATION_SCHEMA.INNODB_FT_DEFAULT_STOPWORD` of MariaDB.
const LEFT_OUT: [&str; 36] = [
    "a", "about", "an", "are", "as", "at", "be", "by", "com", "de", "en", "for", "from", "how",
    "i", "in", "is", "it", "la", "of", "on", "or", "that", "the", "this", "to", "was", "what",
    "when", "where", "who", "will", "with", "und", "the", "www",
];

/// Entries that are read by one statement, and for which at least it has places. [practice] a page
const AT_ONCE: usize = 512;
const FEW: usize = 8;

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
    /// Each with its picture, if it is about one.
    pub entries: Vec<(Option<Uuid>, LogEntry)>,
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
        "SELECT DISTINCT picture_id FROM log_entry \
         WHERE said = '' AND kind <> 'taken_back' AND picture_id IS NOT NULL",
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
    let (text, places) = (asked.words.as_str(), places(&asked.words));
    let words: Vec<String> = places.iter().map(|at| text[at.clone()].to_lowercase()).collect();
    let short = |w: &str| w.chars().count() < SHORTEST;
    let strong = |w: &&String| !short(w) && !LEFT_OUT.contains(&w.as_str());
    let kept: Vec<&String> = words.iter().filter(strong).collect();
    if kept.is_empty() {
        // Short words alone are looked for as they are written.
        let like = (!words.is_empty()).then(|| asked.words.trim().to_owned());
        let of = By { like, ..By::default() };
        return found(conn, studio, asked, &of).await;
    }
    let each =
        |sign: &str| kept.iter().map(|w| format!("{sign}{w}*")).collect::<Vec<_>>().join(" ");
    // A number or another short word counts with the word beside it, as it is written: `glaze 3`, `PB15:3`.
    let beside =
        words.iter().enumerate().filter(|(_, w)| short(w) && !LEFT_OUT.contains(&w.as_str()));
    let near = beside.map(|(n, _)| {
        let (first, last) = if n > 0 { (n - 1, n) } else { (n, (n + 1).min(places.len() - 1)) };
        text[places[first].start..places[last].end].to_owned()
    });
    let all = By { all: Some(each("+")), near: near.collect(), like: None };
    let first = found(conn, studio, asked, &all).await?;
    if first.of > 0 || (kept.len() < 2 && all.near.is_empty()) {
        return Ok(first);
    }
    let some = By { all: Some(each("")), ..By::default() };
    Ok(LogFound { some: true, ..found(conn, studio, asked, &some).await? })
}

/// Where the words of `text` are in it.
fn places(text: &str) -> Vec<Range<usize>> {
    let mut found: Vec<Range<usize>> = Vec::new();
    for (at, letter) in text.char_indices().filter(|(_, c)| c.is_alphanumeric()) {
        let end = at + letter.len_utf8();
        match found.last_mut() {
            Some(word) if word.end == at => word.end = end,
            _ => found.push(at..end),
        }
    }
    found
}

/// How words are looked for.
#[derive(Default)]
struct By {
    all: Option<String>,
    /// Read as they are written, besides.
    near: Vec<String>,
    like: Option<String>,
}

#[derive(FromRow)]
struct Number {
    number: i64,
}

async fn found(
    conn: &mut MySqlConnection,
    studio: Uuid,
    asked: &LogAsked,
    by: &By,
) -> Result<LogFound, StoreError> {
    // Pictures are named one by one: joined, the whole table would be read.
    let pictures: Vec<(Uuid,)> =
        sqlx::query_as("SELECT id FROM picture WHERE studio_id = ? AND deleted_at IS NULL")
            .bind(studio)
            .fetch_all(&mut *conn)
            .await?;
    let wanted = |(id,): &(Uuid,)| asked.picture.is_none_or(|only| only == *id);
    let mut about: Vec<Uuid> = pictures.into_iter().filter(wanted).map(|(id,)| id).collect();
    if asked.picture.is_none() {
        about.push(studio);
    }
    // Only numbers are sorted and counted; what they say is read of one page.
    let mut list = QueryBuilder::new("SELECT l.number ");
    narrow(&mut list, &about, asked, by);
    list.push(" ORDER BY l.at DESC, l.number DESC");
    let (skip, take) = (asked.page.0 as usize, asked.page.1 as usize);
    let looked_into = by.all.is_some() || by.like.is_some() || asked.material.is_some();
    if looked_into {
        // Looking into each entry costs more than sending the numbers of those that fit.
        let all: Vec<Number> = list.build_query_as().fetch_all(&mut *conn).await?;
        let page = all.iter().skip(skip).take(take);
        let entries = entries(conn, page.map(|n| n.number)).await?;
        return Ok(LogFound { entries, of: all.len() as u64, some: false });
    }
    list.push(" LIMIT ").push_bind(asked.page.1).push(" OFFSET ").push_bind(asked.page.0);
    let page: Vec<Number> = list.build_query_as().fetch_all(&mut *conn).await?;
    let mut count = QueryBuilder::new("SELECT COUNT(*) AS number ");
    narrow(&mut count, &about, asked, by);
    let of: Number = count.build_query_as().fetch_one(&mut *conn).await?;
    let entries = entries(conn, page.iter().map(|n| n.number)).await?;
    Ok(LogFound { entries, of: u64::try_from(of.number).unwrap_or_default(), some: false })
}

/// The entries of these numbers, which are in the order of their entries.
async fn entries(
    conn: &mut MySqlConnection,
    numbers: impl Iterator<Item = i64>,
) -> Result<Vec<(Option<Uuid>, LogEntry)>, StoreError> {
    let numbers: Vec<Option<i64>> = numbers.map(Some).collect();
    let mut found = Vec::with_capacity(numbers.len());
    for some in numbers.chunks(AT_ONCE) {
        // Few lengths, filled up with nothing: a statement that is known is not prepared again.
        let places = some.len().next_power_of_two().max(FEW);
        let mut list = QueryBuilder::new("SELECT ");
        list.push(LogRow::COLUMNS).push(" FROM log_entry l WHERE l.number IN (NULL");
        for number in some.iter().copied().chain(std::iter::repeat(None)).take(places) {
            list.push(", ").push_bind(number);
        }
        list.push(") ORDER BY l.at DESC, l.number DESC");
        let rows = list.build().fetch_all(&mut *conn).await?;
        found.extend(read_entries(&rows, &mut Vec::new()));
    }
    Ok(found)
}

fn narrow(query: &mut QueryBuilder<MySql>, about: &[Uuid], asked: &LogAsked, by: &By) {
    query.push("FROM log_entry l WHERE l.stands = TRUE AND l.of_id IN (NULL");
    for id in about {
        query.push(", ").push_bind(*id);
    }
    query.push(")");
    if let Some(kind) = &asked.kind {
        query.push(" AND l.kind = ").push_bind(kind.as_str());
    }
    if let Some(material) = &asked.material {
        let quoted = serde_json::Value::from(material.as_str()).to_string();
        query.push(" AND LOCATE(").push_bind(quoted).push(", l.uses) > 0");
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
    for like in by.near.iter().chain(&by.like) {
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
