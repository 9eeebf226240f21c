//! Following a stack through time: adaptive steps that land on coats and on changes of the air.

use super::column::{Bottom, Column, Ends, TimeStep, Top};
use super::events::Events;
use super::law::Law;
use super::stack::{Grid, Stack};
use super::state::FilmState;
use crate::air::{Air, AirSeries, GAS_CONSTANT, KELVIN, Transfer, vapour_concentration_kg_m3};
use crate::cancel::give_up_if_cancelled;
use crate::mix::Composition;
use crate::time::{DAY_S, HOUR_S};
use thiserror::Error;

/// How far ahead a state is looked for [s]: 400 days, formats.md.
pub const HORIZON_S: f64 = 400.0 * DAY_S;
/// Shortest step [s], below which a change is taken as it comes. [practice]
const SHORTEST_STEP: f64 = 1e-3;
/// Amount added to a cell's content when its change is judged [-]. [practice]
const FLOOR: f64 = 0.05;
/// Change between two sweeps, relative as above, at which they are done [-]. [practice]
const SETTLED: f64 = 2e-3;
/// Content below which a cell counts as negative [-]: rounding reaches no farther. [practice]
const NEGATIVE: f64 = -1e-9;
/// Delay of an absorbent ground [s]. [memory]
const GROUND_DELAY: f64 = 60.0;
/// Density of water at 21 C [kg/m3]; steam tables.
const WATER_DENSITY: f64 = 998.0;
/// Density of the slow volatile [kg/m3]; propylene glycol.
const GLYCOL_DENSITY: f64 = 1036.0;
/// Molar mass of the slow volatile [kg/mol]; propylene glycol.
const GLYCOL_MOLAR_MASS: f64 = 0.076_09;
/// Mass transfer of the slow volatile relative to water [-]. [memory]
const GLYCOL_TRANSFER: f64 = 0.5;
/// Vapour pressure of the slow volatile at 20 C [Pa]. [memory]
const GLYCOL_PRESSURE: f64 = 10.6;
/// Heat of evaporation of the slow volatile [J/mol]. [memory]
const GLYCOL_HEAT: f64 = 67_000.0;
/// Temperature that vapour pressure holds for [K], 20 C.
const GLYCOL_REFERENCE: f64 = 293.15;

/// A film whose equations did not converge.
#[derive(Debug, Clone, Copy, PartialEq, Error)]
#[error("its drying cannot be followed past {:.1} h after it was laid", .after_s / HOUR_S)]
pub struct Diverged {
    /// How long after the last coat [s].
    pub after_s: f64,
}

/// The larger of two numbers; no number when one of them is none. (`f64::max` would hide it.)
fn larger(a: f64, b: f64) -> f64 {
    if a.is_nan() || b.is_nan() { f64::NAN } else { a.max(b) }
}

/// How far a cell moved from `then` to `now`, relative to what it held.
fn moved(then: f64, now: f64) -> f64 {
    (now - then).abs() / (then.abs() + FLOOR)
}

/// The room's effect while its air stays the same.
#[derive(Debug, Clone)]
struct Surroundings {
    air: Air,
    transfer: Transfer,
    law: Law,
}

/// A stack with the state of its solver: what a picture's film is at one moment.
///
/// ```
/// use ulvek_core::air::{Air, AirSeries};
/// use ulvek_core::film::{Film, FilmState, Grid, HORIZON_S};
/// use ulvek_core::mix::Composition;
/// let room = AirSeries::constant(Air::try_new(21.0, 0.50, 0.15).unwrap());
/// let mut film = Film::new(0.0, 0.4, Grid::PLANNING, 0.0);
/// film.lay(100e-6, Composition::try_new(0.42, 0.53, 0.05).unwrap());
/// film.advance(&room, HORIZON_S, Some(FilmState::Paintable)).unwrap();
/// let minutes = film.events().at(FilmState::Paintable).unwrap() / 60.0;
/// assert!((45.0..57.0).contains(&minutes));
/// ```
#[derive(Debug, Clone)]
pub struct Film {
    stack: Stack,
    grid: Grid,
    length_m: f64,
    time: f64,
    /// When the last coat was laid [s].
    laid: f64,
    trial: f64,
    /// Length of the last step and the contents before it; `None` right after a coat is laid.
    before: Option<f64>,
    w_before: Vec<f64>,
    g_before: Vec<f64>,
    ends_before: [f64; 3],
    pending: [f64; 3],
    surface_c: f64,
    room: Option<Surroundings>,
    events: Events,
    scratch: Scratch,
}

