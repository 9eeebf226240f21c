//! The season: all pictures to their dates, what-ifs, odds, ways to make a date, and the search.

pub mod handlers;
pub mod search;
pub mod wire;
