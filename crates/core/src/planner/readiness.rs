//! When a picture is ready for its next step: the film, and the floors of the schools.

use super::{Blocked, Wait, WaitReason};
use crate::film::{Composition, Film, FilmState, Grid, HORIZON_S};
use crate::picture::{Need, Picture};
use crate::studio::{StudioDocument, Waiting};
use chrono::{DateTime, Duration, TimeZone, Utc};

/// Shortest wait between two varnish coats [min]. [practice] an hour at least
const VARNISH_GAP_MIN: i64 = 60;

/// One picture while it is being planned.
pub(super) struct Bed<'a> {
    document: &'a StudioDocument,
    pub picture: &'a Picture,
    /// The film right after its last coat, and the same run ahead to find states.
    laid: Film,
    ahead: Film,
    /// When each step was, or will be, done.
    pub ends: Vec<Option<DateTime<Utc>>>,
    last_coat: Option<usize>,
    last_painted: Option<DateTime<Utc>>,
    slow: bool,
}

impl<'a> Bed<'a> {
    /// The picture with what is already laid on it.
    pub fn new(
        document: &'a StudioDocument,
        picture: &'a Picture,
    ) -> Result<Self, (usize, Blocked)> {
        let mut done: Vec<(DateTime<Utc>, usize)> = picture
            .steps
            .iter()
            .enumerate()
            .filter_map(|(i, s)| s.laid_at.map(|at| (at, i)))
            .collect();
        done.sort();
        let start = done.first().map_or(0.0, |(at, _)| seconds(*at));
        let film =
            Film::new(picture.absorbs_um * 1e-6, picture.shorter_side_m(), Grid::PLANNING, start);
        let mut bed = Self {
            document,
            picture,
            laid: film.clone(),
            ahead: film,
            ends: vec![None; picture.steps.len()],
            last_coat: None,
            last_painted: None,
            slow: false,
        };
        for (at, i) in done {
            bed.finish(i, at)?;
        }
        Ok(bed)
    }

    /// Marks step `i` as done at `at` and lays its coat, if it leaves one.
    pub fn finish(&mut self, i: usize, at: DateTime<Utc>) -> Result<(), (usize, Blocked)> {
        self.ends[i] = Some(at);
        let step = &self.picture.steps[i];
        let coat = self.document.coat(step).map_err(|e| (i, Blocked::Coat(e.to_string())))?;
        let Some((um, mix)) = coat else { return Ok(()) };
        self.lay(at, um, mix);
        self.last_coat = Some(i);
        if !step.kind.seals() {
            self.last_painted = Some(at);
            self.slow |= step.mix.iter().any(|part| {
                self.document.material(&part.material).is_some_and(|m| m.is_slow_paint())
            });
        }
        Ok(())
    }

    fn lay(&mut self, at: DateTime<Utc>, um: f64, mix: Composition) {
        let t = seconds(at);
        if self.ahead.time() <= t {
            self.laid = self.ahead.clone();
        }
        self.laid.advance(&self.document.air, t, None);
        self.laid.lay(um * 1e-6, mix);
        self.ahead = self.laid.clone();
    }

    /// When the film reaches `state`, if it does within the horizon.
    fn reaches(&mut self, state: FilmState) -> Option<DateTime<Utc>> {
        let until = self.laid.time() + HORIZON_S;
        self.ahead.advance(&self.document.air, until, Some(state));
        self.ahead.events().at(state).map(instant)
    }

    /// When a coat laid now at `at` would be touch-dry: until then it holds a flat place.
    pub fn touch_dry_after(&self, i: usize, at: DateTime<Utc>) -> Option<DateTime<Utc>> {
        let (um, mix) = self.document.coat(&self.picture.steps[i]).ok()??;
        let mut film =
            if self.ahead.time() <= seconds(at) { self.ahead.clone() } else { self.laid.clone() };
        film.advance(&self.document.air, seconds(at), None);
        film.lay(um * 1e-6, mix);
        film.advance(&self.document.air, seconds(at) + HORIZON_S, Some(FilmState::TouchDry));
        film.events().at(FilmState::TouchDry).map(instant)
    }

