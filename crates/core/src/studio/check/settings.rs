//! Settings and air.

use super::{
    MOST_CLOSED, MOST_HOURS, MOST_ORDERED, MOST_PLACES, MOST_READINGS, day, each, moment_if,
    number, number_if,
};
use crate::air::Air;
use crate::quantity::{
    AirChanges, AirSpeed, Celsius, Checked, Fault, LagHours, Minutes, Missed, Moisture,
    RelativeHumidity, Warmth, at_most, check_line, check_moment,
};
use crate::studio::Studio;
use crate::time::exact_instant;

impl Studio {
    /// Holds that its hours, places and schools may be.
    ///
    /// # Errors
    /// [`Fault`] of the first place that does not fit.
    pub fn check_settings(&self) -> Checked {
        check_line("studio.name", &self.name)?;
        at_most("studio.hours", self.hours.weekly().len(), MOST_HOURS, "hours")?;
        let closed = self.hours.closed();
        at_most("studio.closed", closed.len(), MOST_CLOSED, "closed times")?;
        each("studio.closed", closed, |c| day("from", c.from).and_then(|()| day("to", c.to)))?;
        if self.flat_places > MOST_PLACES {
            let why = format!("must be from 0 to {MOST_PLACES}, not {}", self.flat_places);
            return Err(Fault::new("studio.flat_places", why));
        }
        number("studio.setup_min", Minutes::RANGE, self.setup_min)?;
        number("studio.missed_sessions", Missed::RANGE, self.missed_sessions)?;
        at_most("studio.order", self.order.len(), MOST_ORDERED, "entries")
    }

    /// Holds that its air, and how it is looked ahead at, may be.
    ///
    /// # Errors
    /// [`Fault`] of the first place that does not fit.
    pub fn check_air(&self) -> Checked {
        check_reading(self.air.usual()).map_err(|fault| fault.within("air"))?;
        let readings = self.air.readings();
        at_most("air.hourly", readings.len(), MOST_READINGS, "readings")?;
        each("air.hourly", readings, |(t, air)| {
            check_moment(exact_instant(*t)).map_err(|e| Fault::new("at", e))?;
            check_reading(air)
        })?;
        moment_if("air.ahead.taken_at", self.room.taken_at)?;
        let room = &self.room.follows;
        number_if("air.ahead.room.held_c", Celsius::RANGE, room.held_c)?;
        number("air.ahead.room.warmer_k", Warmth::RANGE, room.warmer_k)?;
        number("air.ahead.room.lag_h", LagHours::RANGE, room.lag_h)?;
        number("air.ahead.room.changes_per_h", AirChanges::RANGE, room.changes_per_h)?;
        number("air.ahead.room.moisture_g_m3_h", Moisture::RANGE, room.moisture_g_m3_h)
    }
}

fn check_reading(air: &Air) -> Checked {
    number("temperature_c", Celsius::RANGE, air.celsius)?;
    number("relative_humidity", RelativeHumidity::RANGE, air.humidity)?;
    number("air_speed_m_s", AirSpeed::RANGE, air.speed_m_s)
}
