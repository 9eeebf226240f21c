//! The film of a picture over time: what strata, rail and verdict are drawn from.

use super::coats::{CoatFault, LaidCoat, stacks};
use super::model::Picture;
use super::place::PlaceId;
use crate::film::{CoatView, Course, Diverged, Events, FilmState, Futures, Grid, HORIZON_S};
use std::sync::Arc;

/// What became of one coat.
#[derive(Debug, Clone, PartialEq)]
pub struct CoatHistory {
    /// The coat.
    pub coat: LaidCoat,
    /// States reached before the next coat was laid.
    pub events: Events,
    /// States reached if nothing more were laid; of a coat deep in a high stack (see
    /// [`FOLLOWED_ALONE`]) only those reached before the next coat.
    pub if_left: Events,
    /// Whether `if_left` was followed to its end.
    pub followed: bool,
    /// The same as is expected, where it was followed and that is not what is sure.
    pub likely: Option<Events>,
}

/// Every coat at one moment, from the ground up.
#[derive(Debug, Clone, PartialEq)]
pub struct Frame {
    /// The moment [s].
    pub at: f64,
    /// The coats there are by then.
    pub coats: Vec<CoatView>,
    /// Water in the ground [m].
    pub ground_m: f64,
}

/// One place of a picture over time: what lies there.
#[derive(Debug, Clone, PartialEq)]
pub struct Stack {
    /// Which place.
    pub place: PlaceId,
    /// The coats that lie there, in the order they were laid.
    pub coats: Vec<CoatHistory>,
    /// Moments in order, dense after each coat and sparse later.
    pub frames: Vec<Frame>,
}

/// A film that was followed already.
#[derive(Debug, Clone)]
pub struct FollowedCoat {
    /// Its last coat.
    pub coat: LaidCoat,
    /// The film right after it.
    pub film: Course,
    /// The same film, as far on as it was looked at with nothing more laid.
    pub ahead: Course,
}

/// What was followed already at one place of a picture.
#[derive(Debug, Clone)]
pub struct FollowedPlace {
    /// Which place.
    pub place: PlaceId,
    /// Its coats, in the order they were laid.
    pub coats: Vec<FollowedCoat>,
}

/// The film of a picture over time.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Timeline {
    /// All coats in the order they were laid, each as in the slowest of the places where it lies.
    pub coats: Vec<CoatHistory>,
    /// Each place of the picture.
    pub stacks: Vec<Stack>,
}

/// Height of a stack [coats] up to which every coat is also followed on its own: each costs a run
/// of weeks, and of a higher stack only the last coats are still worked on. [practice]
pub const FOLLOWED_ALONE: usize = 40;
/// Coats followed on their own in a higher stack. [practice]
const FOLLOWED_OF_MANY: usize = 6;
/// Coats, counted from the last one, that are never drawn with few moments: they are looked at.
/// [practice]
const LAST_COATS: usize = 3;
/// Moments they get at least. [practice]
const LEAST_FRAMES: usize = 40;
/// First moment after a coat that is drawn [s]. [practice]
const FIRST_FRAME_S: f64 = 30.0;

impl Timeline {
    /// The same as it was known at `t` [s]: what the last coat reaches later is left out.
    pub fn until(&self, t: f64) -> Self {
        let mut known = self.clone();
        let tops: Vec<usize> =
            known.stacks.iter().filter_map(|s| Some(s.coats.last()?.coat.step)).collect();
        let stacked = known.stacks.iter_mut().flat_map(|s| &mut s.coats);
        for last in stacked.chain(&mut known.coats).filter(|c| tops.contains(&c.coat.step)) {
            last.events = last.events.until(t.max(last.coat.at));
        }
        known
    }
}

/// Follows `coats` (in order of time) over a ground and on to `until` [s], as is sure by `futures`: at
/// every place of the picture those that lie there.
///
/// Up to `frames` moments are kept, spread over the coats, each run spaced evenly in the logarithm of time: as thick as
/// is expected, in the state that is sure. The coats for
/// which `alone` holds (by their place in `coats`) are also followed on their own until the stack
/// could be sealed.
///
/// # Errors
/// [`CoatFault`] when the film cannot be followed.
pub fn follow(
    picture: &Picture,
    coats: &[LaidCoat],
    futures: &Arc<Futures>,
    grid: Grid,
    (until, frames): (f64, usize),
    alone: impl Fn(usize) -> bool,
) -> Result<Timeline, CoatFault> {
    follow_on(picture, coats, futures, (grid, &[]), (until, frames), alone)
}

