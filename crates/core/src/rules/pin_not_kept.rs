use super::{Rule, Scene, Severity};

pub(super) const RULE: Rule = Rule {
    id: "pinned-time",
    severity: Severity::Caution,
    remedy: || "Pin it to another time, or let the plan find one.".into(),
    provenance: "[practice] hours are hours of rest too; two things are not done at once",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    for (i, _) in scene.to_do() {
        let pin = scene.planned(i).and_then(|s| s.pin.as_ref());
        if let Some(said) = pin.and_then(|pin| pin.said(scene.studio)) {
            say(i, format!("{said}."));
        }
    }
}
