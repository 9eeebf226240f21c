use super::{Rule, Scene, Severity};
use crate::picture::Need;

pub(super) const RULE: Rule = Rule {
    id: "planned-on-wet",
    severity: Severity::Caution,
    remedy: || "Take back what it asks for: the plan waits for the drier film all the same.".into(),
    provenance: "[practice] the coat below must be dry or the next one lifts it",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    for (i, step) in scene.to_do() {
        let over_film = !scene.picture.coats_before(i).is_empty();
        let least = scene.picture.needs(i);
        let asked = step.needs.unwrap_or(least);
        if over_film && asked < least {
            let (asked, least) = (said(asked), least.word());
            say(i, format!("It asks for {asked} below it; it is done when that is {least}."));
        }
    }
}

fn said(need: Need) -> String {
    match need {
        Need::Nothing => "nothing of what lies".into(),
        need => format!("a film that is {}", need.word()),
    }
}
