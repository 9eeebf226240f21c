//! A picture on its way through an order of work, and by what its films are judged.

use super::beds::BedId;
use super::lags::Held;
use crate::readiness::Done;

/// What stands for films while an order is played.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Judged {
    /// The films themselves.
    Films,
    /// Where a wait is long the films on a rough grid, put right by what these were off before; elsewhere
    /// the lags.
    Rough,
    /// The lags that came out last.
    Lags,
    /// Nothing: every film is ready at once, and only floors are waited for. No plan is sooner than that.
    Floors,
}

/// A picture while an order of work is tried.
#[derive(Debug, Clone)]
pub(super) struct Played {
    pub done: Done,
    /// What the coats below the last one hold.
    pub below: Held,
    /// Its bed, while films are computed exactly.
    pub bed: BedId,
    /// Its bed on the rough grid, while that is followed and can be.
    pub rough: Option<BedId>,
}
