//! What a picture is painted on, by what it takes up.

use crate::film::Ground;

/// Usual grounds with their words: what they take up, their delay and what leaves by their back;
/// they were chosen so that a tone on primed canvas may be brushed out before it sets. [memory]
pub const GROUNDS: [(Ground, &str); 5] = [
    (Ground::SEALED, "sealed panel"),
    (Ground { absorbs_um: 6.0, delay_s: 600.0, back: 0.0 }, "primed panel"),
    (Ground { absorbs_um: 12.0, delay_s: 600.0, back: 0.3 }, "primed canvas"),
    (Ground { absorbs_um: 60.0, delay_s: 120.0, back: 0.5 }, "paper"),
    (Ground { absorbs_um: 100.0, delay_s: 300.0, back: 1.0 }, "raw canvas"),
];

/// The ground that most pictures begin on: primed canvas. [practice]
pub const FIRST_GROUND: Ground = GROUNDS[2].0;

/// The usual word for a ground that takes up `absorbs_um` [um] of water, or the number itself.
///
/// ```
/// use ulvek_core::picture::ground_word;
/// assert_eq!(ground_word(12.0), "primed canvas");
/// assert_eq!(ground_word(33.0), "a ground that absorbs 33 µm of water");
/// ```
pub fn ground_word(absorbs_um: f64) -> String {
    usual(absorbs_um).map_or_else(
        || format!("a ground that absorbs {absorbs_um:.0} µm of water"),
        |(_, word)| (*word).to_owned(),
    )
}

/// The usual ground that takes up `absorbs_um` [um] of water; one that is closed behind where none is
/// usual.
pub fn usual_ground(absorbs_um: f64) -> Ground {
    usual(absorbs_um).map_or_else(|| Ground::of(absorbs_um), |(ground, _)| *ground)
}

fn usual(absorbs_um: f64) -> Option<&'static (Ground, &'static str)> {
    GROUNDS.iter().find(|(ground, _)| (ground.absorbs_um - absorbs_um).abs() < f64::EPSILON)
}