/// Buffers of a step, kept so that no step allocates.
#[derive(Debug, Clone, Default)]
struct Scratch {
    column: Column,
    known: Vec<f64>,
    known_glycol: Vec<f64>,
    w: Vec<f64>,
    g: Vec<f64>,
    swelling: Vec<f64>,
}

impl Film {
    /// A bare ground that can take up `absorbs_m` of water [m], of a picture whose shorter side is
    /// `length_m` [m], at time `start` [s].
    pub fn new(absorbs_m: f64, length_m: f64, grid: Grid, start: f64) -> Self {
        Self {
            stack: Stack::on_ground(absorbs_m),
            grid,
            length_m,
            time: start,
            laid: start,
            trial: grid.first_step,
            before: None,
            w_before: Vec::new(),
            g_before: Vec::new(),
            ends_before: [0.0; 3],
            pending: [0.0; 3],
            surface_c: f64::NAN,
            room: None,
            events: Events::new(),
            scratch: Scratch::default(),
        }
    }

    /// The coats as they are now.
    pub const fn stack(&self) -> &Stack {
        &self.stack
    }

    /// The time reached [s].
    pub const fn time(&self) -> f64 {
        self.time
    }

    /// States reached since the last coat was laid.
    pub const fn events(&self) -> &Events {
        &self.events
    }

    /// Lays a coat of `wet_m` [m] on top, now.
    pub fn lay(&mut self, wet_m: f64, mix: Composition) {
        self.stack.lay(wet_m, mix, self.grid.cells);
        self.stack.merge_buried(self.grid.buried_cells);
        let n = self.stack.dz.len();
        self.scratch.column.resize(n);
        for buffer in
            [&mut self.scratch.known, &mut self.scratch.known_glycol, &mut self.scratch.swelling]
        {
            buffer.resize(n, 0.0);
        }
        self.laid = self.time;
        self.trial = self.grid.first_step;
        self.before = None;
        self.events = Events::new();
        if let Some(reading) = self.stack.reading() {
            self.events.observe(self.time, reading);
        }
    }

    /// Follows the film to `until` [s], or until the stack reaches `stop`. True when it did.
    ///
    /// # Errors
    /// [`Diverged`] when its equations do not converge; it stays where it was then.
    pub fn advance(
        &mut self,
        air: &AirSeries,
        until: f64,
        stop: Option<FilmState>,
    ) -> Result<bool, Diverged> {
        if self.stack.dz.is_empty() {
            self.time = self.time.max(until);
            return Ok(false);
        }
        let reached = |events: &Events| stop.is_some_and(|s| events.at(s).is_some());
        // After the horizon a film counts as it is: nothing is followed past it.
        let settled = self.laid + HORIZON_S;
        let end = until.min(settled);
        while self.time < end && !reached(&self.events) {
            give_up_if_cancelled();
            let room = self.room_in(air);
            let limit = air.next_change(self.time).map_or(end, |change| change.min(end));
            let left = limit - self.time;
            let mut dt = self.trial.min(self.grid.longest_step);
            if dt >= left {
                dt = left;
            } else if 2.0 * dt > left {
                // Two even steps land without a sliver that would upset the ratio of steps.
                dt = 0.5 * left;
            }
            let landing = dt >= left;
            loop {
                let change = self.attempt(dt, &room);
                if change <= self.grid.most_change || (dt <= SHORTEST_STEP && !change.is_nan()) {
                    self.accept(dt, if landing && dt >= left { limit } else { self.time + dt });
                    self.trial =
                        if change < self.grid.little_change { dt * self.grid.growth } else { dt };
                    break;
                }
                if change.is_nan() && dt <= SHORTEST_STEP {
                    return Err(Diverged { after_s: self.time - self.laid });
                }
                dt *= 0.5;
            }
            if let Some(reading) = self.stack.reading() {
                self.events.observe(self.time, reading);
            }
        }
        let reached = reached(&self.events);
        if !reached && self.time < until {
            self.time = until;
            self.before = None;
            self.trial = self.grid.first_step;
        }
        Ok(reached)
    }

