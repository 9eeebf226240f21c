//! What a long wet session wants before and during it: damper air, and a misted palette.

use super::PlannedStep;
use crate::studio::Studio;
use crate::time::seconds;
use chrono::{DateTime, Duration, Utc};

/// Hands-on work from which a wet session is long [min]. [practice]
const LONG_MIN: f64 = 45.0;
/// How long before it the humidifier runs [min]: about an hour, work.md. [practice]
const HUMIDIFIER_MIN: i64 = 60;
/// Relative humidity from which the air needs no help [-]. [practice]
const DAMP_ENOUGH: f64 = 0.55;
/// How often the palette (not the picture) is misted in a session: 15 min. [practice]
pub const MIST_EVERY: Duration = Duration::minutes(15);

/// Reminders of one step.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct WetSession {
    /// When the humidifier is switched on.
    pub humidifier_on: DateTime<Utc>,
}

/// Reminders for a planned step, when it is a long wet session in dry air. Varnish wants none: it
/// is laid in air that is not damp.
pub fn wet_session(studio: &Studio, planned: &PlannedStep) -> Option<WetSession> {
    let step = &studio.pictures[planned.picture].steps[planned.step];
    let first = planned.sittings.first()?;
    let wet = !step.kind.seals() && step.coat(&studio.materials).ok()?.is_some();
    let dry = studio.air.at(seconds(first.from)).humidity < DAMP_ENOUGH;
    (wet && dry && step.hands_on_min >= LONG_MIN)
        .then(|| WetSession { humidifier_on: first.from - Duration::minutes(HUMIDIFIER_MIN) })
}
