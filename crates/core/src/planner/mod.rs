//! When to do each step: the painter's hours, dates and films.
//!
//! Each picture is a chain (or small graph) of steps. A step starts when what it stands on has
//! reached the state it needs, computed with the air of that time, and the floors of the painter's
//! schools are over; laid coats are fixed history. An order of work, played from its beginning,
//! gives a plan; the search ([`Planner::improve`]) looks for a better order.

mod agenda;
mod bound;
mod calendar;
mod decode;
mod desk;
mod films;
mod finish;
mod holds;
mod lags;
mod odds;
mod outlook;
mod parallel;
mod problem;
mod remind;
mod score;
mod search;
mod task;
mod ways;

pub use agenda::{AgendaEntry, Alarm, agenda, shortages};
pub use desk::{Desk, same_support};
pub use holds::{Held, Link, holds};
pub use odds::{FUTURES, PictureOdds, odds};
pub use outlook::{CoatOutlook, FilmMoment, film_line, outlook};
pub use remind::{WetSession, wet_session};
pub use search::{Planner, SearchProgress, moderate, plan};
pub use ways::{DateWay, DateWayKind, date_ways};
pub(crate) use {outlook::coats_of, ways::rooms};

use crate::picture::Need;
use crate::readiness::Wait;
use crate::studio::Studio;
use chrono::{DateTime, NaiveDate, Utc};
use thiserror::Error;

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

/// Why a step cannot be placed.
#[derive(Debug, Clone, PartialEq, Error)]
pub enum Blocked {
    /// The studio has no hours.
    #[error("the studio has no hours left for it in the time that is looked ahead: set its hours")]
    NoHours,
    /// Longer than any session, and not to be split.
    #[error(
        "{needed:.0} minutes at one go (set-up included) fit into no session; the longest has \
         {longest:.0} minutes: shorten the step, let it be split, or add hours"
    )]
    TooLong {
        /// Minutes it needs, set-up included.
        needed: f64,
        /// Minutes of the longest session.
        longest: f64,
    },
    /// It needs daylight, and no session has so much of it.
    #[error(
        "{needed:.0} minutes of daylight at one go fit into no session; the most light in one is \
         {longest:.0} minutes: shorten the step, let it be split, or work by lamp"
    )]
    TooLittleDaylight {
        /// Minutes it needs.
        needed: f64,
        /// Minutes of daylight in the lightest session.
        longest: f64,
    },
    /// The film never gets there.
    #[error("the film below does not become {} within 400 days in this air", .0.word())]
    NeverReady(Need),
    /// No place where it can lie flat.
    #[error("there is no flat place in the studio for wet varnish: set at least one")]
    NoFlatPlace,
    /// It stands on a step that cannot be placed.
    #[error("it stands on a step that cannot be placed")]
    Below,
    /// The step says too little.
    #[error("{0}")]
    Coat(String),
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
    /// The day it must be ready.
    pub due: Option<NaiveDate>,
    /// Calendar days from the due day to the finish, 0 when in time.
    pub days_late: Option<i64>,
}

/// What a plan is judged by, in this order.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Objective {
    /// Days late, weighted by the pictures.
    pub weighted_days_late: f64,
    /// Minutes from the start of planning to each picture's finish, summed.
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
}
