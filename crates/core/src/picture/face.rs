//! What is seen of a picture from the front.

use super::coats::{CoatFault, NoCoat};
use super::kind::StepKind;
use super::model::{Picture, Step};
use super::place::REST;
use crate::colour::{Inside, Seen, Tubes, UNDERPAINTINGS, grey, ground, usual_cards};
use crate::mix::{Finish, MixError, Swatch};
use crate::time::seconds;

/// Share of the picture from which a coat is seen in its face [-]. [practice] Half of it.
const WIDE: f64 = 0.5;

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
            let mixed = tubes.mixed(&of.mix).map_err(cannot)?;
            let wet_um = of.wet_film_um.unwrap_or_default();
            inside = mixed.laid(&inside, wet_um);
            surface = surface_of(of, tubes).unwrap_or(surface);
            let seen = inside.seen_under(surface);
            face.push(FaceCoat { step, inside, seen, covers: mixed.covers(wet_um) });
        }
        Ok(face)
    }

    /// What the coat of step `i` will lie on, or without a step the next one: the ground with every coat
    /// that comes before it.
    ///
    /// # Errors
    /// [`CoatFault`] of a coat that cannot be computed.
    pub fn under(&self, tubes: &Tubes, i: Option<usize>) -> Result<Inside, CoatFault> {
        let mut coats = self.coats_in_order(tubes)?;
        match i {
            Some(i) => coats.truncate(coats.iter().position(|c| *c == i).unwrap_or(coats.len())),
            None => coats.retain(|c| self.steps[*c].laid_at.is_some()),
        }
        let place = i.map_or(REST, |i| self.lies_at(i));
        coats.retain(|c| match self.lies_at(*c) {
            at if at == REST || place == REST => self.is_wide(*c),
            at => at == place,
        });
        let ground = self.ground_inside();
        Ok(self.face(tubes, &coats, &ground)?.last().map_or(ground, |last| last.inside))
    }

    /// What is not known of the colours of its coats, a sentence for each material.
    pub fn untold(&self, tubes: &Tubes) -> Vec<String> {
        let mut said: Vec<String> = Vec::new();
        for step in self.steps.iter().filter(|s| s.kind.leaves_film()) {
            said.extend(tubes.untold(&step.mix));
        }
        said.sort_unstable();
        said.dedup();
        said
    }

    /// The own colour of each of `coats` (steps): dry, alone over a white card.
    ///
    /// # Errors
    /// [`CoatFault`] of a coat that cannot be computed.
    pub fn own_colours(&self, tubes: &Tubes, coats: &[usize]) -> Result<Vec<Swatch>, CoatFault> {
        let own = |i: &usize| {
            let own = self.steps[*i].own_colour(tubes).map_err(|e| self.fault(*i, e))?;
            own.ok_or_else(|| self.fault(*i, NoCoat::Thickness(self.steps[*i].kind.word())))
        };
        coats.iter().map(own).collect()
    }

    /// What is seen after each of `coats` (steps in order, of one place) over the underpainting: its lights and
    /// its darks, as [`UNDERPAINTINGS`]. Up to the last coat of the underpainting both are as the stack;
    /// without an underpainting there is only the stack.
    ///
    /// # Errors
    /// [`CoatFault`] of a coat that cannot be computed.
    pub fn places(&self, tubes: &Tubes, coats: &[usize]) -> Result<Vec<Place>, CoatFault> {
        let covers = |c: &usize| self.lies_at(*c) != REST || self.is_wide(*c);
        let wide: Vec<usize> = coats.iter().copied().filter(covers).collect();
        let blocks_in = |step: &usize| self.steps[*step].kind == StepKind::Underpainting;
        let last = wide.iter().rposition(blocks_in);
        let values = if last.is_some() {
            vec![Some(UNDERPAINTINGS.1), Some(UNDERPAINTINGS.0)]
        } else {
            vec![None]
        };
        let over = |value: Option<f64>| {
            let mut row = self.face(tubes, &wide, &self.ground_inside())?;
            if let (Some(last), Some(value)) = (last, value) {
                let under = grey(value);
                let above = self.face(tubes, &wide[last + 1..], &under)?;
                row[last].seen = under.seen();
                row.splice(last + 1.., above);
            }
            let mut now = self.ground_inside().seen().swatch();
            let mut wide = row.into_iter().peekable();
            let seen = coats.iter().map(|step| {
                if let Some(coat) = wide.next_if(|coat| coat.step == *step) {
                    now = coat.seen.swatch();
                }
                now
            });
            Ok(Place { value, seen: seen.collect() })
        };
        values.into_iter().map(over).collect()
    }
}

impl Picture {
    /// Whether the coat of step `i` is wide: what lies on a small part of the picture is not what most of
    /// the next coat lies on.
    fn is_wide(&self, i: usize) -> bool {
        self.steps[i].share_of_area >= WIDE
    }
}

impl Step {
    /// The colour of its coat: dry, alone over a white card; `None` when it leaves none.
    ///
    /// # Errors
    /// [`NoCoat`] when it should leave a film but cannot be computed.
    pub fn own_colour(&self, tubes: &Tubes) -> Result<Option<Swatch>, NoCoat> {
        let Some((wet_um, _)) = self.coat(tubes.shelf())? else { return Ok(None) };
        let over = tubes.mixed(&self.mix)?.laid(&usual_cards().0, wet_um);
        Ok(Some(over.seen().swatch()))
    }
}

/// What is seen at a place of the underpainting after each coat.
#[derive(Debug, Clone, PartialEq)]
pub struct Place {
    /// Lightness of the underpainting there (L*); `None` where there is none.
    pub value: Option<f64>,
    /// After each coat.
    pub seen: Vec<Swatch>,
}

/// The surface that a sealing coat leaves; paint over it is gloss again, as its readings are.
fn surface_of(step: &Step, tubes: &Tubes) -> Option<Finish> {
    if !step.kind.seals() {
        return Some(Finish::Gloss);
    }
    step.mix.materials(tubes.shelf()).find_map(|m| m.finish)
}
