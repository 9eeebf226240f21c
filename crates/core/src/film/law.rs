//! How water and the slow volatile are held and how fast they move, for one cell.
//!
//! Per volume of solids `w` water and `g` slow volatile; `phi = 1/(1+w+g)`. A film that has closed
//! stays closed: its diffusion goes by the highest `phi` it ever had, and it resists being swollen
//! beyond that. Activities and diffusion coefficients were chosen by a prototype; the constants are of
//! the order of magnitude found in the literature on latex films and are moved by calibration. Valid for
//! acrylic dispersions between about 5 and 40 C.

use crate::air::{GAS_CONSTANT, KELVIN};

/// Water that dry polymer holds before its activity rises [-, per volume of solids]. [memory]
const POLYMER_HOLDS: f64 = 0.03;
/// Water that glycol holds likewise [-, per volume of glycol]. [memory]
const GLYCOL_HOLDS: f64 = 0.45;
/// Slow volatile that polymer holds before its activity rises [-, per volume of solids]. [memory]
const POLYMER_HOLDS_SLOW: f64 = 0.2;
/// Molar volume of the slow volatile [cm3/mol]; propylene glycol, 76.09 g/mol over 1.036 g/cm3.
const GLYCOL_VOLUME: f64 = 73.5;
/// Molar volume of water [cm3/mol].
const WATER_VOLUME: f64 = 18.0;
/// Resistance of a dispersion to dilution [-, per volume of solids]; drying.md. [memory]
const DILUTING: f64 = 0.001;
/// Resistance of a closed film to swelling [-, per volume of solids]; drying.md. [memory]
const SWELLING: f64 = 2.0;
/// Solids fraction at which the film begins to close [-]. [memory]
const CLOSING_FROM: f64 = 0.70;
/// Width of closing in solids fraction [-]. [memory]
const CLOSING_OVER: f64 = 0.25;
/// Solids fraction of random close packing of spheres [-]; Scott 1960.
const PACKED: f64 = 0.64;
/// Diffusion through dry film at 21 C and through wet paint [m2/s]: water. [memory]
const WATER_MOVES: (f64, f64) = (2e-12, 2e-10);
/// The same of glycol. [memory]
const GLYCOL_MOVES: (f64, f64) = (4e-15, 5e-11);
/// The same of spirit. [memory]
const SPIRIT_MOVES: (f64, f64) = (5e-17, 5e-11);
/// Activation energy of diffusion through dry film [J/mol]. [memory]
const ACTIVATION: f64 = 65_000.0;
/// Temperature the dry coefficients hold for [K], 21 C.
const REFERENCE_K: f64 = 294.15;

/// Natural logarithms that stay the same while the air does.
#[derive(Debug, Clone, Copy)]
pub(super) struct Law {
    water: Moves,
    glycol: Moves,
    spirit: Moves,
    ln_warmth: f64,
}

/// Logarithm of a diffusion coefficient in dry film, and what is added to it in wet paint.
#[derive(Debug, Clone, Copy)]
struct Moves {
    ln_dry: f64,
    ln_span: f64,
}

impl Moves {
    fn new((dry, wet): (f64, f64)) -> Self {
        Self { ln_dry: dry.ln(), ln_span: (wet / dry).ln() }
    }
}

/// What a cell holds and what it has been: the slow volatile is glycol, or spirit where `spirit`.
#[derive(Debug, Clone, Copy)]
pub(super) struct Held {
    pub w: f64,
    pub g: f64,
    /// The highest solids fraction before this moment.
    pub phi_max: f64,
    pub spirit: bool,
}

impl Held {
    /// Solids fraction.
    pub fn phi(&self) -> f64 {
        1.0 / (1.0 + self.w + self.g)
    }
}

/// What the law says of a cell for both volatiles.
#[derive(Debug, Clone, Copy)]
struct Closed {
    /// Share of wet mobility left, of the highest solids fraction.
    open: f64,
    /// What swelling adds to the potential, and to its slope.
    swollen: (f64, f64),
}

/// Potential, its slope and the diffusion coefficient of one volatile in one cell.
#[derive(Debug, Clone, Copy)]
pub(super) struct Local {
    pub psi: f64,
    pub slope: f64,
    pub diffusion: f64,
}

impl Law {
    /// The law in air of `celsius` (the film follows the room once its water is gone).
    pub fn new(celsius: f64) -> Self {
        let kelvin = celsius + KELVIN;
        Self {
            water: Moves::new(WATER_MOVES),
            glycol: Moves::new(GLYCOL_MOVES),
            spirit: Moves::new(SPIRIT_MOVES),
            ln_warmth: -(ACTIVATION / GAS_CONSTANT) * (1.0 / kelvin - 1.0 / REFERENCE_K),
        }
    }

    fn diffusion(&self, moves: Moves, open: f64) -> f64 {
        (moves.ln_dry + open * moves.ln_span + (1.0 - open) * self.ln_warmth).exp()
    }

    /// How closed a cell is, and how far it is swollen beyond its most compact state.
    fn closed(held: &Held) -> Closed {
        let bulk = 1.0 + held.w + held.g;
        let least = 1.0 / held.phi_max;
        let phi_max = held.phi_max.max(1.0 / bulk);
        let open = ((1.0 - phi_max) / (1.0 - PACKED)).clamp(0.0, 1.0);
        let stiff = SWELLING * ((phi_max - CLOSING_FROM) / CLOSING_OVER).clamp(0.0, 1.0);
        let beyond = bulk - least;
        let swollen = if beyond > 0.0 { (stiff * beyond, stiff) } else { (0.0, 0.0) };
        Closed { open, swollen }
    }

    /// Water in a cell.
    pub fn water(&self, held: &Held) -> Local {
        let Held { w, g, spirit, .. } = *held;
        let closed = Self::closed(held);
        let holds = if spirit { POLYMER_HOLDS } else { POLYMER_HOLDS + GLYCOL_HOLDS * g };
        let left = (-w / holds).exp();
        Local {
            psi: 1.0 - left + DILUTING * w + closed.swollen.0,
            slope: left / holds + DILUTING + closed.swollen.1,
            diffusion: self.diffusion(self.water, closed.open),
        }
    }

    /// The slow volatile in a cell.
    pub fn slow(&self, held: &Held) -> Local {
        let Held { w, g, spirit, .. } = *held;
        let closed = Self::closed(held);
        let left = (-g / POLYMER_HOLDS_SLOW).exp();
        let (share, share_slope, moves) = if spirit {
            (1.0, 0.0, self.spirit)
        } else {
            // The tiny constant keeps the Raoult share defined where both volatiles are gone.
            let moles_water = w / WATER_VOLUME + 1e-15;
            let moles = g / GLYCOL_VOLUME + moles_water;
            let slope = moles_water / (moles * moles) / GLYCOL_VOLUME;
            (1.0 - moles_water / moles, slope, self.glycol)
        };
        Local {
            psi: share * (1.0 - left) + DILUTING * g + closed.swollen.0,
            slope: share_slope * (1.0 - left)
                + share * left / POLYMER_HOLDS_SLOW
                + DILUTING
                + closed.swollen.1,
            diffusion: self.diffusion(moves, closed.open),
        }
    }
}
