//! The films of all pictures for every order of work that was tried. Beside them stand the lags that came
//! out, with which an order can be judged roughly and quickly, and while a search goes on the same films
//! on a coarser grid, which tell at a fifth of the time what an order is worth that looks good by lags.

use super::Plan;
use super::beds::{Beds, cannot, not_ready};
use super::held_back::{At, HeldBack};
use super::lags::{LONG_S, Lags, Lesson, held, held_under};
use super::parallel::threads;
use super::played::{Judged, Played};
use super::problem::{Known, Problem};
use super::ready::planned_on;
use crate::film::{FilmState, Grid};
use crate::readiness::{Blocked, Done, FilmReady, Ready, Stretch, Wait, WaitReason};
use crate::studio::Studio;
use crate::time::{whole_instant, whole_seconds};
use chrono::{DateTime, Utc};
use std::collections::HashMap;

/// Beds that may lie beside a plan before they are cleared away, over twice those along it. [practice] 25 kB each
const SPARE_BEDS: usize = 1_000;

/// What is known of the time from one coat to where the film is ready for one step.
#[derive(Debug, Clone)]
struct Waited {
    /// The step that laid the coat.
    of: usize,
    /// Lags [s] by films, and by rough films put right.
    lags: Lags,
    /// What the films say over what rough ones say [-].
    rough: Lags,
    /// The shortest lag [s] that ever came out.
    shortest: i64,
}

/// Films by what was done on pictures, and the lags that came out.
#[derive(Debug, Clone)]
pub(super) struct Films {
    fine: Beds,
    /// The same on a rough grid, while a search goes on.
    rough: Option<Beds>,
    /// By picture and step, and after the last step for the picture being safe to wrap.
    waited: Vec<Vec<Vec<Waited>>>,
    /// The earliest that each picture was ready in any plan that was played with its films.
    earliest: HashMap<u32, i64>,
    /// Seconds from a coat to a state of it, by picture, step and state.
    wet: HashMap<(u32, u32, FilmState), i64>,
    /// By picture, from when to when a sealing coat that is on holds a flat place.
    held: Vec<Option<Stretch>>,
    /// By picture: how it is done when nothing waits on purpose, and what does.
    on_purpose: HashMap<usize, (Vec<At>, Vec<HeldBack>)>,
    /// What stands for films.
    pub judged: Judged,
    /// Steps whose lag was read off.
    pub read: u64,
    /// Long waits that came out, while somebody else wants to know them.
    told: Option<Vec<Lesson>>,
}

/// Nothing is known of any wait.
fn unknown(studio: &Studio) -> Vec<Vec<Vec<Waited>>> {
    studio.pictures.iter().map(|p| vec![Vec::new(); p.steps.len() + 1]).collect()
}

impl Films {
    /// The pictures as they are.
    pub fn new(studio: &Studio) -> Self {
        Self::on(studio, Grid::PLANNING, threads())
    }

    /// The pictures as they are, their films on `grid`, followed on so many threads.
    pub fn on(studio: &Studio, grid: Grid, threads: usize) -> Self {
        let mut fine = Beds::none(grid);
        Self { held: fine.begin(studio, threads), fine, waited: unknown(studio), ..Self::none() }
    }

    /// Picture `p` alone as it is, its films on `grid`.
    pub fn of_one(studio: &Studio, (p, grid): (usize, Grid)) -> Self {
        let mut fine = Beds::none(grid);
        Self { held: fine.begin_one(studio, p), fine, waited: unknown(studio), ..Self::none() }
    }

    /// Nothing at all: what stands where films were lent.
    pub fn none() -> Self {
        Self {
            fine: Beds::none(Grid::PLANNING),
            rough: None,
            waited: Vec::new(),
            wet: HashMap::new(),
            held: Vec::new(),
            earliest: HashMap::new(),
            on_purpose: HashMap::new(),
            judged: Judged::Films,
            read: 0,
            told: None,
        }
    }

