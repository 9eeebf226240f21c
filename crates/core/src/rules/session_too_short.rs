//! A coat that no session is long enough for.

use super::{Rule, Scene, Severity};

pub(super) const RULE: Rule = Rule {
    id: "session-too-short",
    severity: Severity::Caution,
    remedy: "Work on a smaller area at a time, let it be split, or keep longer hours.",
    provenance: "[practice] light lost: the session ends before the coat is even",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    let hours = scene.studio.hours.weekly();
    let longest = hours.iter().map(|h| (h.to - h.from).num_minutes()).max();
    let Some(longest) = longest else { return };
    for (i, step) in scene.to_do().filter(|(_, s)| !s.splittable) {
        let needed = step.hands_on_min + scene.studio.setup_min;
        if needed > longest as f64 {
            let what = format!(
                "It takes {needed:.0} minutes at one go, set-up included; your longest hours are {longest}."
            );
            say(i, what);
        }
    }
}
