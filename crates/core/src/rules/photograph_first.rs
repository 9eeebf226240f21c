//! No photograph before the first gloss.

use super::{Rule, Scene, Severity};
use crate::picture::StepKind;

pub(super) const RULE: Rule = Rule {
    id: "no-photograph-before-gloss",
    severity: Severity::Caution,
    remedy: || "Plan a photograph before the first varnish coat.".into(),
    provenance: "[practice] photograph or scan before varnish: glare",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    let first = scene.steps().find(|(_, s)| s.kind.seals());
    if let Some((i, step)) = first {
        let before = scene.picture.steps[..i].iter().any(|s| s.kind == StepKind::Photograph);
        if step.laid_at.is_none() && !before {
            say(i, "No photograph is planned before the gloss goes on.".into());
        }
    }
}
