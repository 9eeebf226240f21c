//! Care for people: pigments that must not become dust.

use super::{Rule, Scene, Severity};
use crate::mix::Material;
use crate::picture::StepKind;

pub(super) const RULE: Rule = Rule {
    id: "toxic-dust",
    severity: Severity::Stop,
    remedy: || {
        "Do not dry-sand or spray here: sand wet or leave it, read the paints' safety data sheets, and follow local rules and licensed advice.".into()
    },
    provenance: "[memory] by the Colour Index name: cadmium, cobalt, nickel, chromium, manganese and lead pigments",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    for (i, step) in scene.to_do() {
        // Sanding reaches every coat that is there by then; spraying throws its own cup.
        let reached = match step.kind {
            StepKind::Sanding => scene.under(i),
            StepKind::Airbrush => vec![i],
            _ => continue,
        };
        for n in reached {
            let coat = &scene.picture.steps[n];
            let found: Vec<String> = coat
                .mix
                .materials(&scene.studio.materials)
                .filter_map(Material::toxic_pigment)
                .collect();
            if !found.is_empty() {
                let held = found.join(", ");
                let of = if n == i { "spray".into() } else { format!("dust of {}", coat.called()) };
                say(i, format!("The {of} is poisonous: it holds {held}."));
            }
        }
    }
}
