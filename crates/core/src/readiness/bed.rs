//! One picture with its films: when it reaches what a step needs.
//!
//! What is in no section that the painter names is one film, and each section is a film of its own from
//! the first coat on that lies there alone. What is done all over waits for the slowest of them.

use super::done::{Done, FilmReady};
use crate::film::{Course, Film, FilmState, Grid, HORIZON_S};
use crate::picture::{
    CoatFault, FollowedCoat, FollowedPlace, LaidCoat, Need, Picture, PlaceId, REST,
};
use crate::studio::Studio;
use crate::time::{instant, seconds};
use chrono::{DateTime, Utc};
use std::iter::successors;
use std::sync::Arc;

/// States of coats that were looked at on a picture and are kept. [practice] a gate asks for two of a coat at once and in
/// its first good hour
const MOST_TRIED: usize = 8;

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

/// One picture with its films while it is being planned.
#[derive(Debug, Clone)]
pub struct Bed {
    /// What was done on it.
    pub done: Done,
    /// The films: first that of what is in no section, then those of sections.
    films: Vec<Lain>,
    /// Coats that were looked at on it as if they were laid, and when they reach a state; the last one last.
    tried: Vec<(LaidCoat, FilmState, Option<DateTime<Utc>>)>,
}

/// The film at one place of a picture.
#[derive(Debug, Clone)]
struct Lain {
    place: PlaceId,
    /// The step that laid its last coat.
    top: Option<usize>,
    /// The film right after its last coat, and the same run ahead to find states.
    laid: Arc<Laid>,
    ahead: Course,
    /// What was followed for the coats that were looked at on it.
    near: Option<Arc<Film>>,
}

/// A film right after a coat, and after those below it.
#[derive(Debug)]
struct Laid {
    film: Course,
    /// Nothing for the bare ground, and once it was waited.
    coat: Option<LaidCoat>,
    before: Option<Arc<Self>>,
}

impl Laid {
    /// Another film over the same coats below.
    fn with(&self, film: Course, coat: Option<LaidCoat>) -> Arc<Self> {
        Arc::new(Self { film, coat, before: self.before.clone() })
    }
}

