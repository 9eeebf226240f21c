//! The open formats: the studio document and iCalendar.

mod bounds;
mod check;
mod check_shelf;
mod document;
mod ical;
mod plain;
mod readings;
mod record;
mod seal_doc;
mod shelf_doc;
mod texts;
pub(crate) mod words;
mod write;

pub(crate) use check::{MOST_PICTURES, MOST_READINGS};
pub use check::{Refusal, check_document, check_picture, check_studio};
pub use check_shelf::check_shelf;
pub use document::{
    AheadDoc, AirDoc, ClosedDoc, DaylightDoc, Document, GroundDoc, HourDoc, HourlyDoc, PartDoc,
    PictureDoc, RoomDoc, SchoolsDoc, SetAsideDoc, StepDoc, StudioDoc, ThinningDoc, TurnDoc,
};
pub use ical::{beside, calendar, cup_line, why};
pub use plain::{Unread, plain_words, read_json};
pub use readings::read_readings;
pub use record::{RECORD, RecordDoc, record_doc, record_schema};
pub use seal_doc::{
    AnywayDoc, ChoiceDoc, SealDoc, TroubleDoc, check_choice, check_room, choice_doc, room_doc,
};
pub use shelf_doc::{MaterialDoc, StockDoc, TubCheckDoc, TubDoc, WayDoc};
pub use texts::{MOST_LETTERS, a_day, label, line, line_or_none, moment};
pub(crate) use write::local;
pub use write::{
    material_doc, mix_doc, picture_doc, step_doc, studio_doc, tub_doc, turn_doc, way_doc,
    write_document,
};

use ulvek_core::studio::StudioDocument;

/// Name and version of the studio document.
pub const FORMAT: &str = "ulvek.studio/1";
/// Largest studio document that is read [bytes]: 16 MiB, some ten thousand steps. [practice]
pub const MAX_BYTES: usize = 16 * 1024 * 1024;

/// Reads and checks a studio document.
///
/// # Errors
/// [`Refusal`] with the place and the reason.
pub fn read_document(bytes: &[u8]) -> Result<StudioDocument, Refusal> {
    if bytes.len() > MAX_BYTES {
        let mb = bytes.len() as f64 / 1e6;
        return Err(Refusal::new(
            "",
            format!("the document has {mb:.0} MB; at most 16 MB are read"),
        ));
    }
    // The version is looked at first, so that an older document is not called misspelt.
    #[derive(serde::Deserialize)]
    struct Head {
        format: Option<String>,
    }
    if let Ok(Head { format }) = serde_json::from_slice::<Head>(bytes) {
        match format {
            None => {
                return Err(Refusal::new("format", format!("is missing; \"{FORMAT}\" is read")));
            }
            Some(f) if f != FORMAT => {
                return Err(Refusal::new(
                    "format",
                    format!("is \"{f}\"; only \"{FORMAT}\" is read"),
                ));
            }
            Some(_) => {}
        }
    }
    let document: Document = read_json(bytes)?;
    check_document(&document)
}

/// The JSON Schema of the studio document.
pub fn json_schema() -> serde_json::Value {
    let mut schema = schemars::schema_for!(Document).to_value();
    schema["$id"] = "urn:ulvek:studio:1".into();
    schema["title"] = "Ulvek studio document".into();
    schema["properties"]["format"]["const"] = FORMAT.into();
    bounds::bound(&mut schema);
    schema
}
