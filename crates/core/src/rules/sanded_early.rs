//! Sanding what is not dry right through.

use super::{Rule, Scene, Severity};
use crate::film::FilmState;
use crate::picture::StepKind;
use crate::time::seconds;

pub(super) const RULE: Rule = Rule {
    id: "sanded-early",
    severity: Severity::Stop,
    remedy: || "Wait until the whole stack is dry through before you sand.".into(),
    provenance: "[practice] sanding back only what is dry right through",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    for (i, step) in scene.steps().filter(|(_, s)| s.kind == StepKind::Sanding) {
        let state = step.laid_at.and_then(|done| scene.laid_state_at(seconds(done)));
        if state.is_some_and(|state| state < FilmState::DryThrough) {
            say(i, "It was sanded before the stack was dry through: the film tears.".into());
        }
    }
}
