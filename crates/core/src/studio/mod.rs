//! A studio: its hours, its habits, its shelf and its pictures, all checked.

pub mod check;
mod colours;
mod cupful;
pub mod daylight;
mod hours;
mod room;
mod schools;
mod stock;
mod tub;
mod usual;
mod whole;

pub use colours::{
    ColourAsked, CupColours, LADDER_COATS, LADDER_ROWS, Look, MatchAsked, Matched, MixedValue,
    Rung, StringAsked,
};
pub use cupful::{CupAsked, CupPlace, Cupful, SeriesAsked, SeriesCup, Turn};
pub use hours::{Closed, HoursError, MIDNIGHT, OpenHours, Session, StudioHours};
pub use room::{AirSource, RoomAhead};
pub use schools::{Schools, Slowed, Waiting};
pub use stock::{Shortage, taken_ml};
pub use tub::{Tightness, Tub, TubCheck, TubCondition, TubTrouble};
pub use whole::{OrderEntry, OwnWay, Studio, USUALLY_MISSED};
