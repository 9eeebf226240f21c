//! Mass is kept to rounding over random stacks and rooms.

use proptest::prelude::*;
use ulvek_core::air::{Air, AirSeries};
use ulvek_core::film::{Film, Grid, Ground};
use ulvek_core::mix::Composition;

/// Rounding of f64 times the condition of the tridiagonal systems [-]: under 1e-8 in 20 000 random
/// stacks, so ten times that is no rounding any more.
const ROUNDING: f64 = 1e-7;

/// A composition with at least a tenth of solids.
fn mixes() -> impl Strategy<Value = Composition> {
    (0.1f64..0.6, 0.0f64..1.0).prop_map(|(solids, split)| {
        let rest = 1.0 - solids;
        Composition::try_new(solids, rest * split, rest * (1.0 - split)).unwrap()
    })
}

fn rooms() -> impl Strategy<Value = Air> {
    (6.0f64..35.0, 0.1f64..0.95, 0.02f64..1.5)
        .prop_map(|(t, rh, v)| Air::try_new(t, rh, v).unwrap())
}

proptest! {
    #![proptest_config(ProptestConfig { failure_persistence: None, ..ProptestConfig::with_cases(200) })]

    #[test]
    fn water_and_glycol_are_in_the_film_the_ground_or_the_room(
        absorbs_um in prop_oneof![Just(0.0), 1.0f64..100.0],
        base in rooms(),
        later in rooms(),
        coats in prop::collection::vec((10.0f64..300.0, mixes(), 0.01f64..72.0), 1..6),
    ) {
        let air = AirSeries::new(base, vec![(20_000.0, later)]);
        let mut film = Film::new(Ground::of(absorbs_um), 0.3, Grid::PLANNING, 0.0);
        // What the ground holds in balance with the room: its share of twice what it takes up.
        let (mut water, mut glycol) = (base.humidity * 2.0 * absorbs_um * 1e-6, 0.0);
        for (um, mix, hours) in coats {
            film.lay(um * 1e-6, mix);
            water += um * 1e-6 * mix.water();
            glycol += um * 1e-6 * mix.glycol();
            let until = film.time() + hours * 3600.0;
            film.advance(&air, until, None).unwrap();
            prop_assert_eq!(film.time(), until);
            let (w, g) = film.stack().balance();
            prop_assert!((w - water).abs() <= ROUNDING * (water + glycol), "water {w} of {water}");
            prop_assert!((g - glycol).abs() <= ROUNDING * (water + glycol), "glycol {g} of {glycol}");
            for coat in film.stack().views() {
                prop_assert!(coat.water >= -1e-9 && coat.glycol >= -1e-9);
            }
        }
    }
}
