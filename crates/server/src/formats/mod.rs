//! The open formats: the studio document, the record sheet, iCalendar, readings. Shape, reading and
//! writing of one part stand together in one file; whether what was read may be is the core's to say.

mod air;
mod bounds;
mod calendar;
mod document;
mod fields;
mod happened;
mod log_csv;
mod mix;
pub mod moment;
mod picture;
mod plain;
mod readings;
mod record;
mod seal;
mod shelf;
mod studio;
pub(crate) mod words;

pub use air::{AheadDoc, AirDoc, HourlyDoc, RoomDoc};
pub(crate) use bounds::numbers;
pub use calendar::calendar;
pub use document::{Document, FORMAT, MAX_BYTES, json_schema, read_document};
pub use fields::{Hex, label};
pub use happened::{HappeningDoc, WhatDoc};
pub use log_csv::{Line, Row, read_log, write_log};
pub use mix::{PartDoc, mix_doc, read_mix};
pub use moment::Moment;
pub use picture::{GroundDoc, PictureDoc, SetAsideDoc, StepDoc, ThinningDoc, TouchDoc};
pub use plain::{Unread, plain_words, read_json};
pub use readings::read_readings;
pub use record::{RECORD, RecordDoc, Shown, record_schema};
pub use seal::{AnywayDoc, ChoiceDoc, SealDoc, TroubleDoc};
pub use shelf::{
    MaterialDoc, ShelfRead, StockDoc, TubCheckDoc, TubDoc, WayDoc, read_shelf, with_shelf,
};
pub use studio::{ClosedDoc, DaylightDoc, HourDoc, OrderEntryDoc, SchoolsDoc, StudioDoc};
