//! What a studio's touch tests teach: how fast films dry there, beside the book.
//!
//! A test is a censored observation: the state was reached by then, or was not. What is not known is a
//! row of numbers, each the logarithm of a factor: the pace that is common to the studio (what hand and
//! room do is in it), what its grounds take up, and each material's own pace. They are kept as one normal
//! distribution. A coat speaks of two sums of them, its own pace in all and the uptake: for these the
//! posterior is summed up on a grid, with the likelihood from the film's own event times, and its
//! mean and spread are carried back to the row (assumed density filtering: Maybeck 1982,
//! Minka 2001). What few tests cannot tell so stays with the prior, and any number of materials is learned
//! apart.
//!
//! | rival | weakness |
//! |---|---|
//! | a grid over all numbers | grows with a power of the materials |
//! | sampled chains | seconds for what a glance at Now needs |
//! | a mean of seen over predicted | a test says before or after, never when |

mod belief;
mod seen;
mod slow;
mod words;

pub use slow::SlowCoat;
pub use words::said_of;

use crate::film::{FilmState, Habit, PACE_SPREAD, UPTAKE_SPREAD};
use crate::mix::OWN_PACE_SPREAD;
use crate::picture::{Picture, REST, Step, TouchTest};
use crate::quantity::Factor;
use crate::studio::Studio;
use crate::time::{MINUTE_S, seconds};
use belief::{Belief, PACE, UPTAKE};
use chrono::{DateTime, Utc};
use seen::{Coat, Finger, KnownCoats};
use slow::{Felt, KnownSlow};

/// Coats that are learned from, the last ones that were tested. [practice] a year of evenings
const MOST_COATS: usize = 120;

/// What a test was expected to find, by what was known before it.
#[derive(Debug, Clone, PartialEq)]
pub struct Account {
    /// Index of the picture.
    pub picture: usize,
    /// The test.
    pub test: TouchTest,
    /// The state that it speaks of: reached by then, or not yet.
    pub state: FilmState,
    /// Whether it was reached.
    pub reached: bool,
    /// Minutes from the coat to the test.
    pub seen_min: f64,
    /// Minutes in which it was expected, and the middle 80 % of what might have been.
    pub expected_min: f64,
    /// The lower and upper end of these 80 % [min].
    pub within_min: (f64, f64),
    /// Whether another test of the same coat says the opposite.
    pub contradicted: bool,
}

/// What was learned of a studio.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Learned {
    /// Its pace and the uptake of its grounds.
    pub habit: Habit,
    /// Materials that were tested, by name, with the factor on their own pace.
    pub materials: Vec<(String, Factor)>,
    /// Coats that were found less far, or further, than all this says.
    pub slow: Vec<SlowCoat>,
    /// Every test that was learned from, in the order it was.
    pub accounts: Vec<Account>,
    /// Tests that say nothing: picture and test. They lie before their coat, or on one that is covered, that
    /// cannot be computed, or that is long past.
    pub unused: Vec<(usize, TouchTest)>,
}

/// What was followed of tested coats before: who reads a studio again follows what is new alone.
#[derive(Debug, Clone, Default)]
pub struct KnownTimes {
    coats: KnownCoats,
    slow: KnownSlow,
}

/// Normal deviate that leaves 10 % on each side of the middle 80 % [-]. definition
pub(crate) const OF_80: f64 = 1.2816;

/// How close to a test that says "not yet" the belief may see the state before the film itself is
/// asked [ln of time]. [practice]
const NEAR: f64 = 0.3;
/// The same of a test that says "reached", whose time is to be sure: nothing lies further beyond what is
/// expected [ln of time]. [practice]
const SURELY: f64 = 1.2;

/// Steps in which what was learned moves films [ln]: a test that hardly teaches anything leaves every film where it
/// was. [practice] rounding to it moves a time by about 1 %; a fingertip tells it to 8 % at best
const TAUGHT: f64 = 0.01;

/// What the touch tests of `studio` teach, and the coats on which a finger may know better. What
/// is known of it already is left aside: the same tests always teach the same.
fn learn(studio: &Studio, known: &mut KnownCoats) -> (Learned, Vec<Felt>) {
    known.turn_to(studio);
    let mut learned = Learned::default();
    let mut followed = Vec::new();
    let mut coats: Vec<Coat> = Vec::new();
    for p in 0..studio.pictures.len() {
        coats.extend(Coat::tested(studio, p, &mut learned.unused));
    }
    coats.sort_by(|a, b| a.last_test().cmp(&b.last_test()).then(a.place().cmp(&b.place())));
    let spare = coats.len().saturating_sub(MOST_COATS);
    let mut belief = Belief::new(
        [PACE_SPREAD, UPTAKE_SPREAD],
        coats[spare..].iter().flat_map(Coat::materials),
        OWN_PACE_SPREAD,
    );
    let past = coats[..spare].iter().flat_map(|c| c.tests.iter().map(|test| (c.picture, test)));
    learned.unused.extend(past.map(|(p, test)| (p, test.clone())));
    for coat in &coats[spare..] {
        let Some(times) = known.of(studio, coat) else {
            let unused = coat.tests.iter().map(|test| (coat.picture, test.clone()));
            learned.unused.extend(unused);
            continue;
        };
        let finger = Finger::of(coat);
        let direction = belief.direction(coat.shares());
        account(&mut learned.accounts, coat, &times, &belief.moments(&direction));
        belief.update(&direction, (times.drinks, finger.only_later()), |pace, uptake| {
            finger.likelihood(&times, pace, uptake)
        });
        followed.push((coat, times));
    }
    let taught = |factor: Factor, spread| factor.stepped_from(Factor::about_one(spread), TAUGHT);
    learned.habit = Habit {
        pace: taught(belief.factor(PACE), PACE_SPREAD),
        uptake: taught(belief.factor(UPTAKE), UPTAKE_SPREAD),
    };
    let own = |(id, factor)| (id, taught(factor, OWN_PACE_SPREAD));
    learned.materials = belief.materials().into_iter().map(own).collect();
    let found = followed.into_iter().filter_map(|(coat, times)| {
        let mean = belief.moments(&belief.direction(coat.shares())).mean;
        let felt = Felt::of(coat);
        let expected = |state| times.ln_min(state, mean[0], mean[1]);
        let ln_min = |at: f64| ((at - coat.laid()) / MINUTE_S).max(f64::MIN_POSITIVE).ln();
        let early = |(state, until): &(FilmState, f64)| expected(*state) - NEAR < ln_min(*until);
        // Sure times lie later than what is expected.
        let late = |(state, from): &(FilmState, f64)| expected(*state) + SURELY > ln_min(*from);
        let asked = felt.not_yet.iter().any(early) || felt.reached.iter().any(late);
        asked.then_some(felt)
    });
    let found = found.collect();
    (learned, found)
}

