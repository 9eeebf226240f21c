//! Ways of working: each fills in a stack of steps that the painter then edits.

use super::kind::StepKind;
use super::model::Step;
use crate::mix::Mix;

/// A step of a way of working.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct WayStep {
    /// What it does.
    pub kind: StepKind,
    /// What it is called; empty for the kind's own word.
    pub name: &'static str,
    /// Wet film [um]; 0 for a step without film.
    pub film_um: f64,
    /// Hands-on minutes for a small picture.
    pub minutes: f64,
    /// Parts by volume of materials of the starter shelf.
    pub mix: &'static [(&'static str, f64)],
}

/// A way of working.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Way {
    /// Its name in documents.
    pub id: &'static str,
    /// What painters call it.
    pub name: &'static str,
    /// Why one works like this.
    pub why: &'static str,
    /// The steps in order.
    pub steps: &'static [WayStep],
}

impl Way {
    /// Its steps on a picture of so many cm.
    pub fn steps_on(&self, size: (f64, f64)) -> Vec<Step> {
        let step = |(n, s): (usize, &WayStep)| Step {
            name: (!s.name.is_empty()).then(|| s.name.to_owned()),
            hands_on_min: s.kind.minutes_on(s.minutes, size),
            wet_film_um: (s.film_um > 0.0).then_some(s.film_um),
            share_of_area: s.kind.usual_share(),
            mix: Mix::of(s.mix),
            ..Step::usual(format!("s{}", n + 1), s.kind)
        };
        self.steps.iter().enumerate().map(step).collect()
    }
}

const fn film(
    kind: StepKind,
    name: &'static str,
    film_um: f64,
    minutes: f64,
    mix: &'static [(&'static str, f64)],
) -> WayStep {
    WayStep { kind, name, film_um, minutes, mix }
}

const fn bare(kind: StepKind, name: &'static str, minutes: f64) -> WayStep {
    WayStep { kind, name, film_um: 0.0, minutes, mix: &[] }
}

use StepKind::{
    Detail, Drawing, Glaze, LockingCoat, Pack, Pass, Photograph, Scumble, SealDrawing, Signature,
    Tone, Underpainting, Varnish,
};

/// A mid earth tone thinned with medium. [practice]
const EARTH: &[(&str, f64)] = &[("heavy-py42", 2.0), ("matte-medium", 1.0)];
/// Clear matte medium alone. [practice]
const CLEAR: &[(&str, f64)] = &[("matte-medium", 1.0)];
/// A glaze of a strong pigment to start with, 95:5: very light, and repeated. [practice]
const BLUE_GLAZE: &[(&str, f64)] = &[("glazing", 95.0), ("fluid-pb15", 5.0)];
/// One of a weaker pigment, 90:10. [practice]
const WARM_GLAZE: &[(&str, f64)] = &[("glazing", 90.0), ("fluid-py150", 10.0)];
/// The lightest start, 95:5. [practice]
const LIGHT_GLAZE: &[(&str, f64)] = &[("glazing", 95.0), ("fluid-pv19", 5.0)];
const DARK: &[(&str, f64)] = &[("heavy-grey3", 1.0)];
const LIGHT: &[(&str, f64)] = &[("heavy-grey6", 1.0)];
const WHITE: &[(&str, f64)] = &[("heavy-pw6", 1.0)];
const GLOSS: &[(&str, f64)] = &[("varnish-gloss", 1.0)];
const MATTE: &[(&str, f64)] = &[("varnish-matte", 1.0)];
const BROWN: &[(&str, f64)] = &[("heavy-pbr7", 1.0)];
const BLUE: &[(&str, f64)] = &[("heavy-pb29", 1.0)];
const RED: &[(&str, f64)] = &[("heavy-pr254", 1.0)];

