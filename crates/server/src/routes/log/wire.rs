//! What is entered into a log and read from it.

use crate::formats::{Moment, PartDoc, TouchDoc, read_mix, words};
use crate::routes::picture::wire::PictureOut;
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};
use ulvek_core::deeds::{self, LaidFilm};
use ulvek_core::film::FilmState;
use ulvek_core::learn::{Account, Learned, check_test};
use ulvek_core::picture::{Touch, TouchTest};
use ulvek_store::{Done, LogEntry, StoredStudio, WhatBody};
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
    pub at: Option<Moment>,
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
            at: self.at.map_or(now, Moment::utc),
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
    pub at: Option<Moment>,
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
                title: step.map_or_else(|| "a coat".to_owned(), |s| s.called()),
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
    /// `wiped_off`, `sanded`, `trouble`, `swatch`, `session`, or `taken_back`.
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
    /// When a session ended.
    #[schema(required)]
    pub until: Option<DateTime<Utc>>,
    /// When the coat was planned for, by the plan as it stood before it was laid.
    #[schema(required)]
    pub planned_at: Option<DateTime<Utc>>,
    /// Wet film that was planned [um].
    #[schema(required)]
    pub planned_um: Option<f64>,
}

impl From<LogEntry> for LogOut {
    fn from(entry: LogEntry) -> Self {
        let kind = entry.what.kind().to_owned();
        let (mut wrote, mut trouble, mut until) = (None, None, None);
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
                match what {
                    WhatBody::Trouble(found) => trouble = Some(found.word().to_owned()),
                    WhatBody::Session(to) => until = Some(to),
                    _ => {}
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
            until,
            planned_at: entry.planned.as_ref().map(|p| p.at),
            planned_um: entry.planned.and_then(|p| p.wet_film_um),
        }
    }
}
