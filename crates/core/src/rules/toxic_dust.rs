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
        // Sanding reaches every coat below; spraying throws what is in its own cup.
        let reached = match step.kind {
            StepKind::Sanding => &scene.picture.steps[..i],
            StepKind::Airbrush => std::slice::from_ref(step),
            _ => continue,
        };
        let found = reached
            .iter()
            .flat_map(|s| s.mix.materials(&scene.studio.materials))
            .find_map(Material::toxic_pigment);
        if let Some(pigment) = found {
            say(i, format!("The paint holds {pigment}, whose dust or spray is poisonous."));
        }
    }
}
