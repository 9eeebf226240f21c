//! The log: what was done on a picture, entered and read.

pub mod found;
pub mod handlers;
pub mod told;
pub mod wire;
