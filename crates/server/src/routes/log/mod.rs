//! The log: what was done, on a picture or in the studio, entered and read.

pub mod daybook;
pub mod found;
pub mod handlers;
mod planned;
pub mod told;
pub mod wire;
