//! A picture with its steps: shape, reading and writing.

use super::fields::{Hex, line};
use super::happened::HappeningDoc;
use super::mix::{PartDoc, mix_doc, read_mix};
use super::moment::Moment;
use super::seal::SealDoc;
use super::words;
use chrono::NaiveDate;
use chrono_tz::Tz;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use ulvek_core::film::Ground;
use ulvek_core::mix::{Swatch, Thinning};
use ulvek_core::picture::{
    Need, Picture, ReadyBy, SealRecord, SetAside, Step, StepKind, ThinningChoice, Touch, TouchTest,
};
use utoipa::ToSchema;

/// A picture.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PictureDoc {
    /// Its name in the document.
    pub id: String,
    /// Title.
    pub title: String,
    /// Width [cm].
    pub width_cm: f64,
    /// Height [cm].
    pub height_cm: f64,
    /// Weight against other pictures; 1 when not said.
    #[serde(default = "one")]
    pub weight: f64,
    /// The day it must be ready.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub due: Option<NaiveDate>,
    /// What must be so on that day; safe to wrap when not said.
    #[serde(default, skip_serializing_if = "is_wrapped")]
    #[schemars(schema_with = "words::json::ready_by")]
    #[schema(schema_with = words::api::ready_by)]
    pub ready_by: ReadyBy,
    /// Whether paint over a sealing coat is meant; without it such a step is refused.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub paint_over_seal: bool,
    /// The ground; sealed when not said.
    #[serde(default)]
    pub ground: GroundDoc,
    /// The steps in order.
    #[serde(default)]
    pub steps: Vec<StepDoc>,
    /// Another school of thinning than the studio's, and why.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub thinning: Option<ThinningDoc>,
    /// Findings that were set aside.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub set_aside: Vec<SetAsideDoc>,
    /// What fingertips felt on its coats.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub tests: Vec<TouchDoc>,
    /// What happened beside its coats.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub happened: Vec<HappeningDoc>,
    /// How it is sealed, and what was seen and decided on the way.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub seal: Option<SealDoc>,
}

/// Another school of thinning for one picture.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ThinningDoc {
    /// The school.
    #[schemars(schema_with = "words::json::thinning")]
    #[schema(schema_with = words::api::thinning)]
    pub school: Thinning,
    /// Why, in the painter's words.
    pub reason: String,
}

/// A finding that was set aside.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SetAsideDoc {
    /// The rule's name.
    pub rule: String,
    /// The step's name within the picture.
    pub step: String,
    /// Why, in the painter's words.
    pub reason: String,
    /// When.
    pub at: Moment,
}

fn is_wrapped(ready_by: &ReadyBy) -> bool {
    *ready_by == ReadyBy::Wrapped
}

const fn one() -> f64 {
    1.0
}

/// What the picture is painted on.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct GroundDoc {
    /// Water it takes up [um]: 0 sealed, 10 primed panel, 20 primed canvas, 60 paper, 100 raw.
    #[serde(default)]
    pub absorbs_um: f64,
    /// Delay with which it does [s].
    #[serde(default = "usual_delay")]
    pub delay_s: f64,
    /// Share of free evaporation from its back: 0 panel, 0.3 primed canvas, 0.5 paper, 1 raw canvas.
    #[serde(default)]
    pub back: f64,
    /// Its colour, `#rrggbb`.
    #[serde(default = "usual_colour")]
    #[schemars(with = "String")]
    #[schema(value_type = String)]
    pub colour: Hex,
}

const fn usual_colour() -> Hex {
    Hex(Picture::GROUND_COLOUR)
}

const fn usual_delay() -> f64 {
    Ground::SEALED.delay_s
}

impl Default for GroundDoc {
    fn default() -> Self {
        Self::of(&Ground::SEALED, Picture::GROUND_COLOUR)
    }
}

impl GroundDoc {
    /// Writes a ground of a colour.
    pub const fn of(ground: &Ground, colour: Swatch) -> Self {
        let Ground { absorbs_um, delay_s, back } = *ground;
        Self { absorbs_um, delay_s, back, colour: Hex(colour) }
    }

    /// The ground.
    pub const fn read(&self) -> Ground {
        Ground { absorbs_um: self.absorbs_um, delay_s: self.delay_s, back: self.back }
    }
}

/// A step on a picture.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct StepDoc {
    /// Its name within the picture.
    pub id: String,
    /// What it does.
    #[schemars(schema_with = "words::json::kind")]
    #[schema(schema_with = words::api::kind)]
    pub kind: StepKind,
    /// What the painter calls it; the kind's own word when not said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub name: Option<String>,
    /// Minutes of hands-on work.
    pub hands_on_min: f64,
    /// Wet film thickness [um]; a step that leaves a film needs it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub wet_film_um: Option<f64>,
    /// What goes into the cup.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub mix: Vec<PartDoc>,
    /// Share of the picture's area; all of it when not said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub share_of_area: Option<f64>,
    /// The section of the picture it lies on, as the painter calls it; all over when not said. What lies
    /// on one section is not under what lies on another.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub section: Option<String>,
    /// Whether it may be split over sessions; as usual for its kind when not said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub splittable: Option<bool>,
    /// The steps it stands on; the step before when not said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub after: Option<Vec<String>>,
    /// What it needs of the film below; what its kind needs when not said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schemars(schema_with = "words::json::need")]
    #[schema(schema_with = words::api::need)]
    pub needs: Option<Need>,
    /// Not to be started before.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub not_before: Option<Moment>,
    /// Shortest wait after what it stands on [min].
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub earliest_gap_min: Option<f64>,
    /// To be started at this very time, if what it stands on is ready by then.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub pinned_at: Option<Moment>,
    /// When the coat was there, or the step done.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub laid_at: Option<Moment>,
    /// The tub it is painted from; the mix is the tub's then.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tub: Option<String>,
    /// Share of the cup that stays in cup and brush; 0.15 when not said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub loss: Option<f64>,
    /// What the full cup weighed, brush and all, before the coat [g].
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub cup_g: Option<f64>,
}

