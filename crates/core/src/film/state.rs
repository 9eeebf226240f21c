//! What a film allows.

use serde::{Deserialize, Serialize};

/// States of a film, in the order it passes them.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum FilmState {
    /// Just laid: blend, wipe, keep a wet edge.
    Workable,
    /// The skin forms: leave it alone.
    Setting,
    /// A fingertip takes nothing; it may be moved.
    TouchDry,
    /// The next coat is safe.
    Paintable,
    /// Sand, stencil, tape.
    DryThrough,
    /// Varnish or isolation coat.
    ReadyToSeal,
    /// The face may be touched by wrapping.
    ReadyToWrap,
}

/// Solids fraction of the top cell from which a coat is setting [-]. [memory]
const SETTING: f64 = 0.58;
/// Firmness of the top cell from which a coat is touch-dry [-]. [memory]
pub(super) const TOUCH_DRY: f64 = 0.70;
/// Lowest firmness in a coat and all below from which it may be painted over [-]. [memory]
const PAINTABLE: f64 = 0.80;
/// How much the slow volatile softens a film beside water [-]: it plasticises the polymer and does not float
/// it. Chosen so that a glaze may be painted on within the hour, as every painter does. [practice]
pub(super) const SOFTENS: f64 = 0.5;
/// Lowest solids fraction of the stack from which it is dry through [-]. [memory]
const DRY_THROUGH: f64 = 0.90;
/// Water that a ground may hold beyond its balance with the room when it is painted over [m]. [memory]
const GROUND_WET_M: f64 = 10e-6;
/// Slow volatile left per volume of the upper solids at which the stack may be sealed [-]: thin
/// ordinary paint after a day to four. [practice]
pub const SEAL_SLOW: f64 = 0.04;
/// Slow volatile left per volume of the upper solids at which it may be wrapped [-]. [memory]
const WRAP_SLOW: f64 = 0.02;

/// What the states are read off.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct Reading {
    /// Solids fraction of the coat's top cell.
    pub top: f64,
    /// Firmness of that cell: its solids fraction, where slow volatile counts half.
    pub top_firm: f64,
    /// Lowest solids fraction in the coat and every coat below.
    pub lowest: f64,
    /// Lowest firmness likewise.
    pub least_firm: f64,
    /// Slow volatile per volume of the solids near the surface.
    pub slow: f64,
    /// Water in the ground beyond its balance with the room [m].
    pub ground_m: f64,
}

impl FilmState {
    /// The states that are reached (all but [`FilmState::Workable`]), in order.
    pub const REACHED: [FilmState; 6] = [
        FilmState::Setting,
        FilmState::TouchDry,
        FilmState::Paintable,
        FilmState::DryThrough,
        FilmState::ReadyToSeal,
        FilmState::ReadyToWrap,
    ];

    /// The solids fraction, or firmness, without which neither the state nor those after it are reached: that of the
    /// top cell, [from paintable on](Self::asks_of_all) that of every cell.
    pub(super) const fn least(self) -> f64 {
        match self {
            Self::Workable => 0.0,
            Self::Setting => SETTING,
            Self::TouchDry => TOUCH_DRY,
            Self::Paintable => PAINTABLE,
            Self::DryThrough | Self::ReadyToSeal | Self::ReadyToWrap => DRY_THROUGH,
        }
    }

    /// Whether the whole stack must be as dry as that, not its top alone.
    pub(super) fn asks_of_all(self) -> bool {
        self >= Self::Paintable
    }

    /// How far each condition of the state is met: it holds when none is negative.
    pub(super) fn margins(self, r: &Reading) -> (f64, f64) {
        const MET: f64 = f64::INFINITY;
        let over = |dry: f64| dry - self.least();
        match self {
            Self::Workable => (MET, MET),
            Self::Setting => (over(r.top), MET),
            Self::TouchDry => (over(r.top_firm), MET),
            Self::Paintable => (over(r.least_firm), GROUND_WET_M - r.ground_m),
            Self::DryThrough => (over(r.lowest), MET),
            Self::ReadyToSeal => (over(r.lowest), SEAL_SLOW - r.slow),
            Self::ReadyToWrap => (over(r.lowest), WRAP_SLOW - r.slow),
        }
    }

    /// The furthest state that a reading allows, all before it too: a film may be dry through over a
    /// ground that is still too wet to paint on.
    pub(super) fn of(r: &Reading) -> Self {
        let holds = |state: &Self| {
            let (a, b) = state.margins(r);
            a >= 0.0 && b >= 0.0
        };
        Self::REACHED.into_iter().take_while(holds).last().unwrap_or(Self::Workable)
    }
}
