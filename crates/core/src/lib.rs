//! The painter's job: drying, mixing, planning and rules.
//!
//! Nothing here reads a clock, a file or the network: time and randomness come in as
//! arguments, so every result can be computed again. Lengths, times and temperatures are
//! checked once when they come in (see [`quantity`]); inside the algorithms they are plain
//! `f64` in SI units, named where they are not.
//!
//! [practice] marks common practice of the trade, [memory] a value given from memory, and a
//! named source a published one.

pub mod air;
pub mod cancel;
pub mod colour;
pub mod cup;
pub mod deeds;
pub mod evening;
pub mod film;
pub mod learn;
pub mod mix;
pub mod picture;
pub mod planner;
pub mod quantity;
pub mod readiness;
pub mod rules;
pub mod seal;
pub mod studio;
pub mod time;
mod words;
