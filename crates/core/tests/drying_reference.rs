//! The drying model against its reference table (drying.md): fine grid within 4 % or 2 minutes,
//! planning grid within 12 % of the fine grid or 5 minutes. The values come from a prototype
//! outside this project, on a fine grid.
#![allow(clippy::unwrap_used)]

use ulvek_core::air::{Air, AirSeries};
use ulvek_core::film::{Film, FilmState, Grid, HORIZON_S};
use ulvek_core::mix::Composition;

const DAY_MIN: f64 = 1440.0;

struct Case {
    name: &'static str,
    /// Water the ground takes up [um].
    absorbs_um: f64,
    /// Temperature [C] and relative humidity.
    room: (f64, f64),
    /// Time [min], wet film [um] and mix of each coat.
    coats: Vec<(f64, f64, Composition)>,
    /// Minutes after the last coat, in the order of [`FilmState::REACHED`].
    minutes: [f64; 6],
}

fn table() -> Vec<Case> {
    // Solids, water, glycol of the reference paints, drying.md. [memory]
    let heavy = Composition::try_new(0.42, 0.53, 0.05).unwrap();
    let slow = Composition::try_new(0.36, 0.36, 0.28).unwrap();
    let glazing = Composition::try_new(0.31, 0.54, 0.15).unwrap();
    let retarder = Composition::try_new(0.0, 0.20, 0.80).unwrap();
    let glaze = Composition::mixed([(90.0, glazing), (10.0, heavy)]).unwrap();
    let retarded = Composition::mixed([(76.5, glazing), (8.5, heavy), (15.0, retarder)]).unwrap();
    let case = |name, absorbs_um, room, coats: &[(f64, f64, Composition)], minutes| Case {
        name,
        absorbs_um,
        room,
        coats: coats.to_vec(),
        minutes,
    };
    let usual = (21.0, 0.50);
    let one = [(0.0, 100.0, heavy)];
    let mut five = vec![(0.0, 80.0, heavy)];
    five.extend((1..=5).map(|day| (f64::from(day) * DAY_MIN, 40.0, glaze)));
    vec![
        case("heavy 100 um", 0.0, usual, &one, [27.8, 40.5, 50.7, 961.0, 3349.0, 5376.0]),
        case("on primed canvas", 20.0, usual, &one, [7.5, 20.5, 37.3, 954.0, 3341.0, 5368.0]),
        case("cool and damp", 0.0, (18.0, 0.70), &one, [53.6, 78.1, 101.0, 2463.0, 5105.0, 7682.0]),
        case("cold canvas", 20.0, (12.0, 0.60), &one, [14.5, 39.4, 73.1, 2824.0, 7747.0, 12_100.0]),
        case(
            "90:10 glaze over a day-old coat",
            0.0,
            usual,
            &[(0.0, 80.0, heavy), (DAY_MIN, 40.0, glaze)],
            [14.2, 22.7, 93.0, 1125.0, 3821.0, 6185.0],
        ),
        case(
            "the same with 15 % retarder",
            0.0,
            usual,
            &[(0.0, 80.0, heavy), (DAY_MIN, 40.0, retarded)],
            [20.6, 103.0, 604.0, 1650.0, 4180.0, 6396.0],
        ),
        case(
            "slow-drying 60 um",
            0.0,
            usual,
            &[(0.0, 60.0, slow)],
            [488.0, 991.0, 1404.0, 2036.0, 2998.0, 3772.0],
        ),
        case(
            "heavy 1 mm",
            0.0,
            usual,
            &[(0.0, 1000.0, heavy)],
            [258.0, 380.0, 602.0, 47_420.0, 172_100.0, 284_300.0],
        ),
        case("five daily glazes", 0.0, usual, &five, [7.2, 16.6, 64.6, 2410.0, 11_200.0, 19_150.0]),
    ]
}

fn minutes(case: &Case, grid: Grid) -> [f64; 6] {
    let air = AirSeries::constant(Air::try_new(case.room.0, case.room.1, 0.15).unwrap());
    let mut film = Film::new(case.absorbs_um * 1e-6, 0.4, grid, 0.0);
    let mut last = 0.0;
    for (at, um, mix) in &case.coats {
        last = at * 60.0;
        film.advance(&air, last, None).unwrap();
        film.lay(um * 1e-6, *mix);
    }
    film.advance(&air, last + HORIZON_S, Some(FilmState::ReadyToWrap)).unwrap();
    FilmState::REACHED.map(|state| (film.events().at(state).unwrap() - last) / 60.0)
}

#[test]
fn every_state_comes_when_the_reference_table_says() {
    for case in table() {
        let fine = minutes(&case, Grid::FINE);
        let planning = minutes(&case, Grid::PLANNING);
        for (i, state) in FilmState::REACHED.iter().enumerate() {
            let (want, got, coarse) = (case.minutes[i], fine[i], planning[i]);
            assert!(
                (got - want).abs() <= (0.04 * want).max(2.0),
                "{}, {state:?}: fine grid {got:.1} min, reference {want} min",
                case.name
            );
            assert!(
                (coarse - got).abs() <= (0.12 * got).max(5.0),
                "{}, {state:?}: planning grid {coarse:.1} min, fine grid {got:.1} min",
                case.name
            );
        }
    }
}

/// Trade facts of work.md, marked there as common practice.
#[test]
fn the_trade_facts_hold() {
    let heavy = Composition::try_new(0.42, 0.53, 0.05).unwrap();
    let slow = Composition::try_new(0.36, 0.36, 0.28).unwrap();
    let run = |absorbs_um, um, mix| {
        let case = Case {
            name: "",
            absorbs_um,
            room: (21.0, 0.5),
            coats: vec![(0.0, um, mix)],
            minutes: [0.0; 6],
        };
        minutes(&case, Grid::PLANNING)
    };
    // [practice] thin coats on absorbent primed canvas: minutes to touch-dry
    let thin = run(20.0, 40.0, heavy);
    assert!(thin[1] < 15.0, "a thin coat on primed canvas was touch-dry after {} min", thin[1]);
    // [practice] still overnight before sanding thicker passages
    let thick = run(20.0, 120.0, heavy);
    assert!(thick[3] > 8.0 * 60.0, "a 120 um coat was dry through after {} min", thick[3]);
    // [practice] ordinary paint: some three to four days to varnish
    let days = run(0.0, 120.0, heavy)[4] / DAY_MIN;
    assert!((2.0..5.0).contains(&days), "ordinary paint could be sealed after {days} days");
    // [practice] two weeks and more for a stack with slow-drying paint and medium
    let glazing = Composition::try_new(0.31, 0.54, 0.15).unwrap();
    let slow_glaze = Composition::mixed([(2.0, glazing), (1.0, slow)]).unwrap();
    let stack = Case {
        name: "",
        absorbs_um: 0.0,
        room: (21.0, 0.5),
        coats: (0..8)
            .map(|d| (f64::from(d) * 2.0 * DAY_MIN, 60.0, if d < 4 { slow } else { slow_glaze }))
            .collect(),
        minutes: [0.0; 6],
    };
    let days = minutes(&stack, Grid::PLANNING)[4] / DAY_MIN;
    assert!(days > 14.0, "a slow-drying stack could be sealed after {days} days");
    // Crank, The Mathematics of Diffusion, 2nd ed., ch. 4: twice the thickness, four times as
    // long, where diffusion rules (dry through of thick coats).
    let ratio = run(0.0, 1000.0, heavy)[3] / run(0.0, 500.0, heavy)[3];
    assert!((3.2..4.8).contains(&ratio), "twice the thickness took {ratio} times as long");
}
