//! A room that follows the air outside.
//!
//! Two first-order balances, each with its closed solution over an hour of steady outside air:
//!
//! - heat: `dT/dt = (T_out + warmer - T) / tau`, held at `held_c` from below where the room is
//!   heated: a thermostat only adds heat;
//! - water: `dc/dt = n (c_out - c) + source`, the vapour balance of a ventilated room of one zone
//!   (any text on building physics, e.g. the ASHRAE Handbook of Fundamentals, ch. 25).
//!
//! It gives up where air meets cold walls: nothing condenses in it but on the way to 100 %. A room
//! that one keeps with a humidifier or dehumidifier is better said to be constant.

use super::moment::Air;
use super::psychrometrics::vapour_concentration_kg_m3;
use crate::time::HOUR_S;

/// How a room follows the outside.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Room {
    /// Temperature it is heated to [C]; `None` when it is not heated.
    pub held_c: Option<f64>,
    /// Warmth by sun, people and lamps above the outside when not heated [K].
    pub warmer_k: f64,
    /// How slowly its temperature follows [h].
    pub lag_h: f64,
    /// Air changed with the outside [1/h].
    pub changes_per_h: f64,
    /// Water given off in it by people, plants and wet work [g/(m3 h)].
    pub moisture_g_m3_h: f64,
}

impl Default for Room {
    /// A heated room with old windows.
    fn default() -> Self {
        Self {
            held_c: Some(20.5),   // [memory] an ordinary heated room
            warmer_k: 3.0,        // [memory]
            lag_h: 12.0,          // [memory] masonry; a light hut follows in 2-4 h
            changes_per_h: 0.5,   // [memory] closed windows of an old house
            moisture_g_m3_h: 1.2, // [memory] one person at work in about 50 m3
        }
    }
}

/// One hour outside.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct RoomHour {
    /// When it begins [s].
    pub at: f64,
    /// Outside air; its speed is not used.
    pub outside: Air,
}

/// Dampest the room is taken to get [-]: beyond, water runs down the windows. [practice]
const DAMPEST: f64 = 0.98;

impl Room {
    /// The room's air at the begin of each of `hours` (in order of time), starting from `now`, with
    /// the air speed of `now` throughout.
    pub fn follow(&self, now: Air, hours: &[RoomHour]) -> Vec<(f64, Air)> {
        let mut celsius = now.celsius;
        let mut water = now.humidity * vapour_concentration_kg_m3(now.celsius);
        let mut found = Vec::with_capacity(hours.len());
        let mut last = hours.first().map_or(0.0, |h| h.at);
        for hour in hours {
            let passed_h = (hour.at - last) / HOUR_S;
            last = hour.at;
            let outside = hour.outside;
            let outside_water = outside.humidity * vapour_concentration_kg_m3(outside.celsius);
            celsius = towards(celsius, outside.celsius + self.warmer_k, passed_h / self.lag_h);
            celsius = self.held_c.map_or(celsius, |held| celsius.max(held));
            let rest = outside_water + self.moisture_g_m3_h / 1000.0 / self.changes_per_h;
            water = towards(water, rest, passed_h * self.changes_per_h);
            let full = vapour_concentration_kg_m3(celsius);
            water = water.min(DAMPEST * full);
            let humidity = (water / full).min(DAMPEST);
            found.push((hour.at, Air { celsius, humidity, ..now }));
        }
        found
    }
}

/// Closed solution of `dx/dt = (rest - x) / tau` after `t / tau`.
fn towards(x: f64, rest: f64, time_constants: f64) -> f64 {
    rest + (x - rest) * (-time_constants).exp()
}

#[cfg(test)]
mod tests {
    use super::*;

    fn steady(outside: Air, hours: usize) -> Vec<RoomHour> {
        (0..=hours).map(|h| RoomHour { at: h as f64 * 3600.0, outside }).collect()
    }

    #[test]
    fn after_one_time_constant_63_percent_of_a_step_is_done() {
        // First-order step response: 1 - 1/e = 0.6321 after one time constant.
        let room = Room { held_c: None, warmer_k: 0.0, lag_h: 10.0, ..Room::default() };
        let now = Air::try_new(10.0, 0.5, 0.15).unwrap();
        let outside = Air::try_new(20.0, 0.5, 0.15).unwrap();
        let found = room.follow(now, &steady(outside, 10));
        assert!((found[10].1.celsius - 16.321).abs() < 1e-3, "{}", found[10].1.celsius);
    }

