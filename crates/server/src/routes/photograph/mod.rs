//! Photographs of pictures: brought, shown, named, taken away and brought back.

pub mod handlers;
pub mod wire;
