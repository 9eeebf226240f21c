//! Air that is fit for varnish.

use crate::air::{Air, AirSeries};
use std::ops::RangeInclusive;

/// Temperatures for varnishing [C]: about 18-24, work.md. [memory]
pub const WARM: RangeInclusive<f64> = 18.0..=24.0;
/// Highest relative humidity for varnishing [-]: under about 65-70 %, work.md; the lower is taken.
/// [memory]
pub const DAMPEST: f64 = 0.65;
/// Lowest relative humidity for varnishing [-]: drier air takes the wet edge away and charges dust.
/// [memory]
pub const DRIEST: f64 = 0.30;

/// What is wrong with the air.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum AirFault {
    /// Colder than varnish wants [C].
    Cold(f64),
    /// Warmer [C].
    Hot(f64),
    /// Damper: it clouds [-].
    Damp(f64),
    /// Drier: the wet edge is lost [-].
    Dry(f64),
}

impl std::fmt::Display for AirFault {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        match self {
            Self::Cold(c) => write!(f, "{c:.0} °C is too cold"),
            Self::Hot(c) => write!(f, "{c:.0} °C is too warm"),
            Self::Damp(rh) => write!(f, "{:.0} % is too damp", rh * 100.0),
            Self::Dry(rh) => write!(f, "{:.0} % is too dry", rh * 100.0),
        }
    }
}

/// What keeps `air` from being fit for varnish; nothing when it is.
pub fn air_faults(air: &Air) -> Vec<AirFault> {
    let mut found = Vec::new();
    if air.celsius < *WARM.start() {
        found.push(AirFault::Cold(air.celsius));
    }
    if air.celsius > *WARM.end() {
        found.push(AirFault::Hot(air.celsius));
    }
    if air.humidity > DAMPEST {
        found.push(AirFault::Damp(air.humidity));
    }
    if air.humidity < DRIEST {
        found.push(AirFault::Dry(air.humidity));
    }
    found
}

/// The first moment in `from..to` [s] at which the air is not fit, and why; `None` when it is fit
/// throughout.
pub fn first_fault(air: &AirSeries, (from, to): (f64, f64)) -> Option<(f64, AirFault)> {
    let mut at = from;
    loop {
        if let Some(fault) = air_faults(air.at(at)).first() {
            return Some((at, *fault));
        }
        match air.next_change(at) {
            Some(next) if next < to => at = next,
            _ => return None,
        }
    }
}
