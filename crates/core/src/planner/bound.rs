//! What no plan can beat, and what no plan that is known of can.
//!
//! Two relaxations are joined. Alone: each picture as if the painter had no other. What is proved takes every film
//! as ready at once: a film that is given more time between coats can be ready sooner after the last, so no wait
//! for a film bounds another plan's. What was seen takes the films of the picture alone, or of any plan that was
//! played, whichever is earlier: a search that is there knows of nothing better. Work: the painter does one thing at
//! a time, so
//! that the k-th picture to be finished needs at least the hours of the k shortest. In any plan the picture that is finished as the k-th is finished no
//! earlier than both say; the cheapest way to give pictures their rank (an assignment problem)
//! bounds the days late, and sorted finishes bound their sum. Rest: of the work up to any step the k-th
//! is done no earlier than the hours of the k least, and each picture then still takes at least the
//! shortest waits that were seen and the work after it; whichever step is looked at, the sum of both
//! bounds the sum of finishes.

use super::decode::{Order, Schedule};
use super::films::Films;
use super::played::Judged;
use super::problem::Problem;
use super::score::Score;
use crate::readiness::{Wait, WaitReason};
use pathfinding::prelude::{Matrix, kuhn_munkres_min};

/// Weighted days are compared to a thousandth [1/d].
const THOUSANDTHS: f64 = 1000.0;

/// What a bound rests on.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Rests {
    /// Hours, work and floors: no plan is better.
    Proved,
    /// The films that were seen too: nothing that is known of is better.
    Seen,
}

/// The bound of a problem.
pub(super) fn bound(problem: &Problem<'_>, films: &mut Films, rests: Rests) -> Score {
    films.judged = if rests == Rests::Proved { Judged::Floors } else { Judged::Films };
    let found = bounded(problem, films, rests);
    films.judged = Judged::Films;
    found
}

fn bounded(problem: &Problem<'_>, films: &mut Films, by: Rests) -> Score {
    let pictures: Vec<usize> = (0..problem.tasks.len())
        .filter(|p| problem.tasks[*p].iter().any(Option::is_some))
        .collect();
    let mut total = Score::default();
    let mut alone: Vec<i64> = Vec::new();
    let mut work: Vec<i64> = Vec::new();
    let mut ranked: Vec<usize> = Vec::new();
    let mut rows: Vec<Vec<Rest>> = Vec::new();
    for p in &pictures {
        let order = Order::by_picture(problem, &[*p]);
        let Some(single) = Schedule::play(problem, films, &order, None) else { continue };
        if single.blocked.iter().any(|(q, ..)| q == p) {
            total.blocked += 1;
            continue;
        }
        if single.placed.is_empty() {
            continue;
        }
        let busy = least_work(problem, *p);
        // Steps that form a graph could be done in a better order than the one played.
        let finish = if is_chain(problem, *p) {
            let alone = problem.from + single.score.sum;
            let seen = films.earliest_finish(*p).filter(|_| by == Rests::Seen);
            seen.map_or(alone, |seen| seen.min(alone))
        } else {
            finishes_of_work(problem, &mut [busy])[0]
        };
        rows.push(if is_chain(problem, *p) {
            rests(problem, films, (&single, by), *p)
        } else {
            vec![]
        });
        alone.push(finish);
        work.push(busy);
        ranked.push(*p);
    }
    let with_rest = with_rests(problem, (&work, &alone), &rows);
    let dones = finishes_of_work(problem, &mut work);
    total.late = least_late(problem, &ranked, &alone, &dones);
    alone.sort_unstable();
    total.sum = alone.iter().zip(&dones).map(|(a, b)| a.max(b) - problem.from).sum();
    total.sum = total.sum.max(with_rest);
    total.set_ups = least_set_ups(problem);
    total
}

/// A step of a picture: its work, and the least time from the end of the step before it to its own end.
struct Rest {
    /// Work of the step, with a set-up that it shares with no other [s].
    work: i64,
    /// Hands-on time of it [s].
    hands_on: i64,
    /// Shortest wait seen, and the place in the row of the step it counts from.
    lag: Option<(i64, usize)>,
}

/// The steps of picture `p` in the order of `single`, its plan alone.
fn rests(
    problem: &Problem<'_>,
    films: &Films,
    (single, by): (&Schedule, Rests),
    p: usize,
) -> Vec<Rest> {
    let set_up = crate::time::minutes_s(problem.studio.setup_min);
    let mine: Vec<_> = single.placed.iter().filter(|x| x.picture == p).collect();
    let rest = |placed: &&super::decode::Placed| {
        let task = problem.task(p, placed.step);
        let hands_on = task.map_or(0, |t| t.hands_on);
        let own = task.is_some_and(|t| t.own_set_up && t.pinned.is_none());
        // A wait until the next day may be short; what is asked for by a date is no length of time.
        let lasts = |w: &&Wait| {
            use WaitReason::{Film, Gap, Retarder, School, SlowPaint, SolventOverWater};
            let film = w.reason == Film && by == Rests::Seen;
            film || matches!(w.reason, Gap | Retarder | School | SlowPaint | SolventOverWater)
        };
        let wait = placed.wait.as_ref().filter(lasts);
        let of = wait.and_then(|w| mine.iter().position(|x| Some(x.step) == w.of));
        let lag = wait.zip(of).map(|(w, of)| {
            let seen = crate::time::minutes_s(w.lag_min);
            (films.shortest_lag((p, placed.step), w).map_or(seen, |known| known.min(seen)), of)
        });
        let pinned = task.is_none_or(|t| t.pinned.is_some());
        let work = if pinned { 0 } else { hands_on + if own { set_up } else { 0 } };
        Rest { work, hands_on, lag }
    };
    mine.iter().map(rest).collect()
}

