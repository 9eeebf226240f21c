//! A forecast of the outside that is not there: the weather of an invented harbour, the same for the
//! same hour whenever it is asked.

use ulvek_core::air::{Air, RoomHour};

/// Mean of the year, swing of the year, of the day and of passing weather [C]. Invented.
const TEMPERATURES_C: [f64; 4] = [8.0, 9.0, 2.5, 4.0];
/// Mean humidity, swing of the day and of passing weather [-]. Invented.
const HUMIDITIES: [f64; 3] = [0.82, 0.08, 0.14];
/// Days in which weather passes: two that never keep step. Invented.
const PASSING_DAYS: [f64; 2] = [5.3, 8.9];

/// The outside for `hours` full hours from the one in which `from` [s of the epoch] lies.
pub fn outside(from: i64, hours: i64) -> Vec<RoomHour> {
    let first = from.div_euclid(3600);
    (first..first + hours)
        .filter_map(|h| {
            let wave = |days: f64, shift: f64| {
                (std::f64::consts::TAU * (h as f64 / 24.0 - shift) / days).cos()
            };
            // Warmest in late July and in the afternoon.
            let (year, day) = (wave(365.2425, 206.0), wave(1.0, 0.58));
            let passing = (wave(PASSING_DAYS[0], 1.0) + wave(PASSING_DAYS[1], 4.0)) / 2.0;
            let [mean, of_year, of_day, of_weather] = TEMPERATURES_C;
            let celsius = mean + of_year * year + of_day * day + of_weather * passing;
            let [damp, by_day, by_weather] = HUMIDITIES;
            let humidity = (damp - by_day * day + by_weather * passing).clamp(0.3, 1.0);
            let outside = Air::try_new(celsius, humidity, 0.15).ok()?;
            Some(RoomHour { at: h as f64 * 3600.0, outside })
        })
        .collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn it_says_the_same_of_an_hour_whenever_it_is_asked() {
        let ten_days = outside(1_800_000_000, 240);
        assert_eq!(ten_days.len(), 240, "no hour is out of range");
        assert_eq!(outside(1_800_000_000 + 36_000, 1)[0], ten_days[10]);
    }
}
