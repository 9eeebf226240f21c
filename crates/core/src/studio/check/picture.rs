//! Pictures and their steps.

use super::mix::check_mix;
use super::{
    MOST_ASIDE, MOST_HAPPENED, MOST_SEALED, MOST_STEPS, MOST_TESTS, day, each, moment, moment_if,
    number, number_if,
};
use crate::cup::CupError;
use crate::mix::Drawdown;
use crate::picture::{Happening, MOST_COATS, SealRecord, Step, VarnishChoice, What, check_chain};
use crate::quantity::{
    Absorbency, Checked, Edge, Fault, Grams, GroundDelay, Minutes, Share, Side, Weight, WetFilm,
    at_most, check_line, check_text,
};
use crate::studio::Studio;

impl Studio {
    /// Holds that picture `p` may be, on the shelf of the studio; places are those in the picture.
    ///
    /// # Errors
    /// [`Fault`] of the first place that does not fit.
    pub fn check_picture(&self, p: usize) -> Checked {
        let picture = &self.pictures[p];
        at_most("steps", picture.steps.len(), MOST_STEPS, "steps")?;
        each("steps", &picture.steps, |step| check_step(self, step))?;
        check_line("id", &picture.id)?;
        check_line("title", &picture.title)?;
        number("width_cm", Side::RANGE, picture.width_cm)?;
        number("height_cm", Side::RANGE, picture.height_cm)?;
        number("weight", Weight::RANGE, picture.weight)?;
        picture.due.map_or(Ok(()), |due| day("due", due))?;
        number("ground.absorbs_um", Absorbency::RANGE, picture.ground.absorbs_um)?;
        number("ground.delay_s", GroundDelay::RANGE, picture.ground.delay_s)?;
        number("ground.back", Share::RANGE, picture.ground.back)?;
        if let Some(own) = &picture.thinning {
            check_line("thinning.reason", &own.reason)?;
        }
        at_most("set_aside", picture.set_aside.len(), MOST_ASIDE, "findings")?;
        each("set_aside", &picture.set_aside, |aside| {
            check_line("rule", &aside.rule)?;
            check_line("step", &aside.step)?;
            check_line("reason", &aside.reason)?;
            moment("at", aside.at)
        })?;
        at_most("tests", picture.tests.len(), MOST_TESTS, "touch tests")?;
        each("tests", &picture.tests, |test| {
            moment("at", test.at)?;
            picture.step_called(&test.step).map(|_| ())
        })?;
        at_most("happened", picture.happened.len(), MOST_HAPPENED, "entries")?;
        each("happened", &picture.happened, |happening| {
            if !happening.what.is_of_picture() {
                return Err(Fault::new("what", "a session is the studio's, not one picture's"));
            }
            check_happening(self, happening)
        })?;
        check_seal(&picture.seal).map_err(|fault| fault.within("seal"))?;
        check_chain(picture).map_err(|e| Fault::new(format!("steps[{}]", e.step()), e))
    }
}

/// Why a session cannot be.
pub const ENDS_BEFORE: &str = "a session ends after it begins";

pub(super) fn check_step(studio: &Studio, step: &Step) -> Checked {
    check_mix(&step.mix, &studio.materials)?;
    if let Some(id) = &step.tub {
        let tub = studio
            .tub(id)
            .ok_or_else(|| Fault::new("tub", format!("no tub \"{id}\" is on the shelf")))?;
        if !tub.mix.same_as(&step.mix) {
            let why = format!("the mix is not what is in the tub \"{}\"", tub.name);
            return Err(Fault::new("tub", why));
        }
    }
    check_line("id", &step.id)?;
    step.name.as_deref().map_or(Ok(()), |name| check_line("name", name))?;
    if let Some(section) = &step.section {
        check_line("section", section)?;
        if !step.kind.has_section() {
            let kind = step.kind.word();
            let why = format!("a step of the kind {kind} is done all over: take the section out");
            return Err(Fault::new("section", why));
        }
    }
    number("hands_on_min", Minutes::RANGE, step.hands_on_min)?;
    number_if("wet_film_um", WetFilm::RANGE, step.wet_film_um)?;
    number("share_of_area", Share::RANGE, step.share_of_area)?;
    number_if("earliest_gap_min", Minutes::RANGE, step.earliest_gap_min)?;
    number_if("loss", Share::RANGE, step.loss)?;
    number_if("cup_g", Grams::RANGE, step.cup_g)?;
    for (place, at) in
        [("not_before", step.not_before), ("pinned_at", step.pinned_at), ("laid_at", step.laid_at)]
    {
        moment_if(place, at)?;
    }
    if step.loss.is_some_and(|loss| loss >= 1.0) {
        return Err(Fault::new("loss", CupError::AllLost));
    }
    step.coat(&studio.materials).map(|_| ()).map_err(|e| {
        let place = if step.wet_film_um.is_none() { "wet_film_um" } else { "mix" };
        Fault::new(place, e)
    })
}

