//! What a paint does to light: Kubelka-Munk from two readings, and a coat over anything.
//!
//! P. Kubelka, "New contributions to the optics of intensely light-scattering materials", J. Opt. Soc.
//! Am. 38 (1948), two-background form. Valid for diffuse light in flat films; flakes (iridescent paint)
//! are not described by it.

use super::cards::{ground, usual_cards};
use super::reconstruct::reconstruct;
use super::spectrum::{BANDS, Spectrum};
use super::surface::Inside;
use crate::mix::{Drawdown, Swatch};
use thiserror::Error;

/// Absorption and scattering of dry paint [1/m, by wavelength].
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Optics {
    /// Absorption.
    pub k: Spectrum,
    /// Scattering.
    pub s: Spectrum,
}

/// Why two readings tell no paint.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Error)]
pub enum Untold {
    /// A paint cannot be darker over the white card.
    #[error("the paint is darker over the white card than over the black one: were they swapped?")]
    DarkerOverWhite,
    /// It hides the cards: how strongly cannot be told.
    #[error(
        "the two readings are equal, so how strongly it hides cannot be told: read a thinner drawdown"
    )]
    Equal,
    /// The cards do not differ.
    #[error("the white card is not lighter than the black one")]
    Cards,
    /// Paint only darkens the white it is mixed into.
    #[error("the tint is lighter than the white in it: was another white taken?")]
    LighterThanItsWhite,
}

/// Scattering of a paint that hides in any coat [1/m]: fifty times over in 10 um. [practice]
const HIDES: f64 = 5e6;
/// Difference of two reflectances that is none [-]: a tenth of a step of 8 bits in the dark. [practice]
const NONE: f64 = 1e-5;
/// `a - 1` below which nothing is absorbed [-]. [practice]
const NO_ABSORPTION: f64 = 1e-8;
/// Optical thickness below which a film is computed by its limit [-]. [practice]
const THIN: f64 = 1e-9;

impl Optics {
    /// Nothing at all: clear medium.
    pub const CLEAR: Self = Self { k: Spectrum::flat(0.0), s: Spectrum::flat(0.0) };

    /// The paint of a drawdown.
    ///
    /// # Errors
    /// [`Untold`] when the readings cannot be of one paint, or do not tell it.
    pub fn told_by(drawdown: &Drawdown) -> Result<Self, Untold> {
        let (white, black) = drawdown.bare()?;
        if drawdown.over_white == drawdown.over_black {
            return Err(Untold::Equal);
        }
        let [over_white, over_black] = [drawdown.over_white, drawdown.over_black].map(reconstruct);
        if over_white.luminance() < over_black.luminance() {
            return Err(Untold::DarkerOverWhite);
        }
        let [rw, rb] = [over_white, over_black].map(|seen| Inside::of(&seen).0);
        let (gw, gb) = (white.0, black.0);
        let x = drawdown.dry_um * 1e-6;
        let mut told = Self::CLEAR;
        let both: [(f64, f64); BANDS] = std::array::from_fn(|i| {
            band((rw.bands()[i], gw.bands()[i]), (rb.bands()[i], gb.bands()[i]), x)
        });
        told.k = Spectrum::from_fn(|i| both[i].0);
        told.s = Spectrum::from_fn(|i| both[i].1);
        Ok(told)
    }

    /// A paint of which only its colour is known: it hides in any coat.
    pub fn hiding(colour: Swatch) -> Self {
        let Inside(r) = Inside::of(&reconstruct(colour));
        Self { k: r.map(|r| HIDES * (1.0 - r).powi(2) / (2.0 * r)), s: Spectrum::flat(HIDES) }
    }

    /// Adds `share` of another paint, by volume of solids.
    pub fn add(&mut self, share: f64, other: &Self) {
        self.k.add(share, &other.k);
        self.s.add(share, &other.s);
    }

    /// The same with `share` of it in clear film.
    #[must_use]
    pub fn thinned(&self, share: f64) -> Self {
        Self { k: self.k.map(|k| k * share), s: self.s.map(|s| s * share) }
    }

    /// The reflectance where it hides whatever lies below.
    pub fn hides(&self) -> Inside {
        Inside(Spectrum::from_fn(|i| hides(self.k.bands()[i], self.s.bands()[i])))
    }

    /// The reflectance of a coat of `dry_m` [m] over `under`.
    pub fn over(&self, under: &Inside, dry_m: f64) -> Inside {
        let (k, s, g) = (self.k.bands(), self.s.bands(), under.0.bands());
        Inside(Spectrum::from_fn(|i| coat(k[i], s[i], g[i], dry_m)))
    }
}

impl Drawdown {
    /// The bare cards, white and black.
    pub(super) fn bare(&self) -> Result<(Inside, Inside), Untold> {
        let (white, black) = if self.cards == Self::CARDS {
            *usual_cards()
        } else {
            (ground(self.cards.0), ground(self.cards.1))
        };
        if white.seen().luminance() - black.seen().luminance() < NONE {
            return Err(Untold::Cards);
        }
        Ok((white, black))
    }
}

/// Absorption and scattering of one band [1/m] from the reflectances over white and over black and
/// those of the cards, at a thickness `x` [m].
fn band((rw, gw): (f64, f64), (rb, gb): (f64, f64), x: f64) -> (f64, f64) {
    // Over whichever card it changes more, the reading tells more.
    let (r, g) = if (rw - gw).abs() > (rb - gb).abs() { (rw, gw) } else { (rb, gb) };
    if (r - g).abs() < NONE {
        return (0.0, 0.0);
    }
    let absorbs = || ((gw / rw).ln() / (2.0 * x)).max(0.0);
    let below = (rw + gw) * (rb - gb) - (rb + gb) * (rw - gw);
    let above = (1.0 + rw * gw) * (rb - gb) - (1.0 + rb * gb) * (rw - gw);
    // No scattering at all, or (a reading finer than the cards allow) less than none.
    if below <= NONE * NONE || above / below <= 0.0 {
        return (absorbs(), 0.0);
    }
    let a = (above / below).max(1.0 + NO_ABSORPTION);
    let b = (a * a - 1.0).sqrt();
    let y = (1.0 + r * g - a * (r + g)) / (b * (r - g));
    let s = if y > 1.0 { (((y + 1.0) / (y - 1.0)).ln() / 2.0 / (b * x)).min(HIDES) } else { HIDES };
    (s * (a - 1.0), s)
}

/// Reflectance of one band where absorption `k` and scattering `s` [1/m] hide whatever lies below:
/// `1 + k/s - sqrt((k/s)^2 + 2 k/s)`, written without a difference.
pub(super) fn hides(k: f64, s: f64) -> f64 {
    let ratio = k / s.max(f64::MIN_POSITIVE);
    1.0 / (1.0 + ratio + (ratio * ratio + 2.0 * ratio).sqrt())
}

/// Reflectance of one band of a coat with absorption `k` and scattering `s` [1/m], `x` [m] thick, over
/// `g`: Kubelka's hyperbolic form written with `e = exp(-2 x sqrt(k (k + 2 s)))`, which has the limits
/// without scattering and without absorption in it.
pub(super) fn coat(k: f64, s: f64, g: f64, x: f64) -> f64 {
    let m = (k * (k + 2.0 * s)).sqrt();
    if m * x < THIN {
        let thrown = s * x * (1.0 - g);
        return (g + thrown) / (1.0 + thrown);
    }
    let lost = -(-2.0 * m * x).exp_m1();
    let left = 2.0 - lost;
    (s * lost - g * ((k + s) * lost - m * left)) / ((k + s - g * s) * lost + m * left)
}
