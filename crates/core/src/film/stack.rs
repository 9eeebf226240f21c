//! The stack of coats: cells of solids with what they hold.

use super::state::{FilmState, Reading};
use crate::mix::Composition;

/// How finely a stack is divided.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Grid {
    /// Cells of a coat.
    pub cells: usize,
    /// Change of a cell, relative to `q + 0.05`, above which a step is halved [-].
    pub most_change: f64,
    /// Change below which the next step grows [-].
    pub little_change: f64,
    /// Cells that a closed coat is merged to once it is buried under two others.
    pub buried_cells: usize,
    /// Sweeps of the linearised equations in a step.
    pub sweeps: usize,
    /// First step after a coat is laid [s].
    pub first_step: f64,
    /// Longest step [s].
    pub longest_step: f64,
    /// Growth of a step [-]; BDF2 is stable to 2.41 (Hairer & Wanner III.5).
    pub growth: f64,
}

/// First step after a coat is laid [s]; drying.md.
const FIRST_STEP: f64 = 1.0;
/// First step in sampled futures [s]. [practice] nothing dries in less
const FIRST_SAMPLED_STEP: f64 = 15.0;
/// Growth of a step [-]; drying.md.
const GROWTH: f64 = 1.4;
/// Growth of a step in sampled futures [-]. [practice]
const SAMPLED_GROWTH: f64 = 1.4;

/// Longest step [s]: 3 h, drying.md.
const LONGEST_STEP: f64 = 3.0 * 3600.0;
/// Longest step in sampled futures [s]: half a day. [practice] what moves in it after weeks is far
/// below their spread
const LONGEST_SAMPLED_STEP: f64 = 43_200.0;

impl Grid {
    /// Enough for planning: within 12 % of [`Grid::FINE`] or 5 minutes.
    pub const PLANNING: Grid = Grid {
        cells: 8,
        most_change: 0.25,
        little_change: 0.10,
        buried_cells: 2,
        sweeps: 2,
        first_step: FIRST_STEP,
        longest_step: LONGEST_STEP,
        growth: GROWTH,
    };
    /// Enough for sampled futures, whose films differ by far more than its error.
    pub const SAMPLED: Grid = Grid {
        cells: 4,
        most_change: 0.5,
        little_change: 0.2,
        buried_cells: 1,
        sweeps: 1,
        first_step: FIRST_SAMPLED_STEP,
        longest_step: LONGEST_SAMPLED_STEP,
        growth: SAMPLED_GROWTH,
    };
    /// Enough to draw a film as a line.
    pub const DRAWN: Grid = Grid {
        first_step: FIRST_STEP,
        longest_step: LONGEST_STEP,
        growth: GROWTH,
        ..Self::SAMPLED
    };
    /// The reference: its times move by less than 1 % when it is refined further.
    pub const FINE: Grid = Grid {
        cells: 32,
        most_change: 0.03,
        little_change: 0.012,
        buried_cells: 32,
        sweeps: 3,
        first_step: FIRST_STEP,
        longest_step: LONGEST_STEP,
        growth: GROWTH,
    };
}

/// Solids fraction from which the cells of a buried coat may be merged [-]. [practice]
const MERGE_FROM: f64 = 0.85;

/// Coats above a coat from which one cell is enough for it on a merging grid. [practice]
const DEEP: usize = 6;

/// One coat as a run of cells.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
struct Span {
    first: usize,
    end: usize,
}

/// A coat as it is at one moment.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct CoatView {
    /// Thickness with everything still in it [m].
    pub thickness_m: f64,
    /// Water per volume of solids.
    pub water: f64,
    /// Slow volatile per volume of solids.
    pub glycol: f64,
    /// Lowest solids fraction in this coat.
    pub lowest_solids: f64,
    /// What the coat allows.
    pub state: FilmState,
}

/// A column of cells from the ground up; what left it is kept too, so that mass can be checked.
#[derive(Debug, Clone, Default)]
pub struct Stack {
    pub(super) dz: Vec<f64>,
    pub(super) w: Vec<f64>,
    pub(super) g: Vec<f64>,
    pub(super) phi_max: Vec<f64>,
    /// Factor on the times of each cell [-].
    pub(super) pace: Vec<f64>,
    spans: Vec<Span>,
    /// Slow volatile that was brought [m], and the same times its volatility.
    slow: (f64, f64),
    /// Water the ground can hold [m].
    pub(super) capacity: f64,
    /// Water in the ground [m].
    pub(super) ground: f64,
    /// Water that left into the room [m].
    pub(super) gone_water: f64,
    /// Slow volatile that left into the room [m].
    pub(super) gone_glycol: f64,
}

impl Stack {
    /// Nothing on a ground that can take up `capacity_m` of water [m].
    pub fn on_ground(capacity_m: f64) -> Self {
        Self { capacity: capacity_m, ..Self::default() }
    }

    /// Number of coats.
    pub fn coats(&self) -> usize {
        self.spans.len()
    }