    fn room_in(&mut self, air: &AirSeries) -> Surroundings {
        let now = air.at(self.time);
        match &self.room {
            Some(room) if room.air == *now => room.clone(),
            _ => {
                let room = Surroundings {
                    air: *now,
                    transfer: Transfer::new(now, self.length_m),
                    law: Law::new(now.celsius),
                };
                if self.surface_c.is_nan() {
                    self.surface_c = now.celsius;
                }
                self.room = Some(room.clone());
                room
            }
        }
    }

    /// Solves a step of `dt` into the scratch buffers; returns the largest relative change: infinite
    /// when something became negative, no number when the equations did not converge.
    fn attempt(&mut self, dt: f64, room: &Surroundings) -> f64 {
        let step = match self.before {
            Some(before) => TimeStep::bdf2(dt, before),
            None => TimeStep::euler(dt),
        };
        self.take_what_is_known(step);
        let known_ends = [
            step.known(self.stack.ground, self.ends_before[0]),
            step.known(self.stack.gone_water, self.ends_before[1]),
            step.known(self.stack.gone_glycol, self.ends_before[2]),
        ];
        let mut rates = [0.0; 3];
        for sweep in 0..self.grid.sweeps {
            let (ends, water_moved) = self.sweep_water(step, room, known_ends[0]);
            let (gone, glycol_moved) = self.sweep_glycol(step, room);
            rates = [ends.bottom, ends.top, gone];
            if sweep > 0 && larger(water_moved, glycol_moved) < SETTLED {
                break;
            }
        }
        self.pending = std::array::from_fn(|k| step.settle(known_ends[k], rates[k]));
        self.change()
    }

    /// Fills the buffers of a step: what is known before it, and the iterate it begins with.
    fn take_what_is_known(&mut self, step: TimeStep) {
        let Self { stack, scratch, .. } = self;
        for i in 0..stack.dz.len() {
            let before = if self.before.is_some() {
                (self.w_before[i], self.g_before[i])
            } else {
                (0.0, 0.0)
            };
            scratch.known[i] = step.known(stack.w[i], before.0);
            scratch.known_glycol[i] = step.known(stack.g[i], before.1);
        }
        scratch.w.clone_from(&stack.w);
        scratch.g.clone_from(&stack.g);
    }

    /// One sweep of the water: the flows over both ends, and how far the outer cells moved.
    fn sweep_water(
        &mut self,
        step: TimeStep,
        room: &Surroundings,
        ground_known: f64,
    ) -> (Ends, f64) {
        let Self { stack, scratch, .. } = self;
        let n = stack.dz.len();
        let column = &mut scratch.column;
        for i in 0..n {
            let (w, g) = (scratch.w[i], scratch.g[i]);
            let phi = 1.0 / (1.0 + w + g);
            scratch.swelling[i] = room.law.swelling(larger(stack.phi_max[i], phi));
            let local = room.law.water(w, g, phi, scratch.swelling[i]);
            column.linearise(i, (&local, phi), (stack.dz[i], stack.pace[i]));
        }
        let cell = (column.psi[n - 1], column.resistance[n - 1]);
        let top = water_top(room, cell, stack.pace[n - 1], &mut self.surface_c);
        let bottom = if stack.capacity > 0.0 {
            Bottom::Ground { capacity: stack.capacity, tau: GROUND_DELAY }
        } else {
            Bottom::Sealed
        };
        let was = (scratch.w[n - 1], scratch.w[0]);
        let ends = column.sweep(
            &stack.dz,
            step,
            &scratch.known,
            (bottom, ground_known),
            top,
            &mut scratch.w,
        );
        (ends, larger(moved(was.0, scratch.w[n - 1]), moved(was.1, scratch.w[0])))
    }

    /// One sweep of the slow volatile: the flow out of the top, and how far the top cell moved.
    fn sweep_glycol(&mut self, step: TimeStep, room: &Surroundings) -> (f64, f64) {
        let Self { stack, scratch, .. } = self;
        let n = stack.dz.len();
        let column = &mut scratch.column;
        for i in 0..n {
            let (w, g) = (larger(scratch.w[i], 0.0), scratch.g[i]);
            let phi = 1.0 / (1.0 + w + g);
            let local = room.law.glycol(w, g, phi, scratch.swelling[i]);
            column.linearise(i, (&local, phi), (stack.dz[i], stack.pace[i]));
        }
        let cell = (column.psi[n - 1], column.resistance[n - 1]);
        let slower = stack.pace[n - 1] / stack.volatility();
        let top = glycol_top(room, cell, slower, self.surface_c);
        let was = scratch.g[n - 1];
        let ends = column.sweep(
            &stack.dz,
            step,
            &scratch.known_glycol,
            (Bottom::Sealed, 0.0),
            top,
            &mut scratch.g,
        );
        (ends.top, moved(was, scratch.g[n - 1]))
    }

