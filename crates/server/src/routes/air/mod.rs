//! The room's air: as it is usually kept, and for the coming days.

pub mod handlers;
pub mod wire;
