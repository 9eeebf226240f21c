//! Signed after the gate closed.

use super::{Rule, Scene, Severity};
use crate::picture::StepKind;

pub(super) const RULE: Rule = Rule {
    id: "signed-after-varnish",
    severity: Severity::Stop,
    remedy: || "Sign before the first sealing coat.".into(),
    provenance: "[practice] signed after the gate closed",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    let sealed = scene.steps().find(|(_, s)| s.kind.seals()).map(|(i, _)| i);
    let Some(sealed) = sealed else { return };
    for (i, step) in scene.to_do().filter(|(i, _)| *i > sealed) {
        if step.kind == StepKind::Signature {
            say(i, "The signature comes after the varnish.".into());
        }
    }
}
