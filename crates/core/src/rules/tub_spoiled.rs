//! A tub in which something was found.

use super::{Rule, Scene, Severity};
use crate::studio::TubCondition;

pub(super) const RULE: Rule = Rule {
    id: "tub-spoiled",
    severity: Severity::Stop,
    remedy: || {
        "Throw it out as local waste rules say, not down the drain, and mix it fresh.".into()
    },
    provenance: "[practice] check for mould, skins and contamination before use",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    for (i, step) in scene.to_do() {
        let Some(tub) = step.tub.as_deref().and_then(|id| scene.studio.tub(id)) else { continue };
        if let TubCondition::Spoiled(trouble) = tub.condition(scene.now) {
            let found = trouble.said();
            say(i, format!("The last look into the tub \"{}\" found {found}.", tub.name));
        }
    }
}
