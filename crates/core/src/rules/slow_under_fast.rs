//! A fast coat over a slow one.

use super::{Rule, Scene, Severity};
use crate::picture::Need;

pub(super) const RULE: Rule = Rule {
    id: "fast-over-slow",
    severity: Severity::Caution,
    remedy: || {
        "Put slow-drying paint over ordinary paint, thin, or wait until the slow coat is dry through.".into()
    },
    provenance: "[practice] a fast coat over slow-drying paint may trap it wet",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    let coats: Vec<_> = scene.steps().filter(|(_, s)| !s.mix.is_empty()).collect();
    for pair in coats.windows(2) {
        let ((_, below), (i, above)) = (pair[0], pair[1]);
        let waits = scene.picture.needs(i) >= Need::DryThrough;
        if above.laid_at.is_none() && scene.is_slow(below) && !scene.is_slow(above) && !waits {
            say(
                i,
                format!("It dries faster than {} below it, and may trap it wet.", below.title()),
            );
        }
    }
}
