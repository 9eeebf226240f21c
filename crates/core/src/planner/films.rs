//! The films of all pictures for every order of work that was tried: what was computed for one
//! sequence of coats serves every plan that lays the same coats at the same times. Beside it stand
//! the lags that came out, with which an order can be judged roughly and quickly.

use super::lags::Lags;
use super::parallel::{in_parallel, threads};
use super::problem::{Known, Problem};
use crate::film::{FilmState, Grid};
use crate::picture::CoatFault;
use crate::readiness::{
    Bed, Blocked, Done, FOREVER, FilmReady, NotReady, Ready, Stretch, Wait, WaitReason, history,
};
use crate::studio::Studio;
use crate::time::{whole_instant, whole_seconds};
use chrono::{DateTime, Utc};
use std::collections::HashMap;

/// Most beds kept; then all but the beginnings are forgotten. About 15 kB each. [practice]
const MOST_BEDS: usize = 8_000;

type BedId = u32;

/// A picture as it is, with the stretch in which it lies flat with wet varnish.
type Begun = Result<(Bed, Option<Stretch>), CoatFault>;

/// What stands for films while an order is played.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Judged {
    /// The films themselves.
    Films,
    /// The lags that came out last.
    Lags,
}

/// A picture while an order of work is tried.
#[derive(Debug, Clone)]
pub(super) struct Played {
    pub done: Done,
    /// Its bed, while films are computed exactly.
    bed: BedId,
}

#[derive(Debug, Clone)]
struct Node {
    bed: Bed,
    ready: Vec<(usize, Result<Ready, Blocked>)>,
}

/// Beds by what was done on them, and the lags that came out.
#[derive(Debug, Clone)]
pub(super) struct Films {
    grid: Grid,
    nodes: Vec<Node>,
    roots: Vec<Known<BedId>>,
    after: HashMap<(BedId, u32, i64), Known<BedId>>,
    /// Seconds from the last coat to where the film is ready, by picture, step and last coat.
    lags: HashMap<(u32, u32, u32), Lags>,
    /// The earliest finish of each picture in any plan that was played with its films.
    earliest: HashMap<u32, i64>,
    /// Seconds from a coat to a state of it, by picture, step and state.
    wet: HashMap<(u32, u32, FilmState), i64>,
    /// By picture, from when to when a sealing coat that is on holds a flat place.
    held: Vec<Option<Stretch>>,
    /// What stands for films.
    pub judged: Judged,
    /// Beds that were computed, forgotten ones too.
    pub made: u64,
    /// Steps whose lag was read off.
    pub read: u64,
}

impl Films {
    /// The pictures as they are.
    pub fn new(studio: &Studio) -> Self {
        Self::on(studio, Grid::PLANNING, threads())
    }

    /// The pictures as they are, their films on `grid`, followed on so many threads.
    pub fn on(studio: &Studio, grid: Grid, threads: usize) -> Self {
        let mut films = Self { grid, ..Self::none() };
        films.begin(studio, threads);
        films
    }

    /// Nothing at all: what stands where films were lent.
    pub fn none() -> Self {
        Self {
            grid: Grid::PLANNING,
            nodes: Vec::new(),
            roots: Vec::new(),
            after: HashMap::new(),
            lags: HashMap::new(),
            wet: HashMap::new(),
            held: Vec::new(),
            earliest: HashMap::new(),
            judged: Judged::Films,
            made: 0,
            read: 0,
        }
    }

    /// Whether it has a beginning for every picture of `studio`.
    pub fn knows(&self, studio: &Studio) -> bool {
        self.roots.len() == studio.pictures.len()
    }

    /// Forgets the earliest finishes, which were those of plans from an earlier moment.
    pub fn forget_finishes(&mut self) {
        self.earliest.clear();
    }

    fn begin(&mut self, studio: &Studio, threads: usize) {
        self.nodes.clear();
        self.after.clear();
        self.roots.clear();
        self.held.clear();
        let grid = self.grid;
        let begun = in_parallel(studio.pictures.len(), threads, |p| Some(begun(studio, p, grid)));
        for begun in begun {
            let (root, held) = self.rooted(begun);
            self.roots.push(root);
            self.held.push(held);
        }
    }

