//! Thicker, colder, damper, stiller and more retarded is never earlier, in any state, over random stacks whose
//! coats are each laid once the one below may be painted over. The room changes as the last coat is laid: had it
//! been colder before, what lies below would have closed less, and a film that is less closed drinks faster.

use rand::{Rng, SeedableRng};
use rand_pcg::Pcg64Mcg;
use ulvek_core::air::{Air, AirSeries};
use ulvek_core::film::{Film, FilmState, Grid, Ground, HORIZON_S};
use ulvek_core::mix::{Composition, Material, MaterialKind};
use ulvek_core::picture::GROUNDS;
use ulvek_testkit::stacks::{Coat, drawn_coats, log_uniform};

/// Stacks that are drawn: some thousand comparisons. With 400 none is beyond the bound either.
const STACKS: u64 = 80;

/// What slows drying.
#[derive(Debug, Clone, Copy, PartialEq)]
enum Slower {
    Colder,
    Damper,
    Stiller,
    Thicker,
    Retarded,
}

/// Where the law itself brings a state forward.
fn explained(slower: Slower, ground: Ground, state: FilmState) -> bool {
    use FilmState::{DryThrough, Paintable, ReadyToSeal, ReadyToWrap};
    match slower {
        // Damp air keeps a film open, and its slow volatile leaves sooner. What a ground in balance with a
        // damper room holds is more, so less of the coat's water is too much.
        Slower::Damper => {
            matches!(state, ReadyToSeal | ReadyToWrap)
                || (ground.absorbs_um > 0.0 && matches!(state, Paintable | DryThrough))
        }
        // Retarder stands in the place of water, and it is water that the ground must give back.
        Slower::Retarded => ground.absorbs_um > 0.0 && state == Paintable,
        _ => false,
    }
}

fn room([c, rh, speed]: [f64; 3]) -> AirSeries {
    AirSeries::constant(Air::try_new(c, rh, speed).unwrap())
}

/// Seconds after the last coat at which each state was reached in the room `then`; nothing when a coat could not
/// be laid in the room before.
fn last(ground: Ground, coats: &[Coat], [air, then]: [&AirSeries; 2]) -> Option<Vec<Option<f64>>> {
    let mut film = Film::new(ground, 0.4, Grid::PLANNING, 0.0);
    let (mut laid, mut drawn) = (0.0, 0.0);
    for (n, (at, wet_m, mix)) in coats.iter().enumerate() {
        if n > 0 {
            let mut ahead = film.clone();
            ahead.advance(air, laid + HORIZON_S, Some(FilmState::Paintable)).unwrap();
            laid = ahead.events().at(FilmState::Paintable)?.max(laid + at - drawn);
        }
        drawn = *at;
        film.advance(air, laid, None).unwrap();
        film.lay(*wet_m, *mix);
    }
    film.advance(then, laid + HORIZON_S, Some(FilmState::ReadyToWrap)).unwrap();
    Some(FilmState::REACHED.map(|s| film.events().at(s).map(|t| t - laid)).to_vec())
}

/// The stack with its last coat changed.
fn with_last(coats: &[Coat], change: impl FnOnce(Coat) -> Coat) -> Vec<Coat> {
    let mut coats = coats.to_vec();
    let top = coats.pop().unwrap();
    coats.push(change(top));
    coats
}

fn more_retarded(mix: Composition) -> Composition {
    let glycol = Composition::try_new(0.0, 0.20, 0.80).unwrap();
    let retarder = Material {
        slow_volatility: Some(0.4),
        ..Material::new("r", "r", MaterialKind::Retarder, glycol)
    };
    // Nothing of it goes into spirit.
    Composition::mixed([(0.95, mix), (0.05, retarder.makes())]).unwrap_or(mix)
}

#[test]
fn what_slows_drying_never_brings_a_state_forward() {
    let (mut all, mut by_law) = (0u32, 0u32);
    for seed in 0..STACKS {
        let draw = &mut Pcg64Mcg::seed_from_u64(seed);
        let ground = GROUNDS[draw.random_range(0..GROUNDS.len())].0;
        let (c, rh) = (draw.random_range(12.0..28.0), draw.random_range(0.25..0.70));
        let v = log_uniform(draw, 0.05, 20.0);
        let coats = drawn_coats(draw);
        let thicker = with_last(&coats, |(at, wet, mix)| (at, wet * 1.2, mix));
        let retarded = with_last(&coats, |(at, wet, mix)| (at, wet, more_retarded(mix)));
        let air = &room([c, rh, v]);
        let Some(base) = last(ground, &coats, [air, air]) else { continue };
        let then = |changed| last(ground, &coats, [air, &room(changed)]);
        for (slower, changed) in [
            (Slower::Colder, then([c - 2.0, rh, v])),
            (Slower::Damper, then([c, rh + 0.05, v])),
            (Slower::Stiller, then([c, rh, v / 1.3])),
            (Slower::Thicker, last(ground, &thicker, [air, air])),
            (Slower::Retarded, last(ground, &retarded, [air, air])),
        ] {
            let changed = changed.unwrap();
            for ((state, base), changed) in FilmState::REACHED.iter().zip(&base).zip(changed) {
                let Some(base) = base else { continue };
                let sooner = base - changed.unwrap_or(f64::INFINITY);
                let early = sooner > (0.05 * base).max(60.0);
                all += 1;
                by_law += u32::from(early);
                let said =
                    format!("seed {seed}, {slower:?}, {state:?}: {sooner} s of {base} s sooner");
                assert!(!early || explained(slower, ground, *state), "{said}");
            }
        }
    }
    assert!(all > 2000, "{all} comparisons");
    assert!(by_law * 100 <= all, "{by_law} of {all} sooner by the law");
}
