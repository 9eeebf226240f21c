//! Sanding what is not dry right through.

use super::{Rule, Scene, Severity};
use crate::film::FilmState;
use crate::picture::{Need, StepKind};
use crate::time::seconds;

pub(super) const RULE: Rule = Rule {
    id: "sanded-early",
    severity: Severity::Stop,
    remedy: "Wait until the whole stack is dry through before you sand.",
    provenance: "[practice] sanding back only what is dry right through",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    for (i, step) in scene.steps().filter(|(_, s)| s.kind == StepKind::Sanding) {
        let early = match step.laid_at {
            None => scene.picture.needs(i) < Need::DryThrough,
            Some(done) => {
                let at = seconds(done);
                scene.laid_state_at(at).is_some_and(|state| state < FilmState::DryThrough)
            }
        };
        if early {
            say(i, "It is sanded before the stack is dry through: the film tears.".into());
        }
    }
}
