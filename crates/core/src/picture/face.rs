//! What is seen of a picture from the front.

use super::coats::{CoatFault, NoCoat};
use super::model::{Picture, Step};
use crate::colour::{Inside, Lab, Seen, Tubes, ground};
use crate::mix::{Finish, MixError};
use crate::time::seconds;

/// The face after one coat.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct FaceCoat {
    /// Index of its step in the picture.
    pub step: usize,
    /// What is under the surface then.
    pub inside: Inside,
    /// What is seen then, dry.
    pub seen: Seen,
    /// Contrast ratio of that coat alone [-].
    pub covers: f64,
}

impl Picture {
    /// The steps that leave a film, in the order they lie: those that are laid by time, then the others
    /// in their order.
    ///
    /// # Errors
    /// [`CoatFault`] of the first that cannot be computed.
    pub fn coats_in_order(&self, tubes: &Tubes) -> Result<Vec<usize>, CoatFault> {
        let mut steps = Vec::with_capacity(self.steps.len());
        for (i, step) in self.steps.iter().enumerate() {
            if step.coat(tubes.shelf()).map_err(|why| self.fault(i, why))?.is_some() {
                steps.push(i);
            }
        }
        let laid = |i: &usize| self.steps[*i].laid_at.map(seconds);
        steps.sort_by(|a, b| match (laid(a), laid(b)) {
            (Some(a), Some(b)) => a.total_cmp(&b),
            (a, b) => b.is_some().cmp(&a.is_some()),
        });
        Ok(steps)
    }

    /// What lies under everything: the ground.
    pub fn ground_inside(&self) -> Inside {
        ground(self.ground_colour)
    }

    /// What is seen over `under` after each of `coats` (steps in order), where all of them lie.
    ///
    /// # Errors
    /// [`CoatFault`] of a coat that cannot be computed.
    pub fn face(
        &self,
        tubes: &Tubes,
        coats: &[usize],
        under: &Inside,
    ) -> Result<Vec<FaceCoat>, CoatFault> {
        let mut inside = *under;
        let mut surface = Finish::Gloss;
        let mut face = Vec::with_capacity(coats.len());
        for &step in coats {
            let of = &self.steps[step];
            let cannot = |e: MixError| self.fault(step, NoCoat::from(e));
            let tint = tubes.tint(&of.mix).map_err(cannot)?;
            let wet_um = of.wet_film_um.unwrap_or_default();
            inside = tint.laid(&inside, wet_um);
            surface = surface_of(of, tubes).unwrap_or(surface);
            let seen = inside.seen_under(surface);
            face.push(FaceCoat { step, inside, seen, covers: tint.covers(wet_um, 1) });
        }
        Ok(face)
    }

    /// What is seen of it when `coats` (steps in order) lie, under `finish`; the bare ground without any.
    ///
    /// # Errors
    /// [`CoatFault`] of a coat that cannot be computed.
    pub fn seen_under(
        &self,
        tubes: &Tubes,
        coats: &[usize],
        finish: Finish,
    ) -> Result<Lab, CoatFault> {
        let face = self.face(tubes, coats, &self.ground_inside())?;
        let inside = face.last().map_or_else(|| self.ground_inside(), |last| last.inside);
        Ok(inside.seen_under(finish).lab())
    }
}

/// The surface that a sealing coat leaves; paint over it is gloss again, as its readings are.
fn surface_of(step: &Step, tubes: &Tubes) -> Option<Finish> {
    if !step.kind.seals() {
        return Some(Finish::Gloss);
    }
    step.mix.materials(tubes.shelf()).find_map(|m| m.finish)
}
