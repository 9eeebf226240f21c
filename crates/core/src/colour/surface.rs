//! The surface of a film: light that never enters it, and light that does not get out again.
//!
//! J. L. Saunderson, "Calculation of the color of pigmented plastics", J. Opt. Soc. Am. 32 (1942).

use super::seen::Seen;
use super::spectrum::Spectrum;
use crate::mix::Finish;

/// Light that is thrown back before it enters [-]; docs/model/colour.md: a film of refractive index 1.5.
const K1: f64 = 0.04;
/// Diffuse light that the surface throws back inside [-]; docs/model/colour.md.
const K2: f64 = 0.6;

/// Reflectance inside a film, or of what lies in contact with it [-, by wavelength].
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Inside(pub Spectrum);

/// Most that is taken for a reflectance inside [-]: what is seen brighter than a white surface can be
/// is a misreading. [practice]
const WHITEST: f64 = 0.999;
/// Least [-]. [practice]
const BLACKEST: f64 = 1e-5;

/// What is seen of a reflectance inside, under a gloss surface [-].
pub(super) fn leaves(r: f64) -> f64 {
    (1.0 - K1) * (1.0 - K2) * r / (1.0 - K2 * r)
}

/// The reflectance inside of what is seen, under a gloss surface [-].
pub(super) fn enters(r: f64) -> f64 {
    (r / ((1.0 - K1) * (1.0 - K2) + K2 * r)).clamp(BLACKEST, WHITEST)
}

impl Inside {
    /// What is seen of it under a gloss surface whose mirror image is looked past.
    pub fn seen(&self) -> Seen {
        Seen(self.0.map(leaves))
    }

    /// What is seen of it under a surface of `finish`: a rough one scatters a part of what it throws
    /// back into the eye.
    pub fn seen_under(&self, finish: Finish) -> Seen {
        let veil = veil(finish);
        Seen(self.seen().0.map(|r| r + veil))
    }

    /// What lies inside when `seen` is seen under a gloss surface.
    pub fn of(seen: &Seen) -> Self {
        Self(seen.0.map(enters))
    }
}

/// Light that a finish scatters into the eye, whatever lies below [-, of the light that falls on it]: a share
/// of what the surface throws back; docs/model/colour.md. [memory]
pub const fn veil(finish: Finish) -> f64 {
    match finish {
        Finish::Gloss => 0.0,
        Finish::Satin => 0.4 * K1,
        Finish::Matte => 0.9 * K1,
    }
}
