//! What is said of a studio as it stands.

use crate::formats::words;
use crate::routes::shared::SpanOut;
use chrono::{DateTime, NaiveDate, Utc};
use serde::{Deserialize, Serialize};
use ulvek_core::colour::UNDERPAINTINGS;
use ulvek_core::film::{Events, FilmState};
use ulvek_core::mix::Swatch;
use ulvek_core::picture::{Need, Picture, Place, ReadyBy};
use ulvek_core::planner::{AgendaEntry, CoatOutlook, PlannedStep};
use ulvek_core::readiness::Wait;
use ulvek_core::rules::{Finding, Severity};
use ulvek_core::studio::Studio;
use ulvek_core::time::instant;
use utoipa::ToSchema;
use uuid::Uuid;

/// The room at one moment.
#[derive(Serialize, ToSchema)]
pub struct AirOut {
    /// From when it stands.
    pub at: DateTime<Utc>,
    /// Temperature [C].
    pub temperature_c: f64,
    /// Relative humidity, fraction of 1.
    pub relative_humidity: f64,
}

/// When a film reaches each state; `null` when not before the next coat, or not in 400 days.
#[derive(Serialize, ToSchema)]
pub struct StatesOut {
    /// Leave it alone from here.
    #[schema(required)]
    pub setting_at: Option<DateTime<Utc>>,
    /// A fingertip takes nothing.
    #[schema(required)]
    pub touch_dry_at: Option<DateTime<Utc>>,
    /// The next coat is safe.
    #[schema(required)]
    pub paintable_at: Option<DateTime<Utc>>,
    /// Sand, stencil, tape.
    #[schema(required)]
    pub dry_through_at: Option<DateTime<Utc>>,
    /// Varnish or isolation coat, by the computed cure alone.
    #[schema(required)]
    pub ready_to_seal_at: Option<DateTime<Utc>>,
}

impl From<&Events> for StatesOut {
    fn from(events: &Events) -> Self {
        let at = |state| events.at(state).map(instant);
        Self {
            setting_at: at(FilmState::Setting),
            touch_dry_at: at(FilmState::TouchDry),
            paintable_at: at(FilmState::Paintable),
            dry_through_at: at(FilmState::DryThrough),
            ready_to_seal_at: at(FilmState::ReadyToSeal),
        }
    }
}

/// A coat, laid or planned.
#[derive(Serialize, ToSchema)]
pub struct CoatOut {
    /// The step's name within the picture.
    pub step: String,
    /// What the painter calls it.
    pub title: String,
    /// Whether it seals the picture.
    pub seals: bool,
    /// Whether it is only planned.
    pub planned: bool,
    /// When its drying starts.
    pub laid_at: DateTime<Utc>,
    /// Wet thickness as laid [um].
    pub wet_um: f64,
    /// Its own colour, `#rrggbb`: dry, alone over a white card.
    pub swatch: String,
    /// States before the next coat.
    pub states: StatesOut,
    /// States if nothing more were laid.
    pub if_left: StatesOut,
    /// Whether `if_left` was followed to its end; in an outlook only the last laid coat's is,
    /// and deep in a stack of hundreds none.
    pub followed: bool,
    /// The same as is expected: as often later as earlier. Not said where it is not followed, or the
    /// studio wants no more than that.
    #[schema(required)]
    pub likely: Option<StatesOut>,
    /// From when the next sealing coat may be laid on it if nothing else is: film and the schools'
    /// floors, by the one law.
    #[schema(required)]
    pub seal_from: Option<DateTime<Utc>>,
    /// Whether paint is still to come over it below the next sealing coat.
    pub paint_to_come: bool,
}

impl CoatOut {
    /// A coat of `picture` in its studio.
    pub fn of(picture: &Picture, coat: &CoatOutlook, own: Swatch) -> Self {
        let step = &picture.steps[coat.history.coat.step];
        Self {
            step: step.id.clone(),
            title: step.title().to_owned(),
            seals: step.kind.seals(),
            planned: coat.planned,
            laid_at: instant(coat.history.coat.at),
            wet_um: coat.history.coat.wet_m * 1e6,
            swatch: own.to_hex(),
            states: StatesOut::from(&coat.history.events),
            if_left: StatesOut::from(&coat.history.if_left),
            followed: coat.history.followed,
            likely: coat.history.likely.as_ref().map(StatesOut::from),
            seal_from: coat.seal_from.map(instant),
            paint_to_come: coat.paint_to_come,
        }
    }
}

/// Why a step does not start at once.
#[derive(Serialize, ToSchema)]
pub struct WaitOut {
    /// The state it needs.
    #[schema(schema_with = words::api::need)]
    pub state: Need,
    /// Title of the step waited for, if it is one.
    #[schema(required)]
    pub of: Option<String>,
    /// When the wait is over.
    pub until: DateTime<Utc>,
    /// Minutes from the end of that step to then.
    pub lag_min: f64,
    /// Why it waits, as a sentence without its end.
    pub because: String,
    /// When the film alone would be ready.
    #[schema(required)]
    pub film_ready: Option<DateTime<Utc>>,
}

