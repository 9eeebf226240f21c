//! How near the planning grid comes to the fine grid, over random stacks (drying.md: 12 % or 5 minutes).
#![allow(clippy::unwrap_used)]

use rand::{Rng, SeedableRng};
use rand_pcg::Pcg64Mcg;
use ulvek_core::air::{Air, AirSeries};
use ulvek_core::film::{Film, FilmState, Grid, HORIZON_S};
use ulvek_core::mix::{Composition, Material, MaterialKind};
use ulvek_core::picture::GROUNDS;

/// Stacks that are drawn: some thousand events. With 200 the share beyond the bound is the same.
const STACKS: u64 = 80;

fn paint([solids, water, glycol]: [f64; 3]) -> Composition {
    Composition::try_new(solids, water, glycol).unwrap()
}

/// A log-uniform number from `from` to `from * over`.
fn spread(draw: &mut Pcg64Mcg, from: f64, over: f64) -> f64 {
    from * over.powf(draw.random())
}

/// Time [s], wet film [m] and mix of one to seven coats.
fn coats(draw: &mut Pcg64Mcg) -> Vec<(f64, f64, Composition)> {
    // Heavy and slow-drying paint, glaze, medium, primer: drying.md. [memory]
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
        let coat = (at, spread(draw, 15e-6, 20.0), mix);
        at += spread(draw, 1800.0, 2500.0);
        coat
    };
    (0..count).map(coat).collect()
}

/// Seconds after its coat at which each state of each coat was reached before the next one.
fn events(film: Film, coats: &[(f64, f64, Composition)], air: &AirSeries) -> Vec<Option<f64>> {
    let mut film = film;
    let mut found = Vec::new();
    for (n, (at, wet_m, mix)) in coats.iter().enumerate() {
        film.advance(air, *at, None).unwrap();
        film.lay(*wet_m, *mix);
        let end = coats.get(n + 1).map_or(at + HORIZON_S, |next| next.0);
        let mut ahead = film.clone();
        ahead.advance(air, end, Some(FilmState::ReadyToWrap)).unwrap();
        found.extend(FilmState::REACHED.map(|s| ahead.events().at(s).map(|t| t - at)));
    }
    found
}

#[test]
fn the_planning_grid_misses_few_events_and_hardly_any_early() {
    let (mut all, mut late, mut early) = (0u32, 0u32, 0u32);
    for seed in 0..STACKS {
        let draw = &mut Pcg64Mcg::seed_from_u64(seed);
        let ground = GROUNDS[draw.random_range(0..GROUNDS.len())].0;
        let (celsius, humidity) = (draw.random_range(10.0..28.0), draw.random_range(0.25..0.75));
        let air = Air::try_new(celsius, humidity, spread(draw, 0.05, 20.0)).unwrap();
        let air = AirSeries::constant(air);
        let coats = coats(draw);
        let on = |grid| events(Film::new(ground, 0.4, grid, 0.0), &coats, &air);
        for (planning, fine) in on(Grid::PLANNING).into_iter().zip(on(Grid::FINE)) {
            let (Some(planning), Some(fine)) = (planning, fine) else { continue };
            let off = (planning - fine) / (0.12 * fine).max(300.0);
            all += 1;
            late += u32::from(off > 1.0);
            early += u32::from(off < -1.0);
        }
    }
    assert!(all > 1000, "{all} events");
    assert!(late * 50 <= all && early * 200 <= all, "of {all} events {late} late, {early} early");
}
