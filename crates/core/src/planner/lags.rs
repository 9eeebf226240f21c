//! How long films took so far: a quick stand-in for computing them.
//!
//! The more time the coats below had, the sooner a stack is ready after its last coat. So a lag is kept with
//! what each of the coats below may still have held when the last one was laid, which falls with its age. For
//! other ages its logarithm is a plane through all that is known (ridge regression) and, on it, what the
//! known ones near by stand off that plane (kriging; Krige 1951), with a correlation that ends at a distance
//! (Wendland 1995), so that no exponential is computed for each.

use crate::readiness::AGES;
use crate::time::DAY_S;
use nalgebra::{Cholesky, DMatrix, DVector, Dyn, SMatrix, SVector};

/// Age at which a coat counts a third [s]. Measured: of 0.5 to 16 days nearest to the films of 16 pictures
const FADES_S: f64 = 8.0 * DAY_S;
/// Most lags kept for one step where they are long, as before a seal. [practice] with 32 of them lags are read off
/// twice as far off as with 200
const MOST: usize = 256;
/// The same where they are short: they hardly differ, and there are ten times as many. [practice]
const MOST_SHORT: usize = 16;
/// From how long a lag is long [s]. [practice]
pub(super) const LONG_S: f64 = DAY_S;
/// What counts as the least of them [s, or as it comes], so that it has a logarithm. [practice]
const LEAST: f64 = 1e-3;
/// Square of the distance below which ages are the same [-]. [practice] half an hour of one coat
const SAME: f64 = 1e-5;
/// Distance at which lags no longer tell of each other [-]. Measured: of 1.5, 2 and 3 nearest to the films of
/// 8 pictures
const REACH: f64 = 2.0;
/// Variance of a lag that its neighbours do not share, beside that which they do [-]. Measured likewise, of
/// 0.003 and 0.01
const OWN: f64 = 3e-3;
/// What holds the plane flat where little is known [-]. [practice]
const RIDGE: f64 = 1e-2;

/// What the coats below the last one may still have held when that was laid, the youngest first, each beside a
/// fresh one [-].
pub(super) type Held = SVector<f64, AGES>;

// `alike` holds in no more dimensions.
const _: () = assert!(AGES <= 7);

/// The same from their ages then [s].
pub(super) fn held(ages: &[i64; AGES]) -> Held {
    Held::from_fn(|k, _| fades(ages[k]))
}

/// The same under another coat, laid `after` the last one [s].
pub(super) fn held_under(held: &Held, after: i64) -> Held {
    let left = fades(after);
    Held::from_fn(|k, _| if k == 0 { left } else { held[k - 1] * left })
}

/// What is left of what a coat of this age [s] held when it was fresh [-].
fn fades(age: i64) -> f64 {
    (-(age as f64) / FADES_S).exp()
}

/// How much two lags have in common [-]: Wendland's function of the second order of smoothness, which is
/// positive definite in up to seven dimensions.
#[inline]
fn alike(a: &Held, b: &Held) -> f64 {
    let from = a - b;
    let r = from.dot(&from).sqrt() / REACH;
    let rest = if r < 1.0 { 1.0 - r } else { 0.0 };
    let square = rest * rest;
    square * square * square * (6.0 * r + 1.0)
}

/// Lags [s], or other positive numbers, by the ages of the coats below.
#[derive(Debug, Clone, Default)]
pub(super) struct Lags {
    held: Vec<Held>,
    /// Their logarithms.
    logs: Vec<f64>,
    /// The matrix of what they have in common, factored.
    alike: Option<Cholesky<f64, Dyn>>,
    /// What each adds to others near by.
    adds: DVector<f64>,
    /// The plane: its mean, where that lies, and its slope.
    plane: (f64, Held, Held),
}

