//! Care for people: dust and spray.

use super::{Rule, Scene, Severity};
use crate::picture::StepKind;

pub(super) const RULE: Rule = Rule {
    id: "dust-and-spray",
    severity: Severity::Note,
    remedy: || {
        "Sand wet or wear a dust mask; never dry-sand or spray layers with cadmium, cobalt, nickel, chromium, manganese or lead pigments; read the paints' safety data sheets and keep to local rules for dust and rinse water.".into()
    },
    provenance: "[practice] care for people; the product's safety data sheet comes first",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    for (i, step) in scene.to_do() {
        match step.kind {
            StepKind::Sanding => say(i, "Sanding makes dust that is not to be breathed.".into()),
            StepKind::Airbrush => {
                say(i, "Sprayed paint hangs in the air and is breathed in.".into())
            }
            _ => {}
        }
    }
}
