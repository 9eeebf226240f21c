//! Where, when and on what the cup of a step will be laid.

use super::{Plan, coats_of};
use crate::picture::CoatFault;
use crate::studio::{CupPlace, Studio};
use crate::time::exact_instant;
use chrono::{DateTime, Utc};
use std::sync::Arc;

/// The place of the cup for step `i` of picture `p`. With nothing still to be painted below it, that is
/// over what is laid, as soon as the law allows it; else where `plan`, asked for only where the step is
/// still to do, has it.
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
    let here = CupPlace::now(studio, p, Some(i), now)?;
    if picture.steps[i].laid_at.is_some() {
        return Ok(here);
    }
    let plan = plan();
    let of = |at: (usize, usize)| plan.steps.iter().find(|s| (s.picture, s.step) == at);
    let Some(planned) = of((p, i)).filter(|s| !s.sittings.is_empty()) else { return Ok(here) };
    let because = planned.wait.as_ref().map(|wait| (wait.until, wait.said(picture)));
    let open = |n: &usize| picture.steps[*n].laid_at.is_none() && !picture.steps[*n].mix.is_empty();
    let begins = |at: (usize, usize)| of(at).and_then(|s| s.sittings.first()).map(|s| s.from);
    let Some(at) = begins((p, i)) else { return Ok(here) };
    let all = plan.steps.iter().map(|s| (s.picture, s.step));
    let before = all.filter(|other| begins(*other).is_some_and(|b| b < at)).collect();
    if !picture.all_below(i).iter().any(open) {
        // Its hours may be later; what it does is told of the moment it is ready for.
        let ready = because.as_ref().map_or(now, |(until, _)| (*until).max(now));
        let because = because.filter(|(until, _)| *until > now).map(|(_, said)| said);
        return Ok(CupPlace { at: ready, because, before, ..here });
    }
    let mut coats = coats_of(studio, p, &plan)?;
    coats.retain(|c| c.step != i && exact_instant(c.at) <= at);
    Ok(CupPlace { at, coats, before, because: because.map(|(_, said)| said), ..here })
}
