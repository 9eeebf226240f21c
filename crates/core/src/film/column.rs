//! One implicit step of diffusion through a column of cells: the numerical heart, kept apart from
//! the paint so that it can be held against closed solutions.
//!
//! For each cell of dry thickness `dz`, `dz dq/dt = J_below - J_above` with
//! `J = (psi_lower - psi_upper) / (r_lower + r_upper)`; `psi` is linearised about the iterate.
//! Time is backward Euler: `q_new - q_now = dt F(q_new)`.
//!
//! | rival | weakness |
//! |---|---|
//! | BDF2 | not monotone: it overshoots, and a film that closed too far by an overshoot stays closed |
//! | explicit steps | a dry cell of 5 um under wet paint would force steps of milliseconds |
//! | a general stiff solver | dense Jacobians of several hundred cells |

use super::law::Local;

/// What happens at the upper surface: `J = (drive * psi_top - rest) / (1 + drive * r_top)`,
/// which is evaporation with the surface itself eliminated.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Top {
    /// Transfer `drive` [m/s] per unit of activity, against `rest` [m/s] given back by the room.
    Transfer {
        /// Flux per unit of surface activity [m/s].
        drive: f64,
        /// Flux that the room sends back [m/s].
        rest: f64,
    },
    /// A fixed flux out of the column [m/s]: the surface cannot be wetter than wet.
    Flux(f64),
}

/// What lies under the lowest cell.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Bottom {
    /// Nothing passes.
    Sealed,
    /// A ground that drinks: one node of `capacity` [m] reached over a delay of `tau` [s].
    Ground {
        /// What it can hold [m of water].
        capacity: f64,
        /// Time it takes to fill [s].
        tau: f64,
        /// Flux out of its back per unit of its activity [m/s].
        drive: f64,
        /// Flux that the room sends back there [m/s].
        rest: f64,
    },
}

/// Buffers of one tridiagonal sweep, reused from step to step.
#[derive(Debug, Clone, Default)]
pub struct Column {
    /// Potential of each cell at the iterate.
    pub psi: Vec<f64>,
    /// Slope of the potential, `d psi / d q`.
    pub slope: Vec<f64>,
    /// Half-cell resistance [s/m].
    pub resistance: Vec<f64>,
    /// Whether nothing passes from a cell to the one above; as many as cells, or none.
    pub barred: Vec<bool>,
    offset: Vec<f64>,
    passes: Vec<f64>,
    upper: Vec<f64>,
    right: Vec<f64>,
}

/// Fluxes over the two ends of the column at the end of a sweep [m/s].
#[derive(Debug, Clone, Copy, Default, PartialEq)]
pub struct Ends {
    /// Out of the top.
    pub top: f64,
    /// Into the ground.
    pub bottom: f64,
    /// Out of the ground's back.
    pub back: f64,
}

impl Column {
    /// Makes room for `n` cells.
    pub fn resize(&mut self, n: usize) {
        self.barred.clear();
        let Self { psi, slope, resistance, barred: _, offset, passes, upper, right } = self;
        for buffer in [psi, slope, resistance, offset, passes, upper, right] {
            buffer.resize(n, 0.0);
        }
    }

    /// Takes over cell `i` at the iterate: what holds the volatile there, and its dry thickness [m] times
    /// its pace.
    pub(super) fn linearise(&mut self, i: usize, local: Local, thickness: f64) {
        self.psi[i] = local.psi;
        self.slope[i] = local.slope;
        self.resistance[i] = 0.5 * thickness * local.resists;
    }