    /// The largest relative change of a cell in the step that was solved.
    fn change(&self) -> f64 {
        let Self { stack, scratch, .. } = self;
        let mut change: f64 = 0.0;
        for i in 0..stack.dz.len() {
            for (now, then) in [(scratch.w[i], stack.w[i]), (scratch.g[i], stack.g[i])] {
                if now < NEGATIVE {
                    return f64::INFINITY;
                }
                change = larger(change, (now - then).abs() / (then + FLOOR));
            }
        }
        change
    }

    /// Takes over the step that was solved last.
    fn accept(&mut self, dt: f64, time: f64) {
        let Self { stack, scratch, .. } = self;
        self.ends_before = [stack.ground, stack.gone_water, stack.gone_glycol];
        std::mem::swap(&mut self.w_before, &mut stack.w);
        std::mem::swap(&mut self.g_before, &mut stack.g);
        stack.w.clone_from(&scratch.w);
        stack.g.clone_from(&scratch.g);
        [stack.ground, stack.gone_water, stack.gone_glycol] = self.pending;
        for i in 0..stack.dz.len() {
            stack.phi_max[i] = larger(stack.phi_max[i], 1.0 / (1.0 + stack.w[i] + stack.g[i]));
        }
        self.before = Some(dt);
        self.time = time;
    }
}

/// Evaporation of water over a film whose top cell has `psi` behind `resistance`, `pace` times as
/// slow as the model; finds the surface temperature on the way.
fn water_top(
    room: &Surroundings,
    (psi, resistance): (f64, f64),
    pace: f64,
    surface_c: &mut f64,
) -> Top {
    // A pace stretches time as a whole, so the heat balance sees the flux of the unstretched film.
    let k = room.transfer.mass_m_s / pace;
    let rest = k * room.transfer.vapour_kg_m3 / WATER_DENSITY;
    let activity = |drive: f64| ((psi + resistance * rest) / (1.0 + drive * resistance)).min(1.0);
    *surface_c = room.transfer.surface_c(*surface_c, |c_sat| {
        let drive = k * c_sat / WATER_DENSITY;
        (drive * activity(drive) - rest) * WATER_DENSITY * pace
    });
    let drive = k * vapour_concentration_kg_m3(*surface_c) / WATER_DENSITY;
    if activity(drive) >= 1.0 { Top::Flux(drive - rest) } else { Top::Transfer { drive, rest } }
}

/// Evaporation of the slow volatile at the surface temperature found for water, `slower` times as
/// slow as that of propylene glycol.
fn glycol_top(
    room: &Surroundings,
    (psi, resistance): (f64, f64),
    slower: f64,
    surface_c: f64,
) -> Top {
    let kelvin = surface_c + KELVIN;
    let pressure = GLYCOL_PRESSURE
        * (-(GLYCOL_HEAT / GAS_CONSTANT) * (1.0 / kelvin - 1.0 / GLYCOL_REFERENCE)).exp();
    let c_sat = pressure * GLYCOL_MOLAR_MASS / (GAS_CONSTANT * kelvin);
    let drive = GLYCOL_TRANSFER * room.transfer.mass_m_s / slower * c_sat / GLYCOL_DENSITY;
    if psi / (1.0 + drive * resistance) >= 1.0 {
        Top::Flux(drive)
    } else {
        Top::Transfer { drive, rest: 0.0 }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::air::Air;

    #[test]
    fn a_film_that_does_not_converge_says_where_and_is_no_film_that_dries() {
        let room = AirSeries::constant(Air::try_new(21.0, 0.5, 0.15).unwrap());
        let mut film = Film::new(0.0, 0.4, Grid::PLANNING, 0.0);
        film.lay(100e-6, Composition::try_new(0.42, 0.53, 0.05).unwrap());
        film.advance(&room, 600.0, None).unwrap();
        // What an overflow would leave in one cell.
        film.stack.w[3] = f64::NAN;
        let diverged = film.advance(&room, HORIZON_S, Some(FilmState::Paintable));
        assert_eq!(diverged, Err(Diverged { after_s: 600.0 }));
        assert_eq!(film.events().at(FilmState::Paintable), None);
    }
}
