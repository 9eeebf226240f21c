//! The gate: whether a picture may be sealed, and from when.

use super::conditions::Condition;
use super::known::{KnownFilms, Span};
use super::look::{Judged, Look};
use crate::film::FilmState;
use crate::picture::{CoatFault, StepKind};
use crate::planner::Plan;
use crate::readiness::{Around, Calendar, FitAir, Stretch, Task, history, may_lay};
use crate::studio::Studio;
use crate::time::{minutes_between, whole_seconds};
use crate::words::words;
use chrono::{DateTime, Utc};

words! {
    /// Where a picture stands on its way out of the studio.
    Stage {
        /// No sealing coat is planned.
        Unplanned = "unplanned",
        /// Its next sealing coat must wait, or wants something first.
        Closed = "closed",
        /// Everything holds: the next sealing coat may be laid now.
        Open = "open",
        /// Every sealing coat is on; it must not be touched yet.
        Curing = "curing",
        /// It may be wrapped.
        ReadyToWrap = "ready_to_wrap",
        /// It is wrapped.
        Wrapped = "wrapped",
    }
}

/// The gate of one picture.
#[derive(Debug, Clone, PartialEq)]
pub struct Gate {
    /// Where it stands.
    pub stage: Stage,
    /// Index of the next sealing coat.
    pub step: Option<usize>,
    /// Whether it goes over another sealing coat.
    pub between: bool,
    /// Every condition of it, in the order of work.
    pub conditions: Vec<Condition>,
    /// The first hour within the studio's hours in which all that time brings holds, from the first
    /// stroke to the end of the hands-on work; what wants the painter's hand is taken as done.
    pub earliest: Option<(DateTime<Utc>, DateTime<Utc>)>,
    /// When the plan has it: later than the earliest where the painter is at other work then.
    pub planned: Option<(DateTime<Utc>, DateTime<Utc>)>,
    /// Minutes until the coat must be left alone, laid then.
    pub working_min: Option<f64>,
    /// Minutes until it is touch-dry, laid then.
    pub touch_dry_min: Option<f64>,
    /// When the face may be touched by wrapping, once every sealing coat is on.
    pub wrap_from: Option<DateTime<Utc>>,
}

impl Gate {
    /// Its turn among other gates: what can go on now comes first, then what can sooner, then what
    /// cannot be said, and last what is done.
    pub fn turn(&self) -> i64 {
        let next = self.earliest.map(|(from, _)| from).or(self.wrap_from);
        match self.stage {
            Stage::Open | Stage::ReadyToWrap => i64::MIN,
            Stage::Wrapped => i64::MAX,
            Stage::Unplanned | Stage::Closed | Stage::Curing => {
                next.map_or(i64::MAX - 1, |at| at.timestamp())
            }
        }
    }

    /// The conditions that keep it closed.
    pub fn against(&self) -> impl Iterator<Item = &Condition> {
        self.conditions.iter().filter(|c| c.closes())
    }
}

/// The gate of picture `p` at `now`. `photographs` are the times at which pictures of it were taken;
/// `plan` says when the coats below that are still to come would be laid.
///
/// # Errors
/// [`CoatFault`] when a coat of the studio cannot be computed.
pub fn gate(
    studio: &Studio,
    p: usize,
    (plan, photographs): (&Plan, &[DateTime<Utc>]),
    now: DateTime<Utc>,
) -> Result<Gate, CoatFault> {
    gate_with(studio, p, (plan, photographs), now, &mut KnownFilms::default())
}

/// The same with films that are known, and those that are computed kept for the next one.
///
/// # Errors
/// [`CoatFault`] likewise.
pub fn gate_with(
    studio: &Studio,
    p: usize,
    (plan, photographs): (&Plan, &[DateTime<Utc>]),
    now: DateTime<Utc>,
    known: &mut KnownFilms,
) -> Result<Gate, CoatFault> {
    let taken = known.taken_places(studio, p, plan, now)?;
    gate_among(studio, p, (plan, photographs, &taken), now, known)
}

/// The same beside wet varnish of other pictures in the stretches `taken`.
pub(super) fn gate_among(
    studio: &Studio,
    p: usize,
    (plan, photographs, taken): (&Plan, &[DateTime<Utc>], &[Span]),
    now: DateTime<Utc>,
    known: &mut KnownFilms,
) -> Result<Gate, CoatFault> {
    let picture = &studio.pictures[p];
    let next = picture.steps.iter().position(|s| s.kind.seals() && s.laid_at.is_none());
    let Some(i) = next else { return past_the_gate(studio, p, plan, (now, known)) };
    let task = Task::of(studio, (p, i), (1, picture.stands_on(i)));
    Look { studio, picture, p, i, task, plan, photographs, taken, now }.gate(known)
}

