//! What a gate looks at: a picture, its next sealing coat, and the plan around it.

use super::known::Span;
use crate::picture::{Picture, Step};
use crate::planner::{Plan, PlannedStep};
use crate::readiness::{Reason, Task, Verdict, WaitReason, history};
use crate::studio::Studio;
use chrono::{DateTime, Utc};

/// What is looked at: the next sealing coat `i` of a picture.
pub(super) struct Look<'a> {
    pub(super) studio: &'a Studio,
    pub(super) picture: &'a Picture,
    pub(super) p: usize,
    pub(super) i: usize,
    /// The coat as the law sees it.
    pub(super) task: Task,
    pub(super) plan: &'a Plan,
    pub(super) photographs: &'a [DateTime<Utc>],
    /// Stretches in which other pictures lie flat with wet varnish.
    pub(super) taken: &'a [Span],
    pub(super) now: DateTime<Utc>,
}

/// What the law says of the coat, and how it would behave.
pub(super) struct Judged {
    pub(super) verdict: Verdict,
    /// The step that laid the last coat below it.
    pub(super) top: Option<usize>,
    /// Coats below it.
    pub(super) coats: usize,
    /// Minutes from laying it to setting and touch-dry, when it may first be laid [min].
    pub(super) setting_min: Option<f64>,
    pub(super) touch_dry_min: Option<f64>,
}

impl Judged {
    /// The reasons of one of the kinds `what`, the one that holds longest last.
    pub(super) fn of(&self, what: &[WaitReason]) -> Option<&Reason> {
        let mine = self.verdict.reasons.iter().filter(|r| what.contains(&r.what));
        mine.max_by_key(|r| r.until.unwrap_or(DateTime::<Utc>::MAX_UTC))
    }
}

/// When the last painted coat of a picture was laid.
pub(super) fn last_painted(picture: &Picture) -> Option<DateTime<Utc>> {
    let painted = |s: &&Step| s.kind.leaves_film() && !s.kind.seals();
    picture.steps.iter().filter(painted).filter_map(|s| s.laid_at).max()
}

/// The coats below step `i` that are still to come, by their place in the picture.
pub(super) fn open_below(picture: &Picture, i: usize) -> Vec<usize> {
    let coat = |i: &usize| {
        let s = &picture.steps[*i];
        s.laid_at.is_none()
            && s.kind.leaves_film()
            && (s.kind.must_leave_film() || s.wet_film_um.is_some())
    };
    picture.all_below(i).into_iter().filter(coat).collect()
}

impl Look<'_> {
    /// Everything that is on the picture, and what is still to come below the seal where the plan has
    /// it, in order of time.
    pub(super) fn history_below(
        studio: &Studio,
        (p, i): (usize, usize),
        plan: &Plan,
    ) -> Vec<(DateTime<Utc>, usize)> {
        let picture = &studio.pictures[p];
        let under = picture.all_below(i);
        let planned = plan.steps.iter().filter(|s| s.picture == p && under.contains(&s.step));
        history(picture, planned.filter_map(|s| Some((s.sittings.last()?.to, s.step))))
    }

    pub(super) fn step(&self) -> &Step {
        &self.picture.steps[self.i]
    }

    pub(super) fn laid(&self) -> impl Iterator<Item = (&Step, DateTime<Utc>)> {
        self.picture.steps.iter().filter_map(|s| s.laid_at.map(|at| (s, at)))
    }

    /// The latest sealing coat that is on.
    pub(super) fn last_seal(&self) -> Option<(&Step, DateTime<Utc>)> {
        self.laid().filter(|(s, _)| s.kind.seals()).max_by_key(|(_, at)| *at)
    }

    /// The first sealing coat that lies over the last paint.
    pub(super) fn first_seal(&self) -> Option<DateTime<Utc>> {
        let painted = self.last_painted();
        let over = |at: &DateTime<Utc>| painted.is_none_or(|p| *at >= p);
        self.laid().filter(|(s, at)| s.kind.seals() && over(at)).map(|(_, at)| at).min()
    }

    /// When the last painted coat was laid.
    pub(super) fn last_painted(&self) -> Option<DateTime<Utc>> {
        last_painted(self.picture)
    }

    /// The coats below it that are still to come, by their place in the picture.
    pub(super) fn open_below(&self) -> Vec<usize> {
        open_below(self.picture, self.i)
    }

    pub(super) fn planned(&self, step: usize) -> Option<&PlannedStep> {
        self.plan.steps.iter().find(|s| s.picture == self.p && s.step == step)
    }

    pub(super) fn planned_end(&self, step: usize) -> Option<DateTime<Utc>> {
        self.planned(step)?.sittings.last().map(|s| s.to)
    }
}