    /// Whether it has a beginning for every picture of `studio`.
    pub fn knows(&self, studio: &Studio) -> bool {
        self.fine.pictures() == studio.pictures.len()
    }

    /// Forgets the earliest finishes, which were those of plans from an earlier moment.
    pub fn forget_finishes(&mut self) {
        self.earliest.clear();
    }

    /// What of picture `p` waits on purpose, if that was found out when it was done as in `plain` without it.
    pub fn held_back(&self, p: usize, plain: &[At]) -> Option<Vec<HeldBack>> {
        self.on_purpose.get(&p).filter(|(was, _)| was == plain).map(|(_, held)| held.clone())
    }

    /// Keeps what of picture `p` waits on purpose.
    pub fn keep_held_back(&mut self, p: usize, plain: Vec<At>, held: Vec<HeldBack>) {
        self.on_purpose.insert(p, (plain, held));
    }

    /// Follows rough films from now on too; true when it did not before.
    pub fn follow_roughly(&mut self, studio: &Studio) -> bool {
        let begins = self.rough.is_none();
        if begins {
            let mut rough = Beds::none(Grid::ROUGH);
            rough.begin(studio, threads());
            self.rough = Some(rough);
        }
        begins
    }

    /// The same without rough films: only a search needs them.
    #[must_use]
    pub fn without_rough(self) -> Self {
        Self { rough: None, ..self }
    }

