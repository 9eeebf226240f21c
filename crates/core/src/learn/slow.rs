//! A coat that a finger found less far than the film says, or further: what was felt on it counts for it.
//!
//! The belief takes a test far from what it expects for a slip, and rightly so for the other coats. On
//! the coat itself a finger knows better than a film: as long as it is open it is followed at the pace, nearest to
//! its own, that makes its tests true, all of them at once. Where they contradict each other the last one counts. No
//! finger is believed to find a coat more than [`MOST`] times slower or faster: beyond that it is asked whether it
//! was this coat.

use super::seen::{Coat, FINGER_SPREAD};
use crate::film::{Course, FilmState, Futures, Grid, Ground};
use crate::picture::{LaidCoat, Picture, Touch, stacks};
use crate::studio::Studio;
use crate::time::seconds;
use std::collections::HashMap;
use std::sync::Arc;

/// Most that a coat is slowed, and hurried [-]. [practice] what a painter would believe of one coat
const MOST: f64 = 4.0;
/// How often the pace is halved into: to within 3 % of itself. [practice] each is a film more
const HALVINGS: usize = 7;

/// A coat that dries at another pace than the studio's own.
#[derive(Debug, Clone, PartialEq)]
pub struct SlowCoat {
    /// Index of the picture.
    pub picture: usize,
    /// Index of the step.
    pub step: usize,
    /// How many times as long it takes: above 1 until it is touch-dry, below 1 until it is dry through.
    pub times: f64,
    /// Whether even that does not make its tests true: did the finger touch this coat?
    pub doubted: bool,
}

/// What fingers found on a coat.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Felt {
    pub picture: usize,
    pub step: usize,
    /// States that were not there yet, and until when [s].
    pub not_yet: Vec<(FilmState, f64)>,
    /// States that were there, and from when on [s].
    pub reached: Vec<(FilmState, f64)>,
    /// Whether the last finger found it reached.
    last_reached: bool,
}

impl Felt {
    /// What was found on `coat`: each holds a little longer than it was tried.
    pub fn of(coat: &Coat) -> Self {
        let (picture, step) = coat.place();
        let from_laid = |at: f64, by: f64| coat.laid() + (at - coat.laid()) * by.exp();
        let mut felt =
            Self { picture, step, not_yet: Vec::new(), reached: Vec::new(), last_reached: false };
        for test in &coat.tests {
            let at = seconds(test.at);
            let (reached, not) = test.felt.tells();
            felt.last_reached = matches!(test.felt, Touch::Dry | Touch::Hard);
            // Who finds a coat dry may lay on it.
            let reached =
                if test.felt == Touch::Dry { Some(FilmState::Paintable) } else { reached };
            // "Dry" is no word against hard.
            let not = not.filter(|_| test.felt != Touch::Dry);
            felt.not_yet.extend(not.map(|state| (state, from_laid(at, FINGER_SPREAD))));
            let counts = reached.filter(|_| felt.last_reached);
            felt.reached.extend(counts.map(|state| (state, from_laid(at, -FINGER_SPREAD))));
        }
        felt
    }

    /// Whether a film that takes `times` as long, laid on `below`, agrees with one side of it.
    fn agrees(
        &self,
        (picture, below, coat): (&Picture, &Course, &LaidCoat),
        side: Side,
        times: f64,
    ) -> Option<bool> {
        let states = match side {
            Side::NotYet => &self.not_yet,
            Side::Reached => &self.reached,
        };
        let mut film = below.clone();
        picture.lay(&mut film, &LaidCoat { mix: coat.mix.slowed_by(times), ..*coat }).ok()?;
        let last = states.iter().map(|(_, at)| *at).fold(coat.at, f64::max);
        film.advance(last, None).ok()?;
        let events = film.film().events();
        Some(states.iter().all(|(state, felt)| match side {
            Side::NotYet => events.at(*state).is_none_or(|at| at > *felt),
            Side::Reached => events.at(*state).is_some_and(|at| at <= *felt),
        }))
    }

