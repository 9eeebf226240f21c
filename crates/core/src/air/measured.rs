//! What a thermo-hygrometer sends: what of it is believed, and the hours it makes.
//!
//! | rival | weakness |
//! |---|---|
//! | mean of the hour | one glitch of a sensor moves it |
//! | a limit on the step between two readings | a window that is opened is a step too |
//! | median filter of Hampel | taken: a lone reading is left out, a change that stays is kept |

use crate::time::HOUR_S;
use statrs::statistics::{Data, OrderStatistics};

/// A reading of a thermo-hygrometer.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Measured {
    /// When it was taken [s of the epoch].
    pub at: f64,
    /// Temperature [C].
    pub celsius: f64,
    /// Relative humidity, fraction of 1.
    pub humidity: f64,
}

/// Why a reading is not believed.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Doubt {
    /// It stands alone, far from those before and after it.
    Jump,
    /// It and those around it are the same to the last digit for longer than air ever is.
    Stuck,
}

/// Readings on each side that one is compared with. [practice] a glitch lasts less than five minutes
const BESIDE: usize = 5;
/// Deviations, in robust standard deviations, from which on a reading is left out [-]; Hampel's
/// identifier: Davies and Gather, J. Am. Stat. Assoc. 88 (1993) 782
const FAR: f64 = 3.0;
/// Median absolute deviation of a normal distribution in its standard deviation [-]; as above
const NORMAL: f64 = 1.4826;
/// Deviations below which no reading is left out, however quiet the room: temperature [K] and
/// humidity [-]. [practice] what a small sensor scatters
const QUIET: (f64, f64) = (1.0, 0.04);
/// Time after which readings that never change are not believed [s]. [practice]
const STUCK_S: f64 = 6.0 * HOUR_S;
/// Readings that such a stretch has at least. [practice] a device that sends hourly may repeat itself
const STUCK_READINGS: usize = 12;

/// Judges `readings` of one instrument, which are in order of time.
pub fn doubts(readings: &[Measured]) -> Vec<Option<Doubt>> {
    let mut found: Vec<Option<Doubt>> = (0..readings.len())
        .map(|n| {
            let near = &readings[n.saturating_sub(BESIDE)..(n + BESIDE + 1).min(readings.len())];
            let far = |of: fn(&Measured) -> f64, quiet: f64| {
                let values: Vec<f64> = near.iter().map(of).collect();
                let middle = median(values.clone());
                let spread = median(values.iter().map(|v| (v - middle).abs()).collect());
                let limit = (FAR * NORMAL * spread).max(quiet);
                // Three readings at least tell which one stands alone.
                near.len() > 2 && (of(&readings[n]) - middle).abs() > limit
            };
            let jumps = far(|m| m.celsius, QUIET.0) || far(|m| m.humidity, QUIET.1);
            jumps.then_some(Doubt::Jump)
        })
        .collect();
    let mut begin = 0;
    for run in readings.chunk_by(|a, b| a.celsius == b.celsius && a.humidity == b.humidity) {
        let long = run[run.len() - 1].at - run[0].at >= STUCK_S;
        if long && run.len() >= STUCK_READINGS {
            found[begin..begin + run.len()].fill(Some(Doubt::Stuck));
        }
        begin += run.len();
    }
    found
}

/// An hour of the room as it was measured.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct MeasuredHour {
    /// When it begins [s of the epoch], a full hour.
    pub at: f64,
    /// Median temperature [C].
    pub celsius: f64,
    /// Median relative humidity, fraction of 1.
    pub humidity: f64,
    /// Readings that it is made of.
    pub readings: u32,
    /// Readings that were left out.
    pub left_out: u32,
}

/// Changes of an hour that goes on which are worth working the plan out anew: temperature [K] and
/// humidity [-]. [practice] less than the hygrometer's own error
const WORTH: (f64, f64) = (0.5, 0.02);

impl MeasuredHour {
    /// Whether the plan is worked out anew when this hour takes the place of what was `known` of it.
    /// One that is over does whatever it changed.
    pub fn is_news(&self, known: Option<&Self>, over: bool) -> bool {
        known.is_none_or(|known| {
            let (warmer, damper) = (self.celsius - known.celsius, self.humidity - known.humidity);
            let moved = warmer.abs() >= WORTH.0 || damper.abs() >= WORTH.1;
            moved || (over && (self.celsius, self.humidity) != (known.celsius, known.humidity))
        })
    }
}

