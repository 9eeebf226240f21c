//! A coat that was touched, when the film says it would reach its states, and how likely a finger then
//! feels what it felt.

use super::{check_test, minutes_since};
use crate::air::AirSeries;
use crate::film::{Film, FilmState, Grid, Ground, HORIZON_S};
use crate::mix::find;
use crate::picture::{LaidCoat, REST, Touch, TouchTest};
use crate::quantity::{Absorbency, Pace};
use crate::studio::Studio;
use crate::time::{DAY_S, MINUTE_S};
use chrono::{DateTime, Utc};
use statrs::distribution::{ContinuousCDF, Normal};
use std::collections::HashMap;

/// Paces and uptakes for which a coat is followed [-, ln]; between them its times are read off. [practice]
const PACES: [f64; 5] = [-0.9, -0.45, 0.0, 0.45, 0.9];
const UPTAKES: [f64; 3] = [-0.8, 0.0, 0.8];
/// Spread of one coat's times beside its pace [-, ln]: its film is x/: 1.2 of what was meant, and times
/// go with a power of 1.1 to 1.5 of it (docs/model/drying.md). [memory]
pub(super) const OWN_SPREAD: f64 = 0.22;
/// Spread of what a finger calls the same [-, ln of time]. [practice]
pub(super) const FINGER_SPREAD: f64 = 0.08;
/// How many times as wide that is where two tests of a coat say the opposite. [practice]
const WIDENED: f64 = 4.0;
/// Share of the tests that say nothing: another place was touched, another button hit [-]. [practice]
const SLIPS: f64 = 0.02;
/// Nodes over a coat's own deviation, and how far they reach [standard deviations]. [practice]
const OWN_NODES: usize = 13;
const OWN_REACH: f64 = 3.0;
/// How long a film is followed to find a state that was felt [s]. [practice] what is not hard after
/// 60 days was tested for something else
const FOLLOWED_S: f64 = 60.0 * DAY_S;
/// States that a finger knows.
const FELT: [FilmState; 4] =
    [FilmState::Setting, FilmState::TouchDry, FilmState::Paintable, FilmState::DryThrough];

/// A coat with its tests, in order of time.
#[derive(Debug, Clone)]
pub(super) struct Coat {
    pub picture: usize,
    pub tests: Vec<TouchTest>,
    laid: f64,
    /// The step that laid it.
    step: usize,
    /// Its turn among the coats laid where it lies.
    n: usize,
    coats: Vec<LaidCoat>,
    shares: Vec<(String, f64)>,
}

/// What the times of a coat hang on, beside the air.
#[derive(Debug, Clone, PartialEq)]
struct TimesKey {
    ground: Ground,
    side_m: f64,
    /// The coats up to it.
    coats: Vec<LaidCoat>,
    /// The furthest state that is looked for.
    stop: FilmState,
}

/// Times of tested coats that were followed before.
#[derive(Debug, Clone, Default)]
pub(super) struct KnownCoats {
    air: Option<AirSeries>,
    /// By picture and step.
    known: HashMap<(usize, usize), (TimesKey, Times)>,
}

impl KnownCoats {
    /// Forgets what was followed in another air.
    pub fn turn_to(&mut self, studio: &Studio) {
        if self.air.as_ref() != Some(&studio.air) {
            *self = Self { air: Some(studio.air.clone()), known: HashMap::new() };
        }
    }

    /// When `coat` reaches its states; nothing when its film cannot be followed.
    pub fn of(&mut self, studio: &Studio, coat: &Coat) -> Option<Times> {
        let asked = coat.asked(studio);
        let known = self.known.get(&coat.place()).filter(|(was, _)| *was == asked);
        if let Some((_, times)) = known {
            return Some(times.clone());
        }
        let times = coat.times(studio)?;
        self.known.insert(coat.place(), (asked, times.clone()));
        Some(times)
    }
}

/// When a coat reaches its states, as the pace and the uptake would have it.
#[derive(Debug, Clone)]
pub(super) struct Times {
    /// Whether the uptake has a say in it.
    pub drinks: bool,
    /// Logarithms of minutes, by uptake, pace and state.
    ln_min: Vec<[[f64; FELT.len()]; PACES.len()]>,
}

