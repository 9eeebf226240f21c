//! Readings that a painter brings as CSV.

use super::moment::Moment;
use chrono::{DateTime, FixedOffset, NaiveDateTime, TimeDelta, TimeZone, Utc};
use chrono_tz::Tz;
use ulvek_core::air::Air;
use ulvek_core::quantity::{Checked, Fault};
use ulvek_core::studio::check::MOST_READINGS;
use ulvek_core::time::seconds;

/// Ways a local time may be written.
const TIMES: [&str; 4] =
    ["%Y-%m-%d %H:%M", "%Y-%m-%dT%H:%M", "%Y-%m-%d %H:%M:%S", "%Y-%m-%dT%H:%M:%S"];

/// Reads a table with the columns `at`, `temperature_c` and `relative_humidity` (a fraction of 1) or
/// `relative_humidity_percent`, separated by commas or semicolons. A time without an offset is that
/// of the studio's `zone`. The air speed, which no hygrometer knows, is `speed_m_s`.
///
/// # Errors
/// [`Fault`] naming the line.
pub fn read_readings(text: &str, zone: Tz, speed_m_s: f64) -> Checked<Vec<(f64, Air)>> {
    let text = text.trim_start_matches('\u{feff}');
    let head = text.lines().next().unwrap_or_default();
    let semicolons = head.matches(';').count() > head.matches(',').count();
    let mut reader = csv::ReaderBuilder::new()
        .delimiter(if semicolons { b';' } else { b',' })
        .trim(csv::Trim::All)
        .from_reader(text.as_bytes());
    let head: Vec<String> = match reader.headers() {
        Ok(head) => head.iter().map(str::to_lowercase).collect(),
        Err(_) => return Err(Fault::new("csv", "the first line cannot be read")),
    };
    let column = |name: &str| head.iter().position(|h| h == name);
    let need = |name: &str| {
        column(name).ok_or_else(|| {
            let reason =
                format!("line 1 has no column \"{name}\"; the first line names the columns");
            Fault::new("csv", reason)
        })
    };
    let (at, celsius) = (need("at")?, need("temperature_c")?);
    let (humidity, whole) = match column("relative_humidity_percent") {
        Some(column) => (column, 100.0),
        None => (need("relative_humidity")?, 1.0),
    };
    let mut found: Vec<(f64, Air)> = Vec::new();
    for (n, row) in reader.records().enumerate() {
        let line = n + 2;
        let refuse = |reason: String| Fault::new("csv", format!("line {line}: {reason}"));
        let row = row.map_err(|_| refuse("it has not as many columns as the first line".into()))?;
        if n >= MOST_READINGS {
            return Err(refuse(format!("at most {MOST_READINGS} rows are read")));
        }
        let text = |column: usize| row.get(column).unwrap_or_default();
        let number = |column: usize| {
            let said = text(column);
            // A comma for the decimal point can only be told where semicolons part the columns.
            let said = if semicolons { said.replace(',', ".") } else { said.to_owned() };
            let value = said.parse::<f64>();
            value.map_err(|_| refuse(format!("\"{}\" is not a number", text(column))))
        };
        let after = found.last().map(|(t, _)| *t);
        let when = moment(text(at), zone, after).map_err(refuse)?;
        let air = Air::try_new(number(celsius)?, number(humidity)? / whole, speed_m_s)
            .map_err(|e| refuse(e.to_string()))?;
        let when = seconds(when);
        if found.last().is_some_and(|(last, _)| *last >= when) {
            return Err(refuse("it is not later than the line before".into()));
        }
        found.push((when, air));
    }
    if found.is_empty() {
        return Err(Fault::new("csv", "there is no reading below the first line"));
    }
    Ok(found)
}

/// A time as a painter writes it; without an offset it is that of `zone`, after `after` [s] where the clock
/// turns back. Otherwise why it is none, in words.
pub(super) fn moment(text: &str, zone: Tz, after: Option<f64>) -> Result<DateTime<Utc>, String> {
    let read = written(text, zone, after)
        .ok_or_else(|| format!("\"{text}\" is not a time; write it as in 2027-01-15 17:00"))?;
    Moment::try_from(read).map(Moment::utc).map_err(|fault| format!("the time {fault}"))
}

