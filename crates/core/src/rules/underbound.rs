//! A dry film with too little binder.

use super::{Rule, Scene, Severity};
use crate::mix::LEAST_BINDER;

pub(super) const RULE: Rule = Rule {
    id: "underbound-film",
    severity: Severity::Caution,
    remedy: "Add medium until the binder is at least 45 % of the dry film.",
    provenance: "[memory] about the critical pigment volume of acrylic dispersions",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    for (i, step) in scene.to_do() {
        let Some(share) = step.mix.binder(&scene.studio.materials) else { continue };
        if share < LEAST_BINDER - 1e-9 {
            let percent = share * 100.0;
            say(
                i,
                format!("Binder is only {percent:.0} % of the dry film: it can chalk or crack."),
            );
        }
    }
}
