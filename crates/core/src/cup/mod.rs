//! What to put in the cup: parts, volumes, masses, drops, and the limits of a mix.
//!
//! Everything is exact arithmetic on volumes: a part keeps its share however the cup is scaled.
//! Volumes of paint and medium are taken to add up; real mixtures shrink by well under 1 %.

mod adjust;
mod amounts;
mod rounding;
mod series;
mod turn;
mod weigh;

pub use adjust::{Change, adjust};
pub use amounts::{
    Amount, CupError, DROP_ML, MEASURES, Pour, Reach, USUAL_LOSS, amounts, loss_of, ml_said,
    most_from, on_picture_ml, pour_ml, reach,
};
pub use rounding::{Rounded, round_to};
pub use series::{MOST_CUPS, series};
pub use turn::{Unit, turn};
pub use weigh::{Weighed, film_um, weighed};
