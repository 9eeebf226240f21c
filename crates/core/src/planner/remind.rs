//! What a long wet session wants before and during it: damper air, and a misted palette.

use super::{Plan, PlannedStep};
use crate::studio::Studio;
use crate::time::seconds;
use chrono::{DateTime, Duration, Utc};

/// Hands-on work from which a wet session is long [min]. [practice]
const LONG_MIN: f64 = 45.0;
/// How long before it the humidifier runs [min]: about an hour, docs/trade.md. [practice]
const HUMIDIFIER_MIN: i64 = 60;
/// Relative humidity from which the air needs no help [-]. [practice]
const DAMP_ENOUGH: f64 = 0.55;
/// How long a sealing coat counts as wet where the room is made damper [min]: touch-dry with room to spare. [practice]
const SEAL_WET_MIN: i64 = 120;
/// How long before a sealing coat nothing raises the air any more [min]. [practice] an hour
const BEFORE_SEAL_MIN: i64 = 60;
/// How often the palette (not the picture) is misted in a session: 15 min. [practice]
pub const MIST_EVERY: Duration = Duration::minutes(15);

/// Reminders of one step.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct WetSession {
    /// When the humidifier is switched on.
    pub humidifier_on: DateTime<Utc>,
}

/// Reminders for a step of `plan`, when it is a long wet session in dry air. Varnish wants none: it is laid in air
/// that is not damp, and while it is wet in the room, or an hour before it is laid, nothing raises the air for
/// another picture either.
pub fn wet_session(studio: &Studio, plan: &Plan, planned: &PlannedStep) -> Option<WetSession> {
    let step = &studio.pictures[planned.picture].steps[planned.step];
    let first = planned.sittings.first()?;
    let wet = !step.kind.seals() && step.coat(&studio.materials).ok()?.is_some();
    let dry = studio.air.at(seconds(first.from)).humidity < DAMP_ENOUGH;
    let on = first.from - Duration::minutes(HUMIDIFIER_MIN);
    let wanted = wet && dry && step.hands_on_min >= LONG_MIN;
    (wanted && !clouds(studio, plan, (on, first.to))).then_some(WetSession { humidifier_on: on })
}

/// Whether a sealing coat, on or planned, is wet in the room in `from..to`, or laid within the hour after.
fn clouds(studio: &Studio, plan: &Plan, (from, to): (DateTime<Utc>, DateTime<Utc>)) -> bool {
    let laid = studio.pictures.iter().flat_map(|p| &p.steps).filter(|s| s.kind.seals());
    let laid = laid.filter_map(|s| s.laid_at.map(|at| (at, at)));
    let seals = |s: &&PlannedStep| studio.pictures[s.picture].steps[s.step].kind.seals();
    let planned = plan.steps.iter().filter(seals).flat_map(|s| &s.sittings);
    laid.chain(planned.map(|s| (s.from, s.to))).any(|(begun, on)| {
        begun - Duration::minutes(BEFORE_SEAL_MIN) < to
            && on + Duration::minutes(SEAL_WET_MIN) > from
    })
}
