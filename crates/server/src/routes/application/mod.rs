//! The application itself: whether it answers, and what it knows of the trade.

pub mod handlers;
pub mod wire;
