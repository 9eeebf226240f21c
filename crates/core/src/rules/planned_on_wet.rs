//! A coat planned on one that need not be dry.

use super::{Rule, Scene, Severity};
use crate::picture::{Need, StepKind};

pub(super) const RULE: Rule = Rule {
    id: "planned-on-wet",
    severity: Severity::Stop,
    remedy: "Let it need a paintable film below.",
    provenance: "[practice] the coat below must be dry or the next one lifts it",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    for (i, step) in scene.to_do() {
        let over_film = scene.picture.steps[..i].iter().any(|s| !s.mix.is_empty());
        let wet = scene.picture.needs(i) < Need::Paintable;
        // Sealing a drawing follows it at once: the film below it was dry for the drawing.
        let follows_bare = step.kind == StepKind::SealDrawing;
        if over_film && wet && !step.mix.is_empty() && !follows_bare {
            say(i, "It is planned on a coat that need not be paintable by then.".into());
        }
    }
}
