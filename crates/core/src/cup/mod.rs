//! What to put in the cup: parts, volumes, masses, drops, and the limits of a mix.
//!
//! Everything is exact arithmetic on volumes: a part keeps its share however the cup is scaled.
//! Volumes of paint and medium are taken to add up; real mixtures shrink by well under 1 %.

mod adjust;
mod amounts;
mod limits;
mod preview;
mod rounding;

pub use adjust::{Change, adjust};
pub use amounts::{Amount, CupError, Pour, amounts, most_from, pour_ml};
pub use limits::{Limit, LimitKind, MOST_RETARDER, MOST_WATER, Surface, limits};
pub use preview::{IfLaid, if_laid};
pub use rounding::{Rounded, round_to};
