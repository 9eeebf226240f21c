//! How water and the slow volatile are held and how fast they move, for one cell.
//!
//! Per volume of solids `w` water and `g` slow volatile; `phi = 1/(1+w+g)`. A film that has closed
//! stays closed: its diffusion goes by the highest `phi` it ever had, and it resists being swollen
//! beyond that. The potential of a volatile `q` is `a exp(E s) + 0.001 q`: `a` is its activity, `s` how far the
//! cell is swollen beyond its most compact state. The elastic pressure of the polymer adds to the logarithm of
//! the activity, as in Flory and Rehner's gels, so it multiplies what is there and drives nothing out of a cell
//! that holds none. Activities and diffusion coefficients were chosen by a prototype; the constants are of
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
/// Resistance of a dispersion to dilution [-, per volume of solids]. [memory]
const DILUTING: f64 = 0.001;
/// Stiffness `E` of a closed film [-, per volume of solids]: the logarithm of the activity rises by it. [memory]
const STIFFNESS: f64 = 2.0;
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

/// Cells of a column, as many in each row.
#[derive(Debug, Clone, Copy)]
pub(super) struct Cells<'a> {
    /// Water per volume of solids.
    pub w: &'a [f64],
    /// Slow volatile likewise: glycol, or spirit.
    pub g: &'a [f64],
    /// The least volume per volume of solids before this moment, `1/phi_max`.
    pub least: &'a [f64],
    /// 1 where the slow volatile is spirit, 0 where it is glycol.
    pub spirit: &'a [f64],
}

/// One volatile in each cell: its potential, the slope of that, and the resistance to it per dry thickness
/// [s/m2].
#[derive(Debug)]
pub(super) struct Locals<'a> {
    pub psi: &'a mut [f64],
    pub slope: &'a mut [f64],
    pub resists: &'a mut [f64],
}

/// What the law says of a cell for both volatiles.
#[derive(Debug, Clone, Copy)]
struct Closed {
    /// Volume per volume of solids, `1/phi`.
    bulk: f64,
    /// Share of wet mobility left, of the highest solids fraction.
    open: f64,
    /// What swelling multiplies an activity by, `exp(E s)`.
    pressed: f64,
    /// Its slope per volume of solids, by its own size: `E` in a swollen cell, else 0.
    stiff: f64,
}

impl Closed {
    /// Potential and slope of a volatile with `activity` and its `slope`, of which the cell holds `q`.
    #[inline(always)]
    fn potential(&self, (activity, slope): (f64, f64), q: f64) -> (f64, f64) {
        let psi = activity * self.pressed + DILUTING * q;
        (psi, (slope + activity * self.stiff) * self.pressed + DILUTING)
    }
}

/// The exponential, in a form of which a loop does several at once: a third of a film's time went into
/// those of the library. Relative error below 1e-11 from -700 to 700, and as at these beyond (Cody and Waite
/// 1980: reduction by a split ln 2; here with Taylor's series to the ninth power).
#[inline(always)]
fn exp(x: f64) -> f64 {
    /// Adding it leaves the nearest whole number in the lowest bits. definition
    const WHOLE: f64 = 6_755_399_441_055_744.0;
    /// ln 2 in two parts, the first short enough to be multiplied without rounding. definition
    const LN_2: (f64, f64) = (f64::from_bits(0x3fe6_2e42_fee0_0000), 1.908_214_929_270_587_7e-10);
    /// Where two to that power is still an ordinary number. definition
    const MOST: f64 = 700.0;
    let x = if x < -MOST { -MOST } else { x };
    let x = if x > MOST { MOST } else { x };
    let shifted = x * std::f64::consts::LOG2_E + WHOLE;
    let times = shifted - WHOLE;
    let r = (x - times * LN_2.0) - times * LN_2.1;
    let (r2, r4) = (r * r, r * r * r * r);
    let low = (1.0 + r) + r2 * (1.0 / 2.0 + r * (1.0 / 6.0));
    let middle = (1.0 / 24.0 + r * (1.0 / 120.0)) + r2 * (1.0 / 720.0 + r * (1.0 / 5040.0));
    let high = 1.0 / 40_320.0 + r * (1.0 / 362_880.0);
    let sum = low + r4 * (middle + r4 * high);
    sum * f64::from_bits(shifted.to_bits().wrapping_add(1023) << 52)
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
    #[inline(always)]
    fn resists(&self, closed: &Closed, (ln_dry, ln_span): (f64, f64), slope: f64) -> f64 {
        let Closed { bulk, open, .. } = *closed;
        let ln_diffusion = ln_dry + open * ln_span + (1.0 - open) * self.ln_warmth;
        slope * bulk * bulk * exp(-ln_diffusion)
    }

    /// How closed a cell is, and how far it is swollen beyond its most compact state.
    #[inline(always)]
    fn closed(w: f64, g: f64, least: f64) -> Closed {
        let bulk = 1.0 + w + g;
        let phi_max = 1.0 / if bulk < least { bulk } else { least };
        let open = within_1((1.0 - phi_max) * (1.0 / (1.0 - PACKED)));
        let beyond = bulk - least;
        let stiff = STIFFNESS * within_1((phi_max - CLOSING_FROM) * (1.0 / CLOSING_OVER));
        let stiff = if beyond > 0.0 { stiff } else { 0.0 };
        Closed { bulk, open, pressed: exp(stiff * beyond), stiff }
    }
}

