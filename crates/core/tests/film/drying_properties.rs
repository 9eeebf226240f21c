//! What must hold for every film, whatever the constants are.

use proptest::prelude::*;
use std::sync::Arc;
use ulvek_core::air::{Air, AirSeries, heat_transfer_coefficient};
use ulvek_core::film::{Course, Film, FilmState, Futures, Grid, Ground, HORIZON_S, Habit};
use ulvek_core::mix::{Composition, Material, MaterialKind, Mix, Part};
use ulvek_core::picture::{LaidCoat, Picture, REST, follow};

/// Ordinary heavy paint, docs/model/drying.md. [memory]
fn heavy() -> Composition {
    Composition::try_new(0.42, 0.53, 0.05).unwrap()
}

fn room(celsius: f64, humidity: f64, speed: f64) -> AirSeries {
    AirSeries::constant(Air::try_new(celsius, humidity, speed).unwrap())
}

/// Minutes until one coat on a sealed ground reaches `state`.
fn minutes(um: f64, mix: Composition, air: &AirSeries, state: FilmState) -> f64 {
    minutes_on(Grid::PLANNING, um, mix, air, state)
}

fn minutes_on(grid: Grid, um: f64, mix: Composition, air: &AirSeries, state: FilmState) -> f64 {
    let mut film = Film::new(Ground::SEALED, 0.4, grid, 0.0);
    film.lay(um * 1e-6, mix);
    film.advance(air, HORIZON_S, Some(state)).unwrap();
    film.events().at(state).unwrap() / 60.0
}

fn config(cases: u32) -> ProptestConfig {
    ProptestConfig { failure_persistence: None, ..ProptestConfig::with_cases(cases) }
}

