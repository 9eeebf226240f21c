//! One future of the films in a studio: how thick its painter lays, how fast they dry there, and
//! what its air will be.
//!
//! A time that is `sure` to some share is the time in one well-chosen future. To first order the
//! logarithm of a drying time is a sum over what varies; then of all futures in which a state is
//! reached at that time or before, the one that is least far from the expected lies in the direction of
//! what weighs most, at as many standard deviations as the share asks for (the design point of a
//! first-order reliability analysis: Hasofer and Lind 1974). The direction hardly differs from
//! stack to stack and from state to state, so one is taken for all: the mean over random ones.
//! How well that holds is shown by `tests/film/sure.rs`.
//!
//! | rival | weakness |
//! |---|---|
//! | quantiles of sampled futures | hundreds of films for what one gives |
//! | a factor on every plain time | not one film: what lies below, the air to come and the next coat do not agree |
//! | a direction for each stack | ten films more for each coat, for 2 of 100 in the share |

use super::ground::Ground;
use crate::air::{AirSeries, Deviation};
use crate::mix::Composition;
use crate::quantity::{Absorbency, Factor, Pace, Sure};
use rand::Rng;
use rand_distr::StandardNormal;
use statrs::distribution::{ContinuousCDF, Normal};
use std::sync::Arc;

/// What is known of how films dry in one studio, beside the book.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Habit {
    /// Factor on every time, common to all materials.
    pub pace: Factor,
    /// Factor on what grounds take up.
    pub uptake: Factor,
}

/// Spread of the painter's hand: common to all coats [-, ln]: x/: 1.15, docs/model/drying.md. [memory]
pub const HAND_SPREAD: f64 = 0.140;
/// Spread of one coat's film beside the hand [-, ln]: x/: 1.25 in all, docs/model/drying.md. [memory]
pub const FILM_SPREAD: f64 = 0.174;
/// Spread of the air speed, common to the room [-, ln]: x/: 1.6, docs/model/drying.md. [memory]
pub const SPEED_SPREAD: f64 = 0.470;
/// Spread of the pace that is common to a studio [-, ln]: x/: 1.25, docs/model/drying.md. [memory]
pub const PACE_SPREAD: f64 = 0.223;
/// Spread of the share of slow volatile in a mix [-, ln]: x/: 1.15, docs/model/drying.md. [memory]
pub const SLOW_SPREAD: f64 = 0.140;
/// Spread of the temperature to come [K]; docs/model/drying.md. [memory]
pub const WARMTH_SPREAD_K: f64 = 1.5;
/// Spread of the relative humidity to come [-]; docs/model/drying.md. [memory]
pub const DAMP_SPREAD: f64 = 0.06;
/// Spread of what a ground takes up [-, ln]: x/: 1.5. [memory]
pub const UPTAKE_SPREAD: f64 = 0.405;

impl Habit {
    /// What the book says of a studio that is not known yet.
    pub const BOOK: Self =
        Self { pace: Factor::about_one(PACE_SPREAD), uptake: Factor::about_one(UPTAKE_SPREAD) };
}

impl Default for Habit {
    fn default() -> Self {
        Self::BOOK
    }
}

/// How much the logarithm of a drying time changes with each thing that varies, beside each other:
/// means over random stacks and all states. Measured with the films themselves.
mod weighs {
    /// Per logarithm of every film.
    pub const HAND: f64 = 2.9;
    /// Per logarithm of the last coat's film.
    pub const FILM: f64 = 1.9;
    /// Per logarithm of the air's speed, downwards.
    pub const SPEED: f64 = 0.49;
    /// Per logarithm of every pace.
    pub const PACE: f64 = 2.4;
    /// Per logarithm of the last coat's own pace.
    pub const OWN: f64 = 1.9;
    /// Per logarithm of the last coat's share of slow volatile.
    pub const SLOW: f64 = 1.3;
    /// Per kelvin, downwards.
    pub const WARMTH: f64 = 0.17;
    /// Per unit of relative humidity.
    pub const DAMP: f64 = 4.2;
}

/// How far the one direction for all stacks is off that of each, on average [-]: the cosine between
/// them. Measured, as above.
const ALIGNED: f64 = 0.88;
/// The same where it is asked until when a coat may be worked into: over a ground that drinks, stacks
/// differ more. Measured.
const ALIGNED_SETTING: f64 = 0.70;

/// One future.
#[derive(Debug, Clone, PartialEq)]
pub struct Future {
    /// Its air.
    air: AirSeries,
    /// Factor on every film.
    hand: f64,
    /// Factor on every pace.
    pace: f64,
    /// Factor on what grounds take up.
    uptake: f64,
    /// Of the coat on top: logarithm of the factor on its film, standard deviations of its own pace,
    /// logarithm of the factor on its slow volatile.
    top: Option<[f64; 3]>,
}

impl Future {
    /// As the book says, in `air`.
    pub const fn plain(air: AirSeries) -> Self {
        Self { air, hand: 1.0, pace: 1.0, uptake: 1.0, top: None }
    }

    /// The future of a studio with `habit` in which a state is reached by the time by which it is reached
    /// in the share `level` of all (0 to 1, neither included); the air is known until `known` [s].
    fn at(level: f64, habit: &Habit, air: &AirSeries, known: Option<f64>) -> Self {
        Self::far(Normal::standard().inverse_cdf(level) / ALIGNED, habit, air, known)
    }

