//! Care for people: solvent.

use super::{Rule, Scene, Severity};
use crate::mix::MaterialKind;

pub(super) const RULE: Rule = Rule {
    id: "solvent-varnish",
    severity: Severity::Note,
    remedy: || {
        "Open windows and extract the air, wear a suitable respirator, keep flames and sparks away; read the product's safety data sheet, and follow local rules and licensed advice first.".into()
    },
    provenance: "[practice] care for people; the product's safety data sheet comes first",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    for (i, step) in scene.to_do() {
        if scene.holds(step, &MaterialKind::SolventVarnish) {
            say(i, "Solvent varnish gives off vapour that harms people and can catch fire.".into());
        }
    }
}
