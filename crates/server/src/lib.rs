//! The web application and the headless commands around the core.

pub mod commands;
pub mod database;
pub mod demo;
mod demo_photographs;
mod extract;
pub mod formats;
pub mod instruments;
pub mod photograph;
pub mod problem;
mod routes;
mod searches;
pub mod serve;
pub mod state;
pub mod web;
