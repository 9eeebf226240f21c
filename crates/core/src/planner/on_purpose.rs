//! Steps that wait on purpose. A coat that is laid as soon as it may be keeps the slow volatile of the coats below it
//! in: over retarder and slow paint, and below varnish, a day more between two coats can make the whole ready days
//! sooner. What is held back is held by so much after it could be done, in every order of work.

use super::decode::{Order, PictureProgress, Schedule};
use super::films::Films;
use super::held_back::{At, HeldBack};
use super::parallel::{in_parallel, threads};
use super::problem::Problem;
use crate::film::Grid;
use crate::picture::ReadyBy;
use crate::time::DAY_S;

/// By how much steps are held back, one after the other as long as each makes the picture ready sooner [days]. [practice]
const TRIED: [f64; 5] = [1.0, 2.0, 3.0, 5.0, 8.0];
/// By how much sooner a picture must be ready for it [days]. [practice] less is the next morning anyway
const WORTH: f64 = 0.5;
/// Slow volatile of a cup from which what is laid over it waits [-, by volume]: retarder or slow paint in it; a plain
/// glaze has 0.09. [practice]
const BURIED_FROM: f64 = 0.12;
/// How often all coats of a picture are gone through at most. [practice]
const ROUNDS: usize = 3;
/// Films that are followed for one picture at most [-]: of many coats only the first ones are tried each by itself.
/// [practice] a tenth of a second
const MOST_FILMS: u64 = 150;
/// Steps still to do of a studio above which it is not tried [-]: each try plays them all. [practice]
const MOST_STEPS: usize = 120;

/// Holds back what makes a picture ready sooner by more than [`WORTH`], and tells the plan that comes out; `plain` is the
/// one without. Nothing hangs on what was asked before: the same studio and order give the same plan.
pub(super) fn hold_back(
    problem: &mut Problem<'_>,
    films: &mut Films,
    order: &Order,
    plain: Schedule,
) -> Schedule {
    if problem.steps_left() > MOST_STEPS {
        return plain;
    }
    let mut held = found_alone(problem, films, &plain);
    // What helps a picture alone is kept where it helps it among the others, and harms none of them.
    while !held.is_empty() {
        problem.hold_back(&held);
        let Some(made) = Schedule::play(problem, films, order, None) else { break };
        let mut mine = held.iter().map(|h| h.picture);
        let none_for = mine.clone().find(|p| !is_worth_it(problem, (&plain, &made), *p));
        let for_nothing = none_for.or_else(|| {
            let mut harmed = plain.progress.iter().zip(&made.progress).enumerate();
            let later = |(q, (was, is)): (usize, (&PictureProgress, &PictureProgress))| {
                held.iter().all(|h| h.picture != q) && {
                    let day = |p: &PictureProgress| p.ready.map(|at| problem.day(at));
                    day(is) > day(was)
                }
            };
            harmed.any(later).then(|| mine.next_back()).flatten()
        });
        let Some(p) = for_nothing else { return made };
        held.retain(|h| h.picture != p);
    }
    problem.hold_back(&[]);
    plain
}

/// What is to be held back of each picture, were it the only one.
fn found_alone(problem: &mut Problem<'_>, films: &mut Films, plain: &Schedule) -> Vec<HeldBack> {
    let could =
        |p: &usize| !free_coats(problem, *p).is_empty() && ready_at(problem, plain, *p).is_some();
    let pictures: Vec<usize> = (0..problem.tasks.len()).filter(could).collect();
    problem.hold_back(&[]);
    let (mut held, mut unknown) = (Vec::new(), Vec::new());
    for p in pictures {
        let order = Order::by_picture(problem, &[p]);
        let Some(alone) = Schedule::play(problem, films, &order, None) else { continue };
        let times = times(&alone, p);
        // What was found holds as long as the picture is done at the same times without it.
        match films.held_back(p, &times) {
            Some(known) => held.extend(known),
            None => unknown.push((p, order, times)),
        }
    }
    let asked = &*problem;
    // Looked for with rough films: whether it is worth it is judged in the plan, with the fine ones.
    let looked = in_parallel(unknown.len(), threads(), |n| {
        let (p, order, _) = &unknown[n];
        let (mut alone, mut rough) =
            (asked.clone(), Films::of_one(asked.studio, (*p, Grid::ROUGH)));
        Some(hold_picture(&mut alone, &mut rough, order, *p))
    });
    for ((p, _, times), found) in unknown.into_iter().zip(looked) {
        films.keep_held_back(p, times, found.clone());
        held.extend(found);
    }
    // Nothing hangs on what was known.
    held.sort_by_key(|h| h.picture);
    held
}

