//! After the last coat: wrapping, and how the varnish comes off again.

use crate::mix::MaterialKind;
use crate::picture::{Picture, StepKind};
use crate::studio::Studio;

/// How to pack a picture that is ready to wrap, in order. [practice]
pub const PACKING: &[&str] = &[
    "Clean hands or cotton gloves: skin oils harm the surface.",
    "Smooth glassine or silicone paper over the face, never bubble film: it prints its pattern into varnish.",
    "Corner guards, so that the wrapping stands off the face.",
    "Bubble film outside, bubbles outwards; then board on both sides.",
    "Upright, face to back, never face to face and never weight on the face.",
    "Not in a hot car or a freezing store: acrylic film is soft in heat and brittle near frost.",
];

/// Whether and how the varnish on a picture can be taken off.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Removal {
    /// None is on it.
    Unvarnished,
    /// Water-borne: it stays.
    Stays,
    /// Solvent-borne over an isolation coat.
    SolventOverIsolation,
    /// Solvent-borne straight on paint or on water-borne varnish.
    Solvent,
}

impl std::fmt::Display for Removal {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        f.write_str(match self {
            Self::Unvarnished => "The picture is not varnished.",
            Self::Stays => {
                "The varnish is a water-borne acrylic: it has bonded with the paint and cannot be \
                 taken off without harm. Clean it with a soft dry cloth only."
            }
            Self::SolventOverIsolation => {
                "The varnish is carried in solvent and lies on a permanent clear isolation coat: a \
                 conservator can take it off with the solvent its data sheet names, without touching \
                 the paint."
            }
            Self::Solvent => {
                "The varnish is carried in solvent. There is no isolation coat below it: the solvent \
                 its data sheet names reaches the paint, so taking it off is a conservator's work \
                 after a test in a corner."
            }
        })
    }
}

/// How the varnish that lies on `picture` can be removed: what the top coat is decides.
pub fn removal(studio: &Studio, picture: &Picture) -> Removal {
    let mut laid: Vec<_> = picture.steps.iter().filter(|s| s.laid_at.is_some()).collect();
    laid.sort_by_key(|s| s.laid_at);
    let Some(top) = laid.iter().rfind(|s| s.kind == StepKind::Varnish) else {
        return Removal::Unvarnished;
    };
    if !studio.holds(top, &MaterialKind::SolventVarnish) {
        return Removal::Stays;
    }
    if laid.iter().any(|s| s.kind == StepKind::IsolationCoat) {
        Removal::SolventOverIsolation
    } else {
        Removal::Solvent
    }
}
