//! What is entered into a log and read from it.

use crate::formats::{HappeningDoc, Hex, Line, PartDoc, Row, TouchDoc, read_mix, words};
use crate::routes::picture::wire::PictureOut;
use chrono::{DateTime, SubsecRound, Utc};
use chrono_tz::Tz;
use serde::{Deserialize, Serialize};
use ulvek_core::deeds::{self, LaidFilm};
use ulvek_core::film::FilmState;
use ulvek_core::learn::{Account, Learned, check_test};
use ulvek_core::picture::{Happening, PaintTrouble, Touch, TouchTest, What};
use ulvek_core::quantity::{Checked, Fault, check_text};
use ulvek_core::seal::mix_said;
use ulvek_store::{DIGITS, Done, LogAsked, LogEntry, LogFound, StoredStudio, WhatBody};
use utoipa::ToSchema;
use uuid::Uuid;

/// A coat that was really laid, or a step that was really done.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Laid {
    /// The version the log entry is made on.
    pub version: i64,
    /// The step's name within the picture.
    pub step: String,
    /// When the coat was there; the moment this arrives when not said.
    #[serde(default)]
    pub at: Option<DateTime<Utc>>,
    /// How thick it really was [um]; as planned when neither this nor the amount is said.
    #[serde(default)]
    pub wet_film_um: Option<f64>,
    /// Or how much mix went onto the picture [ml].
    #[serde(default)]
    pub amount_ml: Option<f64>,
    /// Or what the cup weighs now, brush and all [g]; it was weighed before the coat.
    #[serde(default)]
    pub cup_after_g: Option<f64>,
    /// What was in the cup, parts by volume, when it was something else than planned.
    #[serde(default)]
    pub mix: Option<Vec<PartDoc>>,
    /// Why a sealing coat was laid although the gate was closed; it stays in the record.
    #[serde(default)]
    pub anyway: Option<String>,
}

impl Laid {
    /// What was laid; at `now` when no time is said.
    pub fn read(self, now: DateTime<Utc>) -> deeds::Laid {
        deeds::Laid {
            step: self.step,
            at: self.at.unwrap_or(now),
            film: LaidFilm {
                wet_film_um: self.wet_film_um,
                amount_ml: self.amount_ml,
                cup_after_g: self.cup_after_g,
            },
            mix: self.mix.as_deref().map(read_mix),
            anyway: self.anyway.map(|r| r.trim().to_owned()).filter(|r| !r.is_empty()),
        }
    }
}

/// What the film says against a coat as it is about to be logged.
#[derive(Serialize, ToSchema)]
pub struct AgainstOut {
    /// A sentence for each coat that something was laid on too early.
    pub too_early: Vec<String>,
}

/// Something that happened on a picture beside its coats.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Told {
    /// The version the entry is made on.
    pub version: i64,
    /// When; the moment this arrives when not said.
    #[serde(default)]
    pub at: Option<DateTime<Utc>>,
    /// What.
    pub what: ToldDoc,
    /// The step it is about, by its name within the picture.
    #[serde(default)]
    pub step: Option<String>,
    /// The material it is about, by its name on the shelf.
    #[serde(default)]
    pub material: Option<String>,
    /// Where on the picture, in the painter's words.
    #[serde(default)]
    pub place: String,
    /// What the painter writes.
    #[serde(default)]
    pub words: String,
}

/// What is said to have happened.
#[derive(Deserialize, ToSchema)]
#[serde(tag = "kind", rename_all = "snake_case", deny_unknown_fields)]
pub enum ToldDoc {
    /// A note.
    Noted {},
    /// The palette was misted.
    Misted {},
    /// The coat was wiped off while it was wet: nothing of it counts, and it is planned again.
    WipedOff {},
    /// The coat was sanded or scraped back.
    Sanded {
        /// How deep [um, dry]; through to the coat below when not said.
        #[serde(default)]
        dry_um: Option<f64>,
    },
    /// Something went wrong with the coat.
    Trouble {
        /// What.
        #[schema(schema_with = words::api::paint_trouble)]
        trouble: PaintTrouble,
    },
    /// A swatch was made of a mix and read: the next prediction starts from it.
    Swatch {
        /// The mix, parts by volume.
        mix: Vec<PartDoc>,
        /// Its wet film [um].
        wet_film_um: f64,
        /// What was seen over the white card, `#rrggbb`.
        #[schema(value_type = String)]
        over_white: Hex,
        /// What was seen over the black card, `#rrggbb`.
        #[schema(value_type = String)]
        over_black: Hex,
    },
}

impl Told {
    /// What is told; at `now` when no time is said.
    pub fn read(self, now: DateTime<Utc>) -> deeds::Told {
        deeds::Told {
            // As exactly as it is kept.
            at: self.at.unwrap_or(now).trunc_subsecs(DIGITS),
            step: self.step,
            material: self.material,
            place: self.place.trim().to_owned(),
            words: self.words.trim().replace("\r\n", "\n"),
            what: match self.what {
                ToldDoc::Noted {} => deeds::ToldWhat::Noted,
                ToldDoc::Misted {} => deeds::ToldWhat::Misted,
                ToldDoc::WipedOff {} => deeds::ToldWhat::WipedOff,
                ToldDoc::Sanded { dry_um } => deeds::ToldWhat::Sanded(dry_um),
                ToldDoc::Trouble { trouble } => deeds::ToldWhat::Trouble(trouble),
                ToldDoc::Swatch { mix, wet_film_um, over_white, over_black } => {
                    let seen = (over_white.0, over_black.0);
                    deeds::ToldWhat::Swatch { mix: read_mix(&mix), wet_film_um, seen }
                }
            },
        }
    }
}

