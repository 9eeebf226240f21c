//! Moist air against published tables and a general library.

use ulvek_core::air::{dew_point_c, humidity_ratio, saturation_pressure_pa, wet_bulb_c};

#[test]
fn saturation_pressure_follows_the_steam_tables() {
    // IAPWS-95 saturation table [Pa]: Wagner & Pruss 2002, as in any steam table.
    for (t, want) in
        [(0.01, 611.66), (10.0, 1228.2), (20.0, 2339.2), (30.0, 4246.9), (40.0, 7384.9)]
    {
        let got = saturation_pressure_pa(t);
        assert!((got / want - 1.0).abs() < 5e-4, "{t} C: {got} Pa instead of {want}");
    }
}

#[test]
fn moist_air_agrees_with_a_general_library() {
    let pressure = 101_325.0;
    for line in include_str!("../../testdata/psychrometrics.csv").lines().skip(2) {
        let row: Vec<f64> = line.split(',').map(|x| x.parse().unwrap()).collect();
        let [t, rh, saturation, ratio, wet, dew] = row[..] else { panic!("row {line}") };
        assert!((saturation_pressure_pa(t) / saturation - 1.0).abs() < 1e-4, "{line}");
        assert!((humidity_ratio(t, rh, pressure) / ratio - 1.0).abs() < 1e-3, "{line}");
        assert!(
            (wet_bulb_c(t, rh, pressure) - wet).abs() < 0.02,
            "{line}: {}",
            wet_bulb_c(t, rh, pressure)
        );
        assert!((dew_point_c(t, rh) - dew).abs() < 0.02, "{line}: {}", dew_point_c(t, rh));
    }
}
