//! From when a step may be done: order, film, waiting times of the schools, air, place and hours.
//!
//! The one law of the house is [`may_lay`]: planner, gate, rules, cup and ways ask here, and none of
//! them judges by itself.

mod bed;
mod blocked;
mod calendar;
mod done;
mod fit_air;
mod floors;
mod law;
mod pins;
mod task;
mod wait;

pub use crate::time::Stretch;
pub use bed::{Bed, NotReady, followed, history};
pub use blocked::Blocked;
pub use calendar::{Calendar, Slot};
pub use done::{AGES, Done, FilmReady};
pub use fit_air::{
    AirFault, AirWanted, COLDEST, DAMPEST, DRIEST, FitAir, MARGIN_S, WARM, air_faults,
};
pub use floors::{
    Painted, SOLVENT_GAP, VARNISH_GAP, between_varnish, gap_said, solvent_over_water,
};
pub use law::{Around, FOREVER, Found, Ready, Reason, Verdict, first_place, may_lay};
pub use pins::{Pinned, pinned};
pub use task::{Bench, Mixes, Task, unbonded};
pub use wait::{Wait, WaitReason};