/// `x`, or the nearest of 0 and 1 where it lies beyond.
#[inline(always)]
fn within_1(x: f64) -> f64 {
    let x = if x < 0.0 { 0.0 } else { x };
    if x > 1.0 { 1.0 } else { x }
}

/// The water of a cell: its potential with the slope of that, and how closed the cell is.
#[inline(always)]
fn water_of((w, g): (f64, f64), least: f64, spirit: f64) -> ((f64, f64), Closed) {
    let holds = POLYMER_HOLDS + GLYCOL_HOLDS * g * (1.0 - spirit);
    let per_held = 1.0 / holds;
    let left = exp(-w * per_held);
    let closed = Law::closed(w, g, least);
    (closed.potential((1.0 - left, left * per_held), w), closed)
}

/// The potential of `w` water in a cell with `g` slow volatile, as [`Cells`] have them.
pub(super) fn water_potential((w, g): (f64, f64), least: f64, spirit: f64) -> f64 {
    water_of((w, g), least, spirit).0.0
}

/// Water in all cells. Made for processors that do four at once and for those that do two, with the same
/// result; branches would keep it from both.
#[multiversion::multiversion(targets("x86_64+avx2"))]
pub(super) fn water(law: &Law, cells: &Cells, out: &mut Locals) {
    let n = cells.w.len();
    let (w, g) = (&cells.w[..n], &cells.g[..n]);
    let (least, spirit) = (&cells.least[..n], &cells.spirit[..n]);
    let (psi, slope) = (&mut out.psi[..n], &mut out.slope[..n]);
    let resists = &mut out.resists[..n];
    let moves = (law.water.ln_dry, law.water.ln_span);
    for i in 0..n {
        let ((now, rises), closed) = water_of((w[i], g[i]), least[i], spirit[i]);
        (psi[i], slope[i]) = (now, rises);
        resists[i] = law.resists(&closed, moves, slope[i]);
    }
}

/// The slow volatile in all cells, likewise.
#[multiversion::multiversion(targets("x86_64+avx2"))]
pub(super) fn slow(law: &Law, cells: &Cells, out: &mut Locals) {
    let n = cells.w.len();
    let (w, g) = (&cells.w[..n], &cells.g[..n]);
    let (least, spirit) = (&cells.least[..n], &cells.spirit[..n]);
    let (psi, slope) = (&mut out.psi[..n], &mut out.slope[..n]);
    let resists = &mut out.resists[..n];
    for i in 0..n {
        let glycol = 1.0 - spirit[i];
        let left = exp(-g[i] * (1.0 / POLYMER_HOLDS_SLOW));
        // The tiny constant keeps the Raoult share defined where both volatiles are gone.
        let moles_water = w[i] * (1.0 / WATER_VOLUME) + 1e-15;
        let per_mole = 1.0 / (g[i] * (1.0 / GLYCOL_VOLUME) + moles_water);
        // Where it is spirit there is nothing beside it.
        let water = moles_water * per_mole * glycol;
        let share = 1.0 - water;
        let share_slope = water * per_mole * (1.0 / GLYCOL_VOLUME);
        let moves = (
            law.glycol.ln_dry * glycol + law.spirit.ln_dry * spirit[i],
            law.glycol.ln_span * glycol + law.spirit.ln_span * spirit[i],
        );
        let closed = Law::closed(w[i], g[i], least[i]);
        let activity_slope = share_slope * (1.0 - left) + share * left * (1.0 / POLYMER_HOLDS_SLOW);
        (psi[i], slope[i]) = closed.potential((share * (1.0 - left), activity_slope), g[i]);
        resists[i] = law.resists(&closed, moves, slope[i]);
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_exponential_is_that_of_the_library() {
        for n in -70_000..=70_000 {
            let x = f64::from(n) * 0.01;
            assert!((exp(x) / x.exp() - 1.0).abs() < 1e-11, "{x}");
        }
        assert_eq!((exp(0.0), exp(-1e9), exp(1e9)), (1.0, exp(-700.0), exp(700.0)));
        assert!(exp(f64::NAN).is_nan(), "what is lost is not hidden");
    }
}
