//! What a picture is painted on, as the film feels it.

/// Delay with which a ground drinks where none is said [s]; docs/formats/studio.md. [memory]
const USUAL_DELAY_S: f64 = 120.0;
/// Water a ground can hold beside what it takes up from a coat [-]: in an ordinary room it is half full
/// already. docs/model/drying.md. [memory]
const HOLDS: f64 = 2.0;

/// A ground that drinks water from the first coat and dries from behind.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Ground {
    /// Water it takes up in an ordinary room [um].
    pub absorbs_um: f64,
    /// Delay with which it does [s].
    pub delay_s: f64,
    /// Share of free evaporation from its back [-].
    pub back: f64,
}

impl Ground {
    /// Nothing passes.
    pub const SEALED: Ground = Ground::of(0.0);

    /// A ground that takes up `absorbs_um` of water [um] and is closed behind.
    pub const fn of(absorbs_um: f64) -> Self {
        Self { absorbs_um, delay_s: USUAL_DELAY_S, back: 0.0 }
    }

    /// Water it can hold in all [m].
    pub(super) fn capacity_m(&self) -> f64 {
        HOLDS * self.absorbs_um * 1e-6
    }
}
