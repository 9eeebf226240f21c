//! Simulated stand-ins for the devices of a studio.

mod scale;

pub use scale::{Scale, ScaleError};