    /// Solves one sweep of a step of `dt` [s]: `q` holds the iterate and is replaced by the next one;
    /// `known` is each cell before the step, as is the ground's water. Returns the end fluxes.
    pub fn sweep(
        &mut self,
        dz: &[f64],
        dt: f64,
        known: &[f64],
        (bottom, ground_known): (Bottom, f64),
        top: Top,
        q: &mut [f64],
    ) -> Ends {
        let n = q.len();
        let ((ground_drive, ground_rest), (top_drive, top_rest)) =
            self.ends(dt, (bottom, ground_known), (top, n - 1));
        // psi = offset + slope * q; `passes` is what flows in `dt` to the cell above per unit of psi.
        let (slope, known, dz) = (&self.slope[..n], &known[..n], &dz[..n]);
        for (offset, (psi, (slope, q))) in
            self.offset.iter_mut().zip(self.psi.iter().zip(slope.iter().zip(&*q)))
        {
            *offset = psi - slope * q;
        }
        for (passes, pair) in self.passes.iter_mut().zip(self.resistance.windows(2)) {
            *passes = dt / (pair[0] + pair[1]);
        }
        for (passes, _) in self.passes.iter_mut().zip(&self.barred).filter(|(_, barred)| **barred) {
            *passes = 0.0;
        }
        // Forward elimination.
        let (offset, passes) = (&self.offset[..n], &self.passes[..n]);
        let (upper, right) = (&mut self.upper[..n], &mut self.right[..n]);
        let mut below = dt * ground_drive;
        for i in 0..n {
            let last = i + 1 == n;
            let above = if last { dt * top_drive } else { passes[i] };
            let mut diagonal = dz[i] + (below + above) * slope[i];
            let mut sum = dz[i] * known[i] - (below + above) * offset[i];
            if i == 0 {
                sum += dt * ground_rest;
            } else {
                let lower = below * slope[i - 1];
                diagonal += lower * upper[i - 1];
                sum += below * offset[i - 1] + lower * right[i - 1];
            }
            if last {
                right[i] = (sum + dt * top_rest) / diagonal;
            } else {
                let share = 1.0 / diagonal;
                upper[i] = -above * slope[i + 1] * share;
                right[i] = (sum + above * offset[i + 1]) * share;
            }
            below = above;
        }
        let (psi_bottom, psi_top) = self.substitute(q);
        let into = ground_drive * psi_bottom - ground_rest;
        let back = match bottom {
            Bottom::Ground { capacity, drive, rest, .. } if capacity > 0.0 => {
                let held = (ground_known + dt * (into + rest)) / (1.0 + dt * drive / capacity);
                drive * held / capacity - rest
            }
            _ => 0.0,
        };
        Ends { top: top_drive * psi_top - top_rest, bottom: into, back }
    }

    /// Takes back what a cell was made to give beyond what it held: from the cells above it, which got
    /// it, or else from those below. Swelling by one volatile drives the other out, and there may be
    /// nothing left to drive. Returns the flux [m/s] by which too much left the column where all of them
    /// together held too little; with it the sum is kept.
    pub fn take_back(&self, dz: &[f64], dt: f64, q: &mut [f64]) -> f64 {
        if q.iter().all(|q| *q >= 0.0) {
            return 0.0;
        }
        let passes = |i: usize| !self.barred.get(i).is_some_and(|barred| *barred);
        for i in 1..q.len() {
            if q[i - 1] < 0.0 && passes(i - 1) {
                q[i] += q[i - 1] * dz[i - 1] / dz[i];
                q[i - 1] = 0.0;
            }
        }
        for i in (1..q.len()).rev() {
            if q[i] < 0.0 && passes(i - 1) {
                q[i - 1] += q[i] * dz[i] / dz[i - 1];
                q[i] = 0.0;
            }
        }
        let mut missing = 0.0;
        for (q, dz) in q.iter_mut().zip(dz).filter(|(q, _)| **q < 0.0) {
            missing -= *q * dz;
            *q = 0.0;
        }
        missing / dt
    }

    /// What flows through the ends, as `drive * psi - rest` of the end cell: through the ground,
    /// and out of the top of cell `last`.
    fn ends(
        &self,
        dt: f64,
        (bottom, ground_known): (Bottom, f64),
        (top, last): (Top, usize),
    ) -> ((f64, f64), (f64, f64)) {
        // The ground node is eliminated first: w = known + dt (J - drive w/C + rest),
        // J = (psi_0 - w/C)/R.
        let ground = match bottom {
            Bottom::Ground { capacity, tau, drive, rest } if capacity > 0.0 => {
                let through = tau / capacity + self.resistance[0];
                let held = 1.0 + dt / (capacity * through) + dt * drive / capacity;
                let of_psi = (1.0 - dt / (capacity * through * held)) / through;
                (of_psi, (ground_known + dt * rest) / (capacity * through * held))
            }
            _ => (0.0, 0.0),
        };
        let top = match top {
            Top::Transfer { drive, rest } => {
                let with_film = 1.0 + drive * self.resistance[last];
                (drive / with_film, rest / with_film)
            }
            Top::Flux(flux) => (0.0, -flux),
        };
        (ground, top)
    }

    /// Back substitution into `q`; returns psi of the end cells, the lowest first.
    fn substitute(&self, q: &mut [f64]) -> (f64, f64) {
        let n = q.len();
        let mut above = self.right[n - 1];
        q[n - 1] = above;
        for i in (0..n - 1).rev() {
            above = self.right[i] - self.upper[i] * above;
            q[i] = above;
        }
        let psi = |i: usize| self.offset[i] + self.slope[i] * q[i];
        (psi(0), psi(n - 1))
    }
}