proptest! {
    #![proptest_config(config(48))]

    #[test]
    fn damper_stiller_colder_air_and_thicker_coats_dry_later(
        um in 20.0f64..150.0, celsius in 12.0f64..28.0, humidity in 0.25f64..0.75, speed in 0.05f64..0.6,
    ) {
        let dry = |um: f64, c: f64, rh: f64, v: f64| minutes(um, heavy(), &room(c, rh, v), FilmState::Paintable);
        let here = dry(um, celsius, humidity, speed);
        prop_assert!(dry(um * 1.3, celsius, humidity, speed) > here);
        prop_assert!(dry(um, celsius - 4.0, humidity, speed) > here);
        prop_assert!(dry(um, celsius, humidity + 0.1, speed) > here);
        prop_assert!(dry(um, celsius, humidity, speed * 1.8) < here);
    }

    #[test]
    fn a_coat_lies_as_if_none_had_been_looked_at_before_it(
        hours in prop::collection::vec(0.3f64..0.8, 1..60), looked in prop::collection::vec(0.0f64..80.0, 1..4),
        after in 0.5f64..80.0, um in 20.0f64..90.0,
    ) {
        let air = |humidity| Air::try_new(20.0, humidity, 0.15).unwrap();
        let readings = hours.iter().enumerate().map(|(h, rh)| (h as f64 * 3600.0, air(*rh)));
        let air = AirSeries::new(air(0.5), readings.collect());
        let futures = Arc::new(Futures::at(0.5, &Habit::BOOK, &air, None));
        let bare = Course::bare(futures, (Ground::of(10.0), 0.4), Grid::PLANNING, -1800.0);
        let states = |near: &[f64]| {
            let mut course = bare.clone();
            course.lay(0.0, um * 1e-6, heavy()).unwrap();
            for hour in near {
                let found = course.near(hour * 3600.0).unwrap();
                course = course.knowing(found);
            }
            course.lay(after * 3600.0, 60e-6, heavy()).unwrap();
            course.advance(after * 3600.0 + HORIZON_S, Some(FilmState::ReadyToWrap)).unwrap();
            FilmState::REACHED.map(|s| course.film().events().at(s))
        };
        prop_assert_eq!(states(&looked), states(&[]));
    }

    #[test]
    fn what_stays_too_wet_is_told_as_if_it_were_followed_to_its_end(
        damp in prop::collection::vec(0.9f64..1.0, 1..40), always in 0.93f64..1.0, dry in 0.3f64..1.0,
        coats in prop::collection::vec((20.0f64..150.0, 0.0f64..0.25, 0.2f64..200.0), 1..4), absorbs in 0.0f64..60.0,
    ) {
        let air = |humidity| Air::try_new(20.0, humidity, 0.15).unwrap();
        let mut readings: Vec<_> = damp.iter().enumerate().map(|(h, rh)| (h as f64 * 3600.0, air(*rh))).collect();
        readings.insert(0, (-3600.0, air(dry)));
        let air = AirSeries::new(air(always), readings);
        let mut film = Film::new(Ground::of(absorbs), 0.4, Grid::PLANNING, -3600.0);
        for (um, slow, hours) in coats {
            let at = film.time();
            film.lay(um * 1e-6, Composition::try_new(0.40, 0.60 - slow, slow).unwrap());
            let mut whole = film.clone();
            whole.advance(&air, at + HORIZON_S, None).unwrap();
            for state in FilmState::REACHED {
                let mut asked = film.clone();
                asked.advance(&air, at + HORIZON_S, Some(state)).unwrap();
                prop_assert_eq!(asked.events().at(state), whole.events().at(state), "{:?}", state);
            }
            film.advance(&air, at + hours * 3600.0, None).unwrap();
        }
    }

    #[test]
    fn a_pace_stretches_every_time_by_its_factor(um in 20.0f64..150.0, pace in 0.4f64..3.0) {
        // The same equations in stretched time: in constant air exact but for the steps, whose first and
        // longest do not stretch.
        let air = room(21.0, 0.5, 0.15);
        let slow = heavy().with_pace(ulvek_core::quantity::Pace::try_new(pace).unwrap());
        for state in [FilmState::Setting, FilmState::Paintable, FilmState::ReadyToSeal] {
            let ratio = minutes_on(Grid::FINE, um, slow, &air, state) / minutes_on(Grid::FINE, um, heavy(), &air, state);
            prop_assert!((ratio / pace - 1.0).abs() < 0.02, "{state:?}: {ratio} for {pace}");
        }
    }

    #[test]
    fn a_less_volatile_slow_volatile_keeps_the_film_longer_and_counts_by_what_each_part_brought(
        um in 20.0f64..120.0, volatility in 0.2f64..0.8,
    ) {
        // docs/model/drying.md: the mean over what was brought, weighted by the slow volatile of each part.
        let slow = |id: &str, volatility| Material {
            slow_volatility: volatility,
            ..Material::new(id, id, MaterialKind::Medium, Composition::try_new(0.3, 0.5, 0.2).unwrap())
        };
        let shelf = [slow("usual", None), slow("same", Some(1.0)), slow("less", Some(volatility))];
        let of = |parts: &[(&str, f64)]| {
            let part = |(id, parts): &(&str, f64)| Part { material: (*id).into(), parts: *parts };
            parts.iter().map(part).collect::<Mix>().composition(&shelf).unwrap()
        };
        let air = room(21.0, 0.5, 0.15);
        let dry = |mix: Composition| minutes(um, mix, &air, FilmState::ReadyToSeal);
        let [usual, less] = [of(&[("usual", 1.0)]), of(&[("less", 1.0)])];
        prop_assert_eq!(usual, of(&[("same", 1.0)]));
        prop_assert!(dry(less) > dry(usual));
        let mixed = of(&[("usual", 3.0), ("less", 1.0)]).volatility();
        prop_assert!((mixed - (3.0 + volatility) / 4.0).abs() < 1e-12);
    }

    #[test]
    fn the_longer_steps_of_sampled_futures_move_no_time_by_more_than_films_are_spread(
        um in 20.0f64..120.0, glaze in 20.0f64..60.0, days in 0.2f64..20.0, celsius in 14.0f64..26.0,
        humidity in 0.3f64..0.7, slow in 0.0f64..0.12,
    ) {
        // Paint, and later a glaze on it; docs/model/drying.md spreads a film by 1.25 and so its times by more.
        let air = room(celsius, humidity, 0.15);
        let mix = Composition::try_new(0.34, 0.66 - 0.05 - slow, 0.05 + slow).unwrap();
        let events = |grid: Grid| {
            let mut film = Film::new(Ground::SEALED, 0.4, grid, 0.0);
            film.lay(um * 1e-6, heavy());
            film.advance(&air, days * 86_400.0, None).unwrap();
            film.lay(glaze * 1e-6, mix);
            film.advance(&air, HORIZON_S, Some(FilmState::ReadyToSeal)).unwrap();
            [FilmState::TouchDry, FilmState::Paintable, FilmState::DryThrough, FilmState::ReadyToSeal]
                .map(|state| (film.events().at(state).unwrap() - days * 86_400.0) / 60.0)
        };
        for (sampled, drawn) in events(Grid::SAMPLED).into_iter().zip(events(Grid::DRAWN)) {
            let off = (sampled / drawn).max(drawn / sampled);
            prop_assert!(off < 1.3 || (sampled - drawn).abs() < 15.0, "{sampled} for {drawn}");
        }
    }

    #[test]
    fn states_come_in_their_order(
        um in 10.0f64..400.0, celsius in 8.0f64..32.0, humidity in 0.1f64..0.85, glycol in 0.0f64..0.25,
    ) {
        let mix = Composition::try_new(0.40, 0.60 - glycol, glycol).unwrap();
        let mut film = Film::new(Ground::SEALED, 0.3, Grid::PLANNING, 0.0);
        film.lay(um * 1e-6, mix);
        film.advance(&room(celsius, humidity, 0.15), HORIZON_S, Some(FilmState::ReadyToWrap)).unwrap();
        let times: Vec<_> = FilmState::REACHED.iter().map_while(|s| film.events().at(*s)).collect();
        prop_assert!(times.windows(2).all(|w| w[0] <= w[1]), "{times:?}");
    }

    #[test]
    fn where_the_steps_land_changes_no_time_by_much(um in 30.0f64..200.0, landings in 1usize..40) {
        let air = room(21.0, 0.5, 0.15);
        let straight = minutes_on(Grid::FINE, um, heavy(), &air, FilmState::DryThrough);
        let mut film = Film::new(Ground::SEALED, 0.4, Grid::FINE, 0.0);
        film.lay(um * 1e-6, heavy());
        for n in 1..=landings {
            film.advance(&air, straight * 60.0 * n as f64 / landings as f64, None).unwrap();
        }
        film.advance(&air, HORIZON_S, Some(FilmState::DryThrough)).unwrap();
        let landed = film.events().at(FilmState::DryThrough).unwrap() / 60.0;
        prop_assert!((landed / straight - 1.0).abs() < 0.03, "{landed} against {straight}");
    }
}

