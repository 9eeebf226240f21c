//! What to prepare: the humidifier before long wet work, a photograph that must be taken before gloss. A
//! tub that is past its days is a rule's to say.

use crate::planner::{Plan, PlannedStep, wet_session};
use crate::seal::photograph_due;
use crate::studio::Studio;
use chrono::{DateTime, Duration, Utc};

/// How far ahead is prepared [h]: an evening and the next one. [practice]
const AHEAD_H: i64 = 30;
/// How far ahead a photograph is asked for [days]: it wants daylight. [practice]
const PHOTOGRAPH_DAYS: i64 = 3;

/// Something to prepare.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Preparation {
    /// By when.
    pub by: DateTime<Utc>,
    /// Index of the picture it is for.
    pub picture: usize,
    /// What to do, as a sentence.
    pub said: String,
}

/// What is to be prepared at `now` for what `plan` has in the coming hours, the first first.
/// `photographs` says when each picture was photographed.
pub fn preparations(
    studio: &Studio,
    plan: &Plan,
    photographs: &[Vec<DateTime<Utc>>],
    now: DateTime<Utc>,
) -> Vec<Preparation> {
    let soon = |planned: &&PlannedStep, ahead: Duration| {
        planned.sittings.first().is_some_and(|s| s.from > now && s.from <= now + ahead)
    };
    let ahead = Duration::hours(AHEAD_H);
    let mut found: Vec<Preparation> = plan
        .steps
        .iter()
        .filter(|planned| soon(planned, ahead))
        .flat_map(|planned| humidifier(studio, plan, planned, now))
        .collect();
    found.extend(
        plan.steps.iter().filter(|s| soon(s, Duration::days(PHOTOGRAPH_DAYS))).filter_map(
            |planned| {
                let picture = &studio.pictures[planned.picture];
                let taken = photographs.get(planned.picture).map_or(&[][..], Vec::as_slice);
                let due = photograph_due(picture, taken, now)? == planned.step;
                due.then(|| Preparation {
                    by: planned.sittings[0].from,
                    picture: planned.picture,
                    said: format!(
                        "Photograph it before {}: varnish glares",
                        picture.steps[planned.step].called()
                    ),
                })
            },
        ),
    );
    found.sort_by_key(|p| (p.by, p.picture));
    found
}

/// The humidifier before a long wet session in dry air, as long as there is time for it.
fn humidifier(
    studio: &Studio,
    plan: &Plan,
    planned: &PlannedStep,
    now: DateTime<Utc>,
) -> Option<Preparation> {
    let wet = wet_session(studio, plan, planned)?;
    let step = &studio.pictures[planned.picture].steps[planned.step];
    Some(Preparation {
        by: wet.humidifier_on.max(now),
        picture: planned.picture,
        said: format!(
            "Switch the humidifier on: {} is {:.0} min of wet work in dry air",
            step.called(),
            step.hands_on_min
        ),
    })
}
