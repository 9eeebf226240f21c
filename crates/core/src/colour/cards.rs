//! What a coat is laid on: a ground of a colour, a grey, the two cards.

use super::reconstruct::reconstruct;
use super::seen::Lab;
use super::surface::Inside;
use crate::mix::{Drawdown, Swatch};

/// What lies under a coat when it is seen as `swatch` under a gloss surface.
pub fn ground(swatch: Swatch) -> Inside {
    Inside::of(&reconstruct(swatch))
}

/// The usual cards, white and black.
pub fn usual_cards() -> &'static (Inside, Inside) {
    static CARDS: std::sync::LazyLock<(Inside, Inside)> =
        std::sync::LazyLock::new(|| (ground(Drawdown::CARDS.0), ground(Drawdown::CARDS.1)));
    &CARDS
}

/// What lies under a coat that is a neutral grey of lightness `l` (0 to 100).
pub fn grey(l: f64) -> Inside {
    ground(Lab::grey(l).on_screen().0)
}
