//! One picture with its film: when it reaches what a step needs.

use super::done::Done;
use crate::film::{Film, FilmState, Grid, HORIZON_S};
use crate::picture::{CoatFault, Need};
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

/// One picture with its film while it is being planned.
#[derive(Debug, Clone)]
pub struct Bed {
    /// What was done on it.
    pub done: Done,
    /// The film right after its last coat, and the same run ahead to find states.
    laid: Film,
    ahead: Film,
}

impl Bed {
    /// Picture `p` with what is already laid on it.
    ///
    /// # Errors
    /// [`CoatFault`] when a laid coat cannot be computed.
    pub fn new(studio: &Studio, p: usize, grid: Grid) -> Result<Self, CoatFault> {
        let picture = &studio.pictures[p];
        let mut history: Vec<(DateTime<Utc>, usize)> = picture
            .steps
            .iter()
            .enumerate()
            .filter_map(|(i, s)| s.laid_at.map(|at| (at, i)))
            .collect();
        history.sort();
        let start = history.first().map_or(0.0, |(at, _)| seconds(*at));
        let film = picture.bare(grid, start);
        let mut bed = Self { done: Done::nothing(studio, p), laid: film.clone(), ahead: film };
        for (at, i) in history {
            bed.finish(studio, i, at)?;
        }
        Ok(bed)
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
        if self.ahead.time() <= coat.at {
            self.laid = self.ahead.clone();
        }
        picture.lay(&mut self.laid, &coat, &studio.air)?;
        self.ahead = self.laid.clone();
        Ok(())
    }

    /// When the film reaches `state`, if it does within the horizon.
    ///
    /// # Errors
    /// [`CoatFault`] when it cannot be followed.
    pub fn reaches(
        &mut self,
        studio: &Studio,
        state: FilmState,
    ) -> Result<Option<DateTime<Utc>>, CoatFault> {
        let until = self.laid.time() + HORIZON_S;
        self.ahead.advance(&studio.air, until, Some(state)).map_err(|e| {
            let top = self.done.last_coat().unwrap_or(usize::MAX);
            studio.pictures[self.done.picture()].fault(top, e)
        })?;
        Ok(self.ahead.events().at(state).map(instant))
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
        let need = studio.pictures[self.done.picture()].needs(i);
        match need.state().filter(|_| self.done.last_coat().is_some()) {
            None => Ok(None),
            Some(state) => self.reaches(studio, state)?.map(Some).ok_or(NotReady::Never(need)),
        }
    }
}
