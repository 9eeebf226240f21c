//! How finely a stack is divided, in space and in time.

/// How finely a stack is divided.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Grid {
    /// Cells of a coat.
    pub cells: usize,
    /// How much thicker a cell is than its neighbour nearer to a face of the coat [-]: the film bends
    /// most at its faces.
    pub grading: f64,
    /// Change of a cell, relative to `q + 0.05`, above which a step is halved [-].
    pub most_change: f64,
    /// Change below which the next step grows [-].
    pub little_change: f64,
    /// Cells that a closed coat is merged to once it is buried under two others.
    pub buried_cells: usize,
    /// Sweeps of the linearised equations in a step, at most.
    pub sweeps: usize,
    /// Change of every cell, as above, below which one sweep is enough [-].
    pub one_sweep: f64,
    /// First step after a coat is laid [s].
    pub first_step: f64,
    /// Longest step [s].
    pub longest_step: f64,
    /// Longest step as a share of the time since the last coat [-]: what a long step is late by is in
    /// proportion to it.
    pub longest_share: f64,
    /// Growth of a step [-].
    pub growth: f64,
    /// Whether a coat is laid on the film from where it was looked at last, and not from the coat below on:
    /// one run instead of two, whose steps then hang on what was asked.
    pub goes_on: bool,
}

/// First step after a coat is laid [s]; docs/model/drying.md.
const FIRST_STEP: f64 = 1.0;
/// Growth of a step [-]; docs/model/drying.md.
const GROWTH: f64 = 1.4;
/// Longest step [s]: 3 h, docs/model/drying.md.
const LONGEST_STEP: f64 = 3.0 * 3600.0;
/// First step after a coat is laid in sampled futures [s]: the change of the cells shortens what is too
/// long. [practice]
const FIRST_SAMPLED_STEP: f64 = 20.0;
/// Growth of a step in sampled futures [-], likewise. [practice]
const SAMPLED_GROWTH: f64 = 2.0;
/// Longest step in sampled futures [s]: half a day. [practice] what moves in it after weeks is far
/// below their spread
const LONGEST_SAMPLED_STEP: f64 = 43_200.0;

impl Grid {
    /// Enough for planning: within 12 % or 5 minutes of [`Grid::FINE`] for all but two or three of a
    /// thousand events of any stack, and hardly ever earlier (`tests/film/drying_grid.rs`). [practice] chosen by
    /// that count against the time it takes
    pub const PLANNING: Grid = Grid {
        cells: 8,
        grading: 1.5,
        most_change: 0.10,
        little_change: 0.04,
        buried_cells: 2,
        sweeps: 3,
        one_sweep: 0.01,
        first_step: FIRST_STEP,
        longest_step: LONGEST_STEP,
        longest_share: 0.15,
        growth: GROWTH,
        goes_on: false,
    };
    /// Enough for sampled futures, whose films differ by far more than its error.
    pub const SAMPLED: Grid = Grid {
        cells: 4,
        grading: 1.5,
        most_change: 0.3,
        little_change: 0.12,
        buried_cells: 1,
        // From where the last step leads to one is enough: half of all events differ by less than 2.2 %
        // from the fine grid's, nine of ten by less than 11 %. Measured.
        sweeps: 1,
        one_sweep: 0.02,
        first_step: FIRST_SAMPLED_STEP,
        longest_step: LONGEST_SAMPLED_STEP,
        longest_share: 0.2,
        growth: SAMPLED_GROWTH,
        goes_on: true,
    };
    /// Enough to tell orders of work apart while a search goes on: the wait for sealing, at a fifth of the time of
    /// [`Grid::PLANNING`]. By what it was off for other ages of the same coats it comes within 1.5 to 2.6 h of a
    /// week for half of all stacks and 4 to 8 h for nine of ten; two cells a coat are twice as far off. Measured.
    pub const ROUGH: Grid = Grid { cells: 3, ..Self::SAMPLED };
    /// Enough to draw a film as a line.
    pub const DRAWN: Grid = Grid {
        sweeps: 2,
        first_step: FIRST_STEP,
        longest_step: LONGEST_STEP,
        growth: GROWTH,
        goes_on: false,
        ..Self::SAMPLED
    };
    /// The reference, held against the table of docs/model/drying.md.
    pub const FINE: Grid = Grid {
        cells: 32,
        grading: 1.0,
        most_change: 0.03,
        little_change: 0.012,
        buried_cells: 32,
        sweeps: 3,
        one_sweep: 0.0,
        first_step: FIRST_STEP,
        longest_step: LONGEST_STEP,
        longest_share: f64::INFINITY,
        growth: GROWTH,
        goes_on: false,
    };

    /// Shares of a coat's solids in its cells, from the lowest up; they sum to 1. A spirit-borne coat
    /// closes in a skin far thinner than it is, and gets twice the cells.
    pub(super) fn shares(&self, spirit: bool) -> impl Iterator<Item = f64> {
        let (n, grading) = (if spirit { 2 * self.cells } else { self.cells }, self.grading);
        let weight = move |i: usize| grading.powi(i.min(n - 1 - i) as i32);
        let whole: f64 = (0..n).map(weight).sum();
        (0..n).map(move |i| weight(i) / whole)
    }
}
