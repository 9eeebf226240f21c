//! Varnish straight on paint in a studio that lays an isolation coat.

use super::{Rule, Scene, Severity};
use crate::picture::StepKind;

pub(super) const RULE: Rule = Rule {
    id: "no-isolation-coat",
    severity: Severity::Note,
    remedy: || {
        "Plan an isolation coat before it: a removable varnish can then be taken off later without touching the paint.".into()
    },
    provenance: "[practice] a setting of the studio; some painters leave it out",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    if !scene.studio.schools.isolation_coat {
        return;
    }
    let first = scene.steps().find(|(_, s)| s.kind.seals());
    if let Some((i, step)) = first
        && step.kind == StepKind::Varnish
        && step.laid_at.is_none()
    {
        say(i, "Your studio lays an isolation coat, and none is planned below the varnish.".into());
    }
}
