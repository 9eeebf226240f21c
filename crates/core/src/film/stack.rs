//! The stack of coats: cells of solids with what they hold.

use super::grid::Grid;
use super::ground::Ground;
use super::law::{self, Cells};
use super::state::{FilmState, Reading, SOFTENS, TOUCH_DRY};
use crate::mix::Composition;

/// Solids fraction from which the cells of a buried coat may be merged [-]. [practice]
const MERGE_FROM: f64 = 0.85;

/// Firmness from which a cell that was hurried goes on at its own pace [-]: that of dry through. [memory]
const CLOSED: f64 = 0.90;

/// Coats above a coat from which one cell is enough for it on a merging grid. [practice]
const DEEP: usize = 6;

/// Depth of solids whose slow volatile reaches a seal [m]: what lies deeper leaves too slowly to harm
/// it. docs/model/drying.md.
pub const SEALED_DEPTH_M: f64 = 60e-6;

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
    /// Slow volatile, or spirit, per volume of solids.
    pub glycol: f64,
    /// Lowest solids fraction in this coat.
    pub lowest_solids: f64,
    /// What the coat allows.
    pub state: FilmState,
}

/// A column of cells from the ground up; what left it is kept too, so that mass can be checked.
#[derive(Debug, Clone)]
pub struct Stack {
    pub(super) dz: Vec<f64>,
    pub(super) w: Vec<f64>,
    pub(super) g: Vec<f64>,
    /// The least volume per volume of solids that each cell has had.
    pub(super) least: Vec<f64>,
    /// Factor on the times of each cell [-], with what a finger found as long as the cell is open.
    pub(super) pace: Vec<f64>,
    /// The same without.
    own_pace: Vec<f64>,
    /// 1 where a cell's slow volatile is spirit, else 0.
    pub(super) spirit: Vec<f64>,
    spans: Vec<Span>,
    /// Slow volatile that was brought [m], and the same times its volatility.
    slow: (f64, f64),
    /// What it lies on.
    pub(super) on: Ground,
    /// Water in the ground [m].
    pub(super) ground: f64,
    /// What it holds in balance with the room [m].
    pub(super) ground_rest: f64,
    /// Water that left into the room [m].
    pub(super) gone_water: f64,
    /// Slow volatile that left into the room [m].
    pub(super) gone_glycol: f64,
}

impl Stack {
    /// Nothing on a ground, which is in balance with the room when the first coat comes.
    pub const fn on_ground(on: Ground) -> Self {
        Self {
            dz: Vec::new(),
            w: Vec::new(),
            g: Vec::new(),
            least: Vec::new(),
            pace: Vec::new(),
            own_pace: Vec::new(),
            spirit: Vec::new(),
            spans: Vec::new(),
            slow: (0.0, 0.0),
            on,
            ground: 0.0,
            ground_rest: 0.0,
            gone_water: 0.0,
            gone_glycol: 0.0,
        }
    }

    /// Number of coats.
    pub fn coats(&self) -> usize {
        self.spans.len()
    }

    /// Lays a coat of `wet_m` [m] on top, in the cells of `grid`.
    pub(super) fn lay(&mut self, wet_m: f64, mix: Composition, grid: &Grid) {
        let first = self.dz.len();
        let solids = wet_m * mix.solids();
        self.dz.extend(grid.shares(mix.spirit() > 0.0).map(|share| share * solids));
        let end = self.dz.len();
        self.w.resize(end, mix.water() / mix.solids());
        self.g.resize(end, (mix.glycol() + mix.spirit()) / mix.solids());
        self.least.resize(end, 1.0 / mix.solids());
        self.pace.resize(end, mix.pace() * mix.slowed());
        self.own_pace.resize(end, mix.pace());
        self.spirit.resize(end, f64::from(u8::from(mix.spirit() > 0.0)));
        self.spans.push(Span { first, end });
        let brought = wet_m * mix.glycol();
        self.slow.0 += brought;
        self.slow.1 += brought * mix.volatility();
    }

    /// How volatile its slow volatile is beside propylene glycol: the mean over all coats by what
    /// each brought (docs/model/drying.md).
    pub(super) fn volatility(&self) -> f64 {
        if self.slow.0 > 0.0 { self.slow.1 / self.slow.0 } else { 1.0 }
    }

    /// Keeps how compact the cells have been. What has closed goes on at its own pace: a coat that was long wet to
    /// the finger cures as others do from there on, and one that was found hard is hurried until it is.
    pub(super) fn close(&mut self) {
        let held = self.w.iter().zip(&self.g);
        for (least, (w, g)) in self.least.iter_mut().zip(held) {
            let bulk = 1.0 + w + g;
            *least = if bulk < *least { bulk } else { *least };
        }
        for i in 0..self.pace.len() {
            let closes = if self.pace[i] > self.own_pace[i] { TOUCH_DRY } else { CLOSED };
            if self.pace[i] != self.own_pace[i] && self.firm(i) >= closes {
                self.pace[i] = self.own_pace[i];
            }
        }
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
                for q in
                    [&mut self.w, &mut self.g, &mut self.least, &mut self.pace, &mut self.own_pace]
                {
                    q[to] = (q[a] * self.dz[a] + q[b] * self.dz[b]) / whole;
                }
                self.dz[to] = whole;
            }
            for q in [
                &mut self.dz,
                &mut self.w,
                &mut self.g,
                &mut self.least,
                &mut self.pace,
                &mut self.own_pace,
            ] {
                q.drain(first + pairs..end);
            }
            self.spirit.drain(first + pairs..end);
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

