//! What a plan is judged by while plans are compared.

use std::cmp::Ordering;

/// A plan's worth, less is better, the first difference decides.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub(super) struct Score {
    /// Pictures that cannot be finished.
    pub blocked: u32,
    /// Days late, weighted.
    pub late: f64,
    /// Coats painted from a tub past its last good day.
    pub past_tubs: u32,
    /// Seconds from the start of planning to when each picture is ready, summed.
    pub sum: i64,
    /// Changes of picture or mix.
    pub set_ups: u32,
}

impl Score {
    /// Less is better.
    pub fn compare(&self, other: &Score) -> Ordering {
        self.blocked
            .cmp(&other.blocked)
            .then(self.late.total_cmp(&other.late))
            .then(self.past_tubs.cmp(&other.past_tubs))
            .then(self.sum.cmp(&other.sum))
            .then(self.set_ups.cmp(&other.set_ups))
    }

    /// Whether it is better than `other`.
    pub fn beats(&self, other: &Score) -> bool {
        self.compare(other) == Ordering::Less
    }
}
