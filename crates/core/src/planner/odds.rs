//! Odds of the dates: the same order of work in sampled futures.
//!
//! In a future the painter lays thicker or thinner, the air over the pictures is faster or slower,
//! everything there and each material dries at another pace than thought, each coat is another one than
//! meant, the air to come is warmer or damper (film::future has the spreads), and some sessions do
//! not happen. What is laid was laid when it was; its film is no surer. The order of work stays; a step
//! is done in the first hours after its film is ready in that future.

use super::Request;
use super::decode::{Order, Schedule};
use super::films::Films;
use super::finish::plan_of;
use super::held_back::HeldBack;
use super::known_plan::carried;
use super::parallel::in_parallel;
use super::problem::Problem;
use super::ready::ready_after;
use crate::film::{Common, FILM_SPREAD, Grid, SLOW_SPREAD, factor};
use crate::quantity::{Pace, Sure, WetFilm};
use crate::readiness::FitAir;
use crate::studio::{OrderEntry, Studio};
use chrono::{DateTime, NaiveDate, Utc};
use rand::{Rng, SeedableRng};
use rand_pcg::Pcg64Mcg;

/// Readings of the air in sampled futures lie no closer than this [s]: day and night are told apart.
/// [practice]
const SAMPLED_AIR_S: f64 = 6.0 * 3600.0;
/// Futures sampled for the odds where nobody asks for another number. [practice] a share is then
/// known to 4.6 %, and one does not wait
pub const FUTURES: usize = 120;
/// Steps played in all sampled futures together where nobody says how many [-]. [practice] some seconds
const MOST_PLAYED: usize = 12_000;
/// Futures sampled at least. [practice]
const FEWEST: usize = 10;
/// Part of the futures a day must hold in to be the 90 % day; docs/planning.md.
const SURE: f64 = 0.9;

/// Futures to sample of a studio with so many steps still to do, where nobody asks for another number: of a large
/// one fewer.
pub fn futures_for(steps_left: usize) -> usize {
    FUTURES.min(MOST_PLAYED / steps_left.max(1)).max(FEWEST)
}

/// What is asked of the futures.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Aim {
    /// When the last step is done.
    Finish,
    /// When the picture is ready, as its painter means it.
    Ready,
}

/// What became of one picture in the sampled futures.
#[derive(Debug, Clone, PartialEq)]
pub struct PictureOdds {
    /// Index of the picture.
    pub picture: usize,
    /// Finishes in order of time; futures in which it is never finished are not in it.
    pub finishes: Vec<DateTime<Utc>>,
    /// Futures sampled.
    pub futures: usize,
    /// The days on which it was finished, in order, one for each finish.
    days: Vec<NaiveDate>,
}

impl PictureOdds {
    /// Probability that it is finished on or before `day`.
    pub fn by(&self, day: NaiveDate) -> f64 {
        self.days.partition_point(|d| *d <= day) as f64 / self.futures.max(1) as f64
    }

    /// The same as it is told: of so many futures neither none nor all is certain.
    pub fn told_by(&self, day: NaiveDate) -> f64 {
        let least = 1.0 / (self.futures + 1) as f64;
        self.by(day).clamp(least, 1.0 - least)
    }

    /// The moment by which half of the futures have it finished, if so many do.
    pub fn likely(&self) -> Option<DateTime<Utc>> {
        let n = self.futures.div_ceil(2).max(1);
        self.finishes.get(n - 1).copied()
    }

    /// The day by which `share` of the futures have it finished, if so many do.
    pub fn day_of(&self, share: f64) -> Option<NaiveDate> {
        let n = ((share * self.futures as f64).ceil() as usize).max(1);
        self.days.get(n - 1).copied()
    }

    /// The day that has 90 %.
    pub fn sure_day(&self) -> Option<NaiveDate> {
        self.day_of(SURE)
    }
}

