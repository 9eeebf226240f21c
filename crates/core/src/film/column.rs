//! One implicit step of diffusion through a column of cells: the numerical heart, kept apart from
//! the paint so that it can be held against closed solutions.
//!
//! For each cell of dry thickness `dz`, `dz dq/dt = J_below - J_above` with
//! `J = (psi_lower - psi_upper) / (r_lower + r_upper)`; `psi` is linearised about the iterate.
//! Time is second order by variable-step BDF2 (Hairer & Wanner, Solving Ordinary Differential
//! Equations II, III.5), started by backward Euler:
//! `a q_new - b q_now + c q_before = dt F(q_new)`.
//!
//! | rival | weakness |
//! |---|---|
//! | backward Euler alone | first order: the setting time of a thin coat drifts with the step |
//! | explicit steps | a dry cell of 5 um under wet paint would force steps of milliseconds |
//! | a general stiff solver | dense Jacobians of several hundred cells; ten times slower here |

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
    },
}

/// Coefficients of the time step: `a q_new - b q_now + c q_before = dt F`.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct TimeStep {
    /// Length of the step [s].
    pub dt: f64,
    a: f64,
    b: f64,
    c: f64,
}

impl TimeStep {
    /// Backward Euler over `dt` [s], for the first step after a jump.
    pub const fn euler(dt: f64) -> Self {
        Self { dt, a: 1.0, b: 1.0, c: 0.0 }
    }

    /// BDF2 over `dt` [s] after a step of `before` [s].
    pub fn bdf2(dt: f64, before: f64) -> Self {
        let r = dt / before;
        Self { dt, a: (1.0 + 2.0 * r) / (1.0 + r), b: 1.0 + r, c: r * r / (1.0 + r) }
    }

    /// What is known of a quantity before the step: `b now - c before`.
    pub fn known(&self, now: f64, before: f64) -> f64 {
        self.b * now - self.c * before
    }

    /// The new value of a quantity whose rate is `rate` at the end of the step.
    pub fn settle(&self, known: f64, rate: f64) -> f64 {
        (known + self.dt * rate) / self.a
    }
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
}

impl Column {
    /// Makes room for `n` cells.
    pub fn resize(&mut self, n: usize) {
        for buffer in
            [&mut self.psi, &mut self.slope, &mut self.resistance, &mut self.upper, &mut self.right]
        {
            buffer.resize(n, 0.0);
        }
    }

    /// Takes over cell `i` at the iterate: what holds the volatile there, its solids fraction, its dry
    /// thickness [m] and its pace.
    pub(super) fn linearise(
        &mut self,
        i: usize,
        (local, phi): (&Local, f64),
        (dz, pace): (f64, f64),
    ) {
        self.psi[i] = local.psi;
        self.slope[i] = local.slope;
        self.resistance[i] = 0.5 * dz * local.slope * pace / (local.diffusion * phi * phi);
    }

    /// Solves one sweep: `q` holds the iterate and is replaced by the next one; `known` is
    /// [`TimeStep::known`] of each cell, `ground` of the ground node. Returns the end fluxes.
    pub fn sweep(
        &mut self,
        dz: &[f64],
        step: TimeStep,
        known: &[f64],
        (bottom, ground_known): (Bottom, f64),
        top: Top,
        q: &mut [f64],
    ) -> Ends {
        let n = q.len();
        let dt = step.dt;
        let ((ground_drive, ground_rest), (top_drive, top_rest)) =
            self.ends(step, (bottom, ground_known), (top, n - 1));
        // Forward elimination; `off` is the conductance to the cell below.
        let mut off = 0.0;
        for i in 0..n {
            let mut conductance_below = off;
            let mut source = 0.0;
            if i == 0 {
                conductance_below = ground_drive;
                source += ground_rest;
            }
            let conductance_above = if i + 1 < n {
                1.0 / (self.resistance[i] + self.resistance[i + 1])
            } else {
                source += top_rest;
                top_drive
            };
            let leaves = conductance_below + conductance_above;
            let slope = self.slope[i];
            // psi = offset + slope * q
            let offset = self.psi[i] - slope * q[i];
            let mut diagonal = step.a * dz[i] + dt * leaves * slope;
            let mut right = dz[i] * known[i] + dt * (source - leaves * offset);
            if i > 0 {
                let below = self.psi[i - 1] - self.slope[i - 1] * q[i - 1];
                right += dt * off * below;
                let lower = -dt * off * self.slope[i - 1];
                diagonal -= lower * self.upper[i - 1];
                right -= lower * self.right[i - 1];
            }
            if i + 1 < n {
                let above = self.psi[i + 1] - self.slope[i + 1] * q[i + 1];
                right += dt * conductance_above * above;
                self.upper[i] = -dt * conductance_above * self.slope[i + 1] / diagonal;
            }
            self.right[i] = right / diagonal;
            off = conductance_above;
        }
        let (psi_bottom, psi_top) = self.substitute(q);
        Ends {
            top: top_drive * psi_top - top_rest,
            bottom: ground_drive * psi_bottom - ground_rest,
        }
    }

    /// What flows through the ends, as `drive * psi - rest` of the end cell: through the ground,
    /// and out of the top of cell `last`.
    fn ends(
        &self,
        step: TimeStep,
        (bottom, ground_known): (Bottom, f64),
        (top, last): (Top, usize),
    ) -> ((f64, f64), (f64, f64)) {
        // The ground node is eliminated first: w_ground = (known + dt J)/a, J = (psi_0 - w/C)/R.
        let ground = match bottom {
            Bottom::Ground { capacity, tau } if capacity > 0.0 => {
                let through = tau / capacity + self.resistance[0];
                let share = 1.0 + step.dt / (step.a * capacity * through);
                (1.0 / (through * share), ground_known / (step.a * capacity * through * share))
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
        // The iterate is needed for psi at the ends before it is replaced.
        let mut psi_top = self.psi[n - 1] - self.slope[n - 1] * q[n - 1];
        let mut psi_bottom = self.psi[0] - self.slope[0] * q[0];
        let mut above = self.right[n - 1];
        q[n - 1] = above;
        for i in (0..n - 1).rev() {
            above = self.right[i] - self.upper[i] * above;
            q[i] = above;
        }
        psi_top += self.slope[n - 1] * q[n - 1];
        psi_bottom += self.slope[0] * q[0];
        (psi_bottom, psi_top)
    }
}
