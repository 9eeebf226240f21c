//! A step as it usually begins in this studio: its kind's film, area and minutes, and a mix from the
//! studio's own shelf.

use super::whole::Studio;
use crate::mix::{Finish, Line, Material, MaterialKind, Mix, Part};
use crate::picture::{Picture, Step, StepKind};

/// Share of paint in a glaze to start with [parts of 10]; docs/trade.md: 5-10 %. [practice]
const GLAZE: (f64, f64) = (9.0, 1.0);
/// Share of paint in a tone thinned with medium [parts of 3]. [practice]
const TONE: (f64, f64) = (1.0, 2.0);

/// Slow volatile from which a clear medium is one for glazes, whatever it is called: it flows out and stays open
/// [-, by volume]. [practice] glazing liquid 0.09, other mediums 0.03 to 0.05
const GLAZING_FROM: f64 = 0.07;

/// What is looked for on a shelf; of several that fit the first.
type Fits = fn(&Material) -> bool;

fn is_medium(m: &Material) -> bool {
    m.kind == MaterialKind::Medium && m.line.is_none()
}

fn is_glazing(m: &Material) -> bool {
    let called = || m.name.to_lowercase().contains("glaz");
    is_medium(m) && (m.composition.glycol() >= GLAZING_FROM || called())
}

fn is_matte(m: &Material) -> bool {
    is_medium(m) && m.finish == Some(Finish::Matte)
}

fn is_gloss(m: &Material) -> bool {
    is_medium(m) && m.finish == Some(Finish::Gloss) && !is_glazing(m)
}

fn is_ordinary(m: &Material) -> bool {
    m.kind == MaterialKind::Paint && !m.is_slow_paint() && m.line == Some(Line::Heavy)
}

fn is_fluid(m: &Material) -> bool {
    m.kind == MaterialKind::Paint && m.line == Some(Line::Fluid)
}

fn is_airbrush(m: &Material) -> bool {
    m.kind == MaterialKind::Paint && m.line == Some(Line::Airbrush)
}

fn is_iridescent(m: &Material) -> bool {
    m.kind == MaterialKind::Paint && m.line == Some(Line::Iridescent)
}

fn is_earth(m: &Material) -> bool {
    is_ordinary(m) && m.pigments.iter().any(|p| p.starts_with("PBr") || p == "PY42")
}

impl Studio {
    /// A step of `kind` called `id`, to be added to `picture`: with the kind's usual film and area, minutes
    /// by the picture's size, and a mix of what stands on the shelf. A further coat of paint begins with the mix of
    /// the last one of its kind; where the shelf has nothing that fits, the cup is empty.
    pub fn usual_step(&self, picture: &Picture, kind: StepKind, id: impl Into<String>) -> Step {
        let size = (picture.width_cm, picture.height_cm);
        Step {
            mix: self.usual_mix(picture, kind),
            hands_on_min: kind.minutes_on(kind.usual_minutes(), size),
            share_of_area: kind.usual_share(),
            ..Step::usual(id, kind)
        }
    }

    /// The steps of a way of working as they begin in this studio on a picture of so many cm: with an isolation
    /// coat below the varnish, where the studio lays one.
    pub fn begun(&self, size: (f64, f64), steps: Vec<Step>) -> Vec<Step> {
        let mut picture = Picture::new("begun", size, steps);
        let isolates = picture.steps.iter().any(|s| s.kind == StepKind::IsolationCoat);
        let varnish = picture.steps.iter().position(|s| s.kind == StepKind::Varnish);
        if let Some(at) = varnish.filter(|_| self.schools.isolation_coat && !isolates) {
            let id = picture.free_names("isolation").next().unwrap_or_default();
            let step = self.usual_step(&picture, StepKind::IsolationCoat, id);
            picture.put(at, [step]);
        }
        picture.steps
    }

    /// A glaze of the colour of `mix`: its paints without white in the medium for glazes, as strong as one begins; the mix
    /// itself where it holds no paint.
    pub fn glaze_of(&self, mix: &Mix) -> Mix {
        let paints = |white: bool| -> Vec<&Part> {
            let paint = |part: &&Part| {
                self.material(&part.material)
                    .is_some_and(|m| m.kind == MaterialKind::Paint && (white || m.wants_tint()))
            };
            mix.iter().filter(paint).collect()
        };
        let colour = Some(paints(false)).filter(|c| !c.is_empty()).unwrap_or_else(|| paints(true));
        if colour.is_empty() {
            return mix.clone();
        }
        let all: f64 = colour.iter().map(|part| part.parts).sum();
        let medium = self.first_of(&[is_glazing, is_medium]);
        let clear = medium.map(|m| Part { material: m.id.clone(), parts: GLAZE.0 });
        let paints = colour
            .into_iter()
            .map(|part| Part { parts: part.parts / all * GLAZE.1, ..part.clone() });
        clear.into_iter().chain(paints).collect()
    }