    /// How many times as long its coat takes, and whether that is not enough; nothing when it agrees as it is.
    fn slowness(&self, studio: &Studio, futures: [&Arc<Futures>; 2]) -> Option<(f64, bool)> {
        let picture = &studio.pictures[self.picture];
        let coats = studio.laid_coats(self.picture).ok()?;
        let coat = coats.iter().find(|c| c.step == self.step)?;
        let (_, there) = stacks(&coats).into_iter().find(|(place, _)| *place == coat.place)?;
        let below = |futures| {
            let mut below = picture.bare(Grid::PLANNING, there.first()?.at, futures);
            for coat in there.iter().take_while(|c| c.step != self.step) {
                picture.lay(&mut below, coat).ok()?;
            }
            Some(below)
        };
        let sides = [(Side::NotYet, below(futures[0])?), (Side::Reached, below(futures[1])?)];
        let agrees = |n: usize, times: f64| {
            let (side, below) = &sides[n];
            self.agrees((picture, below, coat), *side, times)
        };
        let (later, sooner) = (!agrees(0, 1.0)?, !agrees(1, 1.0)?);
        if later && (!sooner || !self.last_reached) {
            // The least that makes it true.
            let (mut less, mut enough) = (0.0, MOST.ln());
            if !agrees(0, MOST)? {
                return Some((MOST, true));
            }
            for _ in 0..HALVINGS {
                let middle = f64::midpoint(less, enough);
                if agrees(0, middle.exp())? { enough = middle } else { less = middle }
            }
            let times = enough.exp();
            // Found dry later, it was not as slow as that.
            let believed = agrees(1, times)? || !self.last_reached;
            return if believed { Some((times, false)) } else { self.hurried(&agrees, times) };
        }
        if sooner && self.last_reached { self.hurried(&agrees, 1.0) } else { None }
    }

    /// The slowest pace up to `most` at which what was found reached is there.
    fn hurried(
        &self,
        agrees: &impl Fn(usize, f64) -> Option<bool>,
        most: f64,
    ) -> Option<(f64, bool)> {
        if !agrees(1, 1.0 / MOST)? {
            // What lies below holds it up, and no pace of this coat helps.
            return None;
        }
        let (mut enough, mut more) = (-MOST.ln(), most.ln());
        for _ in 0..HALVINGS {
            let middle = f64::midpoint(enough, more);
            if agrees(1, middle.exp())? { enough = middle } else { more = middle }
        }
        Some((enough.exp(), false))
    }
}

/// What the slowness of a coat hangs on, beside the futures: what was felt, the coats of its picture, and its ground with
/// the shorter side.
type SlowKey = (Felt, Vec<LaidCoat>, (Ground, f64));

/// How many times as long a coat takes and whether that is not enough; nothing when it agrees as it is.
type Slowness = Option<(f64, bool)>;

/// Coats that were looked at before.
#[derive(Debug, Clone, Default)]
pub(super) struct KnownSlow {
    futures: Option<[Arc<Futures>; 2]>,
    /// By picture and step.
    known: HashMap<(usize, usize), (SlowKey, Slowness)>,
}

impl KnownSlow {
    /// See [`Felt::slowness`]: what was asked before is not followed again.
    fn slowness(
        &mut self,
        studio: &Studio,
        felt: &Felt,
        futures: [&Arc<Futures>; 2],
    ) -> Option<(f64, bool)> {
        let futures = futures.map(Arc::clone);
        if self.futures.as_ref() != Some(&futures) {
            *self = Self { futures: Some(futures.clone()), known: HashMap::new() };
        }
        let picture = &studio.pictures[felt.picture];
        let on = (picture.ground, picture.shorter_side_m());
        let asked = (felt.clone(), studio.laid_coats(felt.picture).ok()?, on);
        let place = (felt.picture, felt.step);
        if let Some((_, found)) = self.known.get(&place).filter(|(was, _)| *was == asked) {
            return *found;
        }
        let found = felt.slowness(studio, futures.each_ref());
        self.known.insert(place, (asked, found));
        found
    }
}

/// One side of what fingers found.
#[derive(Debug, Clone, Copy)]
enum Side {
    NotYet,
    Reached,
}

/// Slows and hurries the coats of `studio` on which a finger knows better; it has learned all else.
pub(super) fn slow_down(
    studio: &mut Studio,
    mut found: Vec<Felt>,
    known: &mut KnownSlow,
) -> Vec<SlowCoat> {
    let laid = |n: &Felt| studio.pictures[n.picture].steps[n.step].laid_at;
    // What lies below is slowed before what lies on it.
    found.sort_by_key(|n| (n.picture, laid(n)));
    // Not yet by what is expected; reached also where it comes late.
    let (expected, sure) = (studio.futures_at(0.5), studio.futures());
    let mut slow = Vec::new();
    for coat in found {
        let Some((times, doubted)) = known.slowness(studio, &coat, [&expected, &sure]) else {
            continue;
        };
        let (picture, step) = (coat.picture, coat.step);
        studio.pictures[picture].steps[step].slowed = Some(times);
        slow.push(SlowCoat { picture, step, times, doubted });
    }
    slow
}