impl WaitOut {
    /// Why a step of `picture` waits.
    pub fn of(wait: &Wait, picture: &Picture) -> Self {
        Self {
            state: wait.state,
            of: wait.of.map(|of| picture.steps[of].title().to_owned()),
            until: wait.until,
            lag_min: wait.lag_min,
            because: wait.said(picture),
            film_ready: wait.film_ready,
        }
    }
}

/// A step still to do.
#[derive(Serialize, ToSchema)]
pub struct PlannedOut {
    /// The step's name within the picture.
    pub step: String,
    /// What the painter calls it.
    pub title: String,
    /// Its sittings; empty when it cannot be placed.
    pub sittings: Vec<SpanOut>,
    /// What it waits for.
    #[schema(required)]
    pub waits_for: Option<WaitOut>,
    /// What is odd about the time it was pinned to, in words.
    #[schema(required)]
    pub pin: Option<String>,
    /// Why it cannot be placed.
    #[schema(required)]
    pub blocked: Option<String>,
    /// What the full cup weighed, when it was weighed [g].
    #[schema(required)]
    pub cup_g: Option<f64>,
    /// What goes into its cup; nothing for a step that leaves no film.
    pub recipe: Vec<PouredOut>,
    /// What the tub is called that it is painted from.
    #[schema(required)]
    pub tub: Option<String>,
}

/// One part of a cup.
#[derive(Serialize, ToSchema)]
pub struct PouredOut {
    /// What it is called on the shelf.
    pub name: String,
    /// How much [ml].
    pub ml: f64,
    /// The same in drops of a bench pipette.
    pub drops: f64,
}

impl PlannedOut {
    /// A planned step of `studio`.
    pub fn of(planned: &PlannedStep, studio: &Studio) -> Self {
        let picture = &studio.pictures[planned.picture];
        let step = &picture.steps[planned.step];
        Self {
            step: step.id.clone(),
            title: step.title().to_owned(),
            sittings: planned.sittings.iter().map(|s| SpanOut::new((s.from, s.to))).collect(),
            waits_for: planned.wait.as_ref().map(|wait| WaitOut::of(wait, picture)),
            pin: planned.pin.as_ref().and_then(|pin| pin.said(studio)),
            blocked: planned.blocked.as_ref().map(ToString::to_string),
            cup_g: step.cup_g,
            recipe: studio
                .recipe(planned.picture, planned.step)
                .into_iter()
                .map(|part| PouredOut {
                    name: studio.material(&part.material).map_or(part.material, |m| m.name.clone()),
                    ml: part.ml,
                    drops: part.drops,
                })
                .collect(),
            tub: step.tub.as_deref().and_then(|id| studio.tub(id)).map(|t| t.name.clone()),
        }
    }
}

/// A rule broken.
#[derive(Serialize, ToSchema)]
pub struct FindingOut {
    /// The rule's name.
    pub rule: String,
    /// How much it weighs.
    #[schema(schema_with = words::api::severity)]
    pub severity: Severity,
    /// The step's name within the picture.
    pub step: String,
    /// What the painter calls it.
    pub title: String,
    /// What is wrong.
    pub what: String,
    /// What to do.
    pub remedy: String,
    /// Where the rule comes from.
    pub provenance: String,
    /// The painter's word on it, when it was set aside.
    #[schema(required)]
    pub set_aside: Option<AsideOut>,
}

impl FindingOut {
    /// A finding on `picture`.
    pub fn of(finding: &Finding, picture: &Picture) -> Self {
        let step = &picture.steps[finding.step];
        let aside = finding.set_aside.as_ref();
        Self {
            rule: finding.rule.into(),
            severity: finding.severity,
            step: step.id.clone(),
            title: step.title().into(),
            what: finding.what.clone(),
            remedy: finding.remedy.clone(),
            provenance: finding.provenance.into(),
            set_aside: aside.map(|a| AsideOut { reason: a.reason.clone(), at: a.at }),
        }
    }
}

/// Why a finding was set aside, and when.
#[derive(Serialize, ToSchema)]
pub struct AsideOut {
    /// Why, in the painter's words.
    pub reason: String,
    /// When.
    pub at: DateTime<Utc>,
}

