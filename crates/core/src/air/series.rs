//! The room's air over time.

use super::measured::MeasuredHour;
use super::moment::{Air, RoomChange};
use super::origin::Origin;
use crate::quantity::{AirSpeed, Celsius, FIRST_DAY, RelativeHumidity};
use crate::time::{HOUR_S, seconds};
use chrono::NaiveTime;

/// Longest that a last reading stands, however far the one before it lies back [s]. [practice] a
/// room is another one after a day
const STANDS_S: f64 = 24.0 * HOUR_S;

/// How long after the last reading the room is as little known as it ever will be [s]: two days;
/// docs/model/drying.md.
const UNKNOWN_AFTER_S: f64 = 48.0 * HOUR_S;
/// Steps in which that grows. [practice]
const RAMP: u32 = 4;

/// How the air of one future deviates from what is expected.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Deviation {
    /// How much warmer it is [K].
    pub warmer_k: f64,
    /// How much damper, in relative humidity [-].
    pub damper: f64,
    /// How many times as fast [-].
    pub faster: f64,
}

impl Deviation {
    /// Air that deviates by `share` of it in temperature and humidity, within what can be.
    fn of(&self, air: &Air, share: f64) -> Air {
        let (c, rh, speed) = (Celsius::RANGE, RelativeHumidity::RANGE, AirSpeed::RANGE);
        Air {
            celsius: (air.celsius + share * self.warmer_k).clamp(c.min, c.max),
            humidity: (air.humidity + share * self.damper).clamp(rh.min, rh.max),
            speed_m_s: (air.speed_m_s * self.faster).clamp(speed.min, speed.max),
        }
    }
}

/// Air as a step function of time: each reading stands until the next one, the last one for as long
/// as the one before it (an hour at least, a day at most); before the first and after the last the
/// room is as it is usually kept. Times are seconds on the axis of the caller.
#[derive(Debug, Clone, PartialEq)]
pub struct AirSeries {
    base: Air,
    readings: Vec<(f64, Air)>,
    /// Where each of them is from.
    origins: Vec<Origin>,
}

/// A reading and where it is from.
type Known = (f64, Air, Origin);

const fn known(origin: Origin) -> impl Fn((f64, Air)) -> Known {
    move |(t, air)| (t, air, origin)
}

impl AirSeries {
    /// The same air at all times.
    pub fn constant(air: Air) -> Self {
        Self { base: air, readings: Vec::new(), origins: Vec::new() }
    }

    /// The air of `base` until the first of `readings` (time [s], air), a table that was brought, which
    /// are sorted here. Of two at the same time the later one counts.
    pub fn new(base: Air, readings: Vec<(f64, Air)>) -> Self {
        Self::of(base, readings.into_iter().map(known(Origin::Table)).collect())
    }

    /// The same with a word on where each reading is from.
    pub fn of(base: Air, mut readings: Vec<(f64, Air, Origin)>) -> Self {
        readings.sort_by(|a, b| a.0.total_cmp(&b.0));
        readings.dedup_by(|later, kept| {
            let same = later.0 == kept.0;
            if same {
                *kept = *later;
            }
            same
        });
        let (readings, origins) = readings.into_iter().map(|(t, air, o)| ((t, air), o)).unzip();
        Self { base, readings, origins }
    }

    /// The readings in order of time.
    pub fn readings(&self) -> &[(f64, Air)] {
        &self.readings
    }