    #[test]
    fn winter_air_warmed_is_dry_and_what_is_given_off_raises_it() {
        // Air at 0 C and 100 % holds 4.85 g/m3, at 20 C 17.3 g/m3 when full (steam tables): 28 %.
        let outside = Air::try_new(0.0, 1.0, 0.15).unwrap();
        let now = Air::try_new(20.0, 0.6, 0.15).unwrap();
        let still = Room { held_c: Some(20.0), moisture_g_m3_h: 0.0, ..Room::default() };
        let dry = still.follow(now, &steady(outside, 48)).pop().unwrap().1;
        assert!((dry.humidity - 0.28).abs() < 0.005, "{}", dry.humidity);
        assert!((dry.celsius - 20.0).abs() < 1e-9, "the thermostat holds it");
        // In balance n (c - c_out) = source: 1 g/(m3 h) at 0.5 changes raises it by 2 g/m3.
        let lived_in = Room { moisture_g_m3_h: 1.0, ..still };
        let damp = lived_in.follow(now, &steady(outside, 48)).pop().unwrap().1;
        let full = vapour_concentration_kg_m3(20.0);
        assert!(((damp.humidity - dry.humidity) * full * 1000.0 - 2.0).abs() < 1e-6);
    }

    /// A hundred hours of an outside that swings by day, and jumps once.
    fn weather(mean: f64, swing: f64, humidity: f64) -> Vec<RoomHour> {
        (0..100)
            .map(|h| {
                let day = (std::f64::consts::TAU * f64::from(h) / 24.0).sin();
                let jump = if h > 50 { -4.0 } else { 0.0 };
                let outside = Air::try_new(mean + swing * day + jump, humidity, 0.15).unwrap();
                RoomHour { at: f64::from(h) * 3600.0, outside }
            })
            .collect()
    }

    #[test]
    fn a_room_never_leaves_the_range_of_what_drives_it() {
        let now = Air::try_new(14.0, 0.6, 0.15).unwrap();
        for lag_h in [1.0, 6.0, 48.0] {
            let room = Room { held_c: None, lag_h, ..Room::default() };
            let hours = weather(8.0, 5.0, 0.8);
            let drives = hours.iter().map(|h| h.outside.celsius + room.warmer_k);
            let low = drives.clone().fold(now.celsius, f64::min);
            let high = drives.fold(now.celsius, f64::max);
            for (_, air) in room.follow(now, &hours) {
                assert!((low..=high).contains(&air.celsius), "{lag_h} h: {}", air.celsius);
                assert!((0.0..=DAMPEST).contains(&air.humidity));
                assert_eq!(air.speed_m_s.to_bits(), now.speed_m_s.to_bits());
            }
        }
    }

    #[test]
    fn thick_walls_damp_the_swing_of_the_day_as_a_first_order_lag_does() {
        // Amplitude of a first-order lag: 1 / sqrt(1 + (omega tau)^2); omega = 2 pi / 24 h.
        let now = Air::try_new(13.0, 0.5, 0.15).unwrap();
        let swing = |lag_h: f64| {
            let room = Room { held_c: None, warmer_k: 3.0, lag_h, ..Room::default() };
            let hours: Vec<RoomHour> = weather(10.0, 6.0, 0.6).into_iter().take(50).collect();
            let line = room.follow(now, &hours);
            let day = &line[25..49];
            let most = day.iter().map(|(_, a)| a.celsius).fold(f64::MIN, f64::max);
            let least = day.iter().map(|(_, a)| a.celsius).fold(f64::MAX, f64::min);
            (most - least) / 2.0
        };
        for lag_h in [2.0, 6.0] {
            let omega_tau = std::f64::consts::TAU / 24.0 * lag_h;
            let expected = 6.0 / (1.0 + omega_tau * omega_tau).sqrt();
            let found = swing(lag_h);
            // Hours in steps, and the tail of the beginning: a tenth.
            assert!((found / expected - 1.0).abs() < 0.1, "{lag_h} h: {found} against {expected}");
        }
    }
}
