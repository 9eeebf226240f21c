//! The one law: from when a step may be done, and why not before.
//!
//! Planner, gate, rules, cup and ways ask here. What hangs on the picture alone (order, film, the
//! schools' floors) is said by [`Done::waits`] and [`Bed::film_ready`]; what hangs on the studio
//! around it (air, place, hours, light, pins) by [`first_place`]. [`may_lay`] is both together, with
//! every reason; the planner asks the two apart, since one film serves many orders of work.

use super::bed::{Bed, NotReady};
use super::blocked::Blocked;
use super::calendar::{Calendar, Slot};
use super::done::Done;
use super::fit_air::{AirFault, AirWanted, FitAir, MARGIN_S, NEVER};
use super::task::{Task, unbonded};
use super::wait::{Wait, WaitReason};
use crate::film::FilmState;
use crate::picture::{CoatFault, Need};
use crate::studio::Studio;
use crate::time::{Stretch, full_minute, whole_instant, whole_seconds};
use chrono::{DateTime, Utc};

/// The studio around a picture.
#[derive(Debug, Clone, Copy)]
pub struct Around<'a> {
    /// The painter's free time.
    pub calendar: &'a Calendar,
    /// Stretches in which flat places hold wet varnish.
    pub held: &'a [Stretch],
    /// Flat places there are.
    pub places: usize,
    /// The room.
    pub air: &'a FitAir,
}

/// Where a step goes.
#[derive(Debug, Clone, PartialEq)]
pub struct Found {
    /// Its sittings.
    pub slot: Slot,
    /// Why not before; `None` when nothing is waited for.
    pub wait: Option<Wait>,
    /// From when to when it holds a flat place.
    pub holds: Option<Stretch>,
}

/// From when a picture is ready for a step: what it needs, the moment [s of the epoch], and why not
/// before.
#[derive(Debug, Clone, PartialEq)]
pub struct Ready {
    /// The state that the step needs.
    pub need: Need,
    /// The moment; `None` when nothing is waited for.
    pub at: Option<i64>,
    /// Why not before.
    pub wait: Option<Wait>,
}

impl Ready {
    /// Lets the step wait on purpose, until `until` [s of the epoch].
    pub fn waits_on_purpose(&mut self, until: i64) {
        self.at = Some(until);
        wait_until(self, WaitReason::OnPurpose, until);
    }
}

/// Something around a step that is not fit as it would be done.
struct Obstacle {
    reason: WaitReason,
    /// When it is over [s of the epoch].
    until: i64,
}

/// When a coat is dry that never gets there within the horizon [s of the epoch]: no date, and far from
/// any overflow.
pub const FOREVER: i64 = i64::MAX / 4;

/// The first place for `task`, not before `not_before` [s of the epoch]. `wet` says when its coat,
/// laid at a moment, would reach a state; `None` when never.
///
/// # Errors
/// [`Blocked`] when there is none, or the coat cannot be computed.
pub fn first_place(
    task: &Task,
    around: &Around<'_>,
    (not_before, mut ready): (i64, Ready),
    mut wet: impl FnMut(i64, FilmState) -> Result<Option<i64>, Blocked>,
) -> Result<Found, Blocked> {
    if task.seals && around.places == 0 {
        return Err(Blocked::NoFlatPlace);
    }
    let mut not_before = full_minute(not_before);
    let mut pinned = task.pinned.filter(|pin| *pin >= not_before);
    loop {
        let slot = match pinned {
            Some(pin) => Slot { sittings: vec![(pin, pin + task.hands_on)], set_ups: 1 },
            None => around.calendar.find(not_before, task)?,
        };
        let obstacle = match obstacle(task, around, &slot, &mut wet)? {
            Err(obstacle) => obstacle,
            Ok(dry) => {
                if let Some(pin) = pinned {
                    wait_until(&mut ready, WaitReason::Pinned, pin);
                }
                let holds = dry.map(|until| (slot.from(), until));
                return Ok(Found { slot, wait: ready.wait, holds });
            }
        };
        // What was pinned to a time at which it must not be goes to the first place after.
        not_before = full_minute(obstacle.until.max(pinned.take().unwrap_or(not_before + 60)));
        wait_until(&mut ready, obstacle.reason, not_before);
    }
}

/// When the coat of `task`, laid at `end`, lets go of its flat place; nothing when it needs none.
fn touch_dry(
    task: &Task,
    end: i64,
    wet: &mut impl FnMut(i64, FilmState) -> Result<Option<i64>, Blocked>,
) -> Result<Option<i64>, Blocked> {
    if !task.seals {
        return Ok(None);
    }
    Ok(Some(wet(end, FilmState::TouchDry)?.unwrap_or(FOREVER)))
}