    /// The one `far` standard deviations from the expected.
    fn far(far: f64, habit: &Habit, air: &AirSeries, known: Option<f64>) -> Self {
        let (pace, uptake) = (habit.pace.median(), habit.uptake.median());
        if far.abs() < f64::EPSILON {
            return Self { pace, uptake, ..Self::plain(air.clone()) };
        }
        // Each thing is moved in proportion to what it does.
        let does = [
            weighs::HAND * HAND_SPREAD,
            weighs::FILM * FILM_SPREAD,
            weighs::SPEED * SPEED_SPREAD,
            weighs::PACE * habit.pace.sd,
            weighs::OWN * crate::mix::OWN_PACE_SPREAD,
            weighs::SLOW * SLOW_SPREAD,
            weighs::WARMTH * WARMTH_SPREAD_K,
            weighs::DAMP * DAMP_SPREAD,
        ];
        let whole = does.iter().map(|d| d * d).sum::<f64>().sqrt();
        let [hand, film, speed, common, own, slow, warmth, damp] = does.map(|d| far * d / whole);
        let by = Deviation {
            warmer_k: -warmth * WARMTH_SPREAD_K,
            damper: damp * DAMP_SPREAD,
            faster: (-speed * SPEED_SPREAD).exp(),
        };
        Self {
            air: air.deviating(known, &by),
            hand: (hand * HAND_SPREAD).exp(),
            pace: pace * (common * habit.pace.sd).exp(),
            uptake,
            top: Some([film * FILM_SPREAD, own, slow * SLOW_SPREAD]),
        }
    }

    /// Whether the coat on top is in it as those below are.
    pub(super) const fn is_even(&self) -> bool {
        self.top.is_none()
    }

    /// Its air.
    pub const fn air(&self) -> &AirSeries {
        &self.air
    }

    /// What `ground` is in it.
    pub(super) fn ground(&self, ground: Ground) -> Ground {
        let most = Absorbency::RANGE.max;
        Ground { absorbs_um: (ground.absorbs_um * self.uptake).min(most), ..ground }
    }

    /// A coat, wet film [m] and mix, that others lie on: what is its own averages out.
    pub(super) fn below(&self, (wet_m, mix): (f64, Composition)) -> (f64, Composition) {
        (wet_m * self.hand, paced(mix, mix.pace() * self.pace))
    }

    /// The same as the coat on top.
    pub(super) fn on_top(&self, coat: (f64, Composition)) -> (f64, Composition) {
        let (wet_m, mix) = self.below(coat);
        match self.top {
            None => (wet_m, mix),
            Some([film, own, slow]) => {
                let pace = mix.pace() * (own * mix.unsure()).exp();
                (wet_m * film.exp(), paced(mix.with_slow(slow.exp()), pace))
            }
        }
    }
}

/// What is common to a whole studio in one future that is drawn.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct Common {
    /// Factor on every film.
    pub hand: f64,
    /// Factor on every pace.
    pub pace: f64,
    /// How its air deviates.
    pub air: Deviation,
}

impl Common {
    /// A future of a studio with `habit`.
    pub fn drawn(habit: &Habit, draw: &mut impl Rng) -> Self {
        let mut normal = |sd: f64| sd * draw.sample::<f64, _>(StandardNormal);
        Self {
            hand: normal(HAND_SPREAD).exp(),
            pace: (habit.pace.ln + normal(habit.pace.sd)).exp(),
            air: Deviation {
                warmer_k: normal(WARMTH_SPREAD_K),
                damper: normal(DAMP_SPREAD),
                faster: normal(SPEED_SPREAD).exp(),
            },
        }
    }
}

/// A factor whose logarithm has the standard deviation `sd`, drawn.
pub(crate) fn factor(draw: &mut impl Rng, sd: f64) -> f64 {
    (sd * draw.sample::<f64, _>(StandardNormal)).exp()
}

/// What is asked of the futures: from when something holds, and until when something still does.
#[derive(Debug, Clone, PartialEq)]
pub struct Futures {
    /// That in which a state comes late: by then it is there.
    pub(super) late: Future,
    /// That in which it comes early: until then it is not.
    pub(super) early: Future,
    /// Neither, where the two differ.
    expected: Option<Arc<Self>>,
}

impl Futures {
    /// The book alone.
    pub fn plain(air: AirSeries) -> Self {
        let plain = Future::plain(air);
        Self { late: plain.clone(), early: plain, expected: None }
    }

    /// What is expected in the same air where nothing else is known: neither late nor early.
    #[must_use]
    pub fn expected(self: &Arc<Self>) -> Arc<Self> {
        self.expected.clone().unwrap_or_else(|| self.clone())
    }

    /// What is `sure` in a studio with `habit`, whose air is known until `known` [s].
    pub fn sure(sure: Sure, habit: &Habit, air: &AirSeries, known: Option<f64>) -> Self {
        let early = Normal::standard().inverse_cdf(1.0 - sure.get()) / ALIGNED_SETTING;
        Self {
            late: Future::at(sure.get(), habit, air, known),
            early: Future::far(early, habit, air, known),
            expected: (sure > Sure::BRISK).then(|| Arc::new(Self::at(0.5, habit, air, known))),
        }
    }

    /// What is reached by the same time in the share `level` of all.
    pub fn at(level: f64, habit: &Habit, air: &AirSeries, known: Option<f64>) -> Self {
        let at = Future::at(level, habit, air, known);
        Self { late: at.clone(), early: at, expected: None }
    }
}

/// `mix` with `pace`, within what a pace can be.
fn paced(mix: Composition, pace: f64) -> Composition {
    let range = Pace::RANGE;
    Pace::try_new(pace.clamp(range.min, range.max)).map_or(mix, |pace| mix.with_pace(pace))
}
