//! What becomes of a picture's coats, laid and planned: the numbers behind strata and verdict.

use super::Plan;
use crate::film::{Events, FilmState, Grid};
use crate::picture::{CoatFault, CoatHistory, Frame, LaidCoat, Timeline, follow};
use crate::readiness::Done;
use crate::studio::Studio;
use crate::time::{exact_instant, seconds};

/// A coat, laid or planned, with what it allows and when.
#[derive(Debug, Clone, PartialEq)]
pub struct CoatOutlook {
    /// The coat and the states it reaches.
    pub history: CoatHistory,
    /// Whether it is only planned.
    pub planned: bool,
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
    let moments = line
        .frames
        .iter()
        .filter_map(|frame| {
            Some(FilmMoment {
                at: frame.at,
                thickness_m: frame.coats.iter().map(|c| c.thickness_m).sum(),
                state: frame.coats.iter().map(|c| c.state).min()?,
            })
        })
        .collect();
    Ok(moments)
}

/// The coats of picture `p` in order of time: those laid and those of `plan`.
pub(crate) fn coats_of(studio: &Studio, p: usize, plan: &Plan) -> Result<Vec<LaidCoat>, CoatFault> {
    let mine = plan.steps.iter().filter(|s| s.picture == p);
    let planned = mine.filter_map(|s| Some((s.step, seconds(s.sittings.last()?.to))));
    studio.pictures[p].coats(&studio.materials, planned)
}

/// Follows the coats of picture `p`, those laid and those of `plan`, up to `until` [s], keeping up
/// to `frames` moments of the film. Without frames only the last laid coat is followed on its own:
/// it alone can be asked about now.
///
/// # Errors
/// [`CoatFault`] when a coat cannot be computed.
pub fn outlook(
    studio: &Studio,
    p: usize,
    plan: &Plan,
    (until, frames): (f64, usize),
) -> Result<(Vec<CoatOutlook>, Vec<Frame>), CoatFault> {
    let picture = &studio.pictures[p];
    let laid = studio.laid_coats(p)?.len();
    let coats = coats_of(studio, p, plan)?;
    let line = follow(picture, &coats, &studio.futures(), Grid::PLANNING, (until, frames), |n| {
        frames > 0 || n + 1 == laid
    })?;
    let frames = line.frames.clone();
    Ok((decorate(studio, p, line, laid), frames))
}

/// Shares of the futures for which the times of a spread are told [-]; drying.md.
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
    let at = |level| {
        let futures = studio.futures_at(level);
        follow(picture, &coats, &futures, Grid::PLANNING, (until, 0), |n| n + 1 >= laid)
    };
    let [few, half, most] = SPREAD.map(at);
    let (few, half, most) = (few?, half?, most?);
    let of = |n: usize| [&few, &half, &most].map(|line| line.coats[n].if_left.clone());
    let followed = (0..coats.len()).filter(|n| half.coats[*n].followed);
    Ok(followed.map(|n| (coats[n].step, of(n))).collect())
}

/// What the coats of picture `p`, of which `laid` are laid, allow and when.
pub(super) fn decorate(studio: &Studio, p: usize, line: Timeline, laid: usize) -> Vec<CoatOutlook> {
    let picture = &studio.pictures[p];
    let seal = picture.steps.iter().position(|s| s.kind.seals() && s.laid_at.is_none());
    let under = seal.map_or_else(Vec::new, |i| picture.all_below(i));
    let coats: Vec<usize> = line.coats.iter().map(|c| c.coat.step).collect();
    let mut done = Done::nothing(studio, p);
    let outlooks = line.coats.into_iter().enumerate().map(|(n, history)| {
        let i = history.coat.step;
        let step = &picture.steps[i];
        done.mark(studio, i, exact_instant(history.coat.at), true);
        let to_come = |k: &&usize| {
            let kind = picture.steps[**k].kind;
            kind.must_leave_film() && !kind.seals() && !coats[..=n].contains(k)
        };
        let reached = |state| history.if_left.safe_at(state).map(exact_instant);
        let from = match seal {
            Some(seal) if step.laid_at.is_some() => {
                let film = done.needs(studio, seal).state().and_then(reached);
                film.and_then(|film| done.ready(studio, (seal, &[]), Some(film)).0)
            }
            None if !step.kind.seals() => {
                let floor = done.painted().seal_from(studio.schools.waiting);
                reached(FilmState::ReadyToSeal).map(|at| at.max(floor.unwrap_or(at)))
            }
            _ => None,
        };
        CoatOutlook {
            planned: n >= laid,
            seal_from: from.map(seconds),
            paint_to_come: under.iter().any(|k| to_come(&k)),
            history,
        }
    });
    outlooks.collect()
}
