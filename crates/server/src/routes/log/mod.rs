//! The log: what was done on a picture, entered and read.

pub mod handlers;
pub mod wire;