/// Plays the order of work `turns`, with what is `held` back on purpose, in `futures` sampled futures on `threads` threads; the
/// same ones for the same `seed`, on any number of threads. `done` is told of each future as it ends.
pub fn odds(
    request: Request<'_>,
    (turns, held): (&[OrderEntry], &[HeldBack]),
    seed: u64,
    (futures, threads): (usize, usize),
    aim: Aim,
    done: impl Fn(usize) + Sync,
) -> Vec<PictureOdds> {
    let mut problem = Problem::new(request.studio, request.from);
    problem.hold_back(held);
    let problem = &problem;
    let order = &carried(turns, problem);
    let ends = in_parallel(futures, threads, |n| {
        let ends = future(problem, order, aim, (seed, n as u64));
        done(1);
        Some(ends)
    });
    let mut finishes: Vec<Vec<i64>> = vec![Vec::new(); problem.tasks.len()];
    for (p, end) in ends.into_iter().flatten() {
        finishes[p].push(end);
    }
    collect(problem, finishes, futures)
}

fn collect(problem: &Problem<'_>, finishes: Vec<Vec<i64>>, futures: usize) -> Vec<PictureOdds> {
    finishes
        .into_iter()
        .enumerate()
        .map(|(picture, mut ends)| {
            ends.sort_unstable();
            PictureOdds {
                picture,
                days: ends.iter().map(|end| problem.day(*end)).collect(),
                finishes: ends.iter().map(|end| crate::time::whole_instant(*end)).collect(),
                futures,
            }
        })
        .collect()
}

/// The end of every picture that has one in one future.
fn future(
    problem: &Problem<'_>,
    order: &Order,
    aim: Aim,
    (seed, n): (u64, u64),
) -> Vec<(usize, i64)> {
    let mut draw = Pcg64Mcg::seed_from_u64(seed ^ n.wrapping_mul(0x9e37_79b9_7f4a_7c15));
    let studio = sampled(problem.studio, &mut draw);
    // Varnish waits for the air of this future, and paint for its cold.
    let air = FitAir::new(&studio.air, problem.from);
    let mut problem = Problem { studio: &studio, air, ..problem.clone() };
    let missed = problem.studio.missed_sessions.clamp(0.0, 1.0);
    problem.calendar.without(|| draw.random_bool(missed));
    // As many futures as there are threads are played beside each other already.
    let mut films = Films::on(&studio, Grid::SAMPLED, 1);
    let Some(schedule) = Schedule::play(&problem, &mut films, order, None) else {
        return Vec::new();
    };
    let plan = plan_of(&problem, &schedule);
    let end = |p: usize| match aim {
        Aim::Finish => plan.pictures[p].finish,
        // A film that cannot be computed blocks its picture before.
        Aim::Ready => {
            let bed = |planned: &[_]| films.played().bed_after(&studio, p, planned);
            ready_after(&studio, &plan, p, bed).ok()?.at
        }
    };
    (0..studio.pictures.len()).filter_map(|p| Some((p, end(p)?.timestamp()))).collect()
}

/// The studio as it might be; what was drawn is certain in it.
fn sampled(studio: &Studio, draw: &mut Pcg64Mcg) -> Studio {
    let common = Common::drawn(&studio.habit, draw);
    let mut other = studio.clone();
    for material in &mut other.materials {
        let made = material.makes();
        material.learned = None;
        let pace = made.pace() * factor(draw, made.unsure());
        let pace = pace.clamp(Pace::RANGE.min, Pace::RANGE.max);
        let made = made.with_slow(factor(draw, SLOW_SPREAD));
        material.composition = Pace::try_new(pace).map_or(made, |pace| made.with_pace(pace));
    }
    for step in other.pictures.iter_mut().flat_map(|p| &mut p.steps) {
        let film = common.hand * factor(draw, FILM_SPREAD);
        if let Some(um) = &mut step.wet_film_um {
            *um = (*um * film).clamp(WetFilm::RANGE.min, WetFilm::RANGE.max);
        }
    }
    other.air = studio.air.thinned(SAMPLED_AIR_S).deviating(studio.air_known(), &common.air);
    other.sure = Sure::BRISK;
    other.habit.pace.ln = common.pace.ln();
    other
}
