//! What was done on a picture, and from when its next step may start by the schools' waiting times.

use super::floors::{Painted, SOLVENT_GAP, between_varnish, solvent_over_water};
use super::wait::{Wait, WaitReason};
use crate::picture::Need;
use crate::studio::Studio;
use crate::time::{minutes, minutes_between};
use chrono::{DateTime, Utc};

/// What was done on a picture, and when.
#[derive(Debug, Clone)]
pub struct Done {
    /// Index of the picture.
    picture: usize,
    /// When each step was, or will be, done.
    ends: Vec<Option<DateTime<Utc>>>,
    last_coat: Option<usize>,
    painted: Painted,
    /// Coats there are, and their times summed [s of the epoch].
    coats: (i64, i64),
}

impl Done {
    /// Nothing done on picture `picture`.
    pub fn nothing(studio: &Studio, picture: usize) -> Self {
        Self {
            picture,
            ends: vec![None; studio.pictures[picture].steps.len()],
            last_coat: None,
            painted: Painted::default(),
            coats: (0, 0),
        }
    }

    /// Index of the picture.
    pub const fn picture(&self) -> usize {
        self.picture
    }

    /// The step that laid the last coat.
    pub const fn last_coat(&self) -> Option<usize> {
        self.last_coat
    }

    /// When the last coat was laid.
    pub fn last_laid(&self) -> Option<DateTime<Utc>> {
        self.ends[self.last_coat?]
    }

    /// Mean age of the coats when the last one was laid [s].
    pub fn mean_age(&self) -> i64 {
        let (count, sum) = self.coats;
        self.last_laid().map_or(0, |at| at.timestamp() - sum / count.max(1))
    }

    /// Marks step `i` as done at `at`; `leaves_film` when it lays a coat.
    pub fn mark(&mut self, studio: &Studio, i: usize, at: DateTime<Utc>, film: bool) {
        self.ends[i] = Some(at);
        if !film {
            return;
        }
        self.last_coat = Some(i);
        self.coats = (self.coats.0 + 1, self.coats.1 + at.timestamp());
        let step = &studio.pictures[self.picture].steps[i];
        self.painted.add(studio, step, at);
    }

    /// From when step `i`, which stands on `below`, may start, and why; `film_ready` says when the
    /// film alone is.
    pub fn ready(
        &self,
        studio: &Studio,
        (i, below): (usize, &[usize]),
        film_ready: Option<DateTime<Utc>>,
    ) -> (Option<DateTime<Utc>>, Option<Wait>) {
        let picture = &studio.pictures[self.picture];
        let step = &picture.steps[i];
        let need = picture.needs(i);
        let ended = below.iter().filter_map(|b| self.ends[*b].map(|end| (end, *b))).max();
        let mut waits = Latest::default();
        if let (Some(at), Some(coat)) = (film_ready, self.last_coat) {
            waits.push(at, WaitReason::Film, coat);
        }
        if let Some((end, of)) = ended {
            if let Some(gap) = step.earliest_gap_min {
                waits.push(end + minutes(gap), WaitReason::Gap, of);
            }
            let fresh = studio.schools.fresh_eyes
                && step.kind.is_glaze()
                && picture.steps[of].kind.blocks_in();
            if fresh {
                waits.push(studio.hours.next_day(end), WaitReason::FreshEyes, of);
            }
            if let Some(at) = step.not_before {
                waits.push(at, WaitReason::NotBefore, of);
            }
            waits.push(end, WaitReason::Order, of);
        }
        if step.kind.seals() && step.needs.is_none_or(|n| n == Need::ReadyToSeal) {
            self.sealing_floor(studio, i, &mut waits);
        }
        let earliest = step.not_before.filter(|_| ended.is_none());
        let Some((until, reason, of)) = waits.0 else { return (earliest, None) };
        let since = self.ends[of].unwrap_or(until);
        let lag_min = minutes_between(since, until);
        (Some(until), Some(Wait { reason, state: need, of, until, lag_min, film_ready }))
    }

    /// The floors before a sealing coat: the school's after paint, the gap after varnish.
    fn sealing_floor(&self, studio: &Studio, i: usize, waits: &mut Latest) {
        let Some(coat) = self.last_coat else { return };
        let Some(laid) = self.ends[coat] else { return };
        let waiting = studio.schools.waiting;
        let steps = &studio.pictures[self.picture].steps;
        if steps[coat].kind.seals() {
            let until = between_varnish(studio, laid);
            waits.push(until, WaitReason::BetweenVarnish, coat);
            if solvent_over_water(studio, &steps[coat], &steps[i]) {
                waits.push(laid + SOLVENT_GAP, WaitReason::SolventOverWater, coat);
            }
        } else if let Some(until) = self.painted.seal_from(waiting) {
            waits.push(until, self.painted.reason(), coat);
        }
    }
}

/// The wait that is over last; of equal ones the one named last.
#[derive(Default)]
struct Latest(Option<(DateTime<Utc>, WaitReason, usize)>);

impl Latest {
    fn push(&mut self, at: DateTime<Utc>, reason: WaitReason, of: usize) {
        if self.0.is_none_or(|(known, ..)| at >= known) {
            self.0 = Some((at, reason, of));
        }
    }
}
