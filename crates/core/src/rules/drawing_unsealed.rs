//! A drawing that the next wet coat smears.

use super::{Rule, Scene, Severity};
use crate::picture::StepKind;

pub(super) const RULE: Rule = Rule {
    id: "drawing-unsealed",
    severity: Severity::Note,
    remedy: || {
        "Seal it with a thin wash or clear matte medium first, unless it may dissolve in the paint."
            .into()
    },
    provenance: "[practice] a drawing is sealed so that it does not smear or lift",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    let drawn = scene.steps().filter(|(_, s)| s.kind == StepKind::Drawing && s.mix.is_empty());
    for (i, _) in drawn {
        let next = scene.steps().skip(i + 1).find(|(_, s)| s.kind.leaves_film());
        if let Some((n, coat)) = next
            && coat.kind != StepKind::SealDrawing
            && coat.laid_at.is_none()
        {
            say(n, "The drawing below it is not sealed.".into());
        }
    }
}
