//! A whole studio, checked: what the computation works on.

use super::daylight;
use super::hours::StudioHours;
use super::material::{Material, MaterialKind};
use super::room::RoomAhead;
use super::schools::{Schools, Slowed, Thinning};
use super::tub::Tub;
use crate::air::AirSeries;
use crate::film::{Composition, MixError};
use crate::picture::{Part, Picture, Step};
use thiserror::Error;

/// A studio with its shelf and its pictures.
#[derive(Debug, Clone)]
pub struct StudioDocument {
    /// Name of the studio.
    pub name: String,
    /// When the painter works.
    pub hours: StudioHours,
    /// Places where wet work can lie flat.
    pub flat_places: u32,
    /// Minutes to set up or mix for a change of picture or mix.
    pub setup_min: f64,
    /// Where the studio stands, when colour is judged by daylight only.
    pub daylight: Option<daylight::Place>,
    /// The painter's schools.
    pub schools: Schools,
    /// The room's air; times are seconds of the Unix epoch.
    pub air: AirSeries,
    /// How the room is looked ahead at.
    pub room: RoomAhead,
    /// The shelf.
    pub materials: Vec<Material>,
    /// Pre-mixed colour.
    pub tubs: Vec<Tub>,
    /// The painter's own ways of working.
    pub ways: Vec<OwnWay>,
    /// The pictures.
    pub pictures: Vec<Picture>,
    /// The order of work that was settled on; empty means what can start first. Steps that are not
    /// in it come right after the step before them.
    pub order: Vec<Turn>,
}

/// One entry of an order of work.
#[derive(Debug, Clone, PartialEq, Eq, Hash)]
pub struct Turn {
    /// The picture's name within the studio.
    pub picture: String,
    /// The step's name within the picture.
    pub step: String,
}

/// A way of working that a painter saved.
#[derive(Debug, Clone, PartialEq)]
pub struct OwnWay {
    /// Its name within the studio.
    pub id: String,
    /// What the painter calls it.
    pub name: String,
    /// Why one works like this.
    pub why: String,
    /// Its steps, none of them laid.
    pub steps: Vec<Step>,
}

/// Why the parts of a document do not fit together.
#[derive(Debug, Clone, PartialEq, Error)]
pub enum DocumentError {
    /// A mix names a material that is not on the shelf.
    #[error("no material \"{0}\" is on the shelf")]
    UnknownMaterial(String),
    /// A step leaves a film but says of nothing.
    #[error("a {0} coat needs a mix")]
    NoMix(&'static str),
    /// A step leaves a film but has no thickness.
    #[error("a {0} coat needs a wet film thickness")]
    NoThickness(&'static str),
    /// The mix cannot be.
    #[error(transparent)]
    Mix(#[from] MixError),
}

impl StudioDocument {
    /// The material named `id`.
    pub fn material(&self, id: &str) -> Option<&Material> {
        self.materials.iter().find(|m| m.id == id)
    }

    /// A studio with the usual settings, an empty shelf and no pictures.
    pub fn new(name: impl Into<String>, hours: StudioHours, air: AirSeries) -> Self {
        Self {
            name: name.into(),
            hours,
            flat_places: 1,
            setup_min: 10.0, // [practice] a cup mixed and a brush wetted
            daylight: None,
            schools: Schools::default(),
            air,
            room: RoomAhead::default(),
            materials: Vec::new(),
            tubs: Vec::new(),
            ways: Vec::new(),
            pictures: Vec::new(),
            order: Vec::new(),
        }
    }

    /// The school of thinning a picture is judged by: its own, or the studio's.
    pub fn thinning(&self, picture: &Picture) -> Thinning {
        picture.thinning.as_ref().map_or(self.schools.thinning, |own| own.school)
    }

    /// What in the mix of `step` makes the schools wait longer before varnish.
    pub fn slowed_by(&self, step: &Step) -> Slowed {
        let slows = |part: &Part| match self.material(&part.material) {
            _ if part.parts <= 0.0 => Slowed::No,
            Some(m) if m.is_slow_paint() => Slowed::SlowPaint,
            Some(m) if m.kind == MaterialKind::Retarder => Slowed::Retarder,
            _ => Slowed::No,
        };
        step.mix.iter().map(slows).max().unwrap_or_default()
    }

    /// Whether anything of `kind` is in the mix of `step`.
    pub fn holds(&self, step: &Step, kind: &MaterialKind) -> bool {
        let of_kind = |part: &Part| {
            part.parts > 0.0 && self.material(&part.material).is_some_and(|m| m.kind == *kind)
        };
        step.mix.iter().any(of_kind)
    }

    /// The tub named `id`.
    pub fn tub(&self, id: &str) -> Option<&Tub> {
        self.tubs.iter().find(|t| t.id == id)
    }

    /// Whether a picture, a tub or a way of working names the material `id`.
    pub fn uses(&self, id: &str) -> bool {
        let in_mix = |mix: &[Part]| mix.iter().any(|p| p.material == id);
        self.pictures.iter().flat_map(|p| &p.steps).any(|s| in_mix(&s.mix))
            || self.tubs.iter().any(|t| in_mix(&t.mix))
            || self.ways.iter().flat_map(|w| &w.steps).any(|s| in_mix(&s.mix))
    }

    /// What goes into the cup for `mix`.
    ///
    /// # Errors
    /// [`DocumentError::UnknownMaterial`] or [`DocumentError::Mix`].
    pub fn composition(&self, mix: &[Part]) -> Result<Composition, DocumentError> {
        compose(&self.materials, mix)
    }

    /// Wet thickness [um] and composition of a step, or `None` when it leaves no film.
    ///
    /// # Errors
    /// [`DocumentError`] when the step should leave a film but does not say which.
    pub fn coat(&self, step: &Step) -> Result<Option<(f64, Composition)>, DocumentError> {
        coat_of(&self.materials, step)
    }

    /// As [`StudioDocument::coat`], for a step whose studio is not whole yet.
    ///
    /// # Errors
    /// [`DocumentError`] likewise.
    pub fn coat_from(
        shelf: &[Material],
        step: &Step,
    ) -> Result<Option<(f64, Composition)>, DocumentError> {
        coat_of(shelf, step)
    }
}

/// The composition of `mix` from `shelf`.
pub(crate) fn compose(shelf: &[Material], mix: &[Part]) -> Result<Composition, DocumentError> {
    let parts: Vec<(f64, Composition)> = mix
        .iter()
        .map(|part| {
            shelf
                .iter()
                .find(|m| m.id == part.material)
                .map(|m| (part.parts, m.composition))
                .ok_or_else(|| DocumentError::UnknownMaterial(part.material.clone()))
        })
        .collect::<Result<_, _>>()?;
    Ok(Composition::mixed(parts)?)
}

pub(crate) fn coat_of(
    shelf: &[Material],
    step: &Step,
) -> Result<Option<(f64, Composition)>, DocumentError> {
    let kind = step.kind;
    if !kind.leaves_film() {
        return Ok(None);
    }
    match step.wet_film_um {
        None if step.mix.is_empty() && !kind.must_leave_film() => Ok(None),
        None => Err(DocumentError::NoThickness(kind.word())),
        Some(_) if step.mix.is_empty() => Err(DocumentError::NoMix(kind.word())),
        Some(um) => Ok(Some((um, compose(shelf, &step.mix)?))),
    }
}
