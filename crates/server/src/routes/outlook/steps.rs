//! Coats, planned steps and findings of a picture, as they are sent.

use crate::formats::words;
use crate::routes::shared::SpanOut;
use chrono::{DateTime, Utc};
use serde::Serialize;
use ulvek_core::film::{Events, FilmState};
use ulvek_core::mix::Swatch;
use ulvek_core::picture::{Need, Picture};
use ulvek_core::planner::{CoatOutlook, PlannedStep};
use ulvek_core::readiness::Wait;
use ulvek_core::rules::{Finding, Severity};
use ulvek_core::studio::Studio;
use ulvek_core::time::instant;
use utoipa::ToSchema;

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
    /// What the painter calls it, with its section.
    pub title: String,
    /// The same without.
    pub name: String,
    /// The section of the picture it lies on; all over when there is none.
    #[schema(required)]
    pub section: Option<String>,
    /// Whether it seals the picture.
    pub seals: bool,
    /// Whether it is only planned.
    pub planned: bool,
    /// Whether it is the last laid coat somewhere: of several sections each has one.
    pub on_top: bool,
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
            title: step.called(),
            name: step.title().to_owned(),
            section: picture.section_at(coat.history.coat.place).map(str::to_owned),
            seals: step.kind.seals(),
            planned: coat.planned,
            on_top: coat.on_top,
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
            of: wait.of.map(|of| picture.steps[of].called()),
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
    /// How much [ml].
    pub ml: f64,
    /// It as it is poured, with what it is called on the shelf: "0.38 ml Retarder, 8 drops".
    pub said: String,
}

impl PlannedOut {
    /// A planned step of `studio`.
    pub fn of(planned: &PlannedStep, studio: &Studio) -> Self {
        let picture = &studio.pictures[planned.picture];
        let step = &picture.steps[planned.step];
        Self {
            step: step.id.clone(),
            title: step.called(),
            sittings: planned.sittings.iter().map(|s| SpanOut::new((s.from, s.to))).collect(),
            waits_for: planned.wait.as_ref().map(|wait| WaitOut::of(wait, picture)),
            pin: planned.pin.as_ref().and_then(|pin| pin.said(studio)),
            blocked: planned.blocked.as_ref().map(ToString::to_string),
            cup_g: step.cup_g,
            recipe: studio
                .recipe(planned.picture, planned.step)
                .into_iter()
                .map(|part| {
                    let name = studio.material(&part.material).map_or(&part.material, |m| &m.name);
                    PouredOut { ml: part.ml, said: part.said(name) }
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
            title: step.called(),
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
