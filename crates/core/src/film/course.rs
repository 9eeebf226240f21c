//! The film of one picture in one future: coats below as they are on average, the one on top with all
//! that may be its own.

use super::events::Events;
use super::follow::{Diverged, Film};
use super::future::Futures;
use super::grid::Grid;
use super::ground::Ground;
use super::state::FilmState;
use crate::mix::Composition;
use std::sync::Arc;

/// A stack in the future that is meant by a time which is sure.
#[derive(Debug, Clone)]
pub struct Course {
    futures: Arc<Futures>,
    /// Without the last coat, at the moment that was laid.
    below: Arc<Film>,
    last: Option<(f64, Composition)>,
    /// With it.
    top: Film,
    /// What the next coat lies on, as far as it was [followed](Self::near) for one.
    waited: Option<Arc<Film>>,
}

impl Course {
    /// A bare ground of a picture whose shorter side is `length_m` [m], at time `start` [s].
    pub fn bare(
        futures: Arc<Futures>,
        (ground, length_m): (Ground, f64),
        grid: Grid,
        start: f64,
    ) -> Self {
        let film = Film::new(futures.late.ground(ground), length_m, grid, start);
        Self { futures, below: Arc::new(film.clone()), last: None, top: film, waited: None }
    }

    /// Goes on in `futures`; what was is as it was.
    pub fn turn_to(&mut self, futures: Arc<Futures>) {
        self.futures = futures;
        self.waited = None;
    }

    /// The film as it is now.
    pub const fn film(&self) -> &Film {
        &self.top
    }

    /// The time reached [s].
    pub const fn time(&self) -> f64 {
        self.top.time()
    }

    /// Whether a coat at `at` [s] is laid on it as far as it was followed: where the grid says so, and the
    /// last coat is as others are.
    pub fn goes_on_to(&self, at: f64) -> bool {
        self.top.grid().goes_on && self.futures.late.is_even() && self.top.time() <= at
    }

    /// What a coat at `at` [s] is laid on, as far as it was followed.
    fn under(&self, at: f64) -> Film {
        if self.goes_on_to(at) {
            return self.top.clone();
        }
        if let Some(waited) = self.waited.as_ref().filter(|waited| waited.time() <= at) {
            return Film::clone(waited);
        }
        let mut below = Film::clone(&self.below);
        if let Some(last) = self.last {
            let (wet_m, mix) = self.futures.late.below(last);
            below.lay(wet_m, mix);
        }
        below
    }

    /// Follows what a coat at `at` [s] would lie on to the last change of air before: from there each later coat
    /// comes by the same steps. Nothing where that says no more than the film itself.
    ///
    /// # Errors
    /// [`Diverged`] when it cannot be followed.
    pub fn near(&self, at: f64) -> Result<Option<Arc<Film>>, Diverged> {
        let air = self.futures.late.air();
        let Some(change) = air.last_change(at).filter(|_| !self.goes_on_to(at)) else {
            return Ok(None);
        };
        let mut film = self.under(at);
        film.advance(air, change, None)?;
        Ok(Some(Arc::new(film)))
    }

    /// The same film, knowing what came out [`Self::near`] its next coat.
    #[must_use]
    pub fn knowing(&self, near: Option<Arc<Film>>) -> Self {
        Self { waited: near, ..self.clone() }
    }

    /// Follows the film to `at` [s] and lays a coat of `wet_m` [m] on it. From the last coat on, not from
    /// where states were looked for: whoever asks comes by the same steps to the same film (but see
    /// [`Grid::goes_on`]).
    ///
    /// # Errors
    /// [`Diverged`] when it cannot be followed; nothing is changed then.
    pub fn lay(&mut self, at: f64, wet_m: f64, mix: Composition) -> Result<(), Diverged> {
        let late = &self.futures.late;
        let mut below = self.under(at);
        below.advance(late.air(), at, None)?;
        self.waited = None;
        self.last = Some((wet_m, mix));
        let (wet_m, mix) = late.on_top((wet_m, mix));
        self.top = below.clone();
        self.top.lay(wet_m, mix);
        self.below = Arc::new(below);
        Ok(())
    }

    /// Follows the film to `until` [s], or until it reaches `stop`. True when it did.
    ///
    /// # Errors
    /// [`Diverged`] when it cannot be followed.
    pub fn advance(&mut self, until: f64, stop: Option<FilmState>) -> Result<bool, Diverged> {
        self.top.advance(self.futures.late.air(), until, stop)
    }

    /// States reached since the last coat was laid, each surely by then; setting is the other way
    /// round: surely not before, as long as one may work into it.
    ///
    /// # Errors
    /// [`Diverged`] when the setting cannot be followed.
    pub fn events(&self) -> Result<Events, Diverged> {
        let events = self.top.events().clone();
        match self.sets(self.top.time())? {
            Some(sets) => Ok(events.setting_at(sets)),
            None => Ok(events),
        }
    }

    /// When the last coat sets, surely not before, if it does by `until` [s].
    ///
    /// # Errors
    /// [`Diverged`] when it cannot be followed.
    pub fn sets(&self, until: f64) -> Result<Option<f64>, Diverged> {
        let Some(last) = self.last else { return Ok(None) };
        let early = &self.futures.early;
        let mut film = Film::clone(&self.below);
        let (wet_m, mix) = early.on_top(last);
        film.lay(wet_m, mix);
        film.advance(early.air(), until, Some(FilmState::Setting))?;
        let late = self.top.events().at(FilmState::Setting);
        Ok(film.events().at(FilmState::Setting).map(|at| late.map_or(at, |late| at.min(late))))
    }
}
