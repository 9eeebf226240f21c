//! How aggregates are written into JSON columns: types of the store alone.

use crate::StoreError;
use crate::seal_body::{AheadBody, SealBody};
use chrono::{DateTime, NaiveDate, NaiveTime, Utc, Weekday};
use chrono_tz::Tz;
use serde::{Deserialize, Serialize};
use ulvek_core::air::{Air, AirSeries};
use ulvek_core::picture::{Need, Part, Picture, SetAside, Step, StepKind, ThinningChoice};
use ulvek_core::studio::{
    Closed, OpenHours, Schools, StudioDocument, StudioHours, Thinning, Turn, Waiting, daylight,
};

#[derive(Clone, Serialize, Deserialize)]
pub(crate) struct PictureBody {
    title: String,
    width_cm: f64,
    height_cm: f64,
    weight: f64,
    due: Option<NaiveDate>,
    absorbs_um: f64,
    steps: Vec<StepBody>,
    #[serde(default)]
    thinning: Option<(Thinning, String)>,
    #[serde(default)]
    set_aside: Vec<SetAsideBody>,
    #[serde(default)]
    seal: SealBody,
}

#[derive(Clone, Serialize, Deserialize)]
struct SetAsideBody {
    rule: String,
    step: String,
    reason: String,
    at: DateTime<Utc>,
}

#[derive(Clone, Serialize, Deserialize)]
pub(crate) struct StepBody {
    id: String,
    kind: StepKind,
    name: Option<String>,
    hands_on_min: f64,
    wet_film_um: Option<f64>,
    mix: Vec<(String, f64)>,
    share_of_area: f64,
    splittable: bool,
    after: Option<Vec<String>>,
    needs: Option<Need>,
    not_before: Option<DateTime<Utc>>,
    earliest_gap_min: Option<f64>,
    #[serde(default)]
    pinned_at: Option<DateTime<Utc>>,
    laid_at: Option<DateTime<Utc>>,
    #[serde(default)]
    tub: Option<String>,
    #[serde(default)]
    loss: Option<f64>,
    #[serde(default)]
    cup_g: Option<f64>,
}

impl PictureBody {
    pub fn of(picture: &Picture) -> Self {
        Self {
            title: picture.title.clone(),
            width_cm: picture.width_cm,
            height_cm: picture.height_cm,
            weight: picture.weight,
            due: picture.due,
            absorbs_um: picture.absorbs_um,
            steps: picture.steps.iter().map(StepBody::of).collect(),
            thinning: picture.thinning.as_ref().map(|t| (t.school, t.reason.clone())),
            set_aside: picture
                .set_aside
                .iter()
                .map(|a| SetAsideBody {
                    rule: a.rule.clone(),
                    step: a.step.clone(),
                    reason: a.reason.clone(),
                    at: a.at,
                })
                .collect(),
            seal: SealBody::of(&picture.seal),
        }
    }

    /// The picture, under the name it has in its studio.
    pub fn into_picture(self, id: String) -> Picture {
        Picture {
            id,
            title: self.title,
            width_cm: self.width_cm,
            height_cm: self.height_cm,
            weight: self.weight,
            due: self.due,
            absorbs_um: self.absorbs_um,
            steps: self.steps.into_iter().map(StepBody::into_step).collect(),
            thinning: self.thinning.map(|(school, reason)| ThinningChoice { school, reason }),
            set_aside: self
                .set_aside
                .into_iter()
                .map(|a| SetAside { rule: a.rule, step: a.step, reason: a.reason, at: a.at })
                .collect(),
            seal: self.seal.into_seal(),
        }
    }
}

impl StepBody {
    pub fn of(step: &Step) -> Self {
        Self {
            id: step.id.clone(),
            kind: step.kind,
            name: step.name.clone(),
            hands_on_min: step.hands_on_min,
            wet_film_um: step.wet_film_um,
            mix: mix_body(&step.mix),
            share_of_area: step.share_of_area,
            splittable: step.splittable,
            after: step.after.clone(),
            needs: step.needs,
            not_before: step.not_before,
            earliest_gap_min: step.earliest_gap_min,
            pinned_at: step.pinned_at,
            laid_at: step.laid_at,
            tub: step.tub.clone(),
            loss: step.loss,
            cup_g: step.cup_g,
        }
    }

