//! When a picture is ready as its painter means it: safe to wrap, or its last coat on.

use super::{Plan, PlannedStep};
use crate::film::{FilmState, Grid};
use crate::picture::{CoatFault, ReadyBy, StepKind};
use crate::readiness::{Bed, history};
use crate::studio::Studio;
use chrono::{DateTime, Utc};

/// When a picture is ready.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ReadyOutcome {
    /// The moment; `None` while a step is blocked, there are none, or it is never safe to wrap.
    pub at: Option<DateTime<Utc>>,
    /// Calendar days from the due day to then, 0 when in time.
    pub days_late: Option<i64>,
}

/// When picture `p` is ready by `plan`. Where wrapping is one of its steps, that is the end of it;
/// where it is not, the film says from when nothing harms the face.
///
/// # Errors
/// [`CoatFault`] when a coat cannot be computed.
pub fn ready(studio: &Studio, plan: &Plan, p: usize) -> Result<ReadyOutcome, CoatFault> {
    ready_after(studio, plan, p, |planned| {
        let all = history(&studio.pictures[p], planned.iter().copied());
        Bed::after(studio, p, Grid::PLANNING, &all)
    })
}

/// What `plan` does on picture `p`: the end of each step and the step, in order of time.
pub(super) fn planned_on(plan: &Plan, p: usize) -> Vec<(DateTime<Utc>, usize)> {
    let mine = plan.steps.iter().filter(|s| s.picture == p);
    let end = |s: &PlannedStep| Some((s.sittings.last()?.to, s.step));
    let mut planned: Vec<_> = mine.filter_map(end).collect();
    planned.sort_unstable();
    planned
}

/// The same with the films that `bed` makes after what is planned.
pub(super) fn ready_after(
    studio: &Studio,
    plan: &Plan,
    p: usize,
    bed: impl FnOnce(&[(DateTime<Utc>, usize)]) -> Result<Bed, CoatFault>,
) -> Result<ReadyOutcome, CoatFault> {
    let at = moment(studio, plan, p, bed)?;
    let due = studio.pictures[p].due;
    let late = at.zip(due).map(|(at, due)| studio.hours.days_late(at, due));
    Ok(ReadyOutcome { at, days_late: late })
}

fn moment(
    studio: &Studio,
    plan: &Plan,
    p: usize,
    bed: impl FnOnce(&[(DateTime<Utc>, usize)]) -> Result<Bed, CoatFault>,
) -> Result<Option<DateTime<Utc>>, CoatFault> {
    let picture = &studio.pictures[p];
    let Some(finish) = plan.pictures.iter().find(|o| o.picture == p).and_then(|o| o.finish) else {
        return Ok(None);
    };
    let planned = planned_on(plan, p);
    if picture.ready_by == ReadyBy::Sealed {
        let all = history(picture, planned);
        let open = all.iter().filter(|(_, i)| picture.steps[*i].kind != StepKind::Pack);
        return Ok(open.map(|(at, _)| *at).max().or(Some(finish)));
    }
    if picture.is_packed() || picture.due.is_none() {
        return Ok(Some(finish));
    }
    let mut bed = bed(&planned)?;
    if bed.done.last_coat().is_none() {
        return Ok(Some(finish));
    }
    Ok(bed.reaches(studio, FilmState::ReadyToWrap)?.map(|safe| safe.max(finish)))
}