/// Says that `ready` waits for `reason` until `until` [s of the epoch].
fn wait_until(ready: &mut Ready, reason: WaitReason, until: i64) {
    let until = whole_instant(until);
    match &mut ready.wait {
        Some(wait) => {
            let since = wait.until - crate::time::minutes(wait.lag_min);
            let lag_min = crate::time::minutes_between(since, until);
            *wait = Wait { reason, until, lag_min, ..wait.clone() };
        }
        none => {
            let state = ready.need;
            *none = Some(Wait { reason, state, of: None, until, lag_min: 0.0, film_ready: None });
        }
    }
}

/// What is not fit for `task` in `slot`: the air as long as it is wet, or no flat place. Where nothing is,
/// when it lets go of its flat place, if it needs one.
fn obstacle(
    task: &Task,
    around: &Around<'_>,
    slot: &Slot,
    wet: &mut impl FnMut(i64, FilmState) -> Result<Option<i64>, Blocked>,
) -> Result<Result<Option<i64>, Obstacle>, Blocked> {
    let end = slot.to();
    // Air that is not fit as the work begins is not fit however the film would dry in it: such a film,
    // which may take for ever, need not be followed.
    let at_work = |wanted: AirWanted| {
        let first = *slot.sittings.first()?;
        around.air.fault(wanted, first).map(|found| (wanted, found))
    };
    // Every piece of a split coat dries as long as the last one.
    let while_wet = |wanted: AirWanted, until: i64| {
        let dries = until - end + MARGIN_S;
        let mut sittings = slot.sittings.iter();
        let found = sittings.find_map(|(a, b)| around.air.fault(wanted, (*a, b + dries)))?;
        Some((wanted, found))
    };
    let mut unfit = at_work(task.air).filter(|_| task.seals);
    // It is wet until it is laid at least: where no place is free so long its film need not be followed.
    if task.seals
        && unfit.is_none()
        && let Some(obstacle) = no_place(around, (slot.from(), end))?
    {
        return Ok(Err(obstacle));
    }
    let dry = if unfit.is_none() { touch_dry(task, end, wet)? } else { None };
    unfit = unfit.or_else(|| while_wet(task.air, dry?));
    if unfit.is_none() && task.air.forms_film() && !around.air.always(AirWanted::Film) {
        unfit = at_work(AirWanted::Film);
        if unfit.is_none() {
            let safe = wet(end, FilmState::Paintable)?.unwrap_or(FOREVER);
            unfit = while_wet(AirWanted::Film, safe);
        }
    }
    if let Some((wanted, (fault, until))) = unfit {
        if until == NEVER {
            return Err(never_fit(wanted, fault));
        }
        return Ok(Err(Obstacle { reason: WaitReason::Air, until }));
    }
    let Some(dry) = dry else { return Ok(Ok(None)) };
    Ok(no_place(around, (slot.from(), dry))?.map_or(Ok(Some(dry)), Err))
}

/// What stands in the way of a flat place in `from..until`: with all of them held, the one that comes free first.
fn no_place(around: &Around<'_>, (from, until): (i64, i64)) -> Result<Option<Obstacle>, Blocked> {
    let over = || around.held.iter().filter(|(a, b)| *a < until && *b > from);
    if around.places == 0 || over().count() < around.places {
        return Ok(None);
    }
    let mut taken: Vec<i64> = over().map(|held| held.1).collect();
    taken.sort_unstable();
    let until = taken[taken.len() - around.places];
    if until >= FOREVER {
        return Err(Blocked::NoFlatPlace);
    }
    Ok(Some(Obstacle { reason: WaitReason::FlatPlace, until }))
}

/// Why a coat that wants `wanted` is never laid in this room.
fn never_fit(wanted: AirWanted, fault: AirFault) -> Blocked {
    Blocked::Air { fault, what: wanted.what(), remedy: wanted.remedy() }
}

/// One reason why a step may not be done at once.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Reason {
    /// What it is; [`WaitReason::lifts`] says what would lift it.
    pub what: WaitReason,
    /// The step of the picture it waits for.
    pub of: Option<usize>,
    /// Until when it holds; past when it no longer does, `None` when time does not lift it.
    pub until: Option<DateTime<Utc>>,
}

/// Whether a step may be done, from when, and why not before.
#[derive(Debug, Clone, PartialEq)]
pub struct Verdict {
    /// The first moment at which everything holds, within hours and light, and the last of the work.
    pub earliest: Result<(DateTime<Utc>, DateTime<Utc>), Blocked>,
    /// The moment from which the picture alone would allow it; `None` when time does not bring it.
    pub ready: Option<DateTime<Utc>>,
    /// Every reason that was looked at, those that are over too.
    pub reasons: Vec<Reason>,
}

