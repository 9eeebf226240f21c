//! What happened beside the coats, on a picture or in the studio: shape, reading and writing.

use super::fields::{Hex, few_lines, line};
use super::mix::{PartDoc, mix_doc, read_mix};
use super::moment::Moment;
use super::words;
use chrono_tz::Tz;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use ulvek_core::mix::{Swatch, SwatchSeen};
use ulvek_core::picture::{Happening, PaintTrouble, What};
use utoipa::ToSchema;

/// Something that happened beside the coats, on a picture or in the studio.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct HappeningDoc {
    /// When.
    pub at: Moment,
    /// What.
    pub what: WhatDoc,
    /// The `id` of the step it is about.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub step: Option<String>,
    /// The `id` of the material it is about.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub material: Option<String>,
    /// Where on the picture, in the painter's words.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub place: String,
    /// What the painter wrote.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub words: String,
}

/// What happened.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(tag = "kind", rename_all = "snake_case", deny_unknown_fields)]
pub enum WhatDoc {
    /// Only what the painter wrote.
    Noted {},
    /// The palette was misted.
    Misted {},
    /// The coat was wiped off while it was wet.
    WipedOff {
        /// Its wet film before [um].
        was_um: f64,
    },
    /// The coat was sanded or scraped back when it was dry.
    Sanded {
        /// How deep [um, dry]; through to the coat below when not said.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        dry_um: Option<f64>,
        /// The wet film that its coat counted as before [um].
        was_um: f64,
    },
    /// Something went wrong with it.
    Trouble {
        /// What.
        #[schemars(schema_with = "words::json::paint_trouble")]
        #[schema(schema_with = words::api::paint_trouble)]
        trouble: PaintTrouble,
    },
    /// The painter worked in the studio.
    Session {
        /// Until when.
        until: Moment,
    },
    /// A swatch was made of a mix.
    Swatch {
        /// The mix, parts by volume.
        mix: Vec<PartDoc>,
        /// Its wet film [um].
        wet_film_um: f64,
        /// What was predicted over the usual white and black card, `#rrggbb`.
        #[schemars(with = "[String; 2]")]
        #[schema(value_type = [String; 2])]
        predicted: [Hex; 2],
        /// What was seen over them.
        #[schemars(with = "[String; 2]")]
        #[schema(value_type = [String; 2])]
        seen: [Hex; 2],
    },
}

impl HappeningDoc {
    /// Writes it; its time in `zone`.
    pub fn of(happening: &Happening, zone: Tz) -> Self {
        Self {
            at: Moment::local(happening.at, zone),
            what: WhatDoc::of(&happening.what, zone),
            step: happening.step.clone(),
            material: happening.material.clone(),
            place: happening.place.clone(),
            words: happening.words.clone(),
        }
    }

    /// What happened.
    pub fn read(&self) -> Happening {
        Happening {
            at: self.at.utc(),
            step: self.step.as_deref().map(line),
            material: self.material.as_deref().map(line),
            place: line(&self.place),
            words: few_lines(Some(&self.words)).unwrap_or_default(),
            what: self.what.read(),
        }
    }
}

impl WhatDoc {
    fn of(what: &What, zone: Tz) -> Self {
        let hex = |(white, black): (Swatch, Swatch)| [Hex(white), Hex(black)];
        match what {
            What::Noted => Self::Noted {},
            What::Misted => Self::Misted {},
            What::WipedOff { was_um } => Self::WipedOff { was_um: *was_um },
            What::Sanded { dry_um, was_um } => Self::Sanded { dry_um: *dry_um, was_um: *was_um },
            What::Trouble(trouble) => Self::Trouble { trouble: *trouble },
            What::Session { until } => Self::Session { until: Moment::local(*until, zone) },
            What::Swatch(seen) => Self::Swatch {
                mix: mix_doc(&seen.mix),
                wet_film_um: seen.wet_film_um,
                predicted: hex(seen.predicted),
                seen: hex(seen.seen),
            },
        }
    }

    fn read(&self) -> What {
        let swatches = |[white, black]: &[Hex; 2]| (white.0, black.0);
        match self {
            Self::Noted {} => What::Noted,
            Self::Misted {} => What::Misted,
            Self::WipedOff { was_um } => What::WipedOff { was_um: *was_um },
            Self::Sanded { dry_um, was_um } => What::Sanded { dry_um: *dry_um, was_um: *was_um },
            Self::Trouble { trouble } => What::Trouble(*trouble),
            Self::Session { until } => What::Session { until: until.utc() },
            Self::Swatch { mix, wet_film_um, predicted, seen } => What::Swatch(SwatchSeen {
                mix: read_mix(mix),
                wet_film_um: *wet_film_um,
                predicted: swatches(predicted),
                seen: swatches(seen),
            }),
        }
    }
}

/// In order of time, however they were written.
pub(super) fn in_order(happened: &[HappeningDoc]) -> Vec<Happening> {
    let mut read: Vec<Happening> = happened.iter().map(HappeningDoc::read).collect();
    read.sort_by_key(|h| h.at);
    read
}
