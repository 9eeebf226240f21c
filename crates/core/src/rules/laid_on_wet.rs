//! A coat laid on one that was not yet paintable.

use super::{Rule, Scene, Severity, TOLERANCE_S};
use crate::film::FilmState;

pub(super) const RULE: Rule = Rule {
    id: "laid-on-wet",
    severity: Severity::Stop,
    remedy: || {
        "Leave it until it is dry through; if it lifted, sand back and lay the coat again.".into()
    },
    provenance: "[practice] the coat below must be dry or the next one lifts it",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    let mut told = Vec::new();
    let pairs = scene.line.stacks.iter().flat_map(|stack| {
        let above = scene.of_laid(&stack.coats).skip(1);
        scene.of_laid(&stack.coats).zip(above)
    });
    for (below, above) in pairs {
        let both = (below.coat.step, above.coat.step);
        let ready = below.if_left.at(FilmState::Paintable);
        let early = ready.is_none_or(|at| at > above.coat.at + TOLERANCE_S);
        if early && !told.contains(&both) {
            told.push(both);
            let name = scene.picture.steps[below.coat.step].called();
            say(
                above.coat.step,
                format!("It was laid before {name} was paintable, and may have lifted it."),
            );
        }
    }
}