    /// Lays a coat of `wet_m` [m] on top, in `cells` cells.
    pub(super) fn lay(&mut self, wet_m: f64, mix: Composition, cells: usize) {
        let first = self.dz.len();
        let end = first + cells;
        self.dz.resize(end, wet_m * mix.solids() / cells as f64);
        self.w.resize(end, mix.water() / mix.solids());
        self.g.resize(end, mix.glycol() / mix.solids());
        self.phi_max.resize(end, mix.solids());
        self.pace.resize(end, mix.pace());
        self.spans.push(Span { first, end });
        let brought = wet_m * mix.glycol();
        self.slow.0 += brought;
        self.slow.1 += brought * mix.volatility();
    }

    /// How volatile its slow volatile is beside propylene glycol: the mean over all coats by what
    /// each brought (drying.md).
    pub(super) fn volatility(&self) -> f64 {
        if self.slow.0 > 0.0 { self.slow.1 / self.slow.0 } else { 1.0 }
    }

    /// Merges the cells of the coat two below the top in pairs, once it has closed, until `cells`
    /// are left: what lies deep and dry changes slowly and evenly. Keeps all mass.
    pub(super) fn merge_buried(&mut self, cells: usize) {
        let Some(buried) = self.spans.len().checked_sub(3) else { return };
        for coat in (0..=buried).rev() {
            let Span { first, end } = self.spans[coat];
            let closed = (first..end).all(|i| self.phi(i) >= MERGE_FROM);
            let deep = self.spans.len() - coat > DEEP;
            let cells = if deep { cells.div_ceil(2) } else { cells };
            if !closed || end - first <= cells || !(end - first).is_multiple_of(2) {
                continue;
            }
            let pairs = (end - first) / 2;
            for pair in 0..pairs {
                let (a, b, to) = (first + 2 * pair, first + 2 * pair + 1, first + pair);
                let whole = self.dz[a] + self.dz[b];
                for q in [&mut self.w, &mut self.g, &mut self.phi_max, &mut self.pace] {
                    q[to] = (q[a] * self.dz[a] + q[b] * self.dz[b]) / whole;
                }
                self.dz[to] = whole;
            }
            for q in [&mut self.dz, &mut self.w, &mut self.g, &mut self.phi_max, &mut self.pace] {
                q.drain(first + pairs..end);
            }
            self.spans[coat].end -= pairs;
            for span in &mut self.spans[coat + 1..] {
                span.first -= pairs;
                span.end -= pairs;
            }
        }
    }

    /// Water and slow volatile in the film, the ground and the room [m]: constant but for coats.
    pub fn balance(&self) -> (f64, f64) {
        let in_film = |q: &[f64]| q.iter().zip(&self.dz).map(|(q, dz)| q * dz).sum::<f64>();
        (in_film(&self.w) + self.ground + self.gone_water, in_film(&self.g) + self.gone_glycol)
    }

    /// Water taken up by the ground [m].
    pub const fn ground_water(&self) -> f64 {
        self.ground
    }

    fn phi(&self, i: usize) -> f64 {
        1.0 / (1.0 + self.w[i] + self.g[i])
    }

    fn glycol_left(&self) -> f64 {
        let (mut glycol, mut solids) = (0.0, 0.0);
        for (g, dz) in self.g.iter().zip(&self.dz) {
            glycol += g * dz;
            solids += dz;
        }
        glycol / solids
    }

    /// Reading of the whole stack for its top coat; `None` while nothing is laid.
    pub(super) fn reading(&self) -> Option<Reading> {
        let last = self.dz.len().checked_sub(1)?;
        let fullest = self.w.iter().zip(&self.g).map(|(w, g)| w + g).fold(0.0, f64::max);
        Some(Reading {
            top: self.phi(last),
            lowest: 1.0 / (1.0 + fullest),
            glycol: self.glycol_left(),
        })
    }

    /// Every coat as it is now, from the ground up.
    pub fn views(&self) -> Vec<CoatView> {
        let glycol = if self.dz.is_empty() { 0.0 } else { self.glycol_left() };
        let mut lowest_below = 1.0f64;
        self.spans
            .iter()
            .map(|span| {
                let cells = span.first..span.end;
                let solids: f64 = self.dz[cells.clone()].iter().sum();
                let held =
                    |q: &[f64]| cells.clone().map(|i| q[i] * self.dz[i]).sum::<f64>() / solids;
                let (water, in_glycol) = (held(&self.w), held(&self.g));
                let lowest = cells.clone().map(|i| self.phi(i)).fold(1.0, f64::min);
                lowest_below = lowest_below.min(lowest);
                let reading = Reading { top: self.phi(span.end - 1), lowest: lowest_below, glycol };
                CoatView {
                    thickness_m: solids * (1.0 + water + in_glycol),
                    water,
                    glycol: in_glycol,
                    lowest_solids: lowest,
                    state: FilmState::of(&reading),
                }
            })
            .collect()
    }
}