/// A picture after something happened on it.
#[derive(Serialize, ToSchema)]
pub struct HappenedOut {
    /// The picture.
    pub picture: PictureOut,
    /// The entry as it is kept.
    pub entry: HappeningDoc,
    /// What to do now and what was changed, in sentences.
    pub said: Vec<String>,
    /// What moves by it, in sentences.
    pub moves: Vec<String>,
}

/// An entry that is put right or taken back.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Retold {
    /// The version the entry is made on.
    pub version: i64,
    /// The entry as it is kept.
    pub entry: HappeningDoc,
    /// What is said of it instead; nothing takes it back.
    #[serde(default)]
    pub instead: Option<Instead>,
}

/// What is said of an entry instead: what happened stays.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Instead {
    /// When.
    pub at: DateTime<Utc>,
    /// The material it is about, by its name on the shelf.
    #[serde(default)]
    pub material: Option<String>,
    /// Where on the picture.
    #[serde(default)]
    pub place: String,
    /// What the painter writes.
    #[serde(default)]
    pub words: String,
}

impl Instead {
    /// What is told instead; a note may become empty only where there is more to it.
    pub fn read(self, entry: &Happening) -> deeds::Told {
        deeds::Told {
            at: self.at.trunc_subsecs(DIGITS),
            step: entry.step.clone(),
            material: self.material,
            place: self.place.trim().to_owned(),
            words: self.words.trim().replace("\r\n", "\n"),
            what: match entry.what {
                What::Noted => deeds::ToldWhat::Noted,
                _ => deeds::ToldWhat::Misted,
            },
        }
    }
}

/// What is looked for in the log of a studio.
#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
pub struct LogQuery {
    #[serde(default)]
    words: String,
    picture: Option<Uuid>,
    kind: Option<String>,
    material: Option<String>,
    from: Option<DateTime<Utc>>,
    to: Option<DateTime<Utc>>,
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
            within: (self.from, self.to),
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
    /// The picture.
    pub picture: Uuid,
    /// Its title.
    pub picture_title: String,
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
    /// The entry.
    pub entry: LogOut,
}

/// What a fingertip felt on a coat.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Touched {
    /// The version the entry is made on.
    pub version: i64,
    /// The step's name within the picture.
    pub step: String,
    /// When; the moment this arrives when not said.
    #[serde(default)]
    pub at: Option<DateTime<Utc>>,
    /// What was felt.
    #[schema(schema_with = words::api::touch)]
    pub felt: Touch,
}

/// A test that is put right or taken back.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Retouched {
    /// The version the entry is made on.
    pub version: i64,
    /// The test as it is kept.
    pub test: TouchDoc,
    /// What comes in its place; nothing takes it back.
    #[serde(default)]
    pub instead: Option<TouchDoc>,
}

/// A picture after a fingertip, and what that moved.
#[derive(Serialize, ToSchema)]
pub struct TouchedOut {
    /// The picture.
    pub picture: PictureOut,
    /// What moves by it, in sentences.
    pub moves: Vec<String>,
}

/// How a studio differs from the book.
#[derive(Serialize, ToSchema)]
pub struct LearnedOut {
    /// What was learned, in sentences; none without tests.
    pub sentences: Vec<String>,
    /// Every test with what was expected before it, in the order it was learned from.
    pub tests: Vec<AccountOut>,
    /// Tests that say nothing.
    pub unused: Vec<UnusedOut>,
}

/// A test with what was expected before it.
#[derive(Serialize, ToSchema)]
pub struct AccountOut {
    /// The picture.
    pub picture: Uuid,
    /// Its title.
    pub picture_title: String,
    /// What the painter calls the coat.
    pub title: String,
    /// The test.
    pub test: TouchDoc,
    /// The state it speaks of.
    #[schema(schema_with = words::api::state)]
    pub state: FilmState,
    /// Whether that was reached.
    pub reached: bool,
    /// Minutes from the coat to the test.
    pub seen_min: f64,
    /// Minutes in which the state was expected.
    pub expected_min: f64,
    /// In one of ten cases earlier than this [min].
    pub early_min: f64,
    /// In one of ten cases later than this [min].
    pub late_min: f64,
    /// Whether another test of the same coat says the opposite: both are kept, and count for less.
    pub contradicted: bool,
}

/// A test that says nothing.
#[derive(Serialize, ToSchema)]
pub struct UnusedOut {
    /// The picture.
    pub picture: Uuid,
    /// Its title.
    pub picture_title: String,
    /// The test.
    pub test: TouchDoc,
    /// Why.
    pub why: String,
}

