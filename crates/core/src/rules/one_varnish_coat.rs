//! A single coat of varnish.

use super::{Rule, Scene, Severity};
use crate::picture::StepKind;

pub(super) const RULE: Rule = Rule {
    id: "one-varnish-coat",
    severity: Severity::Note,
    remedy: || "Plan a second coat: it catches what the first one missed.".into(),
    provenance: "[practice] two coats as a rule",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    let varnish: Vec<_> = scene.steps().filter(|(_, s)| s.kind == StepKind::Varnish).collect();
    if let [(i, step)] = varnish[..]
        && step.laid_at.is_none()
    {
        say(i, "Only one coat of varnish is planned.".into());
    }
}