#[test]
fn a_room_that_never_dries_is_told_from_its_air_at_once() {
    // In air that is full of water nothing dries that lies on a ground which is full of it too.
    let mut film = Film::new(Ground::of(10.0), 0.4, Grid::PLANNING, 0.0);
    film.lay(100e-6, heavy());
    assert!(!film.advance(&room(18.0, 1.0, 0.15), HORIZON_S, Some(FilmState::TouchDry)).unwrap());
    assert_eq!(film.time(), 0.0);
    // Drier at the end of a damp month, it dries then.
    let damp = Air::try_new(18.0, 1.0, 0.15).unwrap();
    let month = (0..30 * 24).map(|h| (f64::from(h) * 3600.0, damp)).collect();
    let air = AirSeries::new(Air::try_new(18.0, 0.5, 0.15).unwrap(), month);
    assert!(film.advance(&air, HORIZON_S, Some(FilmState::TouchDry)).unwrap());
    assert!(film.time() > 30.0 * 86_400.0);
}

#[test]
fn a_series_of_the_same_air_is_the_same_as_constant_air() {
    let air = Air::try_new(19.0, 0.55, 0.15).unwrap();
    let hourly = (0..500).map(|h| (f64::from(h) * 3600.0, air)).collect();
    let series = AirSeries::new(air, hourly);
    for state in [FilmState::Paintable, FilmState::DryThrough] {
        let one = minutes_on(Grid::FINE, 100.0, heavy(), &AirSeries::constant(air), state);
        let other = minutes_on(Grid::FINE, 100.0, heavy(), &series, state);
        assert!((one / other - 1.0).abs() < 0.02, "{state:?}: {one} and {other}");
    }
}

#[test]
fn a_damp_night_holds_the_film_back_and_a_dry_morning_lets_it_go_on() {
    let dry = Air::try_new(21.0, 0.4, 0.15).unwrap();
    let damp = Air::try_new(16.0, 0.9, 0.15).unwrap();
    let night = AirSeries::new(dry, vec![(600.0, damp), (12.0 * 3600.0, dry)]);
    let without = minutes(100.0, heavy(), &AirSeries::constant(dry), FilmState::DryThrough);
    let with = minutes(100.0, heavy(), &night, FilmState::DryThrough);
    assert!(with > without + 300.0, "{with} min with the night, {without} min without");
}

#[test]
fn still_air_is_left_to_free_convection_and_a_draught_takes_over() {
    // Incropera & DeWitt, eq. 9.30: Nu = 0.54 (Gr Pr)^0.25 for a warm plate facing up.
    let free = 0.54
        * (9.81 / 294.15 * 2.0 * 0.4f64.powi(3) / 1.5e-5f64.powi(2) * 0.71).powf(0.25)
        * 0.0257
        / 0.4;
    assert!((heat_transfer_coefficient(0.4, 0.0, 21.0) - free).abs() < 1e-9);
    // Incropera & DeWitt, eq. 7.30: Nu = 0.664 Re^0.5 Pr^(1/3); at 5 m/s it is nearly all there is.
    let forced = 0.664 * (5.0f64 * 0.4 / 1.5e-5).sqrt() * 0.71f64.cbrt() * 0.0257 / 0.4;
    assert!((heat_transfer_coefficient(0.4, 5.0, 21.0) / forced - 1.0).abs() < 0.02);
}

