//! A coat that a finger found less far than the film says it was: what was felt on it counts for it.
//!
//! The belief takes a test far from what it expects for a slip, and rightly so for the other coats. On
//! the coat itself a finger knows better than a film: it is followed as many times slower as makes the
//! test true, and whatever waits for it waits. A slip costs a wait, until the test is put right.

use super::seen::{Coat, FINGER_SPREAD};
use crate::film::{Course, FilmState, Futures, Grid};
use crate::picture::{LaidCoat, Picture, stacks};
use crate::studio::Studio;
use crate::time::seconds;
use std::sync::Arc;

/// Most that a coat is slowed [-]. [practice] what takes a year where minutes were expected has failed
const MOST: f64 = 1e5;
/// How often the slowness is halved into: to less than a thousandth of itself. [practice]
const HALVINGS: usize = 16;

/// A coat that takes longer than the studio's own pace says.
#[derive(Debug, Clone, PartialEq)]
pub struct SlowCoat {
    /// Index of the picture.
    pub picture: usize,
    /// Index of the step.
    pub step: usize,
    /// How many times as long it takes.
    pub times: f64,
}

/// A coat that was found not to be in states yet.
#[derive(Debug)]
pub(super) struct NotYet {
    pub picture: usize,
    pub step: usize,
    /// The states, and until when it is not in them [s].
    pub states: Vec<(FilmState, f64)>,
}

impl NotYet {
    /// What fingers found that `coat` was not yet: each holds a little longer than it was tried.
    pub fn of(coat: &Coat) -> Self {
        let (picture, step) = coat.place();
        let until = |at: f64| coat.laid() + (at - coat.laid()) * FINGER_SPREAD.exp();
        let tests = coat.tests.iter();
        let states =
            tests.filter_map(|t| Some((t.felt.tells().1?, until(seconds(t.at))))).collect();
        Self { picture, step, states }
    }

    /// Whether a film that takes `times` as long agrees with it, laid on `below`.
    fn holds(
        &self,
        picture: &Picture,
        below: &Course,
        coat: &LaidCoat,
        times: f64,
    ) -> Option<bool> {
        let mut film = below.clone();
        picture.lay(&mut film, &LaidCoat { mix: coat.mix.slowed_by(times), ..*coat }).ok()?;
        let last = self.states.iter().map(|(_, until)| *until).fold(coat.at, f64::max);
        film.advance(last, None).ok()?;
        let events = film.film().events();
        Some(
            self.states.iter().all(|(state, until)| events.at(*state).is_none_or(|at| at > *until)),
        )
    }

    /// How many times as long its coat takes in `futures`; nothing when it agrees as it is.
    fn slowness(&self, studio: &Studio, futures: &Arc<Futures>) -> Option<f64> {
        let picture = &studio.pictures[self.picture];
        let coats = studio.laid_coats(self.picture).ok()?;
        let coat = coats.iter().find(|c| c.step == self.step)?;
        let (_, there) = stacks(&coats).into_iter().find(|(place, _)| *place == coat.place)?;
        let mut below = picture.bare(Grid::PLANNING, there.first()?.at, futures);
        for coat in there.iter().take_while(|c| c.step != self.step) {
            picture.lay(&mut below, coat).ok()?;
        }
        if self.holds(picture, &below, coat, 1.0)? {
            return None;
        }
        let (mut less, mut enough) = (0.0, MOST.ln());
        for _ in 0..HALVINGS {
            let middle = f64::midpoint(less, enough);
            if self.holds(picture, &below, coat, middle.exp())? {
                enough = middle;
            } else {
                less = middle;
            }
        }
        Some(enough.exp())
    }
}

/// Slows the coats of `studio` that were found less far than they would be; it has learned all else.
pub(super) fn slow_down(studio: &mut Studio, mut found: Vec<NotYet>) -> Vec<SlowCoat> {
    let laid = |n: &NotYet| studio.pictures[n.picture].steps[n.step].laid_at;
    // What lies below is slowed before what lies on it.
    found.sort_by_key(|n| (n.picture, laid(n)));
    let futures = studio.futures_at(0.5);
    let mut slow = Vec::new();
    for coat in found {
        let Some(times) = coat.slowness(studio, &futures) else { continue };
        let (picture, step) = (coat.picture, coat.step);
        studio.pictures[picture].steps[step].slowed = Some(times);
        slow.push(SlowCoat { picture, step, times });
    }
    slow
}