/// An entry of the day book: it is about no picture.
pub(super) fn check_daybook(studio: &Studio, happening: &Happening) -> Checked {
    if !happening.what.is_of_studio() || happening.step.is_some() || !happening.place.is_empty() {
        let why = "what happens on a picture stands with that picture";
        return Err(Fault::new("what", why));
    }
    check_happening(studio, happening)
}

/// What a step or a material was called that is gone since stays in the record.
fn check_happening(studio: &Studio, happening: &Happening) -> Checked {
    moment("at", happening.at)?;
    for (place, name) in [("step", &happening.step), ("material", &happening.material)] {
        name.as_deref().map_or(Ok(()), |name| check_line(place, name))?;
    }
    if !happening.place.is_empty() {
        check_line("place", &happening.place)?;
    }
    check_text("words", &happening.words)?;
    match &happening.what {
        What::Noted | What::Misted | What::Trouble(_) => Ok(()),
        What::WipedOff { was_um } | What::Sanded { was_um, dry_um: None } => {
            number("was_um", WetFilm::RANGE, *was_um)
        }
        What::Sanded { was_um, dry_um: Some(dry_um) } => {
            number("was_um", WetFilm::RANGE, *was_um)?;
            number("dry_um", Drawdown::DRY, *dry_um)
        }
        What::Session { until } => {
            moment("what.until", *until)?;
            if *until > happening.at { Ok(()) } else { Err(Fault::new("what.until", ENDS_BEFORE)) }
        }
        What::Swatch(seen) => {
            number("wet_film_um", WetFilm::RANGE, seen.wet_film_um)?;
            check_mix(&seen.mix, &studio.materials)
        }
    }
}

fn check_seal(seal: &SealRecord) -> Checked {
    if let Some(choice) = &seal.choice {
        check_choice(choice).map_err(|fault| fault.within("choice"))?;
    }
    moment_if("inspected_at", seal.inspected_at)?;
    at_most("anyway", seal.anyway.len(), MOST_SEALED, "entries")?;
    each("anyway", &seal.anyway, |anyway| {
        moment("at", anyway.at)?;
        check_line("step", &anyway.step)?;
        check_line("reason", &anyway.reason)?;
        at_most("against", anyway.against.len(), MOST_SEALED, "conditions")?;
        anyway.against.iter().try_for_each(|c| check_line("against", c))
    })?;
    at_most("troubles", seal.troubles.len(), MOST_SEALED, "entries")?;
    each("troubles", &seal.troubles, |found| {
        moment("at", found.at)?;
        check_line("step", &found.step)
    })
}

/// Holds that a choice of varnish may be by itself; whether it suits a picture is the plan's to say.
///
/// # Errors
/// [`Fault`] of the first place that does not fit.
pub fn check_choice(choice: &VarnishChoice) -> Checked {
    if !(1..=MOST_COATS).contains(&choice.coats) {
        let why = format!("coats must be from 1 to {MOST_COATS}, not {}", choice.coats);
        return Err(Fault::new("coats", why));
    }
    number("edge_cm", Edge::RANGE, choice.edge_cm)?;
    let reason = choice.isolation_reason.as_deref();
    reason.map_or(Ok(()), |reason| check_line("isolation_reason", reason))
}
