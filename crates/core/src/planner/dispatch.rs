//! Orders of work by simple rules: pictures by their date, by what is left to do, by the slack between both, one
//! after the other or each begun a little after the one before it. One of them is often good.

use super::decode::{Order, Schedule};
use super::films::Films;
use super::parallel::{in_parallel, threads};
use super::problem::Problem;
use crate::time::{DAY_S, whole_seconds};

/// Steps of a picture after which the next one is begun, in orders that are tried first [-]. [practice] before
/// seals that wait for coats below, 0.5 to 0.7 is a tenth better than all at once, a fifth than one after the other
const AFTERS: [f64; 7] = [0.05, 0.1, 0.2, 0.3, 0.5, 0.7, 1.0];
/// Rankings of the pictures.
const RULES: usize = 8;
/// Which orders are played for the first plan: rule and [`AFTERS`], the best first. Measured over twelve studios of 4 to
/// 12 pictures: the best of all orders stood in these columns, and one of these eight came within a tenth of it
const FIRST: [(usize, usize); 8] = [(0, 4), (3, 4), (0, 2), (3, 5), (0, 5), (5, 3), (1, 4), (1, 0)];
/// Steps played in all orders together for the first plan [-]. [practice] half a second
const MOST_PLAYED: usize = 800;

/// Pictures in turn by one rule.
fn by<K: PartialOrd>(problem: &Problem<'_>, key: impl Fn(usize) -> K) -> Vec<usize> {
    let mut pictures: Vec<usize> = (0..problem.tasks.len()).collect();
    pictures.sort_by(|a, b| {
        let keys = key(*a).partial_cmp(&key(*b));
        keys.unwrap_or(std::cmp::Ordering::Equal)
    });
    pictures
}

/// Orders by every rule. `ends` [s of the epoch] are the ends of the pictures in a plan that is known: what is left of
/// a picture's time is judged by its work and its waits.
pub(super) fn rules(problem: &Problem<'_>, ends: &[i64]) -> [Vec<Order>; RULES] {
    let work = |p: usize| -> i64 { problem.tasks[p].iter().flatten().map(|t| t.hands_on).sum() };
    let left = |p: usize| (ends[p] - problem.from).max(1);
    let due = |p: usize| problem.picture(p).due.unwrap_or(chrono::NaiveDate::MAX);
    let until_due = |p: usize| {
        let end = problem.picture(p).due.and_then(|due| due.and_hms_opt(0, 0, 0));
        end.map_or(f64::MAX, |end| (whole_seconds(end.and_utc()) - problem.from) as f64 + DAY_S)
    };
    let weight = |p: usize| problem.picture(p).weight;
    let turns = [
        by(problem, |p| until_due(p).max(0.0) / weight(p)),
        by(problem, |p| (due(p), work(p))),
        by(problem, |p| until_due(p) - left(p) as f64),
        by(problem, |p| -weight(p) / work(p).max(1) as f64),
        by(problem, work),
        by(problem, |p| until_due(p) / left(p) as f64),
        by(problem, |p| -left(p)),
        by(problem, |p| (-weight(p), due(p))),
    ];
    let staggered = |pictures: Vec<usize>| {
        let whole = Order::by_picture(problem, &pictures);
        let begun = AFTERS.iter().map(|after| whole.staggered(&pictures, *after));
        let mut orders: Vec<Order> = begun.collect();
        orders.push(whole);
        orders
    };
    turns.map(staggered)
}

/// Whether pictures are late because of one another: one of them would be less late were it the only one.
fn is_crowded(problem: &Problem<'_>, films: &mut Films, known: &Schedule) -> bool {
    let late = |made: &Schedule, p: usize| {
        made.progress[p].ready.map_or(i64::MAX, |ready| problem.days_late(p, ready))
    };
    (0..problem.tasks.len()).any(|p| {
        let days = late(known, p);
        days > 0 && problem.tasks[p].iter().any(Option::is_some) && {
            let order = Order::by_picture(problem, &[p]);
            let alone = Schedule::play(problem, films, &order, None);
            alone.is_some_and(|alone| late(&alone, p) < days)
        }
    })
}

/// The best of `known` and of as many rules as there is time for, with its order. Where no picture is late because of
/// another there is nothing to gain by them, and a change of one picture leaves the others where they were.
pub(super) fn better_by_rule(
    problem: &Problem<'_>,
    films: &mut Films,
    known: (Schedule, Order),
) -> (Schedule, Order) {
    let steps = problem.steps_left();
    let tried = FIRST.len().min(MOST_PLAYED / steps.max(1));
    if steps < 2 || tried == 0 || !is_crowded(problem, films, &known.0) {
        return known;
    }
    let ends: Vec<i64> = known.0.progress.iter().map(|p| p.ready.unwrap_or(p.end)).collect();
    // What lags say of an order hangs on gaps that were seen: these are played with their films.
    let all = rules(problem, &ends);
    let mut orders: Vec<&Order> = FIRST.iter().map(|(rule, after)| &all[*rule][*after]).collect();
    orders.truncate(tried);
    let (limit, begun) = (known.0.score, &*films);
    let played = in_parallel(orders.len(), threads(), |n| {
        let (order, mut films) = (orders[n], begun.clone());
        let schedule = Schedule::play(problem, &mut films, order, Some(&limit))?;
        schedule.score.beats(&limit).then(|| (schedule, order.clone(), films))
    });
    let best = played.into_iter().min_by(|a, b| a.0.score.compare(&b.0.score));
    let Some((schedule, order, followed)) = best else { return known };
    *films = followed;
    (schedule, order)
}
