//! A paint from three readings: over a white card, over a black one, and its tint.
//!
//! Over two cards a dark paint is dark whether it is strong or ten times stronger. The trade measures strength by
//! a tint: one part of paint in so many of white, laid until it hides. Absorption and scattering of each band are
//! those that meet all three readings best, by least squares in the square root of reflectance, each reading
//! weighted by how well it is known there.

use super::paint::{Optics, Untold, coat, hides};
use super::reconstruct::reconstruct;
use super::spectrum::{BANDS, Spectrum};
use super::surface::{enters, leaves};
use crate::mix::{Drawdown, Swatch};

/// A tint as light sees it.
#[derive(Debug, Clone, Copy)]
pub(super) struct Tinted<'a> {
    /// How it looks where it hides.
    pub colour: Swatch,
    /// Share of the paint in its solids [-].
    pub share: f64,
    /// The white in it.
    pub white: &'a Optics,
    /// Most scattering of the paint beside that of the white [-].
    pub scatters: f64,
}

/// How often the tint counts beside a reading over a card. [practice] it alone tells how strong a dark paint is
const TINT_COUNTS: f64 = 3.0;
/// How well a reading is known, as a share of it [-]. [practice]
const KNOWN_WITHIN: f64 = 0.03;
/// Half a step of 8 bits, of the curve of a screen [-].
const HALF_STEP: f64 = 0.5 / 255.0;
/// Absorption and scattering that are none [1/m]. [practice]
const NONE: f64 = 1.0;
/// Most absorption [1/m]: black in a tenth of a micrometre. [practice]
const MOST: f64 = 5e7;
/// Shares of the most scattering from which the search starts [-]. [practice]
const STARTS: [f64; 3] = [0.6, 0.08, 0.004];
/// Steps of a search at most; it takes about ten. [practice]
const MOST_STEPS: usize = 60;
/// Step that is none, in the logarithm. [practice]
const STILL: f64 = 1e-5;
/// Step by which slopes are told, in the logarithm. [practice]
const SLOPE: f64 = 1e-5;
/// Damping at the start of a search, by how much it grows and shrinks, and its most [-]. [practice]
const DAMPING: (f64, f64, f64) = (1e-3, 4.0, 1e8);
/// Lightness by which a tint may be lighter than its white [-, luminance]: noise of a photograph. [practice]
const NOISE: f64 = 0.03;

/// One band of what was read.
struct Band {
    /// The tint, over white and over black: square roots of what is seen, and how well each is known.
    read: [(f64, f64); 3],
    /// The two cards, inside.
    cards: [f64; 2],
    /// Absorption and scattering of the white [1/m].
    white: (f64, f64),
    /// Share of the paint in the solids of the tint [-].
    share: f64,
    /// Most scattering [1/m].
    most_s: f64,
    /// Dry thickness over the cards [m].
    x: f64,
}

impl Optics {
    /// The paint of a drawdown and a tint.
    ///
    /// # Errors
    /// [`Untold`] when the readings cannot be of one paint.
    pub(super) fn told_by_three(drawdown: &Drawdown, tint: &Tinted) -> Result<Self, Untold> {
        let cards = drawdown.bare()?;
        let read = [tint.colour, drawdown.over_white, drawdown.over_black].map(reconstruct);
        if read[1].luminance() < read[2].luminance() {
            return Err(Untold::DarkerOverWhite);
        }
        if read[0].luminance() > tint.white.hides().seen().luminance() + NOISE {
            return Err(Untold::LighterThanItsWhite);
        }
        let told: [(f64, f64); BANDS] = std::array::from_fn(|i| {
            let white = (tint.white.k.bands()[i], tint.white.s.bands()[i]);
            let band = Band {
                read: read.map(|seen| known(seen.0.bands()[i])),
                cards: [cards.0.0.bands()[i], cards.1.0.bands()[i]],
                white,
                share: tint.share,
                most_s: (white.1 * tint.scatters).max(10.0 * NONE),
                x: drawdown.dry_um * 1e-6,
            };
            band.best()
        });
        Ok(Self { k: Spectrum::from_fn(|i| told[i].0), s: Spectrum::from_fn(|i| told[i].1) })
    }
}

/// The square root of a reflectance that was read, and how well it is known.
fn known(r: f64) -> (f64, f64) {
    let root = r.sqrt();
    let step = HALF_STEP * slope_of_screen(r);
    (root, step.hypot(KNOWN_WITHIN * r) / (2.0 * root))
}

