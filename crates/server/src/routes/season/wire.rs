//! What the season says over the wire.

use crate::formats::{OrderEntryDoc, PictureDoc, StudioDoc, words};
use crate::routes::outlook::wire::WaitOut;
use crate::routes::shared::{DateOut, SpanOut};
use chrono::{DateTime, NaiveDate, Utc};
use serde::{Deserialize, Serialize};
use ulvek_core::air::RoomChange;
use ulvek_core::film::FilmState;
use ulvek_core::picture::{Picture, ReadyBy};
use ulvek_core::planner::{Link, Objective, PlannedStep};
use ulvek_core::studio::Studio;
use utoipa::ToSchema;
use uuid::Uuid;

/// Changes that are tried, not yet made: whole settings and whole pictures, each with the version
/// it was made on.
#[derive(Debug, Clone, Default, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Draft {
    /// Other settings of the studio.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub studio: Option<DraftStudio>,
    /// What is done to the room from now on.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub room: Option<DraftRoom>,
    /// Other pictures.
    #[serde(default)]
    pub pictures: Vec<DraftPicture>,
}

/// Settings in a draft.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DraftStudio {
    /// The version the draft was made on.
    pub version: i64,
    /// Hours, places, schools, order of work.
    pub studio: StudioDoc,
}

/// A room that is changed in a draft.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DraftRoom {
    /// The version of the air the draft was made on.
    pub version: i64,
    /// How much warmer it is made [K].
    pub warmer_k: f64,
    /// How much damper, in relative humidity as a fraction of 1; negative is drier.
    pub damper: f64,
    /// The least speed of the air over the pictures [m/s].
    pub least_speed_m_s: f64,
}

/// A picture in a draft.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DraftPicture {
    /// Its key.
    pub id: Uuid,
    /// The version the draft was made on.
    pub version: i64,
    /// The picture.
    pub picture: PictureDoc,
}

/// How far a long computation is.
#[derive(Serialize, ToSchema)]
pub struct Going {
    /// Parts that are done.
    pub done: u64,
    /// Parts in all; 0 before that is known.
    pub of: u64,
}

/// A draft to be kept.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Accept {
    /// What is done, for undo: "pin Glaze 3".
    pub label: String,
    /// The changes, all kept or none.
    pub draft: Draft,
}

/// What was kept together, with the versions it has now; to be sent back to take it back.
#[derive(Debug, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Kept {
    /// The version of the settings, when they were changed.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub studio: Option<i64>,
    /// The version of the air, when it was changed.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub air: Option<i64>,
    /// The pictures that were changed.
    #[serde(default)]
    pub pictures: Vec<KeptPicture>,
}

/// A picture that was changed.
#[derive(Debug, Clone, Copy, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct KeptPicture {
    /// Its key.
    pub id: Uuid,
    /// Its version now.
    pub version: i64,
}

/// What a plan is judged by, in this order.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct ObjectiveOut {
    /// Days late, weighted by the pictures.
    pub weighted_days_late: f64,
    /// Coats painted from a tub past its last good day.
    pub past_tubs: u32,
    /// Minutes from now to each picture's finish, summed.
    pub sum_of_finish_min: f64,
    /// Changes of picture or mix.
    pub set_ups: u32,
}

impl From<Objective> for ObjectiveOut {
    fn from(o: Objective) -> Self {
        Self {
            weighted_days_late: o.weighted_days_late,
            past_tubs: o.past_tubs,
            sum_of_finish_min: o.sum_of_finish_min,
            set_ups: o.set_ups,
        }
    }
}

/// All pictures to their dates.
#[derive(Serialize, ToSchema)]
pub struct Season {
    /// The moment it was computed for.
    pub now: DateTime<Utc>,
    /// IANA name of the studio's time zone.
    pub time_zone: String,
    /// Version of the studio's settings.
    pub version: i64,
    /// End of what is shown.
    pub until: DateTime<Utc>,
    /// The painter's hours from a week ago to the end.
    pub sessions: Vec<SpanOut>,
    /// How good the plan is.
    pub objective: ObjectiveOut,
    /// Its order of work.
    pub order: Vec<OrderEntryDoc>,
    /// The pictures.
    pub pictures: Vec<SeasonPicture>,
}

