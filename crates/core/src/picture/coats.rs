//! The coats of a picture as the film model takes them.

use super::model::{Picture, Step};
use super::place::{PlaceId, REST};
use crate::film::Diverged;
use crate::mix::{Composition, Material, MixError};
use crate::time::seconds;
use thiserror::Error;

/// A coat and when it is there: laid, or planned to be.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct LaidCoat {
    /// Index of its step in the picture.
    pub step: usize,
    /// When its drying starts [s].
    pub at: f64,
    /// Wet thickness [m].
    pub wet_m: f64,
    /// What it is made of.
    pub mix: Composition,
    /// Where it lies.
    pub place: PlaceId,
}

/// Why a step that should leave a film leaves none.
#[derive(Debug, Clone, PartialEq, Error)]
pub enum NoCoat {
    /// It says nothing of what it is mixed from.
    #[error("a {0} coat needs a mix")]
    Mix(&'static str),
    /// It has no thickness.
    #[error("a {0} coat needs a wet film thickness")]
    Thickness(&'static str),
    /// The mix cannot be.
    #[error(transparent)]
    Cannot(#[from] MixError),
    /// Its drying cannot be followed.
    #[error(transparent)]
    Diverged(#[from] Diverged),
}

/// A coat that cannot be computed, and where it is.
#[derive(Debug, Clone, PartialEq, Error)]
#[error("{title} of \"{picture}\" cannot be computed: {why}")]
pub struct CoatFault {
    /// The picture's title.
    pub picture: String,
    /// Index of the step in it.
    pub step: usize,
    /// What the painter calls the step.
    pub title: String,
    /// Why.
    pub why: NoCoat,
}

impl Step {
    /// Wet thickness [um] and composition of the coat, or `None` when the step leaves no film.
    ///
    /// # Errors
    /// [`NoCoat`] when the step should leave a film but does not say which.
    pub fn coat(&self, shelf: &[Material]) -> Result<Option<(f64, Composition)>, NoCoat> {
        let kind = self.kind;
        if !kind.leaves_film() {
            return Ok(None);
        }
        match self.wet_film_um {
            None if self.mix.is_empty() && !kind.must_leave_film() => Ok(None),
            None => Err(NoCoat::Thickness(kind.word())),
            Some(_) if self.mix.is_empty() => Err(NoCoat::Mix(kind.word())),
            Some(um) => Ok(Some((um, self.mix.composition(shelf)?))),
        }
    }
}

impl Picture {
    /// The coat that step `i` leaves when it is done at `at` [s]; `None` when it leaves none.
    ///
    /// # Errors
    /// [`CoatFault`].
    pub fn coat_at(
        &self,
        shelf: &[Material],
        i: usize,
        at: f64,
    ) -> Result<Option<LaidCoat>, CoatFault> {
        let step = &self.steps[i];
        let coat = step.coat(shelf).map_err(|why| self.fault(i, why))?;
        let place = self.lies_at(i);
        Ok(coat.map(|(um, mix)| {
            let mix = mix.slowed_by(step.slowed.unwrap_or(1.0));
            LaidCoat { step: i, at, wet_m: um * 1e-6, mix, place }
        }))
    }

    /// What is wrong with the coat of step `i`.
    pub fn fault(&self, i: usize, why: impl Into<NoCoat>) -> CoatFault {
        let title = self.steps.get(i).map_or("the coat", Step::title).to_owned();
        CoatFault { picture: self.title.clone(), step: i, title, why: why.into() }
    }

    /// The coats that are laid, in order of time.
    ///
    /// # Errors
    /// [`CoatFault`] of the first that cannot be computed.
    pub fn laid_coats(&self, shelf: &[Material]) -> Result<Vec<LaidCoat>, CoatFault> {
        self.coats(shelf, std::iter::empty())
    }

    /// The coats that are laid and those `planned` (step and when it is done [s]), in order of time.
    ///
    /// # Errors
    /// [`CoatFault`] of the first that cannot be computed.
    pub fn coats(
        &self,
        shelf: &[Material],
        planned: impl Iterator<Item = (usize, f64)>,
    ) -> Result<Vec<LaidCoat>, CoatFault> {
        let laid =
            self.steps.iter().enumerate().filter_map(|(i, s)| Some((i, seconds(s.laid_at?))));
        let mut coats = Vec::new();
        for (i, at) in laid.chain(planned) {
            coats.extend(self.coat_at(shelf, i, at)?);
        }
        coats.sort_by(|a: &LaidCoat, b| a.at.total_cmp(&b.at));
        Ok(coats)
    }
}

/// The places where `coats` lie, each with its own, in their order; the rest first, where it has any.
pub fn stacks(coats: &[LaidCoat]) -> Vec<(PlaceId, Vec<LaidCoat>)> {
    let mut places: Vec<PlaceId> = coats.iter().map(|c| c.place).collect();
    places.push(REST);
    places.sort_unstable();
    places.dedup();
    let stack = |place: PlaceId| {
        let there = coats.iter().filter(|c| c.place == REST || c.place == place);
        (place, there.copied().collect::<Vec<_>>())
    };
    places.into_iter().map(stack).filter(|(_, coats)| !coats.is_empty()).collect()
}

/// Those of `coats` (by their place in the row) that are the last one somewhere.
pub fn on_top(coats: &[LaidCoat]) -> Vec<usize> {
    let tops = stacks(coats).into_iter().filter_map(|(_, there)| Some(there.last()?.step));
    let mut found: Vec<usize> =
        tops.filter_map(|step| coats.iter().position(|c| c.step == step)).collect();
    found.sort_unstable();
    found.dedup();
    found
}

#[cfg(test)]
mod tests {
    use super::super::kind::StepKind;
    use super::*;
    use crate::mix::{Mix, starter_shelf};

    #[test]
    fn a_coat_that_cannot_be_computed_is_named_and_never_left_out() {
        let step = |id: &str, material: &str| Step {
            mix: Mix::one(material),
            laid_at: Some("2027-01-04T10:00:00Z".parse().unwrap()),
            ..Step::usual(id, StepKind::Pass)
        };
        let steps = vec![step("a", "heavy-pb29"), step("b", "moonlight")];
        let picture = Picture::new("Lamp", (30.0, 40.0), steps);
        let fault = picture.laid_coats(&starter_shelf().unwrap()).unwrap_err();
        let said = "pass of \"Lamp\" cannot be computed: no material \"moonlight\" is on the shelf";
        assert_eq!((fault.step, fault.to_string().as_str()), (1, said));
    }
}
