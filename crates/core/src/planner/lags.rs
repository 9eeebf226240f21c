//! How long films took so far: a quick stand-in for computing them.
//!
//! The more time the coats below had, the sooner a stack is ready after its last coat. So a lag is kept with
//! what each of the coats below may still have held when the last one was laid, which falls with its age. For other ages
//! it is that of the nearest ones known, moved along the slope through all (ridge regression).

use crate::readiness::AGES;
use crate::time::DAY_S;
use nalgebra::{SMatrix, SVector};

/// Age at which a coat counts a third [s]. Measured: of 0.5 to 16 days nearest to the films of 16 pictures
const FADES_S: f64 = 8.0 * DAY_S;
/// Most lags kept for one step. [practice]
const MOST: usize = 32;
/// Square of the distance below which ages are the same [-]. [practice] half an hour of one coat
const SAME: f64 = 1e-5;
/// What holds the slope flat where little is known [-]. [practice]
const RIDGE: f64 = 1e-2;

type Held = SVector<f64, AGES>;

/// What coats of these ages [s], the youngest first, may still hold, each beside a fresh one [-].
fn held(ages: &[i64; AGES]) -> Held {
    Held::from_fn(|k, _| (-(ages[k] as f64) / FADES_S).exp())
}

/// Lags [s] by the ages of the coats below.
#[derive(Debug, Clone, Default)]
pub(super) struct Lags {
    known: Vec<(Held, f64)>,
    /// Change of the lag with what each coat holds [s].
    slope: Held,
    /// The shortest that ever came out, also where another took its place since.
    shortest: Option<i64>,
}

impl Lags {
    /// Keeps a lag that came out.
    pub fn note(&mut self, ages: &[i64; AGES], lag: i64) {
        self.shortest = Some(self.shortest.map_or(lag, |known| known.min(lag)));
        let (held, lag) = (held(ages), lag as f64);
        match self.nearest(&held) {
            Some((n, far)) if far < SAME || self.known.len() == MOST => self.known[n] = (held, lag),
            _ => self.known.push((held, lag)),
        }
        self.slope = self.fitted();
    }

    /// The shortest lag that ever came out.
    pub const fn shortest(&self) -> Option<i64> {
        self.shortest
    }

    /// The lag at these ages; `None` while nothing is known.
    pub fn at(&self, ages: &[i64; AGES]) -> Option<i64> {
        let held = held(ages);
        let (n, _) = self.nearest(&held)?;
        let (near, lag) = &self.known[n];
        Some((lag + (held - near).dot(&self.slope)).max(0.0) as i64)
    }

    /// Which one known is nearest, and the square of its distance.
    fn nearest(&self, held: &Held) -> Option<(usize, f64)> {
        let far = self.known.iter().map(|(known, _)| (held - known).norm_squared()).enumerate();
        far.min_by(|a, b| a.1.total_cmp(&b.1))
    }

    /// The slope through all that is known.
    fn fitted(&self) -> Held {
        let n = self.known.len() as f64;
        let held = self.known.iter().map(|(held, _)| held).sum::<Held>() / n;
        let lag = self.known.iter().map(|(_, lag)| lag).sum::<f64>() / n;
        let (mut square, mut along) =
            (SMatrix::<f64, AGES, AGES>::identity() * RIDGE, Held::zeros());
        for (known, known_lag) in &self.known {
            let from = known - held;
            square += from * from.transpose();
            along += from * (known_lag - lag);
        }
        square.cholesky().map_or_else(Held::zeros, |factor| factor.solve(&along))
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    const NONE: i64 = i64::MAX;

    fn ages(days: f64) -> [i64; AGES] {
        let mut ages = [NONE; AGES];
        ages[0] = (days * DAY_S) as i64;
        ages
    }

    #[test]
    fn known_lags_come_back_and_others_are_read_off_along_the_slope() {
        let mut lags = Lags::default();
        assert_eq!(lags.at(&ages(1.0)), None);
        lags.note(&ages(1.0), 50_000);
        assert_eq!(lags.at(&ages(9.0)), Some(50_000), "of one there is no slope");
        // Lags that follow what a coat holds: 20 000 s, and 40 000 more for a fresh coat.
        let true_lag = |days: f64| 20_000 + (40_000.0 * (-days / 8.0).exp()) as i64;
        for n in 0..200 {
            let days = f64::from(n % 40) * 0.5;
            lags.note(&ages(days), true_lag(days));
        }
        assert!(lags.known.len() <= MOST);
        for days in [0.3, 4.1, 11.7, 30.0] {
            let (is, was) = (lags.at(&ages(days)).unwrap(), true_lag(days));
            assert!((is - was).abs() < was / 50, "{days} days: {is} for {was}");
        }
        assert_eq!(lags.shortest(), Some(true_lag(19.5)));
    }
}
