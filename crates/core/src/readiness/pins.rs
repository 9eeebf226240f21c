//! Which times that painters pin work to keep others away.

use crate::studio::Studio;
use crate::time::{Stretch, minutes_s, whole_seconds};

/// A step that is pinned to a time that lies ahead.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Pinned {
    /// Its picture and number.
    pub at: (usize, usize),
    /// The hands-on work, if it is done then.
    pub stretch: Stretch,
    /// The step (picture and number) that was pinned to that time before it: its own pin does not hold.
    pub shares: Option<(usize, usize)>,
}

/// The pins of `studio` from `from` [s of the epoch] on, the earlier first.
pub fn pinned(studio: &Studio, from: i64) -> Vec<Pinned> {
    let mut all: Vec<(i64, (usize, usize), i64)> = Vec::new();
    for (p, picture) in studio.pictures.iter().enumerate() {
        for (i, step) in picture.steps.iter().enumerate().filter(|(_, s)| s.laid_at.is_none()) {
            let at = step.pinned_at.map(whole_seconds).filter(|at| *at >= from);
            all.extend(at.map(|at| (at, (p, i), minutes_s(step.hands_on_min))));
        }
    }
    all.sort_unstable();
    let mut found: Vec<Pinned> = Vec::with_capacity(all.len());
    for (start, at, hands_on) in all {
        let stretch = (start, start + hands_on);
        let meets = |other: &&Pinned| {
            other.shares.is_none() && other.stretch.0 < stretch.1 && other.stretch.1 > stretch.0
        };
        let shares = found.iter().find(meets).map(|other| other.at);
        found.push(Pinned { at, stretch, shares });
    }
    found
}
