//! An extra session outside the painter's hours, as a way to make a date.

use super::change::{Change, DateWayKind};
use super::{Plan, holds};
use crate::picture::Picture;
use crate::readiness::{Calendar, Task};
use crate::studio::{OpenHours, Studio, StudioHours};
use crate::time::{minutes_s, whole_instant, whole_seconds};
use chrono::{DateTime, NaiveTime, Utc, Weekday};

/// Earliest and latest hour of an extra session [h]. [practice]
const EXTRA_HOURS: (u32, u32) = (8, 21);
/// A step that waits for hours this long is worth an extra session [min]. [practice]
const WORTH_MIN: f64 = 60.0;

/// The step that waits longest for hours, done outside them as soon as it may be: when one is awake,
/// on no day off, and by daylight where the studio keeps to it.
pub(super) fn extra_session<'a>(
    studio: &Studio,
    picture: &Picture,
    p: usize,
    present: &Plan,
    from: DateTime<Utc>,
) -> Option<Change<'a>> {
    let link = holds(studio, present, p, from)
        .into_iter()
        .filter(|link| link.idle_min >= WORTH_MIN)
        .max_by(|a, b| a.idle_min.total_cmp(&b.idle_min))?;
    let i = link.step;
    let step = &picture.steps[i];
    let ready = link.wait.as_ref().map_or(from, |w| w.until.max(from));
    let task = Task::of(studio, (p, i), (1, Vec::new()));
    let whole = Task { splittable: false, ..task };
    let awake = awake(studio, ready, link.from)?;
    let slot = awake.find(whole_seconds(ready), &whole).ok()?;
    // The next full quarter of an hour, where that still fits.
    let quarter = slot.from() + (-slot.from()).rem_euclid(15 * 60);
    let at = [quarter, slot.from()].into_iter().find(|at| {
        let stretch = (*at, *at + whole.hands_on);
        awake.is_open(stretch) && (!whole.by_daylight || awake.is_light(stretch))
    })?;
    let at = whole_instant(at);
    if at >= link.from {
        return None;
    }
    let said = at.with_timezone(&studio.hours.zone()).format("%a %-d %b %H:%M");
    let what = format!("An extra session {said} for {}", step.called());
    Some(Change::new(DateWayKind::ExtraSession, what, move |studio: &Studio| {
        let mut changed = studio.clone();
        changed.pictures[p].steps.get_mut(i)?.pinned_at = Some(at);
        Some(changed)
    }))
}

/// The hours from `from` to `to` in which one is awake, but for the days off.
fn awake(studio: &Studio, from: DateTime<Utc>, to: DateTime<Utc>) -> Option<Calendar> {
    let hour = |h| NaiveTime::from_hms_opt(h, 0, 0);
    let (begin, end) = (hour(EXTRA_HOURS.0)?, hour(EXTRA_HOURS.1)?);
    let day = |n| Some(OpenHours { day: Weekday::try_from(n).ok()?, from: begin, to: end });
    let week: Option<Vec<OpenHours>> = (0..7).map(day).collect();
    let closed = studio.hours.closed().to_vec();
    let hours = StudioHours::try_new(studio.hours.zone(), week?, closed).ok()?;
    let ahead = (whole_seconds(from), whole_seconds(to));
    Some(Calendar::new(&hours, studio.daylight, ahead, minutes_s(studio.setup_min)))
}
