//! Studios: settings, import and export.

pub mod handlers;
pub mod wire;