/// The same, where what is `known` was followed already in the same futures on the same grid.
///
/// # Errors
/// [`CoatFault`] when the film cannot be followed.
pub fn follow_on(
    picture: &Picture,
    coats: &[LaidCoat],
    futures: &Arc<Futures>,
    (grid, known): (Grid, &[FollowedPlace]),
    (until, frames): (f64, usize),
    alone: impl Fn(usize) -> bool,
) -> Result<Timeline, CoatFault> {
    let mut line = Timeline::default();
    for (place, there) in stacks(coats) {
        let of = |n: usize| coats.iter().position(|c| c.step == there[n].step).is_some_and(&alone);
        let known = known.iter().find(|k| k.place == place).map_or(&[][..], |k| &k.coats);
        let on = (grid, known);
        line.stacks.push(follow_one(picture, (place, &there), futures, on, (until, frames), of)?);
    }
    line.coats = coats.iter().filter_map(|coat| slowest(&line.stacks, coat)).collect();
    Ok(line)
}

/// What became of `coat` in the slowest of `stacks` that it lies in.
fn slowest(stacks: &[Stack], coat: &LaidCoat) -> Option<CoatHistory> {
    let there = stacks.iter().filter_map(|s| s.coats.iter().find(|c| c.coat == *coat));
    there.cloned().reduce(|a, b| CoatHistory {
        events: a.events.slower(&b.events),
        if_left: a.if_left.slower(&b.if_left),
        followed: a.followed || b.followed,
        likely: a.likely.zip(b.likely).map(|(a, b)| a.slower(&b)),
        coat: a.coat,
    })
}

/// Follows the coats of one place.
fn follow_one(
    picture: &Picture,
    (place, coats): (PlaceId, &[LaidCoat]),
    futures: &Arc<Futures>,
    (grid, known): (Grid, &[FollowedCoat]),
    (until, frames): (f64, usize),
    alone: impl Fn(usize) -> bool,
) -> Result<Stack, CoatFault> {
    let mut line = Stack { place, coats: Vec::with_capacity(coats.len()), frames: Vec::new() };
    let Some(first) = coats.first() else { return Ok(line) };
    let mut film = picture.bare(grid, first.at, futures);
    let mut expected = picture.bare(grid, first.at, &futures.expected());
    let unsure = !Arc::ptr_eq(&futures.expected(), futures);
    let most = if coats.len() > FOLLOWED_ALONE { FOLLOWED_OF_MANY } else { FOLLOWED_ALONE };
    let followed = |n: usize| coats.len() - n <= most && alone(n);
    let last_followed = (0..coats.len()).rfind(|n| followed(*n));
    let per_coat = (frames / coats.len()).max(2);
    for (n, coat) in coats.iter().enumerate() {
        let cannot = |e: Diverged| picture.fault(coat.step, e);
        let known = known.get(n).filter(|known| known.coat == *coat);
        match known {
            Some(known) => film.clone_from(&known.film),
            None => picture.lay(&mut film, coat)?,
        }
        let end = coats.get(n + 1).map_or(until.max(coat.at), |next| next.at);
        if frames > 0 || (unsure && last_followed.is_some_and(|last| n <= last)) {
            picture.lay(&mut expected, coat)?;
        }
        let left_of = |film: &Course| -> Result<Events, Diverged> {
            let mut fork = film.clone();
            let until = coat.at + HORIZON_S;
            for state in [FilmState::Paintable, FilmState::ReadyToSeal] {
                fork.advance(until, Some(state))?;
            }
            // What was looked at further before tells no more than what was not.
            let events = fork.events()?;
            let sealed = events.at(FilmState::ReadyToSeal);
            Ok(sealed.map_or_else(|| events.clone(), |at| events.until(at)))
        };
        // Frames are drawn from the beginning; without them it goes on from where it was looked at.
        if let Some(known) = known.filter(|_| frames == 0) {
            film.clone_from(&known.ahead);
        }
        let left = followed(n).then(|| left_of(&film)).transpose().map_err(cannot)?;
        let likely = (followed(n) && unsure).then(|| left_of(&expected)).transpose();
        let likely = likely.map_err(cannot)?;
        if frames > 0 {
            let sets = film.sets(end).map_err(cannot)?;
            line.frames.push(frame(&film, &expected, sets));
            let last = coats.len() - n <= LAST_COATS;
            let kept = if last { per_coat.max(LEAST_FRAMES) } else { per_coat };
            for at in moments(coat.at, end, kept) {
                film.advance(at, None).map_err(cannot)?;
                expected.advance(at, None).map_err(cannot)?;
                line.frames.push(frame(&film, &expected, sets));
            }
        }
        if n + 1 == coats.len() && frames == 0 {
            let until = until.max(coat.at);
            for state in [FilmState::Paintable, FilmState::ReadyToWrap] {
                film.advance(until, Some(state)).map_err(cannot)?;
            }
        } else {
            film.advance(end, None).map_err(cannot)?;
        }
        let events = film.events().map_err(cannot)?.until(end);
        line.coats.push(CoatHistory {
            coat: *coat,
            followed: left.is_some(),
            if_left: left.unwrap_or_else(|| events.clone()),
            likely,
            events,
        });
    }
    Ok(line)
}

