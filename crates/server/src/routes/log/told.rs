//! What happened beside the coats, as it is told over the wire.

use crate::formats::{HappeningDoc, Hex, Moment, PartDoc, read_mix, words};
use crate::routes::picture::wire::PictureOut;
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};
use ulvek_core::deeds;
use ulvek_core::picture::{Happening, PaintTrouble, What};
use utoipa::ToSchema;

/// Something that happened on a picture beside its coats.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Told {
    /// The version the entry is made on.
    pub version: i64,
    /// When; the moment this arrives when not said.
    #[serde(default)]
    pub at: Option<Moment>,
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
    /// The painter worked in the studio; for its day book.
    Session {
        /// Until when.
        until: Moment,
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
            at: self.at.map_or(now, Moment::utc),
            step: self.step,
            material: self.material,
            place: self.place.trim().to_owned(),
            words: self.words.trim().replace("\r\n", "\n"),
            what: self.what.read(),
        }
    }
}

impl ToldDoc {
    /// What is told.
    pub fn read(self) -> deeds::ToldWhat {
        match self {
            Self::Noted {} => deeds::ToldWhat::Noted,
            Self::Misted {} => deeds::ToldWhat::Misted,
            Self::WipedOff {} => deeds::ToldWhat::WipedOff,
            Self::Sanded { dry_um } => deeds::ToldWhat::Sanded(dry_um),
            Self::Trouble { trouble } => deeds::ToldWhat::Trouble(trouble),
            Self::Session { until } => deeds::ToldWhat::Session(until.utc()),
            Self::Swatch { mix, wet_film_um, over_white, over_black } => {
                let seen = (over_white.0, over_black.0);
                deeds::ToldWhat::Swatch { mix: read_mix(&mix), wet_film_um, seen }
            }
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
    pub at: Moment,
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
            at: self.at.utc(),
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
