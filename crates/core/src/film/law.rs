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
/// Swelling over which its slope comes into the resistance to diffusion [-, per volume of solids]: at once, cells
/// that swell and shrink by turns block each other, and a film dries the later the shorter its steps (DESIGN.md).
/// [practice] half of it and twice it come to the same film within 2 %
const SOFTLY: f64 = 0.002;
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
    /// The least volume per volume of solids before this moment, `1/phi_max`.
    pub least: f64,
    pub spirit: bool,
}

/// What the law says of a cell for both volatiles.
#[derive(Debug, Clone, Copy)]
struct Closed {
    /// Volume per volume of solids, `1/phi`.
    bulk: f64,
    /// Share of wet mobility left, of the highest solids fraction.
    open: f64,
    swollen: Swollen,
}

/// What swelling adds to the potential, to its slope, and to the slope that resists diffusion.
#[derive(Debug, Clone, Copy, Default)]
struct Swollen {
    psi: f64,
    slope: f64,
    resists: f64,
}

/// One volatile in one cell: its potential, the slope of that, and the resistance to it per dry thickness
/// [s/m2].
#[derive(Debug, Clone, Copy)]
pub(super) struct Local {
    pub psi: f64,
    pub slope: f64,
    pub resists: f64,
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

    /// `slope phi^-2 / D`: divided by nothing, since this is where a film's time goes.
    fn local(&self, closed: &Closed, moves: Moves, (psi, slope): (f64, f64)) -> Local {
        let Closed { bulk, open, swollen } = *closed;
        let ln_diffusion = moves.ln_dry + open * moves.ln_span + (1.0 - open) * self.ln_warmth;
        Local {
            psi: psi + swollen.psi,
            slope: slope + swollen.slope,
            resists: (slope + swollen.resists) * bulk * bulk * (-ln_diffusion).exp(),
        }
    }

    /// How closed a cell is, and how far it is swollen beyond its most compact state.
    fn closed(held: &Held) -> Closed {
        let bulk = 1.0 + held.w + held.g;
        let phi_max = 1.0 / held.least.min(bulk);
        let open = ((1.0 - phi_max) * (1.0 / (1.0 - PACKED))).clamp(0.0, 1.0);
        let beyond = bulk - held.least;
        let swollen = if beyond > 0.0 {
            let stiff =
                SWELLING * ((phi_max - CLOSING_FROM) * (1.0 / CLOSING_OVER)).clamp(0.0, 1.0);
            let soft = SOFTLY / (beyond + SOFTLY);
            Swollen { psi: stiff * beyond, slope: stiff, resists: stiff * (1.0 - soft * soft) }
        } else {
            Swollen::default()
        };
        Closed { bulk, open, swollen }
    }

    /// Water in a cell.
    pub fn water(&self, held: &Held) -> Local {
        let Held { w, g, spirit, .. } = *held;
        let holds = if spirit { POLYMER_HOLDS } else { POLYMER_HOLDS + GLYCOL_HOLDS * g };
        let per_held = 1.0 / holds;
        let left = (-w * per_held).exp();
        let (psi, slope) = (1.0 - left + DILUTING * w, left * per_held + DILUTING);
        self.local(&Self::closed(held), self.water, (psi, slope))
    }

    /// The slow volatile in a cell.
    pub fn slow(&self, held: &Held) -> Local {
        let Held { w, g, spirit, .. } = *held;
        let left = (-g * (1.0 / POLYMER_HOLDS_SLOW)).exp();
        let (share, share_slope, moves) = if spirit {
            (1.0, 0.0, self.spirit)
        } else {
            // The tiny constant keeps the Raoult share defined where both volatiles are gone.
            let moles_water = w * (1.0 / WATER_VOLUME) + 1e-15;
            let per_mole = 1.0 / (g * (1.0 / GLYCOL_VOLUME) + moles_water);
            let water = moles_water * per_mole;
            (1.0 - water, water * per_mole * (1.0 / GLYCOL_VOLUME), self.glycol)
        };
        let psi = share * (1.0 - left) + DILUTING * g;
        let slope =
            share_slope * (1.0 - left) + share * left * (1.0 / POLYMER_HOLDS_SLOW) + DILUTING;
        self.local(&Self::closed(held), moves, (psi, slope))
    }
}
