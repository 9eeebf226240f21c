//! The record sheet of a picture as an open file: what a buyer or a conservator wants to know.

use super::write::local;
use base64::Engine;
use chrono::{DateTime, FixedOffset, Utc};
use schemars::JsonSchema;
use serde::Serialize;
use ulvek_core::picture::{Step, ground_word};
use ulvek_core::seal::removal;
use ulvek_core::studio::{Material, StudioDocument};
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
    pub written_at: DateTime<FixedOffset>,
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
    pub begun_at: Option<DateTime<FixedOffset>>,
    /// When the last was.
    pub finished_at: Option<DateTime<FixedOffset>>,
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
    pub at: DateTime<FixedOffset>,
    /// What the painter calls it.
    pub title: String,
    /// Whether it seals the picture.
    pub seals: bool,
    /// Wet film [um], when it left one.
    pub wet_film_um: Option<f64>,
    /// What was in the cup, as shares by volume in words.
    pub mix: String,
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
    pub at: DateTime<FixedOffset>,
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
    pub taken_at: DateTime<FixedOffset>,
    /// The painter's words on it.
    pub caption: String,
    /// The step it shows.
    pub step: Option<String>,
    /// The small rendition, JPEG in Base64 (RFC 4648); absent where only the sheet is shown.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub jpeg_base64: Option<String>,
}

/// The sheet of picture `p`; `pixels` are the small renditions of `photographs`, in their order, or
/// none at all.
pub fn record_doc(
    document: &StudioDocument,
    p: usize,
    (photographs, pixels): (&[Photograph], &[Vec<u8>]),
    now: DateTime<Utc>,
) -> RecordDoc {
    let picture = &document.pictures[p];
    let zone = document.hours.zone();
    let mut done: Vec<(&Step, DateTime<Utc>)> =
        picture.steps.iter().filter_map(|s| s.laid_at.map(|at| (s, at))).collect();
    done.sort_by_key(|(_, at)| *at);
    let title =
        |id: &str| picture.steps.iter().find(|s| s.id == id).map_or(id, Step::title).to_owned();
    let used = |m: &&Material| {
        done.iter().any(|(s, _)| s.mix.iter().any(|x| x.material == m.id && x.parts > 0.0))
    };
    let note = |at: DateTime<Utc>, on: &str, what: String| RecordNote {
        at: local(at, zone),
        on: title(on),
        what,
    };
    RecordDoc {
        format: RECORD.to_owned(),
        written_at: local(now, zone),
        studio: document.name.clone(),
        title: picture.title.clone(),
        width_cm: picture.width_cm,
        height_cm: picture.height_cm,
        ground: ground_word(picture.absorbs_um),
        begun_at: done.first().map(|(_, at)| local(*at, zone)),
        finished_at: done.last().map(|(_, at)| local(*at, zone)),
        to_come: picture
            .steps
            .iter()
            .filter(|s| s.laid_at.is_none())
            .map(|s| s.title().to_owned())
            .collect(),
        work: done
            .iter()
            .map(|(step, at)| RecordWork {
                at: local(*at, zone),
                title: step.title().to_owned(),
                seals: step.kind.seals(),
                wet_film_um: step.wet_film_um.filter(|_| step.kind.leaves_film()),
                mix: mix(document, step),
            })
            .collect(),
        materials: document
            .materials
            .iter()
            .filter(used)
            .map(|m| RecordMaterial {
                name: m.name.clone(),
                kind: m.kind.word().replace('_', " "),
                pigments: m.pigments.clone(),
                hazards: m.hazards.clone(),
            })
            .collect(),
        removal: removal(document, picture).to_string(),
        anyway: picture
            .seal
            .anyway
            .iter()
            .map(|a| {
                let what =
                    format!("Laid although not: {}. Reason: {}", a.against.join("; "), a.reason);
                note(a.at, &a.step, what)
            })
            .collect(),
        troubles: picture
            .seal
            .troubles
            .iter()
            .map(|t| note(t.at, &t.step, t.trouble.looks_like().to_owned()))
            .collect(),
        set_aside: picture
            .set_aside
            .iter()
            .map(|a| note(a.at, &a.step, format!("{} set aside. Reason: {}", a.rule, a.reason)))
            .collect(),
        photographs: photographs
            .iter()
            .enumerate()
            .map(|(n, photograph)| RecordPhotograph {
                id: photograph.id.to_string(),
                taken_at: local(photograph.taken_at, zone),
                caption: photograph.caption.clone(),
                step: photograph.step_code.as_deref().map(title),
                jpeg_base64: pixels
                    .get(n)
                    .map(|jpeg| base64::engine::general_purpose::STANDARD.encode(jpeg)),
            })
            .collect(),
    }
}

/// The mix of a step as shares by volume.
fn mix(document: &StudioDocument, step: &Step) -> String {
    let all: f64 = step.mix.iter().map(|p| p.parts).sum();
    let parts: Vec<String> = step
        .mix
        .iter()
        .filter(|p| p.parts > 0.0)
        .map(|p| {
            let name = document.material(&p.material).map_or(p.material.as_str(), |m| &m.name);
            format!("{:.0} % {name}", p.parts / all * 100.0)
        })
        .collect();
    parts.join(", ")
}

/// The JSON Schema of the record sheet.
pub fn record_schema() -> serde_json::Value {
    let mut schema = schemars::schema_for!(RecordDoc).to_value();
    schema["$id"] = "urn:ulvek:record:1".into();
    schema["title"] = "Ulvek record sheet".into();
    schema["properties"]["format"]["const"] = RECORD.into();
    schema
}