/// The ways of working of docs/trade.md, films and minutes for a small picture. [practice]
#[rustfmt::skip]
pub const WAYS: &[Way] = &[
    Way { id: "back_to_front", name: "Back to front",
        why: "Background first, finished and soft, then the subject, so that its edges overlap it.",
        steps: &[
            film(Tone, "", 45.0, 20.0, EARTH), bare(Drawing, "", 60.0), film(SealDrawing, "", 35.0, 15.0, CLEAR),
            film(Pass, "Background, far", 60.0, 60.0, BLUE), film(Pass, "Background, near", 80.0, 60.0, BROWN),
            film(Underpainting, "Subject, blocked in", 90.0, 90.0, BROWN), film(Pass, "Subject", 80.0, 90.0, RED),
            film(Detail, "", 60.0, 60.0, WHITE), film(Signature, "", 15.0, 10.0, BROWN), bare(Photograph, "", 20.0),
            film(Varnish, "Varnish 1", 45.0, 25.0, GLOSS), film(Varnish, "Varnish 2", 45.0, 25.0, MATTE), bare(Pack, "", 20.0),
        ] },
    Way { id: "dark_glazes_first", name: "All together, dark glazes first",
        why: "The whole picture in very light, medium-rich glazes, value structure first; nothing finished alone.",
        steps: &[
            film(Tone, "", 45.0, 20.0, EARTH), bare(Drawing, "", 60.0), film(SealDrawing, "", 35.0, 15.0, CLEAR),
            film(Glaze, "Dark glaze 1", 40.0, 40.0, BLUE_GLAZE), film(Glaze, "Dark glaze 2", 40.0, 40.0, BLUE_GLAZE),
            film(Glaze, "Warm glaze 1", 40.0, 40.0, WARM_GLAZE), film(Glaze, "Warm glaze 2", 40.0, 40.0, WARM_GLAZE),
            film(Detail, "", 60.0, 60.0, WHITE), film(Signature, "", 15.0, 10.0, BROWN), bare(Photograph, "", 20.0),
            film(Varnish, "Varnish 1", 45.0, 25.0, GLOSS), film(Varnish, "Varnish 2", 45.0, 25.0, GLOSS), bare(Pack, "", 20.0),
        ] },
    Way { id: "greys_then_colour", name: "Greys then colour",
        why: "A complete value painting in neutral greys, then transparent colour over it.",
        steps: &[
            film(Tone, "", 45.0, 20.0, EARTH), bare(Drawing, "", 60.0), film(SealDrawing, "", 35.0, 15.0, CLEAR),
            film(Underpainting, "Greys, darks", 90.0, 90.0, DARK), film(Underpainting, "Greys, lights", 80.0, 90.0, LIGHT),
            film(Glaze, "Glaze 1", 40.0, 40.0, WARM_GLAZE), film(Glaze, "Glaze 2", 40.0, 40.0, LIGHT_GLAZE),
            film(Glaze, "Glaze 3", 40.0, 40.0, BLUE_GLAZE), film(Detail, "", 60.0, 60.0, WHITE),
            film(Signature, "", 15.0, 10.0, BROWN), bare(Photograph, "", 20.0),
            film(Varnish, "Varnish 1", 45.0, 25.0, GLOSS), film(Varnish, "Varnish 2", 45.0, 25.0, GLOSS), bare(Pack, "", 20.0),
        ] },
    Way { id: "white_under_glow", name: "White under glow",
        why: "Places that must stay vivid are painted white, glazed, whitened and glazed again until bright enough.",
        steps: &[
            film(Tone, "", 45.0, 20.0, EARTH), bare(Drawing, "", 60.0), film(SealDrawing, "", 35.0, 15.0, CLEAR),
            film(Underpainting, "Darks around", 90.0, 60.0, DARK), film(Pass, "White 1", 60.0, 30.0, WHITE),
            film(Glaze, "Glow glaze 1", 40.0, 40.0, WARM_GLAZE), film(Pass, "White 2", 50.0, 30.0, WHITE),
            film(Glaze, "Glow glaze 2", 40.0, 40.0, WARM_GLAZE), film(Detail, "", 60.0, 60.0, WHITE),
            film(Signature, "", 15.0, 10.0, BROWN), bare(Photograph, "", 20.0),
            film(Varnish, "Varnish 1", 45.0, 25.0, GLOSS), film(Varnish, "Varnish 2", 45.0, 25.0, GLOSS), bare(Pack, "", 20.0),
        ] },
    Way { id: "mid_to_light", name: "Mid-tone to light with opaque detail",
        why: "Mid tones on a dark ground, a unifying glaze, then lighter and more opaque strokes; never too light too soon.",
        steps: &[
            film(Tone, "Dark tone", 50.0, 20.0, BROWN), bare(Drawing, "", 60.0),
            film(Underpainting, "Mid tones", 90.0, 90.0, DARK), film(Glaze, "Unifying glaze", 40.0, 40.0, WARM_GLAZE),
            film(Pass, "Lighter", 70.0, 60.0, LIGHT), film(Detail, "Lightest strokes", 60.0, 90.0, WHITE),
            film(Signature, "", 15.0, 10.0, WHITE), bare(Photograph, "", 20.0),
            film(Varnish, "Varnish 1", 45.0, 25.0, GLOSS), film(Varnish, "Varnish 2", 45.0, 25.0, GLOSS), bare(Pack, "", 20.0),
        ] },
    Way { id: "section_by_section", name: "Section by section",
        why: "Base layers over all, then one small area carried to the end before the next.",
        steps: &[
            film(Tone, "", 45.0, 20.0, EARTH), bare(Drawing, "", 60.0), film(SealDrawing, "", 35.0, 15.0, CLEAR),
            film(Underpainting, "Base over all", 90.0, 90.0, LIGHT), film(Pass, "First section", 70.0, 90.0, BLUE),
            film(Pass, "Second section", 70.0, 90.0, RED), film(Pass, "Third section", 70.0, 90.0, BROWN),
            film(Detail, "", 60.0, 60.0, WHITE), film(Signature, "", 15.0, 10.0, BROWN), bare(Photograph, "", 20.0),
            film(Varnish, "Varnish 1", 45.0, 25.0, GLOSS), film(Varnish, "Varnish 2", 45.0, 25.0, GLOSS), bare(Pack, "", 20.0),
        ] },
    Way { id: "six_step", name: "Six-step expressive",
        why: "Tone, draw, darkest against lightest, further colour and scumble, sign, texture.",
        steps: &[
            film(Tone, "", 45.0, 20.0, EARTH), bare(Drawing, "", 30.0), film(Underpainting, "First colour", 110.0, 60.0, BLUE),
            film(Scumble, "Further colour", 35.0, 40.0, RED), film(Signature, "", 15.0, 10.0, BROWN),
            film(Scumble, "Texture", 30.0, 30.0, WHITE), bare(Photograph, "", 20.0),
            film(Varnish, "Varnish 1", 45.0, 25.0, GLOSS), film(Varnish, "Varnish 2", 45.0, 25.0, GLOSS), bare(Pack, "", 20.0),
        ] },
    Way { id: "explore", name: "Explore",
        why: "Layers without a fixed end: wipe back wet or sand back dry, and repeat.",
        steps: &[
            film(Tone, "", 45.0, 20.0, EARTH), film(Pass, "Layer 1", 80.0, 40.0, BLUE),
            film(Pass, "Layer 2", 80.0, 40.0, RED), bare(StepKind::Sanding, "", 30.0),
            film(LockingCoat, "", 30.0, 15.0, CLEAR), film(Glaze, "", 40.0, 40.0, BLUE_GLAZE),
        ] },
];

#[cfg(test)]
mod tests {
    use super::*;
    use crate::mix::starter_shelf;

    #[test]
    fn what_is_varnished_ends_with_rest_and_wrapping() {
        for way in WAYS.iter().filter(|w| w.steps.iter().any(|s| s.kind == Varnish)) {
            assert_eq!(way.steps.last().map(|s| s.kind), Some(Pack), "{}", way.id);
        }
    }

    #[test]
    fn every_way_uses_the_starter_shelf_and_films_where_they_belong() {
        let shelf = starter_shelf().unwrap();
        for step in WAYS.iter().flat_map(|way| way.steps) {
            assert_eq!(
                step.kind.leaves_film(),
                step.film_um > 0.0,
                "{} {}",
                step.kind.word(),
                step.name
            );
            assert_eq!(step.kind.leaves_film(), !step.mix.is_empty());
            for (id, _) in step.mix {
                assert!(shelf.iter().any(|m| m.id == *id), "{id}");
            }
        }
    }
}
