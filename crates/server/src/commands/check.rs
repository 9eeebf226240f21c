//! `ulvek check`: what the rules say.

use chrono::{DateTime, Utc};
use serde_json::{Value, json};
use ulvek_core::picture::CoatFault;
use ulvek_core::rules::{Severity, check as find};
use ulvek_core::studio::Studio;

/// Every rule's findings at the moment `now`, and whether one of them is a stop that was not set
/// aside.
///
/// # Errors
/// [`CoatFault`] when a coat of the studio cannot be computed.
pub fn check(studio: &Studio, now: DateTime<Utc>) -> Result<(Value, bool), CoatFault> {
    let findings = find(studio, now)?;
    let stop = findings.iter().any(|f| f.severity == Severity::Stop && f.set_aside.is_none());
    let rows: Vec<Value> = findings
        .iter()
        .map(|f| {
            let picture = &studio.pictures[f.picture];
            json!({
                "rule": f.rule,
                "severity": f.severity,
                "picture": picture.id,
                "step": picture.steps[f.step].id,
                "what": f.what,
                "do": f.remedy,
                "from": f.provenance,
                "set_aside": f.set_aside.as_ref().map(|a| &a.reason),
            })
        })
        .collect();
    Ok((json!({ "findings": rows }), stop))
}
