//! `ulvek check`: what the rules say.

use serde_json::{Value, json};
use ulvek_core::rules::{Severity, check as find};
use ulvek_core::studio::StudioDocument;

/// Every rule's findings, and whether one of them is a stop.
pub fn check(document: &StudioDocument) -> (Value, bool) {
    let findings = find(document);
    let stop = findings.iter().any(|f| f.severity == Severity::Stop);
    let rows: Vec<Value> = findings
        .iter()
        .map(|f| {
            let picture = &document.pictures[f.picture];
            json!({
                "rule": f.rule,
                "severity": f.severity,
                "picture": picture.id,
                "step": picture.steps[f.step].id,
                "what": f.what,
                "do": f.remedy,
                "from": f.provenance,
            })
        })
        .collect();
    (json!({ "findings": rows }), stop)
}