/// Something planned work needs more of than there is.
#[derive(Serialize, ToSchema)]
pub struct ShortageOut {
    /// Its name on the shelf.
    pub of: String,
    /// What it is called.
    pub name: String,
    /// Whether it is a tub.
    pub tub: bool,
    /// What is left now [ml].
    pub left_ml: f64,
    /// What is needed up to and with the first step that runs short [ml].
    pub needs_ml: f64,
    /// The picture of that step.
    pub picture: Uuid,
    /// Its title.
    pub picture_title: String,
    /// What the painter calls the step.
    pub title: String,
    /// When that step is planned.
    #[schema(required)]
    pub at: Option<DateTime<Utc>>,
}

/// One picture as it stands and as it is planned.
#[derive(Serialize, ToSchema)]
pub struct PictureOutlook {
    /// Its key.
    pub id: Uuid,
    /// Its version.
    pub version: i64,
    /// Title.
    pub title: String,
    /// Width [cm].
    pub width_cm: f64,
    /// Height [cm].
    pub height_cm: f64,
    /// Its last photograph: painters know their pictures by sight.
    #[schema(required)]
    pub photograph: Option<Uuid>,
    /// The day it must be ready.
    #[schema(required)]
    pub due: Option<NaiveDate>,
    /// End of the last step's hands-on work; `null` while a step cannot be placed.
    #[schema(required)]
    pub finish: Option<DateTime<Utc>>,
    /// Days after the due day; 0 in time.
    #[schema(required)]
    pub days_late: Option<i64>,
    /// What is meant by it being ready.
    #[schema(schema_with = words::api::ready_by)]
    pub ready_by: ReadyBy,
    /// Steps in all, and done.
    pub steps: usize,
    /// Steps done.
    pub done: usize,
    /// Coats in order of time.
    pub coats: Vec<CoatOut>,
    /// Steps still to do, in order of time.
    pub plan: Vec<PlannedOut>,
    /// Rules broken.
    pub findings: Vec<FindingOut>,
}

/// A studio as it stands at one moment.
#[derive(Serialize, ToSchema)]
pub struct Outlook {
    /// The moment.
    pub now: DateTime<Utc>,
    /// IANA name of the studio's time zone.
    pub time_zone: String,
    /// The painter's hours from yesterday to a week ahead.
    pub sessions: Vec<SpanOut>,
    /// The room, hour by hour over the same time.
    pub air: Vec<AirOut>,
    /// The pictures.
    pub pictures: Vec<PictureOutlook>,
    /// What planned work runs short of.
    pub shortages: Vec<ShortageOut>,
}

/// The film of one picture over time, coat by coat.
#[derive(Serialize, ToSchema)]
pub struct Strata {
    /// The moment it was computed for.
    pub now: DateTime<Utc>,
    /// The picture as it stands and as it is planned.
    pub outlook: PictureOutlook,
    /// Water the ground can take up [um].
    pub absorbs_um: f64,
    /// The painter's hours over the time that is shown.
    pub sessions: Vec<SpanOut>,
    /// Moments, in order.
    pub frames: Vec<DateTime<Utc>>,
    /// One per coat: its film from the frame where it begins.
    pub films: Vec<FilmOut>,
    /// What is seen from the front: over the lights of the underpainting, over its darks; or one row when
    /// there is no underpainting.
    pub face: Vec<PlaceOut>,
    /// What is not known of the colours, a sentence for each material.
    pub untold: Vec<String>,
}

/// What is seen at one place of the underpainting.
#[derive(Serialize, ToSchema)]
pub struct PlaceOut {
    /// Which: `lights`, `darks`, or `all`.
    pub place: &'static str,
    /// After each coat, `#rrggbb`.
    pub seen: Vec<String>,
}

impl PlaceOut {
    /// A place, by what its underpainting is.
    pub fn of(place: &Place) -> Self {
        let name = match place.value {
            Some(value) if value > UNDERPAINTINGS.0 => "lights",
            Some(_) => "darks",
            None => "all",
        };
        Self { place: name, seen: place.seen.iter().map(|s| s.to_hex()).collect() }
    }
}

/// When coats of a picture reach their states in few, half and most of the futures.
#[derive(Serialize, ToSchema)]
pub struct Spread {
    /// The shares of the futures, in order.
    pub shares: Vec<f64>,
    /// The last laid coat and those to come.
    pub coats: Vec<SpreadOut>,
}

/// The spread of one coat.
#[derive(Serialize, ToSchema)]
pub struct SpreadOut {
    /// The step's name within the picture.
    pub step: String,
    /// What the painter calls it.
    pub title: String,
    /// One for each share.
    pub states: Vec<StatesOut>,
}

/// The film of one coat.
#[derive(Serialize, ToSchema)]
pub struct FilmOut {
    /// Index of the frame where it begins.
    pub from: usize,
    /// Thickness at each frame [um].
    pub um: Vec<f32>,
    /// State at each frame.
    #[schema(schema_with = words::api::states)]
    pub state: Vec<FilmState>,
}

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
            title: picture.steps[entry.step].title().to_owned(),
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
