//! What is learned of long waits besides by playing orders: before a search needs it, from pictures that are followed
//! alone with other days between their coats, and from a search beside this one.
//!
//! The plans that are there know short gaps between coats, and how a wait falls as they grow is what makes one
//! order better than another.

use super::decode::{Order, Schedule};
use super::known_plan::Planner;
use super::lags::{Lesson, held};
use super::parallel::{in_parallel, threads};
use crate::film::{FilmState, Grid};
use crate::readiness::{Bed, FilmReady};
use crate::studio::Studio;
use crate::time::{DAY_S, MINUTE_S, whole_instant};
use chrono::{DateTime, Utc};
use rand::{Rng, SeedableRng};
use rand_distr::Exp1;
use rand_pcg::Pcg64Mcg;

/// Times that a picture is followed with other days between its coats. [practice] with 12 and 48 a search comes
/// to the same within what seeds make
const LESSONS: usize = 24;
/// Times that all pictures are together: a fifth of a second's work. [practice] with 80 and 400 a search of five
/// seconds comes to the same, one of a second less far with 400
const MOST_LESSONS: usize = 160;
/// Mean time more between coats where it is longest [d]. [practice] with 1.5 and 6 the same
const SPREAD_DAYS: f64 = 3.0;
/// Seed of the days between coats: any number, always the same.
const SEED: u64 = 1;

impl Planner<'_> {
    /// Learns of waits by rough films before orders need them; of too many pictures none.
    pub(super) fn take_lessons(&mut self) {
        let pictures = self.problem.tasks.len();
        let each = LESSONS.min(MOST_LESSONS / pictures.max(1));
        if each == 0 {
            return;
        }
        let alone: Vec<Vec<(DateTime<Utc>, usize)>> =
            (0..pictures).map(|p| self.alone(p)).collect();
        let studio = self.problem.studio;
        let found = in_parallel(pictures, threads(), |p| {
            let mut draw = Pcg64Mcg::seed_from_u64(SEED + p as u64);
            let wraps = self.problem.wraps(p);
            let lesson = |n: usize| {
                let days = SPREAD_DAYS * (n as f64 + 0.5) / each as f64;
                followed(studio, (p, wraps), &spread_out(&alone[p], days, &mut draw))
            };
            Some((0..each).flat_map(lesson).collect::<Vec<_>>())
        });
        for lesson in found.iter().flatten() {
            self.films.learn_roughly(lesson);
        }
    }

    /// The steps of picture `p` up to the last that waits long (all, where its wrapping waits for the last), and when
    /// they end were it the only picture.
    fn alone(&mut self, p: usize) -> Vec<(DateTime<Utc>, usize)> {
        let order = Order::by_picture(&self.problem, &[p]);
        let Some(alone) = Schedule::play(&self.problem, &mut self.films, &order, None) else {
            return Vec::new();
        };
        let mut steps = alone.placed;
        if !self.problem.wraps(p) {
            let last = steps.iter().rposition(|placed| self.films.waits_long((p, placed.step)));
            steps.truncate(last.map_or(0, |last| last + 1));
        }
        steps.iter().map(|placed| (whole_instant(placed.slot.to()), placed.step)).collect()
    }
}

/// The same with more time before each step, `days` [d] in the mean.
fn spread_out(
    steps: &[(DateTime<Utc>, usize)],
    days: f64,
    draw: &mut Pcg64Mcg,
) -> Vec<(DateTime<Utc>, usize)> {
    let mut more = chrono::Duration::zero();
    let later = |(end, i): &(DateTime<Utc>, usize)| {
        let minutes = draw.sample::<f64, _>(Exp1) * days * DAY_S / MINUTE_S;
        more += chrono::Duration::minutes(minutes as i64);
        (*end + more, *i)
    };
    steps.iter().map(later).collect()
}

