//! The week sheet: what to do on which day and what to mix for it, to be printed.

use super::computed::sessions;
use super::view::{Of, view};
use super::wire::SpanOut;
use crate::extract::{Asked, Key};
use crate::formats::{a_day, beside, cup_line, why};
use crate::problem::Problem;
use crate::state::App;
use axum::extract::State;
use axum::http::HeaderMap;
use axum::response::Response;
use chrono::{DateTime, Days, NaiveDate, Utc};
use serde::{Deserialize, Serialize};
use ulvek_core::planner::Plan;
use ulvek_core::rules::Finding;
use ulvek_core::studio::StudioDocument;
use ulvek_store::StoredStudio;
use utoipa::ToSchema;
use uuid::Uuid;

/// Days on a sheet.
const DAYS: u64 = 7;

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

/// Where a sheet begins.
#[derive(Deserialize)]
pub struct WeekAsked {
    from: Option<NaiveDate>,
}

/// Seven days of work with the cups to mix, from a day or from today.
#[utoipa::path(get, operation_id = "week", path = "/api/studios/{id}/week", tag = "season",
    params(("id" = Uuid, Path), ("from" = Option<NaiveDate>, Query)),
    responses((status = 200, body = Week), (status = 304, description = "nothing changed")))]
pub async fn week(
    State(app): State<App>,
    Key(id): Key,
    Asked(asked): Asked<WeekAsked>,
    headers: HeaderMap,
) -> Result<Response, Problem> {
    let from = asked.from.map(|day| a_day("from", day)).transpose()?;
    view(&app, Of::Studio(id), &headers, format!("week {from:?}"), move |scene| {
        let (stored, now) = (&scene.loaded.stored, scene.now);
        let document = &stored.document;
        let (made, findings) =
            scene.app.desks.at(&scene.loaded, |desk| (desk.plan(now), desk.findings(now)));
        let from = from.unwrap_or_else(|| document.hours.day(now));
        let days = (0..DAYS)
            .filter_map(|n| from.checked_add_days(Days::new(n)))
            .map(|day| week_day(stored, &made, &findings, day));
        Ok(Week {
            now,
            studio: document.name.clone(),
            time_zone: document.hours.zone().name().to_owned(),
            days: days.collect(),
        })
    })
    .await
}

fn week_day(stored: &StoredStudio, made: &Plan, findings: &[Finding], day: NaiveDate) -> WeekDay {
    let document: &StudioDocument = &stored.document;
    let (from, to) = (document.hours.start_of(day), document.hours.end_of(day));
    let mut work = Vec::new();
    for planned in &made.steps {
        let picture = &document.pictures[planned.picture];
        let step = &picture.steps[planned.step];
        for (n, sitting) in planned.sittings.iter().enumerate() {
            if sitting.from < from || sitting.from >= to {
                continue;
            }
            let mine = |f: &&Finding| f.picture == planned.picture && f.step == planned.step;
            work.push(WeekWork {
                picture: stored.pictures[planned.picture].id,
                picture_title: picture.title.clone(),
                title: step.title().to_owned(),
                from: sitting.from,
                to: sitting.to,
                sitting: n + 1,
                of: planned.sittings.len(),
                because: planned.wait.as_ref().map(|w| why(w, picture.steps[w.of].title())),
                cup: (n == 0).then(|| cup_line(document, picture, step)).flatten(),
                beside: if n == 0 { beside(document, planned) } else { Vec::new() },
                care: findings
                    .iter()
                    .filter(mine)
                    .filter(|f| f.set_aside.is_none())
                    .map(|f| f.what.clone())
                    .collect(),
            });
        }
    }
    work.sort_by_key(|w| w.from);
    WeekDay { day, sessions: sessions(document, from, to), work }
}
