//! What is said of the application.

use crate::formats::{GroundDoc, StepDoc, words};
use chrono_tz::Tz;
use serde::Serialize;
use ulvek_core::picture::{Need, Step, StepKind};
use utoipa::ToSchema;

/// All is well.
#[derive(Serialize, ToSchema)]
pub struct Health {
    /// Always `ok`.
    pub status: &'static str,
}

/// A kind of step.
#[derive(Serialize, ToSchema)]
pub struct KindOut {
    /// Its name in documents.
    #[schema(schema_with = words::api::kind)]
    pub kind: StepKind,
    /// The trade's word.
    pub word: String,
    /// What happens.
    pub does: String,
    /// What it needs of the film below.
    #[schema(schema_with = words::api::need)]
    pub needs: Need,
    /// Usual wet film [um]; `null` when it leaves none.
    #[schema(required)]
    pub usual_film_um: Option<f64>,
    /// Usual hands-on minutes for a small picture.
    pub usual_minutes: f64,
    /// Whether it may be split over sessions when nothing else is said.
    pub splittable: bool,
    /// Whether it may be done on a section of the picture.
    pub section: bool,
}

/// A way of working.
#[derive(Serialize, ToSchema)]
pub struct WayOut {
    /// Its name.
    pub id: String,
    /// What painters call it.
    pub name: String,
    /// Why one works like this.
    pub why: String,
    /// Hands-on minutes of all its steps.
    pub hands_on_min: f64,
    /// Its steps.
    pub steps: Vec<StepDoc>,
}

impl WayOut {
    /// A way by its name, what it is called and why, with its `steps` in a studio of `zone`.
    pub fn of((id, name, why): (&str, &str, &str), steps: &[Step], zone: Tz) -> Self {
        Self {
            id: id.into(),
            name: name.into(),
            why: why.into(),
            hands_on_min: steps.iter().map(|s| s.hands_on_min).sum(),
            steps: steps.iter().map(|s| StepDoc::of(s, zone)).collect(),
        }
    }
}

/// A number field, by its name in the open formats: what it is called and where it may lie.
#[derive(Serialize, ToSchema)]
pub struct FieldOut {
    /// Its name in the open formats.
    pub field: String,
    /// Spoken name.
    pub name: String,
    /// Unit as spoken.
    pub unit: String,
    /// Lowest allowed value as stored.
    pub min: f64,
    /// Highest allowed value as stored.
    pub max: f64,
    /// Factor from what is stored to what is spoken: 100 for shares said in per cent.
    pub spoken: f64,
    /// Where the limits come from.
    pub source: String,
}

/// A word of the open formats, and what painters say.
#[derive(Serialize, ToSchema)]
pub struct WordOut {
    /// The word.
    pub value: String,
    /// What painters say.
    pub said: String,
}

/// A sheen, with what it does to what is seen.
#[derive(Serialize, ToSchema)]
pub struct FinishOut {
    /// The word.
    pub value: String,
    /// What painters say.
    pub said: String,
    /// Light that it scatters into the eye, whatever lies below, as a share of the light that falls on it.
    pub veil: f64,
}

/// A usual ground.
#[derive(Serialize, ToSchema)]
pub struct GroundOut {
    /// The ground.
    pub ground: GroundDoc,
    /// Its word.
    pub said: String,
}

/// A number that has a usual word.
#[derive(Serialize, ToSchema)]
pub struct UsualOut {
    /// The number, in the unit of its field.
    pub value: f64,
    /// The word.
    pub said: String,
}

/// What a new material begins with.
#[derive(Serialize, ToSchema)]
pub struct NewMaterialOut {
    /// Volume fraction of polymer and pigment.
    pub solids: f64,
    /// Volume fraction of water.
    pub water: f64,
    /// Volume fraction of the slow volatile.
    pub glycol: f64,
    /// How far the three may miss 1.
    pub sum_tolerance: f64,
    /// Parts of white in its tint to one of it.
    pub white_parts: f64,
}

/// What the application knows of the trade.
#[derive(Serialize, ToSchema)]
pub struct Catalogue {
    /// Kinds of step in the usual order of work.
    pub kinds: Vec<KindOut>,
    /// Ways of working.
    pub ways: Vec<WayOut>,
    /// Number fields.
    pub fields: Vec<FieldOut>,
    /// What a step may ask of what lies below.
    pub needs: Vec<WordOut>,
    /// Grounds by the water they take up [um].
    pub grounds: Vec<GroundOut>,
    /// The ground that most pictures begin on.
    pub first_ground: GroundDoc,
    /// Speeds of the air over a picture [m/s].
    pub speeds: Vec<UsualOut>,
    /// Kinds of material.
    pub material_kinds: Vec<WordOut>,
    /// Lines of paint.
    pub lines: Vec<WordOut>,
    /// How much a paint hides.
    pub opacities: Vec<WordOut>,
    /// Sheens.
    pub finishes: Vec<FinishOut>,
    /// Containers of mixed colour.
    pub tightnesses: Vec<WordOut>,
    /// What a look into a tub can find.
    pub tub_troubles: Vec<WordOut>,
    /// Schools of thinning.
    pub thinnings: Vec<WordOut>,
    /// Schools of waiting.
    pub waitings: Vec<WordOut>,
    /// How sure times may be said, as a share of the futures.
    pub sures: Vec<UsualOut>,
    /// What a fingertip may feel.
    pub touches: Vec<WordOut>,
    /// What goes wrong with paint.
    pub paint_troubles: Vec<WordOut>,
    /// What carries a varnish.
    pub carriers: Vec<WordOut>,
    /// What a sealed thing is for.
    pub purposes: Vec<WordOut>,
    /// What may be meant by a picture being ready on its day.
    pub ready_by: Vec<WordOut>,
    /// Directions of strokes.
    pub strokes: Vec<WordOut>,
    /// Where the air to come is taken from.
    pub air_sources: Vec<WordOut>,
    /// Where what is known of the air is from.
    pub origins: Vec<WordOut>,
    /// What instruments measure.
    pub instrument_kinds: Vec<WordOut>,
    /// How simulated instruments behave.
    pub behaviours: Vec<WordOut>,
    /// What a new material begins with.
    pub new_material: NewMaterialOut,
    /// Most varnish coats that can be asked for.
    pub most_varnish_coats: u8,
    /// What a bench can measure [ml].
    pub measures: Vec<UsualOut>,
    /// Share of a cup that usually stays in cup and brush.
    pub usual_loss: f64,
    /// How often the palette is misted in a session [min].
    pub mist_every_min: f64,
    /// How far a film is followed [days].
    pub horizon_days: f64,
}
