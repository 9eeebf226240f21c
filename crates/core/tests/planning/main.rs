//! The planner, alone and beside other solvers, and the season. One program: each more is compiled and linked with everything below it.
#![allow(clippy::panic, clippy::unwrap_used)]

mod agenda;
mod cause;
mod desk;
mod planner;
mod planner_bound;
mod planner_brute;
mod planner_feasible;
mod planner_on_purpose;
mod planner_optimum;
mod season;