    /// Stretches in which sealing coats that are on hold flat places.
    pub fn held(&self) -> impl Iterator<Item = Stretch> + '_ {
        self.held.iter().flatten().copied()
    }

    /// Beds that were computed, forgotten ones too.
    pub const fn made(&self) -> u64 {
        self.fine.made
    }

    /// The same of rough ones.
    pub fn made_roughly(&self) -> u64 {
        self.rough.as_ref().map_or(0, |rough| rough.made)
    }

    /// Takes over another document: pictures that dry as they did, of the same materials, keep what was computed.
    pub fn turn_to(&mut self, old: &Studio, new: &Studio) {
        let same_room = old.dries_like(new) && old.schools == new.schools && old.hours == new.hours;
        let known = old.pictures.len();
        if !same_room || !self.knows(old) || known > new.pictures.len() {
            *self = Self::new(new);
            return;
        }
        self.held.resize(new.pictures.len(), None);
        self.waited.resize(new.pictures.len(), Vec::new());
        self.fine.make_room(new.pictures.len());
        if let Some(rough) = &mut self.rough {
            rough.make_room(new.pictures.len());
        }
        for p in 0..new.pictures.len() {
            let was = (p < known && old.paints_like(new, p)).then(|| &old.pictures[p]);
            let is = &new.pictures[p];
            if was == Some(is) {
                continue;
            }
            let like = was.filter(|was| was.dries_like(is));
            if like.is_none_or(|was| !was.is_wanted_like(is)) {
                self.on_purpose.remove(&p);
            }
            if like.is_none() {
                self.held[p] = self.fine.begin_again(new, p);
                if let Some(rough) = &mut self.rough {
                    rough.begin_again(new, p);
                }
                self.waited[p] = vec![Vec::new(); new.pictures[p].steps.len() + 1];
                self.wet.retain(|(q, ..), _| *q != p as u32);
                self.earliest.remove(&(p as u32));
            }
        }
    }

    /// Forgets what does not lie along `plan`, where there is much of it. No [`Played`] from before may be used after.
    pub fn keep_along(&mut self, plan: &Plan) {
        self.clear_beside(plan, SPARE_BEDS + 2 * plan.steps.len());
    }

    /// The same where there are more than `most` in all.
    pub fn clear_beside(&mut self, plan: &Plan, most: usize) {
        if self.fine.count() > most {
            self.fine.keep_along(|p| planned_on(plan, p));
        }
    }

    /// Forgets what is too much to keep; true when it did. No [`Played`] from before may be used after.
    pub fn tidy(&mut self, studio: &Studio) -> bool {
        let full = self.fine.is_full() || self.rough.as_ref().is_some_and(Beds::is_full);
        if full {
            self.held = self.fine.begin(studio, threads());
            if self.rough.take().is_some() {
                self.follow_roughly(studio);
            }
        }
        full
    }

    /// The films that were played.
    pub const fn played(&self) -> &Beds {
        &self.fine
    }

    /// Picture `p` as it is now.
    pub fn root(&self, p: usize) -> Known<Played> {
        let bed = self.fine.root(p)?;
        let rough = self.rough.as_ref().and_then(|rough| rough.root(p).ok());
        let done = self.fine.bed(bed).done.clone();
        Ok(Played { below: held(&done.ages()), done, bed, rough })
    }

    /// Goes on to the picture after step `i` is done at `end`.
    pub fn go_on(
        &mut self,
        problem: &Problem<'_>,
        film: &mut Played,
        (p, i): (usize, usize),
        end: i64,
    ) -> Known<()> {
        let lays = problem.task(p, i).is_some_and(|t| t.lays);
        if lays && let Some(last) = film.done.last_laid() {
            film.below = held_under(&film.below, end - whole_seconds(last));
        }
        film.done.mark(problem.studio, i, whole_instant(end), lays);
        if matches!(self.judged, Judged::Lags | Judged::Floors) {
            return Ok(());
        }
        if let Some(rough) = self.rough.as_mut().filter(|_| lays) {
            film.rough = film.rough.and_then(|bed| rough.follow(problem, bed, (i, end)).ok());
        }
        if self.judged == Judged::Films {
            film.bed = self.fine.follow(problem, film.bed, (i, end))?;
        }
        Ok(())
    }

    /// From when step `i` of picture `p` may start, and why.
    pub fn ready(
        &mut self,
        problem: &Problem<'_>,
        film: &Played,
        (p, i): (usize, usize),
    ) -> Result<Ready, Blocked> {
        let below = problem.task(p, i).map_or(&[][..], |t| &t.below);
        let under = film.done.under(problem.studio, i);
        if self.judged == Judged::Floors {
            return Ok(ready(&film.done, problem.studio, (i, below), None));
        }
        if self.judged != Judged::Films {
            let at = under.and_then(|of| {
                let lag = self.lag(problem, film, ((p, i), of))?;
                let at = film.done.end_of(of)? + chrono::Duration::seconds(lag as i64);
                Some(FilmReady { at, of })
            });
            return Ok(ready(&film.done, problem.studio, (i, below), at));
        }
        let unlearned = under.is_some_and(|of| self.is_unlearned((p, i), of));
        let mut known = self.fine.node(film.bed).ready.iter().filter(|_| !unlearned);
        if let Some((_, known)) = known.find(|(step, _)| *step == i) {
            return known.clone();
        }
        let bed = &mut self.fine.node_mut(film.bed).bed;
        let found = bed.film_ready(problem.studio, i).map_err(not_ready);
        if let (Ok(Some(FilmReady { at, .. })), Some(of)) = (&found, under) {
            self.note(problem, film, ((p, i), of), *at);
        }
        let found = found.map(|at| ready(&film.done, problem.studio, (i, below), at));
        self.fine.node_mut(film.bed).ready.push((i, found.clone()));
        found
    }

    /// When picture `p`, whose last step is done at `end`, is safe to wrap [s of the epoch]; nothing when it never is.
    pub fn safe(
        &mut self,
        problem: &Problem<'_>,
        film: &Played,
        (p, end): (usize, i64),
    ) -> Known<Option<i64>> {
        let wrap = problem.picture(p).steps.len();
        let top = film.done.last_coat().and_then(|of| Some((of, film.done.end_of(of)?)));
        let Some((of, laid)) = top.filter(|_| self.judged != Judged::Floors) else {
            return Ok(Some(end));
        };
        if self.judged != Judged::Films {
            let lag = self.lag(problem, film, ((p, wrap), of)).unwrap_or_default();
            return Ok(Some((whole_seconds(laid) + lag as i64).max(end)));
        }
        let unlearned = self.is_unlearned((p, wrap), of);
        let at = match self.fine.node(film.bed).wrap.filter(|_| !unlearned) {
            Some(known) => known,
            None => {
                let node = self.fine.node_mut(film.bed);
                let at = node.bed.reaches(problem.studio, FilmState::ReadyToWrap);
                let at = at.map_err(cannot)?;
                node.wrap = Some(at);
                if let Some(at) = at {
                    self.note(problem, film, ((p, wrap), of), at);
                }
                at
            }
        };
        Ok(at.map(|at| whole_seconds(at).max(end)))
    }

    /// Keeps how long after coat `of` the film was ready for step `i`, `at`.
    fn note(
        &mut self,
        problem: &Problem<'_>,
        film: &Played,
        ((p, i), of): ((usize, usize), usize),
        at: DateTime<Utc>,
    ) {
        let Some(laid) = film.done.end_of(of) else { return };
        let lag = (at - laid).num_seconds() as f64;
        let mut lesson = Lesson { of_step: (p, i), of, held: film.below, lag, ratio: None };
        if lag >= LONG_S || self.waits_long((p, i)) {
            lesson.ratio = self.rough_lag(problem, film, (i, of)).map(|rough| lag / rough);
        }
        self.learn(&lesson);
        self.tell(lesson);
    }

    /// Learns of a wait.
    pub fn learn(&mut self, lesson: &Lesson) {
        let Lesson { of_step: (p, i), of, held, lag, ratio } = lesson;
        let list = &mut self.waited[*p][*i];
        let n = list.iter().position(|w| w.of == *of).unwrap_or_else(|| {
            let (lags, rough) = (Lags::default(), Lags::default());
            list.push(Waited { of: *of, lags, rough, shortest: *lag as i64 });
            list.len() - 1
        });
        let waited = &mut list[n];
        waited.shortest = waited.shortest.min(*lag as i64);
        waited.lags.note(held, *lag);
        if let Some(ratio) = ratio {
            waited.rough.note(held, *ratio);
        }
    }

    /// The same of a long wait by rough films alone, in no plan: it says nothing of what is the shortest.
    pub fn learn_roughly(&mut self, lesson: &Lesson) {
        let Lesson { of_step: (p, i), of, held, lag, .. } = lesson;
        let waited = self.waited[*p][*i].iter_mut().find(|w| w.of == *of);
        if let Some(waited) = waited.filter(|w| w.lags.is_long()) {
            let ratio = waited.rough.at(held).unwrap_or(1.0);
            waited.lags.note(held, lag * ratio);
        }
    }

    /// How long the wait of `lesson` is read off [s].
    #[cfg(test)]
    pub fn read_off(&self, lesson: &Lesson) -> Option<f64> {
        let (p, i) = lesson.of_step;
        self.waited[p][i].iter().find(|w| w.of == lesson.of)?.lags.at(&lesson.held)
    }

    /// Whether step `i` of picture `p` waits long for a film.
    pub fn waits_long(&self, (p, i): (usize, usize)) -> bool {
        self.waited[p][i].iter().any(|w| w.lags.is_long())
    }

    /// Keeps what it learns of long waits from now on for somebody else, or no longer.
    pub fn tell_on(&mut self, somebody: bool) {
        self.told = somebody.then(Vec::new);
    }

    /// What it learned since it was asked last.
    pub fn told(&mut self) -> Vec<Lesson> {
        self.told.as_mut().map_or_else(Vec::new, std::mem::take)
    }

    fn tell(&mut self, lesson: Lesson) {
        if let Some(told) = self.told.as_mut().filter(|_| lesson.lag >= LONG_S) {
            told.push(lesson);
        }
    }

    /// Whether rough films are followed and what they are off by is not known at all for this wait.
    fn is_unlearned(&self, (p, i): (usize, usize), of: usize) -> bool {
        let waited = || self.waited[p][i].iter().find(|w| w.of == of);
        self.rough.is_some() && waited().is_some_and(|w| w.lags.is_long() && w.rough.is_empty())
    }

    /// How long after coat `of` [s] the film is ready for step `i`, without computing it; `None` while
    /// nothing is known.
    fn lag(
        &mut self,
        problem: &Problem<'_>,
        film: &Played,
        ((p, i), of): ((usize, usize), usize),
    ) -> Option<f64> {
        self.read += 1;
        let n = self.waited[p][i].iter().position(|w| w.of == of)?;
        if self.judged == Judged::Rough
            && self.waited[p][i][n].lags.is_long()
            && let Some(rough) = self.rough_lag(problem, film, (i, of))
        {
            let lag = rough * self.waited[p][i][n].rough.at(&film.below).unwrap_or(1.0);
            let lesson = Lesson { of_step: (p, i), of, held: film.below, lag, ratio: None };
            self.learn(&lesson);
            self.tell(lesson);
            return Some(lag);
        }
        self.waited[p][i][n].lags.at(&film.below)
    }

    /// The same by the rough film alone; `None` where none is followed.
    fn rough_lag(
        &mut self,
        problem: &Problem<'_>,
        film: &Played,
        (i, of): (usize, usize),
    ) -> Option<f64> {
        let rough = &mut self.rough.as_mut()?.node_mut(film.rough?).bed;
        let wrapped = i == problem.picture(film.done.picture()).steps.len();
        let at = if wrapped {
            rough.reaches(problem.studio, FilmState::ReadyToWrap).ok()??
        } else {
            rough.film_ready(problem.studio, i).ok()??.at
        };
        let lag = (at - film.done.end_of(of)?).num_seconds();
        (lag > 0).then_some(lag as f64)
    }

    /// The shortest time from the end of the step it waits for [s] that `wait` of a step was ever seen to
    /// last, where the film decides; a floor lasts as long as it does.
    pub fn shortest_lag(&self, (p, i): (usize, usize), wait: &Wait) -> Option<i64> {
        let of = wait.of.filter(|_| wait.reason == WaitReason::Film)?;
        self.waited[p][i].iter().find(|w| w.of == of).map(|w| w.shortest)
    }

    /// Keeps when picture `p` was ready when it was found with films and none was earlier.
    pub fn note_finish(&mut self, p: usize, end: i64) {
        if self.judged == Judged::Films {
            let known = self.earliest.entry(p as u32).or_insert(end);
            *known = end.min(*known);
        }
    }

    /// The earliest that picture `p` was ready in any plan that was played with its films.
    pub fn earliest_finish(&self, p: usize) -> Option<i64> {
        self.earliest.get(&(p as u32)).copied()
    }

    /// When the coat of step `i`, done at `end`, would reach `state` [s of the epoch]; by lags that are
    /// not known yet at once.
    pub fn wet(
        &mut self,
        problem: &Problem<'_>,
        film: &Played,
        ((p, i), end): ((usize, usize), i64),
        state: FilmState,
    ) -> Result<Option<i64>, Blocked> {
        if self.judged == Judged::Floors {
            return Ok(Some(end));
        }
        let key = (p as u32, i as u32, state);
        if self.judged != Judged::Films {
            return Ok(Some(self.wet.get(&key).map_or(end, |lag| end + lag)));
        }
        let mut wet = film.clone();
        self.go_on(problem, &mut wet, (p, i), end).map_err(|(_, why)| why)?;
        let bed = &mut self.fine.node_mut(wet.bed).bed;
        let reached =
            bed.reaches_under(problem.studio, (i, state)).map_err(|fault| cannot(fault).1)?;
        let at = reached.map(whole_seconds);
        if let Some(at) = at {
            self.wet.insert(key, at - end);
        }
        Ok(at)
    }
}

/// From when step `i`, which stands on `below`, may start, its film ready at `film`.
fn ready(
    done: &Done,
    studio: &Studio,
    (i, below): (usize, &[usize]),
    film: Option<FilmReady>,
) -> Ready {
    let (at, wait) = done.ready(studio, (i, below), film);
    Ready { need: done.needs(studio, i), at: at.map(whole_seconds), wait }
}
