//! Sunrise and sunset, for steps whose colour is judged by daylight.
//!
//! The equations of the NOAA solar calculator (Global Monitoring Laboratory, "Solar calculation
//! details"), after Meeus, Astronomical Algorithms, 1991. Good to a minute between the polar
//! circles and to ten where the sun only grazes the horizon; a flat horizon is assumed.

use crate::quantity::{Latitude, Longitude, OutOfRange};
use chrono::{Datelike, NaiveDate};

/// Zenith of the sun's centre when its rim is on the horizon [deg]; NOAA: refraction and half a disc.
const ZENITH_DEG: f64 = 90.833;
/// Days from the chronological Julian day's zero to 1 January of year 1 (day 1 of chrono) [d].
const JULIAN_DAY_OF_CE: f64 = 1_721_424.5;
/// Julian day of the epoch J2000.0 [d].
const J2000: f64 = 2_451_545.0;
/// Days in a Julian century [d].
const CENTURY: f64 = 36_525.0;

/// Where the studio stands.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Place {
    latitude: f64,
    longitude: f64,
}

impl Place {
    /// A place at `latitude` [deg, north positive] and `longitude` [deg, east positive].
    ///
    /// # Errors
    /// [`OutOfRange`] naming the one that does not fit.
    ///
    /// ```
    /// use ulvek_core::studio::daylight::Place;
    /// assert!(Place::try_new(60.4, 5.3).is_ok());
    /// assert!(Place::try_new(104.0, 5.3).is_err());
    /// ```
    pub fn try_new(latitude: f64, longitude: f64) -> Result<Self, OutOfRange> {
        Ok(Self {
            latitude: Latitude::try_new(latitude)?.get(),
            longitude: Longitude::try_new(longitude)?.get(),
        })
    }

    /// Latitude [deg, north positive].
    pub const fn latitude(self) -> f64 {
        self.latitude
    }

    /// Longitude [deg, east positive].
    pub const fn longitude(self) -> f64 {
        self.longitude
    }

    /// Sunrise and sunset of `day` [s of the epoch]. Where the sun does not rise both are the
    /// middle of the day, where it does not set they are a whole day apart.
    pub fn light_of(self, day: NaiveDate) -> (i64, i64) {
        let midnight = f64::from(day.num_days_from_ce()) + JULIAN_DAY_OF_CE;
        let midnight_s = (midnight - 2_440_587.5) * 86_400.0; // Julian day of 1970-01-01 [d]
        let noon_guess = 0.5 - self.longitude / 360.0;
        let at = |fraction: f64, side: f64| {
            let sun = Sun::at((midnight + fraction - J2000) / CENTURY);
            let hour_angle = self.hour_angle(sun.declination).to_degrees();
            let minutes =
                720.0 - 4.0 * (self.longitude - side * hour_angle) - sun.equation_of_time_min;
            minutes / 1440.0
        };
        // The sun moves on during the day: once more with the hour that came out.
        let event = |side: f64| at(at(noon_guess, side), side);
        let second = |fraction: f64| (midnight_s + fraction * 86_400.0).round() as i64;
        (second(event(-1.0)), second(event(1.0)))
    }

    /// Half the day's length as an angle [rad]: 0 in polar night, half a turn in polar day.
    fn hour_angle(self, declination: f64) -> f64 {
        let latitude = self.latitude.to_radians();
        let cos = ZENITH_DEG.to_radians().cos() / (latitude.cos() * declination.cos())
            - latitude.tan() * declination.tan();
        cos.clamp(-1.0, 1.0).acos()
    }
}

/// The sun as the equations need it.
struct Sun {
    /// [rad]
    declination: f64,
    /// Sundial less clock [min].
    equation_of_time_min: f64,
}

impl Sun {
    /// At `t` Julian centuries after J2000. Coefficients: NOAA solar calculator, after Meeus ch. 25
    /// and 28.
    fn at(t: f64) -> Self {
        let mean_longitude = (280.466_46 + t * (36_000.769_83 + t * 0.000_303_2)).rem_euclid(360.0);
        let anomaly = (357.529_11 + t * (35_999.050_29 - 0.000_153_7 * t)).to_radians();
        let eccentricity = 0.016_708_634 - t * (0.000_042_037 + 0.000_000_126_7 * t);
        let centre = anomaly.sin() * (1.914_602 - t * (0.004_817 + 0.000_014 * t))
            + (2.0 * anomaly).sin() * (0.019_993 - 0.000_101 * t)
            + (3.0 * anomaly).sin() * 0.000_289;
        let node = (125.04 - 1934.136 * t).to_radians();
        let apparent = (mean_longitude + centre - 0.005_69 - 0.004_78 * node.sin()).to_radians();
        let seconds = 21.448 - t * (46.815 + t * (0.000_59 - t * 0.001_813));
        let obliquity =
            (23.0 + (26.0 + seconds / 60.0) / 60.0 + 0.002_56 * node.cos()).to_radians();
        let y = (obliquity / 2.0).tan().powi(2);
        let l = mean_longitude.to_radians();
        let equation = y * (2.0 * l).sin() - 2.0 * eccentricity * anomaly.sin()
            + 4.0 * eccentricity * y * anomaly.sin() * (2.0 * l).cos()
            - 0.5 * y * y * (4.0 * l).sin()
            - 1.25 * eccentricity * eccentricity * (2.0 * anomaly).sin();
        Self {
            declination: (obliquity.sin() * apparent.sin()).asin(),
            equation_of_time_min: 4.0 * equation.to_degrees(),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn sunrise_and_sunset_are_those_of_a_general_astronomy_library() {
        // PyEphem 4.2 (PyPI; VSOP87), scripts/reference_daylight.py: both to the minute.
        let table = include_str!("../../testdata/daylight.csv");
        let mut rows = 0;
        for line in table.lines().filter(|l| !l.starts_with(['#', 'l'])) {
            let cells: Vec<&str> = line.split(',').collect();
            let place =
                Place::try_new(cells[0].parse().unwrap(), cells[1].parse().unwrap()).unwrap();
            let (rise, fall) = place.light_of(cells[2].parse().unwrap());
            for (ours, theirs) in [(rise, cells[3]), (fall, cells[4])] {
                let theirs: i64 = theirs.parse().unwrap();
                assert!((ours - theirs).abs() <= 90, "{line}: {ours} beside {theirs}");
            }
            rows += 1;
        }
        assert!(rows >= 30);
    }

    #[test]
    fn polar_night_has_no_light_and_polar_day_is_whole() {
        let place = Place::try_new(78.2, 15.6).unwrap();
        let day = |m, d| NaiveDate::from_ymd_opt(2027, m, d).unwrap();
        let (rise, fall) = place.light_of(day(12, 21));
        assert!((fall - rise).abs() < 60);
        let (rise, fall) = place.light_of(day(6, 21));
        assert!((fall - rise - 86_400).abs() < 120);
    }
}