/// The gate when no sealing coat is to come.
fn past_the_gate(
    studio: &Studio,
    p: usize,
    plan: &Plan,
    (now, known): (DateTime<Utc>, &mut KnownFilms),
) -> Result<Gate, CoatFault> {
    let picture = &studio.pictures[p];
    let sealed = picture.steps.iter().any(|s| s.kind.seals());
    let wrapped = picture.steps.iter().any(|s| s.kind == StepKind::Pack && s.laid_at.is_some());
    let planned = plan.steps.iter().filter(|s| s.picture == p);
    let all = history(picture, planned.filter_map(|s| Some((s.sittings.last()?.to, s.step))));
    let bed = known.bed(studio, p, all)?;
    let lies = bed.done.last_coat().is_some();
    let wrap_from = if lies { bed.reaches(studio, FilmState::ReadyToWrap)? } else { None };
    let stage = match (sealed, wrapped, wrap_from) {
        (_, true, _) => Stage::Wrapped,
        (false, ..) => Stage::Unplanned,
        (true, false, Some(at)) if at <= now => Stage::ReadyToWrap,
        (true, false, _) => Stage::Curing,
    };
    Ok(Gate {
        stage,
        step: None,
        between: false,
        conditions: Vec::new(),
        earliest: None,
        planned: None,
        working_min: None,
        touch_dry_min: None,
        wrap_from: wrap_from.filter(|_| sealed),
    })
}

impl Look<'_> {
    fn gate(&self, known: &mut KnownFilms) -> Result<Gate, CoatFault> {
        let (calendar, fit) = known.around(self.studio, self.p, self.now);
        let judged = self.judge(known, (&calendar, &fit))?;
        let between = judged.top.is_some_and(|top| self.picture.steps[top].kind.seals());
        let mut conditions = vec![self.last_coat(), self.cure(&judged)];
        let floor = self.floor(&judged).filter(|c| !between || c.closes());
        conditions.extend(floor.into_iter().chain(self.between(&judged)));
        conditions.extend(self.asked(&judged));
        conditions.extend([self.signature(between), self.photograph(between), self.surface()]);
        conditions.extend([self.product(), self.air(&judged, &fit), self.flat_place(&judged)]);
        let open = conditions.iter().all(|c| !c.closes()) && judged.verdict.allows(self.now);
        let planned = self.planned(self.i).and_then(|s| s.sittings.first());
        Ok(Gate {
            stage: if open { Stage::Open } else { Stage::Closed },
            step: Some(self.i),
            between,
            conditions,
            earliest: judged.verdict.earliest.ok(),
            planned: planned.map(|s| (s.from, s.to)),
            working_min: judged.setting_min,
            touch_dry_min: judged.touch_dry_min,
            wrap_from: None,
        })
    }

    /// What the one law says of the coat.
    fn judge(
        &self,
        known: &mut KnownFilms,
        (calendar, fit): (&Calendar, &FitAir),
    ) -> Result<Judged, CoatFault> {
        let studio = self.studio;
        let taken = |(a, b): &Span| (a.timestamp(), whole_seconds(*b));
        let held: Vec<Stretch> = self.taken.iter().map(taken).collect();
        let places = studio.flat_places as usize;
        let around = Around { calendar, held: &held, places, air: fit };
        let history = Self::history_below(studio, (self.p, self.i), self.plan);
        // What comes below is done first, and the coat is not looked at before.
        let below = history.last().map_or(self.now, |(at, _)| *at);
        let bed = known.bed(studio, self.p, history)?;
        let asked = (&mut *bed, self.i, &self.task);
        let verdict = may_lay(studio, asked, &around, self.now.max(below))?;
        let at = verdict.earliest.as_ref().map_or(verdict.ready, |(from, _)| Some(*from));
        let at = at.unwrap_or(self.now.max(below));
        let states = [FilmState::Setting, FilmState::TouchDry];
        let reached = bed.coat_reaches(studio, (self.i, at), states)?;
        let after = reached.map(|t| t.map(|t| minutes_between(at, t)));
        Ok(Judged {
            top: bed.done.last_coat(),
            coats: bed.coats(),
            setting_min: after[0],
            touch_dry_min: after[1],
            verdict,
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use chrono::Duration;

    #[test]
    fn what_can_go_on_now_comes_first_and_what_is_done_last() {
        let at = |hours: i64| DateTime::UNIX_EPOCH + Duration::hours(hours);
        let gate = |stage, earliest: Option<i64>, wrap_from: Option<i64>| Gate {
            stage,
            step: None,
            between: false,
            conditions: vec![],
            earliest: earliest.map(|h| (at(h), at(h + 1))),
            planned: None,
            working_min: None,
            touch_dry_min: None,
            wrap_from: wrap_from.map(at),
        };
        let in_turn = [
            gate(Stage::Open, Some(90), None),
            gate(Stage::Closed, Some(24), None),
            gate(Stage::Curing, None, Some(96)),
            gate(Stage::Closed, Some(168), None),
            gate(Stage::Unplanned, None, None),
            gate(Stage::Wrapped, None, Some(1)),
        ];
        let turns: Vec<i64> = in_turn.iter().map(Gate::turn).collect();
        assert!(turns.is_sorted_by(|a, b| a < b), "{turns:?}");
    }
}
