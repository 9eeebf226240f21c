//! What a coat is made of.

use crate::quantity::Pace;
use thiserror::Error;

/// Volume fractions of solids (polymer and pigment), water and slow volatile, or of solids and spirit;
/// they sum to 1; and the pace at which it dries beside the model's own.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Composition {
    solids: f64,
    water: f64,
    glycol: f64,
    spirit: f64,
    pace: f64,
    volatility: f64,
    unsure: f64,
    slowed: f64,
}

/// Spread of a material's own pace beside the studio's, as a standard deviation of its logarithm [-]:
/// x/: 1.4 in all, of which x/: 1.25 is common to the studio; docs/model/drying.md. [memory]
pub const OWN_PACE_SPREAD: f64 = 0.252;

/// Why a composition or a mix cannot be.
#[derive(Debug, Clone, PartialEq, Error)]
pub enum MixError {
    /// A share is negative or not a number.
    #[error("a share must be a number from 0 to 1, not {0}")]
    Share(f64),
    /// The shares do not make up the whole.
    #[error("solids, water, glycol and spirit must sum to 1, not {0:.3}")]
    Sum(f64),
    /// The parts sum to nothing.
    #[error("the mix sums to nothing: give at least one part of something")]
    Nothing,
    /// A material is not on the shelf.
    #[error("no material \"{0}\" is on the shelf")]
    Unknown(String),
    /// Grams of a material whose density is not known.
    #[error("the density of {0} is not known, so it cannot be weighed")]
    NoDensity(String),
    /// Spirit beside water or a slow volatile in one material.
    #[error("a material carries spirit or water, never both")]
    SpiritBesideWater,
    /// A spirit-borne and a water-borne material in one cup.
    #[error("spirit and water do not mix: take one or the other into the cup")]
    SpiritIntoWater,
    /// No solids: nothing would stay on the picture.
    #[error("the mix has no solids, so it leaves no film")]
    NoFilm,
}

/// How far the shares may miss 1 before they are refused [-]: two-digit data sheets. [practice]
pub const SUM_TOLERANCE: f64 = 0.011;

/// Most slow volatile of a mix that is made wetter with it [-]: something must stay on the picture.
/// [practice]
const MOST_SLOW: f64 = 0.9;

/// How far the sum of shares that were scaled may miss 1 by rounding [-].
const ROUNDING: f64 = 1e-9;

impl Composition {
    /// Makes a composition from volume fractions. A sum within 0.011 of 1 is scaled to 1.
    ///
    /// # Errors
    /// [`MixError::Share`] or [`MixError::Sum`].
    ///
    /// ```
    /// use ulvek_core::mix::Composition;
    /// assert!(Composition::try_new(0.42, 0.53, 0.05).is_ok());
    /// assert!(Composition::try_new(0.42, 0.53, 0.50).is_err());
    /// ```
    pub fn try_new(solids: f64, water: f64, glycol: f64) -> Result<Self, MixError> {
        Self::of_shares([solids, water, glycol, 0.0])
    }

    /// A spirit-borne composition from volume fractions of solids and spirit, likewise.
    ///
    /// # Errors
    /// [`MixError::Share`] or [`MixError::Sum`].
    pub fn spirit_borne(solids: f64, spirit: f64) -> Result<Self, MixError> {
        Self::of_shares([solids, 0.0, 0.0, spirit])
    }

    /// A composition from volume fractions of solids, water, slow volatile and spirit, likewise.
    ///
    /// # Errors
    /// [`MixError::Share`], [`MixError::Sum`], or [`MixError::SpiritBesideWater`].
    pub fn of_shares(shares: [f64; 4]) -> Result<Self, MixError> {
        if let Some(share) = shares.iter().find(|s| !s.is_finite() || !(0.0..=1.0).contains(*s)) {
            return Err(MixError::Share(*share));
        }
        let [solids, water, glycol, spirit] = shares;
        if spirit > 0.0 && water + glycol > 0.0 {
            return Err(MixError::SpiritBesideWater);
        }
        let sum = solids + water + glycol + spirit;
        if (sum - 1.0).abs() > SUM_TOLERANCE {
            return Err(MixError::Sum(sum));
        }
        // What was scaled once is read back as it was written.
        let sum = if (sum - 1.0).abs() < ROUNDING { 1.0 } else { sum };
        Ok(Self {
            solids: solids / sum,
            water: water / sum,
            glycol: glycol / sum,
            spirit: spirit / sum,
            pace: 1.0,
            volatility: 1.0,
            unsure: OWN_PACE_SPREAD,
            slowed: 1.0,
        })
    }

    /// The same with every time of its drying `pace` times as long (2 takes twice as long).
    #[must_use]
    pub const fn with_pace(self, pace: Pace) -> Self {
        Self { pace: pace.get(), ..self }
    }

    /// The same as a coat that takes `times` as long as its pace says. Kept apart from the pace, which is held
    /// within what a pace can be: a finger may find more.
    #[must_use]
    pub const fn slowed_by(self, times: f64) -> Self {
        Self { slowed: times, ..self }
    }

