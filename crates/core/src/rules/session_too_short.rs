use super::{Rule, Scene, Severity};
use crate::readiness::{Blocked, Task};

pub(super) const RULE: Rule = Rule {
    id: "session-too-short",
    severity: Severity::Caution,
    remedy: || "Work on a smaller area at a time, let it be split, or keep longer hours.".into(),
    provenance: "[practice] light lost: the session ends before the coat is even",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    for (i, _) in scene.to_do() {
        let task = Task::of(scene.studio, (scene.p, i), (1, Vec::new()));
        let found = scene.around.calendar.find(scene.now.timestamp(), &task);
        if let Err(why @ (Blocked::TooLong { .. } | Blocked::TooLittleDaylight { .. })) = found {
            say(i, format!("For it, {why}."));
        }
    }
}
