//! When each state begins.

use super::state::{FilmState, Reading};

/// The time [s] at which a stack reached each state since its last coat was laid.
#[derive(Debug, Clone, PartialEq)]
pub struct Events {
    reached: [Option<f64>; FilmState::REACHED.len()],
    last: Option<(f64, Reading)>,
}

impl Default for Events {
    fn default() -> Self {
        Self::new()
    }
}

impl Events {
    /// No state reached yet.
    pub const fn new() -> Self {
        Self { reached: [None; FilmState::REACHED.len()], last: None }
    }

    /// When `state` was reached, if it was: never before the states ahead of it, also where a film is dry
    /// through over a ground that is too wet to paint on. The workable state has no such moment.
    pub fn at(&self, state: FilmState) -> Option<f64> {
        FilmState::REACHED.iter().position(|s| *s == state).and_then(|i| self.reached[i])
    }

    /// The same, set at `t` [s].
    #[must_use]
    pub(super) fn setting_at(mut self, t: f64) -> Self {
        if let Some(i) = FilmState::REACHED.iter().position(|s| *s == FilmState::Setting) {
            self.reached[i] = Some(t);
        }
        self
    }

    /// Those of the slower of two stacks, state by state: what one of them has not reached is not
    /// reached. Setting is the other way round, as long as one may work into it.
    #[must_use]
    pub fn slower(&self, other: &Self) -> Self {
        let mut both = self.clone();
        for (i, state) in FilmState::REACHED.iter().enumerate() {
            let (a, b) = (self.reached[i], other.reached[i]);
            both.reached[i] = match state {
                FilmState::Setting => [a, b].into_iter().flatten().reduce(f64::min),
                _ => a.zip(b).map(|(a, b)| a.max(b)),
            };
        }
        both
    }

    /// Those that were reached by `t` [s].
    pub fn until(&self, t: f64) -> Self {
        let reached = self.reached.map(|at| at.filter(|at| *at <= t));
        Self { reached, last: self.last }
    }

    /// Takes a reading at `t` [s]; a state's time is interpolated between two readings.
    pub(super) fn observe(&mut self, t: f64, reading: Reading) {
        let mut after = f64::NEG_INFINITY;
        for (slot, state) in self.reached.iter_mut().zip(FilmState::REACHED) {
            if slot.is_none() {
                let now = state.margins(&reading);
                if now.0 < 0.0 || now.1 < 0.0 {
                    break;
                }
                let own = match &self.last {
                    None => t,
                    Some((before, earlier)) => {
                        let was = state.margins(earlier);
                        let share = crossing(was.0, now.0).max(crossing(was.1, now.1));
                        before + share * (t - before)
                    }
                };
                *slot = Some(own.max(after));
            }
            after = slot.unwrap_or(after);
        }
        self.last = Some((t, reading));
    }
}

/// The share of a step after which a margin that went from `was` to `now` passed zero.
fn crossing(was: f64, now: f64) -> f64 {
    if was >= 0.0 { 0.0 } else { was / (was - now) }
}
