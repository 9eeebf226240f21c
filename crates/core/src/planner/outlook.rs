//! What becomes of a picture's coats, laid and planned: the numbers behind strata and verdict.

use super::Plan;
use crate::film::{Events, FilmState, Grid};
use crate::picture::{CoatFault, CoatHistory, LaidCoat, follow, on_top};
use crate::readiness::{Done, FilmReady};
use crate::studio::Studio;
use crate::time::{exact_instant, seconds};
use std::cmp::Ordering;

/// A coat, laid or planned, with what it allows and when.
#[derive(Debug, Clone, PartialEq)]
pub struct CoatOutlook {
    /// The coat and the states it reaches.
    pub history: CoatHistory,
    /// Whether it is only planned.
    pub planned: bool,
    /// Whether it is the last laid coat somewhere: it alone can be asked about now.
    pub on_top: bool,
    /// From when the next sealing coat may be laid on it if nothing else is [s], by the one law: film and
    /// the schools' floors. `None` when nothing seals it, or it is never cured for it.
    pub seal_from: Option<f64>,
    /// Whether paint is still to come over it below the next sealing coat: it is not sealed as it is.
    pub paint_to_come: bool,
}

/// The whole film of a picture at one moment.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct FilmMoment {
    /// The moment [s of the epoch].
    pub at: f64,
    /// Thickness of all coats, with what is still in them [m].
    pub thickness_m: f64,
    /// What the stack allows: the state of its least dry coat.
    pub state: FilmState,
}

/// The film of picture `p` as a line through time, up to `until` [s], in up to `frames` moments.
///
/// # Errors
/// [`CoatFault`] when a coat cannot be computed.
pub fn film_line(
    studio: &Studio,
    p: usize,
    plan: &Plan,
    (until, frames): (f64, usize),
) -> Result<Vec<FilmMoment>, CoatFault> {
    let picture = &studio.pictures[p];
    let coats = coats_of(studio, p, plan)?;
    let line = follow(picture, &coats, &studio.futures(), Grid::DRAWN, (until, frames), |_| false)?;
    let lines = line.stacks.iter().map(|stack| {
        stack.frames.iter().filter_map(|frame| {
            Some(FilmMoment {
                at: frame.at,
                thickness_m: frame.coats.iter().map(|c| c.thickness_m).sum(),
                state: frame.coats.iter().map(|c| c.state).min()?,
            })
        })
    });
    Ok(together(lines.map(Iterator::collect).collect()))
}

/// The places of a picture as one line: at every moment the thickest and the least dry of them.
fn together(mut lines: Vec<Vec<FilmMoment>>) -> Vec<FilmMoment> {
    if lines.len() <= 1 {
        return lines.pop().unwrap_or_default();
    }
    let mut times: Vec<f64> = lines.iter().flatten().map(|m| m.at).collect();
    times.sort_unstable_by(f64::total_cmp);
    times.dedup();
    let at = |t: f64| {
        let then =
            |line: &Vec<FilmMoment>| line[..line.partition_point(|m| m.at <= t)].last().copied();
        lines.iter().filter_map(then).reduce(|a, b| FilmMoment {
            at: t,
            thickness_m: a.thickness_m.max(b.thickness_m),
            state: a.state.min(b.state),
        })
    };
    times.into_iter().filter_map(|t| at(t).map(|m| FilmMoment { at: t, ..m })).collect()
}

/// The coats of picture `p` in order of time: those laid and those of `plan`.
pub(crate) fn coats_of(studio: &Studio, p: usize, plan: &Plan) -> Result<Vec<LaidCoat>, CoatFault> {
    let mine = plan.steps.iter().filter(|s| s.picture == p);
    let planned = mine.filter_map(|s| Some((s.step, seconds(s.sittings.last()?.to))));
    studio.pictures[p].coats(&studio.materials, planned)
}

/// The one of `outlooks` (by its turn) that the picture is judged by at `now` [s]: the last laid coat, and of
/// several places that of the slowest: the least dry, then the one that goes on last.
pub fn slowest_top(outlooks: &[CoatOutlook], now: f64) -> Option<usize> {
    let times = |n: usize| {
        let left = &outlooks[n].history.if_left;
        FilmState::REACHED.map(|state| left.at(state).unwrap_or(f64::INFINITY))
    };
    let slower = |a: &usize, b: &usize| {
        let (a, b) = (times(*a), times(*b));
        let reached = |times: &[f64]| times.iter().filter(|at| **at <= now).count();
        let last = a.iter().rev().zip(b.iter().rev()).map(|(a, b)| a.total_cmp(b));
        let last = last.fold(Ordering::Equal, Ordering::then);
        reached(&b).cmp(&reached(&a)).then(last)
    };
    (0..outlooks.len()).filter(|n| outlooks[*n].on_top).max_by(slower)
}