    /// Keeps a picture as it is.
    fn rooted(&mut self, begun: Begun) -> (Known<BedId>, Option<Stretch>) {
        match begun {
            Ok((bed, held)) => (Ok(self.keep(bed)), held),
            Err(fault) => (Err(cannot(fault)), None),
        }
    }

    /// Stretches in which sealing coats that are on hold flat places.
    pub fn held(&self) -> impl Iterator<Item = Stretch> + '_ {
        self.held.iter().flatten().copied()
    }

    /// Takes over another document: pictures that are the same keep what was computed.
    pub fn turn_to(&mut self, old: &Studio, new: &Studio) {
        let same_room = old.dries_like(new)
            && old.schools == new.schools
            && old.materials == new.materials
            && old.hours == new.hours;
        if !same_room || !self.knows(old) || old.pictures.len() != new.pictures.len() {
            *self = Self::new(new);
            return;
        }
        for p in 0..new.pictures.len() {
            if old.pictures[p] != new.pictures[p] {
                (self.roots[p], self.held[p]) = self.rooted(begun(new, p, self.grid));
                self.lags.retain(|(q, ..), _| *q != p as u32);
                self.wet.retain(|(q, ..), _| *q != p as u32);
                self.earliest.remove(&(p as u32));
            }
        }
    }

    /// Forgets what is too much to keep. No [`Played`] from before may be used after.
    pub fn tidy(&mut self, studio: &Studio) {
        if self.nodes.len() > MOST_BEDS {
            self.begin(studio, threads());
        }
    }

    fn keep(&mut self, bed: Bed) -> BedId {
        self.made += 1;
        self.nodes.push(Node { bed, ready: Vec::new() });
        (self.nodes.len() - 1) as BedId
    }

    /// The beds of picture `p` as it is now and after each of `planned` (end and step, in order), as far as
    /// they were played with films.
    pub fn along(&self, p: usize, planned: &[(DateTime<Utc>, usize)]) -> Vec<&Bed> {
        let Some(Ok(mut at)) = self.roots.get(p).cloned() else { return Vec::new() };
        let mut beds = vec![&self.nodes[at as usize].bed];
        for (end, i) in planned {
            let Some(Ok(next)) = self.after.get(&(at, *i as u32, whole_seconds(*end))) else {
                break;
            };
            at = *next;
            beds.push(&self.nodes[at as usize].bed);
        }
        beds
    }

    /// The bed of picture `p` after all of `planned` (end and step, in order); what was played is not followed
    /// again.
    ///
    /// # Errors
    /// [`CoatFault`] when a coat cannot be computed.
    pub fn bed_after(
        &self,
        studio: &Studio,
        p: usize,
        planned: &[(DateTime<Utc>, usize)],
    ) -> Result<Bed, CoatFault> {
        let beds = self.along(p, planned);
        let Some(last) = beds.last() else {
            let all = history(&studio.pictures[p], planned.iter().copied());
            return Bed::after(studio, p, self.grid, &all);
        };
        let mut bed = (*last).clone();
        for (at, i) in &planned[beds.len() - 1..] {
            bed.finish(studio, *i, *at)?;
        }
        Ok(bed)
    }

    /// Picture `p` as it is now.
    pub fn root(&self, p: usize) -> Known<Played> {
        let bed = self.roots[p].clone()?;
        Ok(Played { done: self.nodes[bed as usize].bed.done.clone(), bed })
    }

    /// Goes on to the picture after step `i` is done at `end`.
    pub fn go_on(
        &mut self,
        problem: &Problem<'_>,
        film: &mut Played,
        (p, i): (usize, usize),
        end: i64,
    ) -> Known<()> {
        let task = problem.task(p, i);
        film.done.mark(problem.studio, i, whole_instant(end), task.is_some_and(|t| t.lays));
        if self.judged != Judged::Films {
            return Ok(());
        }
        let key = (film.bed, i as u32, end);
        let known = match self.after.get(&key) {
            Some(known) => known.clone(),
            None => {
                let mut next = self.nodes[film.bed as usize].bed.clone();
                let made = next.finish(problem.studio, i, whole_instant(end));
                let made = made.map(|()| self.keep(next)).map_err(cannot);
                self.after.insert(key, made.clone());
                made
            }
        };
        film.bed = known?;
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
        let key = (p as u32, i as u32, under.map_or(u32::MAX, |c| c as u32));
        if self.judged != Judged::Films {
            self.read += 1;
            let at = self.lags.get(&key).and_then(|lags| {
                let (lag, of) = (lags.at(&film.done.ages())?, under?);
                let at = film.done.end_of(of)? + chrono::Duration::seconds(lag);
                Some(FilmReady { at, of })
            });
            return Ok(ready(&film.done, problem.studio, (i, below), at));
        }
        let node = &mut self.nodes[film.bed as usize];
        if let Some((_, known)) = node.ready.iter().find(|(step, _)| *step == i) {
            return known.clone();
        }
        let found = node.bed.film_ready(problem.studio, i).map_err(not_ready).map(|at| {
            let laid = under.and_then(|of| film.done.end_of(of));
            if let (Some(FilmReady { at, .. }), Some(laid)) = (at, laid) {
                let lag = whole_seconds(at) - laid.timestamp();
                self.lags.entry(key).or_default().note(&film.done.ages(), lag);
            }
            ready(&film.done, problem.studio, (i, below), at)
        });
        node.ready.push((i, found.clone()));
        found
    }

    /// The shortest time from the end of the step it waits for [s] that `wait` of a step was ever seen to
    /// last, where the film decides; a floor lasts as long as it does.
    pub fn shortest_lag(&self, (p, i): (usize, usize), wait: &Wait) -> Option<i64> {
        let of = wait.of.filter(|_| wait.reason == WaitReason::Film)?;
        self.lags.get(&(p as u32, i as u32, of as u32))?.shortest()
    }

    /// Keeps the finish of picture `p` when it was found with films and none was earlier.
    pub fn note_finish(&mut self, p: usize, end: i64) {
        if self.judged == Judged::Films {
            let known = self.earliest.entry(p as u32).or_insert(end);
            *known = end.min(*known);
        }
    }

    /// The earliest finish of picture `p` in any plan that was played with its films.
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
        let key = (p as u32, i as u32, state);
        if self.judged != Judged::Films {
            return Ok(Some(self.wet.get(&key).map_or(end, |lag| end + lag)));
        }
        let mut wet = film.clone();
        self.go_on(problem, &mut wet, (p, i), end).map_err(|(_, why)| why)?;
        let bed = &mut self.nodes[wet.bed as usize].bed;
        let reached =
            bed.reaches_under(problem.studio, (i, state)).map_err(|fault| cannot(fault).1)?;
        let at = reached.map(whole_seconds);
        if let Some(at) = at {
            self.wet.insert(key, at - end);
        }
        Ok(at)
    }
}

/// Picture `p` as it is, and how long it lies flat with wet varnish.
fn begun(studio: &Studio, p: usize, grid: Grid) -> Begun {
    let mut bed = Bed::new(studio, p, grid)?;
    let sealed = |i: &usize| studio.pictures[p].steps[*i].kind.seals();
    let Some(top) = bed.done.last_coat().filter(sealed) else { return Ok((bed, None)) };
    let dry = bed.reaches(studio, FilmState::TouchDry)?.map_or(FOREVER, whole_seconds);
    let held = bed.done.end_of(top).map(|laid| (whole_seconds(laid), dry));
    Ok((bed, held))
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

fn not_ready(why: NotReady) -> Blocked {
    match why {
        NotReady::Never(need) => Blocked::NeverReady(need),
        NotReady::Fault(fault) => cannot(fault).1,
    }
}

/// A coat that cannot be computed holds its picture up, and says why.
fn cannot(fault: CoatFault) -> (usize, Blocked) {
    (fault.step, Blocked::Coat(fault.why.to_string()))
}