/// One picture to its date.
#[derive(Serialize, ToSchema)]
pub struct SeasonPicture {
    /// Its key.
    pub id: Uuid,
    /// Its version.
    pub version: i64,
    /// Its name within the studio, as in an order of work.
    pub code: String,
    /// Title.
    pub title: String,
    /// Weight against the others.
    pub weight: f64,
    /// The day it must be ready.
    #[schema(required)]
    pub due: Option<NaiveDate>,
    /// When the due day has no hours: the last hours before it.
    #[schema(required)]
    pub last_hours: Option<SpanOut>,
    /// End of the last step's hands-on work.
    #[schema(required)]
    pub finish: Option<DateTime<Utc>>,
    /// Days after the due day; 0 in time.
    #[schema(required)]
    pub days_late: Option<i64>,
    /// What is said of its date by the plan.
    pub date: DateOut,
    /// What is meant by it being ready.
    #[schema(schema_with = words::api::ready_by)]
    pub ready_by: ReadyBy,
    /// When it could be finished if there were no other picture.
    #[schema(required)]
    pub earliest: Option<DateTime<Utc>>,
    /// Whether every step is done.
    pub done: bool,
    /// What was done, in order of time.
    pub laid: Vec<LaidOut>,
    /// Sittings still to come, in order of time.
    pub work: Vec<WorkOut>,
    /// Steps that cannot be placed.
    pub blocked: Vec<BlockedOut>,
    /// The film over time.
    pub film: Vec<FilmPoint>,
    /// What fixes its end, from the first link to the last.
    pub held_by: Vec<HeldOut>,
}

/// A step that is done.
#[derive(Serialize, ToSchema)]
pub struct LaidOut {
    /// The step's name within the picture.
    pub step: String,
    /// What the painter calls it.
    pub title: String,
    /// When.
    pub at: DateTime<Utc>,
}

/// One sitting at a step.
#[derive(Serialize, ToSchema)]
pub struct WorkOut {
    /// The step's name within the picture.
    pub step: String,
    /// What the painter calls it.
    pub title: String,
    /// Start of hands-on work.
    pub from: DateTime<Utc>,
    /// End.
    pub to: DateTime<Utc>,
    /// Which of its sittings it is, from 1.
    pub sitting: usize,
    /// How many there are.
    pub of: usize,
    /// Where the painter pinned the step.
    #[schema(required)]
    pub pinned_at: Option<DateTime<Utc>>,
    /// What is odd about that time, in words.
    #[schema(required)]
    pub pin: Option<String>,
    /// What it waits for.
    #[schema(required)]
    pub waits_for: Option<WaitOut>,
}

/// A step that cannot be placed.
#[derive(Serialize, ToSchema)]
pub struct BlockedOut {
    /// The step's name within the picture.
    pub step: String,
    /// What the painter calls it.
    pub title: String,
    /// Why.
    pub why: String,
}

/// The film at one moment.
#[derive(Serialize, ToSchema)]
pub struct FilmPoint {
    /// The moment.
    pub at: DateTime<Utc>,
    /// Thickness of all coats [um].
    pub um: f32,
    /// What the stack allows.
    #[schema(schema_with = words::api::state)]
    pub state: FilmState,
}

/// One link of the chain that fixes a picture's end.
#[derive(Serialize, ToSchema)]
pub struct HeldOut {
    /// The step's name within the picture.
    pub step: String,
    /// What the painter calls it.
    pub title: String,
    /// When it begins.
    pub from: DateTime<Utc>,
    /// When it is done.
    pub to: DateTime<Utc>,
    /// What it waits for, as a sentence without its end.
    #[schema(required)]
    pub because: Option<String>,
    /// When that wait is over.
    #[schema(required)]
    pub until: Option<DateTime<Utc>>,
    /// What keeps it after that: "the next hours", or other work.
    #[schema(required)]
    pub then: Option<String>,
    /// Minutes between the end of the wait and the beginning.
    pub idle_min: f64,
}

/// What holds a picture most.
#[derive(Serialize, ToSchema)]
pub struct CauseOut {
    /// In a sentence; nothing where no one thing holds it by a day.
    #[schema(required)]
    pub said: Option<String>,
}

/// Odds of the dates in sampled futures.
#[derive(Serialize, ToSchema)]
pub struct Odds {
    /// Futures that were sampled.
    pub futures: usize,
    /// The pictures.
    pub pictures: Vec<PictureOddsOut>,
}

