//! Properties of moist air.
//!
//! Saturation pressure follows Hyland and Wexler (1983) as printed in the ASHRAE Handbook of
//! Fundamentals, ch. 1, eq. 5 (over ice) and 6 (over water); valid from -100 to 200 C.
//!
//! | rival | weakness |
//! |---|---|
//! | Buck 1981 | simpler, 0.05 % off in the range of a studio; the published tables are Hyland-Wexler's |
//! | Magnus forms | several sets of constants in print, up to 0.4 % apart |

/// Zero of the Celsius scale [K], definition.
pub const KELVIN: f64 = 273.15;
/// Molar gas constant [J/(mol K)], CODATA 2018, exact.
pub(crate) const GAS_CONSTANT: f64 = 8.314_462_618;
/// Molar mass of water [kg/mol], IUPAC.
pub(crate) const WATER_MOLAR_MASS: f64 = 0.018_015;
/// Ratio of the molar masses of water and dry air [-], ASHRAE Fundamentals ch. 1.
const MASS_RATIO: f64 = 0.621_945;

/// Coefficients of eq. 6, over liquid water [K, -, 1/K, 1/K2, 1/K3, -], ASHRAE Fundamentals ch. 1.
const OVER_WATER: [f64; 6] =
    [-5.800_220_6e3, 1.391_499_3, -4.864_023_9e-2, 4.176_476_8e-5, -1.445_209_3e-8, 6.545_967_3];
/// Coefficients of eq. 5, over ice [K, -, 1/K, 1/K2, 1/K3, 1/K4, -], ASHRAE Fundamentals ch. 1.
const OVER_ICE: [f64; 7] = [
    -5.674_535_9e3,
    6.392_524_7,
    -9.677_843_0e-3,
    6.221_570_1e-7,
    2.074_782_5e-9,
    -9.484_024_0e-13,
    4.163_501_9,
];

/// Saturation pressure of water vapour [Pa] over water (over ice below 0.01 C) at `celsius`.
///
/// ```
/// let p = ulvek_core::air::saturation_pressure_pa(20.0);
/// assert!((p - 2338.8).abs() < 1.0);
/// ```
pub fn saturation_pressure_pa(celsius: f64) -> f64 {
    let t = celsius + KELVIN;
    let ln = if celsius < 0.01 {
        let c = &OVER_ICE;
        c[0] / t + c[1] + t * (c[2] + t * (c[3] + t * (c[4] + t * c[5]))) + c[6] * t.ln()
    } else {
        let c = &OVER_WATER;
        c[0] / t + c[1] + t * (c[2] + t * (c[3] + t * c[4])) + c[5] * t.ln()
    };
    ln.exp()
}

/// Water in saturated air [kg/m3] at `celsius`, as an ideal gas.
pub fn vapour_concentration_kg_m3(celsius: f64) -> f64 {
    saturation_pressure_pa(celsius) * WATER_MOLAR_MASS / (GAS_CONSTANT * (celsius + KELVIN))
}

/// Humidity ratio [kg water per kg dry air] of air at `celsius`, relative humidity `rh` (fraction)
/// and `pressure_pa`; ASHRAE Fundamentals ch. 1, eq. 22.
pub fn humidity_ratio(celsius: f64, rh: f64, pressure_pa: f64) -> f64 {
    let vapour = rh * saturation_pressure_pa(celsius);
    MASS_RATIO * vapour / (pressure_pa - vapour)
}

/// Wet-bulb temperature [C] of air at `celsius`, `rh` (fraction) and `pressure_pa`:
/// ASHRAE Fundamentals ch. 1, eq. 33 and 35, solved by bisection to 1e-6 K.
pub fn wet_bulb_c(celsius: f64, rh: f64, pressure_pa: f64) -> f64 {
    let actual = humidity_ratio(celsius, rh, pressure_pa);
    let at = |wet: f64| {
        let sat = humidity_ratio(wet, 1.0, pressure_pa);
        if wet >= 0.0 {
            ((2501.0 - 2.326 * wet) * sat - 1.006 * (celsius - wet))
                / (2501.0 + 1.86 * celsius - 4.186 * wet)
        } else {
            ((2830.0 - 0.24 * wet) * sat - 1.006 * (celsius - wet))
                / (2830.0 + 1.86 * celsius - 2.1 * wet)
        }
    };
    bisect(dew_point_c(celsius, rh).min(celsius), celsius, |wet| at(wet) > actual)
}

/// Dew point [C] of air at `celsius` and `rh` (fraction): where saturation pressure equals the
/// vapour pressure. Dry air (`rh` = 0) has none; -100 C, the end of the equation, is returned.
pub fn dew_point_c(celsius: f64, rh: f64) -> f64 {
    let vapour = rh * saturation_pressure_pa(celsius);
    bisect(-100.0, celsius, |t| saturation_pressure_pa(t) > vapour)
}

/// Finds where `above` turns true between `low` and `high`, to 1e-6.
fn bisect(mut low: f64, mut high: f64, above: impl Fn(f64) -> bool) -> f64 {
    while high - low > 1e-6 {
        let mid = 0.5 * (low + high);
        if above(mid) {
            high = mid;
        } else {
            low = mid;
        }
    }
    0.5 * (low + high)
}
