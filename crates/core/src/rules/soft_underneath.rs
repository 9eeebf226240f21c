//! Sealed, and soft underneath: what lies deep leaves too slowly to harm the seal, and still yields.

use super::{Rule, Scene, Severity};
use crate::film::SEAL_SLOW;

pub(super) const RULE: Rule = Rule {
    id: "soft-underneath",
    severity: Severity::Note,
    remedy: || {
        "Keep it from heat and weight: stand it, stack nothing on it, and wrap it loosely.".into()
    },
    provenance: "[practice] a stack with much medium or slow-drying paint stays soft for weeks below its seal",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    let top = scene.laid().last().map(|c| c.coat.step);
    if let (Some(top), Some(slow)) = (top, scene.slow_in_all.filter(|slow| *slow > SEAL_SLOW)) {
        let percent = slow * 100.0;
        say(
            top,
            format!(
                "Soft underneath: {percent:.0} % of slow solvents are still in the whole stack."
            ),
        );
    }
}
