//! Where, when and on what the cup of a step will be laid.

use super::{Plan, coats_of};
use crate::picture::CoatFault;
use crate::studio::{CupPlace, Studio};
use crate::time::exact_instant;
use chrono::{DateTime, Utc};
use std::sync::Arc;

/// The place of the cup for step `i` of picture `p`: over what is laid at `now` when nothing is still to
/// be painted below it, else where the plan, asked for only then, has it.
///
/// # Errors
/// [`CoatFault`] when a coat below cannot be computed.
pub fn cup_place(
    studio: &Studio,
    plan: impl FnOnce() -> Arc<Plan>,
    (p, i): (usize, usize),
    now: DateTime<Utc>,
) -> Result<CupPlace, CoatFault> {
    let picture = &studio.pictures[p];
    let open = |n: &usize| picture.steps[*n].laid_at.is_none() && !picture.steps[*n].mix.is_empty();
    if !picture.all_below(i).iter().any(open) {
        return CupPlace::now(studio, p, Some(i), now);
    }
    let plan = plan();
    let begins = |p: usize, i: usize| {
        let planned = plan.steps.iter().find(|s| (s.picture, s.step) == (p, i));
        planned.and_then(|s| s.sittings.first()).map(|s| s.from)
    };
    let Some(at) = begins(p, i) else {
        return CupPlace::now(studio, p, Some(i), now);
    };
    let mut coats = coats_of(studio, p, &plan)?;
    coats.retain(|c| c.step != i && exact_instant(c.at) <= at);
    let all = plan.steps.iter().map(|s| (s.picture, s.step));
    let before = all.filter(|other| begins(other.0, other.1).is_some_and(|b| b < at)).collect();
    Ok(CupPlace { at, coats, before, step: Some(i) })
}
