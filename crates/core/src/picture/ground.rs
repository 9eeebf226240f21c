//! What a picture is painted on, by what it takes up.

/// Water that usual grounds take up [um], with their words; drying.md. [memory]
pub const GROUNDS: [(f64, &str); 5] = [
    (0.0, "sealed panel"),
    (10.0, "primed panel"),
    (20.0, "primed canvas"),
    (60.0, "paper"),
    (100.0, "raw canvas"),
];

/// The usual word for a ground that takes up `absorbs_um` [um] of water, or the number itself.
///
/// ```
/// use ulvek_core::picture::ground_word;
/// assert_eq!(ground_word(20.0), "primed canvas");
/// assert_eq!(ground_word(33.0), "a ground that absorbs 33 µm of water");
/// ```
pub fn ground_word(absorbs_um: f64) -> String {
    let usual = GROUNDS.iter().find(|(um, _)| (um - absorbs_um).abs() < f64::EPSILON);
    usual.map_or_else(
        || format!("a ground that absorbs {absorbs_um:.0} µm of water"),
        |(_, word)| (*word).to_owned(),
    )
}
