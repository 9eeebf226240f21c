//! Pictures: made, edited whole, taken away and brought back.

pub mod handlers;
pub mod wire;
