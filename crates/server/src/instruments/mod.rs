//! Simulated stand-ins for the devices of a studio.

mod forecast;
mod hygrometer;
mod scale;

pub use forecast::outside;
pub use hygrometer::{Behaviour, measure};
pub use scale::{Scale, ScaleError};
