//! What painters do, pure: a studio, a deed and the moment make a studio, or a refusal that names the
//! place. Every door of the application goes through here, so that none of them judges by itself.

mod air;
pub mod daybook;
mod draft;
mod edit;
mod happen;
mod log;
mod mend;
mod seal;
mod touch;

pub use air::{AirAhead, take_in_air, type_reading};
pub use draft::{Draft, drafted, keep_draft};
pub use edit::{begin_picture, edit_picture, has_place, put_shelf, save_settings};
pub use happen::{Told, ToldWhat, happen, happen_all, retell};
pub use log::{CLOCKS_APART_S, Laid, LaidFilm, log, too_early};
pub use seal::{find_trouble, inspect, settle_varnish};
pub use touch::{retouch, touch, what_moves};

use crate::picture::{CoatFault, Picture};
use crate::quantity::Fault;

/// A picture after a deed, and what the deed is called for undo.
#[derive(Debug, Clone, PartialEq)]
pub struct Deed {
    /// The picture as it is then.
    pub picture: Picture,
    /// What was done.
    pub label: String,
}

/// A coat of the studio that cannot be computed stands in the way of the deed.
impl From<CoatFault> for Fault {
    fn from(fault: CoatFault) -> Self {
        Self::new("", fault)
    }
}