/// Makes hours of readings that were judged, of one or more instruments; an hour of which nothing is
/// believed is not known.
pub fn hours_of(
    readings: impl IntoIterator<Item = (Measured, Option<Doubt>)>,
) -> Vec<MeasuredHour> {
    let mut all: Vec<(Measured, Option<Doubt>)> = readings.into_iter().collect();
    all.sort_by(|a, b| a.0.at.total_cmp(&b.0.at));
    let hour = |m: &Measured| (m.at / HOUR_S).floor();
    all.chunk_by(|a, b| hour(&a.0) == hour(&b.0))
        .filter_map(|within| {
            let kept = || within.iter().filter(|(_, doubt)| doubt.is_none()).map(|(m, _)| m);
            let count = kept().count();
            (count > 0).then(|| MeasuredHour {
                at: hour(&within[0].0) * HOUR_S,
                celsius: median(kept().map(|m| m.celsius).collect()),
                humidity: median(kept().map(|m| m.humidity).collect()),
                readings: count as u32,
                left_out: (within.len() - count) as u32,
            })
        })
        .collect()
}

/// How far around a reading that was typed it is compared [s]. [practice]
const AROUND_S: f64 = 900.0;
/// Differences from which on a hygrometer is off: temperature [K] and humidity [-]. [practice] the
/// error that is given for small sensors
const OFF: (f64, f64) = (1.0, 0.03);

/// How much warmer [K] and damper [-] an instrument measured than what was read by hand, `typed`, at
/// that time, where that is more than two honest readings differ.
pub fn off_by(measured: &[Measured], typed: &Measured) -> Option<(f64, f64)> {
    let near = || measured.iter().filter(|m| (m.at - typed.at).abs() <= AROUND_S);
    near().next()?;
    let warmer = median(near().map(|m| m.celsius).collect()) - typed.celsius;
    let damper = median(near().map(|m| m.humidity).collect()) - typed.humidity;
    (warmer.abs() > OFF.0 || damper.abs() > OFF.1).then_some((warmer, damper))
}

/// The middle one of `values`, or between the two in the middle; no number of none.
fn median(values: Vec<f64>) -> f64 {
    Data::new(values).median()
}

#[cfg(test)]
mod tests {
    use super::*;

    fn minutes(n: usize, of: impl Fn(usize) -> (f64, f64)) -> Vec<Measured> {
        let one = |m: usize| {
            let (celsius, humidity) = of(m);
            Measured { at: 7200.0 + 60.0 * m as f64, celsius, humidity }
        };
        (0..n).map(one).collect()
    }

    fn judged(readings: &[Measured]) -> Vec<MeasuredHour> {
        hours_of(readings.iter().copied().zip(doubts(readings)))
    }

    #[test]
    fn a_glitch_is_left_out_and_a_window_that_is_opened_is_not() {
        let scatter = |m: usize| 0.1 * ((m * 7) % 3) as f64;
        let glitch = minutes(60, |m| (20.0 + scatter(m), if m == 30 { 0.99 } else { 0.45 }));
        let hour = judged(&glitch)[0];
        assert_eq!((hour.at, hour.readings, hour.left_out), (7200.0, 59, 1));
        assert_eq!(hour.humidity, 0.45);
        let window = minutes(60, |m| (if m < 20 { 20.0 } else { 14.0 } + scatter(m), 0.45));
        let hour = judged(&window)[0];
        assert_eq!(hour.left_out, 0, "a change that stays is none");
        assert!(hour.celsius < 14.3, "{hour:?}");
    }

    #[test]
    fn a_sensor_that_sticks_is_believed_no_longer() {
        let stuck =
            minutes(
                8 * 60,
                |m| if m < 30 { (20.0 + 0.1 * (m % 2) as f64, 0.5) } else { (19.3, 0.47) },
            );
        let hours = judged(&stuck);
        assert_eq!(hours.len(), 1, "only the half hour before is known: {hours:?}");
        assert_eq!((hours[0].readings, hours[0].left_out), (30, 30));
        let quiet = minutes(5 * 60, |_| (19.3, 0.47));
        assert_eq!(judged(&quiet).len(), 5, "five quiet hours may be");
    }
}
