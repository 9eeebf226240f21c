//! The week as a sheet, and the calendar, as they are asked for and sent.

use crate::routes::shared::{DateOut, SpanOut};
use chrono::{DateTime, NaiveDate, Utc};
use serde::{Deserialize, Serialize};
use ulvek_core::planner::AgendaEntry;
use ulvek_core::studio::Studio;
use utoipa::ToSchema;
use uuid::Uuid;

/// Which pictures a calendar holds.
#[derive(Deserialize)]
pub struct CalendarAsked {
    /// One alone.
    pub picture: Option<Uuid>,
}

/// Seven days of work.
#[derive(Serialize, ToSchema)]
pub struct Week {
    /// The moment it was computed for.
    pub now: DateTime<Utc>,
    /// The studio's name.
    pub studio: String,
    /// IANA name of its time zone.
    pub time_zone: String,
    /// The days, in order.
    pub days: Vec<WeekDay>,
    /// What is said of the date of each picture that is not finished.
    pub dates: Vec<WeekDate>,
}

/// The date of one picture.
#[derive(Serialize, ToSchema)]
pub struct WeekDate {
    /// Its key.
    pub id: Uuid,
    /// Its title.
    pub title: String,
    /// What is said of it by its plan.
    pub date: DateOut,
}

/// One day.
#[derive(Serialize, ToSchema)]
pub struct WeekDay {
    /// The day.
    pub day: NaiveDate,
    /// The painter's hours.
    pub sessions: Vec<SpanOut>,
    /// What is to be done, in order of time.
    pub work: Vec<WeekWork>,
}

/// One sitting.
#[derive(Serialize, ToSchema)]
pub struct WeekWork {
    /// The picture's key.
    pub picture: Uuid,
    /// Its title.
    pub picture_title: String,
    /// What the painter calls the step.
    pub title: String,
    /// Start of hands-on work.
    pub from: DateTime<Utc>,
    /// End.
    pub to: DateTime<Utc>,
    /// Which of its sittings it is, from 1.
    pub sitting: usize,
    /// How many there are.
    pub of: usize,
    /// Why not before, as a sentence without its end.
    #[schema(required)]
    pub because: Option<String>,
    /// What to mix, in a line; `null` when nothing is.
    #[schema(required)]
    pub cup: Option<String>,
    /// What to do beside it: "Humidifier on from 16:45", "Mist the palette every 15 min".
    pub beside: Vec<String>,
    /// What to take care of.
    pub care: Vec<String>,
}

impl WeekWork {
    /// One sitting with what is to be taken care of.
    pub fn of(entry: &AgendaEntry, studio: &Studio, id: Uuid, care: Vec<String>) -> Self {
        let picture = &studio.pictures[entry.picture];
        Self {
            picture: id,
            picture_title: picture.title.clone(),
            title: picture.steps[entry.step].called(),
            from: entry.from,
            to: entry.to,
            sitting: entry.n + 1,
            of: entry.of,
            because: entry.because.clone(),
            cup: entry.cup.clone(),
            beside: entry.beside.clone(),
            care,
        }
    }
}

/// Where a sheet begins.
#[derive(Deserialize)]
pub struct WeekAsked {
    /// Its first day; today when not said.
    pub from: Option<NaiveDate>,
}