    /// The same with `factor` times its share of slow volatile; the rest makes room.
    #[must_use]
    pub fn with_slow(self, factor: f64) -> Self {
        let glycol = (self.glycol * factor).min(MOST_SLOW);
        if glycol <= 0.0 {
            return self;
        }
        let rest = (1.0 - glycol) / (1.0 - self.glycol);
        Self { solids: self.solids * rest, water: self.water * rest, glycol, ..self }
    }

    /// The same, its own pace being known to within `spread` (standard deviation of its logarithm).
    #[must_use]
    pub const fn known_within(self, spread: f64) -> Self {
        Self { unsure: spread, ..self }
    }

    /// The same with a slow volatile that is `volatility` times as volatile as propylene glycol.
    #[must_use]
    pub(crate) const fn with_volatility(self, volatility: f64) -> Self {
        Self { volatility, ..self }
    }

    /// The volume-weighted mean of `parts` (parts by volume, composition); of paces the geometric
    /// mean by volume of solids, as they are factors of the film; of volatilities the mean by volume
    /// of slow volatile.
    ///
    /// # Errors
    /// [`MixError::Nothing`] when the parts sum to nothing, [`MixError::Share`] when one is
    /// negative, [`MixError::NoFilm`] when no solids are in it, [`MixError::SpiritIntoWater`] when some
    /// is carried by spirit and some by water.
    pub fn mixed(parts: impl IntoIterator<Item = (f64, Composition)>) -> Result<Self, MixError> {
        let (mut sum, mut solids, mut water, mut glycol, mut spirit) = (0.0, 0.0, 0.0, 0.0, 0.0);
        let (mut ln_pace, mut slow, mut variance) = (0.0, 0.0, 0.0);
        for (part, c) in parts {
            if !part.is_finite() || part < 0.0 {
                return Err(MixError::Share(part));
            }
            sum += part;
            solids += part * c.solids;
            water += part * c.water;
            glycol += part * c.glycol;
            spirit += part * c.spirit;
            ln_pace += part * c.solids * c.pace.ln();
            variance += (part * c.solids * c.unsure).powi(2);
            slow += part * c.glycol * c.volatility;
        }
        if sum <= 0.0 {
            return Err(MixError::Nothing);
        }
        if solids <= 0.0 {
            return Err(MixError::NoFilm);
        }
        if spirit > 0.0 && water + glycol > 0.0 {
            return Err(MixError::SpiritIntoWater);
        }
        let pace = (ln_pace / solids).exp();
        let volatility = if glycol > 0.0 { slow / glycol } else { 1.0 };
        Ok(Self {
            solids: solids / sum,
            water: water / sum,
            glycol: glycol / sum,
            spirit: spirit / sum,
            pace,
            volatility,
            unsure: variance.sqrt() / solids,
            slowed: 1.0,
        })
    }

    /// How well its own pace is known: standard deviation of its logarithm. What several materials
    /// make is surer than each.
    pub const fn unsure(self) -> f64 {
        self.unsure
    }

    /// How many times as long it takes to dry as the model says of its composition.
    pub const fn pace(self) -> f64 {
        self.pace
    }

    /// How many times as long a coat of it takes as its pace says.
    pub const fn slowed(self) -> f64 {
        self.slowed
    }

    /// How volatile its slow volatile is beside propylene glycol.
    pub const fn volatility(self) -> f64 {
        self.volatility
    }

    /// Volume fraction of polymer and pigment.
    pub const fn solids(self) -> f64 {
        self.solids
    }

    /// Volume fraction of water.
    pub const fn water(self) -> f64 {
        self.water
    }

    /// Volume fraction of the slow volatile.
    pub const fn glycol(self) -> f64 {
        self.glycol
    }

    /// Volume fraction of spirit; then there is no water and no slow volatile.
    pub const fn spirit(self) -> f64 {
        self.spirit
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    proptest! {
        #[test]
        fn mixing_keeps_every_component(
            a in 0.01f64..100.0, b in 0.0f64..100.0, s in 0.05f64..0.9, t in 0.05f64..0.9, split in 0.0f64..1.0,
        ) {
            let one = Composition::try_new(s, (1.0 - s) * split, (1.0 - s) * (1.0 - split));
            let two = Composition::try_new(t, (1.0 - t) * (1.0 - split), (1.0 - t) * split);
            let (one, two) = (one.unwrap(), two.unwrap());
            let mix = Composition::mixed([(a, one), (b, two)]).unwrap();
            let whole = a + b;
            for (of, x, y) in [
                (mix.solids(), one.solids(), two.solids()),
                (mix.water(), one.water(), two.water()),
                (mix.glycol(), one.glycol(), two.glycol()),
            ] {
                prop_assert!((of * whole - (a * x + b * y)).abs() < 1e-12 * whole);
            }
        }
    }

    #[test]
    fn a_mix_that_sums_to_nothing_is_refused() {
        let paint = Composition::try_new(0.42, 0.53, 0.05).unwrap();
        assert_eq!(Composition::mixed([(0.0, paint)]), Err(MixError::Nothing));
        assert_eq!(Composition::mixed([]), Err(MixError::Nothing));
        assert_eq!(Composition::mixed([(-1.0, paint)]), Err(MixError::Share(-1.0)));
    }
}
