//! The rounds of a search: which orders are tried, and by what they are judged.
//!
//! A round changes one order (a turn, two turns, a picture, a shared mix) and keeps what is better; now and
//! then, less often as it cools, also what is a little worse (simulated annealing, Kirkpatrick et al. 1983). Each
//! begins at the best order known.
//! Most orders are judged by the lags that films had so far; an order that looks better is played with
//! rough films, which teach the lags what they did not know, and if it still looks better with its films. The plan
//! that is kept was always played with them.

use super::beginnings::Beginnings;
use super::decode::Order;
use super::known_plan::{Planner, SearchProgress};
use super::moves::{Limit, changed};
use super::played::Judged;
use super::score::Score;
use rand::SeedableRng;
use rand_pcg::Pcg64Mcg;

/// With more steps than this orders are only tried by lags. [practice] films of 40 steps: 20 ms
pub(super) const EXACT_STEPS: usize = 40;
/// One in so many rounds is tried with films, where there are few steps. [practice]
const EXACT_ROUND: u64 = 5;
/// Orders tried in a round with films, for each step. [practice] a film takes some 1 000 times as long
/// as a lag
const EXACT_TRIES: u64 = 4;
/// Orders tried in the first round, for each step. Each round is longer by [`LONGER`]. [practice]
const FIRST_ROUND: u64 = 30;
/// Steps placed by lags for each film that the last order cost, before another is played with its films: where a
/// search still falls, most of what looks better is overtaken meanwhile. [practice] films then take about a
/// third of the time; with 2 000 to 5 000 a search comes to the same
const LAGS_A_FILM: u64 = 2_000;
/// The same for each rough film. [practice] it takes a fifth of the time; with 150 to 1 000 a search comes to the same
const LAGS_A_ROUGH_FILM: u64 = 400;
/// By how much an order may be worse with rough films than the best one and still be played with its films [-].
/// [practice] with 0 to 0.005 a search comes to the same
const ROUGHLY: f64 = 0.001;
/// Growth of a round [-]. [practice]
const LONGER: f64 = 1.25;
/// Steps up to which a round begins with its whole warmth. [practice]
const MILD_STEPS: f64 = 40.0;
/// How fast the warmth falls with more steps [-]: a warm round leaves the good order that it began with, and many
/// steps find no way back in some seconds. [practice] with 1.5 from 60 steps on five seconds come less far, with 3
/// a little less, with 28 steps to the same
const MILDER: f64 = 2.5;
/// Part of the warmth that is left at the end of a round [-]. [practice]
const COLD: f64 = 0.01;

/// When a search looks around for others beside it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Pause {
    /// Before a round.
    Round,
    /// Within one, after films were played.
    Learned,
}

/// An order that looks better with rough films, and what it looks like.
struct Proven {
    order: Order,
    score: Score,
}

