//! The evening at the easel: what is to be prepared for it.

mod prepare;

pub use prepare::{Preparation, preparations};
