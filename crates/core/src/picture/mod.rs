//! Pictures, their steps and coats, and ways of working.

mod chain;
mod coats;
mod face;
mod ground;
mod happening;
mod kind;
mod model;
mod order;
mod place;
mod preview;
mod sealing;
mod section;
mod steps;
mod timeline;
mod touch;
mod ways;

pub use chain::{PictureError, check_chain};
pub use coats::{CoatFault, LaidCoat, NoCoat, on_top, stacks};
pub use face::{FaceCoat, Place};
pub use ground::{FIRST_GROUND, GROUNDS, ground_word, usual_ground};
pub use happening::{Happening, PaintTrouble, WIPED_UM, What};
pub use kind::{Need, SMALL_CM, StepKind};
pub use model::{Picture, ReadyBy, SetAside, Step, ThinningChoice};
pub use place::{PlaceId, REST, meet};
pub use preview::{IfLaid, if_laid};
pub use sealing::{
    Carrier, MOST_COATS, Purpose, SealAnyway, SealRecord, SealTrouble, Strokes, TroubleFound,
    USUAL_EDGE_CM, VarnishChoice,
};
pub use timeline::{
    CoatHistory, FOLLOWED_ALONE, FollowedCoat, FollowedPlace, Frame, Stack, Timeline, films_after,
    follow, follow_on,
};
pub use touch::{Touch, TouchTest};
pub use ways::{WAYS, Way, WayStep};
