//! Air that is fit for varnish, and what would make other air fit.

use crate::air::{Air, saturation_pressure_pa, vapour_concentration_kg_m3};
use crate::readiness::{AirFault, DAMPEST, DRIEST, WARM, air_faults};
use crate::studio::Studio;
use crate::time::{instant, minutes_between, seconds};
use chrono::{DateTime, Duration, DurationRound, NaiveDate, Utc};

/// Temperature a cold room is heated to [C]. [practice]
const HEAT_TO_C: f64 = 20.0;
/// Temperature a hot room is cooled to [C]. [practice]
const COOL_TO_C: f64 = 23.0;
/// Humidity that heating alone must reach [-]. [practice]
const WARMED_TO: f64 = 0.62;
/// Humidity aimed at from above [-], with room for the meter's error. [practice]
const DRY_TO: f64 = 0.60;
/// Humidity aimed at from below [-]. [practice]
const DAMPEN_TO: f64 = 0.40;

/// Something done to the room's air.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Action {
    /// Heat it to [C].
    Heat(f64),
    /// Let it cool to [C].
    Cool(f64),
    /// Take water out of it [g/m3], down to a relative humidity [-].
    Dehumidify(f64, f64),
    /// Give water to it [g/m3], up to a relative humidity [-].
    Humidify(f64, f64),
}

impl std::fmt::Display for Action {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        match self {
            Self::Heat(c) => write!(f, "heating to {c:.0} °C"),
            Self::Cool(c) => write!(f, "letting it cool to {c:.0} °C"),
            Self::Dehumidify(g, rh) => {
                write!(f, "a dehumidifier to {:.0} % ({g:.1} g/m³ of water out)", rh * 100.0)
            }
            Self::Humidify(g, rh) => {
                write!(f, "a humidifier to {:.0} % ({g:.1} g/m³ of water in)", rh * 100.0)
            }
        }
    }
}

/// What makes unfit air fit, and the air then.
#[derive(Debug, Clone, PartialEq)]
pub struct Remedy {
    /// What to do, in order.
    pub actions: Vec<Action>,
    /// The air afterwards.
    pub after: Air,
}

impl std::fmt::Display for Remedy {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        let actions: Vec<String> = self.actions.iter().map(ToString::to_string).collect();
        f.write_str(&actions.join(", then "))
    }
}

/// Air at another temperature with the water it holds: its vapour pressure stays.
fn at_temperature(air: &Air, celsius: f64) -> Air {
    let vapour = air.humidity * saturation_pressure_pa(air.celsius);
    Air { celsius, humidity: (vapour / saturation_pressure_pa(celsius)).min(1.0), ..*air }
}

/// Ways to make `air` fit for varnish; none when it is. Heating alone comes first where it is
/// enough, since it needs no machine.
pub fn remedies(air: &Air) -> Vec<Remedy> {
    if air_faults(air).is_empty() {
        return Vec::new();
    }
    let mut found = Vec::new();
    if air.humidity > DAMPEST && air.celsius <= *WARM.end() {
        // Whole degrees: that is what a thermostat is turned by.
        let low = WARM.start().max(air.celsius).ceil() as i64;
        let warm = (low..=COOL_TO_C as i64)
            .map(|c| at_temperature(air, c as f64))
            .find(|warmed| warmed.humidity <= WARMED_TO && air_faults(warmed).is_empty());
        if let Some(after) = warm {
            found.push(Remedy { actions: vec![Action::Heat(after.celsius)], after });
        }
    }
    let mut actions = Vec::new();
    let mut after = *air;
    if air.celsius < *WARM.start() {
        after = at_temperature(air, HEAT_TO_C);
        actions.push(Action::Heat(HEAT_TO_C));
    } else if air.celsius > *WARM.end() {
        after = at_temperature(air, COOL_TO_C);
        actions.push(Action::Cool(COOL_TO_C));
    }
    let full = vapour_concentration_kg_m3(after.celsius) * 1000.0;
    if after.humidity > DAMPEST {
        actions.push(Action::Dehumidify((after.humidity - DRY_TO) * full, DRY_TO));
        after.humidity = DRY_TO;
    } else if after.humidity < DRIEST {
        actions.push(Action::Humidify((DAMPEN_TO - after.humidity) * full, DAMPEN_TO));
        after.humidity = DAMPEN_TO;
    }
    if !found.iter().any(|r| r.actions == actions) {
        found.push(Remedy { actions, after });
    }
    found
}

