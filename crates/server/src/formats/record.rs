//! The record sheet of a picture as an open file: what a buyer or a conservator wants to know.

use super::fields::Hex;
use super::moment::Moment;
use base64::Engine;
use base64::engine::general_purpose::STANDARD;
use chrono::{DateTime, Utc};
use chrono_tz::Tz;
use schemars::JsonSchema;
use serde::Serialize;
use ulvek_core::mix::Material;
use ulvek_core::picture::Picture;
use ulvek_core::seal::{Noted, WorkDone, record_sheet};
use ulvek_core::studio::Studio;
use ulvek_store::Photograph;
use utoipa::ToSchema;

/// Name and version of the record sheet.
pub const RECORD: &str = "ulvek.record/1";

/// The record sheet of one picture.
#[derive(Debug, Clone, Serialize, JsonSchema, ToSchema)]
pub struct RecordDoc {
    /// Always `ulvek.record/1`.
    pub format: String,
    /// When it was written.
    pub written_at: Moment,
    /// The studio's name.
    pub studio: String,
    /// The picture's title.
    pub title: String,
    /// Width [cm].
    pub width_cm: f64,
    /// Height [cm].
    pub height_cm: f64,
    /// The ground in words.
    pub ground: String,
    /// When its first step was done.
    pub begun_at: Option<Moment>,
    /// When the last was.
    pub finished_at: Option<Moment>,
    /// Steps that are not done: none on a finished picture.
    pub to_come: Vec<String>,
    /// What was done, in order of time.
    pub work: Vec<RecordWork>,
    /// Every material that is in it.
    pub materials: Vec<RecordMaterial>,
    /// How the varnish comes off.
    pub removal: String,
    /// Coats that were laid although not everything held, with the painter's reason.
    pub anyway: Vec<RecordNote>,
    /// Trouble that was found on sealing coats.
    pub troubles: Vec<RecordNote>,
    /// Findings of the rules that the painter set aside, with the reason.
    pub set_aside: Vec<RecordNote>,
    /// Photographs of it.
    pub photographs: Vec<RecordPhotograph>,
}

/// One step that was done.
#[derive(Debug, Clone, Serialize, JsonSchema, ToSchema)]
pub struct RecordWork {
    /// When.
    pub at: Moment,
    /// What the painter calls it.
    pub title: String,
    /// Whether it seals the picture.
    pub seals: bool,
    /// Wet film [um], when it left one.
    pub wet_film_um: Option<f64>,
    /// What was in the cup, as shares by volume in words.
    pub mix: String,
    /// Its own colour, `#rrggbb`: dry, alone over a white card.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schemars(with = "Option<String>")]
    #[schema(value_type = Option<String>)]
    pub colour: Option<Hex>,
}

/// One material.
#[derive(Debug, Clone, Serialize, JsonSchema, ToSchema)]
pub struct RecordMaterial {
    /// Its name.
    pub name: String,
    /// Its kind.
    pub kind: String,
    /// Pigments by Colour Index name.
    pub pigments: Vec<String>,
    /// What can hurt in it.
    pub hazards: Option<String>,
}

/// A dated note.
#[derive(Debug, Clone, Serialize, JsonSchema, ToSchema)]
pub struct RecordNote {
    /// When.
    pub at: Moment,
    /// On which step.
    pub on: String,
    /// What.
    pub what: String,
}

/// One photograph.
#[derive(Debug, Clone, Serialize, JsonSchema, ToSchema)]
pub struct RecordPhotograph {
    /// Its key in the studio it comes from.
    pub id: String,
    /// When it was taken.
    pub taken_at: Moment,
    /// The painter's words on it.
    pub caption: String,
    /// The step it shows.
    pub step: Option<String>,
    /// The small rendition, JPEG in Base64 (RFC 4648); absent where only the sheet is shown.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub jpeg_base64: Option<String>,
}

/// A photograph on the sheet, and its small rendition where the sheet is a file.
pub type Shown<'a> = (&'a Photograph, Option<&'a Vec<u8>>);

impl RecordDoc {
    /// The sheet of picture `p`.
    pub fn of(studio: &Studio, p: usize, photographs: &[Shown<'_>], now: DateTime<Utc>) -> Self {
        let picture = &studio.pictures[p];
        let zone = studio.hours.zone();
        let sheet = record_sheet(studio, p);
        let notes = |of: &[Noted]| of.iter().map(|n| RecordNote::of(n, zone)).collect();
        let at = |work: Option<&WorkDone>| work.map(|w| Moment::local(w.at, zone));
        Self {
            format: RECORD.to_owned(),
            written_at: Moment::local(now, zone),
            studio: studio.name.clone(),
            title: picture.title.clone(),
            width_cm: picture.width_cm,
            height_cm: picture.height_cm,
            ground: sheet.ground.clone(),
            begun_at: at(sheet.work.first()),
            finished_at: at(sheet.work.last()),
            work: sheet.work.iter().map(|w| RecordWork::of(w, zone)).collect(),
            materials: sheet
                .materials
                .iter()
                .map(|m| RecordMaterial::of(&studio.materials[*m]))
                .collect(),
            anyway: notes(&sheet.anyway),
            troubles: notes(&sheet.troubles),
            set_aside: notes(&sheet.set_aside),
            photographs: photographs
                .iter()
                .map(|shown| RecordPhotograph::of(picture, *shown, zone))
                .collect(),
            to_come: sheet.to_come,
            removal: sheet.removal,
        }
    }
}

impl RecordWork {
    fn of(work: &WorkDone, zone: Tz) -> Self {
        Self {
            at: Moment::local(work.at, zone),
            title: work.title.clone(),
            seals: work.seals,
            wet_film_um: work.wet_film_um,
            mix: work.mix.clone(),
            colour: work.colour.map(Hex),
        }
    }
}

impl RecordMaterial {
    fn of(material: &Material) -> Self {
        Self {
            name: material.name.clone(),
            kind: material.kind.word().replace('_', " "),
            pigments: material.pigments.clone(),
            hazards: material.hurts(),
        }
    }
}

impl RecordNote {
    fn of(note: &Noted, zone: Tz) -> Self {
        Self { at: Moment::local(note.at, zone), on: note.on.clone(), what: note.what.clone() }
    }
}

impl RecordPhotograph {
    fn of(picture: &Picture, (photograph, pixels): Shown<'_>, zone: Tz) -> Self {
        let title = |code: &str| {
            let step = picture.place_of(code).map(|i| picture.steps[i].called());
            step.unwrap_or_else(|| code.to_owned())
        };
        Self {
            id: photograph.id.to_string(),
            taken_at: Moment::local(photograph.taken_at, zone),
            caption: photograph.caption.clone(),
            step: photograph.step_code.as_deref().map(title),
            jpeg_base64: pixels.map(|jpeg| STANDARD.encode(jpeg)),
        }
    }
}

/// The JSON Schema of the record sheet.
pub fn record_schema() -> serde_json::Value {
    let mut schema = schemars::schema_for!(RecordDoc).to_value();
    schema["$id"] = "urn:ulvek:record:1".into();
    schema["title"] = "Ulvek record sheet".into();
    schema["properties"]["format"]["const"] = RECORD.into();
    schema
}
