//! Weak paint that is to hide in one coat.

use super::{Rule, Scene, Severity};

use crate::mix::{Line, Material};
use crate::picture::StepKind;

pub(super) const RULE: Rule = Rule {
    id: "too-few-coats-to-hide",
    severity: Severity::Caution,
    remedy: || "Plan more coats of it, two or three as a rule, or use stronger paint.".into(),
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
            match hides_in(scene, *i) {
                Some(Some(1)) => {}
                Some(Some(coats)) => say(
                    *i,
                    format!(
                        "One coat of this weak paint does not hide what is below: as it was read, it \
                         takes {coats}."
                    ),
                ),
                _ => say(*i, "One coat of this weak paint does not hide what is below.".into()),
            }
        }
    }
}

/// Coats of step `i` that hide what it is laid on; `None` inside when it never does, and outside when its
/// paint has not been read.
fn hides_in(scene: &Scene<'_>, i: usize) -> Option<Option<usize>> {
    let step = &scene.picture.steps[i];
    let tubes = scene.studio.tubes();
    if !tubes.untold(&step.mix).is_empty() {
        return None;
    }
    let mixed = tubes.mixed(&step.mix).ok()?;
    let under = scene.picture.under(&tubes, Some(i)).ok()?;
    Some(mixed.hides_here(&under, step.wet_film_um?))
}
