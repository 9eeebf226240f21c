//! The drying model: a stack of coats from the first brush mark to the cured film.
//!
//! One-dimensional diffusion of water and a slow volatile ("glycol": retarder, humectant,
//! coalescent) through coats that shrink as they dry, evaporation into the room above and an
//! absorbent ground below. The grid is fixed to the solids, so it never has to be re-meshed.
//! Equations, constants and reference values: `docs/model/drying.md`.

mod column;
mod course;
mod events;
mod follow;
mod future;
mod grid;
mod ground;
mod law;
mod stack;
mod state;
mod surface;

pub use column::{Bottom, Column, Ends, Top};
pub use course::Course;
pub use events::Events;
pub use follow::{Diverged, Film, HORIZON_S};
pub(crate) use future::{Common, FILM_SPREAD, PACE_SPREAD, SLOW_SPREAD, UPTAKE_SPREAD, factor};
pub use future::{Future, Futures, Habit};
pub use grid::Grid;
pub use ground::Ground;
pub use stack::{CoatView, SEALED_DEPTH_M, Stack};
pub use state::{FilmState, SEAL_SLOW};
