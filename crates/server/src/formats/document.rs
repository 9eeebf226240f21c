//! The studio document as it is written: shapes only; `check` makes it a checked one.

use super::seal_doc::SealDoc;
use super::shelf_doc::{MaterialDoc, TubDoc, WayDoc};
use super::words;
use chrono::{DateTime, FixedOffset, NaiveDate};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use ulvek_core::picture::{Need, StepKind};
use ulvek_core::studio::{AirSource, Thinning, Waiting};
use utoipa::ToSchema;

/// A whole studio in one open format.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Document {
    /// Always `ulvek.studio/1`.
    pub format: String,
    /// Hours, places and schools.
    pub studio: StudioDoc,
    /// The room.
    pub air: AirDoc,
    /// The shelf.
    #[serde(default)]
    pub materials: Vec<MaterialDoc>,
    /// Pre-mixed colour.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub tubs: Vec<TubDoc>,
    /// The painter's own ways of working.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub ways: Vec<WayDoc>,
    /// The pictures.
    #[serde(default)]
    pub pictures: Vec<PictureDoc>,
}

/// Hours, places and schools of a studio.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct StudioDoc {
    /// What the painter calls it.
    pub name: String,
    /// IANA name of the time zone, e.g. `Europe/Oslo`.
    pub time_zone: String,
    /// Weekly hours; none means that nothing can be planned.
    #[serde(default)]
    pub hours: Vec<HourDoc>,
    /// Days off.
    #[serde(default)]
    pub closed: Vec<ClosedDoc>,
    /// Places where wet work can lie flat; 1 when not said.
    #[serde(default = "one_place")]
    pub flat_places: u32,
    /// Minutes to change picture or mix; 10 when not said.
    #[serde(default = "ten_minutes")]
    pub setup_min: f64,
    /// Where the studio stands, when colour is judged by daylight only.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub daylight: Option<DaylightDoc>,
    /// The painter's schools.
    #[serde(default)]
    pub schools: SchoolsDoc,
    /// The order of work that was settled on; without it, what can start first comes first.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub order: Vec<TurnDoc>,
}

/// Where the studio stands: between sunrise and sunset there colour may be judged.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DaylightDoc {
    /// Degrees, north positive.
    pub latitude_deg: f64,
    /// Degrees, east positive.
    pub longitude_deg: f64,
}

/// One entry of an order of work.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TurnDoc {
    /// The picture's `id`.
    pub picture: String,
    /// The step's `id`.
    pub step: String,
}

const fn one_place() -> u32 {
    1
}

const fn ten_minutes() -> f64 {
    10.0
}

/// Hours on one day of the week.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct HourDoc {
    /// `mon` to `sun`.
    pub day: String,
    /// Start, `HH:MM`, local time.
    pub from: String,
    /// End, `HH:MM`, local time; `24:00` is the end of the day.
    pub to: String,
}

/// Days off, first and last included.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ClosedDoc {
    /// First day off.
    pub from: NaiveDate,
    /// Last day off.
    pub to: NaiveDate,
}

/// The painter's schools; what is not said is the studio's usual: medium only, standard waiting,
/// fresh eyes, no isolation coat.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct SchoolsDoc {
    /// How paint is made thinner.
    #[schemars(schema_with = "words::json::thinning")]
    #[schema(schema_with = words::api::thinning)]
    pub thinning: Thinning,
    /// How long to wait before varnish.
    #[schemars(schema_with = "words::json::waiting")]
    #[schema(schema_with = words::api::waiting)]
    pub waiting: Waiting,
    /// A night between blocking in and glazing.
    pub fresh_eyes: bool,
    /// A clear permanent coat between paint and removable varnish.
    pub isolation_coat: bool,
}

impl Default for SchoolsDoc {
    fn default() -> Self {
        let usual = ulvek_core::studio::Schools::default();
        Self {
            thinning: usual.thinning,
            waiting: usual.waiting,
            fresh_eyes: usual.fresh_eyes,
            isolation_coat: usual.isolation_coat,
        }
    }
}

/// The room's air.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AirDoc {
    /// Usual temperature [C].
    pub temperature_c: f64,
    /// Usual relative humidity, fraction of 1.
    pub relative_humidity: f64,
    /// Air speed over the pictures [m/s]; 0.15 when not said.
    #[serde(default = "ordinary_air")]
    pub air_speed_m_s: f64,
    /// Readings; each stands until the next one, the last one to the end.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub hourly: Vec<HourlyDoc>,
    /// How the room is looked ahead at; constant when not said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub ahead: Option<AheadDoc>,
}

/// How the room is looked ahead at.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AheadDoc {
    /// Where the readings to come are from.
    #[schemars(schema_with = "words::json::air_source")]
    #[schema(schema_with = words::api::air_source)]
    pub source: AirSource,
    /// When they were taken in.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub taken_at: Option<DateTime<FixedOffset>>,
    /// How the room follows the outside.
    #[serde(default)]
    pub room: RoomDoc,
}

/// How a room follows the outside; what is not said is that of an ordinary heated room.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct RoomDoc {
    /// Temperature it is heated to [C]; `null` when it is not heated.
    pub held_c: Option<f64>,
    /// How much warmer than outside it is when not heated [K].
    pub warmer_k: f64,
    /// How slowly its temperature follows [h].
    pub lag_h: f64,
    /// Air changed with the outside [1/h].
    pub changes_per_h: f64,
    /// Water given off in it [g/(m3 h)].
    pub moisture_g_m3_h: f64,
}

impl Default for RoomDoc {
    fn default() -> Self {
        let usual = ulvek_core::air::Room::default();
        Self {
            held_c: usual.held_c,
            warmer_k: usual.warmer_k,
            lag_h: usual.lag_h,
            changes_per_h: usual.changes_per_h,
            moisture_g_m3_h: usual.moisture_g_m3_h,
        }
    }
}

/// Air speed of an ordinary room [m/s]. [memory]
const fn ordinary_air() -> f64 {
    0.15
}

/// One reading of the room's air.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct HourlyDoc {
    /// From when it stands.
    pub at: DateTime<FixedOffset>,
    /// Temperature [C].
    pub temperature_c: f64,
    /// Relative humidity, fraction of 1.
    pub relative_humidity: f64,
    /// Air speed [m/s]; the usual one when not said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub air_speed_m_s: Option<f64>,
}

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
    pub at: DateTime<FixedOffset>,
}

const fn one() -> f64 {
    1.0
}

/// What the picture is painted on.
#[derive(Debug, Clone, Default, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct GroundDoc {
    /// Water it can take up [um]: 0 sealed, 10 primed panel, 20 primed canvas, 60 paper, 100 raw.
    #[serde(default)]
    pub absorbs_um: f64,
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
    pub not_before: Option<DateTime<FixedOffset>>,
    /// Shortest wait after what it stands on [min].
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub earliest_gap_min: Option<f64>,
    /// To be started at this very time, if what it stands on is ready by then.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub pinned_at: Option<DateTime<FixedOffset>>,
    /// When the coat was there, or the step done.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub laid_at: Option<DateTime<FixedOffset>>,
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

/// Parts of one material, by volume.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PartDoc {
    /// The material's name on the shelf.
    pub material: String,
    /// How many parts.
    pub parts: f64,
}