fn written(text: &str, zone: Tz, after: Option<f64>) -> Option<DateTime<FixedOffset>> {
    if let Ok(at) = DateTime::parse_from_rfc3339(text) {
        return Some(at);
    }
    let local = TIMES.iter().find_map(|t| NaiveDateTime::parse_from_str(text, t).ok())?;
    // The hour that an autumn night has twice is the second one when the first would not be later
    // than the line before; the hour that a spring night leaves out is read an hour later.
    let twice = zone.from_local_datetime(&local);
    let later = |at: &DateTime<FixedOffset>| after.is_none_or(|last| seconds(at.to_utc()) > last);
    let fixed = |at: DateTime<Tz>| at.fixed_offset();
    match (twice.earliest().map(fixed), twice.latest().map(fixed)) {
        (Some(first), Some(second)) => Some(if later(&first) { first } else { second }),
        _ => zone.from_local_datetime(&(local + TimeDelta::hours(1))).earliest().map(fixed),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn read(text: &str) -> Result<Vec<(f64, Air)>, String> {
        read_readings(text, chrono_tz::Europe::Oslo, 0.15).map_err(|e| e.to_string())
    }

    #[test]
    fn commas_and_semicolons_fractions_and_percent_are_read_alike() {
        let comma = "at,temperature_c,relative_humidity\n2027-01-15 17:00,20.5,0.47\n";
        let semicolon =
            "\u{feff}at;temperature_c;relative_humidity_percent\n2027-01-15T16:00:00Z;20,5;47\n";
        let found = read(comma).unwrap();
        assert_eq!(found, read(semicolon).unwrap(), "17:00 in Oslo is 16:00 UTC in winter");
        assert_eq!(found[0].1.humidity, 0.47);
    }

    #[test]
    fn a_log_over_both_changes_of_clocks_is_read() {
        let head = "at,temperature_c,relative_humidity\n";
        // 26 October 2025: 02:00 to 03:00 comes twice in Oslo. [source: EU directive 2000/84/EC]
        let autumn = "2025-10-26 01:30,20,0.5\n2025-10-26 02:30,20,0.5\n2025-10-26 02:30,20,0.5\n\
                      2025-10-26 03:30,20,0.5\n";
        let found = read(&format!("{head}{autumn}")).unwrap();
        assert!(found.windows(2).all(|w| w[1].0 - w[0].0 == 3600.0), "{found:?}");
        // 29 March 2026: there is no 02:30. [source: as above]
        let spring = "2026-03-29 01:30,20,0.5\n2026-03-29 02:30,20,0.5\n2026-03-29 03:45,20,0.5\n";
        let found = read(&format!("{head}{spring}")).unwrap();
        assert_eq!(found[1].0 - found[0].0, 3600.0);
    }

    #[test]
    fn what_cannot_be_read_is_named_by_its_line() {
        let head = "at,temperature_c,relative_humidity\n";
        let said = |rows: &str| read(&format!("{head}{rows}")).unwrap_err();
        assert_eq!(
            said("soon,20,0.5"),
            "csv: line 2: \"soon\" is not a time; write it as in 2027-01-15 17:00"
        );
        assert_eq!(said("2027-01-15 17:00,warm,0.5"), "csv: line 2: \"warm\" is not a number");
        let percent = said("2027-01-15 17:00,20,47");
        assert_eq!(percent, "csv: line 2: relative humidity must be from 0 to 100 %, not 4700 %");
        let twice = said("2027-01-15 17:00,20,0.5\n2027-01-15 17:00,20,0.5");
        assert_eq!(twice, "csv: line 3: it is not later than the line before");
        assert!(read("time,t\n1,2").unwrap_err().contains("no column \"at\""));
    }
}
