//! From a colour of a screen to the smoothest reflectance that looks like it.
//!
//! Least slope squared of the inverse hyperbolic tangent of the reflectance, which keeps it between 0
//! and 1: S. A. Burns, "Numerical methods for smoothest reflectance reconstruction", Color Research &
//! Application 45 (2020), solved by Newton's method with the three tristimulus conditions as
//! constraints. Of the many spectra that look alike it is one that pigments could have; a narrow
//! absorption band is told too broad.

use super::observer::rgb_weights;
use super::seen::Seen;
use super::spectrum::{BANDS, Spectrum};
use crate::mix::Swatch;
use nalgebra::{SMatrix, SVector};
use palette::Srgb;

/// Unknowns: the bands, and a multiplier for each of red, green and blue.
const N: usize = BANDS + 3;
/// Steps of Newton's method at most; it takes about ten. [practice]
const MOST_STEPS: usize = 200;
/// Largest miss of linear red, green or blue that is taken for none. [practice] A hundredth of a step
/// of 8 bits in the dark.
const EXACT: f64 = 1e-9;
/// Reflectance that stands for 0 and, from 1, for 1: the tangent reaches neither. Burns, as above.
const LEAST: f64 = 1e-4;
/// Longest step of one unknown; a longer one is shortened, far from the answer they lead astray. [practice]
const LONGEST: f64 = 2.0;

/// The reflectance that looks like `swatch`.
pub fn reconstruct(swatch: Swatch) -> Seen {
    let rgb: Srgb<f64> = Srgb::from(swatch.0).into_format();
    let linear = rgb.into_linear();
    let wanted = [linear.red, linear.green, linear.blue];
    match swatch.0 {
        [0, 0, 0] => Seen(Spectrum::flat(LEAST)),
        [255, 255, 255] => Seen(Spectrum::flat(1.0 - LEAST)),
        // No reflectance below 1 has nothing at all of a primary.
        _ => Seen(solve(wanted.map(|part| part.clamp(LEAST, 1.0 - LEAST)))),
    }
}

fn solve(wanted: [f64; 3]) -> Spectrum {
    let weights = rgb_weights();
    let mut z = SVector::<f64, N>::zeros();
    let start = (wanted.iter().sum::<f64>() / 3.0).mul_add(2.0, -1.0).atanh();
    z.rows_mut(0, BANDS).fill(start);
    for _ in 0..MOST_STEPS {
        let mut miss = SVector::<f64, N>::zeros();
        let mut slope = SMatrix::<f64, N, N>::zeros();
        for i in 0..BANDS {
            let (before, after) = (i.checked_sub(1), (i + 1 < BANDS).then_some(i + 1));
            for other in [before, after].into_iter().flatten() {
                slope[(i, i)] += 2.0;
                slope[(i, other)] -= 2.0;
                miss[i] += 2.0 * (z[i] - z[other]);
            }
            let tanh = z[i].tanh();
            let half_sech2 = (1.0 - tanh * tanh) / 2.0;
            for (c, row) in weights.iter().enumerate() {
                let pull = row[i] * half_sech2;
                miss[i] += pull * z[BANDS + c];
                slope[(i, i)] -= 2.0 * tanh * pull * z[BANDS + c];
                slope[(i, BANDS + c)] = pull;
                slope[(BANDS + c, i)] = pull;
                miss[BANDS + c] += row[i] * f64::midpoint(tanh, 1.0);
            }
        }
        for (c, part) in wanted.iter().enumerate() {
            miss[BANDS + c] -= part;
        }
        if miss.amax() < EXACT {
            break;
        }
        let Some(step) = slope.lu().solve(&miss) else { break };
        let longest = step.rows(0, BANDS).amax();
        z -= step * (LONGEST / longest).min(1.0);
    }
    Spectrum::from_fn(|i| f64::midpoint(z[i].tanh(), 1.0))
}