impl LearnedOut {
    /// What was `learned` of a studio.
    pub fn of(stored: &StoredStudio, learned: &Learned) -> Self {
        let studio = &stored.studio;
        let zone = studio.hours.zone();
        let account = |account: &Account| {
            let picture = &studio.pictures[account.picture];
            let step = picture.steps.iter().find(|s| s.id == account.test.step);
            AccountOut {
                picture: stored.pictures[account.picture].id,
                picture_title: picture.title.clone(),
                title: step.map_or("a coat", |s| s.title()).to_owned(),
                test: TouchDoc::of(&account.test, zone),
                state: account.state,
                reached: account.reached,
                seen_min: account.seen_min,
                expected_min: account.expected_min,
                early_min: account.within_min.0,
                late_min: account.within_min.1,
                contradicted: account.contradicted,
            }
        };
        let unused = |(p, test): &(usize, TouchTest)| UnusedOut {
            picture: stored.pictures[*p].id,
            picture_title: studio.pictures[*p].title.clone(),
            test: TouchDoc::of(test, zone),
            why: check_test(&studio.pictures[*p], test)
                .err()
                .unwrap_or_else(|| "its coat cannot be computed, or is long past".into()),
        };
        Self {
            sentences: learned.sentences(studio),
            tests: learned.accounts.iter().map(account).collect(),
            unused: learned.unused.iter().map(unused).collect(),
        }
    }
}

/// An entry of the log, as it was entered. What stands is what no later entry corrects.
#[derive(Serialize, ToSchema)]
pub struct LogOut {
    /// Its number: a later entry has a larger one.
    pub number: i64,
    /// `laid`, `sealed_anyway`, `seal_trouble`, `looked_over`, `touched`, `photographed`, `noted`, `misted`,
    /// `wiped_off`, `sanded`, `trouble`, `swatch`, or `taken_back`.
    pub kind: String,
    /// On which step, by its name within the picture.
    #[schema(required)]
    pub step: Option<String>,
    /// When it was done.
    pub at: DateTime<Utc>,
    /// When it was entered.
    pub entered_at: DateTime<Utc>,
    /// The entry that it corrects.
    #[schema(required)]
    pub corrects: Option<i64>,
    /// Wet film that was laid [um].
    #[schema(required)]
    pub wet_film_um: Option<f64>,
    /// The painter's reason, or what was found.
    #[schema(required)]
    pub said: Option<String>,
    /// What the painter wrote.
    #[schema(required)]
    pub words: Option<String>,
    /// What went wrong with paint, by its word.
    #[schema(required)]
    pub trouble: Option<String>,
}

impl From<LogEntry> for LogOut {
    fn from(entry: LogEntry) -> Self {
        let kind = entry.what.kind().to_owned();
        let (mut wrote, mut trouble) = (None, None);
        let (wet_film_um, said) = match entry.what {
            Done::Laid(coat) => (coat.wet_film_um, None),
            Done::SealedAnyway { reason, .. } => (None, Some(reason)),
            Done::SealTrouble { trouble } => (None, Some(trouble.looks_like().to_owned())),
            Done::Touched { felt } => (None, Some(felt.said().to_owned())),
            Done::Happened { what, words } => {
                let said = match what {
                    WhatBody::Trouble(trouble) => Some(trouble.said().to_owned()),
                    WhatBody::Sanded(Some(um), _) => Some(format!("{um:.0} µm")),
                    WhatBody::Sanded(None, _) => Some("through to the coat below".to_owned()),
                    _ => None,
                };
                if let WhatBody::Trouble(found) = what {
                    trouble = Some(found.word().to_owned());
                }
                wrote = Some(words.words).filter(|w| !w.is_empty());
                (None, said)
            }
            Done::LookedOver {} | Done::Photographed { .. } | Done::TakenBack {} => (None, None),
        };
        Self {
            number: entry.number,
            kind,
            step: entry.step,
            at: entry.at,
            entered_at: entry.entered_at,
            corrects: entry.corrects,
            wet_film_um,
            said,
            words: wrote,
            trouble,
        }
    }
}

impl LogPage {
    /// What was `found` in the log of a studio.
    pub fn of(stored: &StoredStudio, found: LogFound) -> Self {
        let studio = &stored.studio;
        let tubes = studio.tubes();
        let material = |id: &str| studio.material(id).map_or(id, |m| m.name.as_str()).to_owned();
        let one = |(key, entry): (Uuid, LogEntry)| {
            let p = stored.pictures.iter().position(|p| p.id == key);
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
                picture_title: picture.map(|p| p.title.clone()).unwrap_or_default(),
                step_title: step.map(|s| s.title().to_owned()),
                mix: coat.map(|s| mix_said(studio, s)).filter(|m| !m.is_empty()),
                colour: coat
                    .and_then(|s| s.own_colour(&tubes).ok().flatten())
                    .map(ulvek_core::mix::Swatch::to_hex),
                material: words.as_ref().and_then(|w| w.material.as_deref()).map(material),
                place: words.map(|w| w.place).filter(|place| !place.is_empty()),
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
            self.picture_title.clone(),
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
