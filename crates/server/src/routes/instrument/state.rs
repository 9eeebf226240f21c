//! How the instruments of a studio are, in words.

use super::wire::{InstrumentOut, MeasuredOut};
use crate::instruments::Behaviour;
use chrono::{DateTime, Utc};
use chrono_tz::Tz;
use ulvek_core::air::{Doubt, InstrumentKind, Measured, doubts, off_by};
use ulvek_core::time::{HOUR_S, exact_instant};
use ulvek_store::Instrument;

/// Moments of the last days, in the studio's zone.
const WHEN: &str = "%-d %B %H:%M";

/// An instrument with what it `measured` in the last days, beside what the painter `typed` then.
pub(super) fn told(
    instrument: Instrument,
    measured: &[Measured],
    typed: &[Measured],
    (now, zone): (DateTime<Utc>, Tz),
) -> InstrumentOut {
    let mut faults = Vec::new();
    let when = |at: DateTime<Utc>| at.with_timezone(&zone).format(WHEN).to_string();
    match instrument.heard_at {
        None => faults.push("Nothing was heard of it yet.".to_owned()),
        Some(heard) if instrument.kind.is_silent(Some(heard), now) => {
            faults.push(match instrument.kind {
                InstrumentKind::Hygrometer => format!(
                    "Nothing was heard of it since {}: after that hour the room counts as it is \
                     usually kept or foreseen.",
                    when(heard)
                ),
                _ => format!("Nothing was heard of it since {}.", when(heard)),
            });
        }
        Some(_) => {}
    }
    let judged = doubts(measured);
    if let (Some(Some(Doubt::Stuck)), Some(last)) = (judged.last(), measured.last()) {
        let run = measured
            .iter()
            .rev()
            .take_while(|m| m.celsius == last.celsius && m.humidity == last.humidity);
        let since = run.last().map_or(last.at, |m| m.at);
        faults.push(format!(
            "It has sent the same since {}: it seems to be stuck, and nothing of that counts.",
            when(exact_instant(since))
        ));
    }
    let jumps = judged.iter().filter(|d| **d == Some(Doubt::Jump)).count();
    if jumps > 0 {
        let (are, stand) = if jumps == 1 { ("reading", "stands") } else { ("readings", "stand") };
        faults.push(format!(
            "{jumps} {are} of the last two days {stand} alone, far from those around, and {} left out.",
            if jumps == 1 { "is" } else { "are" }
        ));
    }
    let off = typed.iter().rev().find_map(|t| Some((off_by(measured, t)?, t)));
    if let Some(((warmer, damper), typed)) = off {
        let than = |by: f64, unit: &str, more: &str, less: &str| {
            format!("{:.1} {unit} {}", by.abs(), if by > 0.0 { more } else { less })
        };
        faults.push(format!(
            "It says {} and {} than what you read {}: one of the two is off.",
            than(warmer, "K", "warmer", "colder"),
            than(damper * 100.0, "%", "damper", "drier"),
            when(exact_instant(typed.at))
        ));
    }
    if let Some((why, at)) = &instrument.refused
        && (now - *at).num_seconds() as f64 <= 24.0 * HOUR_S
    {
        faults.push(format!("Something it sent {} was not taken: {why}.", when(*at)));
    }
    InstrumentOut {
        id: instrument.id,
        kind: instrument.kind,
        name: instrument.name,
        heard_at: instrument.heard_at,
        last: measured.last().map(MeasuredOut::from),
        behaves: instrument.simulated.and_then(|(how, _)| Behaviour::from_word(&how)),
        faults,
    }
}
