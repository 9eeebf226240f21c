//! The log of a studio as it is looked through, taken out and brought in.

use super::wire::LogOut;
use crate::formats::{HappeningDoc, Line, Moment, Row};
use chrono::{DateTime, Utc};
use chrono_tz::Tz;
use serde::{Deserialize, Serialize};
use ulvek_core::quantity::{Checked, Fault, check_text};
use ulvek_core::seal::mix_said;
use ulvek_store::{Done, LogAsked, LogEntry, LogFound, StoredStudio};
use utoipa::ToSchema;
use uuid::Uuid;

/// What is looked for in the log of a studio.
#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
pub struct LogQuery {
    #[serde(default)]
    words: String,
    picture: Option<Uuid>,
    kind: Option<String>,
    material: Option<String>,
    from: Option<Moment>,
    to: Option<Moment>,
    #[serde(default)]
    skip: u32,
    take: Option<u32>,
}

/// Entries at most in one answer. [practice] a screenful, ten times
const MOST_ENTRIES: u32 = 500;
/// Entries in one answer when not said. [practice]
const ENTRIES: u32 = 50;

impl LogQuery {
    /// What is asked for.
    ///
    /// # Errors
    /// [`Fault`] naming what cannot be.
    pub fn read(self) -> Checked<LogAsked> {
        check_text("words", &self.words)?;
        let take = self.take.unwrap_or(ENTRIES);
        if take == 0 || take > MOST_ENTRIES {
            return Err(Fault::new("take", format!("give 1 to {MOST_ENTRIES} entries")));
        }
        Ok(LogAsked {
            words: self.words,
            picture: self.picture,
            kind: self.kind,
            material: self.material,
            within: (self.from.map(Moment::utc), self.to.map(Moment::utc)),
            page: (self.skip, take),
        })
    }
}

/// Entries that were found, the last done first.
#[derive(Serialize, ToSchema)]
pub struct LogPage {
    /// How many there are in all.
    pub of: u64,
    /// Whether no entry has all the words, and these have some of them.
    pub some: bool,
    /// The entries.
    pub entries: Vec<EntryOut>,
}

/// An entry of the log that stands, with what it is about in words.
#[derive(Serialize, ToSchema)]
pub struct EntryOut {
    /// The picture, if it is about one.
    #[schema(required)]
    pub picture: Option<Uuid>,
    /// Its title.
    #[schema(required)]
    pub picture_title: Option<String>,
    /// What the painter calls the step.
    #[schema(required)]
    pub step_title: Option<String>,
    /// What was in the cup, in words.
    #[schema(required)]
    pub mix: Option<String>,
    /// Its colour, `#rrggbb`.
    #[schema(required)]
    pub colour: Option<String>,
    /// The material it is about, as it is called on the shelf.
    #[schema(required)]
    pub material: Option<String>,
    /// Where on the picture.
    #[schema(required)]
    pub place: Option<String>,
    /// The entry as it can be put right or taken back, when it stands in the day book.
    #[schema(required)]
    pub there: Option<HappeningDoc>,
    /// The entry.
    pub entry: LogOut,
}

impl LogPage {
    /// What was `found` in the log of a studio.
    pub fn of(stored: &StoredStudio, found: LogFound) -> Self {
        let studio = &stored.studio;
        let (tubes, zone) = (studio.tubes(), studio.hours.zone());
        let material = |id: &str| studio.material(id).map_or(id, |m| m.name.as_str()).to_owned();
        let one = |(key, entry): (Option<Uuid>, LogEntry)| {
            let p = stored.pictures.iter().position(|p| Some(p.id) == key);
            let picture = p.map(|p| &studio.pictures[p]);
            let step = picture.zip(entry.step.as_deref());
            let step = step.and_then(|(p, id)| p.steps.iter().find(|s| s.id == id));
            let coat = step.filter(|_| matches!(entry.what, Done::Laid(_)));
            let words = match &entry.what {
                Done::Happened { words, .. } => Some(words.clone()),
                _ => None,
            };
            EntryOut {
                picture: key,
                picture_title: picture.map(|p| p.title.clone()),
                step_title: step.map(|s| s.called()),
                mix: coat.map(|s| mix_said(studio, s)).filter(|m| !m.is_empty()),
                colour: coat
                    .and_then(|s| s.own_colour(&tubes).ok().flatten())
                    .map(ulvek_core::mix::Swatch::to_hex),
                material: words.as_ref().and_then(|w| w.material.as_deref()).map(material),
                place: words.map(|w| w.place).filter(|place| !place.is_empty()),
                there: entry
                    .in_daybook()
                    .map(|h| HappeningDoc::of(&h, zone))
                    .filter(|_| key.is_none()),
                entry: LogOut::from(entry),
            }
        };
        Self {
            of: found.of,
            some: found.some,
            entries: found.entries.into_iter().map(one).collect(),
        }
    }
}

impl EntryOut {
    /// The entry as a row of a table; times in `zone`.
    pub fn row(&self, zone: Tz) -> Row {
        let entry = &self.entry;
        let local = |at: DateTime<Utc>| at.with_timezone(&zone).to_rfc3339();
        let text = |said: &Option<String>| said.clone().unwrap_or_default();
        [
            local(entry.at),
            local(entry.entered_at),
            text(&self.picture_title),
            entry.trouble.clone().unwrap_or_else(|| entry.kind.clone()),
            text(&self.step_title),
            text(&self.mix),
            entry.wet_film_um.map(|um| um.to_string()).unwrap_or_default(),
            text(&self.place),
            text(&self.material),
            text(if entry.words.is_some() { &entry.words } else { &entry.said }),
        ]
    }
}

/// Whether what is good of a table is to be kept.
#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Bring {
    /// Without it the table is only looked at.
    #[serde(default)]
    pub keep: bool,
}

/// What became of a table.
#[derive(Serialize, ToSchema)]
pub struct BroughtOut {
    /// Rows that can be kept.
    pub good: usize,
    /// Whether they were.
    pub kept: bool,
    /// Rows that cannot, with their lines.
    pub bad: Vec<BadRowOut>,
}

/// A row that cannot be kept.
#[derive(Serialize, ToSchema)]
pub struct BadRowOut {
    /// The line of the file on which it begins.
    pub line: u64,
    /// Why.
    pub why: String,
}

impl BroughtOut {
    /// What became of `lines`, of which those that could be read were `tried`.
    pub fn of(lines: &[Line], tried: Vec<Result<(), Fault>>, kept: bool) -> Self {
        let mut tried = tried.into_iter();
        let mut good = 0;
        let mut bad = Vec::new();
        for line in lines {
            let why = match &line.told {
                Err(why) => Some(why.clone()),
                Ok(_) => tried.next().and_then(Result::err).map(|fault| fault.to_string()),
            };
            match why {
                None => good += 1,
                Some(why) => bad.push(BadRowOut { line: line.line, why }),
            }
        }
        Self { good, kept, bad }
    }
}
