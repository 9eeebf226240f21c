//! The gate, the varnish plan, the bench and the record sheet.

pub mod handlers;
pub mod wire;
