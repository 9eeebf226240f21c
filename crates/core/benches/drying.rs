//! Speed of the drying model, printed as ratios: the planning grid against the fine grid.
#![allow(missing_docs, clippy::unwrap_used, clippy::print_stdout)]

use std::time::Instant;
use ulvek_core::air::{Air, AirSeries};
use ulvek_core::film::{Film, FilmState, Grid, Ground, HORIZON_S};
use ulvek_core::mix::Composition;

const DAY: f64 = 86_400.0;

/// Ordinary heavy paint, drying.md. [memory]
fn heavy() -> Composition {
    Composition::try_new(0.42, 0.53, 0.05).unwrap()
}

fn room() -> AirSeries {
    AirSeries::constant(Air::try_new(21.0, 0.5, 0.15).unwrap())
}

/// One coat of 100 um followed for ten days.
fn one_coat(grid: Grid) -> f64 {
    let mut film = Film::new(Ground::SEALED, 0.4, grid, 0.0);
    film.lay(100e-6, heavy());
    film.advance(&room(), 10.0 * DAY, None).unwrap();
    film.events().at(FilmState::DryThrough).unwrap()
}

/// Twenty coats of 60 um, one every two days, followed for 60 days.
fn twenty_coats(grid: Grid) -> f64 {
    let mut film = Film::new(Ground::SEALED, 0.4, grid, 0.0);
    for coat in 0..20 {
        film.advance(&room(), f64::from(coat) * 2.0 * DAY, None).unwrap();
        film.lay(60e-6, heavy());
    }
    film.advance(&room(), 60.0 * DAY, None).unwrap();
    film.advance(&room(), HORIZON_S, Some(FilmState::DryThrough)).unwrap();
    film.events().at(FilmState::DryThrough).unwrap()
}

/// Median of seven runs [ms] and the result.
fn median(run: impl Fn() -> f64) -> (f64, f64) {
    let mut times = Vec::new();
    let mut result = 0.0;
    for _ in 0..7 {
        let start = Instant::now();
        result = run();
        times.push(start.elapsed().as_secs_f64() * 1e3);
    }
    times.sort_by(f64::total_cmp);
    (times[3], result)
}

fn main() {
    for (name, run) in
        [("one coat, 10 days", one_coat as fn(Grid) -> f64), ("20 coats, 60 days", twenty_coats)]
    {
        let (planning, a) = median(|| run(Grid::PLANNING));
        let (fine, b) = median(|| run(Grid::FINE));
        println!(
            "{name}: planning {planning:.2} ms, fine {fine:.1} ms, ratio 1:{:.0}; dry through differs by {:+.1} %",
            fine / planning,
            (a / b - 1.0) * 100.0
        );
    }
}
