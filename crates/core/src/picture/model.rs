//! A picture and its steps.

use super::happening::{Happening, PaintTrouble, What};
use super::kind::{Need, StepKind};
use super::place::meet;
use super::sealing::SealRecord;
use super::touch::TouchTest;
use crate::film::Ground;
use crate::mix::{Drawdown, Mix, Surface, Swatch, Thinning};
use crate::words::words;
use chrono::{DateTime, NaiveDate, Utc};

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
    pub mix: Mix,
    /// Share of the picture's area it covers.
    pub share_of_area: f64,
    /// The section of the picture it lies on, as the painter calls it; all over when not said.
    pub section: Option<String>,
    /// Whether it may be split over sessions.
    pub splittable: bool,
    /// The steps it stands on; `None` means the step before.
    pub after: Option<Vec<String>>,
    /// What it needs of the film below; `None` means what its kind needs.
    pub needs: Option<Need>,
    /// Not to be started before.
    pub not_before: Option<DateTime<Utc>>,
    /// To be started at this very time, if what it stands on is ready by then.
    pub pinned_at: Option<DateTime<Utc>>,
    /// Shortest wait after what it stands on [min].
    pub earliest_gap_min: Option<f64>,
    /// When the coat was there (for a step without film: when it was done).
    pub laid_at: Option<DateTime<Utc>>,
    /// The tub it is painted from; its mix is the tub's then.
    pub tub: Option<String>,
    /// Share of the cup that stays in cup and brush; the usual one when not said.
    pub loss: Option<f64>,
    /// What the full cup weighed, brush and all, before the coat was laid [g].
    pub cup_g: Option<f64>,
    /// How many times as long its coat takes as all else says, where a finger found it less far. Not kept:
    /// learned anew from the tests.
    pub slowed: Option<f64>,
}

words! {
    /// What is meant by a picture being ready on its day.
    ReadyBy {
        /// It may be wrapped: nothing harms the face any more.
        Wrapped = "wrapped",
        /// Its last coat is on.
        Sealed = "sealed",
    }
}

impl Default for ReadyBy {
    /// A picture that is handed over is wrapped.
    fn default() -> Self {
        Self::Wrapped
    }
}

impl ReadyBy {
    /// What painters call it.
    pub const fn said(self) -> &'static str {
        match self {
            Self::Wrapped => "Safe to wrap",
            Self::Sealed => "The last coat is on",
        }
    }

    /// What a picture is by its day, as the end of a sentence; `packed` when wrapping is one of its steps.
    pub const fn said_of_day(self, packed: bool) -> &'static str {
        match (self, packed) {
            (Self::Sealed, _) => "its last coat on",
            (Self::Wrapped, true) => "packed",
            (Self::Wrapped, false) => "safe to wrap",
        }
    }
}

/// Another school of thinning than the studio's, for one picture.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct ThinningChoice {
    /// The school.
    pub school: Thinning,
    /// Why, in the painter's words.
    pub reason: String,
}

/// A finding that the painter set aside, with the reason; it stays in the picture's record.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct SetAside {
    /// The rule's name.
    pub rule: String,
    /// The step's name.
    pub step: String,
    /// Why, in the painter's words.
    pub reason: String,
    /// When.
    pub at: DateTime<Utc>,
}

impl Step {
    /// A step of `kind` as it usually is: its film, minutes and splitting, with nothing in the cup
    /// yet, standing on the step before.
    pub fn usual(id: impl Into<String>, kind: StepKind) -> Self {
        Self {
            id: id.into(),
            kind,
            name: None,
            hands_on_min: kind.usual_minutes(),
            wet_film_um: kind.usual_film_um(),
            mix: Mix::default(),
            share_of_area: 1.0,
            section: None,
            splittable: kind.usually_splittable(),
            after: None,
            needs: None,
            not_before: None,
            pinned_at: None,
            earliest_gap_min: None,
            laid_at: None,
            tub: None,
            loss: None,
            cup_g: None,
            slowed: None,
        }
    }

    /// Whether it is a sealing coat that is on.
    pub fn is_laid_seal(&self) -> bool {
        self.kind.seals() && self.laid_at.is_some()
    }

    /// What the painter calls the step, and where it is done when that is a section.
    pub fn called(&self) -> String {
        match self.section.as_deref().filter(|_| self.kind.has_section()) {
            Some(section) => format!("{} ({section})", self.title()),
            None => self.title().to_owned(),
        }
    }

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
    /// What must be so on that day.
    pub ready_by: ReadyBy,
    /// What it is painted on.
    pub ground: Ground,
    /// The colour of that.
    pub ground_colour: Swatch,
    /// Whether paint over a sealing coat is meant: without it such a step is refused.
    pub paint_over_seal: bool,
    /// Steps in order.
    pub steps: Vec<Step>,
    /// Another school of thinning than the studio's.
    pub thinning: Option<ThinningChoice>,
    /// Findings that were set aside.
    pub set_aside: Vec<SetAside>,
    /// How it is sealed, and what was seen and decided on the way.
    pub seal: SealRecord,
    /// What fingertips felt on its coats.
    pub tests: Vec<TouchTest>,
    /// What happened beside its coats, in order of time.
    pub happened: Vec<Happening>,
}

impl Picture {
    /// Colour of a ground where none is said: white primer; docs/formats/studio.md.
    pub const GROUND_COLOUR: Swatch = Drawdown::CARDS.0;

