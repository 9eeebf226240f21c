//! Following a stack through time: adaptive steps that land on coats and on changes of the air.

use super::column::{Bottom, Column, Ends};
use super::events::Events;
use super::grid::Grid;
use super::ground::Ground;
use super::law;
use super::stack::Stack;
use super::state::FilmState;
use super::surface::Surroundings;
use crate::air::AirSeries;
use crate::cancel::give_up_if_cancelled;
use crate::mix::Composition;
use crate::time::{DAY_S, HOUR_S};
use thiserror::Error;

/// How far ahead a state is looked for [s]: 400 days, docs/formats/studio.md.
pub const HORIZON_S: f64 = 400.0 * DAY_S;
/// Shortest step [s], below which a change is taken as it comes. [practice]
const SHORTEST_STEP: f64 = 1e-3;
/// Step up to which the time since the last coat does not limit it [s]. [practice]
const UNSHARED_STEP: f64 = 60.0;
/// Amount added to a cell's content when its change is judged [-]. [practice]
const FLOOR: f64 = 0.05;
/// Change between two sweeps, relative as above, at which they are done [-]. [practice]
const SETTLED: f64 = 2e-3;
/// Content below which a cell counts as negative [-]: rounding reaches no farther. [practice]
const NEGATIVE: f64 = -1e-9;
/// Relative humidity [-] from which it is asked whether a film stays too wet for good: in less a film holds less
/// than any state allows. docs/model/drying.md
const DAMP: f64 = 0.95;

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

/// A stack with the state of its solver: what a picture's film is at one moment.
///
/// ```
/// use ulvek_core::air::{Air, AirSeries};
/// use ulvek_core::film::{Film, FilmState, Grid, Ground, HORIZON_S};
/// use ulvek_core::mix::Composition;
/// let room = AirSeries::constant(Air::try_new(21.0, 0.50, 0.15).unwrap());
/// let mut film = Film::new(Ground::SEALED, 0.4, Grid::PLANNING, 0.0);
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
    pending: [f64; 3],
    /// Whether the ground has met the room's air.
    met: bool,
    surface_c: f64,
    room: Option<Surroundings>,
    events: Events,
    scratch: Scratch,
}

/// Buffers of a step, kept from step to step so that none allocates.
#[derive(Debug, Default)]
struct Scratch {
    column: Column,
    w: Vec<f64>,
    g: Vec<f64>,
    /// The water, nowhere less than nothing.
    held_w: Vec<f64>,
    /// What the cells held before the last step, and how long that was [s].
    was: Option<(Vec<f64>, Vec<f64>, f64)>,
}

impl Clone for Scratch {
    /// A film is copied far more often than the copy is followed: what a step fills is not copied with it.
    fn clone(&self) -> Self {
        Self { was: self.was.clone(), ..Self::default() }
    }
}

impl Scratch {
    /// Gives back what a step fills: more films are kept than followed.
    fn put_away(&mut self) {
        *self = Self { was: self.was.take(), ..Self::default() };
    }

    /// Begins a step of `dt` where the last one leads to: the nearer the sweeps begin to where they end, the
    /// fewer it takes.
    fn begin(&mut self, stack: &Stack, dt: f64) {
        let n = stack.dz.len();
        self.column.resize(n);
        self.held_w.resize(n, 0.0);
        self.w.clone_from(&stack.w);
        self.g.clone_from(&stack.g);
        let Some((was_w, was_g, last)) = &self.was else { return };
        let onward = dt / last;
        for (row, was) in [(&mut self.w, was_w), (&mut self.g, was_g)] {
            for (q, was) in row.iter_mut().zip(was) {
                let next = *q + onward * (*q - was);
                *q = if next < 0.0 { 0.0 } else { next };
            }
        }
    }
}

