//! From when a step may be done: waiting times of the schools, the film below, the air.
//!
//! Planner, gate and rules ask here; none of them waits by itself.

mod bed;
mod done;
mod floors;
mod varnish_air;
mod wait;

pub use bed::{Bed, NotReady};
pub use done::Done;
pub use floors::{
    Painted, SOLVENT_GAP, VARNISH_GAP, between_varnish, gap_said, solvent_over_water,
};
pub use varnish_air::{AirFault, DAMPEST, DRIEST, WARM, air_faults, first_fault};
pub use wait::{Wait, WaitReason};
