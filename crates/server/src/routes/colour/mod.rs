//! What is seen before it is painted.

pub mod handlers;
pub mod wire;
