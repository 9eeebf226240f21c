//! A studio as the planner sees it: tasks in seconds, mixes as numbers, free time.

use super::Blocked;
use super::pins::Pins;
use crate::picture::{Picture, ReadyBy};
use crate::readiness::{Around, Bench, Calendar, FitAir, Mixes, Stretch, Task};
use crate::studio::Studio;
use crate::time::{full_minute, minutes_s, whole_instant, whole_seconds};
use chrono::{DateTime, NaiveDate, Utc};

/// How far ahead hours are looked for, at least [days]. [practice]
const HOURS_AHEAD_DAYS: i64 = 730;
/// How far ahead at most [days]: ten years, so that 200 pictures find their hours too. [practice]
const HOURS_AHEAD_MOST_DAYS: i64 = 3650;
/// Hours looked for over those that the work itself fills [-]: waits leave hours unused. [practice]
const HOURS_SPARE: f64 = 3.0;

/// Everything that stays the same while orders of work are tried.
#[derive(Debug, Clone)]
pub(super) struct Problem<'a> {
    pub studio: &'a Studio,
    /// Now, on the full minute [s of the epoch].
    pub from: i64,
    /// Free time, pinned steps taken out.
    pub calendar: Calendar,
    /// By picture, the steps still to do (`None`: laid).
    pub tasks: Vec<Vec<Option<Task>>>,
    /// What becomes of pinned times.
    pub pins: Pins,
    /// When the room is fit.
    pub air: FitAir,
}

impl<'a> Problem<'a> {
    pub fn new(studio: &'a Studio, from: DateTime<Utc>) -> Self {
        let from = full_minute(whole_seconds(from));
        let mut mixes = Mixes::default();
        let mut tasks: Vec<Vec<Option<Task>>> = Vec::with_capacity(studio.pictures.len());
        for (p, picture) in studio.pictures.iter().enumerate() {
            let below = picture.below().into_iter();
            let task = |(i, below): (usize, Vec<usize>)| {
                let step = &picture.steps[i];
                let mix = mixes.number(&step.mix);
                step.laid_at.is_none().then(|| Task::of(studio, (p, i), (mix, below)))
            };
            tasks.push(below.enumerate().map(task).collect());
        }
        let benches: Vec<Bench> = tasks.iter().flatten().flatten().map(|t| t.bench).collect();
        for task in tasks.iter_mut().flatten().flatten() {
            let sharers = benches.iter().filter(|b| b.serves(task.bench)).count();
            // A split step goes on with itself only where the session goes on too.
            task.own_set_up = sharers <= 1;
        }
        let set_up = minutes_s(studio.setup_min);
        let horizon = from + 86_400 * days_ahead(studio, &tasks, set_up);
        let mut calendar = Calendar::new(&studio.hours, studio.daylight, (from, horizon), set_up);
        let pins = Pins::of(studio, &mut tasks, (&calendar, from));
        for stretch in pins.reserved() {
            calendar.reserve(stretch);
        }
        let air = FitAir::new(&studio.air, from);
        Self { studio, from, calendar, tasks, pins, air }
    }

    /// The studio around a picture, with `calendar` free and flat places `held`.
    pub fn around<'b>(&'b self, calendar: &'b Calendar, held: &'b [Stretch]) -> Around<'b> {
        Around { calendar, held, places: self.studio.flat_places as usize, air: &self.air }
    }

    pub fn picture(&self, p: usize) -> &'a Picture {
        &self.studio.pictures[p]
    }

    pub fn task(&self, p: usize, i: usize) -> Option<&Task> {
        self.tasks.get(p)?.get(i)?.as_ref()
    }

    /// Whether picture `p` is ready only when its film is safe to wrap, which no step of it waits for.
    pub fn wraps(&self, p: usize) -> bool {
        let picture = self.picture(p);
        picture.ready_by == ReadyBy::Wrapped && picture.due.is_some() && !picture.is_packed()
    }

    /// Steps still to do.
    pub fn steps_left(&self) -> usize {
        self.tasks.iter().flatten().flatten().count()
    }

    /// Calendar days from the due day of picture `p` to `end`; 0 in time or without a date.
    pub fn days_late(&self, p: usize, end: i64) -> i64 {
        let due = self.picture(p).due;
        due.map_or(0, |due| self.studio.hours.days_late(whole_instant(end), due))
    }

    pub fn day(&self, second: i64) -> NaiveDate {
        self.studio.hours.day(whole_instant(second))
    }
}

/// Days of hours that all the work could need.
fn days_ahead(studio: &Studio, tasks: &[Vec<Option<Task>>], set_up: i64) -> i64 {
    let work: i64 = tasks.iter().flatten().flatten().map(|t| t.hands_on + set_up).sum();
    let weekly: i64 =
        studio.hours.weekly().iter().map(|h| (h.to - h.from).num_seconds().max(0)).sum();
    if weekly == 0 {
        return HOURS_AHEAD_DAYS;
    }
    let filled = 7.0 * work as f64 / weekly as f64;
    (HOURS_AHEAD_DAYS + (filled * HOURS_SPARE) as i64).min(HOURS_AHEAD_MOST_DAYS)
}

/// Whether the picture can be planned at all, and if not which step stands in the way.
pub(super) type Known<T> = Result<T, (usize, Blocked)>;