/// The films of `picture` right after the last of `coats` (in order of time), one for each place.
///
/// # Errors
/// [`CoatFault`] when one cannot be followed.
pub fn films_after(
    picture: &Picture,
    coats: &[LaidCoat],
    futures: &Arc<Futures>,
) -> Result<Vec<Course>, CoatFault> {
    let film = |(_, coats): (PlaceId, Vec<LaidCoat>)| {
        let mut film = picture.bare(Grid::PLANNING, coats[0].at, futures);
        for coat in &coats {
            picture.lay(&mut film, coat)?;
        }
        Ok(film)
    };
    stacks(coats).into_iter().map(film).collect()
}

impl Picture {
    /// The film of the picture before anything is laid, at `at` [s], as is sure by `futures`.
    pub fn bare(&self, grid: Grid, at: f64, futures: &Arc<Futures>) -> Course {
        Course::bare(futures.clone(), (self.ground, self.shorter_side_m()), grid, at)
    }

    /// Follows `film` to `coat` and lays it.
    ///
    /// # Errors
    /// [`CoatFault`] when it cannot be followed.
    pub fn lay(&self, film: &mut Course, coat: &LaidCoat) -> Result<(), CoatFault> {
        film.lay(coat.at, coat.wet_m, coat.mix).map_err(|e| self.fault(coat.step, e))
    }
}

/// The film as it is expected in `drawn`, in the states that are sure in `film`, whose last coat `sets`
/// at a moment [s].
fn frame(film: &Course, drawn: &Course, sets: Option<f64>) -> Frame {
    let stack = drawn.film().stack();
    let mut coats = stack.views();
    let sure = film.film().stack().views();
    let sets = sets.is_some_and(|at| at <= film.time());
    let top = coats.len().saturating_sub(1);
    for (n, (coat, sure)) in coats.iter_mut().zip(sure).enumerate() {
        let least = if n == top && sets { FilmState::Setting } else { FilmState::Workable };
        coat.state = sure.state.max(least);
    }
    Frame { at: drawn.time(), coats, ground_m: stack.ground_water() }
}

/// `n` moments after `from` up to `to`, evenly spaced in the logarithm of the time since `from`.
fn moments(from: f64, to: f64, n: usize) -> Vec<f64> {
    let span = to - from;
    if span <= FIRST_FRAME_S {
        return if span > 0.0 { vec![to] } else { vec![] };
    }
    let growth = (span / FIRST_FRAME_S).ln();
    (0..n)
        .map(|i| {
            if i + 1 == n {
                return to;
            }
            let share = i as f64 / (n - 1) as f64;
            (from + FIRST_FRAME_S * (growth * share).exp()).min(to)
        })
        .collect()
}
