//! Care for people: pigments that must not become dust.

use super::{Rule, Scene, Severity};
use crate::picture::StepKind;

pub(super) const RULE: Rule = Rule {
    id: "toxic-dust",
    severity: Severity::Stop,
    remedy: "Do not dry-sand or spray here: sand wet or leave it, read the paints' safety data sheets, and follow local rules and licensed advice.",
    provenance: "work.md, care for people: cadmium, cobalt, nickel, manganese and lead pigments",
    check,
};

/// Colour Index names of pigments with cadmium, cobalt, nickel, manganese or lead; Colour Index
/// International, as usually listed. [memory]
const TOXIC: [&str; 24] = [
    "PR108", "PO20", "PY35", "PY37", "PB28", "PB33", "PB35", "PB36", "PB74", "PG14", "PG19",
    "PG26", "PG50", "PV14", "PV16", "PV49", "PY40", "PY53", "PY150", "PBr8", "PBk14", "PBk26",
    "PW1", "PR105",
];

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    for (i, step) in scene.to_do() {
        // Sanding reaches every coat below; spraying throws what is in its own cup.
        let reached = match step.kind {
            StepKind::Sanding => &scene.picture.steps[..i],
            StepKind::Airbrush => std::slice::from_ref(step),
            _ => continue,
        };
        let found = reached.iter().flat_map(|s| &s.mix).find_map(|part| {
            let name = &scene.document.material(&part.material)?.name;
            TOXIC.iter().find(|ci| names(name, ci))
        });
        if let Some(pigment) = found {
            say(i, format!("The paint holds {pigment}, whose dust or spray is poisonous."));
        }
    }
}

/// Whether a material's name has the Colour Index name as a word of its own.
fn names(name: &str, ci: &str) -> bool {
    name.split(|c: char| !c.is_alphanumeric()).any(|word| word == ci)
}
