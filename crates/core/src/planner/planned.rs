//! What was planned before something was done.

use super::Desk;
use crate::studio::Studio;
use chrono::{DateTime, Utc};
use std::sync::Arc;

/// When step `i` of picture `p` was to be done by the plan that its painter saw before it was done at `at`:
/// as it stood when anything of the studio was last done or changed. `studio` is as it was before the step was
/// entered, and `changed` the last change of it that was not a coat. None without such a plan.
pub fn as_planned(
    studio: &Studio,
    (p, i): (usize, usize),
    at: DateTime<Utc>,
    changed: Option<DateTime<Utc>>,
) -> Option<DateTime<Utc>> {
    let laid = studio.pictures.iter().flat_map(|p| &p.steps).filter_map(|s| s.laid_at);
    let since = laid.chain(changed).filter(|t| *t < at).max()?;
    let mut then = studio.clone();
    for step in then.pictures.iter_mut().flat_map(|p| &mut p.steps) {
        step.laid_at = step.laid_at.filter(|t| *t <= since);
    }
    then.pictures[p].steps[i].laid_at = None;
    let plan = Desk::new(Arc::new(then)).plan(since);
    let step = plan.steps.iter().find(|s| (s.picture, s.step) == (p, i))?;
    step.sittings.first().map(|s| s.from)
}
