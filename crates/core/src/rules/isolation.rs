//! An isolation coat that does not isolate.

use super::{Rule, Scene, Severity};
use crate::picture::StepKind;

pub(super) const RULE: Rule = Rule {
    id: "isolation-incomplete",
    severity: Severity::Caution,
    remedy: || {
        "Lay it over the whole face, of gloss medium or thinned soft gel: nothing that stays open."
            .into()
    },
    provenance: "[practice] a clear permanent coat over all of the paint",
    check,
};

/// Slow volatile of a cup above which a coat stays open [-, by volume]: glazing liquid has more, gloss medium and
/// gel less. [memory]
const SLOW: f64 = 0.06;

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    for (i, step) in scene.to_do().filter(|(_, s)| s.kind == StepKind::IsolationCoat) {
        if step.section.is_some() || step.share_of_area < 1.0 {
            say(i, "It covers only part of the face: varnish there lies on bare paint.".into());
        }
        let slow = step.mix.composition(&scene.studio.materials).map_or(0.0, |mix| mix.glycol());
        if slow > SLOW {
            let percent = slow * 100.0;
            say(
                i,
                format!("Slow volatile is {percent:.0} % of it: it stays soft under the varnish."),
            );
        }
    }
}
