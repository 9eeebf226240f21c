//! The film, the air at its surface and what is seen of it. One program: each more is compiled and linked with everything below it.
#![allow(clippy::unwrap_used)]

mod closed_solutions;
mod drying_everyday;
mod drying_grid;
mod drying_monotone;
mod drying_properties;
mod drying_reference;
mod faces;
mod learning;
mod mass_balance;
mod psychrometrics;
mod room;
mod sure;
