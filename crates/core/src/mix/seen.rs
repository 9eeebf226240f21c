//! Swatches that were made of a mix.

use super::parts::Mix;
use super::swatch::Swatch;

/// A swatch of a mix as it came out, beside what was predicted.
#[derive(Debug, Clone, PartialEq)]
pub struct SwatchSeen {
    /// The mix.
    pub mix: Mix,
    /// Its wet film [um].
    pub wet_film_um: f64,
    /// What was predicted over the usual white and black card.
    pub predicted: (Swatch, Swatch),
    /// What was seen over them.
    pub seen: (Swatch, Swatch),
}
