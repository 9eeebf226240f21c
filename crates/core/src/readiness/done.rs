//! What was done on a picture, and from when its next step may start by the schools' waiting times.

use super::floors::{Painted, SOLVENT_GAP, between_varnish, solvent_over_water};
use super::wait::{Wait, WaitReason};
use crate::picture::{Need, PlaceId, REST};
use crate::studio::Studio;
use crate::time::{minutes, minutes_between};
use chrono::{DateTime, Utc};

/// When a film is ready for a step, and the coat that is ready last.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct FilmReady {
    /// The moment.
    pub at: DateTime<Utc>,
    /// The step that laid the coat.
    pub of: usize,
}

/// Coats below the last one whose ages are kept. [practice]
pub const AGES: usize = 7;

/// What was done on a picture, and when.
#[derive(Debug, Clone, PartialEq)]
pub struct Done {
    /// Index of the picture.
    picture: usize,
    /// When each step was, or will be, done.
    ends: Vec<Option<DateTime<Utc>>>,
    last_coat: Option<usize>,
    /// The last coat of what is in no section, and of each section that has coats of its own.
    tops: Vec<(PlaceId, usize)>,
    /// The step that laid the last colour.
    last_colour: Option<usize>,
    painted: Painted,
    /// When the last coats were laid [s of the epoch], the last one first.
    laid: [Option<i64>; AGES + 1],
}

impl Done {
    /// Nothing done on picture `picture`.
    pub fn nothing(studio: &Studio, picture: usize) -> Self {
        Self {
            picture,
            ends: vec![None; studio.pictures[picture].steps.len()],
            last_coat: None,
            tops: Vec::new(),
            last_colour: None,
            painted: Painted::default(),
            laid: [None; AGES + 1],
        }
    }

    /// Index of the picture.
    pub const fn picture(&self) -> usize {
        self.picture
    }

    /// When step `i` was, or will be, done.
    pub fn end_of(&self, i: usize) -> Option<DateTime<Utc>> {
        self.ends[i]
    }

    /// The step that laid the last coat.
    pub const fn last_coat(&self) -> Option<usize> {
        self.last_coat
    }

    /// When the last coat was laid.
    pub fn last_laid(&self) -> Option<DateTime<Utc>> {
        self.ends[self.last_coat?]
    }

    /// The last coat where step `i` is done: the one that it would lie on.
    pub fn under(&self, studio: &Studio, i: usize) -> Option<usize> {
        match studio.pictures[self.picture].lies_at(i) {
            REST => self.last_coat,
            place => self.top_at(place),
        }
    }

    /// The last coat at `place`: its own, or what lies all over.
    pub(super) fn top_at(&self, place: PlaceId) -> Option<usize> {
        let of = |place| self.tops.iter().find(|(at, _)| *at == place).map(|(_, top)| *top);
        of(place).or_else(|| of(REST))
    }

    /// Ages of the coats below the last one when that was laid [s], the youngest first; endless where there is
    /// none.
    pub fn ages(&self) -> [i64; AGES] {
        let [last, below @ ..] = self.laid;
        let age = |laid: Option<i64>| last.zip(laid).map(|(last, laid)| last - laid);
        below.map(|laid| age(laid).unwrap_or(i64::MAX))
    }

    /// Marks step `i` as done at `at`; `leaves_film` when it lays a coat.
    pub fn mark(&mut self, studio: &Studio, i: usize, at: DateTime<Utc>, film: bool) {
        self.ends[i] = Some(at);
        if !film {
            return;
        }
        self.last_coat = Some(i);
        self.laid.rotate_right(1);
        self.laid[0] = Some(at.timestamp());
        let picture = &studio.pictures[self.picture];
        let place = picture.lies_at(i);
        if place == REST {
            self.tops.clear();
        }
        self.tops.retain(|(at, _)| *at != place);
        self.tops.push((place, i));
        let step = &picture.steps[i];
        if step.kind.is_colour() {
            self.last_colour = Some(i);
        }
        self.painted.add(studio, (i, step), at);
    }

    /// What step `i` needs of the film that is there.
    pub fn needs(&self, studio: &Studio, i: usize) -> Need {
        studio.pictures[self.picture].needs_on(i, self.under(studio, i))
    }

    /// What is painted, as far as waiting before a seal is concerned.
    pub const fn painted(&self) -> Painted {
        self.painted
    }