/// The greatest bound of the sum of finishes [s] over all places at which the rows are cut.
fn with_rests(problem: &Problem<'_>, (work, alone): (&[i64], &[i64]), rows: &[Vec<Rest>]) -> i64 {
    let longest = rows.iter().map(Vec::len).max().unwrap_or(0);
    let cut_at = |last: usize| {
        let mut least: Vec<i64> = Vec::with_capacity(rows.len());
        let mut tails = 0;
        for (n, row) in rows.iter().enumerate() {
            if row.is_empty() {
                // Not a chain: only its work is known.
                least.push(work[n]);
            } else if row.len() <= last {
                least.push(0);
                tails += alone[n] - problem.from;
            } else {
                let cut = row.len() - last;
                least.push(row[..cut].iter().map(|r| r.work).sum());
                tails += tail(row, cut);
            }
        }
        let ends = finishes_of_work(problem, &mut least);
        ends.iter().map(|end| end - problem.from).sum::<i64>() + tails
    };
    (1..=longest).map(cut_at).max().unwrap_or(0)
}

/// The least time from the end of the step before `cut` to the end of the row [s].
fn tail(row: &[Rest], cut: usize) -> i64 {
    // Ends after that of the step before the cut; what came earlier is not looked at.
    let mut ends: Vec<i64> = Vec::with_capacity(row.len() - cut);
    let mut end = 0;
    for rest in &row[cut..] {
        let waits = rest.lag.and_then(|(lag, of)| {
            let from = match of.checked_sub(cut) {
                Some(k) => *ends.get(k)?,
                None if of + 1 == cut => 0,
                None => return None,
            };
            Some(from + lag)
        });
        end = waits.map_or(end, |at| at.max(end)) + rest.hands_on;
        ends.push(end);
    }
    end
}

fn is_chain(problem: &Problem<'_>, p: usize) -> bool {
    let tasks = &problem.tasks[p];
    let open: Vec<usize> = (0..tasks.len()).filter(|i| tasks[*i].is_some()).collect();
    open.windows(2).all(|pair| tasks[pair[1]].as_ref().is_some_and(|t| t.below.contains(&pair[0])))
}

/// The least weighted days late when `pictures`, each not before `alone`, take the ranks `dones`.
fn least_late(problem: &Problem<'_>, pictures: &[usize], alone: &[i64], dones: &[i64]) -> f64 {
    let cost = |n: usize, k: usize| {
        let p = pictures[n];
        let days = problem.days_late(p, alone[n].max(dones[k])) as f64;
        (problem.picture(p).weight * days * THOUSANDTHS).floor() as i64
    };
    let rows =
        (0..pictures.len()).map(|n| (0..pictures.len()).map(|k| cost(n, k)).collect::<Vec<_>>());
    match Matrix::from_rows(rows) {
        Ok(costs) if costs.rows > 0 => kuhn_munkres_min(&costs).0 as f64 / THOUSANDTHS,
        _ => 0.0,
    }
}

/// Seconds of free time that picture `p` takes in any plan. A pinned step's time is not free.
fn least_work(problem: &Problem<'_>, p: usize) -> i64 {
    let set_up = crate::time::minutes_s(problem.studio.setup_min);
    problem.tasks[p]
        .iter()
        .flatten()
        .filter(|t| t.pinned.is_none())
        .map(|t| t.hands_on + if t.own_set_up { set_up } else { 0 })
        .sum()
}

/// When the hours have room for the work of the k shortest, for each k.
fn finishes_of_work(problem: &Problem<'_>, work: &mut [i64]) -> Vec<i64> {
    work.sort_unstable();
    let mut free = problem.calendar.free();
    let mut stretch = free.next();
    let mut used = 0;
    let mut finishes = Vec::with_capacity(work.len());
    for need in work.iter() {
        let mut left = *need;
        let mut end = problem.from;
        while left > 0 {
            let Some((from, to)) = stretch else { break };
            let room = to - from - used;
            if room >= left {
                used += left;
                end = from + used;
                left = 0;
            } else {
                left -= room;
                used = 0;
                end = to;
                stretch = free.next();
            }
        }
        finishes.push(end);
    }
    finishes
}

/// Set-ups that no plan can do without.
fn least_set_ups(problem: &Problem<'_>) -> u32 {
    if problem.studio.setup_min <= 0.0 {
        return 0;
    }
    let tasks = || problem.tasks.iter().flatten().flatten();
    let own = tasks().filter(|t| t.own_set_up).count();
    let mut shared: Vec<u32> = tasks()
        .filter(|t| !t.own_set_up && t.pinned.is_none() && t.bench.mix != 0)
        .map(|t| t.bench.mix)
        .collect();
    shared.sort_unstable();
    shared.dedup();
    (own + shared.len()) as u32
}
