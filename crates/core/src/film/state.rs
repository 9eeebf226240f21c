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
/// Solids fraction of the top cell from which a coat is touch-dry [-]. [memory]
const TOUCH_DRY: f64 = 0.70;
/// Lowest solids fraction in a coat and all below from which it may be painted over [-]. [memory]
const PAINTABLE: f64 = 0.80;
/// Lowest solids fraction of the stack from which it is dry through [-]. [memory]
const DRY_THROUGH: f64 = 0.90;
/// Glycol left per volume of all solids at which the stack may be sealed [-]. [memory]
const SEAL_GLYCOL: f64 = 0.02;
/// Glycol left per volume of all solids at which it may be wrapped [-]. [memory]
const WRAP_GLYCOL: f64 = 0.01;

/// What the states are read off.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct Reading {
    /// Solids fraction of the coat's top cell.
    pub top: f64,
    /// Lowest solids fraction in the coat and every coat below.
    pub lowest: f64,
    /// Glycol per volume of all solids in the stack.
    pub glycol: f64,
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

    /// How far each condition of the state is met: it holds when none is negative.
    pub(super) fn margins(self, r: &Reading) -> (f64, f64) {
        const MET: f64 = f64::INFINITY;
        match self {
            Self::Workable => (MET, MET),
            Self::Setting => (r.top - SETTING, MET),
            Self::TouchDry => (r.top - TOUCH_DRY, MET),
            Self::Paintable => (r.lowest - PAINTABLE, MET),
            Self::DryThrough => (r.lowest - DRY_THROUGH, MET),
            Self::ReadyToSeal => (r.lowest - DRY_THROUGH, SEAL_GLYCOL - r.glycol),
            Self::ReadyToWrap => (r.lowest - DRY_THROUGH, WRAP_GLYCOL - r.glycol),
        }
    }

    /// The furthest state that a reading allows.
    pub(super) fn of(r: &Reading) -> Self {
        let mut state = Self::Workable;
        for next in Self::REACHED {
            let (a, b) = next.margins(r);
            if a >= 0.0 && b >= 0.0 {
                state = next;
            }
        }
        state
    }
}
