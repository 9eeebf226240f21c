//! A whole studio, checked: what the computation works on.

use super::hours::StudioHours;
use super::material::Material;
use super::schools::Schools;
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
    /// The painter's schools.
    pub schools: Schools,
    /// The room's air; times are seconds of the Unix epoch.
    pub air: AirSeries,
    /// The shelf.
    pub materials: Vec<Material>,
    /// The pictures.
    pub pictures: Vec<Picture>,
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