impl Lags {
    /// Keeps a lag that came out.
    pub fn note(&mut self, held: &Held, lag: f64) {
        let (held, log) = (*held, lag.max(LEAST).ln());
        let same = self.held.iter().position(|known| (held - known).norm_squared() < SAME);
        match same {
            Some(n) => self.logs[n] = log,
            None => {
                let most = if lag < LONG_S { MOST_SHORT } else { MOST };
                if self.held.len() >= most {
                    let older = self.held.len() - most / 2;
                    self.held.drain(..older);
                    self.logs.drain(..older);
                    self.alike = None;
                }
                self.held.push(held);
                self.logs.push(log);
                self.alike = self.with_last();
            }
        }
        self.plane = self.fitted();
        let off = self.held.iter().zip(&self.logs).map(|(held, log)| log - self.on_plane(held));
        let off = DVector::from_iterator(self.logs.len(), off);
        self.adds = self.alike.as_ref().map_or_else(|| off.map(|_| 0.0), |f| f.solve(&off));
    }

    /// Whether nothing is known yet.
    pub const fn is_empty(&self) -> bool {
        self.held.is_empty()
    }

    /// Whether its lags are long.
    pub fn is_long(&self) -> bool {
        self.logs.last().is_some_and(|log| log.exp() >= LONG_S)
    }

    /// The lag over coats that hold so much; `None` while nothing is known.
    pub fn at(&self, held: &Held) -> Option<f64> {
        if self.is_empty() {
            return None;
        }
        let near = self.held.iter().zip(self.adds.iter());
        let log =
            self.on_plane(held) + near.map(|(known, adds)| adds * alike(known, held)).sum::<f64>();
        Some(log.exp())
    }

    fn on_plane(&self, held: &Held) -> f64 {
        let (mean, middle, slope) = &self.plane;
        mean + (held - middle).dot(slope)
    }

    /// The factored matrix, the last lag with it.
    fn with_last(&mut self) -> Option<Cholesky<f64, Dyn>> {
        let n = self.held.len();
        let entry = |i: usize, j: usize| {
            alike(&self.held[i], &self.held[j]) + if i == j { OWN } else { 0.0 }
        };
        match self.alike.take() {
            Some(known) => {
                Some(known.insert_column(n - 1, DVector::from_fn(n, |i, _| entry(i, n - 1))))
            }
            None => DMatrix::from_fn(n, n, entry).cholesky(),
        }
    }

    /// The plane through all that is known.
    fn fitted(&self) -> (f64, Held, Held) {
        let n = self.held.len() as f64;
        let middle = self.held.iter().sum::<Held>() / n;
        let mean = self.logs.iter().sum::<f64>() / n;
        let (mut square, mut along) =
            (SMatrix::<f64, AGES, AGES>::identity() * RIDGE, Held::zeros());
        for (held, log) in self.held.iter().zip(&self.logs) {
            let from = held - middle;
            square += from * from.transpose();
            along += from * (log - mean);
        }
        let slope = square.cholesky().map_or_else(Held::zeros, |factor| factor.solve(&along));
        (mean, middle, slope)
    }
}

/// How long a wait of a step was over coats that held so much.
#[derive(Debug, Clone)]
pub(super) struct Lesson {
    /// The picture and its step.
    pub of_step: (usize, usize),
    /// The step that laid the coat it waited for.
    pub of: usize,
    pub held: Held,
    /// The wait [s].
    pub lag: f64,
    /// What films say over what rough ones say [-], where both were followed.
    pub ratio: Option<f64>,
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::air::{Air, AirSeries};
    use crate::film::{FilmState, Grid};
    use crate::mix::{Mix, Part, starter_shelf};
    use crate::picture::{Picture, Step, StepKind};
    use crate::readiness::Bed;
    use crate::studio::{Studio, StudioHours};
    use chrono::{DateTime, Duration, Utc};
    use rand::{Rng, SeedableRng};
    use rand_pcg::Pcg64Mcg;

    const NONE: i64 = i64::MAX;

    fn ages(days: f64) -> [i64; AGES] {
        let mut ages = [NONE; AGES];
        ages[0] = (days * DAY_S) as i64;
        ages
    }

