//! One picture with its film: when it reaches what a step needs.

use super::done::Done;
use crate::film::{Course, Film, FilmState, Grid, HORIZON_S};
use crate::picture::{CoatFault, Need, Picture};
use crate::studio::Studio;
use crate::time::{instant, seconds};
use chrono::{DateTime, Utc};

/// Why a film is not ready for a step.
#[derive(Debug, Clone, PartialEq)]
pub enum NotReady {
    /// It never becomes what the step needs.
    Never(Need),
    /// It cannot be followed.
    Fault(CoatFault),
}

impl From<CoatFault> for NotReady {
    fn from(fault: CoatFault) -> Self {
        Self::Fault(fault)
    }
}

/// What was done on `picture` and what is `planned` (when and which step), in order of time.
pub fn history(
    picture: &Picture,
    planned: impl IntoIterator<Item = (DateTime<Utc>, usize)>,
) -> Vec<(DateTime<Utc>, usize)> {
    let laid = picture.steps.iter().enumerate().filter_map(|(i, s)| s.laid_at.map(|at| (at, i)));
    let mut all: Vec<_> = laid.chain(planned).collect();
    all.sort_unstable();
    all
}

/// One picture with its film while it is being planned.
#[derive(Debug, Clone)]
pub struct Bed {
    /// What was done on it.
    pub done: Done,
    /// The film right after its last coat, and the same run ahead to find states.
    laid: Course,
    ahead: Course,
}

impl Bed {
    /// Picture `p` with what is already laid on it.
    ///
    /// # Errors
    /// [`CoatFault`] when a laid coat cannot be computed.
    pub fn new(studio: &Studio, p: usize, grid: Grid) -> Result<Self, CoatFault> {
        Self::after(studio, p, grid, &history(&studio.pictures[p], std::iter::empty()))
    }

    /// Picture `p` after `history`: what was, or will be, done on it and when, in order of time.
    ///
    /// # Errors
    /// [`CoatFault`] when a coat cannot be computed.
    pub fn after(
        studio: &Studio,
        p: usize,
        grid: Grid,
        history: &[(DateTime<Utc>, usize)],
    ) -> Result<Self, CoatFault> {
        let start = history.first().map_or(0.0, |(at, _)| seconds(*at));
        let film = studio.pictures[p].bare(grid, start, &studio.futures());
        let mut bed = Self { done: Done::nothing(studio, p), laid: film.clone(), ahead: film };
        for (at, i) in history {
            bed.finish(studio, *i, *at)?;
        }
        Ok(bed)
    }

    /// Goes on to `now` with nothing laid meanwhile.
    ///
    /// # Errors
    /// [`CoatFault`] when the film cannot be followed.
    pub fn wait_until(&mut self, studio: &Studio, now: DateTime<Utc>) -> Result<(), CoatFault> {
        if self.laid.time() < seconds(now) {
            let top = self.done.last_coat().unwrap_or(usize::MAX);
            let cannot = |e| studio.pictures[self.done.picture()].fault(top, e);
            self.laid.advance(seconds(now), None).map_err(cannot)?;
            self.ahead = self.laid.clone();
        }
        Ok(())
    }

    /// Goes on in the air of `studio`, which was the same until now.
    pub fn turn_to(&mut self, studio: &Studio) {
        let futures = studio.futures();
        self.laid.turn_to(futures.clone());
        self.ahead.turn_to(futures);
    }

    /// The film as it is there after the last coat.
    pub const fn film(&self) -> &Film {
        self.laid.film()
    }

    /// Marks step `i` as done at `at` and lays its coat, if it leaves one.
    ///
    /// # Errors
    /// [`CoatFault`] when its coat cannot be computed; nothing is changed then.
    pub fn finish(
        &mut self,
        studio: &Studio,
        i: usize,
        at: DateTime<Utc>,
    ) -> Result<(), CoatFault> {
        let picture = &studio.pictures[self.done.picture()];
        let coat = picture.coat_at(&studio.materials, i, seconds(at))?;
        self.done.mark(studio, i, at, coat.is_some());
        let Some(coat) = coat else { return Ok(()) };
        picture.lay(&mut self.laid, &coat)?;
        self.ahead = self.laid.clone();
        Ok(())
    }

    /// When the film reaches `state` and all before it, if it does within the horizon.
    ///
    /// # Errors
    /// [`CoatFault`] when it cannot be followed.
    pub fn reaches(
        &mut self,
        studio: &Studio,
        state: FilmState,
    ) -> Result<Option<DateTime<Utc>>, CoatFault> {
        let until = self.laid.time() + HORIZON_S;
        for stop in [FilmState::Paintable.min(state), state] {
            self.ahead.advance(until, Some(stop)).map_err(|e| {
                let top = self.done.last_coat().unwrap_or(usize::MAX);
                studio.pictures[self.done.picture()].fault(top, e)
            })?;
        }
        let top = self.done.last_coat().unwrap_or(usize::MAX);
        let fault = |e| studio.pictures[self.done.picture()].fault(top, e);
        let reached = match state {
            // It alone is said from the other side, which is another film.
            FilmState::Setting => self.ahead.events().map_err(fault)?.safe_at(state),
            _ => self.ahead.film().events().safe_at(state),
        };
        Ok(reached.map(instant))
    }

    /// When a coat laid by step `i` at `end` would reach each of `states`, if it does within the
    /// horizon; nothing when the step leaves no film.
    ///
    /// # Errors
    /// [`CoatFault`] when it cannot be computed.
    pub fn coat_reaches<const N: usize>(
        &self,
        studio: &Studio,
        (i, end): (usize, DateTime<Utc>),
        states: [FilmState; N],
    ) -> Result<[Option<DateTime<Utc>>; N], CoatFault> {
        let mut wet = self.clone();
        wet.finish(studio, i, end)?;
        if wet.done.last_coat() != Some(i) {
            return Ok([None; N]);
        }
        let mut found = [None; N];
        for (n, state) in states.into_iter().enumerate() {
            found[n] = wet.reaches(studio, state)?;
        }
        Ok(found)
    }

    /// When the film is ready for step `i`; `None` when nothing is asked of it.
    ///
    /// # Errors
    /// [`NotReady`] when it never gets there or cannot be followed.
    pub fn film_ready(
        &mut self,
        studio: &Studio,
        i: usize,
    ) -> Result<Option<DateTime<Utc>>, NotReady> {
        let need = self.done.needs(studio, i);
        match need.state().filter(|_| self.done.last_coat().is_some()) {
            None => Ok(None),
            Some(state) => self.reaches(studio, state)?.map(Some).ok_or(NotReady::Never(need)),
        }
    }
}
