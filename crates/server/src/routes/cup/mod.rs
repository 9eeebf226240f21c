//! The cup and the scale on the bench.

pub mod handlers;
pub mod wire;
