//! The shelf: materials, tubs and own ways of working, edited whole.

pub mod handlers;
pub mod wire;
