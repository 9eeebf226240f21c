//! A studio: its hours, its habits, its shelf and its pictures, all checked.

mod document;
mod hours;
mod material;
mod schools;
mod shelf;

pub use document::{DocumentError, StudioDocument};
pub use hours::{Closed, HoursError, OpenHours, Session, StudioHours};
pub use material::{Material, MaterialKind, Swatch};
pub use schools::{Schools, Thinning, Waiting};
pub use shelf::starter_shelf;
