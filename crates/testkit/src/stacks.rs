//! Random stacks of coats, as painters lay them.

use rand::Rng;
use rand_pcg::Pcg64Mcg;
use ulvek_core::mix::{Composition, Material, MaterialKind};

/// When a coat is laid [s], its wet film [m] and its mix.
pub type Coat = (f64, f64, Composition);

fn paint([solids, water, glycol]: [f64; 3]) -> Composition {
    Composition::try_new(solids, water, glycol).unwrap()
}

/// A log-uniform number from `from` to `from * over`.
pub fn log_uniform(draw: &mut Pcg64Mcg, from: f64, over: f64) -> f64 {
    from * over.powf(draw.random())
}

/// One to seven coats, thin and thick, some retarded, some sealed with varnish.
pub fn drawn_coats(draw: &mut Pcg64Mcg) -> Vec<Coat> {
    // Heavy and slow-drying paint, glaze, medium, primer: docs/model/drying.md. [memory]
    let paints = [
        [0.42, 0.53, 0.05],
        [0.36, 0.36, 0.28],
        [0.33, 0.58, 0.09],
        [0.36, 0.61, 0.03],
        [0.40, 0.57, 0.03],
    ];
    let retarder = Material {
        slow_volatility: Some(0.4),
        ..Material::new("r", "r", MaterialKind::Retarder, paint([0.0, 0.20, 0.80]))
    };
    let count = draw.random_range(1..=7);
    let mut at = 0.0;
    let coat = |n: usize| {
        let base = paint(paints[draw.random_range(0..paints.len())]);
        let slowed = if draw.random_bool(0.3) { draw.random_range(0.02..0.3) } else { 0.0 };
        let mix = match draw.random_range(0..8) {
            0 if n + 1 == count && n > 0 => paint([0.30, 0.65, 0.05]),
            1 if n + 1 == count && n > 0 => Composition::spirit_borne(0.30, 0.70).unwrap(),
            _ => Composition::mixed([(1.0 - slowed, base), (slowed, retarder.makes())]).unwrap(),
        };
        let coat = (at, log_uniform(draw, 15e-6, 20.0), mix);
        at += log_uniform(draw, 1800.0, 2500.0);
        coat
    };
    (0..count).map(coat).collect()
}