impl PictureDoc {
    /// Writes a picture; times in `zone`.
    pub fn of(picture: &Picture, zone: Tz) -> Self {
        Self {
            id: picture.id.clone(),
            title: picture.title.clone(),
            width_cm: picture.width_cm,
            height_cm: picture.height_cm,
            weight: picture.weight,
            due: picture.due,
            ready_by: picture.ready_by,
            paint_over_seal: picture.paint_over_seal,
            ground: GroundDoc::of(&picture.ground, picture.ground_colour),
            steps: picture.steps.iter().map(|s| StepDoc::of(s, zone)).collect(),
            thinning: picture
                .thinning
                .as_ref()
                .map(|t| ThinningDoc { school: t.school, reason: t.reason.clone() }),
            set_aside: picture
                .set_aside
                .iter()
                .map(|a| SetAsideDoc {
                    rule: a.rule.clone(),
                    step: a.step.clone(),
                    reason: a.reason.clone(),
                    at: Moment::local(a.at, zone),
                })
                .collect(),
            tests: picture.tests.iter().map(|test| TouchDoc::of(test, zone)).collect(),
            happened: picture.happened.iter().map(|h| HappeningDoc::of(h, zone)).collect(),
            seal: SealDoc::of(&picture.seal, zone),
        }
    }

    /// The picture; whether it may be is the check's to say.
    pub fn read(&self) -> Picture {
        Picture {
            id: line(&self.id),
            title: line(&self.title),
            width_cm: self.width_cm,
            height_cm: self.height_cm,
            weight: self.weight,
            due: self.due,
            ready_by: self.ready_by,
            paint_over_seal: self.paint_over_seal,
            ground: self.ground.read(),
            ground_colour: self.ground.colour.0,
            steps: self.steps.iter().map(StepDoc::read).collect(),
            thinning: self
                .thinning
                .as_ref()
                .map(|own| ThinningChoice { school: own.school, reason: line(&own.reason) }),
            set_aside: self
                .set_aside
                .iter()
                .map(|one| SetAside {
                    rule: line(&one.rule),
                    step: line(&one.step),
                    reason: line(&one.reason),
                    at: one.at.utc(),
                })
                .collect(),
            tests: in_order(&self.tests),
            happened: super::happened::in_order(&self.happened),
            seal: self.seal.as_ref().map_or_else(SealRecord::default, SealDoc::read),
        }
    }
}

impl StepDoc {
    /// Writes a step; times in `zone`.
    pub fn of(step: &Step, zone: Tz) -> Self {
        Self {
            id: step.id.clone(),
            kind: step.kind,
            name: step.name.clone(),
            hands_on_min: step.hands_on_min,
            wet_film_um: step.wet_film_um,
            mix: mix_doc(&step.mix),
            share_of_area: Some(step.share_of_area),
            section: step.section.clone(),
            splittable: Some(step.splittable),
            after: step.after.clone(),
            needs: step.needs,
            not_before: step.not_before.map(|t| Moment::local(t, zone)),
            earliest_gap_min: step.earliest_gap_min,
            pinned_at: step.pinned_at.map(|t| Moment::local(t, zone)),
            laid_at: step.laid_at.map(|t| Moment::local(t, zone)),
            tub: step.tub.clone(),
            loss: step.loss,
            cup_g: step.cup_g,
        }
    }

    /// The step; whether it may be is the check's to say.
    pub fn read(&self) -> Step {
        Step {
            id: line(&self.id),
            kind: self.kind,
            name: self.name.as_deref().map(line),
            hands_on_min: self.hands_on_min,
            wet_film_um: self.wet_film_um,
            mix: read_mix(&self.mix),
            share_of_area: self.share_of_area.unwrap_or(1.0),
            section: self.section.as_deref().map(line),
            splittable: self.splittable.unwrap_or(self.kind.usually_splittable()),
            after: self.after.clone(),
            needs: self.needs,
            not_before: self.not_before.map(Moment::utc),
            earliest_gap_min: self.earliest_gap_min,
            pinned_at: self.pinned_at.map(Moment::utc),
            laid_at: self.laid_at.map(Moment::utc),
            tub: self.tub.clone(),
            loss: self.loss,
            cup_g: self.cup_g,
            slowed: None,
        }
    }
}

/// What a fingertip felt on a coat.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TouchDoc {
    /// When.
    pub at: Moment,
    /// The `id` of the step whose coat it was.
    pub step: String,
    /// What was felt.
    #[schemars(schema_with = "words::json::touch")]
    #[schema(schema_with = words::api::touch)]
    pub felt: Touch,
}

impl TouchDoc {
    /// Writes a test; its time in `zone`.
    pub fn of(test: &TouchTest, zone: Tz) -> Self {
        Self { at: Moment::local(test.at, zone), step: test.step.clone(), felt: test.felt }
    }

    /// The test.
    pub fn read(&self) -> TouchTest {
        TouchTest { at: self.at.utc(), step: self.step.clone(), felt: self.felt }
    }
}

/// Tests in order of time, however they were written.
fn in_order(tests: &[TouchDoc]) -> Vec<TouchTest> {
    let mut read: Vec<TouchTest> = tests.iter().map(TouchDoc::read).collect();
    read.sort();
    read
}
