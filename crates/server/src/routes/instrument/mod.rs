//! Instruments: added and looked after by the painter, heard of by themselves.

pub mod door;
pub mod handlers;
mod state;
mod taken;
pub mod wire;
