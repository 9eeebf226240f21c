//! Varnish coats that follow too fast.

use super::{Rule, Scene, Severity};
use crate::readiness::VARNISH_GAP;

pub(super) const RULE: Rule = Rule {
    id: "varnish-coats-too-close",
    severity: Severity::Caution,
    remedy: || "Wait at least an hour between coats; the next day is better.".into(),
    provenance: "[practice] at least one hour between coats, next day preferred",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    let sealed: Vec<_> = scene.steps().filter(|(_, s)| s.kind.seals()).collect();
    for pair in sealed.windows(2) {
        let ((_, below), (i, above)) = (pair[0], pair[1]);
        if let (Some(from), Some(to)) = (below.laid_at, above.laid_at)
            && to - from < VARNISH_GAP
        {
            let minutes = (to - from).num_minutes();
            say(i, format!("It was laid {minutes} minutes after the coat below it."));
        }
    }
}