    /// Indices of steps that are not done while all they stand on is.
    pub fn open(&self) -> Vec<usize> {
        (0..self.ends.len())
            .filter(|i| self.ends[*i].is_none())
            .filter(|i| self.picture.stands_on(*i).iter().all(|below| self.ends[*below].is_some()))
            .collect()
    }

    /// From when step `i` may start, and why.
    pub fn ready(&mut self, i: usize) -> Result<(Option<DateTime<Utc>>, Option<Wait>), Blocked> {
        let below = self.picture.stands_on(i);
        let step = &self.picture.steps[i];
        let need = self.picture.needs(i);
        let ended = below.iter().filter_map(|b| self.ends[*b].map(|end| (end, *b))).max();
        let mut waits: Vec<(DateTime<Utc>, WaitReason, usize)> = Vec::new();
        let mut film_ready = None;
        if let (Some(state), Some(coat)) = (need.state(), self.last_coat) {
            let at = self.reaches(state).ok_or(Blocked::NeverReady(need))?;
            film_ready = Some(at);
            waits.push((at, WaitReason::Film, coat));
        }
        if let Some((end, of)) = ended {
            if let Some(gap) = step.earliest_gap_min {
                waits.push((end + super::calendar::minutes(gap), WaitReason::Gap, of));
            }
            let fresh = self.document.schools.fresh_eyes
                && step.kind.is_glaze()
                && self.picture.steps[of].kind.blocks_in();
            if fresh {
                waits.push((self.next_day(end), WaitReason::FreshEyes, of));
            }
            if let Some(at) = step.not_before {
                waits.push((at, WaitReason::NotBefore, of));
            }
            waits.push((end, WaitReason::Order, of));
        }
        if step.kind.seals() && step.needs.is_none_or(|n| n == Need::ReadyToSeal) {
            self.sealing_floor(&mut waits);
        }
        let earliest = step.not_before.filter(|_| ended.is_none());
        let Some((until, reason, of)) = waits.into_iter().max_by_key(|(at, ..)| *at) else {
            return Ok((earliest, None));
        };
        let since = self.ends[of].unwrap_or(until);
        let lag_min = (until - since).num_seconds() as f64 / 60.0;
        let wait = Wait { reason, state: need, of, until, lag_min, film_ready };
        Ok((Some(until), Some(wait)))
    }

    /// The floors before a sealing coat: the school's after paint, the gap after varnish.
    fn sealing_floor(&self, waits: &mut Vec<(DateTime<Utc>, WaitReason, usize)>) {
        let Some(coat) = self.last_coat else { return };
        let Some(laid) = self.ends[coat] else { return };
        let waiting = self.document.schools.waiting;
        if self.picture.steps[coat].kind.seals() {
            let hour = laid + Duration::minutes(VARNISH_GAP_MIN);
            let until =
                if waiting == Waiting::Brisk { hour } else { hour.max(self.next_day(laid)) };
            waits.push((until, WaitReason::BetweenVarnish, coat));
        } else if let Some(painted) = self.last_painted {
            let reason = if self.slow { WaitReason::SlowPaint } else { WaitReason::School };
            waits.push((painted + waiting.floor(self.slow), reason, coat));
        }
    }

    fn next_day(&self, after: DateTime<Utc>) -> DateTime<Utc> {
        let hours = &self.document.hours;
        let day = hours.day(after);
        day.succ_opt().map_or(after, |next| hours.start_of(next))
    }
}

/// Seconds of the Unix epoch.
pub(super) fn seconds(at: DateTime<Utc>) -> f64 {
    at.timestamp_micros() as f64 / 1e6
}

/// The instant `t` seconds after the Unix epoch, to the second, never early.
pub(super) fn instant(t: f64) -> DateTime<Utc> {
    Utc.timestamp_opt(t.ceil() as i64, 0).single().unwrap_or(DateTime::<Utc>::MAX_UTC)
}