impl Lain {
    /// When it reaches `state` and all before it, if it does within the horizon.
    fn reaches(
        &mut self,
        picture: &Picture,
        state: FilmState,
    ) -> Result<Option<DateTime<Utc>>, CoatFault> {
        let top = self.top.unwrap_or(usize::MAX);
        let fault = |e| picture.fault(top, e);
        let until = self.laid.film.time() + HORIZON_S;
        self.ahead.advance(until, Some(state)).map_err(fault)?;
        let reached = match state {
            // It alone is said from the other side, which is another film.
            FilmState::Setting => self.ahead.events().map_err(fault)?.at(state),
            _ => self.ahead.film().events().at(state),
        };
        Ok(reached.map(instant))
    }
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
        let laid = Arc::new(Laid { film: film.clone(), coat: None, before: None });
        let rest = Lain { place: REST, top: None, laid, ahead: film, near: None };
        let done = Done::nothing(studio, p);
        let mut bed = Self { done, films: vec![rest], tried: Vec::new() };
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
        self.tried.clear();
        let picture = &studio.pictures[self.done.picture()];
        for film in self.films.iter_mut().filter(|f| f.laid.film.time() < seconds(now)) {
            let top = film.top.unwrap_or(usize::MAX);
            let mut waited = film.laid.film.clone();
            waited.advance(seconds(now), None).map_err(|e| picture.fault(top, e))?;
            film.ahead = waited.clone();
            film.laid = film.laid.with(waited, None);
            film.near = None;
        }
        Ok(())
    }

    /// Goes on in the air of `studio`, which was the same until now.
    pub fn turn_to(&mut self, studio: &Studio) {
        self.tried.clear();
        let futures = studio.futures();
        for film in &mut self.films {
            let mut laid = film.laid.film.clone();
            laid.turn_to(futures.clone());
            film.laid = film.laid.with(laid, film.laid.coat);
            film.near = None;
            film.ahead.turn_to(futures.clone());
        }
    }

    /// Slow volatile per volume of solids in the whole stack, as far as it was waited for, where there is most of it.
    pub fn slow_in_all(&self) -> f64 {
        let slow = self.films.iter().map(|f| f.laid.film.film().stack().slow_in_all());
        slow.fold(0.0, f64::max)
    }

    /// Most coats that lie on one another.
    pub fn coats(&self) -> usize {
        self.films.iter().map(|f| f.laid.film.film().stack().coats()).max().unwrap_or(0)
    }

    /// Marks step `i` as done at `at` and lays its coat, if it leaves one: where it lies.
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
        let Some(coat) = coat else {
            self.tried.clear();
            self.done.mark(studio, i, at, false);
            return Ok(());
        };
        let lay = |film: &mut Lain| {
            let near = film.near.take();
            let mut laid = if film.ahead.goes_on_to(coat.at) {
                film.ahead.clone()
            } else {
                film.laid.film.knowing(near)
            };
            picture.lay(&mut laid, &coat)?;
            film.ahead = laid.clone();
            let before = Some(film.laid.clone());
            film.laid = Arc::new(Laid { film: laid, coat: Some(coat), before });
            film.top = Some(i);
            Ok(())
        };
        if let ([film], REST) = (self.films.as_mut_slice(), coat.place) {
            lay(film)?;
            self.tried.clear();
            self.done.mark(studio, i, at, true);
            return Ok(());
        }
        let mut films = self.films.clone();
        if !films.iter().any(|f| f.place == coat.place) {
            films.push(Lain { place: coat.place, ..films[0].clone() });
        }
        let meets = |film: &&mut Lain| coat.place == REST || coat.place == film.place;
        films.iter_mut().filter(meets).try_for_each(lay)?;
        self.films = films;
        self.tried.clear();
        self.done.mark(studio, i, at, true);
        Ok(())
    }

    /// When the whole picture reaches `state` and all before it, if it does within the horizon.
    ///
    /// # Errors
    /// [`CoatFault`] when it cannot be followed.
    pub fn reaches(
        &mut self,
        studio: &Studio,
        state: FilmState,
    ) -> Result<Option<DateTime<Utc>>, CoatFault> {
        Ok(self.slowest(studio, (REST, state))?.map(|ready| ready.at))
    }

    /// When what step `i` is done on reaches `state` and all before it, if it does within the horizon.
    ///
    /// # Errors
    /// [`CoatFault`] when it cannot be followed.
    pub fn reaches_under(
        &mut self,
        studio: &Studio,
        (i, state): (usize, FilmState),
    ) -> Result<Option<DateTime<Utc>>, CoatFault> {
        let place = studio.pictures[self.done.picture()].lies_at(i);
        Ok(self.slowest(studio, (place, state))?.map(|ready| ready.at))
    }

    /// When what lies at `place` (all over, for the rest) reaches `state`, and the coat that does so last.
    fn slowest(
        &mut self,
        studio: &Studio,
        (place, state): (PlaceId, FilmState),
    ) -> Result<Option<FilmReady>, CoatFault> {
        let picture = &studio.pictures[self.done.picture()];
        let own = if self.films.iter().any(|f| f.place == place) { place } else { REST };
        let mut last: Option<FilmReady> = None;
        for film in &mut self.films {
            let meets = place == REST || film.place == own;
            let Some(of) = film.top.filter(|_| meets) else { continue };
            let Some(at) = film.reaches(picture, state)? else { return Ok(None) };
            let sooner = match state {
                // One may work into all of it only as long as none of it sets.
                FilmState::Setting => last.is_none_or(|known| at < known.at),
                _ => last.is_none_or(|known| at >= known.at),
            };
            if sooner {
                last = Some(FilmReady { at, of });
            }
        }
        Ok(last)
    }

    /// When a coat laid by step `i` at `end` would reach each of `states`, if it does within the
    /// horizon; nothing when the step leaves no film.
    ///
    /// # Errors
    /// [`CoatFault`] when it cannot be computed.
    pub fn coat_reaches<const N: usize>(
        &mut self,
        studio: &Studio,
        (i, end): (usize, DateTime<Utc>),
        states: [FilmState; N],
    ) -> Result<[Option<DateTime<Utc>>; N], CoatFault> {
        let picture = &studio.pictures[self.done.picture()];
        let Some(coat) = picture.coat_at(&studio.materials, i, seconds(end))? else {
            return Ok([None; N]);
        };
        let mut found = [None; N];
        let mut wet: Option<Self> = None;
        for (n, state) in states.into_iter().enumerate() {
            let known = self.tried.iter().find(|(of, at, _)| *of == coat && *at == state);
            if let Some((.., reached)) = known {
                found[n] = *reached;
                continue;
            }
            let with = match &mut wet {
                Some(with) => with,
                None => wet.insert(self.with(studio, (i, end))?),
            };
            found[n] = with.reaches_under(studio, (i, state))?;
            self.tried.push((coat, state, found[n]));
        }
        let over = self.tried.len().saturating_sub(MOST_TRIED);
        self.tried.drain(..over);
        Ok(found)
    }

    /// The same with step `i` done at `end`; what its coat lies on is followed near that moment once.
    fn with(
        &mut self,
        studio: &Studio,
        (i, end): (usize, DateTime<Utc>),
    ) -> Result<Self, CoatFault> {
        let picture = &studio.pictures[self.done.picture()];
        for film in &mut self.films {
            let known = film.laid.film.knowing(film.near.take());
            film.near = known.near(seconds(end)).map_err(|e| picture.fault(i, e))?;
        }
        let mut wet = self.clone();
        wet.finish(studio, i, end)?;
        Ok(wet)
    }

    /// When the film is ready for step `i`, and which coat is ready last; `None` when nothing is asked of it.
    ///
    /// # Errors
    /// [`NotReady`] when it never gets there or cannot be followed.
    pub fn film_ready(&mut self, studio: &Studio, i: usize) -> Result<Option<FilmReady>, NotReady> {
        let need = self.done.needs(studio, i);
        match need.state().filter(|_| self.done.under(studio, i).is_some()) {
            None => Ok(None),
            Some(state) => {
                let place = studio.pictures[self.done.picture()].lies_at(i);
                self.slowest(studio, (place, state))?.map(Some).ok_or(NotReady::Never(need))
            }
        }
    }
}

/// What was followed of a picture in a row of `beds`, each one coat or none further than the one before: at
/// each place the film right after every coat, and as far on as it was looked at.
pub fn followed(beds: &[&Bed]) -> Vec<FollowedPlace> {
    let Some(last) = beds.last() else { return Vec::new() };
    let ahead = |laid: &Arc<Laid>| {
        let same = beds.iter().flat_map(|bed| &bed.films).filter(|f| Arc::ptr_eq(&f.laid, laid));
        same.map(|f| &f.ahead).max_by(|a, b| a.time().total_cmp(&b.time())).cloned()
    };
    let place = |film: &Lain| {
        let chain = successors(Some(&film.laid), |laid| laid.before.as_ref());
        let known = chain.filter_map(|laid| {
            let ahead = ahead(laid).unwrap_or_else(|| laid.film.clone());
            Some(FollowedCoat { coat: laid.coat?, film: laid.film.clone(), ahead })
        });
        let mut coats: Vec<FollowedCoat> = known.collect();
        coats.reverse();
        FollowedPlace { place: film.place, coats }
    };
    last.films.iter().map(place).collect()
}
