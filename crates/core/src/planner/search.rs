//! Better orders of work, found by trying: a search that can be stopped at any time.
//!
//! An order of work says whose turn it is; playing it places each step as early as hours, film and
//! floors allow, but for the steps that wait on purpose. Which orders are tried, and by what they are
//! judged, is in the module of the rounds.

use super::decode::Order;
use super::dispatch::rules;
use super::known_plan::{Planner, SearchProgress};
use super::lags::Lesson;
use super::parallel::in_parallel;
use super::played::Judged;
use super::rounds::{EXACT_STEPS, Pause};
use super::score::Score;
use crate::cancel::{self, give_up_if_cancelled};
use std::sync::{Mutex, MutexGuard, PoisonError};

/// What searches beside each other tell.
struct Beside {
    /// The best order, and what it is worth.
    best: Mutex<(Score, Order)>,
    /// What each has still to learn.
    lessons: Vec<Mutex<Vec<Lesson>>>,
    /// How far they were when they began.
    begun: SearchProgress,
    /// How far each was last.
    far: Mutex<Vec<SearchProgress>>,
}

impl Beside {
    /// How far all are together, the `n`-th as far as `progress`.
    fn far(&self, n: usize, progress: &SearchProgress) -> SearchProgress {
        let mut far = locked(&self.far);
        far[n] = *progress;
        let best = far.iter().min_by(|a, b| a.score.compare(&b.score)).unwrap_or(progress);
        let sum = |of: fn(&SearchProgress) -> u64| -> u64 {
            of(&self.begun) + far.iter().map(|one| of(one) - of(&self.begun)).sum::<u64>()
        };
        SearchProgress { tried: sum(|one| one.tried), films: sum(|one| one.films), ..*best }
    }
}

fn locked<T>(shared: &Mutex<T>) -> MutexGuard<'_, T> {
    shared.lock().unwrap_or_else(PoisonError::into_inner)
}

impl Planner<'_> {
    /// Tries up to `tries` more orders, as long as `go_on` says so and something could be better.
    /// `go_on` is asked before every try.
    pub fn improve(
        &mut self,
        seed: u64,
        tries: u64,
        mut go_on: impl FnMut(&SearchProgress) -> bool,
    ) {
        let last = self.tried + tries;
        let before = self.stands();
        if self.start_well(&mut go_on) {
            self.rounds((seed, last.saturating_sub(self.tried)), go_on, |_, _| {});
        }
        self.settle(before);
    }

    /// The same from several seeds at once, each on a thread of its own. What one learns of films all learn, each
    /// begins its rounds at the best order that any of them found, and the best is kept, also of a search that is
    /// given up. `go_on` is told how far all are together.
    pub fn improve_beside(
        &mut self,
        seeds: &[u64],
        tries: u64,
        go_on: impl Fn(&SearchProgress) -> bool + Sync,
    ) {
        let last = self.tried + tries;
        let before = self.stands();
        if !self.start_well(&go_on) {
            self.settle(before);
            return;
        }
        let begun = self.progress();
        let tries = last.saturating_sub(self.tried);
        let beside = Beside {
            begun,
            far: Mutex::new(vec![begun; seeds.len()]),
            best: Mutex::new((self.best.score, self.order.clone())),
            lessons: seeds.iter().map(|_| Mutex::default()).collect(),
        };
        let mut found = in_parallel(seeds.len(), seeds.len(), |n| {
            let mut one = self.clone();
            one.films.tell_on(true);
            let around = |one: &mut Planner<'_>, pause| one.share(&beside, n, pause);
            let go_on = |progress: &SearchProgress| go_on(&beside.far(n, progress));
            // Given up within a film, it still holds the best plan that it had.
            cancel::current().unless_cancelled(|| one.rounds((seeds[n], tries), go_on, around));
            Some(one)
        });
        let all: u64 = found.iter().map(|one| one.tried - begun.tried).sum();
        found.sort_by(|a, b| a.best.score.compare(&b.best.score));
        if let Some(best) = found.into_iter().next() {
            *self = best;
            self.films.tell_on(false);
            self.tried = begun.tried + all;
        }
        self.settle(before);
        give_up_if_cancelled();
    }

    /// Tells those `beside` the `n`-th what it learned and learns from them; before a round it also tells what it
    /// found, if that is better than what is known, and else takes that over.
    fn share(&mut self, beside: &Beside, n: usize, pause: Pause) {
        let told = self.films.told();
        for (_, theirs) in beside.lessons.iter().enumerate().filter(|(k, _)| *k != n) {
            locked(theirs).extend_from_slice(&told);
        }
        for lesson in std::mem::take(&mut *locked(&beside.lessons[n])) {
            self.films.learn(&lesson);
        }
        if pause == Pause::Learned {
            return;
        }
        let better = {
            let mut known = locked(&beside.best);
            if self.best.score.beats(&known.0) {
                *known = (self.best.score, self.order.clone());
            }
            known.0.beats(&self.best.score).then(|| known.1.clone())
        };
        if let Some(order) = better {
            self.take_if_better(&order);
        }
    }

    /// The same from the order that is known, without trying quite other ones first: those move every
    /// film.
    pub(super) fn refine(
        &mut self,
        seed: u64,
        tries: u64,
        go_on: impl FnMut(&SearchProgress) -> bool,
    ) {
        let before = self.stands();
        self.rounds((seed, tries), go_on, |_, _| {});
        self.settle(before);
    }

    /// Tries orders that are often good, as long as `go_on` says so; false when it was stopped.
    fn start_well(&mut self, mut go_on: impl FnMut(&SearchProgress) -> bool) -> bool {
        let steps = self.problem.steps_left();
        if steps < 2 || self.is_at_bound() {
            return true;
        }
        if steps > EXACT_STEPS {
            if !go_on(&self.progress()) {
                return false;
            }
            // What gaps between coats are worth is what tells such orders apart.
            self.learn_first();
        }
        let own = self.order.clone();
        let mut best = self.judge(&own, Judged::Lags, None).unwrap_or(self.best.score);
        let mut promising = None;
        let mut going = true;
        let ends: Vec<i64> = self.best.progress.iter().map(|p| p.ready.unwrap_or(p.end)).collect();
        for order in rules(&self.problem, &ends).into_iter().flatten() {
            going = go_on(&self.progress());
            if !going {
                break;
            }
            self.tried += 1;
            if let Some(score) =
                self.judge(&order, Judged::Lags, Some(&best)).filter(|s| s.beats(&best))
            {
                (best, promising) = (score, Some(order));
            }
        }
        if let Some(order) = promising {
            self.take_if_better(&order);
            // Placed in its own order of time, the same plan is easier to change.
            let placed = self.best.order(&self.problem);
            if self.judge(&placed, Judged::Films, None) == Some(self.best.score) {
                self.order = placed;
            }
        }
        going
    }
}

/// A moderate effort that no clock decides: whether a search as far as `progress` should go on.
/// Some seconds on a small computer.
pub fn moderate(steps: usize, progress: &SearchProgress) -> bool {
    /// Steps placed in all tries. [practice]
    const MOST_PLACED: u64 = 3_000_000;
    /// Films computed. [practice]
    const MOST_FILMS: u64 = 4_000;
    progress.tried * (steps as u64) < MOST_PLACED && progress.films < MOST_FILMS
}
