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

use super::law::Locals;

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
    diagonal: Vec<f64>,
    sum: Vec<f64>,
    beyond: Vec<f64>,
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
        let Self { psi, slope, resistance, barred: _, offset, passes, diagonal, sum, beyond } =
            self;
        for buffer in [psi, slope, resistance, offset, passes, diagonal, sum, beyond] {
            buffer.resize(n, 0.0);
        }
    }

    /// Takes over the cells at the iterate: what `says` writes of each, and their dry thicknesses [m]
    /// times their paces.
    pub(super) fn linearise(
        &mut self,
        says: impl FnOnce(&mut Locals),
        (dz, pace): (&[f64], &[f64]),
    ) {
        let Self { psi, slope, resistance, .. } = self;
        says(&mut Locals { psi, slope, resists: resistance });
        for (resistance, (dz, pace)) in self.resistance.iter_mut().zip(dz.iter().zip(pace)) {
            *resistance *= 0.5 * dz * pace;
        }
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
        self.set_up(dt, (dz, known), q);
        self.diagonal[0] += dt * ground_drive * self.slope[0];
        self.sum[0] += dt * (ground_rest - ground_drive * self.offset[0]);
        self.diagonal[n - 1] += dt * top_drive * self.slope[n - 1];
        self.sum[n - 1] += dt * (top_rest - top_drive * self.offset[n - 1]);
        self.eliminate(n);
        self.substitute(q);
        let psi = |i: usize| self.offset[i] + self.slope[i] * q[i];
        let (psi_bottom, psi_top) = (psi(0), psi(n - 1));
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

    /// The equations of a step of `dt` about the iterate `q`, but for both ends: diagonals and right sides.
    fn set_up(&mut self, dt: f64, (dz, known): (&[f64], &[f64]), q: &[f64]) {
        let n = q.len();
        let faces = n - 1;
        let (psi, slope, resistance) = (&self.psi[..n], &self.slope[..n], &self.resistance[..n]);
        let (offset, passes) = (&mut self.offset[..n], &mut self.passes[..faces]);
        let (diagonal, sum) = (&mut self.diagonal[..n], &mut self.sum[..n]);
        let (dz, known) = (&dz[..n], &known[..n]);
        // psi = offset + slope * q; `passes` is what flows in `dt` to the cell above per unit of psi.
        for i in 0..n {
            offset[i] = psi[i] - slope[i] * q[i];
            diagonal[i] = dz[i];
            sum[i] = dz[i] * known[i];
        }
        for i in 0..faces {
            passes[i] = dt / (resistance[i] + resistance[i + 1]);
        }
        for (passes, _) in passes.iter_mut().zip(&self.barred).filter(|(_, barred)| **barred) {
            *passes = 0.0;
        }
        for i in 0..faces {
            diagonal[i] += passes[i] * slope[i];
            sum[i] -= passes[i] * (offset[i] - offset[i + 1]);
        }
        for i in 0..faces {
            diagonal[i + 1] += passes[i] * slope[i + 1];
            sum[i + 1] += passes[i] * (offset[i] - offset[i + 1]);
        }
    }

    /// Elimination from both ends at once towards the middle: a division waits for the one before it, and
    /// two rows of them wait beside each other. `beyond` becomes what each cell hangs on the next one
    /// inwards, `sum` the rest of it.
    fn eliminate(&mut self, n: usize) {
        let middle = n / 2;
        let (slope, passes, diagonal) = (&self.slope[..n], &self.passes[..n], &self.diagonal[..n]);
        let (beyond, sum) = (&mut self.beyond[..n], &mut self.sum[..n]);
        let (mut low, mut high) = ((0.0, 0.0), (0.0, 0.0));
        for i in 0..n - middle {
            let j = n - 1 - i;
            // From the top: the cell above is known through this one.
            let from = if i > 0 { passes[j] * slope[j + 1] } else { 0.0 };
            let share = 1.0 / (diagonal[j] - from * high.0);
            let to = if j > 0 { passes[j - 1] * slope[j - 1] } else { 0.0 };
            high = (to * share, (sum[j] + from * high.1) * share);
            (beyond[j], sum[j]) = high;
            // From the bottom, likewise.
            if i < middle {
                let from = if i > 0 { passes[i - 1] * slope[i - 1] } else { 0.0 };
                let share = 1.0 / (diagonal[i] - from * low.0);
                low = (passes[i] * slope[i + 1] * share, (sum[i] + from * low.1) * share);
                (beyond[i], sum[i]) = low;
            }
        }
    }

    /// Substitution into `q` from the middle to both ends.
    fn substitute(&self, q: &mut [f64]) {
        let n = q.len();
        let middle = n / 2;
        let (beyond, sum) = (&self.beyond[..n], &self.sum[..n]);
        // The two cells that met hang on each other.
        let (mut high, mut low) = (sum[middle], 0.0);
        if middle > 0 {
            let (a, b) = (middle - 1, middle);
            high = (sum[b] + beyond[b] * sum[a]) / (1.0 - beyond[a] * beyond[b]);
            low = sum[a] + beyond[a] * high;
            q[a] = low;
        }
        q[middle] = high;
        for i in 1..n - middle {
            high = sum[middle + i] + beyond[middle + i] * high;
            q[middle + i] = high;
            if i < middle {
                low = sum[middle - 1 - i] + beyond[middle - 1 - i] * low;
                q[middle - 1 - i] = low;
            }
        }
    }
}