    /// A picture of `size` [cm] on a sealed ground, without a date and of ordinary weight.
    pub fn new(id: impl Into<String>, size: (f64, f64), steps: Vec<Step>) -> Self {
        let id = id.into();
        Self {
            title: id.clone(),
            id,
            width_cm: size.0,
            height_cm: size.1,
            weight: 1.0,
            due: None,
            ready_by: ReadyBy::default(),
            ground: Ground::SEALED,
            ground_colour: Self::GROUND_COLOUR,
            paint_over_seal: false,
            steps,
            thinning: None,
            set_aside: Vec::new(),
            seal: SealRecord::default(),
            tests: Vec::new(),
            happened: Vec::new(),
        }
    }

    /// Whether films of `other` are films of this too: all but its date and weight, words and colours is the same.
    pub fn dries_like(&self, other: &Self) -> bool {
        let bare = |picture: &Self| Self {
            title: String::new(),
            weight: 1.0,
            due: None,
            ready_by: ReadyBy::default(),
            ground_colour: Self::GROUND_COLOUR,
            set_aside: Vec::new(),
            steps: picture.steps.iter().map(|step| Step { name: None, ..step.clone() }).collect(),
            ..picture.clone()
        };
        self == other || bare(self) == bare(other)
    }

    /// Whether the same is wanted of `other`: a day at all, and the same by then.
    pub fn is_wanted_like(&self, other: &Self) -> bool {
        self.ready_by == other.ready_by && self.due.is_some() == other.due.is_some()
    }

    /// Whether wrapping it is one of its steps.
    pub fn is_packed(&self) -> bool {
        self.steps.iter().any(|s| s.kind == StepKind::Pack)
    }

    /// The shorter side [m], over which the air passes.
    pub fn shorter_side_m(&self) -> f64 {
        self.width_cm.min(self.height_cm) / 100.0
    }

    /// Area of the face [m2].
    pub fn area_m2(&self) -> f64 {
        self.width_cm * self.height_cm / 10_000.0
    }

    /// Area that step `i` covers [m2].
    pub fn area_of_m2(&self, i: usize) -> f64 {
        self.area_m2() * self.steps[i].share_of_area
    }

    /// What the next coat lies on: the ground as long as nothing is painted on it.
    pub fn surface(&self) -> Surface {
        self.surface_under(|n| self.steps[n].laid_at.is_some())
    }

    /// What step `i` will lie on when everything before it is done.
    pub fn surface_at(&self, i: usize) -> Surface {
        let place = self.lies_at(i);
        self.surface_under(|n| n < i && meet(place, self.lies_at(n)))
    }

    fn surface_under(&self, lies: impl Fn(usize) -> bool) -> Surface {
        let bare = !(0..self.steps.len()).any(|n| lies(n) && !self.steps[n].mix.is_empty());
        if bare && self.ground.absorbs_um > 0.0 { Surface::Absorbent } else { Surface::Sealed }
    }

    /// What step `i` needs of the film below when everything before it in the row is done.
    pub fn needs(&self, i: usize) -> Need {
        let place = self.lies_at(i);
        let lies = |n: &usize| self.steps[*n].kind.leaves_film() && meet(place, self.lies_at(*n));
        self.needs_on(i, (0..i).rev().find(lies))
    }

    /// What step `i` needs of a film whose last coat is that of step `top`: what its kind does, or
    /// more where the step asks for more, and never less. A sealing coat over another sealing coat
    /// needs it paintable: the wait for the paint is over by then. On a coat that came out cloudy everything that
    /// leaves a film waits until it is dry through.
    pub fn needs_on(&self, i: usize, top: Option<usize>) -> Need {
        let step = &self.steps[i];
        let cloudy = step.kind.leaves_film() && top.is_some_and(|t| self.came_out_cloudy(t));
        let over_seal = step.kind.seals() && top.is_some_and(|t| self.steps[t].kind.seals());
        let least = if over_seal { Need::Paintable } else { step.kind.needs() };
        let least = if cloudy { least.max(Need::DryThrough) } else { least };
        step.needs.map_or(least, |asked| asked.max(least))
    }

    fn came_out_cloudy(&self, i: usize) -> bool {
        let cloudy = What::Trouble(PaintTrouble::Cloudy);
        let of = |h: &Happening| h.what == cloudy && h.step.as_ref() == Some(&self.steps[i].id);
        self.happened.iter().any(of)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_sealing_coat_over_another_needs_it_only_paintable() {
        let kinds =
            [StepKind::Pass, StepKind::IsolationCoat, StepKind::Photograph, StepKind::Varnish];
        let steps = kinds.iter().map(|k| Step::usual(format!("{k:?}"), *k)).collect();
        let picture = Picture::new("p", (40.0, 50.0), steps);
        let needs: Vec<Need> = (0..4).map(|i| picture.needs(i)).collect();
        assert_eq!(needs, [Need::Paintable, Need::ReadyToSeal, Need::Paintable, Need::Paintable]);
    }

    #[test]
    fn a_step_may_ask_for_more_than_its_kind_and_never_gets_away_with_less() {
        let ask = |kind, needs| Step { needs: Some(needs), ..Step::usual("v", kind) };
        let of = |step| Picture::new("p", (40.0, 50.0), vec![step]).needs(0);
        assert_eq!(of(ask(StepKind::Varnish, Need::Nothing)), Need::ReadyToSeal);
        assert_eq!(of(ask(StepKind::Varnish, Need::ReadyToWrap)), Need::ReadyToWrap);
        assert_eq!(of(ask(StepKind::Glaze, Need::DryThrough)), Need::DryThrough);
    }
}
