//! A picture and its steps.

use super::kind::{Need, StepKind};
use crate::quantity::{OutOfRange, WetFilm};
use chrono::{DateTime, NaiveDate, Utc};

/// Parts of one material in a mix, by volume.
#[derive(Debug, Clone, PartialEq)]
pub struct Part {
    /// The material's name on the shelf.
    pub material: String,
    /// How many parts.
    pub parts: f64,
}

/// One step on a picture.
#[derive(Debug, Clone, PartialEq)]
pub struct Step {
    /// Name of the step within its picture.
    pub id: String,
    /// What it does.
    pub kind: StepKind,
    /// What the painter calls it, when that is not the kind's word.
    pub name: Option<String>,
    /// Minutes of hands-on work.
    pub hands_on_min: f64,
    /// Wet film thickness [um].
    pub wet_film_um: Option<f64>,
    /// What goes into the cup.
    pub mix: Vec<Part>,
    /// Share of the picture's area it covers.
    pub share_of_area: f64,
    /// Whether it may be split over sessions.
    pub splittable: bool,
    /// The steps it stands on; `None` means the step before.
    pub after: Option<Vec<String>>,
    /// What it needs of the film below; `None` means what its kind needs.
    pub needs: Option<Need>,
    /// Not to be started before.
    pub not_before: Option<DateTime<Utc>>,
    /// Shortest wait after what it stands on [min].
    pub earliest_gap_min: Option<f64>,
    /// When the coat was there (for a step without film: when it was done).
    pub laid_at: Option<DateTime<Utc>>,
}

impl Step {
    /// What the painter calls the step.
    pub fn title(&self) -> &str {
        self.name.as_deref().unwrap_or(self.kind.word())
    }
}

/// A picture: a size, a ground, a date and steps in order.
#[derive(Debug, Clone, PartialEq)]
pub struct Picture {
    /// Name of the picture within its studio.
    pub id: String,
    /// Title.
    pub title: String,
    /// Width [cm].
    pub width_cm: f64,
    /// Height [cm].
    pub height_cm: f64,
    /// Weight against other pictures when dates compete.
    pub weight: f64,
    /// The day it must be ready.
    pub due: Option<NaiveDate>,
    /// Water the ground can take up [um].
    pub absorbs_um: f64,
    /// Steps in order.
    pub steps: Vec<Step>,
}

impl Picture {
    /// The shorter side [m], over which the air passes.
    pub fn shorter_side_m(&self) -> f64 {
        self.width_cm.min(self.height_cm) / 100.0
    }

    /// Area of the face [m2].
    pub fn area_m2(&self) -> f64 {
        self.width_cm * self.height_cm / 10_000.0
    }

    /// Wet film thickness [um] when `ml` of mix end up on `share` of the face.
    ///
    /// # Errors
    /// [`OutOfRange`] when that is no film: nothing on it, or more than half a centimetre.
    pub fn film_from_amount_um(&self, ml: f64, share: f64) -> Result<f64, OutOfRange> {
        // 1 ml over 1 m2 is 1 um.
        WetFilm::try_new(ml / (self.area_m2() * share)).map(WetFilm::get)
    }

    /// Indices of the steps that step `i` stands on.
    pub fn stands_on(&self, i: usize) -> Vec<usize> {
        match &self.steps[i].after {
            Some(names) => names
                .iter()
                .filter_map(|name| self.steps.iter().position(|s| &s.id == name))
                .collect(),
            None => i.checked_sub(1).into_iter().collect(),
        }
    }

    /// What step `i` needs of the film below. A sealing coat over another sealing coat needs it
    /// paintable: the wait for the paint is over by then.
    pub fn needs(&self, i: usize) -> Need {
        let step = &self.steps[i];
        if let Some(need) = step.needs {
            return need;
        }
        let over_seal = step.kind.seals()
            && self.steps[..i]
                .iter()
                .rev()
                .find(|s| s.kind.leaves_film())
                .is_some_and(|s| s.kind.seals());
        if over_seal { Need::Paintable } else { step.kind.needs() }
    }
}
