//! A step still to do, as the planner sees it, and what lies on the bench.

/// What was last on the bench: picture and mix (0 = nothing mixed).
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) struct Bench {
    pub picture: u32,
    pub mix: u32,
}

impl Bench {
    /// Whether `next` can go on without a set-up: the same mix, or the same picture without one.
    pub fn serves(self, next: Bench) -> bool {
        self.mix == next.mix && (self.mix != 0 || self.picture == next.picture)
    }
}

/// A step still to do.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Task {
    /// Hands-on work [s].
    pub hands_on: i64,
    pub splittable: bool,
    pub bench: Bench,
    /// Whether it leaves a film.
    pub lays: bool,
    /// Whether it holds a flat place while wet.
    pub seals: bool,
    /// Whether it is only done by daylight.
    pub by_daylight: bool,
    /// End of its tub's last good day [s of the epoch].
    pub last_good: Option<i64>,
    /// Where the painter pinned it [s of the epoch].
    pub pinned: Option<i64>,
    /// Whether no other step still to do could share its set-up.
    pub own_set_up: bool,
    /// The steps of its picture it stands on.
    pub below: Vec<usize>,
}
