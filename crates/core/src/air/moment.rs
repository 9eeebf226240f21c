//! The air at one moment, and what can be done to it.

use crate::quantity::{
    AirSpeed, Celsius, Checked, DamperBy, Fault, OutOfRange, Range, RelativeHumidity, WarmerBy,
};

/// The air at one moment. Made by [`Air::try_new`], so its numbers are inside their ranges.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Air {
    /// Temperature [C].
    pub celsius: f64,
    /// Relative humidity, fraction of 1.
    pub humidity: f64,
    /// Speed over the picture [m/s].
    pub speed_m_s: f64,
}

impl Air {
    /// Air at `celsius`, relative humidity `humidity` (fraction) and `speed_m_s`.
    ///
    /// # Errors
    /// [`OutOfRange`] naming the quantity that does not fit.
    ///
    /// ```
    /// use ulvek_core::air::Air;
    /// assert!(Air::try_new(21.0, 0.5, 0.15).is_ok());
    /// assert!(Air::try_new(21.0, 1.4, 0.15).is_err());
    /// ```
    pub fn try_new(celsius: f64, humidity: f64, speed_m_s: f64) -> Result<Self, OutOfRange> {
        Ok(Self {
            celsius: Celsius::try_new(celsius)?.get(),
            humidity: RelativeHumidity::try_new(humidity)?.get(),
            speed_m_s: AirSpeed::try_new(speed_m_s)?.get(),
        })
    }
}

/// Speeds of the air over a picture [m/s], with their words; docs/model/drying.md. [memory]
pub const SPEEDS: [(f64, &str); 4] =
    [(0.05, "Still room"), (0.15, "Ordinary room"), (0.5, "Breezy"), (1.0, "Fan")];
/// Air speed of an ordinary room [m/s]; docs/model/drying.md. [memory]
pub const ORDINARY_M_S: f64 = 0.15;

/// What is done to a room with a heater, a dehumidifier or a fan.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct RoomChange {
    /// How much warmer it is made [K].
    pub warmer_k: f64,
    /// How much damper, in relative humidity [-]; negative is drier.
    pub damper: f64,
    /// The least speed of the air over the pictures [m/s].
    pub least_speed_m_s: f64,
}

impl RoomChange {
    /// Holds that a room can be changed so.
    ///
    /// # Errors
    /// [`Fault`] naming the first number that is out of its range.
    ///
    /// ```
    /// use ulvek_core::air::RoomChange;
    /// let drier = RoomChange { damper: -0.1, ..RoomChange::default() };
    /// assert!(drier.check().is_ok());
    /// let wet = RoomChange { damper: 0.6, ..drier };
    /// assert_eq!(wet.check().unwrap_err().place, "damper");
    /// ```
    pub fn check(&self) -> Checked {
        let fits = |place: &str, range: &Range, value: f64| {
            range.check(value).map(|_| ()).map_err(|e| Fault::new(place, e))
        };
        fits("warmer_k", WarmerBy::RANGE, self.warmer_k)?;
        fits("damper", DamperBy::RANGE, self.damper)?;
        fits("least_speed_m_s", AirSpeed::RANGE, self.least_speed_m_s)
    }

    /// The air after it, within what can be.
    pub fn of(&self, air: &Air) -> Air {
        let (c, rh, speed) = (Celsius::RANGE, RelativeHumidity::RANGE, AirSpeed::RANGE);
        Air {
            celsius: (air.celsius + self.warmer_k).clamp(c.min, c.max),
            humidity: (air.humidity + self.damper).clamp(rh.min, rh.max),
            speed_m_s: air.speed_m_s.max(self.least_speed_m_s).clamp(speed.min, speed.max),
        }
    }
}
