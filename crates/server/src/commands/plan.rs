//! `ulvek plan`: when to do each step.

use super::at_second;
use crate::formats::why;
use chrono::{DateTime, FixedOffset, Utc};
use serde_json::{Value, json};
use ulvek_core::planner::{Plan, Request, plan as make_plan};
use ulvek_core::studio::StudioDocument;

/// Plans every step that is not laid, from `from` on.
///
/// The bound holds each picture as if it were alone: no plan of all of them can be better.
/// Odds are `null` until the drying of sampled futures is computed.
pub fn plan(document: &StudioDocument, from: DateTime<Utc>) -> Value {
    let made = make_plan(Request { document, from });
    let (mut late, mut sum) = (0.0, 0.0);
    for picture in &document.pictures {
        let alone = StudioDocument { pictures: vec![picture.clone()], ..document.clone() };
        let best = make_plan(Request { document: &alone, from }).objective;
        late += best.weighted_days_late;
        sum += best.sum_of_finish_min;
    }
    json!({
        "steps": steps(document, &made),
        "pictures": pictures(document, &made),
        "objective": {
            "weighted_days_late": made.objective.weighted_days_late,
            "sum_of_finish_min": made.objective.sum_of_finish_min,
            "set_ups": made.objective.set_ups,
        },
        "bound": { "weighted_days_late": late, "sum_of_finish_min": sum },
    })
}

fn steps(document: &StudioDocument, made: &Plan) -> Vec<Value> {
    let local = |at: DateTime<Utc>| -> DateTime<FixedOffset> {
        at_second(at.timestamp_millis() as f64 / 1e3, document)
    };
    made.steps
        .iter()
        .map(|planned| {
            let picture = &document.pictures[planned.picture];
            let sittings: Vec<Value> = planned
                .sittings
                .iter()
                .map(|s| json!({ "from": local(s.from), "to": local(s.to) }))
                .collect();
            let waits_for = planned.wait.as_ref().map(|wait| {
                json!({
                    "state": wait.state,
                    "of": picture.steps[wait.of].id,
                    "until": local(wait.until),
                    "lag_min": wait.lag_min.round(),
                    "because": why(wait, picture.steps[wait.of].title()),
                })
            });
            let mut row = json!({
                "picture": picture.id,
                "step": picture.steps[planned.step].id,
                "sittings": sittings,
                "waits_for": waits_for,
            });
            if let Some(blocked) = &planned.blocked {
                row["cannot_be_placed"] = json!(blocked.to_string());
            }
            row
        })
        .collect()
}

fn pictures(document: &StudioDocument, made: &Plan) -> Vec<Value> {
    made.pictures
        .iter()
        .map(|outcome| {
            let finish =
                outcome.finish.map(|at| at_second(at.timestamp_millis() as f64 / 1e3, document));
            json!({
                "id": document.pictures[outcome.picture].id,
                "finish": finish,
                "due": outcome.due,
                "days_late": outcome.days_late,
                "odds": null,
            })
        })
        .collect()
}
