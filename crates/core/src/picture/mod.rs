//! Pictures, their steps, and ways of working.

mod chain;
mod ground;
mod kind;
mod model;
mod timeline;
mod ways;

pub use chain::{PictureError, check_chain};
pub use ground::ground_word;
pub use kind::{Need, StepKind};
pub use model::{Part, Picture, SetAside, Step, ThinningChoice};
pub use timeline::{CoatHistory, FOLLOWED_ALONE, Frame, LaidCoat, Timeline, film_after, follow};
pub use ways::{WAYS, Way, WayStep};
