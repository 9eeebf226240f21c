//! Varnish that leaves something out.

use super::{Rule, Scene, Severity};
use crate::picture::StepKind;

pub(super) const RULE: Rule = Rule {
    id: "edges-left-out",
    severity: Severity::Caution,
    remedy: || "Varnish the whole face and the edges.".into(),
    provenance: "[practice] edges forgotten",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    for (i, step) in scene.to_do().filter(|(_, s)| s.kind == StepKind::Varnish) {
        if step.share_of_area < 1.0 {
            let percent = step.share_of_area * 100.0;
            say(
                i,
                format!("It covers only {percent:.0} % of the picture: the rest stays unsealed."),
            );
        }
    }
}