impl Film {
    /// A bare ground of a picture whose shorter side is `length_m` [m], at time `start` [s].
    pub fn new(ground: Ground, length_m: f64, grid: Grid, start: f64) -> Self {
        Self {
            stack: Stack::on_ground(ground),
            grid,
            length_m,
            time: start,
            laid: start,
            trial: grid.first_step,
            pending: [0.0; 3],
            met: false,
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

    /// How finely it is divided.
    pub(super) const fn grid(&self) -> &Grid {
        &self.grid
    }

    /// States reached since the last coat was laid.
    pub const fn events(&self) -> &Events {
        &self.events
    }

    /// Lays a coat of `wet_m` [m] on top, now.
    pub fn lay(&mut self, wet_m: f64, mix: Composition) {
        self.stack.lay(wet_m, mix, &self.grid);
        self.stack.merge_buried(self.grid.buried_cells);
        self.scratch.was = None;
        self.laid = self.time;
        self.trial = self.grid.first_step;
        self.events = Events::new();
        if let Some(reading) = self.stack.reading() {
            self.events.observe(self.time, reading);
        }
    }

    /// Follows the film to `until` [s], or until the stack reaches `stop`. True when it did. Where the air to come
    /// is too damp for `stop` it goes no farther than to where that is certain.
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
        let damp = stop.and_then(|stop| Some((stop, air.stays_damp(DAMP)?)));
        while self.time < end && !reached(&self.events) {
            give_up_if_cancelled();
            let room = self.room_in(air);
            if let Some((stop, (from, driest))) = damp
                && from <= self.time
                && self.stack.stays_too_wet(stop, driest)
            {
                self.scratch.put_away();
                return Ok(false);
            }
            let limit = air.next_change(self.time).map_or(end, |change| change.min(end));
            let left = limit - self.time;
            let longest = self.grid.longest_share * (self.time - self.laid);
            let mut dt = self.trial.min(self.grid.longest_step).min(longest.max(UNSHARED_STEP));
            if dt >= left {
                dt = left;
            } else if 2.0 * dt > left {
                // Two even steps land without a sliver.
                dt = 0.5 * left;
            }
            let landing = dt >= left;
            loop {
                let change = self.attempt(dt, &room);
                if change <= self.grid.most_change || (dt <= SHORTEST_STEP && !change.is_nan()) {
                    self.accept(dt, if landing && dt >= left { limit } else { self.time + dt });
                    if change < self.grid.little_change {
                        // A step that was cut short to land says nothing against the longer one.
                        self.trial = self.trial.max(dt * self.grid.growth);
                    } else {
                        self.trial = dt;
                    }
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
            self.trial = self.grid.first_step;
        }
        self.scratch.put_away();
        Ok(reached)
    }

    fn room_in(&mut self, air: &AirSeries) -> Surroundings {
        let now = air.at(self.time);
        let room = match &self.room {
            Some(room) if room.air == *now => room.clone(),
            _ => {
                let room = Surroundings::new(now, self.length_m);
                if self.surface_c.is_nan() {
                    self.surface_c = now.celsius;
                }
                self.room = Some(room.clone());
                room
            }
        };
        self.stack.ground_rest = room.air.humidity * self.stack.on.capacity_m();
        if !self.met {
            self.met = true;
            self.stack.ground = self.stack.ground_rest;
        }
        room
    }

    /// Solves a step of `dt` into the scratch buffers; returns the largest relative change: infinite
    /// when something became negative, no number when the equations did not converge.
    fn attempt(&mut self, dt: f64, room: &Surroundings) -> f64 {
        let Self { stack, scratch, .. } = self;
        scratch.begin(stack, dt);
        let before = [stack.ground, stack.gone_water, stack.gone_glycol];
        let mut change = f64::NAN;
        for sweep in 0..self.grid.sweeps {
            let (ends, water_moved) = self.sweep_water(dt, room);
            let (gone, glycol_moved) = self.sweep_glycol(dt, room);
            let rates = [ends.bottom - ends.back, ends.top + ends.back, gone];
            self.pending = std::array::from_fn(|k| before[k] + dt * rates[k]);
            change = self.change();
            let settled = larger(water_moved, glycol_moved) < SETTLED;
            if settled || (sweep == 0 && change < self.grid.one_sweep) {
                break;
            }
        }
        change
    }

    /// One sweep of the water: the flows over both ends, and how far the outer cells moved.
    fn sweep_water(&mut self, dt: f64, room: &Surroundings) -> (Ends, f64) {
        let Self { stack, scratch, .. } = self;
        let n = stack.dz.len();
        let column = &mut scratch.column;
        column.barred.clear();
        let cells = stack.cells(&scratch.w, &scratch.g);
        column.linearise(|out| law::water(&room.law, &cells, out), (&stack.dz, &stack.pace));
        let cell = (column.psi[n - 1], column.resistance[n - 1]);
        let top = room.water_leaves(cell, stack.pace[n - 1], &mut self.surface_c);
        let capacity = stack.on.capacity_m();
        let bottom = if capacity > 0.0 {
            // A pace stretches time as a whole, the ground's too.
            let pace = stack.pace[0];
            let (drive, rest) = room.ground_dries(stack.on.back / pace);
            Bottom::Ground { capacity, tau: stack.on.delay_s * pace, drive, rest }
        } else {
            Bottom::Sealed
        };
        let was = (scratch.w[n - 1], scratch.w[0]);
        let ends =
            column.sweep(&stack.dz, dt, &stack.w, (bottom, stack.ground), top, &mut scratch.w);
        (ends, larger(moved(was.0, scratch.w[n - 1]), moved(was.1, scratch.w[0])))
    }

    /// One sweep of the slow volatile: the flow out of the top, and how far the top cell moved.
    fn sweep_glycol(&mut self, dt: f64, room: &Surroundings) -> (f64, f64) {
        let Self { stack, scratch, .. } = self;
        let n = stack.dz.len();
        let column = &mut scratch.column;
        column.barred.clear();
        column.barred.extend(stack.spirit.windows(2).map(|pair| pair[0] != pair[1]));
        for (w, found) in scratch.held_w.iter_mut().zip(&scratch.w) {
            *w = if *found < 0.0 { 0.0 } else { *found };
        }
        let cells = stack.cells(&scratch.held_w, &scratch.g);
        column.linearise(|out| law::slow(&room.law, &cells, out), (&stack.dz, &stack.pace));
        let cell = (column.psi[n - 1], column.resistance[n - 1]);
        let top = if stack.is_spirit(n - 1) {
            room.spirit_leaves(cell, stack.pace[n - 1], self.surface_c)
        } else {
            room.glycol_leaves(cell, stack.pace[n - 1] / stack.volatility(), self.surface_c)
        };
        let was = scratch.g[n - 1];
        let ends =
            column.sweep(&stack.dz, dt, &stack.g, (Bottom::Sealed, 0.0), top, &mut scratch.g);
        (ends.top, moved(was, scratch.g[n - 1]))
    }

    /// The largest relative change of a cell in the step that was solved.
    fn change(&self) -> f64 {
        let Self { stack, scratch, .. } = self;
        let rows = [(&scratch.w, &stack.w), (&scratch.g, &stack.g)];
        let (mut change, mut sound): (f64, bool) = (0.0, true);
        for (now, then) in rows {
            for (now, then) in now.iter().zip(then) {
                let by = (now - then).abs() / (then + FLOOR);
                change = if by > change { by } else { change };
                sound &= *now >= NEGATIVE;
            }
        }
        let unknown = || rows.iter().any(|(now, _)| now.iter().any(|q| q.is_nan()));
        match sound {
            true => change,
            false if unknown() => f64::NAN,
            false => f64::INFINITY,
        }
    }

    /// Takes over the step that was solved last.
    fn accept(&mut self, dt: f64, time: f64) {
        let Self { stack, scratch, .. } = self;
        let (mut w, mut g, _) = scratch.was.take().unwrap_or_default();
        w.clone_from(&stack.w);
        g.clone_from(&stack.g);
        scratch.was = Some((w, g, dt));
        std::mem::swap(&mut stack.w, &mut scratch.w);
        std::mem::swap(&mut stack.g, &mut scratch.g);
        [stack.ground, stack.gone_water, stack.gone_glycol] = self.pending;
        stack.close();
        self.time = time;
    }
}
#[cfg(test)]
mod tests {
    use super::*;
    use crate::air::Air;

    #[test]
    fn a_film_that_does_not_converge_says_where_and_is_no_film_that_dries() {
        let room = AirSeries::constant(Air::try_new(21.0, 0.5, 0.15).unwrap());
        let mut film = Film::new(Ground::SEALED, 0.4, Grid::PLANNING, 0.0);
        film.lay(100e-6, Composition::try_new(0.42, 0.53, 0.05).unwrap());
        film.advance(&room, 600.0, None).unwrap();
        // What an overflow would leave in one cell.
        film.stack.w[3] = f64::NAN;
        let diverged = film.advance(&room, HORIZON_S, Some(FilmState::Paintable));
        assert_eq!(diverged, Err(Diverged { after_s: 600.0 }));
        assert_eq!(film.events().at(FilmState::Paintable), None);
    }
}
