//! How long films took so far: a quick stand-in for computing them.
//!
//! The more time the coats below had, the sooner a stack is ready after its last coat. So a lag is
//! kept with the mean age of the coats when the last one was laid, and read off between the two
//! ages next to the one that is asked for.

/// Most pairs kept for one step. [practice]
const MOST: usize = 12;
/// Ages closer than this are the same [-, of the age]. [practice]
const SAME: f64 = 0.03;
/// Ages closer than this are the same [s]. [practice]
const SAME_S: i64 = 1800;

/// Lags [s] by mean age of the coats [s], sorted by age.
#[derive(Debug, Clone, Default)]
pub(super) struct Lags {
    known: Vec<(i64, i64)>,
    /// The shortest that ever came out, also where another took its place since.
    shortest: Option<i64>,
}

impl Lags {
    /// Keeps a lag that came out.
    pub fn note(&mut self, age: i64, lag: i64) {
        self.shortest = Some(self.shortest.map_or(lag, |known| known.min(lag)));
        let near = |known: i64| (known - age).abs() <= SAME_S.max((age as f64 * SAME) as i64);
        if let Some(known) = self.known.iter_mut().find(|(known, _)| near(*known)) {
            *known = (age, lag);
        } else {
            if self.known.len() == MOST {
                // The one closest to the new one says least beside it.
                let closest = (0..MOST).min_by_key(|n| (self.known[*n].0 - age).abs());
                self.known.remove(closest.unwrap_or(0));
            }
            self.known.push((age, lag));
        }
        self.known.sort_unstable();
    }

    /// The shortest lag that ever came out.
    pub const fn shortest(&self) -> Option<i64> {
        self.shortest
    }

    /// The lag at `age`; `None` while nothing is known.
    pub fn at(&self, age: i64) -> Option<i64> {
        let after = self.known.partition_point(|(known, _)| *known < age);
        let (below, above) =
            (after.checked_sub(1).map(|n| self.known[n]), self.known.get(after).copied());
        match (below, above) {
            (Some((a, lag_a)), Some((b, lag_b))) => {
                let share = (age - a) as f64 / (b - a).max(1) as f64;
                Some(lag_a + ((lag_b - lag_a) as f64 * share) as i64)
            }
            (Some((_, lag)), None) | (None, Some((_, lag))) => Some(lag),
            (None, None) => None,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_lag_is_read_off_between_two_ages_and_known_ages_come_back() {
        let mut lags = Lags::default();
        assert_eq!(lags.at(100), None);
        lags.note(10_000, 500);
        assert_eq!(lags.at(99_999), Some(500));
        lags.note(20_000, 300);
        assert_eq!(
            [lags.at(10_000), lags.at(15_000), lags.at(20_000)],
            [Some(500), Some(400), Some(300)]
        );
        for n in 0..40 {
            lags.note(100_000 + n * 10_000, n);
        }
        assert_eq!(lags.known.len(), MOST);
    }
}
