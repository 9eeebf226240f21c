//! What may be in a studio, and what painters do to it. One program: each more is compiled and linked with everything below it.
#![allow(clippy::unwrap_used)]

mod checks;
mod cups;
mod daybook;
mod deeds;
mod happened;