    pub fn into_step(self) -> Step {
        Step {
            id: self.id,
            kind: self.kind,
            name: self.name,
            hands_on_min: self.hands_on_min,
            wet_film_um: self.wet_film_um,
            mix: mix_of(self.mix),
            share_of_area: self.share_of_area,
            splittable: self.splittable,
            after: self.after,
            needs: self.needs,
            not_before: self.not_before,
            earliest_gap_min: self.earliest_gap_min,
            pinned_at: self.pinned_at,
            laid_at: self.laid_at,
            tub: self.tub,
            loss: self.loss,
            cup_g: self.cup_g,
        }
    }
}

/// Air as temperature [C], relative humidity and speed [m/s].
type AirBody = (f64, f64, f64);

#[derive(Clone, Serialize, Deserialize)]
pub(crate) struct SettingsBody {
    name: String,
    time_zone: Tz,
    hours: Vec<(Weekday, NaiveTime, NaiveTime)>,
    closed: Vec<(NaiveDate, NaiveDate)>,
    flat_places: u32,
    setup_min: f64,
    thinning: Thinning,
    waiting: Waiting,
    fresh_eyes: bool,
    isolation_coat: bool,
    air: AirBody,
    readings: Vec<(f64, AirBody)>,
    /// Latitude and longitude [deg].
    #[serde(default)]
    daylight: Option<(f64, f64)>,
    /// How the room is looked ahead at.
    #[serde(default)]
    ahead: Option<AheadBody>,
    /// Picture and step of each turn.
    #[serde(default)]
    order: Vec<(String, String)>,
}

fn air_body(air: &Air) -> AirBody {
    (air.celsius, air.humidity, air.speed_m_s)
}

fn air_of((celsius, humidity, speed): AirBody) -> Result<Air, StoreError> {
    Air::try_new(celsius, humidity, speed).map_err(|e| StoreError::Unreadable(e.to_string()))
}

impl SettingsBody {
    pub fn of(document: &StudioDocument) -> Self {
        Self {
            name: document.name.clone(),
            time_zone: document.hours.zone(),
            hours: document.hours.weekly().iter().map(|h| (h.day, h.from, h.to)).collect(),
            closed: document.hours.closed().iter().map(|c| (c.from, c.to)).collect(),
            flat_places: document.flat_places,
            setup_min: document.setup_min,
            thinning: document.schools.thinning,
            waiting: document.schools.waiting,
            fresh_eyes: document.schools.fresh_eyes,
            isolation_coat: document.schools.isolation_coat,
            air: air_body(document.air.usual()),
            readings: document.air.readings().iter().map(|(t, a)| (*t, air_body(a))).collect(),
            daylight: document.daylight.map(|p| (p.latitude(), p.longitude())),
            ahead: Some(AheadBody::of(&document.room)),
            order: document.order.iter().map(|t| (t.picture.clone(), t.step.clone())).collect(),
        }
    }

    pub fn name(&self) -> &str {
        &self.name
    }

    /// The studio with an empty shelf and no pictures.
    pub fn into_document(self) -> Result<StudioDocument, StoreError> {
        let weekly =
            self.hours.into_iter().map(|(day, from, to)| OpenHours { day, from, to }).collect();
        let closed = self.closed.into_iter().map(|(from, to)| Closed { from, to }).collect();
        let readings = self
            .readings
            .into_iter()
            .map(|(t, a)| Ok((t, air_of(a)?)))
            .collect::<Result<_, StoreError>>()?;
        let hours = StudioHours::try_new(self.time_zone, weekly, closed)
            .map_err(|(_, e)| StoreError::Unreadable(e.to_string()))?;
        let air = AirSeries::new(air_of(self.air)?, readings);
        let room = self.ahead.map(AheadBody::into_room).unwrap_or_default();
        let daylight = self
            .daylight
            .map(|(latitude, longitude)| daylight::Place::try_new(latitude, longitude))
            .transpose()
            .map_err(|e| StoreError::Unreadable(e.to_string()))?;
        let order = self.order.into_iter().map(|(picture, step)| Turn { picture, step }).collect();
        Ok(StudioDocument {
            daylight,
            order,
            room,
            flat_places: self.flat_places,
            setup_min: self.setup_min,
            schools: Schools {
                thinning: self.thinning,
                waiting: self.waiting,
                fresh_eyes: self.fresh_eyes,
                isolation_coat: self.isolation_coat,
            },
            ..StudioDocument::new(self.name, hours, air)
        })
    }
}

/// Parts of a mix: material and how many.
pub(crate) type MixBody = Vec<(String, f64)>;

pub(crate) fn mix_body(mix: &[Part]) -> MixBody {
    mix.iter().map(|p| (p.material.clone(), p.parts)).collect()
}

pub(crate) fn mix_of(mix: MixBody) -> Vec<Part> {
    mix.into_iter().map(|(material, parts)| Part { material, parts }).collect()
}
