//! Simulated stand-ins for the devices of a studio.

mod forecast;
mod scale;

pub use forecast::outside;
pub use scale::{Scale, ScaleError};
