//! What the JSON Schema of the studio document refuses beside shapes: numbers out of their range,
//! texts and lists that are too long, dates out of the table. Taken from the very ranges that the
//! reader checks with; what hangs on two fields at once only the reader can tell.

use super::studio::DAYS;
use serde_json::{Map, Value, json};
use ulvek_core::mix::{Drawdown, Material, Tint};
use ulvek_core::quantity::{
    Absorbency, AirChanges, AirSpeed, Celsius, Edge, Grams, GroundDelay, KeepsDays, LagHours,
    Latitude, Longitude, MOST_LETTERS, Millilitres, Minutes, Missed, Moisture, Pace, Parts, Range,
    RelativeHumidity, Share, Side, Warmth, Weight, WetFilm,
};
use ulvek_core::studio::check::{
    MOST_ASIDE, MOST_CHECKS, MOST_CLOSED, MOST_ENTRIES, MOST_HOURS, MOST_ORDERED, MOST_PICTURES,
    MOST_PIGMENTS, MOST_PLACES, MOST_READINGS, MOST_SEALED, MOST_STEPS, MOST_TESTS,
};

/// Where a number may lie, by the name of its field, which means one thing wherever it stands.
pub(crate) fn numbers() -> impl Iterator<Item = (&'static str, &'static Range)> {
    let named = NUMBERS.iter().flat_map(|(names, range)| names.iter().map(|name| (*name, *range)));
    named.chain(Material::NUMBERS.iter().map(|(name, range, _)| (*name, *range)))
}

/// Those that no part of the core lists itself.
const NUMBERS: &[(&[&str], &Range)] = &[
    (&["width_cm", "height_cm"], Side::RANGE),
    (&["weight"], Weight::RANGE),
    (&["absorbs_um"], Absorbency::RANGE),
    (&["delay_s"], GroundDelay::RANGE),
    (&["hands_on_min", "earliest_gap_min", "setup_min"], Minutes::RANGE),
    (&["wet_film_um"], WetFilm::RANGE),
    (&["parts"], Parts::RANGE),
    (&["keeps_days"], KeepsDays::RANGE),
    (&["edge_cm"], Edge::RANGE),
    (&["share_of_area", "loss", "solids", "water", "glycol", "spirit", "back"], Share::RANGE),
    (&["missed_sessions"], Missed::RANGE),
    (&["cup_g"], Grams::RANGE),
    (&["swatch_dry_um"], Drawdown::DRY),
    (&["white_parts"], Tint::PARTS),
    (&["temperature_c", "held_c"], Celsius::RANGE),
    (&["relative_humidity"], RelativeHumidity::RANGE),
    (&["air_speed_m_s"], AirSpeed::RANGE),
    (&["pace"], Pace::RANGE),
    (&["ml", "mixed_ml"], Millilitres::RANGE),
    (&["latitude_deg"], Latitude::RANGE),
    (&["longitude_deg"], Longitude::RANGE),
    (&["warmer_k"], Warmth::RANGE),
    (&["lag_h"], LagHours::RANGE),
    (&["changes_per_h"], AirChanges::RANGE),
    (&["moisture_g_m3_h"], Moisture::RANGE),
];

/// Fields that are one line of text.
const LINES: &[&str] = &["id", "name", "title", "section", "rule", "reason", "why"];

/// Lists by the name of their field, and the most they hold.
const LISTS: &[(&str, usize)] = &[
    ("pictures", MOST_PICTURES),
    ("steps", MOST_STEPS),
    ("hourly", MOST_READINGS),
    ("materials", MOST_ENTRIES),
    ("tubs", MOST_ENTRIES),
    ("ways", MOST_ENTRIES),
    ("pigments", MOST_PIGMENTS),
    ("hours", MOST_HOURS),
    ("closed", MOST_CLOSED),
    ("order", MOST_ORDERED),
    ("set_aside", MOST_ASIDE),
    ("checks", MOST_CHECKS),
    ("troubles", MOST_SEALED),
    ("anyway", MOST_SEALED),
    ("tests", MOST_TESTS),
    ("against", MOST_SEALED),
];

/// Days of the table of dates; of a moment only its year can be told by a pattern.
const DAY: &str = r"^20\d\d-\d\d-\d\d$";
/// Moments near the table: its ends are those of UTC, which an offset moves by hours.
const MOMENT: &str = r"^(1999-12-31|20\d\d-\d\d-\d\d|2100-01-01)T";
/// Hours of a day.
const CLOCK: &str = r"^(([01]?\d|2[0-3]):[0-5]?\d|24:00)$";
/// A line: not empty, and nothing in it that acts instead of being shown.
const LINE: &str =
    r"^(?=.*\S)[^\u0000-\u001f\u007f-\u009f\u2028\u2029\u202a-\u202e\u2066-\u2069]*$";
/// A colour.
const COLOUR: &str = "^#[0-9a-fA-F]{6}$";

/// Puts the bounds into `schema`.
pub(super) fn bound(schema: &mut Value) {
    if let Some(own) = schema.get_mut("properties").and_then(Value::as_object_mut) {
        bound_all("", own);
    }
    let Some(definitions) = schema.get_mut("$defs").and_then(Value::as_object_mut) else { return };
    for (name, definition) in definitions {
        if let Some(properties) = definition.get_mut("properties").and_then(Value::as_object_mut) {
            bound_all(name, properties);
        }
    }
}

fn bound_all(owner: &str, properties: &mut Map<String, Value>) {
    for (name, schema) in properties {
        let name = name.as_str();
        if let Some((_, range)) = numbers().find(|(field, _)| *field == name) {
            schema["minimum"] = json!(range.min);
            schema["maximum"] = json!(range.max);
        }
        if let Some((_, most)) = LISTS.iter().find(|(list, _)| *list == name) {
            schema["maxItems"] = json!(most);
        }
        if LINES.contains(&name) && schema["type"] != "object" {
            schema["maxLength"] = json!(MOST_LETTERS);
            schema["pattern"] = json!(LINE);
        }
        match schema["format"].as_str() {
            Some("date") => schema["pattern"] = json!(DAY),
            Some("date-time") => schema["pattern"] = json!(MOMENT),
            _ => {}
        }
        match (owner, name) {
            ("HourDoc", "day") => {
                schema["enum"] = json!(DAYS.map(|(word, _)| word));
            }
            ("HourDoc", "from" | "to") => schema["pattern"] = json!(CLOCK),
            (_, "swatch" | "over_white" | "over_black" | "colour") => {
                schema["pattern"] = json!(COLOUR)
            }
            (_, "flat_places") => schema["maximum"] = json!(MOST_PLACES),
            _ => {}
        }
    }
}