impl Coat {
    /// The coats of picture `p` that were tested; tests that say nothing are put into `unused`.
    pub fn tested(studio: &Studio, p: usize, unused: &mut Vec<(usize, TouchTest)>) -> Vec<Self> {
        let picture = &studio.pictures[p];
        if picture.tests.is_empty() {
            return Vec::new();
        }
        let Ok(coats) = studio.laid_coats(p) else {
            unused.extend(picture.tests.iter().map(|test| (p, test.clone())));
            return Vec::new();
        };
        let mut found: Vec<Self> = Vec::new();
        for test in &picture.tests {
            let coat = coats.iter().find(|c| picture.steps[c.step].id == test.step);
            let (Ok(()), Some(tested)) = (check_test(picture, test), coat) else {
                unused.push((p, test.clone()));
                continue;
            };
            let step = tested.step;
            if let Some(coat) = found.iter_mut().find(|c| c.step == step) {
                coat.tests.push(test.clone());
                continue;
            }
            // A finger touches one place: the section of the coat, or what is in none.
            let lies = |c: &&LaidCoat| c.place == REST || c.place == tested.place;
            let there: Vec<LaidCoat> = coats.iter().filter(lies).copied().collect();
            let Some(n) = there.iter().position(|c| c.step == step) else { continue };
            let shares = shares_of(studio, p, step);
            let (tests, laid) = (vec![test.clone()], tested.at);
            found.push(Self { picture: p, tests, laid, step, n, coats: there, shares });
        }
        for coat in &mut found {
            coat.tests.sort_by_key(|test| test.at);
        }
        found
    }

    /// When it was touched last.
    pub fn last_test(&self) -> Option<DateTime<Utc>> {
        self.tests.last().map(|test| test.at)
    }

    /// When it was laid [s].
    pub const fn laid(&self) -> f64 {
        self.laid
    }

    /// Which it is, for an order that is always the same.
    pub const fn place(&self) -> (usize, usize) {
        (self.picture, self.step)
    }

    /// Its materials by name.
    pub fn materials(&self) -> impl Iterator<Item = &str> {
        self.shares.iter().map(|(id, _)| id.as_str())
    }

    /// Its materials with their shares of its solids.
    pub fn shares(&self) -> impl Iterator<Item = (&str, f64)> {
        self.shares.iter().map(|(id, share)| (id.as_str(), *share))
    }

    /// Minutes from the coat to `test`.
    pub fn minutes_to(&self, test: &TouchTest) -> f64 {
        minutes_since(self.laid, test.at)
    }

    /// Whether a test before `test` felt it further, or one after it less far.
    pub fn contradicts(&self, test: &TouchTest) -> bool {
        let opposed = |other: &TouchTest| {
            (other.at < test.at && other.felt as u8 > test.felt as u8)
                || (other.at > test.at && (other.felt as u8) < test.felt as u8)
        };
        self.tests.iter().any(opposed)
    }

    fn asked(&self, studio: &Studio) -> TimesKey {
        let picture = &studio.pictures[self.picture];
        let felt = |touch| self.tests.iter().any(|test| test.felt == touch);
        let stop = match (felt(Touch::Hard), felt(Touch::Dry)) {
            (true, _) => FilmState::DryThrough,
            (_, true) => FilmState::Paintable,
            _ => FilmState::TouchDry,
        };
        let coats = self.coats[..=self.n].to_vec();
        TimesKey { ground: picture.ground, side_m: picture.shorter_side_m(), coats, stop }
    }

    /// When it reaches its states; nothing when its film cannot be followed.
    fn times(&self, studio: &Studio) -> Option<Times> {
        let TimesKey { ground, side_m, stop, .. } = self.asked(studio);
        // The ground drinks from the first coat; what it takes from those above is little.
        let drinks = self.n == 0 && ground.absorbs_um > 0.0;
        let uptakes: &[f64] = if drinks { &UPTAKES } else { &UPTAKES[1..2] };
        let mut ln_min = Vec::with_capacity(uptakes.len());
        for uptake in uptakes {
            let absorbs_um = (ground.absorbs_um * uptake.exp()).min(Absorbency::RANGE.max);
            let on = Ground { absorbs_um, ..ground };
            let start = self.coats[0].at;
            let mut film = Film::new(on, side_m, Grid::PLANNING, start);
            for coat in &self.coats[..self.n] {
                film.advance(&studio.air, coat.at, None).ok()?;
                film.lay(coat.wet_m, coat.mix);
            }
            film.advance(&studio.air, self.laid, None).ok()?;
            let mut rows = [[0.0; FELT.len()]; PACES.len()];
            for (row, pace) in rows.iter_mut().zip(PACES) {
                *row = self.at_pace(&film, studio, (pace, stop))?;
            }
            ln_min.push(rows);
        }
        Some(Times { drinks, ln_min })
    }