    /// Water in the ground beyond what the room leaves it [m].
    fn ground_m(&self) -> f64 {
        self.ground - self.ground_rest
    }

    fn phi(&self, i: usize) -> f64 {
        1.0 / (1.0 + self.w[i] + self.g[i])
    }

    /// Solids fraction of cell `i` where slow volatile counts half and spirit whole.
    fn firm(&self, i: usize) -> f64 {
        1.0 / (1.0 + self.w[i] + self.softening(i))
    }

    /// What softens cell `i` beside water, per volume of solids.
    fn softening(&self, i: usize) -> f64 {
        if self.is_spirit(i) { self.g[i] } else { SOFTENS * self.g[i] }
    }

    /// The cells as they would be with `w` water and `g` slow volatile.
    pub(super) fn cells<'a>(&'a self, w: &'a [f64], g: &'a [f64]) -> Cells<'a> {
        Cells { w, g, least: &self.least, spirit: &self.spirit }
    }

    /// Whether it never reaches `state` where the air is never drier than `driest` again: a coat that would have
    /// to be drier than the air, the ground and every other coat are loses no water to any of them.
    pub(super) fn stays_too_wet(&self, state: FilmState, driest: f64) -> bool {
        let cells = 0..self.dz.len();
        let first = if state.asks_of_all() { 0 } else { cells.end.saturating_sub(1) };
        let potential = |i: usize, w: f64, g: f64| {
            law::water_potential((w, g), self.least[i], self.spirit[i]).min(1.0)
        };
        let capacity = self.on.capacity_m();
        let ground = if capacity > 0.0 { self.ground / capacity } else { 1.0 };
        let held = cells.clone().map(|i| potential(i, self.w[i], self.g[i]));
        let least = held.fold(driest.min(ground), f64::min);
        // As wet as the state allows, its slow volatile gone.
        let most = 1.0 / state.least() - 1.0;
        cells.skip(first).any(|i| self.w[i] > most && least >= potential(i, most, 0.0))
    }

    /// Whether the slow volatile of cell `i` is spirit.
    pub(super) fn is_spirit(&self, i: usize) -> bool {
        self.spirit[i] > 0.0
    }

    /// Slow volatile per volume of solids in all water-borne coats together; spirit is not counted.
    pub fn slow_in_all(&self) -> f64 {
        let cells = (0..self.dz.len()).filter(|i| !self.is_spirit(*i));
        let (slow, solids) =
            cells.fold((0.0, 0.0), |(g, dz), i| (g + self.g[i] * self.dz[i], dz + self.dz[i]));
        if solids > 0.0 { slow / solids } else { 0.0 }
    }

    /// Slow volatile per volume of solids in the upper part of the stack; under a spirit-borne top coat
    /// only spirit-borne cells count.
    fn slow_near_the_top(&self) -> f64 {
        let only_spirit = self.spirit.last().is_some_and(|spirit| *spirit > 0.0);
        let (mut slow, mut solids, mut deep) = (0.0, 0.0, 0.0);
        for i in (0..self.dz.len()).rev() {
            let counted = self.dz[i].min(SEALED_DEPTH_M - deep);
            if counted <= 0.0 {
                break;
            }
            deep += counted;
            if !only_spirit || self.is_spirit(i) {
                slow += self.g[i] * counted;
                solids += counted;
            }
        }
        slow / solids
    }

    /// Reading of the whole stack for its top coat; `None` while nothing is laid.
    pub(super) fn reading(&self) -> Option<Reading> {
        let last = self.dz.len().checked_sub(1)?;
        let all = 0..=last;
        let fullest = all.clone().map(|i| self.w[i] + self.g[i]).fold(0.0, f64::max);
        let softest = all.map(|i| self.w[i] + self.softening(i)).fold(0.0, f64::max);
        Some(Reading {
            top: self.phi(last),
            top_firm: self.firm(last),
            lowest: 1.0 / (1.0 + fullest),
            least_firm: 1.0 / (1.0 + softest),
            slow: self.slow_near_the_top(),
            ground_m: self.ground_m(),
        })
    }

    /// Every coat as it is now, from the ground up.
    pub fn views(&self) -> Vec<CoatView> {
        let slow = if self.dz.is_empty() { 0.0 } else { self.slow_near_the_top() };
        let ground_m = self.ground_m();
        let (mut lowest_below, mut firm_below) = (1.0f64, 1.0f64);
        self.spans
            .iter()
            .map(|span| {
                let cells = span.first..span.end;
                let solids: f64 = self.dz[cells.clone()].iter().sum();
                let held =
                    |q: &[f64]| cells.clone().map(|i| q[i] * self.dz[i]).sum::<f64>() / solids;
                let (water, in_glycol) = (held(&self.w), held(&self.g));
                let lowest = cells.clone().map(|i| self.phi(i)).fold(1.0, f64::min);
                let firm = cells.clone().map(|i| self.firm(i)).fold(1.0, f64::min);
                (lowest_below, firm_below) = (lowest_below.min(lowest), firm_below.min(firm));
                let reading = Reading {
                    top: self.phi(span.end - 1),
                    top_firm: self.firm(span.end - 1),
                    lowest: lowest_below,
                    least_firm: firm_below,
                    slow,
                    ground_m,
                };
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
