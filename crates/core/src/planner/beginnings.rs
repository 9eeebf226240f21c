//! Beginnings of an order of work as they were placed: an order that is changed late is not placed again from
//! its first step.

use super::decode::{Order, Schedule};
use super::films::Films;
use super::problem::Problem;
use super::score::Score;

/// Beginnings that are kept of an order. [practice] of 6, 12 and 24 all come to the same
const PARTS: usize = 12;

/// Beginnings of one order, judged by lags: of as many turns as the multiples of `every`, from none on.
#[derive(Debug)]
pub(super) struct Beginnings {
    every: usize,
    kept: Vec<Schedule>,
}

impl Beginnings {
    /// None kept yet of orders of so many `steps`.
    pub fn of(steps: usize) -> Self {
        Self { every: (steps / PARTS).max(1), kept: Vec::new() }
    }

    /// Forgets all: what they were judged by changed.
    pub fn clear(&mut self) {
        self.kept.clear();
    }

    /// The order is another from turn `first` on.
    pub fn change_from(&mut self, first: usize) {
        self.kept.truncate(first / self.every + 1);
    }

    /// The score of `order`, whose turns up to `same` are those of the order that these begin; `None` when it is
    /// worse than `limit`.
    pub fn judge(
        &mut self,
        problem: &Problem<'_>,
        films: &mut Films,
        (order, same): (&Order, usize),
        limit: &Score,
    ) -> Option<Score> {
        let every = self.every;
        if self.kept.is_empty() {
            self.kept.push(Schedule::new(problem, films));
        }
        let last = (same / every).min(self.kept.len() - 1);
        let mut schedule = self.kept[last].clone();
        for (n, turn) in order.turns.iter().enumerate().skip(last * every) {
            if n <= same && n == every * self.kept.len() {
                self.kept.push(schedule.clone());
            }
            if !schedule.turn(problem, films, (order, *turn as usize), Some(limit)) {
                return None;
            }
        }
        Some(schedule.score)
    }
}

#[cfg(test)]
pub(super) mod tests {
    use super::super::moves::changed;
    use super::super::played::Judged;
    use super::*;
    use crate::air::{Air, AirSeries};
    use crate::mix::{Part, starter_shelf};
    use crate::picture::{Picture, Step, StepKind};
    use crate::studio::{OpenHours, Studio, StudioHours};
    use chrono::{DateTime, NaiveTime, Utc, Weekday};
    use rand::SeedableRng;
    use rand_pcg::Pcg64Mcg;

    /// Six pictures of thick passes, a glaze and a varnish, three hours a day and one flat place.
    pub fn studio() -> (Studio, DateTime<Utc>) {
        use StepKind::{Glaze, Pass, Varnish};
        let step = |p: usize, i: usize, kind: StepKind| {
            let material = match kind {
                Varnish => "varnish-gloss",
                Glaze => "glazing",
                _ => "heavy-pb29",
            };
            let mix = vec![Part { material: material.into(), parts: 1.0 }].into();
            let hands_on_min = (20 + (p * 7 + i * 13) % 9 * 10) as f64;
            let usual = Step::usual(format!("s{i}"), kind);
            let wet_film_um = if kind == Pass { Some(140.0) } else { usual.wet_film_um };
            Step { mix, hands_on_min, wet_film_um, ..usual }
        };
        let kinds = [Pass, Glaze, Pass, Glaze, Varnish];
        let steps = |p| (0..5).map(|i| step(p, i, kinds[i])).collect();
        let day = |n| Weekday::try_from(n).unwrap();
        let at = |h| NaiveTime::from_hms_opt(h, 0, 0).unwrap();
        let open = (0..7).map(|n| OpenHours { day: day(n), from: at(9), to: at(12) }).collect();
        let hours = StudioHours::try_new(chrono_tz::UTC, open, vec![]).unwrap();
        let room = AirSeries::constant(Air::try_new(21.0, 0.5, 0.15).unwrap());
        let picture = |p| Picture::new(format!("p{p}"), (30.0, 40.0), steps(p));
        let studio = Studio {
            materials: starter_shelf().unwrap(),
            pictures: (0..6).map(picture).collect(),
            flat_places: 1,
            ..Studio::new("Room", hours, room)
        };
        (studio, "2027-01-04T08:00:00Z".parse().unwrap())
    }

    #[test]
    fn rough_films_put_right_tell_what_an_order_is_worth() {
        let (studio, from) = studio();
        let problem = Problem::new(&studio, from);
        let mut films = Films::new(&studio);
        films.follow_roughly(&studio);
        let mut order = Schedule::first_come(&problem, &mut films).order(&problem);
        let mut draw = Pcg64Mcg::seed_from_u64(7);
        let (mut by_lags, mut by_rough, mut tried) = (0.0, 0.0, 0);
        for n in 0..160 {
            let Some(next) = changed(&order, &problem, &mut draw) else { continue };
            order = next;
            if n % 8 > 0 {
                continue;
            }
            let [lags, rough, is] = [Judged::Lags, Judged::Rough, Judged::Films].map(|judged| {
                films.judged = judged;
                Schedule::play(&problem, &mut films, &order, None).unwrap().score.sum as f64
            });
            by_lags += (lags / is - 1.0).abs();
            by_rough += (rough / is - 1.0).abs();
            tried += 1;
        }
        let (lags, rough) = (by_lags / f64::from(tried), by_rough / f64::from(tried));
        assert!(tried > 10 && rough < 0.008, "{tried} orders, rough films off by {rough:.4}");
        assert!(rough < 0.4 * lags, "rough films off by {rough:.4}, lags by {lags:.4}");
    }

    #[test]
    fn an_order_is_worth_the_same_from_a_beginning_and_from_the_start() {
        let (studio, from) = studio();
        let problem = Problem::new(&studio, from);
        let mut films = Films::new(&studio);
        let mut order = Schedule::first_come(&problem, &mut films).order(&problem);
        films.judged = Judged::Lags;
        let mut beginnings = Beginnings::of(30);
        let mut draw = Pcg64Mcg::seed_from_u64(3);
        let worst = Score { blocked: u32::MAX, ..Score::default() };
        let mut scores = Vec::new();
        for n in 0..400 {
            let Some(next) = changed(&order, &problem, &mut draw) else { continue };
            let same = next.same_turns(&order);
            let from_there = beginnings.judge(&problem, &mut films, (&next, same), &worst).unwrap();
            let from_start = Schedule::play(&problem, &mut films, &next, None).unwrap().score;
            assert_eq!(from_there, from_start, "try {n}, {same} turns the same");
            if n % 3 == 0 {
                order = next;
                beginnings.change_from(same);
            }
            scores.push(from_there.sum);
        }
        scores.sort_unstable();
        scores.dedup();
        assert!(scores.len() > 50, "orders of many worths were tried: {}", scores.len());
    }
}
