//! Wrapped while the face still sticks.

use super::{Rule, Scene, Severity};
use crate::film::FilmState;
use crate::picture::StepKind;
use crate::time::seconds;

pub(super) const RULE: Rule = Rule {
    id: "wrapped-early",
    severity: Severity::Stop,
    remedy: || "Unwrap it and let it lie open until it is ready to wrap.".into(),
    provenance: "[practice] nothing touches the face before the last varnish is cured",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    for (i, step) in scene.steps().filter(|(_, s)| s.kind == StepKind::Pack) {
        let state = step.laid_at.map(|done| scene.laid_state_at(seconds(done)));
        if state.is_some_and(|state| state < Some(FilmState::ReadyToWrap)) {
            say(i, "It was wrapped before the face could be touched: the wrapping sticks.".into());
        }
    }
}