/// Shares of the futures for which the times of a spread are told [-]; docs/model/drying.md.
pub const SPREAD: [f64; 3] = [0.1, 0.5, 0.9];

/// When the last laid coat of picture `p` and those of `plan` reach each state in so many of the
/// futures, see [`SPREAD`], if nothing more is laid on them.
///
/// # Errors
/// [`CoatFault`] when a coat cannot be computed.
pub fn spread(
    studio: &Studio,
    p: usize,
    plan: &Plan,
) -> Result<Vec<(usize, [Events; 3])>, CoatFault> {
    let picture = &studio.pictures[p];
    let laid = studio.laid_coats(p)?.len();
    let coats = coats_of(studio, p, plan)?;
    let until = coats.last().map_or(0.0, |c| c.at);
    let tops = on_top(&coats[..laid]);
    let at = |level| {
        let futures = studio.futures_at(level);
        follow(picture, &coats, &futures, Grid::PLANNING, (until, 0), |n| {
            n >= laid || tops.contains(&n)
        })
    };
    let [few, half, most] = SPREAD.map(at);
    let (few, half, most) = (few?, half?, most?);
    let of = |n: usize| [&few, &half, &most].map(|line| line.coats[n].if_left.clone());
    let followed = (0..coats.len()).filter(|n| half.coats[*n].followed);
    Ok(followed.map(|n| (coats[n].step, of(n))).collect())
}

/// What the coats of picture `p`, of which `laid` are laid, allow and when.
pub(super) fn decorate(
    studio: &Studio,
    p: usize,
    coats: Vec<CoatHistory>,
    laid: usize,
) -> Vec<CoatOutlook> {
    let picture = &studio.pictures[p];
    let seal = picture.steps.iter().position(|s| s.kind.seals() && s.laid_at.is_none());
    let under = seal.map_or_else(Vec::new, |i| picture.all_below(i));
    let steps: Vec<usize> = coats.iter().map(|c| c.coat.step).collect();
    let mut done = Done::nothing(studio, p);
    let outlooks = coats.into_iter().enumerate().map(|(n, history)| {
        let i = history.coat.step;
        let step = &picture.steps[i];
        done.mark(studio, i, exact_instant(history.coat.at), true);
        let to_come = |k: &&usize| {
            let kind = picture.steps[**k].kind;
            kind.must_leave_film() && !kind.seals() && !steps[..=n].contains(k)
        };
        let reached = |state| history.if_left.at(state).map(exact_instant);
        let from = match seal {
            Some(seal) if step.laid_at.is_some() => {
                let film = done.needs(studio, seal).state().and_then(reached);
                let ready = |at| Some(FilmReady { at, of: i });
                film.and_then(|film| done.ready(studio, (seal, &[]), ready(film)).0)
            }
            None if !step.kind.seals() => {
                let floor = done.painted().seal_from(studio.schools.waiting);
                reached(FilmState::ReadyToSeal).map(|at| at.max(floor.unwrap_or(at)))
            }
            _ => None,
        };
        CoatOutlook {
            planned: n >= laid,
            on_top: false,
            seal_from: from.map(seconds),
            paint_to_come: under.iter().any(|k| to_come(&k)),
            history,
        }
    });
    let mut outlooks: Vec<CoatOutlook> = outlooks.collect();
    // What is sealed is the whole picture: where it is slowest decides, whichever place is asked about.
    let tops = on_top(&outlooks[..laid].iter().map(|o| o.history.coat).collect::<Vec<_>>());
    let from = |n: &usize| outlooks[*n].seal_from.unwrap_or(f64::INFINITY);
    let last = tops.iter().map(from).fold(f64::NEG_INFINITY, f64::max);
    for n in tops {
        outlooks[n].on_top = true;
        outlooks[n].seal_from = Some(last).filter(|at| at.is_finite());
    }
    outlooks
}
