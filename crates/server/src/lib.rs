//! The web application and the headless commands around the core.

pub mod commands;
pub mod compute;
mod connections;
pub mod database;
pub mod demo;
mod demo_photographs;
mod desks;
pub mod doors;
mod extract;
pub mod formats;
pub mod instruments;
mod leaving;
pub mod live;
mod openapi;
mod pace;
pub mod photograph;
pub mod problem;
mod reading;
pub mod resolved;
mod routes;
mod searches;
pub mod serve;
pub mod signals;
mod simulation;
pub mod state;
pub mod web;
