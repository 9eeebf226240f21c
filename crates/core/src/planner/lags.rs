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
        let mut lags = Lags::default();
        let mut off: Vec<f64> = Vec::new();
        for n in 0..80 {
            let mut hours = 0;
            let planned = (0..7).map(|i| {
                hours += 24 * draw.random_range(1..4) + draw.random_range(-3..4);
                (monday + Duration::hours(hours), i)
            });
            let planned: Vec<_> = planned.collect();
            let mut bed = Bed::after(&studio, 0, Grid::PLANNING, &planned).unwrap();
            let sealed = bed.reaches(&studio, FilmState::ReadyToSeal).unwrap().unwrap();
            let lag = (sealed - planned[6].0).num_seconds();
            let ages = bed.done.ages();
            if n >= 30 {
                off.push((lags.at(&ages).unwrap() - lag).abs() as f64 / lag as f64);
            }
            lags.note(&ages, lag);
        }
        off.sort_by(f64::total_cmp);
        assert!(
            off[25] < 0.06 && off[44] < 0.12,
            "half within {:.3}, nine of ten within {:.3}",
            off[25],
            off[44]
        );
    }
}