impl Verdict {
    /// The reasons that still hold at `time`.
    pub fn against(&self, time: DateTime<Utc>) -> impl Iterator<Item = &Reason> {
        self.reasons.iter().filter(move |r| r.until.is_none_or(|until| until > time))
    }

    /// Whether the step may be done at `time`, the hours of the painter set aside.
    pub fn allows(&self, time: DateTime<Utc>) -> bool {
        let could = match &self.earliest {
            Ok(_) | Err(Blocked::NoHours) => true,
            // The hours are the painter's: what does not fit into them can be done outside.
            Err(why) => {
                matches!(why, Blocked::TooLong { .. } | Blocked::TooLittleDaylight { .. })
            }
        };
        could && self.ready.is_some() && self.against(time).all(|r| r.what == WaitReason::Hours)
    }
}

/// The one law: whether step `i` of the picture that lies as `bed` may be done from `time` on, in the
/// studio `around` it.
///
/// # Errors
/// [`CoatFault`] when a film cannot be computed.
pub fn may_lay(
    studio: &Studio,
    (bed, i, task): (&mut Bed, usize, &Task),
    around: &Around<'_>,
    time: DateTime<Utc>,
) -> Result<Verdict, CoatFault> {
    let mut reasons = Vec::new();
    let refused = refused(studio, &bed.done, (i, task), &mut reasons);
    let film = match bed.film_ready(studio, i) {
        Ok(film) => film,
        Err(NotReady::Fault(fault)) => return Err(fault),
        Err(NotReady::Never(need)) => {
            let of = bed.done.under(studio, i);
            reasons.push(Reason { what: WaitReason::Film, of, until: None });
            let earliest = Err(refused.unwrap_or(Blocked::NeverReady(need)));
            return Ok(Verdict { earliest, ready: None, reasons });
        }
    };
    let below = (i, task.below.as_slice());
    bed.done.waits(studio, below, film, |until, what, of| {
        reasons.push(Reason { what, of, until: Some(until) });
    });
    if let Some(why) = refused {
        return Ok(Verdict { earliest: Err(why), ready: None, reasons });
    }
    let (at, wait) = bed.done.ready(studio, below, film);
    let ready = at.map_or(time, |at| at.max(time));
    let alone = Ready { need: bed.done.needs(studio, i), at: None, wait };
    let from = whole_seconds(ready);
    let mut wet = |end, state| {
        let reached = bed.coat_reaches(studio, (i, whole_instant(end)), [state]);
        let [at] = reached.map_err(|fault| Blocked::Coat(fault.why.to_string()))?;
        Ok(at.map(whole_seconds))
    };
    // How it is at that very moment, the hours of the painter set aside.
    let at_once = Slot { sittings: vec![(from, from + task.hands_on)], set_ups: 1 };
    match obstacle(task, around, &at_once, &mut wet) {
        Ok(Ok(_)) => {}
        Ok(Err(Obstacle { reason: what, until })) => {
            reasons.push(Reason { what, of: None, until: Some(whole_instant(until)) });
        }
        Err(why) => {
            let place = why == Blocked::NoFlatPlace;
            let what = if place { WaitReason::FlatPlace } else { WaitReason::Air };
            reasons.push(Reason { what, of: None, until: None });
        }
    }
    let earliest = first_place(task, around, (from, alone), wet).map(|found| {
        let begins = whole_instant(found.slot.from());
        if reasons.iter().all(|r| r.until.is_none_or(|until| until < begins)) {
            reasons.push(Reason { what: WaitReason::Hours, of: None, until: Some(begins) });
        }
        (begins, whole_instant(found.slot.to()))
    });
    Ok(Verdict { earliest, ready: Some(ready), reasons })
}

/// What time does not lift: steps below that are not done, paint over a sealing coat.
fn refused(
    studio: &Studio,
    done: &Done,
    (i, task): (usize, &Task),
    reasons: &mut Vec<Reason>,
) -> Option<Blocked> {
    let mut refused = task.refused.clone();
    if refused.is_some() {
        let picture = &studio.pictures[done.picture()];
        let of = picture.over_seal(i).or_else(|| unbonded(studio, picture, i));
        reasons.push(Reason { what: WaitReason::OverSeal, of, until: None });
    }
    for below in task.below.iter().filter(|b| done.end_of(**b).is_none()) {
        reasons.push(Reason { what: WaitReason::Order, of: Some(*below), until: None });
        refused = refused.or(Some(Blocked::Below));
    }
    refused
}