/// Light [-] for a step of the curve of a screen at the light `r`; IEC 61966-2-1.
fn slope_of_screen(r: f64) -> f64 {
    const STRAIGHT_TO: f64 = 0.003_130_8; // IEC 61966-2-1
    if r <= STRAIGHT_TO {
        return 1.0 / 12.92; // IEC 61966-2-1
    }
    let shown = 1.055 * r.powf(1.0 / 2.4) - 0.055; // IEC 61966-2-1
    2.4 / 1.055 * ((shown + 0.055) / 1.055).powf(1.4) // IEC 61966-2-1
}

impl Band {
    /// The absorption and scattering [1/m] that meet the readings best.
    fn best(&self) -> (f64, f64) {
        let mut best = (f64::INFINITY, [0.0; 2]);
        for start in STARTS {
            let found = self.search(start * self.most_s);
            if found.0 < best.0 {
                best = found;
            }
        }
        let [k, s] = best.1.map(f64::exp);
        (k, s)
    }

    /// Damped least squares from a scattering of `s` [1/m], in the logarithms of both: Levenberg (1944).
    fn search(&self, s: f64) -> (f64, [f64; 2]) {
        let mut at = self.within([self.absorbs(s).ln(), s.ln()]);
        let mut miss = self.miss(at);
        let mut cost = squares(miss);
        let (mut damping, factor, most) = DAMPING;
        for _ in 0..MOST_STEPS {
            let slopes = [0, 1].map(|n| {
                let mut moved = at;
                moved[n] += SLOPE;
                let there = self.miss(moved);
                std::array::from_fn::<f64, 3, _>(|i| (there[i] - miss[i]) / SLOPE)
            });
            let of = |a: &[f64; 3], b: &[f64; 3]| a.iter().zip(b).map(|(a, b)| a * b).sum::<f64>();
            let (aa, ab, bb) = (
                of(&slopes[0], &slopes[0]),
                of(&slopes[0], &slopes[1]),
                of(&slopes[1], &slopes[1]),
            );
            let pull = [of(&slopes[0], &miss), of(&slopes[1], &miss)];
            let (p, q) = (aa + damping * (aa + 1.0), bb + damping * (bb + 1.0));
            let whole = p * q - ab * ab;
            let both = [(ab * pull[1] - q * pull[0]) / whole, (ab * pull[0] - p * pull[1]) / whole];
            // Where the one is held by its limit, the other goes alone.
            let held = |n: usize| self.within(plus(at, both))[n] == at[n];
            let step = match (held(0), held(1)) {
                (false, true) => [-pull[0] / p, 0.0],
                (true, false) => [0.0, -pull[1] / q],
                _ => both,
            };
            let next = self.within(plus(at, step));
            let missed = self.miss(next);
            let costs = squares(missed);
            let far = (next[0] - at[0]).abs().max((next[1] - at[1]).abs());
            if costs < cost {
                (at, miss, cost) = (next, missed, costs);
                damping /= factor;
            } else {
                damping *= factor;
            }
            if far < STILL || damping > most {
                break;
            }
        }
        (cost, at)
    }

    /// The absorption [1/m] that the tint alone asks for, with a scattering of `s` [1/m].
    fn absorbs(&self, s: f64) -> f64 {
        let tint = enters(self.read[0].0.powi(2));
        let ratio = (1.0 - tint).powi(2) / (2.0 * tint);
        let (kw, sw) = self.white;
        let rest = 1.0 - self.share;
        (ratio * (self.share * s + rest * sw) - rest * kw) / self.share
    }

    fn within(&self, [k, s]: [f64; 2]) -> [f64; 2] {
        // A logarithm of less than nothing is no number: as little as can be.
        [k.max(NONE.ln()).min(MOST.ln()), s.clamp(NONE.ln(), self.most_s.ln())]
    }

    /// By how much the three readings are missed, in units of how well they are known.
    fn miss(&self, at: [f64; 2]) -> [f64; 3] {
        let [k, s] = at.map(f64::exp);
        let (kw, sw) = self.white;
        let rest = 1.0 - self.share;
        let tint = hides(self.share * k + rest * kw, self.share * s + rest * sw);
        let [white, black] = self.cards.map(|card| coat(k, s, card, self.x));
        let shown = [tint, white, black].map(|inside| leaves(inside).sqrt());
        std::array::from_fn(|i| {
            let (read, known) = self.read[i];
            let counts = if i == 0 { TINT_COUNTS } else { 1.0 };
            counts * (shown[i] - read) / known
        })
    }
}

fn plus(at: [f64; 2], step: [f64; 2]) -> [f64; 2] {
    [at[0] + step[0], at[1] + step[1]]
}

fn squares(miss: [f64; 3]) -> f64 {
    miss.iter().map(|m| m * m).sum()
}
