//! Times that are sure: the share of futures in which a state really is reached by the time that is
//! said (docs/model/drying.md, "How sure?": within 0.04).

use rand::{Rng, SeedableRng};
use rand_distr::{Distribution, StandardNormal};
use rand_pcg::Pcg64Mcg;
use std::sync::Arc;
use ulvek_core::air::{Air, AirSeries, Deviation};
use ulvek_core::film::{Course, Film, FilmState, Futures, Grid, Ground, HORIZON_S, Habit};
use ulvek_core::picture::GROUNDS;
use ulvek_core::quantity::{Pace, Sure};
use ulvek_testkit::stacks::{Coat, drawn_coats, log_uniform};

/// Stacks and futures of each that are drawn.
const STACKS: u64 = 60;
const FUTURES: u64 = 120;

/// A factor that is x/: `over` per standard deviation.
fn factor(draw: &mut Pcg64Mcg, over: f64) -> f64 {
    let z: f64 = StandardNormal.sample(draw);
    over.powf(z)
}

/// Seconds after the last coat at which each state was reached.
fn reached(at: f64, events: &ulvek_core::film::Events) -> Vec<Option<f64>> {
    FilmState::REACHED.map(|s| events.at(s).map(|t| t - at)).to_vec()
}

/// The stack in one future drawn from the spreads of docs/model/drying.md.
fn in_one_future(
    draw: &mut Pcg64Mcg,
    (ground, air): (Ground, &AirSeries),
    coats: &[Coat],
) -> Vec<Option<f64>> {
    let (hand, speed, pace) = (factor(draw, 1.15), factor(draw, 1.6), factor(draw, 1.25));
    let (warmer, damper): (f64, f64) = (StandardNormal.sample(draw), StandardNormal.sample(draw));
    let by = Deviation { warmer_k: 1.5 * warmer, damper: 0.06 * damper, faster: speed };
    let air = &air.deviating(None, &by);
    let mut film = Film::new(ground, 0.4, Grid::SAMPLED, 0.0);
    // What is left of x/: 1.25 and 1.4 once the common part is taken out.
    let own = |draw: &mut Pcg64Mcg, all: f64, common: f64| {
        factor(draw, (all.ln().powi(2) - common.ln().powi(2)).sqrt().exp())
    };
    for (at, wet_m, mix) in coats {
        film.advance(air, *at, None).unwrap();
        let wet = wet_m * hand * own(draw, 1.25, 1.15);
        let pace = mix.pace() * pace * own(draw, 1.4, 1.25);
        let mix = mix.with_slow(factor(draw, 1.15)).with_pace(Pace::try_new(pace).unwrap());
        film.lay(wet, mix);
    }
    let at = film.time();
    film.advance(air, at + HORIZON_S, Some(FilmState::ReadyToWrap)).unwrap();
    reached(at, film.events())
}

/// The same as it is said with `futures`.
fn as_said(futures: Futures, ground: Ground, coats: &[Coat]) -> Vec<Option<f64>> {
    let mut course = Course::bare(Arc::new(futures), (ground, 0.4), Grid::SAMPLED, 0.0);
    for (at, wet_m, mix) in coats {
        course.lay(*at, *wet_m, *mix).unwrap();
    }
    let at = course.time();
    course.advance(at + HORIZON_S, Some(FilmState::ReadyToWrap)).unwrap();
    reached(at, &course.events().unwrap())
}

/// Futures in which a state was there by the time that is said, and all that were asked.
#[derive(Default, Clone, Copy)]
struct Held {
    there: u32,
    all: u32,
}

#[test]
fn as_many_futures_as_is_said_have_it_by_then() {
    let asked = [0.5, 0.9, 0.95];
    let mut held = [[Held::default(); FilmState::REACHED.len()]; 3];
    for seed in 0..STACKS {
        let draw = &mut Pcg64Mcg::seed_from_u64(seed);
        let ground = GROUNDS[draw.random_range(0..GROUNDS.len())].0;
        let (celsius, humidity) = (draw.random_range(12.0..27.0), draw.random_range(0.3..0.65));
        let air = Air::try_new(celsius, humidity, log_uniform(draw, 0.05, 20.0)).unwrap();
        let air = AirSeries::constant(air);
        let coats = drawn_coats(draw);
        let said = asked.map(|share| {
            let sure = Sure::try_new(share).unwrap();
            as_said(Futures::sure(sure, &Habit::BOOK, &air, None), ground, &coats)
        });
        for n in 0..FUTURES {
            let draw = &mut Pcg64Mcg::seed_from_u64(seed * 1_000_003 + n);
            let came = in_one_future(draw, (ground, &air), &coats);
            for (held, said) in held.iter_mut().zip(&said) {
                for (s, state) in FilmState::REACHED.into_iter().enumerate() {
                    let Some(said) = said[s] else { continue };
                    // One may work into it as long as it has not set: that is sure the other way round.
                    let there =
                        |t: f64| if state == FilmState::Setting { t >= said } else { t <= said };
                    held[s].there += u32::from(came[s].is_some_and(there));
                    held[s].all += 1;
                }
            }
        }
    }
    for (share, held) in asked.iter().zip(held) {
        for (state, held) in FilmState::REACHED.iter().zip(held) {
            let there = f64::from(held.there) / f64::from(held.all);
            assert!((there - share).abs() < 0.04, "{state:?}: {there:.3} where {share} is said");
        }
    }
}
