//! How water and the slow volatile are held and how fast they move, for one cell.
//!
//! Per volume of solids `w` water and `g` glycol; `phi = 1/(1+w+g)`. Activities and diffusion
//! coefficients were chosen by a prototype; the constants are of the order of magnitude found in
//! the literature on latex films and are moved by calibration. Valid for acrylic dispersions
//! between about 5 and 40 C.

use crate::air::{GAS_CONSTANT, KELVIN};

/// Water that dry polymer holds before its activity rises [-, per volume of solids]. [memory]
const POLYMER_HOLDS: f64 = 0.03;
/// Water that glycol holds likewise [-, per volume of glycol]. [memory]
const GLYCOL_HOLDS: f64 = 0.45;
/// Glycol that polymer holds before its activity rises [-, per volume of solids]. [memory]
const POLYMER_HOLDS_GLYCOL: f64 = 0.2;
/// Molar volume of the slow volatile [cm3/mol]; propylene glycol, 76.09 g/mol over 1.036 g/cm3.
const GLYCOL_VOLUME: f64 = 73.5;
/// Molar volume of water [cm3/mol].
const WATER_VOLUME: f64 = 18.0;
/// Swelling resistance of a dispersion that has not closed [-]. [memory]
const OPEN_RESISTANCE: f64 = 0.001;
/// How many times stiffer a closed film resists swelling [-]. [memory]
const CLOSING: f64 = 500.0;
/// Solids fraction at which the film begins to close [-]. [memory]
const CLOSING_FROM: f64 = 0.70;
/// Width of closing in solids fraction [-]. [memory]
const CLOSING_OVER: f64 = 0.25;
/// Solids fraction of random close packing of spheres [-]; Scott 1960.
const PACKED: f64 = 0.64;
/// Diffusion of water through dry film at 21 C [m2/s]. [memory]
const WATER_DRY: f64 = 2e-12;
/// Diffusion of water through wet paint [m2/s]. [memory]
const WATER_WET: f64 = 2e-10;
/// Diffusion of glycol through dry film at 21 C [m2/s]. [memory]
const GLYCOL_DRY: f64 = 4e-15;
/// Diffusion of glycol through wet paint [m2/s]. [memory]
const GLYCOL_WET: f64 = 5e-11;
/// Activation energy of diffusion through dry film [J/mol]. [memory]
const ACTIVATION: f64 = 65_000.0;
/// Temperature the dry coefficients hold for [K], 21 C.
const REFERENCE_K: f64 = 294.15;

/// Natural logarithms that stay the same while the air does.
#[derive(Debug, Clone, Copy)]
pub(super) struct Law {
    ln_closing: f64,
    water: (f64, f64),
    glycol: (f64, f64),
    ln_warmth: f64,
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
            ln_closing: CLOSING.ln(),
            water: (WATER_DRY.ln(), (WATER_WET / WATER_DRY).ln()),
            glycol: (GLYCOL_DRY.ln(), (GLYCOL_WET / GLYCOL_DRY).ln()),
            ln_warmth: -(ACTIVATION / GAS_CONSTANT) * (1.0 / kelvin - 1.0 / REFERENCE_K),
        }
    }

    /// Resistance to swelling `e` of a cell whose solids fraction was at most `phi_max`.
    pub fn swelling(&self, phi_max: f64) -> f64 {
        if phi_max <= CLOSING_FROM {
            return OPEN_RESISTANCE;
        }
        let closed = ((phi_max - CLOSING_FROM) / CLOSING_OVER).min(1.0);
        OPEN_RESISTANCE * (self.ln_closing * closed).exp()
    }

    fn diffusion(&self, (ln_dry, ln_span): (f64, f64), phi: f64) -> f64 {
        let x = ((1.0 - phi) / (1.0 - PACKED)).clamp(0.0, 1.0);
        (ln_dry + x * ln_span + (1.0 - x) * self.ln_warmth).exp()
    }

    /// Water in a cell with `w` and `g` per volume of solids and swelling resistance `e`.
    pub fn water(&self, w: f64, g: f64, phi: f64, e: f64) -> Local {
        let holds = POLYMER_HOLDS + GLYCOL_HOLDS * g;
        let left = (-w / holds).exp();
        Local {
            psi: 1.0 - left + e * w,
            slope: left / holds + e,
            diffusion: self.diffusion(self.water, phi),
        }
    }

    /// Glycol in a cell with `w` and `g` per volume of solids and swelling resistance `e`.
    pub fn glycol(&self, w: f64, g: f64, phi: f64, e: f64) -> Local {
        // The tiny constant keeps the Raoult share defined where both volatiles are gone.
        let moles_water = w / WATER_VOLUME + 1e-15;
        let moles = g / GLYCOL_VOLUME + moles_water;
        let share = 1.0 - moles_water / moles;
        let left = (-g / POLYMER_HOLDS_GLYCOL).exp();
        let share_slope = moles_water / (moles * moles) / GLYCOL_VOLUME;
        Local {
            psi: share * (1.0 - left) + e * g,
            slope: share_slope * (1.0 - left) + share * left / POLYMER_HOLDS_GLYCOL + e,
            diffusion: self.diffusion(self.glycol, phi),
        }
    }
}
