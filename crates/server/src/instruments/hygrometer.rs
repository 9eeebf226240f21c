//! A thermo-hygrometer that is not there: an invented room, and the faults that real ones have.

use chrono::{DateTime, Utc};
use rand::{Rng, SeedableRng};
use rand_pcg::Pcg64Mcg;
use serde::{Deserialize, Serialize};
use ulvek_core::air::{Air, Measured};
use ulvek_core::time::{DAY_S, HOUR_S, seconds};

/// How a simulated instrument behaves.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum Behaviour {
    /// As it should.
    Works,
    /// It sends nothing.
    DropsOut,
    /// It sends the same for ever.
    Sticks,
    /// Now and then it sends what cannot be.
    Jumps,
    /// It tells of more and more humidity than there is.
    Drifts,
}

impl Behaviour {
    /// Every one with its word.
    pub const WORDS: &'static [(&'static str, Self)] = &[
        ("works", Self::Works),
        ("drops_out", Self::DropsOut),
        ("sticks", Self::Sticks),
        ("jumps", Self::Jumps),
        ("drifts", Self::Drifts),
    ];

    /// What painters call it.
    pub const fn said(self) -> &'static str {
        match self {
            Self::Works => "works",
            Self::DropsOut => "drops out",
            Self::Sticks => "sticks",
            Self::Jumps => "jumps",
            Self::Drifts => "drifts",
        }
    }

    /// The one of a word.
    pub fn from_word(word: &str) -> Option<Self> {
        Self::WORDS.iter().find(|(w, _)| *w == word).map(|(_, case)| *case)
    }

    /// Its word.
    pub fn word(self) -> &'static str {
        Self::WORDS.iter().find(|(_, case)| *case == self).map_or("works", |(word, _)| word)
    }
}

/// How far the room swings by day: temperature [K] and humidity [-]. Invented.
const SWING: (f64, f64) = (0.9, 0.04);
/// Scatter of the sensor: temperature [K] and humidity [-]. [practice] a small sensor
const SCATTER: (f64, f64) = (0.15, 0.006);
/// Every how many minutes one that jumps does. Invented.
const JUMPS_EVERY: i64 = 13;
/// What a jump adds to the temperature [K], and the humidity it tells [-]. Invented.
const JUMP: (f64, f64) = (18.0, 0.999);
/// How much damper one that drifts tells of each hour [1/h]. Invented, far faster than a real one.
const DRIFT_PER_H: f64 = 0.01;

/// What a hygrometer that behaves so `since` then sends at `at` in a room that is usually like that.
pub fn measure(
    usual: &Air,
    (behaves, since): (Behaviour, DateTime<Utc>),
    at: DateTime<Utc>,
) -> Option<Measured> {
    let (mut t, from) = (seconds(at), seconds(since));
    let minute = (t / 60.0).floor() as i64;
    if behaves == Behaviour::Sticks {
        t = t.min(from);
    }
    // Warmest and driest at three in the afternoon.
    let day = (std::f64::consts::TAU * (t / DAY_S - 15.0 / 24.0)).cos();
    let mut celsius = usual.celsius + SWING.0 * day + SCATTER.0 * scatter(t, 1);
    let mut humidity = usual.humidity - SWING.1 * day + SCATTER.1 * scatter(t, 2);
    match behaves {
        Behaviour::DropsOut if t >= from => return None,
        Behaviour::Jumps if t >= from && minute % JUMPS_EVERY == 0 => {
            (celsius, humidity) = (celsius + JUMP.0, JUMP.1);
        }
        Behaviour::Drifts => humidity += DRIFT_PER_H * ((t - from) / HOUR_S).max(0.0),
        _ => {}
    }
    let humidity = (humidity.clamp(0.0, 1.0) * 1000.0).round() / 1000.0;
    Some(Measured { at: seconds(at), celsius: (celsius * 10.0).round() / 10.0, humidity })
}

/// From -1 to 1, the same for the same minute whenever it is asked.
fn scatter(t: f64, of: u64) -> f64 {
    let minute = (t / 60.0).floor() as u64;
    Pcg64Mcg::seed_from_u64(minute.wrapping_mul(2).wrapping_add(of)).random_range(-1.0..=1.0)
}

#[cfg(test)]
mod tests {
    use super::*;
    use chrono::TimeDelta;
    use ulvek_core::air::{Doubt, doubts};

    #[test]
    fn each_fault_is_found_for_what_it_is() {
        let usual = Air::try_new(20.4, 0.47, 0.15).unwrap();
        let since = DateTime::from_timestamp(1_800_000_000, 0).unwrap();
        let day = |behaves| {
            let at = |m| measure(&usual, (behaves, since), since + TimeDelta::minutes(m));
            (0..600).filter_map(at).collect::<Vec<_>>()
        };
        assert!(doubts(&day(Behaviour::Works)).iter().all(Option::is_none));
        assert_eq!(day(Behaviour::DropsOut), []);
        assert!(doubts(&day(Behaviour::Sticks)).iter().all(|d| *d == Some(Doubt::Stuck)));
        let jumps = doubts(&day(Behaviour::Jumps)).iter().filter(|d| d.is_some()).count();
        assert!((46..=47).contains(&jumps), "each jump and nothing else: {jumps}");
        assert!(
            day(Behaviour::Drifts).last().unwrap().humidity > 0.5,
            "nothing tells a drift alone"
        );
    }
}
