//! The gate of a sealing coat that is said to have been laid.

use super::gate::gate;
use crate::picture::CoatFault;
use crate::planner::{Request, plan};
use crate::studio::Studio;
use chrono::{DateTime, Utc};

/// What did not hold when sealing coat `i` of picture `p` was laid at `at`, in words; nothing when
/// the gate was open. `photographs` are the times at which pictures of it were taken.
///
/// # Errors
/// [`CoatFault`] when a coat of the studio cannot be computed.
pub fn against(
    studio: &Studio,
    (p, i): (usize, usize),
    photographs: &[DateTime<Utc>],
    at: DateTime<Utc>,
) -> Result<Vec<String>, CoatFault> {
    let mut before = studio.clone();
    // What was laid later did not lie there then.
    for step in &mut before.pictures[p].steps {
        step.laid_at = step.laid_at.filter(|laid| *laid <= at);
    }
    before.pictures[p].steps[i].laid_at = None;
    let made = plan(Request { studio: &before, from: at });
    let found = gate(&before, p, (&made, photographs), at)?;
    if found.step != Some(i) {
        return Ok(vec!["a sealing coat that comes before it is not laid yet".into()]);
    }
    Ok(found.against().map(|c| c.id.lacks().to_owned()).collect())
}

/// Why a gate is closed, and what it takes to go on.
pub fn closed_gate(against: &[String]) -> String {
    format!("the gate is closed: {}; to seal it anyway, say why", against.join("; "))
}
