//! Materials, tubs and own ways of working.

use super::mix::check_mix;
use super::picture::check_step;
use super::{
    MOST_CHECKS, MOST_ENTRIES, MOST_PIGMENTS, MOST_STEPS, each, moment, number, number_if, unique,
};
use crate::colour::{Optics, Untold, told_by_tint};
use crate::cup::amounts;
use crate::mix::{Drawdown, Material, Stock, Tint};
use crate::picture::{Picture, check_chain};
use crate::quantity::{
    Checked, Fault, KeepsDays, Millilitres, Pace, at_most, check_line, check_text,
};
use crate::studio::{OwnWay, Studio, Tub};

/// By how much the binder may pass the solids it is a part of [-]: data sheets have two digits.
/// [practice]
const TWO_DIGITS: f64 = 0.011;

impl Studio {
    /// Holds that its shelf may be, and that the pictures find on it what they use.
    ///
    /// # Errors
    /// [`Fault`] of the first place that does not fit.
    pub fn check_shelf(&self) -> Checked {
        self.check_entries()?;
        self.check_used()
    }

    /// The entries of the shelf by themselves.
    pub(super) fn check_entries(&self) -> Checked {
        let lists = [
            ("materials", self.materials.len()),
            ("tubs", self.tubs.len()),
            ("ways", self.ways.len()),
        ];
        for (list, count) in lists {
            at_most(list, count, MOST_ENTRIES, "entries")?;
        }
        each("materials", &self.materials, |m| check_material(m, &self.materials))?;
        unique("materials", self.materials.iter().map(|m| m.id.as_str()))?;
        each("tubs", &self.tubs, |tub| check_tub(self, tub))?;
        unique("tubs", self.tubs.iter().map(|t| t.id.as_str()))?;
        each("ways", &self.ways, |way| check_way(self, way))?;
        unique("ways", self.ways.iter().map(|w| w.id.as_str()))
    }

    /// What the pictures use is on the shelf: material by material and tub by tub.
    fn check_used(&self) -> Checked {
        let steps = self.pictures.iter().flat_map(|p| p.steps.iter().map(move |s| (p, s)));
        for (picture, step) in steps {
            let used = || format!("is used in {} of \"{}\"", step.called(), picture.title);
            let missing = step.mix.iter().find(|p| self.material(&p.material).is_none());
            if let Some(part) = missing {
                let why = format!(
                    "\"{}\" {}: put it away instead of taking it out",
                    part.material,
                    used()
                );
                return Err(Fault::new("materials", why));
            }
            if let Some(tub) = step.tub.as_deref().filter(|id| self.tub(id).is_none()) {
                let why = format!("the tub \"{tub}\" {}: put it away instead", used());
                return Err(Fault::new("tubs", why));
            }
        }
        Ok(())
    }
}

fn check_material(material: &Material, shelf: &[Material]) -> Checked {
    check_line("id", &material.id)?;
    check_line("name", &material.name)?;
    check_line("kind", material.kind.word())?;
    number("pace", Pace::RANGE, material.composition.pace())?;
    for (place, range, read) in Material::NUMBERS {
        number_if(place, range, read(material))?;
    }
    if material.binder.is_some_and(|b| b > material.composition.solids() + TWO_DIGITS) {
        return Err(Fault::new("binder", "is more than the solids it is a part of"));
    }
    if let Some(drawdown) = &material.drawdown {
        check_drawdown(drawdown)?;
    }
    if let Some(tint) = &material.tint {
        check_tint(tint, material, shelf).map_err(|f| f.within("tint"))?;
    }
    at_most("pigments", material.pigments.len(), MOST_PIGMENTS, "pigments")?;
    for (i, pigment) in material.pigments.iter().enumerate() {
        check_line(&format!("pigments[{i}]"), pigment)?;
    }
    check_text("hazards", material.hazards.as_deref().unwrap_or_default())?;
    check_text("colour_source", material.colour_source.as_deref().unwrap_or_default())?;
    check_text("source", material.source.as_deref().unwrap_or_default())?;
    material.stock.map_or(Ok(()), |stock| check_stock("stock", &stock))
}

/// Readings that hide the cards are kept: the paint is drawn as it was seen, and said to be so.
fn check_drawdown(drawdown: &Drawdown) -> Checked {
    number("swatch_dry_um", Drawdown::DRY, drawdown.dry_um)?;
    match Optics::told_by(drawdown) {
        Err(why @ Untold::DarkerOverWhite) => Err(Fault::new("over_white", why)),
        Err(why @ Untold::Cards) => Err(Fault::new("cards", why)),
        Err(Untold::Equal | Untold::LighterThanItsWhite) | Ok(_) => Ok(()),
    }
}

fn check_tint(tint: &Tint, of: &Material, shelf: &[Material]) -> Checked {
    number("white_parts", Tint::PARTS, tint.white_parts)?;
    if of.drawdown.is_none() {
        return Err(Fault::new("", "needs its colour over both cards beside it"));
    }
    let refused = |why: String| Err(Fault::new("white", why));
    let Some(white) = shelf.iter().find(|m| m.id == tint.white) else {
        return refused(format!("there is no \"{}\" on the shelf", tint.white));
    };
    if white.id == of.id {
        return refused("a paint is not its own white".to_owned());
    }
    match told_by_tint(of, shelf) {
        Some(Ok(_)) => Ok(()),
        Some(Err(why)) => Err(Fault::new("colour", why)),
        None => refused(format!("\"{}\" has not been read over two cards", white.name)),
    }
}

fn check_stock(place: &str, stock: &Stock) -> Checked {
    number(&format!("{place}.ml"), Millilitres::RANGE, stock.ml)?;
    moment(&format!("{place}.at"), stock.at)
}

fn check_tub(studio: &Studio, tub: &Tub) -> Checked {
    check_line("id", &tub.id)?;
    check_line("name", &tub.name)?;
    moment("mixed_at", tub.mixed_at)?;
    number("mixed_ml", Millilitres::RANGE, tub.mixed_ml)?;
    check_mix(&tub.mix, &studio.materials)?;
    amounts(&tub.mix, tub.mixed_ml, &studio.materials).map_err(|e| Fault::new("mix", e))?;
    check_stock("level", &tub.level)?;
    at_most("checks", tub.checks.len(), MOST_CHECKS, "looks")?;
    each("checks", &tub.checks, |look| moment("at", look.at))?;
    number_if("keeps_days", KeepsDays::RANGE, tub.keeps_days)
}

fn check_way(studio: &Studio, way: &OwnWay) -> Checked {
    check_line("id", &way.id)?;
    check_line("name", &way.name)?;
    check_line("why", &way.why)?;
    at_most("steps", way.steps.len(), MOST_STEPS, "steps")?;
    each("steps", &way.steps, |step| {
        check_step(studio, step)?;
        if step.laid_at.is_some() {
            let why = "a way of working is a plan: nothing in it is laid";
            return Err(Fault::new("laid_at", why));
        }
        Ok(())
    })?;
    // The size does not matter: only what stands on what.
    check_chain(&Picture::new(way.id.clone(), (30.0, 40.0), way.steps.clone()))
        .map_err(|e| Fault::new(format!("steps[{}]", e.step()), e))
}
