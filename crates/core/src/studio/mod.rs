//! A studio: its hours, its habits, its shelf and its pictures, all checked.

pub mod daylight;
mod document;
mod hours;
mod material;
mod room;
mod schools;
mod shelf;
mod stock;
mod tub;

pub use document::{DocumentError, OwnWay, StudioDocument, Turn};
pub use hours::{Closed, HoursError, OpenHours, Session, StudioHours};
pub(crate) use material::words;
pub use material::{Finish, Line, Material, MaterialKind, Opacity, Swatch};
pub use room::{AirSource, RoomAhead};
pub use schools::{Schools, Slowed, Thinning, Waiting};
pub use shelf::starter_shelf;
pub use stock::{Shortage, Stock, taken_ml};
pub use tub::{Condition, Tightness, Trouble, Tub, TubCheck};
