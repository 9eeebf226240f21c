//! Wrapped while the face still sticks.

use super::{Rule, Scene, Severity};
use crate::film::FilmState;
use crate::picture::{Need, StepKind};
use crate::time::seconds;

pub(super) const RULE: Rule = Rule {
    id: "wrapped-early",
    severity: Severity::Stop,
    remedy: "Unwrap it and let it lie open until it is ready to wrap.",
    provenance: "[practice] nothing touches the face before the last varnish is cured",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    for (i, step) in scene.steps().filter(|(_, s)| s.kind == StepKind::Pack) {
        let early = match step.laid_at {
            None => scene.picture.needs(i) < Need::ReadyToWrap,
            Some(done) => scene.laid_state_at(seconds(done)) < Some(FilmState::ReadyToWrap),
        };
        if early {
            say(i, "It is wrapped before the face may be touched: the wrapping sticks.".into());
        }
    }
}
