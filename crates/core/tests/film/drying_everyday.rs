//! What painters say of everyday work, and the film must too: common practice of the trade, in plain times at
//! 21 C and 50 % in an ordinary room. A painter holds the software to these on the first evening.

use ulvek_core::air::{Air, AirSeries};
use ulvek_core::film::{Film, FilmState, Grid, Ground, HORIZON_S};
use ulvek_core::mix::{Composition, Mix, Part, starter_shelf};
use ulvek_core::picture::GROUNDS;

const DAY_MIN: f64 = 1440.0;
const SEALED: Ground = GROUNDS[0].0;
const PRIMED_CANVAS: Ground = GROUNDS[2].0;

const HEAVY: [(&str, f64); 1] = [("heavy-pb29", 1.0)];
const SLOW: [(&str, f64); 1] = [("slow-pbr7", 1.0)];
const GLAZE: [(&str, f64); 2] = [("glazing", 9.0), ("heavy-pb29", 1.0)];

/// A cup of the starter shelf.
fn cup(parts: &[(&str, f64)]) -> Composition {
    let part =
        |(material, parts): &(&str, f64)| Part { material: (*material).into(), parts: *parts };
    parts.iter().map(part).collect::<Mix>().composition(&starter_shelf().unwrap()).unwrap()
}

/// Coats, each laid some minutes after the first, wet [um].
type Coats<'a> = &'a [(f64, f64, Composition)];

/// Minutes after the last of `coats` at which each state is reached, in the order of [`FilmState::REACHED`].
fn minutes_in((c, rh): (f64, f64), ground: Ground, coats: Coats) -> [f64; 6] {
    let air = AirSeries::constant(Air::try_new(c, rh, 0.15).unwrap());
    let mut film = Film::new(ground, 0.4, Grid::PLANNING, 0.0);
    for (at, um, mix) in coats {
        film.advance(&air, at * 60.0, None).unwrap();
        film.lay(um * 1e-6, *mix);
    }
    let laid = film.time();
    film.advance(&air, laid + HORIZON_S, Some(FilmState::ReadyToWrap)).unwrap();
    FilmState::REACHED.map(|s| (film.events().at(s).unwrap_or(f64::INFINITY) - laid) / 60.0)
}

fn minutes(ground: Ground, coats: Coats) -> [f64; 6] {
    minutes_in((21.0, 0.50), ground, coats)
}

/// A coat over heavy paint a day old.
fn over_paint(um: f64, mix: Composition) -> [f64; 6] {
    minutes(SEALED, &[(0.0, 80.0, cup(&HEAVY)), (DAY_MIN, um, mix)])
}

#[test]
fn a_tone_is_brushed_out_before_it_sets_and_dry_in_minutes() {
    let tone = cup(&[("heavy-pbr7", 2.0), ("matte-medium", 1.0)]);
    let [sets, _, paintable, ..] = minutes(PRIMED_CANVAS, &[(0.0, 45.0, tone)]);
    assert!((6.0..=12.0).contains(&sets), "it sets after {sets} min");
    assert!(paintable < 20.0, "paintable after {paintable} min");
}

#[test]
fn glazes_of_one_evening_follow_each_other_within_the_hour() {
    let medium = over_paint(40.0, cup(&[("matte-medium", 9.0), ("fluid-pb15", 1.0)]))[2];
    assert!((15.0..=30.0).contains(&medium), "in matte medium after {medium} min");
    let coats: Vec<_> = std::iter::once((0.0, 80.0, cup(&HEAVY)))
        .chain((0..4).map(|n| (DAY_MIN + f64::from(n) * 90.0, 40.0, cup(&GLAZE))))
        .collect();
    for evening in 2..=coats.len() {
        let paintable = minutes(SEALED, &coats[..evening])[2];
        assert!((20.0..=45.0).contains(&paintable), "glaze {} after {paintable} min", evening - 1);
    }
    let splatter = over_paint(20.0, cup(&[("fluid-pb15", 1.0)]))[2];
    assert!(splatter < 15.0, "splatter after {splatter} min");
}