    fn usual_mix(&self, picture: &Picture, kind: StepKind) -> Mix {
        use StepKind::{
            Airbrush, Correction, Embellishment, Glaze, Ground, IsolationCoat, LockingCoat,
            SealDrawing, Signature, Tone, Varnish,
        };
        if !kind.leaves_film() {
            return Mix::default();
        }
        let again = picture.steps.iter().rfind(|s| s.kind == kind && !s.mix.is_empty());
        if let Some(step) = again {
            return step.mix.clone();
        }
        let one = |fits: &[Fits]| self.first_of(fits).map(|m| Mix::one(&m.id)).unwrap_or_default();
        let primer: Fits = |m| m.kind == MaterialKind::Primer;
        let paint: Fits = |m| m.kind == MaterialKind::Paint;
        match kind {
            Ground | Correction => one(&[primer]),
            SealDrawing => one(&[is_matte, is_medium]),
            LockingCoat => one(&[is_glazing, is_medium]),
            IsolationCoat => one(&[is_gloss, is_medium]),
            Varnish => one(&[
                |m| m.kind == MaterialKind::Varnish && m.finish == Some(Finish::Gloss),
                |m| m.kind == MaterialKind::Varnish,
                |m| m.kind == MaterialKind::SolventVarnish,
            ]),
            Tone => self
                .two((&[is_matte, is_medium], TONE.0), (&[is_earth, is_ordinary, paint], TONE.1)),
            Glaze => self.two((&[is_glazing, is_medium], GLAZE.0), (&[is_fluid, paint], GLAZE.1)),
            Signature => one(&[is_fluid, paint]),
            Airbrush => one(&[is_airbrush, is_fluid, paint]),
            Embellishment => one(&[is_iridescent, paint]),
            _ => self.last_paint(picture).unwrap_or_else(|| one(&[is_ordinary, paint])),
        }
    }

    /// The mix of the last coat of colour on `picture`.
    fn last_paint(&self, picture: &Picture) -> Option<Mix> {
        let paints = |s: &&Step| s.kind.is_colour() && !s.kind.is_glaze() && !s.mix.is_empty();
        picture.steps.iter().rfind(paints).map(|s| s.mix.clone())
    }

    fn two(&self, thin: (&[Fits], f64), strong: (&[Fits], f64)) -> Mix {
        let parts = [thin, strong].into_iter().filter_map(|(fits, parts)| {
            Some(Part { material: self.first_of(fits)?.id.clone(), parts })
        });
        parts.collect()
    }

    /// The first material on the shelf that fits the first of `fits` that any fits.
    fn first_of(&self, fits: &[Fits]) -> Option<&Material> {
        fits.iter().find_map(|fits| self.materials.iter().find(|m| !m.archived && fits(m)))
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::air::{Air, AirSeries};
    use crate::mix::starter_shelf;
    use crate::picture::SMALL_CM;
    use crate::studio::StudioHours;

    #[test]
    fn every_kind_begins_with_what_it_is_made_of() {
        let hours = StudioHours::try_new(chrono_tz::UTC, vec![], vec![]).unwrap();
        let air = AirSeries::constant(Air::try_new(21.0, 0.5, 0.15).unwrap());
        let mut studio = Studio::new("Test room", hours, air);
        studio.materials = starter_shelf().unwrap();
        let bare = Picture::new("p", (30.0, 40.0), vec![]);
        let first = |kind| {
            let step = studio.usual_step(&bare, kind, "s");
            let mix = step.mix.first().map(|p| p.material.clone());
            (mix.unwrap_or_default(), step.share_of_area)
        };
        // docs/trade.md, the order of work: what each step is made of. [practice]
        let says = |kind, material: &str, share: f64| {
            assert_eq!(first(kind), (material.to_owned(), share), "{kind:?}");
        };
        says(StepKind::Ground, "primer", 1.0);
        says(StepKind::Correction, "primer", 0.1);
        says(StepKind::SealDrawing, "matte-medium", 1.0);
        says(StepKind::LockingCoat, "glazing", 1.0);
        says(StepKind::IsolationCoat, "gloss-medium", 1.0);
        says(StepKind::Glaze, "glazing", 1.0);
        says(StepKind::Signature, "fluid-pv19", 0.01);
        says(StepKind::Varnish, "varnish-gloss", 1.0);
        says(StepKind::Photograph, "", 1.0);
        // Whatever a glazing liquid is called, and wherever it stands.
        let glazing = studio.materials.iter().position(|m| m.id == "glazing").unwrap();
        let mut called = studio.materials.remove(glazing);
        called.name = "Lasurmittel".into();
        let mut other = studio.clone();
        other.materials.retain(|m| m.id != "fast-glazing");
        other.materials.push(called.clone());
        assert_eq!(other.usual_step(&bare, StepKind::Glaze, "s").mix[0].material, "glazing");
        studio.materials.insert(glazing, called);
        // A further coat begins with the cup of the last of its kind.
        let glaze = Step { mix: Mix::one("fast-glazing"), ..Step::usual("g", StepKind::Glaze) };
        let begun = Picture::new("p", (30.0, 40.0), vec![glaze]);
        assert_eq!(studio.usual_step(&begun, StepKind::Glaze, "h").mix, Mix::one("fast-glazing"));
        let varnish = || Step::usual("v", StepKind::Varnish);
        assert_eq!(studio.begun(SMALL_CM, vec![varnish()]).len(), 1);
        studio.schools.isolation_coat = true;
        let kinds: Vec<StepKind> =
            studio.begun(SMALL_CM, vec![varnish()]).iter().map(|s| s.kind).collect();
        assert_eq!(kinds, [StepKind::IsolationCoat, StepKind::Varnish]);
        studio.materials.clear();
        assert!(studio.usual_step(&bare, StepKind::Varnish, "v").mix.is_empty(), "nothing to pour");
    }
}
