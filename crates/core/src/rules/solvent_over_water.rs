//! Solvent varnish over a fresh water-borne one.

use super::{Rule, Scene, Severity};
use crate::readiness::{SOLVENT_GAP, solvent_over_water};

pub(super) const RULE: Rule = Rule {
    id: "solvent-over-water-borne",
    severity: Severity::Caution,
    remedy: || {
        "Watch it for soft or crazed places, and let it lie a week before anything else goes on."
            .into()
    },
    provenance: "[practice] three to four days between",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    let sealed: Vec<_> = scene.steps().filter(|(_, s)| s.kind.seals()).collect();
    for pair in sealed.windows(2) {
        let ((_, below), (i, above)) = (pair[0], pair[1]);
        let over = solvent_over_water(scene.studio, below, above);
        // What is still to come is given its time by the plan.
        if let (Some(from), Some(to)) = (below.laid_at, above.laid_at)
            && over
            && to - from < SOLVENT_GAP
        {
            say(i, "The water-borne coat below it got less than three days.".into());
        }
    }
}