#[test]
fn heavy_paint_is_painted_on_within_the_hour_and_sanded_next_day() {
    for um in [60.0, 80.0, 100.0] {
        // A ground that drinks may bring it sooner, never later.
        for (ground, soonest) in [(SEALED, 20.0), (PRIMED_CANVAS, 15.0)] {
            let [_, _, paintable, through, ..] = minutes(ground, &[(0.0, um, cup(&HEAVY))]);
            assert!((soonest..=60.0).contains(&paintable), "{um} um after {paintable} min");
            let hours = through / 60.0;
            assert!((4.0..=20.0).contains(&hours), "{um} um dry through after {hours} h");
        }
    }
}

#[test]
fn a_little_retarder_never_costs_a_day() {
    let bare = over_paint(60.0, cup(&HEAVY))[0];
    let hour = 60.0;
    for (percent, most, later) in
        [(5.0, 0.75 * hour, 1.15), (10.0, 2.0 * hour, 1.35), (15.0, 8.0 * hour, 1.7)]
    {
        let mix = cup(&[("heavy-pb29", 100.0 - percent), ("retarder", percent)]);
        let [sets, _, paintable, ..] = over_paint(60.0, mix);
        assert!(paintable < most, "{percent} %: paintable after {paintable} min");
        assert!(sets >= later * bare, "{percent} %: sets after {sets} min, without {bare}");
    }
}

#[test]
fn slow_drying_paint_takes_a_night() {
    let mixed = cup(&[("slow-pbr7", 2.0), ("heavy-pb29", 1.0)]);
    let hours = over_paint(70.0, mixed)[2] / 60.0;
    assert!((5.0..=12.0).contains(&hours), "two to one with ordinary paint after {hours} h");
    let hours = minutes(SEALED, &[(0.0, 60.0, cup(&SLOW))])[2] / 60.0;
    assert!((8.0..=24.0).contains(&hours), "alone after {hours} h");
}

#[test]
fn a_foggy_morning_gives_hours_of_work_wet_in_wet() {
    for ground in [SEALED, PRIMED_CANVAS] {
        let hours = minutes_in((12.0, 0.95), ground, &[(0.0, 80.0, cup(&HEAVY))])[0] / 60.0;
        assert!((3.0..=7.0).contains(&hours), "it sets after {hours} h");
    }
}

#[test]
fn a_thin_picture_is_varnished_after_days_and_varnish_takes_varnish_within_the_hour() {
    let thin: Vec<_> = (0..3).map(|n| (f64::from(n) * DAY_MIN, 60.0, cup(&HEAVY))).collect();
    let hours = minutes(PRIMED_CANVAS, &thin)[4] / 60.0;
    assert!((20.0..=45.0).contains(&hours), "to be sealed after {hours} h");
    let varnish = cup(&[("varnish-gloss", 1.0)]);
    let two = [(0.0, 45.0, varnish), (DAY_MIN, 45.0, varnish)];
    let coats: Vec<_> = thin
        .iter()
        .copied()
        .chain(two.map(|(at, um, mix)| (7.0 * DAY_MIN + at, um, mix)))
        .collect();
    for coats in [&coats[..4], &coats[..]] {
        let paintable = minutes(PRIMED_CANVAS, coats)[2];
        assert!(paintable < 45.0, "varnish after {paintable} min");
    }
}

#[test]
fn a_stack_with_slow_volatile_waits_for_days_by_the_film_alone() {
    // Weeks by the school: its floor stands beside the film.
    let retarded = cup(&[("heavy-pb29", 85.0), ("retarder", 15.0)]);
    for (what, um, mix) in
        [("slow-drying paint", 60.0, cup(&SLOW)), ("15 % retarder", 60.0, retarded)]
    {
        let days = over_paint(um, mix)[4] / DAY_MIN;
        assert!((2.0..=6.0).contains(&days), "{what}: to be sealed after {days} days");
    }
}