    /// Logarithms of the minutes to its states where it dries at `pace` over `film`.
    fn at_pace(
        &self,
        film: &Film,
        studio: &Studio,
        (pace, stop): (f64, FilmState),
    ) -> Option<[f64; FELT.len()]> {
        let LaidCoat { wet_m, mix, .. } = self.coats[self.n];
        let range = Pace::RANGE;
        let pace = (mix.pace() * pace.exp()).clamp(range.min, range.max);
        let mut wet = film.clone();
        wet.lay(wet_m, mix.with_pace(Pace::try_new(pace).ok()?));
        wet.advance(&studio.air, self.laid + FOLLOWED_S, Some(stop)).ok()?;
        let never = (HORIZON_S / MINUTE_S).ln();
        let ln = |state| {
            let at = wet.events().at(state);
            at.map_or(never, |at| ((at - self.laid).max(1.0) / MINUTE_S).ln())
        };
        Some(FELT.map(ln))
    }
}

/// Materials of a step with their shares of the solids of its mix.
fn shares_of(studio: &Studio, p: usize, step: usize) -> Vec<(String, f64)> {
    let mix = &studio.pictures[p].steps[step].mix;
    let solids = mix.iter().filter_map(|part| {
        let material = find(&studio.materials, &part.material)?;
        Some((part.material.clone(), part.parts * material.composition.solids()))
    });
    let solids: Vec<(String, f64)> = solids.filter(|(_, solids)| *solids > 0.0).collect();
    let whole: f64 = solids.iter().map(|(_, solids)| solids).sum();
    solids.into_iter().map(|(id, solids)| (id, solids / whole)).collect()
}

impl Times {
    /// Logarithm of the minutes to `state` at the logarithms of a pace and an uptake.
    pub fn ln_min(&self, state: FilmState, pace: f64, uptake: f64) -> f64 {
        let s = FELT.iter().position(|felt| *felt == state).unwrap_or(FELT.len() - 1);
        let at = |row: &[[f64; FELT.len()]; PACES.len()]| line(&PACES, pace, |k| row[k][s]);
        match self.ln_min.as_slice() {
            [only] => at(only),
            rows => line(&UPTAKES, uptake, |k| at(&rows[k])),
        }
    }
}

/// The straight line through the values at the two nodes next to `x`, also beyond the last.
fn line(nodes: &[f64], x: f64, value: impl Fn(usize) -> f64) -> f64 {
    let k = nodes[1..nodes.len() - 1].partition_point(|node| *node <= x);
    let share = (x - nodes[k]) / (nodes[k + 1] - nodes[k]);
    value(k) + share * (value(k + 1) - value(k))
}

/// What the fingers on one coat say. Its own deviation is one for all of them.
pub(super) struct Finger {
    /// Logarithm of the minutes at the test, and what was felt.
    felt: Vec<(f64, Touch)>,
    spread: f64,
}

impl Finger {
    /// The tests of a coat. Of many that say the same only the outermost count.
    pub fn of(coat: &Coat) -> Self {
        let mut felt: Vec<(f64, Touch)> = Vec::new();
        for (_, touch) in Touch::WORDS {
            let same: Vec<f64> = coat
                .tests
                .iter()
                .filter(|test| test.felt == *touch)
                .map(|test| coat.minutes_to(test).ln())
                .collect();
            let (reached, not) = touch.tells();
            let first = same.iter().copied().min_by(f64::total_cmp).filter(|_| reached.is_some());
            let last = same.iter().copied().max_by(f64::total_cmp).filter(|_| not.is_some());
            felt.extend(first.map(|t| (t, *touch)));
            felt.extend(last.filter(|_| last != first).map(|t| (t, *touch)));
        }
        let opposed = coat.tests.iter().any(|test| coat.contradicts(test));
        let spread = if opposed { FINGER_SPREAD * WIDENED } else { FINGER_SPREAD };
        Self { felt, spread }
    }

    /// Whether all that was felt is that something was not reached yet.
    pub fn only_later(&self) -> bool {
        self.felt.iter().all(|(_, touch)| touch.tells().0.is_none())
    }

    /// How likely all of it is felt at a pace and an uptake.
    pub fn likelihood(&self, times: &Times, pace: f64, uptake: f64) -> f64 {
        let normal = Normal::standard();
        let expected = FELT.map(|state| times.ln_min(state, pace, uptake));
        let mut sum = 0.0;
        for k in 0..OWN_NODES {
            let own = OWN_REACH * (2.0 * k as f64 / (OWN_NODES - 1) as f64 - 1.0);
            let mut all = (-0.5 * own * own).exp();
            for (t, touch) in &self.felt {
                // How far the test lies behind the state.
                let by = |state: FilmState| {
                    let s = FELT.iter().position(|felt| *felt == state).unwrap_or(0);
                    normal.cdf((t - expected[s] - own * OWN_SPREAD) / self.spread)
                };
                let (reached, not) = touch.tells();
                let so = reached.map_or(1.0, by) - not.map_or(0.0, by);
                all *= SLIPS / Touch::WORDS.len() as f64 + (1.0 - SLIPS) * so.max(0.0);
            }
            sum += all;
        }
        sum
    }
}
