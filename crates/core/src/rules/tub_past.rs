//! A tub that nobody looked into since its last good day.

use super::{Rule, Scene, Severity};
use crate::studio::TubCondition;

pub(super) const RULE: Rule = Rule {
    id: "tub-out-of-date",
    severity: Severity::Caution,
    remedy: || {
        "Look into the tub for skin, mould and dirt and log what you see, or mix it fresh.".into()
    },
    provenance: "[practice] pre-mixed colour keeps for days to weeks in an airtight tub, less if the lid leaks",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    for (i, step) in scene.to_do() {
        let Some(tub) = step.tub.as_deref().and_then(|id| scene.studio.tub(id)) else { continue };
        let used = scene.begins(i).or(step.not_before).map_or(scene.now, |t| t.max(scene.now));
        if tub.condition(used) == TubCondition::Past {
            say(
                i,
                format!("The last good day of the tub \"{}\" is past when it is used.", tub.name),
            );
        }
    }
}
