//! Slow-drying paint with retarder.

use super::{Rule, Scene, Severity};
use crate::mix::Material;

pub(super) const RULE: Rule = Rule {
    id: "retarder-with-slow-paint",
    severity: Severity::Caution,
    remedy: || "Leave the retarder out: slow-drying paint stays open by itself.".into(),
    provenance: "[practice] slow-drying paint plus retarder is discouraged",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    for (i, step) in scene.to_do() {
        if scene.is_slow(step) && scene.share(step, Material::retards) > 0.0 {
            say(i, "Slow-drying paint and retarder are in the same cup.".into());
        }
    }
}
