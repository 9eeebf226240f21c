//! What goes into a cup: parts by volume of materials of the shelf, and what follows from them.
//!
//! Volumes are taken to add up; real mixtures of paint and medium shrink by well under 1 %.

mod composition;
mod limits;
mod material;
mod parts;
mod pigment;
mod seen;
mod starter_shelf;
mod swatch;

pub use composition::{Composition, MixError, OWN_PACE_SPREAD, SUM_TOLERANCE};
pub use limits::{
    LEAST_BINDER, LEAST_IN_CUP, Limit, LimitKind, MOST_RETARDER, MOST_WATER, Surface, Thinning,
};
pub use material::{Finish, Line, Material, MaterialKind, Opacity, Stock};
pub use parts::{Mix, Part, find};
pub use pigment::{Lightfastness, colour_index_names, lightfastness, poisonous};
pub use seen::SwatchSeen;
pub use starter_shelf::{ordinary_paint, starter_shelf};
pub use swatch::{Drawdown, Swatch, Tint};