/// How long each step waits by rough films when `steps` of picture `p` end so, and where it `wraps` how long that does.
fn followed(
    studio: &Studio,
    (p, wraps): (usize, bool),
    steps: &[(DateTime<Utc>, usize)],
) -> Vec<Lesson> {
    let mut lessons = Vec::new();
    let Ok(mut bed) = Bed::new(studio, p, Grid::ROUGH) else { return lessons };
    for (end, i) in steps {
        // What cannot be followed teaches nothing: it is told where it is planned.
        let Ok(ready) = bed.film_ready(studio, *i) else { return lessons };
        if let Some(FilmReady { at, of }) = ready
            && let Some(laid) = bed.done.end_of(of)
        {
            let (held, lag) = (held(&bed.done.ages()), (at - laid).num_seconds() as f64);
            lessons.push(Lesson { of_step: (p, *i), of, held, lag, ratio: None });
        }
        if bed.finish(studio, *i, *end).is_err() {
            return lessons;
        }
    }
    if wraps
        && let Some(of) = bed.done.last_coat()
        && let Some(laid) = bed.done.end_of(of)
        && let Ok(Some(at)) = bed.reaches(studio, FilmState::ReadyToWrap)
    {
        let (held, lag) = (held(&bed.done.ages()), (at - laid).num_seconds() as f64);
        let wrap = studio.pictures[p].steps.len();
        lessons.push(Lesson { of_step: (p, wrap), of, held, lag, ratio: None });
    }
    lessons
}

#[cfg(test)]
mod tests {
    use super::super::Request;
    use super::super::beginnings::tests::studio;
    use super::super::films::Films;
    use super::super::moves::changed;
    use super::super::played::Judged;
    use super::super::problem::Problem;
    use super::*;

    /// Orders, each some changes further than the one before.
    fn orders(problem: &Problem<'_>, films: &mut Films) -> Vec<Order> {
        let mut order = Schedule::first_come(problem, films).order(problem);
        let mut draw = Pcg64Mcg::seed_from_u64(11);
        let mut found = Vec::new();
        for n in 0..120 {
            order = changed(&order, problem, &mut draw).unwrap_or(order);
            if n % 8 == 0 {
                found.push(order.clone());
            }
        }
        found
    }

    fn worth(problem: &Problem<'_>, films: &mut Films, (order, judged): (&Order, Judged)) -> f64 {
        films.judged = judged;
        let played = Schedule::play(problem, films, order, None);
        films.judged = Judged::Films;
        played.unwrap().score.sum as f64
    }

    #[test]
    fn after_lessons_longer_gaps_are_read_off_better() {
        let (studio, from) = studio();
        let mut planner = Planner::new(Request { studio: &studio, from });
        planner.films.follow_roughly(&studio);
        let best = planner.order.clone();
        planner.judge(&best, Judged::Films, None);
        let off = |planner: &mut Planner<'_>| {
            let mut sum = 0.0;
            for p in 0..studio.pictures.len() {
                let mut draw = Pcg64Mcg::seed_from_u64(99 + p as u64);
                let later = spread_out(&planner.alone(p), 2.0, &mut draw);
                for lesson in
                    followed(&studio, (p, false), &later).iter().filter(|l| l.lag >= DAY_S)
                {
                    let read = planner.films.read_off(lesson).unwrap();
                    sum += (read / lesson.lag).ln().abs();
                }
            }
            sum
        };
        let before = off(&mut planner);
        planner.take_lessons();
        let after = off(&mut planner);
        assert!(after < 0.4 * before, "off by {after:.3}, before by {before:.3}");
    }

    #[test]
    fn what_one_search_learned_another_knows() {
        let (studio, from) = studio();
        let problem = Problem::new(&studio, from);
        let [mut one, mut other] = [Films::new(&studio), Films::new(&studio)];
        one.tell_on(true);
        let orders = [orders(&problem, &mut one), orders(&problem, &mut other)];
        let (last, played) = orders[0].split_last().unwrap();
        for order in played {
            worth(&problem, &mut one, (order, Judged::Films));
        }
        let off = |one: &mut Films, other: &mut Films| {
            let by_lags = (last, Judged::Lags);
            (worth(&problem, other, by_lags) - worth(&problem, one, by_lags)).abs()
        };
        let before = off(&mut one, &mut other);
        for lesson in one.told() {
            other.learn(&lesson);
        }
        let after = off(&mut one, &mut other);
        assert!(one.told().is_empty(), "told once");
        assert!(before > 3_600.0 && after < 0.1 * before, "{after} s apart, before {before} s");
    }
}