    /// From when step `i`, which stands on `below`, may start, and why not before; `film_ready` says
    /// when the film alone is, and of which coat. Air, places and hours are not looked at.
    pub fn ready(
        &self,
        studio: &Studio,
        (i, below): (usize, &[usize]),
        film_ready: Option<FilmReady>,
    ) -> (Option<DateTime<Utc>>, Option<Wait>) {
        let mut latest = Latest::default();
        self.waits(studio, (i, below), film_ready, |at, reason, of| latest.push(at, reason, of));
        let Some((until, reason, of)) = latest.0 else { return (None, None) };
        let since = of.and_then(|of| self.ends[of]).unwrap_or(until);
        let lag_min = minutes_between(since, until);
        let state = self.needs(studio, i);
        (
            Some(until),
            Some(Wait { reason, state, of, until, lag_min, film_ready: film_ready.map(|f| f.at) }),
        )
    }

    /// Everything that step `i`, which stands on `below`, waits for, past or to come: `tell` hears
    /// until when, why, and the step it waits for.
    pub fn waits(
        &self,
        studio: &Studio,
        (i, below): (usize, &[usize]),
        film_ready: Option<FilmReady>,
        mut tell: impl FnMut(DateTime<Utc>, WaitReason, Option<usize>),
    ) {
        let step = &studio.pictures[self.picture].steps[i];
        if let Some(FilmReady { at, of }) = film_ready {
            tell(at, WaitReason::Film, Some(of));
        }
        let ended = below.iter().filter_map(|b| self.ends[*b].map(|end| (end, *b))).max();
        if let Some((end, of)) = ended {
            if let Some(gap) = step.earliest_gap_min {
                tell(end + minutes(gap), WaitReason::Gap, Some(of));
            }
            tell(end, WaitReason::Order, Some(of));
        }
        self.tell_fresh_eyes(studio, i, &mut tell);
        if step.kind.seals() {
            self.tell_sealing_floors(studio, i, &mut tell);
        }
        if let Some(at) = step.not_before {
            tell(at, WaitReason::NotBefore, ended.map(|(_, of)| of));
        }
    }

    /// A night between blocking in and the next colour; a clear coat between them does not end it.
    fn tell_fresh_eyes(
        &self,
        studio: &Studio,
        i: usize,
        tell: &mut impl FnMut(DateTime<Utc>, WaitReason, Option<usize>),
    ) {
        let steps = &studio.pictures[self.picture].steps;
        let looked_at = steps[i].kind.is_colour() && !steps[i].kind.blocks_in();
        let blocked_in = self.last_colour.filter(|of| steps[*of].kind.blocks_in());
        if let Some(of) = blocked_in.filter(|_| looked_at && studio.schools.fresh_eyes)
            && let Some(end) = self.ends[of]
        {
            tell(studio.hours.next_day(end), WaitReason::FreshEyes, Some(of));
        }
    }

    /// The floors before a sealing coat: the school's after paint, also where a seal lies on it, and the
    /// gap after varnish.
    fn tell_sealing_floors(
        &self,
        studio: &Studio,
        i: usize,
        tell: &mut impl FnMut(DateTime<Utc>, WaitReason, Option<usize>),
    ) {
        let steps = &studio.pictures[self.picture].steps;
        if let Some(until) = self.painted.seal_from(studio.schools.waiting) {
            tell(until, self.painted.reason(), self.painted.last().map(|(_, of)| of));
        }
        let Some(coat) = self.last_coat.filter(|c| steps[*c].kind.seals()) else { return };
        let Some(laid) = self.ends[coat] else { return };
        tell(between_varnish(studio, &steps[coat], laid), WaitReason::BetweenVarnish, Some(coat));
        if solvent_over_water(studio, &steps[coat], &steps[i]) {
            tell(laid + SOLVENT_GAP, WaitReason::SolventOverWater, Some(coat));
        }
    }
}

/// The wait that is over last; of equal ones the one named last.
#[derive(Default)]
struct Latest(Option<(DateTime<Utc>, WaitReason, Option<usize>)>);

impl Latest {
    fn push(&mut self, at: DateTime<Utc>, reason: WaitReason, of: Option<usize>) {
        if self.0.is_none_or(|(known, ..)| at >= known) {
            self.0 = Some((at, reason, of));
        }
    }
}
