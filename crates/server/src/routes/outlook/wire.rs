//! What is said of a studio as it stands.

pub use super::steps::*;
pub use super::week::*;

use crate::formats::words;
use crate::routes::shared::{DateOut, SpanOut};
use chrono::{DateTime, NaiveDate, Utc};
use serde::{Deserialize, Serialize};
use ulvek_core::colour::UNDERPAINTINGS;
use ulvek_core::film::FilmState;
use ulvek_core::picture::{Place, ReadyBy};
use utoipa::ToSchema;
use uuid::Uuid;

/// The room at one moment.
#[derive(Serialize, ToSchema)]
pub struct AirOut {
    /// From when it stands.
    pub at: DateTime<Utc>,
    /// Temperature [C].
    pub temperature_c: f64,
    /// Relative humidity, fraction of 1.
    pub relative_humidity: f64,
}

/// Something planned work needs more of than there is.
#[derive(Serialize, ToSchema)]
pub struct ShortageOut {
    /// Its name on the shelf.
    pub of: String,
    /// What it is called.
    pub name: String,
    /// Whether it is a tub.
    pub tub: bool,
    /// What is left now [ml].
    pub left_ml: f64,
    /// What is needed up to and with the first step that runs short [ml].
    pub needs_ml: f64,
    /// The picture of that step.
    pub picture: Uuid,
    /// Its title.
    pub picture_title: String,
    /// What the painter calls the step.
    pub title: String,
    /// When that step is planned.
    #[schema(required)]
    pub at: Option<DateTime<Utc>>,
}

/// One picture as it stands and as it is planned.
#[derive(Serialize, ToSchema)]
pub struct PictureOutlook {
    /// Its key.
    pub id: Uuid,
    /// Its version.
    pub version: i64,
    /// Title.
    pub title: String,
    /// Width [cm].
    pub width_cm: f64,
    /// Height [cm].
    pub height_cm: f64,
    /// Its last photograph: painters know their pictures by sight.
    #[schema(required)]
    pub photograph: Option<Uuid>,
    /// The day it must be ready.
    #[schema(required)]
    pub due: Option<NaiveDate>,
    /// End of the last step's hands-on work; `null` while a step cannot be placed.
    #[schema(required)]
    pub finish: Option<DateTime<Utc>>,
    /// Days after the due day; 0 in time.
    #[schema(required)]
    pub days_late: Option<i64>,
    /// What is said of its date.
    pub date: DateOut,
    /// What is meant by it being ready.
    #[schema(schema_with = words::api::ready_by)]
    pub ready_by: ReadyBy,
    /// What it is by then, as the end of a sentence: "safe to wrap", "packed" where wrapping is one of its steps.
    pub ready_said: String,
    /// Steps in all, and done.
    pub steps: usize,
    /// Steps done.
    pub done: usize,
    /// Coats in order of time.
    pub coats: Vec<CoatOut>,
    /// The step of the laid coat by which the picture is judged now: the last one, and of several sections
    /// that of the slowest.
    #[schema(required)]
    pub top: Option<String>,
    /// Steps still to do, in order of time.
    pub plan: Vec<PlannedOut>,
    /// Rules broken.
    pub findings: Vec<FindingOut>,
}

/// A studio as it stands at one moment.
#[derive(Serialize, ToSchema)]
pub struct Outlook {
    /// What of the studio cannot be read and is left out, each in words.
    pub unread: Vec<String>,
    /// The moment.
    pub now: DateTime<Utc>,
    /// IANA name of the studio's time zone.
    pub time_zone: String,
    /// The painter's hours from yesterday to a week ahead.
    pub sessions: Vec<SpanOut>,
    /// The room, hour by hour over the same time.
    pub air: Vec<AirOut>,
    /// The pictures.
    pub pictures: Vec<PictureOutlook>,
    /// What planned work runs short of.
    pub shortages: Vec<ShortageOut>,
    /// What to prepare, the first first.
    pub prepare: Vec<PrepareOut>,
}

/// Something to prepare for what is planned in the coming hours.
#[derive(Serialize, ToSchema)]
pub struct PrepareOut {
    /// By when.
    pub by: DateTime<Utc>,
    /// The picture it is for.
    pub picture: Uuid,
    /// Its title.
    pub picture_title: String,
    /// What to do, as a sentence without its end.
    pub said: String,
}

/// The film of one picture over time, coat by coat.
#[derive(Serialize, ToSchema)]
pub struct Strata {
    /// The moment it was computed for.
    pub now: DateTime<Utc>,
    /// The picture as it stands and as it is planned.
    pub outlook: PictureOutlook,
    /// The places of the picture, each with a stack of its own: the rest first, then its sections.
    pub places: Vec<SectionOut>,
    /// The one that is shown, by its turn among them.
    pub place: usize,
    /// The coats that lie there, by their turn in the outlook.
    pub shown: Vec<usize>,
    /// Water the ground can take up [um].
    pub absorbs_um: f64,
    /// The painter's hours over the time that is shown.
    pub sessions: Vec<SpanOut>,
    /// Moments, in order.
    pub frames: Vec<DateTime<Utc>>,
    /// One per coat that is shown: its film from the frame where it begins.
    pub films: Vec<FilmOut>,
    /// What is seen from the front: over the lights of the underpainting, over its darks; or one row when
    /// there is no underpainting.
    pub face: Vec<PlaceOut>,
    /// What is not known of the colours, a sentence for each material.
    pub untold: Vec<String>,
}

/// Which place of a picture strata are asked for.
#[derive(Deserialize)]
pub struct StrataAsked {
    /// A section, or nothing for what is in none; the slowest place when not said.
    pub section: Option<String>,
}

/// A place of a picture.
#[derive(Serialize, ToSchema)]
pub struct SectionOut {
    /// What the painter calls the section; nothing for what is in none.
    #[schema(required)]
    pub section: Option<String>,
    /// Whether the whole picture waits for this one now.
    pub slowest: bool,
}

/// What is seen at one place of the underpainting.
#[derive(Serialize, ToSchema)]
pub struct PlaceOut {
    /// Which: `lights`, `darks`, or `all`.
    pub place: &'static str,
    /// After each coat that is shown, `#rrggbb`.
    pub seen: Vec<String>,
}

impl PlaceOut {
    /// A place, by what its underpainting is.
    pub fn of(place: &Place) -> Self {
        let name = match place.value {
            Some(value) if value > UNDERPAINTINGS.0 => "lights",
            Some(_) => "darks",
            None => "all",
        };
        Self { place: name, seen: place.seen.iter().map(|s| s.to_hex()).collect() }
    }
}

/// When coats of a picture reach their states in few, half and most of the futures.
#[derive(Serialize, ToSchema)]
pub struct Spread {
    /// The shares of the futures, in order.
    pub shares: Vec<f64>,
    /// The last laid coat and those to come.
    pub coats: Vec<SpreadOut>,
}

/// The spread of one coat.
#[derive(Serialize, ToSchema)]
pub struct SpreadOut {
    /// The step's name within the picture.
    pub step: String,
    /// What the painter calls it.
    pub title: String,
    /// One for each share.
    pub states: Vec<StatesOut>,
}

/// The film of one coat.
#[derive(Serialize, ToSchema)]
pub struct FilmOut {
    /// Index of the frame where it begins.
    pub from: usize,
    /// Thickness at each frame [um].
    pub um: Vec<f32>,
    /// State at each frame.
    #[schema(schema_with = words::api::states)]
    pub state: Vec<FilmState>,
}