/// Enters what was expected of the tests of `coat` by a belief with `moments` of its pace and uptake.
fn account(
    accounts: &mut Vec<Account>,
    coat: &Coat,
    times: &seen::Times,
    moments: &belief::Moments,
) {
    let expected = |state| times.ln_min(state, moments.mean[0], moments.mean[1]);
    for test in &coat.tests {
        let seen_min = coat.minutes_to(test);
        let (reached, not) = test.felt.tells();
        // Of two states the one whose expected time lies nearer to the test is the one it is about.
        let near = |state: &FilmState| (expected(*state) - seen_min.ln()).abs();
        let told = [reached, not].into_iter().flatten();
        let Some(state) = told.min_by(|a, b| near(a).total_cmp(&near(b))) else { continue };
        let middle = expected(state);
        let sd = moments.variance[0].max(0.0).sqrt().hypot(seen::OWN_SPREAD);
        accounts.push(Account {
            picture: coat.picture,
            test: test.clone(),
            state,
            reached: reached == Some(state),
            seen_min,
            expected_min: middle.exp(),
            within_min: ((middle - OF_80 * sd).exp(), (middle + OF_80 * sd).exp()),
            contradicted: coat.contradicts(test),
        });
    }
}

impl Studio {
    /// Takes over what its touch tests teach, in place of what it was before, and says it.
    pub fn learn(&mut self) -> Learned {
        self.learn_with(&mut KnownTimes::default())
    }

    /// The same with what was followed for it before.
    pub fn learn_with(&mut self, known: &mut KnownTimes) -> Learned {
        self.forget();
        if self.pictures.iter().all(|p| p.tests.is_empty()) {
            return Learned::default();
        }
        let (mut learned, found) = learn(self, &mut known.coats);
        self.habit = learned.habit;
        for material in &mut self.materials {
            let known = learned.materials.iter().find(|(id, _)| *id == material.id);
            material.learned = known.map(|(_, factor)| *factor);
        }
        learned.slow = slow::slow_down(self, found, &mut known.slow);
        learned
    }

    /// Sets aside what was learned: the book alone counts then.
    pub fn forget(&mut self) {
        self.habit = Habit::BOOK;
        for material in &mut self.materials {
            material.learned = None;
        }
        for step in self.pictures.iter_mut().flat_map(|p| &mut p.steps) {
            step.slowed = None;
        }
    }
}

/// Why a test of a coat says nothing, or cannot be.
///
/// # Errors
/// One sentence.
pub fn check_test(picture: &Picture, test: &TouchTest) -> Result<(), String> {
    let step = &picture.steps[picture.step_called(&test.step).map_err(|fault| fault.why)?];
    let Some(laid) = step.laid_at.filter(|_| step.kind.leaves_film()) else {
        return Err(format!("{} is no coat that is on: there is nothing to touch", step.called()));
    };
    if test.at <= laid {
        return Err(format!("{} was not on yet at that time", step.called()));
    }
    match covered(picture, (step, laid)) {
        Some((over, at)) if at <= test.at => {
            let over = picture.steps[over].called();
            Err(format!("{over} lies on it since: what was felt is {over} itself"))
        }
        _ => Ok(()),
    }
}

/// The first coat that was laid on all of the coat of `step`, laid then, and when.
fn covered(
    picture: &Picture,
    (step, laid): (&Step, DateTime<Utc>),
) -> Option<(usize, DateTime<Utc>)> {
    let place = picture.place_of(&step.id).map_or(REST, |i| picture.lies_at(i));
    let covers = |i: usize| [REST, place].contains(&picture.lies_at(i));
    let steps = picture.steps.iter().enumerate();
    steps
        .filter(|(i, s)| s.kind.leaves_film() && !s.mix.is_empty() && covers(*i))
        .filter_map(|(i, s)| Some((i, s.laid_at?)))
        .filter(|(_, at)| *at > laid)
        .min_by_key(|(_, at)| *at)
}

/// Minutes from `laid` [s] to `at`.
fn minutes_since(laid: f64, at: DateTime<Utc>) -> f64 {
    (seconds(at) - laid) / MINUTE_S
}
