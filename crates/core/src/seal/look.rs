//! What a gate looks at: a picture, its next sealing coat, and the plan around it.

use super::known::Span;
use crate::picture::{CoatFault, LaidCoat, Picture, Step};
use crate::planner::{Plan, coats_of};
use crate::studio::Studio;
use chrono::{DateTime, Utc};

/// What is looked at: the next sealing coat `i` of a picture.
pub(super) struct Look<'a> {
    pub(super) studio: &'a Studio,
    pub(super) picture: &'a Picture,
    pub(super) p: usize,
    pub(super) i: usize,
    pub(super) plan: &'a Plan,
    pub(super) photographs: &'a [DateTime<Utc>],
    /// Stretches in which other pictures lie flat with wet varnish.
    pub(super) taken: &'a [Span],
    pub(super) now: DateTime<Utc>,
}

impl Look<'_> {
    /// Paint that is still to come below the seal, and everything that is already there.
    pub(super) fn coats_below(
        studio: &Studio,
        (p, i): (usize, usize),
        plan: &Plan,
    ) -> Result<Vec<LaidCoat>, CoatFault> {
        let steps = &studio.pictures[p].steps;
        let below = |c: &LaidCoat| {
            let step = &steps[c.step];
            step.laid_at.is_some() || (c.step < i && !step.kind.seals())
        };
        Ok(coats_of(studio, p, plan)?.into_iter().filter(below).collect())
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

    pub(super) fn first_seal(&self) -> Option<DateTime<Utc>> {
        self.laid().filter(|(s, _)| s.kind.seals()).map(|(_, at)| at).min()
    }

    /// When the last painted coat was laid.
    pub(super) fn last_painted(&self) -> Option<DateTime<Utc>> {
        self.laid().filter(|(s, _)| s.kind.leaves_film() && !s.kind.seals()).map(|(_, at)| at).max()
    }

    /// When the plan has everything below the seal done.
    pub(super) fn planned_below(&self) -> Option<DateTime<Utc>> {
        let mine = |s: &&crate::planner::PlannedStep| s.picture == self.p && s.step < self.i;
        self.plan.steps.iter().filter(mine).filter_map(|s| s.sittings.last()).map(|s| s.to).max()
    }

    pub(super) fn planned_end(&self, step: usize) -> Option<DateTime<Utc>> {
        let mine = |s: &&crate::planner::PlannedStep| s.picture == self.p && s.step == step;
        self.plan.steps.iter().find(mine)?.sittings.last().map(|s| s.to)
    }
}
