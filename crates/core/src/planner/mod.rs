//! When to do each step: the painter's hours, dates and films.
//!
//! Each picture is a chain (or small graph) of steps. A step starts when what it stands on has
//! reached the state it needs, computed with the air of that time, and the floors of the painter's
//! schools are over; laid coats are fixed history. An order of work, played from its beginning,
//! gives a plan; the search ([`Planner::improve`]) looks for a better order.

mod agenda;
mod beds;
mod beginnings;
mod bound;
mod cause;
mod change;
mod changes;
mod cup_place;
mod decode;
mod desk;
mod dispatch;
mod extra_session;
mod films;
mod finish;
mod held_back;
mod holds;
mod known_plan;
mod lags;
mod lessons;
mod moves;
mod odds;
mod on_purpose;
mod outlook;
mod parallel;
mod pins;
mod planned;
mod played;
mod problem;
mod promise;
mod ready;
mod remind;
mod rounds;
mod score;
mod search;
mod ways;

pub use agenda::{AgendaEntry, Alarm, agenda, shortages};
pub use cause::{Cause, cause};
pub use change::DateWayKind;
pub use cup_place::cup_place;
pub(crate) use desk::same_support;
pub use desk::{Desk, Strata};
pub use held_back::HeldBack;
pub use holds::{Held, Link, holds};
pub use known_plan::{Planner, SearchProgress, plan};
pub use odds::{Aim, FUTURES, PictureOdds, futures_for, odds};
pub use outlook::{CoatOutlook, FilmMoment, SPREAD, film_line, slowest_top, spread};
pub use parallel::threads;
pub use pins::Pin;
pub use planned::as_planned;
pub use promise::{DateStanding, Promise, a_day_apart, in_ten, promise};
pub use ready::{ReadyOutcome, ready};
pub use remind::{MIST_EVERY, WetSession, wet_session};
pub use search::moderate;
pub use ways::{DateWay, date_ways};
pub(crate) use {changes::rooms, outlook::coats_of};

pub use crate::readiness::Blocked;

use crate::readiness::Wait;
use crate::studio::Studio;
use chrono::{DateTime, NaiveDate, Utc};

/// Seed of searches and futures where nobody asks for another: any number, always the same, so that
/// the same studio gives the same plan and drafts see the same futures.
pub const SEED: u64 = 20_270_115;

/// What is to be planned.
#[derive(Debug, Clone, Copy)]
pub struct Request<'a> {
    /// The studio with its pictures.
    pub studio: &'a Studio,
    /// Now: nothing is planned before.
    pub from: DateTime<Utc>,
}

/// One stretch of hands-on work.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Sitting {
    /// Start of hands-on work; set-up lies before it.
    pub from: DateTime<Utc>,
    /// End.
    pub to: DateTime<Utc>,
}

/// A step with its sittings.
#[derive(Debug, Clone, PartialEq)]
pub struct PlannedStep {
    /// Index of the picture.
    pub picture: usize,
    /// Index of the step in the picture.
    pub step: usize,
    /// The sittings, in order; empty when it is blocked.
    pub sittings: Vec<Sitting>,
    /// What it waits for; `None` when it stands on nothing.
    pub wait: Option<Wait>,
    /// What became of the time that the painter pinned it to.
    pub pin: Option<Pin>,
    /// Why it could not be placed.
    pub blocked: Option<Blocked>,
}

/// When a picture is done.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct PictureOutcome {
    /// Index of the picture.
    pub picture: usize,
    /// End of the last step's hands-on work; `None` while a step is blocked or there are none.
    pub finish: Option<DateTime<Utc>>,
    /// When it is ready: safe to wrap where that is meant and no step waits for it, else its finish; `None` when it
    /// never is.
    pub ready: Option<DateTime<Utc>>,
    /// The day it must be ready.
    pub due: Option<NaiveDate>,
    /// Calendar days from the due day to when it is ready, 0 when in time.
    pub days_late: Option<i64>,
}

/// What a plan is judged by, in this order.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Objective {
    /// Days late, weighted by the pictures.
    pub weighted_days_late: f64,
    /// Minutes from the start of planning to when each picture is ready, summed.
    pub sum_of_finish_min: f64,
    /// Changes of picture or mix.
    pub set_ups: u32,
    /// Coats painted from a tub past its last good day; counts before the sum of finishes.
    pub past_tubs: u32,
}

/// A plan.
#[derive(Debug, Clone, PartialEq)]
pub struct Plan {
    /// The steps still to do, in order of time; blocked ones last.
    pub steps: Vec<PlannedStep>,
    /// Every picture's end.
    pub pictures: Vec<PictureOutcome>,
    /// How good it is.
    pub objective: Objective,
    /// Steps that wait on purpose.
    pub held: Vec<HeldBack>,
}