/// Odds of one picture.
#[derive(Serialize, ToSchema)]
pub struct PictureOddsOut {
    /// Its key.
    pub id: Uuid,
    /// What is said of its date by these odds.
    pub date: DateOut,
    /// Probability that it is finished on its day, fraction of 1.
    #[schema(required)]
    pub on_day: Option<f64>,
    /// The same in words: "6 in 10".
    #[schema(required)]
    pub told: Option<String>,
    /// What it would be a day earlier and a day later, in a sentence, where that is not the same.
    #[schema(required)]
    pub beside: Option<String>,
    /// The day by which one in ten futures has it finished.
    #[schema(required)]
    pub day_10: Option<NaiveDate>,
    /// The day by which half have.
    #[schema(required)]
    pub day_50: Option<NaiveDate>,
    /// The day that has 90 %.
    #[schema(required)]
    pub day_90: Option<NaiveDate>,
}

/// Which picture's date is to be made.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct WaysAsk {
    /// Its key.
    pub picture: Uuid,
}

/// A way to make a date.
#[derive(Serialize, ToSchema)]
pub struct DateWayOut {
    /// The change in words.
    pub what: String,
    /// What is risked or lost.
    pub risk: String,
    /// From 1, little, to 5, much; of several changes together the greatest, and one for each further.
    pub harm: u8,
    /// Minutes by which the picture is finished earlier; `null` when it could not be finished.
    #[schema(required)]
    pub gain_min: Option<f64>,
    /// When it is finished then.
    #[schema(required)]
    pub finish: Option<DateTime<Utc>>,
    /// Days late that are left.
    pub days_late: i64,
    /// What is then said of its date, by its odds.
    pub date: DateOut,
    /// Weighted days by which other pictures become later.
    pub others_later: f64,
    /// The change, to be opened beside the present plan.
    pub draft: Draft,
}

/// How long to search.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SearchAsk {
    /// Seconds, at most 600.
    pub seconds: f64,
}

/// A search for a better order of work.
#[derive(Clone, Serialize, ToSchema)]
pub struct SearchOut {
    /// Whether it still runs.
    pub running: bool,
    /// When it began.
    pub began: DateTime<Utc>,
    /// Seconds it may take.
    pub seconds: f64,
    /// Seconds it took so far.
    pub took_s: f64,
    /// Orders tried.
    pub tried: u64,
    /// The plan it began with.
    pub start: ObjectiveOut,
    /// The best plan so far.
    pub best: ObjectiveOut,
    /// Whether the best plan is better than the one it began with.
    pub better: bool,
    /// What no plan that was seen beats.
    pub bound: ObjectiveOut,
    /// Whether the best plan is at the bound.
    pub at_bound: bool,
    /// Version of the settings it was made on.
    pub version: i64,
    /// The best order of work, once the search has ended.
    pub order: Vec<OrderEntryDoc>,
}

impl DraftRoom {
    /// The change as a draft holds it.
    pub const fn of(change: &RoomChange, version: i64) -> Self {
        Self {
            version,
            warmer_k: change.warmer_k,
            damper: change.damper,
            least_speed_m_s: change.least_speed_m_s,
        }
    }

    /// The change.
    pub const fn read(&self) -> RoomChange {
        RoomChange {
            warmer_k: self.warmer_k,
            damper: self.damper,
            least_speed_m_s: self.least_speed_m_s,
        }
    }
}

impl WorkOut {
    /// Every sitting of a planned step of `studio`.
    pub fn all(planned: &PlannedStep, studio: &Studio) -> Vec<Self> {
        let picture = &studio.pictures[planned.picture];
        let step = &picture.steps[planned.step];
        let of = planned.sittings.len();
        let one = |(n, sitting): (usize, &ulvek_core::planner::Sitting)| Self {
            step: step.id.clone(),
            title: step.called(),
            from: sitting.from,
            to: sitting.to,
            sitting: n + 1,
            of,
            pinned_at: step.pinned_at,
            pin: planned.pin.as_ref().and_then(|pin| pin.said(studio)),
            waits_for: planned.wait.as_ref().map(|w| WaitOut::of(w, picture)),
        };
        planned.sittings.iter().enumerate().map(one).collect()
    }
}

impl HeldOut {
    /// One link of the chain that fixes the end of `picture`.
    pub fn of(link: &Link, studio: &Studio, picture: &Picture) -> Self {
        let step = &picture.steps[link.step];
        Self {
            step: step.id.clone(),
            title: step.called(),
            from: link.from,
            to: link.to,
            because: link.because(picture),
            until: link.wait.as_ref().map(|w| w.until),
            then: link.then(studio),
            idle_min: link.idle_min,
        }
    }
}