#[test]
fn an_absorbent_ground_takes_water_at_once_and_gives_it_back() {
    let air = room(21.0, 0.5, 0.15);
    // It can hold 40 um, and begins in balance with the room: half full at 50 % (docs/model/drying.md).
    let mut film = Film::new(Ground::of(20.0), 0.4, Grid::PLANNING, 0.0);
    film.lay(100e-6, heavy());
    film.advance(&air, 300.0, None).unwrap();
    let early = film.stack().ground_water();
    assert!(early > 30e-6, "{early} m after five minutes");
    film.advance(&air, 30.0 * 86_400.0, None).unwrap();
    let late = film.stack().ground_water();
    assert!(late < early && (late - 20e-6).abs() < 0.5e-6, "{late} m after a month");
}

#[test]
fn a_film_that_is_wetted_again_hangs_neither_on_the_steps_nor_on_the_cells() {
    // Five daily glazes over heavy paint: each swells what lies below, which then shrinks by hairs.
    let air = room(21.0, 0.5, 0.15);
    let glaze = Composition::try_new(0.33, 0.584, 0.086).unwrap();
    let reached = |cells, longest_step| {
        let grid = Grid { cells, longest_step, ..Grid::FINE };
        let mut film = Film::new(Ground::SEALED, 0.4, grid, 0.0);
        film.lay(80e-6, heavy());
        for day in 1..=5 {
            film.advance(&air, f64::from(day) * 86_400.0, None).unwrap();
            film.lay(40e-6, glaze);
        }
        film.advance(&air, HORIZON_S, Some(FilmState::ReadyToWrap)).unwrap();
        FilmState::REACHED.map(|state| film.events().at(state).unwrap() - 5.0 * 86_400.0)
    };
    // Backward Euler is late by a share of its step: three hours of the day and a half until it may be sealed.
    let near = reached(16, 1080.0);
    for other in [reached(16, 10_800.0), reached(32, 1080.0), reached(32, 10_800.0)] {
        for (near, other) in near.into_iter().zip(other) {
            assert!((other / near - 1.0).abs() < 0.03, "{other} s, by short steps {near} s");
        }
    }
}

#[test]
fn merging_buried_coats_keeps_their_mass_and_thickness() {
    let air = room(21.0, 0.5, 0.15);
    let unmerged = Grid { buried_cells: 8, ..Grid::PLANNING };
    let run = |grid| {
        let mut film = Film::new(Ground::SEALED, 0.4, grid, 0.0);
        for day in 0..9 {
            film.advance(&air, f64::from(day) * 86_400.0, None).unwrap();
            film.lay(60e-6, heavy());
        }
        film.advance(&air, 12.0 * 86_400.0, None).unwrap();
        let thickness: Vec<f64> = film.stack().views().iter().map(|v| v.thickness_m).collect();
        (film.stack().balance(), thickness)
    };
    let ((w1, g1), merged) = run(Grid::PLANNING);
    let ((w2, g2), whole) = run(unmerged);
    assert!((w1 / w2 - 1.0).abs() < 1e-9 && (g1 / g2 - 1.0).abs() < 1e-9);
    assert_eq!(merged.len(), 9);
    for (a, b) in merged.iter().zip(&whole) {
        assert!((a / b - 1.0).abs() < 0.02, "{a} m against {b} m");
    }
}

#[test]
fn a_timeline_shows_each_coat_from_its_wet_thickness_down() {
    let air = room(21.0, 0.5, 0.15);
    let coat = |step, at| LaidCoat { step, at, wet_m: 80e-6, mix: heavy(), place: REST };
    let coats = [coat(0, 0.0), coat(1, 1800.0), coat(2, 90_000.0)];
    // A side of 40 cm on a sealed panel.
    let picture = Picture::new("p", (40.0, 40.0), vec![]);
    let plain = std::sync::Arc::new(Futures::plain(air));
    let line =
        follow(&picture, &coats, &plain, Grid::PLANNING, (400_000.0, 90), |n| n < 2).unwrap();
    let frames = &line.stacks[0].frames;
    assert!(frames.windows(2).all(|w| w[0].at <= w[1].at), "frames run forward");
    for (n, coat) in coats.iter().enumerate() {
        let first = frames.iter().find(|f| f.coats.len() > n).unwrap();
        assert_eq!(first.at, coat.at);
        assert!((first.coats[n].thickness_m - 80e-6).abs() < 1e-9, "wet as laid");
    }
    assert_eq!(frames.last().unwrap().at, 400_000.0);
    // The second coat came before the first was paintable: only alone does it get there.
    assert_eq!(line.coats[0].events.at(FilmState::Paintable), None);
    assert!(line.coats[0].followed && line.coats[0].if_left.at(FilmState::Paintable).is_some());
    assert!(!line.coats[2].followed);
}