impl Planner<'_> {
    /// Rounds from the order that is known, looking `around` before each.
    pub(super) fn rounds(
        &mut self,
        (seed, tries): (u64, u64),
        mut go_on: impl FnMut(&SearchProgress) -> bool,
        mut around: impl FnMut(&mut Self, Pause),
    ) {
        let steps = self.problem.steps_left();
        if steps < 2 {
            return;
        }
        let begins = self.films.read + steps as u64 * LAGS_A_ROUGH_FILM;
        self.due = self.due.max(begins);
        let last = self.tried + tries;
        let mut draw = Pcg64Mcg::seed_from_u64(seed);
        let mut round = FIRST_ROUND * steps as u64;
        let mut n = 0;
        while self.tried < last && !self.is_at_bound() {
            let exact = steps <= EXACT_STEPS && n % EXACT_ROUND == EXACT_ROUND - 1;
            let judged = if exact { Judged::Films } else { Judged::Lags };
            n += 1;
            around(self, Pause::Round);
            // Films take long: such a round stays short.
            let tries = if exact { EXACT_TRIES * steps as u64 } else { round };
            let tries = tries.min(last - self.tried);
            if !self.round(&mut draw, (judged, tries), &mut go_on, &mut around) {
                return;
            }
            round = (round as f64 * LONGER) as u64;
        }
    }

    /// One cooling; false when it was stopped.
    fn round(
        &mut self,
        draw: &mut Pcg64Mcg,
        (judged, tries): (Judged, u64),
        go_on: &mut impl FnMut(&SearchProgress) -> bool,
        around: &mut impl FnMut(&mut Self, Pause),
    ) -> bool {
        let mut current = self.order.clone();
        let mut beginnings = Beginnings::of(self.problem.steps_left());
        let mut current_score = self.judge(&current, judged, None).unwrap_or(self.best.score);
        // By lags a plan is not quite what it is: what counts is whether an order looks better
        // than the best one looks, and the best of a stretch is then played with its films.
        let mut to_beat = current_score;
        let mut promising: Option<Order> = None;
        let mut proven: Option<Proven> = None;
        let steps = self.problem.steps_left() as f64;
        // Many steps drift apart sooner.
        let mild = (MILD_STEPS / steps).powf(MILDER).min(1.0);
        for try_no in 1..=tries {
            if !go_on(&self.progress()) {
                if let Some(order) = proven.map(|known| known.order).or(promising) {
                    self.take_if_better(&order);
                }
                return false;
            }
            if self.films.tidy(self.problem.studio) {
                beginnings.clear();
            }
            let warm = mild * COLD.powf(try_no as f64 / tries as f64);
            self.tried += 1;
            if let Some(next) = changed(&current, &self.problem, draw) {
                let limit = Limit::drawn(&current_score, warm, draw, self.problem.tasks.len());
                let same = next.same_turns(&current);
                let judgement = match judged {
                    Judged::Lags => self.judge_from(&mut beginnings, (&next, same), &limit.worst),
                    _ => self.judge(&next, judged, Some(&limit.worst)),
                };
                if let Some(score) = judgement.filter(|s| limit.takes(s, &current_score)) {
                    current = next;
                    beginnings.change_from(same);
                    current_score = score;
                    if score.beats(&to_beat) {
                        to_beat = score;
                        promising = Some(current.clone());
                    }
                }
            }
            let last = try_no == tries;
            let mut learned = false;
            // A short search of few steps does without rough films.
            let roughly = self.films.made_roughly() > 0;
            let due = self.films.read >= self.due || (last && roughly && promising.is_some());
            if judged == Judged::Lags && due {
                self.play_roughly(promising.take(), &current, &mut proven);
                learned = true;
            }
            let due = last || self.films.read >= self.films_due;
            let order = match judged {
                Judged::Films => promising.take(),
                _ if last && !roughly && proven.is_none() => promising.take(),
                _ => proven.take_if(|_| due).map(|known| known.order),
            };
            if let Some(order) = order {
                self.play_films(&order);
                if self.is_at_bound() {
                    return true;
                }
                learned = true;
            }
            if learned {
                around(self, Pause::Learned);
                beginnings.clear();
                // The lags moved: what the best one looks like moves too.
                let best = proven.as_ref().map_or(&self.order, |known| &known.order).clone();
                to_beat = self.judge(&best, judged, None).unwrap_or(to_beat);
                current_score = self.judge(&current, judged, None).unwrap_or(current_score);
            }
        }
        true
    }

    /// The same by lags, from the beginnings of an order that `order` has its turns up to `same` from.
    fn judge_from(
        &mut self,
        beginnings: &mut Beginnings,
        order: (&Order, usize),
        limit: &Score,
    ) -> Option<Score> {
        self.films.judged = Judged::Lags;
        let found = beginnings.judge(&self.problem, &mut self.films, order, limit);
        self.films.judged = Judged::Films;
        found
    }

    /// Plays an order that looks better by lags with rough films: whether it still does, beside the best one and
    /// `proven`, another that did. Without one the lags are learned anew where the search has come to.
    fn play_roughly(
        &mut self,
        promising: Option<Order>,
        current: &Order,
        proven: &mut Option<Proven>,
    ) {
        let made = self.films.made_roughly();
        self.learn_first();
        match promising {
            Some(order) => {
                let best = self.best.score;
                let sum = best.sum + (best.sum as f64 * ROUGHLY) as i64;
                let limit = Score { sum, set_ups: u32::MAX, ..best };
                let limit = proven.as_ref().map_or(limit, |known| known.score);
                if let Some(score) = self.judge(&order, Judged::Rough, Some(&limit)) {
                    *proven = Some(Proven { order, score });
                }
            }
            None => {
                self.judge(current, Judged::Rough, None);
            }
        }
        self.due = self.films.read + (self.films.made_roughly() - made) * LAGS_A_ROUGH_FILM;
    }

    /// Begins to follow rough films, and learns of waits by them.
    pub(super) fn learn_first(&mut self) {
        if self.films.follow_roughly(self.problem.studio) {
            // Of what was played already is learned what they are off by.
            let best = self.order.clone();
            self.judge(&best, Judged::Films, None);
            self.take_lessons();
        }
    }

    /// Plays an order with its films and keeps it if it is better.
    fn play_films(&mut self, order: &Order) {
        let made = self.films.made();
        self.take_if_better(order);
        self.films_due = self.films.read + (self.films.made() - made) * LAGS_A_FILM;
    }
}
