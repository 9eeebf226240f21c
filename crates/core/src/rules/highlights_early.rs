//! Too light too soon.

use super::{Rule, Scene, Severity};
use crate::picture::StepKind;

pub(super) const RULE: Rule = Rule {
    id: "highlights-too-early",
    severity: Severity::Caution,
    remedy: || "Keep the lightest paint for last.".into(),
    provenance: "[practice] never too light too soon; white is the last punch",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    let steps = &scene.picture.steps;
    let last = steps.iter().rposition(|s| s.kind == StepKind::Underpainting);
    let Some(last) = last else { return };
    for (i, step) in scene.to_do().filter(|(i, _)| *i < last) {
        if step.kind == StepKind::Detail {
            let later = steps[last].called();
            say(i, format!("Details and highlights come before {later}, which covers them."));
        }
    }
}