    /// The readings with where each is from.
    pub fn known(&self) -> impl Iterator<Item = (f64, Air, Origin)> + '_ {
        self.readings.iter().zip(&self.origins).map(|((t, air), origin)| (*t, *air, *origin))
    }

    /// Where the air at time `t` [s] is from.
    pub fn origin(&self, t: f64) -> Origin {
        self.place(t).map_or(Origin::Usual, |n| self.origins[n])
    }

    /// Until when an instrument measured it [s]. One reading that was typed tells too little of a room to
    /// make its future surer.
    pub fn measured_until(&self) -> Option<f64> {
        let last = self.origins.iter().rposition(|o| *o == Origin::Measured)?;
        self.readings.get(last + 1).map(|(t, _)| *t).or_else(|| self.end())
    }

    /// The air before the first reading: how the room is usually kept.
    pub const fn usual(&self) -> &Air {
        &self.base
    }

    /// This series with `readings` in place of its own from the first of them on. After the last
    /// one, which stands for as long as the one before it, the room is as it is usually kept.
    /// Without any, it is so from `from` [s] on.
    pub fn replaced_from(&self, from: f64, mut readings: Vec<(f64, Air)>, origin: Origin) -> Self {
        readings.sort_by(|a, b| a.0.total_cmp(&b.0));
        let begins = readings.first().map_or(from, |(t, _)| *t);
        let last = match readings[..] {
            [.., (before, _), (last, _)] => 2.0 * last - before,
            [(only, _)] => only + HOUR_S,
            [] => from,
        };
        let end = (last, self.base, Origin::Usual);
        let readings = readings.into_iter().map(known(origin)).chain([end]);
        Self::of(self.base, self.known_before(begins).chain(readings).collect())
    }

    /// The readings before `at` [s]; where the last of them ends before that, the usual room is said
    /// after it, so that more readings do not make it stand longer than it did.
    fn known_before(&self, at: f64) -> impl Iterator<Item = Known> + '_ {
        let ended = self.end().filter(|end| *end < at);
        let ended = ended.map(|end| (end, self.base, Origin::Usual));
        self.known().filter(move |(t, ..)| *t < at).chain(ended)
    }

    /// This series with `readings` in place of its own within their span, and nowhere else. The last
    /// one stands for as long as the one before it; then what was known goes on.
    pub fn replaced_within(&self, mut readings: Vec<(f64, Air)>, origin: Origin) -> Self {
        readings.sort_by(|a, b| a.0.total_cmp(&b.0));
        let (Some((first, _)), Some((last, _))) = (readings.first(), readings.last()) else {
            return self.clone();
        };
        let (first, last) = (*first, *last);
        let stands = match readings[..] {
            [.., (before, _), (last, _)] => last - before,
            _ => HOUR_S,
        };
        let end = last + stands;
        let next = self.next_change(last).filter(|next| *next <= end);
        let goes_on = next.is_none().then(|| (end, *self.at(end), self.origin(end)));
        let before = self.known_before(first);
        let after = self.known().filter(|(t, ..)| *t > last);
        let readings = readings.into_iter().map(known(origin)).chain(goes_on);
        Self::of(self.base, before.chain(after).chain(readings).collect())
    }

    /// This series without what was read by hand, typed or brought, from `from` [s] on and before
    /// `to`: there the room is as it is usually kept.
    #[must_use]
    pub fn without(&self, from: f64, to: f64) -> Self {
        let by_hand = |o: Origin| matches!(o, Origin::Table | Origin::Typed);
        if !self.known().any(|(t, _, o)| by_hand(o) && (from..to).contains(&t)) {
            return self.clone();
        }
        let readings = self.known().filter(|(t, _, o)| !(by_hand(*o) && (from..to).contains(t)));
        let mut kept: Vec<Known> = readings.collect();
        // Where one was that is gone, nothing goes on standing in its place.
        for (t, _, o) in self.known() {
            if by_hand(o) && (from..to).contains(&t) {
                kept.push((t, self.base, Origin::Usual));
            }
        }
        kept.extend(self.end().map(|end| (end, self.base, Origin::Usual)));
        Self::of(self.base, kept)
    }

    /// This series with whole hours that were measured in their places; the air is as fast as it
    /// usually is.
    #[must_use]
    pub fn measured(&self, hours: &[MeasuredHour]) -> Self {
        hours.chunk_by(|a, b| b.at - a.at == HOUR_S).fold(self.clone(), |series, run| {
            let air = |h: &MeasuredHour| {
                (h.at, Air { celsius: h.celsius, humidity: h.humidity, ..self.base })
            };
            series.replaced_within(run.iter().map(air).collect(), Origin::Measured)
        })
    }

    /// This series with another air where no reading is known.
    #[must_use]
    pub fn kept_at(&self, usual: Air) -> Self {
        Self { base: usual, ..self.clone() }
    }

    /// This series with `change` made to the room from `at` [s] on; what is past stays as it was, and
    /// the room is kept like that from then on.
    #[must_use]
    pub fn changed_from(&self, at: f64, change: &RoomChange) -> Self {
        self.mapped_from(at, |air| change.of(air))
    }

    /// The same with any change of the air.
    #[must_use]
    pub fn mapped_from(&self, at: f64, change: impl Fn(&Air) -> Air) -> Self {
        let past = self.known_before(at);
        // Before the first reading the room was as it was usually kept: that is past too.
        let long_ago = seconds(FIRST_DAY.and_time(NaiveTime::MIN).and_utc());
        let unknown = self.readings.first().is_none_or(|(t, _)| *t > long_ago);
        let begin = (unknown && at > long_ago).then_some((long_ago, self.base, Origin::Usual));
        let ahead = self.known().filter(|(t, ..)| *t > at);
        let ahead = ahead.map(|(t, air, origin)| (t, change(&air), origin));
        let end = self.end().filter(|end| *end > at);
        let end = end.map(|end| (end, change(&self.base), Origin::Usual));
        let now = [(at, change(self.at(at)), self.origin(at))];
        let readings = begin.into_iter().chain(past).chain(now).chain(ahead).chain(end);
        Self::of(change(&self.base), readings.collect())
    }

    /// This series as it might be: everywhere with other air speed, and with another temperature and
    /// humidity in what is not known. That begins at `known` [s], grows from nothing within
    /// [`UNKNOWN_AFTER_S`], and is there at all times in a room that was never measured.
    #[must_use]
    pub fn deviating(&self, known: Option<f64>, by: &Deviation) -> Self {
        let Some(known) = known else {
            let at = |(t, air): &(f64, Air)| (*t, by.of(air, 1.0));
            let readings = self.readings.iter().map(at).collect();
            return Self { base: by.of(&self.base, 1.0), readings, origins: self.origins.clone() };
        };
        let ramp = UNKNOWN_AFTER_S / f64::from(RAMP);
        let share = |t: f64| match ((t - known) / ramp).floor() {
            step if step < 0.0 => 0.0,
            step => ((step + 0.5) / f64::from(RAMP)).min(1.0),
        };
        let knots = (0..=RAMP).map(|k| known + f64::from(k) * ramp);
        let long_ago = [seconds(FIRST_DAY.and_time(NaiveTime::MIN).and_utc())];
        let readings = self.readings.iter().map(|(t, _)| *t);
        let mut times: Vec<f64> =
            long_ago.into_iter().chain(readings).chain(self.end()).chain(knots).collect();
        times.sort_by(f64::total_cmp);
        times.dedup();
        let last = known + UNKNOWN_AFTER_S;
        let there = |t: f64| by.of(self.at(t), if t >= last { 1.0 } else { share(t) });
        let origins = times.iter().map(|t| self.origin(*t)).collect();
        let readings = times.into_iter().map(|t| (t, there(t))).collect();
        Self { base: by.of(&self.base, 1.0), readings, origins }
    }

    /// The same with readings no closer than `least_s` [s]: enough for futures that are drawn.
    #[must_use]
    pub fn thinned(&self, least_s: f64) -> Self {
        let mut kept: Vec<Known> = Vec::new();
        let last = self.readings.len().saturating_sub(1);
        for (n, reading) in self.known().enumerate() {
            if n == last || kept.last().is_none_or(|(t, ..)| reading.0 - t >= least_s) {
                kept.push(reading);
            }
        }
        // What the last one stands for must not grow with the gap before it.
        kept.extend(self.end().map(|end| (end, self.base, Origin::Usual)));
        Self::of(self.base, kept)
    }

    /// The air at time `t` [s].
    pub fn at(&self, t: f64) -> &Air {
        self.place(t).map_or(&self.base, |n| &self.readings[n].1)
    }

    /// The reading that stands at time `t` [s].
    fn place(&self, t: f64) -> Option<usize> {
        let n = self.readings.partition_point(|(at, _)| *at <= t).checked_sub(1)?;
        let over = n + 1 == self.readings.len() && self.end().is_some_and(|end| end <= t);
        (!over).then_some(n)
    }

    /// The first time after `t` [s] at which another reading begins, or the last one ends.
    pub fn next_change(&self, t: f64) -> Option<f64> {
        let n = self.readings.partition_point(|(at, _)| *at <= t);
        // A reading that says the same again changes nothing: a film need not stop at it.
        let now = self.at(t);
        let next = self.readings[n..].iter().find(|(_, air)| air != now).map(|(at, _)| *at);
        next.or_else(|| self.end().filter(|end| *end > t))
    }

    /// The last of those times that is not after `t` [s].
    pub fn last_change(&self, t: f64) -> Option<f64> {
        let over = self.end().filter(|end| *end <= t);
        over.or_else(|| {
            let n = self.readings.partition_point(|(at, _)| *at <= t);
            let was = |k: usize| k.checked_sub(1).map_or(&self.base, |k| &self.readings[k].1);
            let changes = (0..n).rev().find(|k| self.readings[*k].1 != *was(*k));
            changes.map(|k| self.readings[k].0)
        })
    }

    /// From when [s] the air is never again drier than relative `humidity` [-], and how dry it is then at most;
    /// nothing where the room is usually kept drier.
    pub fn stays_damp(&self, humidity: f64) -> Option<(f64, f64)> {
        if self.base.humidity < humidity {
            return None;
        }
        let dry = self.readings.iter().rposition(|(_, air)| air.humidity < humidity);
        let after = dry.map_or(&self.readings[..], |n| &self.readings[n + 1..]);
        let from = match (dry, after.first()) {
            (None, _) => f64::NEG_INFINITY,
            (Some(_), Some((next, _))) => *next,
            (Some(_), None) => self.end()?,
        };
        let air = after.iter().map(|(_, air)| air.humidity);
        Some((from, air.fold(self.base.humidity, f64::min)))
    }

    /// Until when the last reading stands [s]; what comes after is not known.
    pub fn end(&self) -> Option<f64> {
        match self.readings[..] {
            [.., (before, _), (last, _)] => Some(last + (last - before).clamp(HOUR_S, STANDS_S)),
            [(only, _)] => Some(only + HOUR_S),
            [] => None,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn air(celsius: f64) -> Air {
        Air::try_new(celsius, 0.5, 0.15).unwrap()
    }

    #[test]
    fn after_the_last_reading_the_room_is_as_it_is_usually_kept() {
        // Four cold hours in January do not make a cold year.
        let hours = |n: i32| (0..n).map(|h| (f64::from(h) * 3600.0, air(5.0))).collect();
        let series = AirSeries::new(air(21.0), hours(4));
        assert_eq!(series.at(3.99 * 3600.0).celsius, 5.0);
        assert_eq!(series.at(4.0 * 3600.0).celsius, 21.0);
        assert_eq!(series.next_change(3.5 * 3600.0), Some(4.0 * 3600.0));
        assert_eq!(series.next_change(4.0 * 3600.0), None);
        assert_eq!(AirSeries::new(air(21.0), hours(1)).at(3600.0).celsius, 21.0);
    }

    #[test]
    fn a_room_that_is_changed_keeps_its_past() {
        // A heater that is switched on today has not dried last month's coat.
        let warmer = RoomChange { warmer_k: 3.0, ..RoomChange::default() };
        for series in [
            AirSeries::constant(air(20.0)),
            AirSeries::new(air(20.0), vec![(1e9, air(16.0)), (3e9, air(17.0))]),
        ] {
            let changed = series.changed_from(2e9, &warmer);
            for t in [9.5e8, 1e9, 1.5e9, 2e9 - 1.0] {
                assert_eq!(changed.at(t), series.at(t), "{t}");
            }
            for t in [2e9, 2.5e9, 3e9, 3e9 + 80_000.0, 3e9 + 90_000.0, 4e9] {
                assert_eq!(changed.at(t).celsius, series.at(t).celsius + 3.0, "{t}");
            }
            assert_eq!(changed.usual().celsius, 23.0);
        }
    }

    #[test]
    fn what_is_known_does_not_deviate_and_what_is_to_come_does_within_two_days() {
        let by = Deviation { warmer_k: -2.0, damper: 0.1, faster: 0.5 };
        let hours = (0..4).map(|h| (1e9 + f64::from(h) * 3600.0, air(18.0))).collect();
        let series = AirSeries::new(air(20.0), hours);
        let known = series.end().unwrap();
        let off = |t: f64| series.deviating(Some(known), &by).at(t).celsius - series.at(t).celsius;
        for past in [1e9 - 5.0, 1e9, known - 1.0] {
            assert_eq!(off(past), 0.0, "{past}");
        }
        let grows: Vec<f64> = (0..6).map(|k| off(known + f64::from(k) * 43_200.0)).collect();
        assert!(grows.windows(2).all(|pair| pair[1] <= pair[0]) && grows[0] < 0.0, "{grows:?}");
        assert_eq!(
            grows[4..],
            [-2.0, -2.0],
            "two days after the last reading, docs/model/drying.md"
        );
        let deviated = series.deviating(Some(known), &by);
        assert_eq!(deviated.at(1e9).speed_m_s, 0.075, "the air is as fast at all times");
        // A room that was never measured is no surer in its past.
        assert_eq!(AirSeries::constant(air(20.0)).deviating(None, &by).at(0.0).celsius, 18.0);
    }

    #[test]
    fn a_thinned_series_keeps_day_and_night_and_ends_when_it_ended() {
        let reading = |h: i32| (f64::from(h) * 3600.0, air(if h % 24 < 12 { 18.0 } else { 22.0 }));
        let series = AirSeries::new(air(20.0), (0..72).map(reading).collect());
        let thin = series.thinned(6.0 * 3600.0);
        assert!(thin.readings().len() <= 15, "{}", thin.readings().len());
        for h in [3.0, 15.0, 27.0, 39.0, 71.5, 72.5, 200.0] {
            assert_eq!(thin.at(h * 3600.0), series.at(h * 3600.0), "{h} h");
        }
    }
}
