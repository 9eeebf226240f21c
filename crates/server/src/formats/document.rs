//! The studio document: a whole studio in one open format.

use super::air::AirDoc;
use super::bounds::bound;
use super::happened::{HappeningDoc, in_order};
use super::picture::PictureDoc;
use super::plain::read_json;
use super::shelf::{MaterialDoc, TubDoc, WayDoc, read_shelf, with_shelf};
use super::studio::StudioDoc;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use ulvek_core::quantity::{Checked, Fault};
use ulvek_core::studio::Studio;
use utoipa::ToSchema;

/// A whole studio in one open format.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Document {
    /// Always `ulvek.studio/1`.
    pub format: String,
    /// Hours, places and schools.
    pub studio: StudioDoc,
    /// The room.
    pub air: AirDoc,
    /// The shelf.
    #[serde(default)]
    pub materials: Vec<MaterialDoc>,
    /// Pre-mixed colour.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub tubs: Vec<TubDoc>,
    /// The painter's own ways of working.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub ways: Vec<WayDoc>,
    /// The pictures.
    #[serde(default)]
    pub pictures: Vec<PictureDoc>,
    /// The day book: what happened that is about no picture: `session`, `misted`, `noted`.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub happened: Vec<HappeningDoc>,
}

impl Document {
    /// Writes a whole studio; times in the studio's own zone.
    pub fn of(studio: &Studio) -> Self {
        let zone = studio.hours.zone();
        Self {
            format: FORMAT.to_owned(),
            studio: StudioDoc::of(studio),
            air: AirDoc::of(studio, zone),
            materials: studio.materials.iter().map(|m| MaterialDoc::of(m, zone)).collect(),
            tubs: studio.tubs.iter().map(|t| TubDoc::of(t, zone)).collect(),
            ways: studio.ways.iter().map(|w| WayDoc::of(w, zone)).collect(),
            pictures: studio.pictures.iter().map(|p| PictureDoc::of(p, zone)).collect(),
            happened: studio.happened.iter().map(|h| HappeningDoc::of(h, zone)).collect(),
        }
    }

    /// The studio; whether it may be is the check's to say.
    ///
    /// # Errors
    /// [`Fault`] of the first place that cannot be read.
    pub fn read(&self) -> Checked<Studio> {
        let (air, room) = self.air.read()?;
        let settings = self.studio.read(air)?;
        let shelf = read_shelf(&self.materials, &self.tubs, &self.ways)?;
        let pictures = self.pictures.iter().map(PictureDoc::read).collect();
        let happened = in_order(&self.happened);
        Ok(with_shelf(Studio { room, pictures, happened, ..settings }, shelf))
    }
}

/// Name and version of the studio document.
pub const FORMAT: &str = "ulvek.studio/1";
/// Largest studio document that is read [bytes]: 16 MiB, some ten thousand steps. [practice]
pub const MAX_BYTES: usize = 16 * 1024 * 1024;

/// Reads and checks a studio document.
///
/// # Errors
/// [`Fault`] with the place and the reason.
pub fn read_document(bytes: &[u8]) -> Checked<Studio> {
    if bytes.len() > MAX_BYTES {
        let mb = bytes.len() as f64 / 1e6;
        return Err(Fault::new("", format!("the document has {mb:.0} MB; at most 16 MB are read")));
    }
    // The version is looked at first, so that an older document is not called misspelt.
    #[derive(serde::Deserialize)]
    struct Head {
        format: Option<String>,
    }
    if let Ok(Head { format }) = serde_json::from_slice::<Head>(bytes) {
        match format {
            None => {
                return Err(Fault::new("format", format!("is missing; \"{FORMAT}\" is read")));
            }
            Some(f) if f != FORMAT => {
                return Err(Fault::new("format", format!("is \"{f}\"; only \"{FORMAT}\" is read")));
            }
            Some(_) => {}
        }
    }
    let document: Document = read_json(bytes)?;
    let mut studio = document.read()?;
    studio.check()?;
    studio.learn();
    Ok(studio)
}

/// The JSON Schema of the studio document.
pub fn json_schema() -> serde_json::Value {
    let mut schema = schemars::schema_for!(Document).to_value();
    schema["$id"] = "urn:ulvek:studio:1".into();
    schema["title"] = "Ulvek studio document".into();
    schema["properties"]["format"]["const"] = FORMAT.into();
    bound(&mut schema);
    schema
}