    #[test]
    fn known_lags_come_back_and_others_are_read_off() {
        let mut lags = Lags::default();
        assert_eq!(lags.at(&held(&ages(1.0))), None);
        lags.note(&held(&ages(1.0)), 50_000.0);
        let far = lags.at(&held(&ages(9.0))).unwrap();
        assert!((far - 50_000.0).abs() < 1e-3, "of one there is no slope: {far}");
        // Lags that follow what a coat holds: 90 000 s, and 200 000 more for a fresh coat.
        let true_lag = |days: f64| 90_000.0 + 200_000.0 * (-days / 8.0).exp();
        for n in 0..900 {
            let days = f64::from(n % 300) * 0.1;
            lags.note(&held(&ages(days)), true_lag(days));
        }
        assert!(lags.held.len() <= MOST && lags.is_long());
        for days in [0.33, 4.17, 11.72, 29.0] {
            let (is, was) = (lags.at(&held(&ages(days))).unwrap(), true_lag(days));
            assert!((is / was - 1.0).abs() < 0.01, "{days} days: {is} for {was}");
        }
    }

    #[test]
    fn what_coats_hold_is_the_same_step_by_step_and_by_their_ages() {
        let gaps = [3_600, 90_000, 400_000, 7_200, 86_400, 259_200, 60_000];
        let mut below = held(&[NONE; AGES]);
        let mut laid = vec![0];
        for gap in gaps {
            below = held_under(&below, gap);
            laid.push(laid.last().unwrap() + gap);
        }
        let last = laid.pop().unwrap();
        laid.reverse();
        let by_age = held(&std::array::from_fn(|k| laid.get(k).map_or(NONE, |at| last - at)));
        assert!((below - by_age).amax() < 1e-12, "{below} for {by_age}");
    }

    #[test]
    fn sealing_is_read_off_from_stacks_with_other_days_between_their_coats() {
        let coat = |n: usize| {
            let material = if n.is_multiple_of(2) { "heavy-pb29" } else { "glazing" };
            let mix: Mix = vec![Part { material: material.into(), parts: 1.0 }].into();
            let kind = if n.is_multiple_of(2) { StepKind::Pass } else { StepKind::Glaze };
            Step { mix, ..Step::usual(format!("s{n}"), kind) }
        };
        let hours = StudioHours::try_new(chrono_tz::UTC, vec![], vec![]).unwrap();
        let air = AirSeries::constant(Air::try_new(21.0, 0.5, 0.15).unwrap());
        let studio = Studio {
            materials: starter_shelf().unwrap(),
            pictures: vec![Picture::new("p", (30.0, 40.0), (0..7).map(coat).collect())],
            ..Studio::new("Room", hours, air)
        };
        let monday: DateTime<Utc> = "2027-01-04T10:00:00Z".parse().unwrap();
        let mut draw = Pcg64Mcg::seed_from_u64(5);
        let (mut lags, mut ratios) = (Lags::default(), Lags::default());
        let (mut off, mut roughly_off): (Vec<f64>, Vec<f64>) = (Vec::new(), Vec::new());
        for n in 0..80 {
            let mut hours = 0;
            let planned = (0..7).map(|i| {
                hours += 24 * draw.random_range(1..4) + draw.random_range(-3..4);
                (monday + Duration::hours(hours), i)
            });
            let planned: Vec<_> = planned.collect();
            let sealed = |grid| {
                let mut bed = Bed::after(&studio, 0, grid, &planned).unwrap();
                let sealed = bed.reaches(&studio, FilmState::ReadyToSeal).unwrap().unwrap();
                ((sealed - planned[6].0).num_seconds() as f64, held(&bed.done.ages()))
            };
            let ((lag, below), (rough, _)) = (sealed(Grid::PLANNING), sealed(Grid::ROUGH));
            if n >= 30 {
                off.push((lags.at(&below).unwrap() / lag - 1.0).abs());
                roughly_off.push((rough * ratios.at(&below).unwrap() / lag - 1.0).abs());
            }
            lags.note(&below, lag);
            ratios.note(&below, lag / rough);
        }
        for (off, (half, nine_of_ten)) in [(off, (0.05, 0.10)), (roughly_off, (0.02, 0.05))] {
            let mut off = off;
            off.sort_by(f64::total_cmp);
            assert!(
                off[25] < half && off[44] < nine_of_ten,
                "half within {:.3}, nine of ten within {:.3}",
                off[25],
                off[44]
            );
        }
    }
}
