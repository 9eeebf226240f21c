//! The gate: whether a picture may be sealed, and from when.

use super::conditions::{Condition, Standing};
use super::known::{KnownFilms, Span};
use super::look::Look;
use crate::film::FilmState;
use crate::picture::{CoatFault, StepKind};
use crate::planner::{Plan, coats_of};
use crate::studio::Studio;
use crate::time::MINUTE_S;
use crate::words::words;
use chrono::{DateTime, Duration, Utc};

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
    Look { studio, picture, p, i, plan, photographs, taken, now }.gate(known)
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
    let coats = coats_of(studio, p, plan)?;
    let wrap_from = known.reaches(studio, (p, &coats), FilmState::ReadyToWrap)?;
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
        working_min: None,
        touch_dry_min: None,
        wrap_from: wrap_from.filter(|_| sealed),
    })
}

impl Look<'_> {
    fn gate(&self, known: &mut KnownFilms) -> Result<Gate, CoatFault> {
        let coats = Self::coats_below(self.studio, (self.p, self.i), self.plan)?;
        let film = known.after(self.studio, self.p, &coats)?;
        let between = self.last_seal().is_some();
        let cure = self.cure((film.as_ref(), known), &coats, between)?;
        let mut conditions = vec![self.last_coat(), cure];
        conditions.push(if between { self.between() } else { self.floor() });
        conditions.extend([self.signature(between), self.photograph(between), self.surface()]);
        conditions.push(self.product());

        // The earliest moment by everything but air, place and hours.
        let timed = conditions.iter().filter(|c| c.closes() && c.standing != Standing::Yours);
        let mut ready = Some(self.now);
        for c in timed {
            ready = ready.zip(c.from).map(|(a, b)| a.max(b));
        }
        let undone = self.picture.steps[..self.i].iter().any(|s| s.laid_at.is_none());
        if undone && let Some(planned) = self.planned_below() {
            ready = ready.map(|at| at.max(planned));
        }
        let film = film.as_ref();
        let (air, laying) = self.air(film, ready)?;
        conditions.push(air);
        conditions.push(self.flat_place(ready, laying));
        let earliest = ready
            .zip(laying)
            .map(|(at, laying)| self.earliest(film, at, laying))
            .transpose()?
            .flatten();
        let (earliest, laying) = earliest.map_or((None, laying), |(at, l)| (Some(at), Some(l)));
        let open = conditions.iter().all(|c| !c.closes());
        Ok(Gate {
            stage: if open { Stage::Open } else { Stage::Closed },
            step: Some(self.i),
            between,
            conditions,
            earliest: earliest.zip(laying).map(|(at, l)| (at, at + Duration::seconds(l.hands_on))),
            working_min: laying.map(|l| l.setting as f64 / MINUTE_S),
            touch_dry_min: laying.map(|l| l.touch_dry as f64 / MINUTE_S),
            wrap_from: None,
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_can_go_on_now_comes_first_and_what_is_done_last() {
        let at = |hours: i64| DateTime::UNIX_EPOCH + Duration::hours(hours);
        let gate = |stage, earliest: Option<i64>, wrap_from: Option<i64>| Gate {
            stage,
            step: None,
            between: false,
            conditions: vec![],
            earliest: earliest.map(|h| (at(h), at(h + 1))),
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
