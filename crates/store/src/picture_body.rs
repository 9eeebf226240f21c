//! How a picture and its steps are written into JSON columns: types of the store alone.

use crate::log_body::HappeningBody;
use crate::mix_body::{mix_body, mix_of};
use crate::seal_body::SealBody;
use chrono::{DateTime, NaiveDate, Utc};
use serde::{Deserialize, Serialize};
use ulvek_core::film::Ground;
use ulvek_core::mix::{Swatch, Thinning};
use ulvek_core::picture::{
    Need, Picture, ReadyBy, SetAside, Step, StepKind, ThinningChoice, Touch, TouchTest,
};

/// Delay of a ground stored before it was kept [s].
const fn usual_delay() -> f64 {
    Ground::SEALED.delay_s
}

/// Colour of a ground stored before it was kept.
const fn usual_colour() -> [u8; 3] {
    Picture::GROUND_COLOUR.0
}

#[derive(Clone, Serialize, Deserialize)]
pub(crate) struct PictureBody {
    title: String,
    width_cm: f64,
    height_cm: f64,
    weight: f64,
    due: Option<NaiveDate>,
    #[serde(default)]
    ready_by: ReadyBy,
    #[serde(default)]
    paint_over_seal: bool,
    absorbs_um: f64,
    #[serde(default = "usual_delay")]
    delay_s: f64,
    #[serde(default)]
    back: f64,
    #[serde(default = "usual_colour")]
    ground_colour: [u8; 3],
    steps: Vec<StepBody>,
    #[serde(default)]
    thinning: Option<(Thinning, String)>,
    #[serde(default)]
    set_aside: Vec<SetAsideBody>,
    #[serde(default)]
    seal: SealBody,
    /// When, on which step, what was felt.
    #[serde(default)]
    tests: Vec<(DateTime<Utc>, String, Touch)>,
    #[serde(default)]
    happened: Vec<HappeningBody>,
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
    #[serde(default)]
    section: Option<String>,
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
    /// The picture without what was done on it: that is kept in the log.
    pub fn plan_of(picture: &Picture) -> Self {
        let mut plan = Self::of(picture);
        for step in &mut plan.steps {
            step.laid_at = None;
        }
        plan.seal = plan.seal.without_log();
        plan.tests.clear();
        plan.happened.clear();
        plan
    }

    /// The whole picture, as a revision keeps it.
    pub fn of(picture: &Picture) -> Self {
        Self {
            title: picture.title.clone(),
            width_cm: picture.width_cm,
            height_cm: picture.height_cm,
            weight: picture.weight,
            due: picture.due,
            ready_by: picture.ready_by,
            paint_over_seal: picture.paint_over_seal,
            absorbs_um: picture.ground.absorbs_um,
            delay_s: picture.ground.delay_s,
            back: picture.ground.back,
            ground_colour: picture.ground_colour.0,
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
            happened: picture.happened.iter().map(HappeningBody::of).collect(),
            tests: picture.tests.iter().map(|t| (t.at, t.step.clone(), t.felt)).collect(),
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
            ready_by: self.ready_by,
            paint_over_seal: self.paint_over_seal,
            ground: Ground { absorbs_um: self.absorbs_um, delay_s: self.delay_s, back: self.back },
            ground_colour: Swatch(self.ground_colour),
            steps: self.steps.into_iter().map(StepBody::into_step).collect(),
            thinning: self.thinning.map(|(school, reason)| ThinningChoice { school, reason }),
            set_aside: self
                .set_aside
                .into_iter()
                .map(|a| SetAside { rule: a.rule, step: a.step, reason: a.reason, at: a.at })
                .collect(),
            happened: self.happened.into_iter().map(HappeningBody::into_happening).collect(),
            seal: self.seal.into_seal(),
            tests: self
                .tests
                .into_iter()
                .map(|(at, step, felt)| TouchTest { at, step, felt })
                .collect(),
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
            section: step.section.clone(),
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
            section: self.section,
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
            slowed: None,
        }
    }
}
