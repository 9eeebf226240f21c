//! What is computed from a studio: outlook, strata, calendar, week. Nothing of it is stored.

pub mod handlers;
pub mod steps;
pub mod week;
pub mod wire;
