//! A fingertip on a coat: logged, put right, taken back.

use super::Deed;
use super::log::CLOCKS_APART_S;
use crate::film::FilmState;
use crate::learn::{Learned, check_test, said_of};
use crate::picture::{CoatFault, Picture, TouchTest};
use crate::planner::{Desk, ReadyOutcome};
use crate::quantity::{Fault, check_moment};
use crate::studio::Studio;
use crate::time::told;
use chrono::{DateTime, Duration, Utc};

/// Change of the pace that is said [-]. [practice]
const SAID_FROM: f64 = 0.02;

/// Keeps `test` of a coat of picture `p`, made at `now`.
///
/// # Errors
/// [`Fault`] naming the field of the test that does not fit.
pub fn touch(
    studio: &Studio,
    p: usize,
    test: TouchTest,
    now: DateTime<Utc>,
) -> Result<Deed, Fault> {
    kept(studio, (p, None), Some(test), now)
}

/// Puts `new` in the place of the test `old` of picture `p`, or takes that back.
///
/// # Errors
/// [`Fault`] when there is no such test, or naming the field of `new` that does not fit.
pub fn retouch(
    studio: &Studio,
    p: usize,
    (old, new): (&TouchTest, Option<TouchTest>),
    now: DateTime<Utc>,
) -> Result<Deed, Fault> {
    kept(studio, (p, Some(old)), new, now)
}

/// What a test that turned `before` into `after` says and moves, in sentences: how far it is from what was
/// expected, the pace, the coat on top of picture `p`, and the days of all pictures. The studios of both
/// desks have learned from their own tests; `found` is the test, unless one was taken back, and what
/// `after` has learned.
///
/// # Errors
/// [`CoatFault`] when a coat cannot be computed.
pub fn what_moves(
    before: &mut Desk,
    after: &mut Desk,
    p: usize,
    found: Option<(&TouchTest, &Learned)>,
    now: DateTime<Utc>,
) -> Result<Vec<String>, CoatFault> {
    let mut said =
        found.map_or_else(Vec::new, |(test, learned)| learned.of_test(&after.studio(), p, test));
    let told_of_test = said.len();
    let (was, is) = (before.ready(now)?, after.ready(now)?);
    let paintable = (p, FilmState::Paintable);
    let reached = (before.reaches(paintable, now)?, after.reaches(paintable, now)?);
    let (before, after) = (before.studio(), after.studio());
    let zone = after.hours.zone();
    let ratio = (after.habit.pace.ln - before.habit.pace.ln).exp();
    if (ratio - 1.0).abs() > SAID_FROM {
        said.push(format!("Your room dries {}.", said_of(&after.habit.pace)));
    }
    if let (Some(was), Some(is)) = reached
        && was.max(is) > now
        && (is - was).abs() >= Duration::minutes(1)
    {
        let title = &after.pictures[p].title;
        let (is, was) = (told(is, zone), told(was, zone));
        said.push(format!("{title} is paintable by {is}, not by {was}."));
    }
    for (n, picture) in after.pictures.iter().enumerate() {
        let day = |outcome: &ReadyOutcome| outcome.at.map(|at| after.hours.day(at));
        if let (Some(was), Some(is)) = (day(&was[n]), day(&is[n]))
            && was != is
        {
            let by = (is - was).num_days();
            let which = if by > 0 { "later" } else { "earlier" };
            let days = if by.abs() == 1 { "a day".into() } else { format!("{} days", by.abs()) };
            let on = is.format("%A %-d %B");
            said.push(format!("{} is ready {days} {which}, on {on}.", picture.title));
        }
    }
    if said.is_empty() {
        said.push("It is as expected: nothing in the plan moves.".into());
    } else if said.len() == told_of_test {
        said.push("Nothing else in the plan moves.".into());
    }
    Ok(said)
}

/// The tests of `before` whose coats are still steps of `after`: a coat that is taken out takes its tests
/// with it, and undo brings back both.
pub(super) fn tests_left(before: &Picture, after: &Picture) -> Vec<TouchTest> {
    let stands = |test: &&TouchTest| after.steps.iter().any(|s| s.id == test.step);
    before.tests.iter().filter(stands).cloned().collect()
}

fn kept(
    studio: &Studio,
    (p, old): (usize, Option<&TouchTest>),
    new: Option<TouchTest>,
    now: DateTime<Utc>,
) -> Result<Deed, Fault> {
    let mut after = studio.clone();
    let picture = &mut after.pictures[p];
    if let Some(old) = old {
        let place = picture.tests.iter().position(|test| test == old);
        let place = place.ok_or_else(|| Fault::new("test", "that test is not kept any more"))?;
        picture.tests.remove(place);
    }
    // What the tests taught of this very coat is learned anew.
    let touched = [old, new.as_ref()].into_iter().flatten().map(|test| test.step.clone());
    let touched: Vec<String> = touched.collect();
    for step in picture.steps.iter_mut().filter(|step| touched.contains(&step.id)) {
        step.slowed = None;
    }
    let title = |step: &str| {
        let step = studio.pictures[p].steps.iter().find(|s| s.id == step);
        step.map_or_else(|| "a coat".to_owned(), |s| s.called())
    };
    let label = match (&old, &new) {
        (None, Some(test)) => format!("touch {}", title(&test.step)),
        (_, Some(test)) => format!("put a touch of {} right", title(&test.step)),
        (Some(test), None) => format!("take back a touch of {}", title(&test.step)),
        (None, None) => "touch nothing".into(),
    };
    if let Some(test) = new {
        check_moment(test.at).map_err(|e| Fault::new("at", e))?;
        if test.at > now + Duration::seconds(CLOCKS_APART_S) {
            return Err(Fault::new("at", "a coat cannot have been touched in the future"));
        }
        check_test(picture, &test).map_err(|why| Fault::new("at", why))?;
        if picture.tests.contains(&test) {
            return Err(Fault::new("at", "that very test is kept already"));
        }
        picture.tests.push(test);
        picture.tests.sort();
    }
    after.check_picture(p)?;
    Ok(Deed { picture: after.pictures.swap_remove(p), label })
}
