//! The room's air: as it is usually kept, as it was, and for the coming days.

pub mod handlers;
mod past;
pub mod wire;
