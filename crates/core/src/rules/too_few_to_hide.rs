//! Weak paint that is to hide in one coat.

use super::{Rule, Scene, Severity};
use crate::mix::{Line, Material};
use crate::picture::StepKind;

pub(super) const RULE: Rule = Rule {
    id: "too-few-coats-to-hide",
    severity: Severity::Caution,
    remedy: || "Plan two to three coats, or use stronger paint.".into(),
    provenance: "[practice] student-grade paint takes two to three coats to hide where one strong coat would do",
    check,
};

/// Share of the mix from which its paint counts as weak [-, by volume]. [practice]
const MOSTLY: f64 = 0.5;

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    let hides =
        |kind| matches!(kind, StepKind::Tone | StepKind::Underpainting | StepKind::Correction);
    // A correction has to hide what is wrong; the others may be meant to show through when the
    // paint is strong and transparent.
    let weak = |kind: StepKind, m: &Material| {
        if kind == StepKind::Correction { m.is_weak_paint() } else { m.line == Some(Line::Student) }
    };
    let coats: Vec<_> = scene.steps().filter(|(_, s)| !s.mix.is_empty()).collect();
    for (n, (i, step)) in coats.iter().enumerate() {
        if step.laid_at.is_some() || !hides(step.kind) {
            continue;
        }
        let share = scene.share(step, |m| weak(step.kind, m));
        let same = |k: Option<usize>| {
            k.and_then(|k| coats.get(k)).is_some_and(|(_, s)| s.kind == step.kind)
        };
        if share >= MOSTLY && !same(n.checked_sub(1)) && !same(Some(n + 1)) {
            say(*i, "One coat of this weak paint does not hide what is below.".into());
        }
    }
}
