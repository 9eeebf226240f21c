//! The room at the film's surface, held against the wet bulb and against itself.

use ulvek_core::air::{Air, AirSeries, Transfer, vapour_concentration_kg_m3, wet_bulb_c};

/// Temperature of a freely evaporating surface in that air, on a plate of 0.4 m.
fn surface(celsius: f64, humidity: f64, speed: f64) -> f64 {
    let room = Transfer::new(&Air::try_new(celsius, humidity, speed).unwrap(), 0.4);
    room.surface_c(celsius, |saturated| room.mass_m_s * (saturated - room.vapour_kg_m3))
}

#[test]
fn a_wet_film_is_cooler_than_the_room_and_warmer_than_the_wet_bulb() {
    for celsius in [12.0, 18.0, 21.0, 28.0] {
        for humidity in [0.2, 0.5, 0.8] {
            for speed in [0.05, 0.15, 1.0] {
                let film = surface(celsius, humidity, speed);
                let bulb = wet_bulb_c(celsius, humidity, 101_325.0);
                assert!(film < celsius && film > bulb, "{film} C in {celsius} C, bulb {bulb} C");
            }
        }
    }
}

#[test]
fn in_a_storm_radiation_hardly_counts_and_the_film_is_near_the_wet_bulb() {
    // The psychrometer: in moving air a wetted surface settles at the wet-bulb temperature
    // (ASHRAE Handbook of Fundamentals, ch. 1).
    let bulb = wet_bulb_c(21.0, 0.5, 101_325.0);
    let distance = |speed| surface(21.0, 0.5, speed) - bulb;
    assert!(distance(10.0) < 1.5, "{} K above the wet bulb", distance(10.0));
    assert!(distance(10.0) < distance(1.0) && distance(1.0) < distance(0.05));
}

#[test]
fn in_saturated_air_nothing_evaporates_and_the_film_has_the_rooms_temperature() {
    assert!((surface(21.0, 1.0, 0.15) - 21.0).abs() < 1e-3);
}

#[test]
fn the_heat_that_arrives_is_the_heat_that_evaporation_takes() {
    let room = Transfer::new(&Air::try_new(21.0, 0.5, 0.15).unwrap(), 0.4);
    let flux = |saturated: f64| room.mass_m_s * (saturated - room.vapour_kg_m3);
    let film = room.surface_c(21.0, flux);
    let colder = flux(vapour_concentration_kg_m3(film - 1.0));
    let warmer = flux(vapour_concentration_kg_m3(film + 1.0));
    assert!(colder < warmer, "the balance has one answer");
    let again = room.surface_c(5.0, flux);
    assert!((film - again).abs() < 2e-3, "wherever the search starts: {film} and {again}");
}

#[test]
fn readings_stand_until_the_next_one_in_whatever_order_they_came() {
    let air = |c| Air::try_new(c, 0.5, 0.15).unwrap();
    let series = AirSeries::new(air(20.0), vec![(200.0, air(22.0)), (100.0, air(21.0))]);
    let at: Vec<f64> = [0.0, 99.9, 100.0, 199.0, 200.0, 1e9].map(|t| series.at(t).celsius).into();
    assert_eq!(at, [20.0, 20.0, 21.0, 21.0, 22.0, 20.0], "and then the usual room");
    assert_eq!(series.next_change(0.0), Some(100.0));
    assert_eq!(series.next_change(100.0), Some(200.0));
    assert_eq!(series.next_change(200.0), Some(3800.0), "an hour at least");
    assert_eq!(series.next_change(3800.0), None);
    assert_eq!(series.usual().celsius, 20.0);
}
