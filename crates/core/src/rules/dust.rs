//! Care for people: dust and spray.

use super::{Rule, Scene, Severity};
use crate::mix::Material;
use crate::picture::StepKind;

pub(super) const RULE: Rule = Rule {
    id: "dust-and-spray",
    severity: Severity::Note,
    remedy: || {
        "Sand wet or wear a dust mask; spray outdoors or with extraction and a particle filter; never dry-sand or spray layers with cadmium, cobalt, nickel, chromium, manganese or lead pigments; read the paints' safety data sheets and keep to local rules for dust and rinse water.".into()
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
            StepKind::Sponge => {
                let mut cup = step.mix.materials(&scene.studio.materials);
                if let Some(pigment) = cup.find_map(Material::toxic_pigment) {
                    say(
                        i,
                        format!(
                            "Where it is splattered, droplets of {pigment} fly: keep them off skin and out of your breath."
                        ),
                    );
                }
            }
            _ => {}
        }
    }
}