/// One hour of the room.
#[derive(Debug, Clone, PartialEq)]
pub struct GoodHour {
    /// When it begins.
    pub at: DateTime<Utc>,
    /// The air.
    pub air: Air,
    /// What keeps it from being fit for varnish.
    pub faults: Vec<AirFault>,
    /// Whether it begins within the studio's hours.
    pub open: bool,
}

/// The room hour by hour from the full hour before `from`, for `days` days.
pub fn good_hours(studio: &Studio, from: DateTime<Utc>, days: i64) -> Vec<GoodHour> {
    let start = from.duration_trunc(Duration::hours(1)).unwrap_or(from);
    let end = start + Duration::days(days);
    let sessions = studio.hours.sessions(start, end);
    (0..days * 24)
        .map(|h| {
            let at = start + Duration::hours(h);
            // An hour that a session cuts into counts as the painter's.
            let ends = at + Duration::hours(1);
            let air = *studio.air.at(seconds(at));
            GoodHour {
                at,
                air,
                faults: air_faults(&air),
                open: sessions.iter().any(|s| s.from < ends && s.to > at),
            }
        })
        .collect()
}

/// One day of the studio, judged for varnish.
#[derive(Debug, Clone, PartialEq)]
pub struct DayAir {
    /// The day.
    pub day: NaiveDate,
    /// Stretches within the studio's hours in which the air is fit.
    pub good: Vec<(DateTime<Utc>, DateTime<Utc>)>,
    /// Minutes of the studio's hours.
    pub open_min: f64,
    /// When nothing is good: what is wrong at the worst hour of the session, and what would help.
    pub fault: Option<AirFault>,
    /// Ways to make that hour fit.
    pub remedies: Vec<Remedy>,
}

/// How far `air` lies outside what varnish wants, in limits' widths; 0 when fit.
fn distance(air: &Air) -> f64 {
    let cold = (WARM.start() - air.celsius).max(0.0) + (air.celsius - WARM.end()).max(0.0);
    let damp = (air.humidity - DAMPEST).max(0.0) + (DRIEST - air.humidity).max(0.0);
    cold / (WARM.end() - WARM.start()) + damp / (DAMPEST - DRIEST)
}

/// The days that begin within `days` days of `from`, each judged for varnish.
pub fn varnish_days(studio: &Studio, from: DateTime<Utc>, days: i64) -> Vec<DayAir> {
    let first = studio.hours.day(from);
    (0..days).map(|n| one_day(studio, from, first + Duration::days(n))).collect()
}

fn one_day(studio: &Studio, from: DateTime<Utc>, day: NaiveDate) -> DayAir {
    let start = studio.hours.start_of(day).max(from);
    let sessions = studio.hours.sessions(start, studio.hours.end_of(day));
    let mut good: Vec<(DateTime<Utc>, DateTime<Utc>)> = Vec::new();
    let mut worst: Option<(f64, Air)> = None;
    for session in &sessions {
        let (mut at, end) = (seconds(session.from), seconds(session.to));
        while at < end {
            let air = *studio.air.at(at);
            let next = studio.air.next_change(at).unwrap_or(end).min(end);
            let (a, b) = (instant(at), instant(next));
            if air_faults(&air).is_empty() {
                match good.last_mut() {
                    Some(last) if last.1 == a => last.1 = b,
                    _ => good.push((a, b)),
                }
            } else if worst.as_ref().is_none_or(|(far, _)| distance(&air) > *far) {
                worst = Some((distance(&air), air));
            }
            at = next;
        }
    }
    let open_min = sessions.iter().map(|s| minutes_between(s.from, s.to)).sum();
    let worst = worst.filter(|_| good.is_empty()).map(|(_, air)| air);
    DayAir {
        day,
        good,
        open_min,
        fault: worst.and_then(|air| air_faults(&air).first().copied()),
        remedies: worst.map(|air| remedies(&air)).unwrap_or_default(),
    }
}