/// Whether picture `p` is ready sooner by [`WORTH`] in `made` than in `plain`, and not given up.
fn is_worth_it(problem: &Problem<'_>, (plain, made): (&Schedule, &Schedule), p: usize) -> bool {
    let [was, is] = [plain, made].map(|plan| ready_at(problem, plan, p));
    was.zip(is).is_some_and(|(was, is)| is + (WORTH * DAY_S) as i64 <= was)
}

/// The coats of picture `p` that are held back so that it is ready soonest.
fn hold_picture(
    problem: &mut Problem<'_>,
    films: &mut Films,
    order: &Order,
    p: usize,
) -> Vec<HeldBack> {
    let Some(mut made) = Schedule::play(problem, films, order, None) else { return Vec::new() };
    // What lies over slow paint together, then each by itself.
    let together = over_slow(problem, p);
    let singly = free_coats(problem, p).into_iter().map(|i| vec![i]);
    let tries: Vec<_> = std::iter::once(together).chain(singly).collect();
    let tries: Vec<_> = tries.iter().filter(|steps| !steps.is_empty()).collect();
    let begun = films.made();
    let mut last = tries.len();
    let mut n = 0;
    // Round after round, until each was tried since the last one that was better.
    while n < last.min(ROUNDS * tries.len()) && films.made() - begun <= MOST_FILMS {
        let steps = tries[n % tries.len()];
        if let Some(found) = held_by_days(problem, films, (order, &made), (p, steps)) {
            made = found;
            last = n + tries.len();
        }
        n += 1;
    }
    problem.held_back()
}

/// Step and end [s of the epoch] of what is placed of picture `p`, in the order of placing.
fn times(made: &Schedule, p: usize) -> Vec<At> {
    let mine = made.placed.iter().filter(|placed| placed.picture == p);
    mine.map(|placed| (placed.step, placed.slot.to())).collect()
}

/// The plan with `steps` of picture `p` held back by the days that make it ready soonest; none where that is not worth
/// it.
fn held_by_days(
    problem: &mut Problem<'_>,
    films: &mut Films,
    (order, made): (&Order, &Schedule),
    (p, steps): (usize, &[usize]),
) -> Option<Schedule> {
    let was = ready_at(problem, made, p)?;
    let before = problem.held_back();
    let (mut best, mut found) = (before.clone(), None);
    let mut soonest = was - (WORTH * DAY_S) as i64;
    // What waits already may do so for nothing by now.
    let waits = before.iter().any(|h| h.picture == p && steps.contains(&h.step));
    let mut last = was;
    for days in waits.then_some(0.0).into_iter().chain(TRIED) {
        let by_s = (days * DAY_S) as i64;
        let more = steps.iter().map(|step| HeldBack { picture: p, step: *step, by_s });
        let kept = before.iter().filter(|h| h.picture != p || !steps.contains(&h.step)).copied();
        let held: Vec<HeldBack> = kept.chain(more).collect();
        problem.hold_back(&held);
        let Some(tried) = Schedule::play(problem, films, order, None) else { break };
        let Some(at) = ready_at(problem, &tried, p) else { break };
        let worth = if days > 0.0 { at < soonest } else { at <= was };
        if worth {
            (soonest, best, found) = (soonest.min(at), held, Some(tried));
        }
        // Longer does not help where this does not: so it was in each of a thousand tries of drawn pictures.
        if days > 0.0 && (at >= was || at > last) {
            break;
        }
        if days > 0.0 {
            last = at;
        }
    }
    problem.hold_back(&best);
    found
}

/// When picture `p` is ready by a plan [s of the epoch]; nothing where waiting on purpose could not matter.
fn ready_at(problem: &Problem<'_>, made: &Schedule, p: usize) -> Option<i64> {
    let picture = problem.picture(p);
    let wrapped = picture.ready_by == ReadyBy::Wrapped;
    if !wrapped || (picture.due.is_none() && !picture.is_packed()) {
        return None;
    }
    made.progress[p].ready
}

/// Coats still to do of picture `p` that lie on one with much slow volatile, and are not pinned.
fn over_slow(problem: &Problem<'_>, p: usize) -> Vec<usize> {
    let studio = problem.studio;
    let picture = problem.picture(p);
    let slow = |i: usize| {
        let coat = picture.steps[i].coat(&studio.materials);
        coat.is_ok_and(|coat| coat.is_some_and(|(_, mix)| mix.glycol() >= BURIED_FROM))
    };
    let on_slow = |i: &usize| problem.task(p, *i).is_some_and(|t| t.below.iter().any(|b| slow(*b)));
    free_coats(problem, p).into_iter().filter(on_slow).collect()
}

/// Coats still to do of picture `p` that are not pinned.
fn free_coats(problem: &Problem<'_>, p: usize) -> Vec<usize> {
    let free = |i: &usize| problem.task(p, *i).is_some_and(|t| t.lays && t.pinned.is_none());
    (0..problem.picture(p).steps.len()).filter(free).collect()
}
