//! The table of allowed ranges: spoken name, unit, lowest, highest, source.

use thiserror::Error;

/// One row of the table: what a number is called, its unit and where it may lie.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Range {
    /// Spoken name, as it stands in a message.
    pub name: &'static str,
    /// Unit as spoken; numbers are multiplied by [`Range::spoken`] before they are said.
    pub unit: &'static str,
    /// Lowest allowed value, in the unit of storage.
    pub min: f64,
    /// Highest allowed value, in the unit of storage.
    pub max: f64,
    /// Factor from storage to the spoken unit: 100 for shares said in percent, else 1.
    pub spoken: f64,
    /// Where the limits come from.
    pub source: &'static str,
}

/// A number that lies outside its range.
#[derive(Debug, Clone, PartialEq, Error)]
#[error("{}", self.sentence())]
pub struct OutOfRange {
    /// The range that was missed.
    pub range: Range,
    /// The number that was given, in the unit of storage.
    pub value: f64,
}

impl OutOfRange {
    fn sentence(&self) -> String {
        let Range { name, unit, min, max, spoken, .. } = self.range;
        let unit = if unit.is_empty() { String::new() } else { format!(" {unit}") };
        if !self.value.is_finite() {
            return format!("{name} must be a number");
        }
        format!(
            "{name} must be from {} to {}{unit}, not {}{unit}",
            plain(min * spoken),
            plain(max * spoken),
            plain(self.value * spoken)
        )
    }
}

/// Writes a number without the noise of binary fractions.
fn plain(value: f64) -> String {
    let rounded = (value * 1e6).round() / 1e6;
    format!("{rounded}")
}

impl Range {
    /// Returns `value` when it is finite and inside the range.
    ///
    /// # Errors
    /// [`OutOfRange`] otherwise.
    pub fn check(&self, value: f64) -> Result<f64, OutOfRange> {
        if value.is_finite() && value >= self.min && value <= self.max {
            Ok(value)
        } else {
            Err(OutOfRange { range: *self, value })
        }
    }
}

const fn row(
    name: &'static str,
    unit: &'static str,
    limits: (f64, f64),
    spoken: f64,
    source: &'static str,
) -> Range {
    Range { name, unit, min: limits.0, max: limits.1, spoken, source }
}

pub(super) const WET_FILM: Range =
    row("wet film thickness", "µm", (1.0, 5000.0), 1.0, "[practice]");
pub(super) const KEEPS: Range =
    row("days it keeps", "days", (0.0, 3650.0), 1.0, "[practice] ten years");
pub(super) const EDGE: Range =
    row("depth of the edge", "cm", (0.0, 10.0), 1.0, "[practice] the deepest stretcher");
pub(super) const TEMPERATURE: Range =
    row("temperature", "°C", (-10.0, 50.0), 1.0, "[practice] a room one can work in, with margin");
pub(super) const HUMIDITY: Range = row("relative humidity", "%", (0.0, 1.0), 100.0, "definition");
pub(super) const AIR_SPEED: Range =
    row("air speed", "m/s", (0.0, 10.0), 1.0, "[practice] still room to strong fan");
pub(super) const WARMER_BY: Range = row(
    "change of temperature",
    "K",
    (-30.0, 30.0),
    1.0,
    "[practice] a heater or a cooler, from a cellar in winter",
);
pub(super) const DAMPER_BY: Range = row(
    "change of humidity",
    "%",
    (-0.7, 0.4),
    100.0,
    "[practice] what a dehumidifier takes out, what a humidifier gives",
);
pub(super) const SHARE: Range = row("share", "%", (0.0, 1.0), 100.0, "definition");
pub(super) const SURE: Range = row(
    "how sure",
    "of 100",
    (0.5, 0.99),
    100.0,
    "docs/model/drying.md: brisk hands 50, careful ones 95",
);
pub(super) const MISSED: Range = row(
    "share of the sessions that do not happen",
    "%",
    (0.0, 0.9),
    100.0,
    "[practice] with fewer than one in ten there is nothing to plan",
);
pub(super) const PARTS: Range = row("parts", "", (0.0, 1_000_000.0), 1.0, "[practice]");
pub(super) const SIDE: Range = row("side", "cm", (1.0, 1000.0), 1.0, "[practice]");
pub(super) const MINUTES: Range = row("minutes", "min", (0.0, 525_600.0), 1.0, "one year");
pub(super) const ABSORBENCY: Range =
    row("what the ground absorbs", "µm of water", (0.0, 1000.0), 1.0, "[practice]");
pub(super) const GROUND_DELAY: Range =
    row("delay of the ground", "s", (1.0, 100_000.0), 1.0, "[practice] at once to a day");
pub(super) const DENSITY: Range =
    row("density", "g/ml", (0.5, 5.0), 1.0, "[practice] solvents to heavy pigment pastes");
pub(super) const PACE: Range =
    row("pace", "", (0.1, 10.0), 1.0, "[practice] ten times either way is a fault of the reading");
pub(super) const MILLILITRES: Range =
    row("volume", "ml", (0.0, 100_000.0), 1.0, "[practice] up to a drum");
pub(super) const GRAMS: Range =
    row("weight on the scale", "g", (0.0, 10_000.0), 1.0, "[practice] a bench scale");
pub(super) const WEIGHT: Range = row("weight", "", (0.01, 1000.0), 1.0, "[practice]");
pub(super) const LATITUDE: Range = row("latitude", "°", (-90.0, 90.0), 1.0, "definition");
pub(super) const LONGITUDE: Range = row("longitude", "°", (-180.0, 180.0), 1.0, "definition");
pub(super) const WARMTH: Range = row(
    "warmth above the outside",
    "K",
    (-10.0, 30.0),
    1.0,
    "[practice] a cellar to a glass house",
);
pub(super) const LAG: Range =
    row("lag of the room", "h", (0.1, 240.0), 1.0, "[practice] a tent to a thick-walled vault");
pub(super) const AIR_CHANGES: Range =
    row("air changes", "per hour", (0.05, 20.0), 1.0, "[practice] a sealed room to open windows");
pub(super) const MOISTURE: Range =
    row("water given off", "g/(m³ h)", (0.0, 50.0), 1.0, "[practice] an empty room to a laundry");

/// Every range, so that the application can show limits beside its fields.
pub const RANGES: &[Range] = &[
    WET_FILM,
    KEEPS,
    EDGE,
    TEMPERATURE,
    HUMIDITY,
    WARMER_BY,
    DAMPER_BY,
    AIR_SPEED,
    SHARE,
    SURE,
    MISSED,
    PARTS,
    SIDE,
    MINUTES,
    ABSORBENCY,
    GROUND_DELAY,
    DENSITY,
    WEIGHT,
    PACE,
    MILLILITRES,
    GRAMS,
    LATITUDE,
    LONGITUDE,
    WARMTH,
    LAG,
    AIR_CHANGES,
    MOISTURE,
];

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_message_says_name_limits_and_the_number_given() {
        let said = HUMIDITY.check(1.4).map_err(|e| e.to_string());
        assert_eq!(said, Err("relative humidity must be from 0 to 100 %, not 140 %".into()));
        let said = WET_FILM.check(-3.0).map_err(|e| e.to_string());
        assert_eq!(said, Err("wet film thickness must be from 1 to 5000 µm, not -3 µm".into()));
        assert!(TEMPERATURE.check(f64::NAN).is_err());
    }
}
