//! The room's air over time.

use crate::quantity::{AirSpeed, Celsius, OutOfRange, RelativeHumidity};

/// The air at one moment. Made by [`Air::try_new`], so its numbers are inside their ranges.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Air {
    /// Temperature [C].
    pub celsius: f64,
    /// Relative humidity, fraction of 1.
    pub humidity: f64,
    /// Speed over the picture [m/s].
    pub speed_m_s: f64,
}

impl Air {
    /// Air at `celsius`, relative humidity `humidity` (fraction) and `speed_m_s`.
    ///
    /// # Errors
    /// [`OutOfRange`] naming the quantity that does not fit.
    ///
    /// ```
    /// use ulvek_core::air::Air;
    /// assert!(Air::try_new(21.0, 0.5, 0.15).is_ok());
    /// assert!(Air::try_new(21.0, 1.4, 0.15).is_err());
    /// ```
    pub fn try_new(celsius: f64, humidity: f64, speed_m_s: f64) -> Result<Self, OutOfRange> {
        Ok(Self {
            celsius: Celsius::try_new(celsius)?.get(),
            humidity: RelativeHumidity::try_new(humidity)?.get(),
            speed_m_s: AirSpeed::try_new(speed_m_s)?.get(),
        })
    }
}

/// Air as a step function of time: each reading stands until the next one, the base air before
/// the first. Times are seconds on the axis of the caller.
#[derive(Debug, Clone, PartialEq)]
pub struct AirSeries {
    base: Air,
    readings: Vec<(f64, Air)>,
}

impl AirSeries {
    /// The same air at all times.
    pub fn constant(air: Air) -> Self {
        Self { base: air, readings: Vec::new() }
    }

    /// The air of `base` until the first of `readings` (time [s], air), which are sorted here.
    pub fn new(base: Air, mut readings: Vec<(f64, Air)>) -> Self {
        readings.sort_by(|a, b| a.0.total_cmp(&b.0));
        Self { base, readings }
    }

    /// The readings in order of time.
    pub fn readings(&self) -> &[(f64, Air)] {
        &self.readings
    }

    /// The air before the first reading: how the room is usually kept.
    pub const fn usual(&self) -> &Air {
        &self.base
    }

    /// This series with `readings` in place of its own from the first of them on. After the last
    /// one, which stands for as long as the one before it, the room is as it is usually kept.
    /// Without any, it is so from `from` [s] on.
    pub fn replaced_from(&self, from: f64, mut readings: Vec<(f64, Air)>) -> Self {
        readings.sort_by(|a, b| a.0.total_cmp(&b.0));
        let begins = readings.first().map_or(from, |(t, _)| *t);
        let last = match readings[..] {
            [.., (before, _), (last, _)] => 2.0 * last - before,
            [(only, _)] => only + 3600.0,
            [] => from,
        };
        readings.push((last, self.base));
        let kept = self.readings.iter().filter(|(t, _)| *t < begins).copied();
        Self { base: self.base, readings: kept.chain(readings).collect() }
    }

    /// This series with `readings` in place of its own within their span, and nowhere else. The last
    /// one stands for as long as the one before it; then what was known goes on.
    pub fn replaced_within(&self, mut readings: Vec<(f64, Air)>) -> Self {
        readings.sort_by(|a, b| a.0.total_cmp(&b.0));
        let (Some((first, _)), Some((last, _))) = (readings.first(), readings.last()) else {
            return self.clone();
        };
        let (first, last) = (*first, *last);
        let stands = match readings[..] {
            [.., (before, _), (last, _)] => last - before,
            _ => 3600.0,
        };
        let end = last + stands;
        let next = self.next_change(last).filter(|next| *next <= end);
        if next.is_none() {
            readings.push((end, *self.at(end)));
        }
        let before = self.readings.iter().filter(|(t, _)| *t < first).copied();
        let after = self.readings.iter().filter(|(t, _)| *t > last).copied();
        let mut all: Vec<(f64, Air)> = before.chain(after).chain(readings).collect();
        all.sort_by(|a, b| a.0.total_cmp(&b.0));
        Self { base: self.base, readings: all }
    }

    /// The air at time `t` [s].
    pub fn at(&self, t: f64) -> &Air {
        match self.readings.partition_point(|(at, _)| *at <= t) {
            0 => &self.base,
            n => &self.readings[n - 1].1,
        }
    }

    /// The first time after `t` [s] at which another reading begins.
    pub fn next_change(&self, t: f64) -> Option<f64> {
        let n = self.readings.partition_point(|(at, _)| *at <= t);
        self.readings.get(n).map(|(at, _)| *at)
    }
}
