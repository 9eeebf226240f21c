//! Paint that cannot give off its water.

use super::{Rule, Scene, Severity};

pub(super) const RULE: Rule = Rule {
    id: "room-too-damp",
    severity: Severity::Caution,
    remedy: "Dry the air before you paint, or plan for two to three times the wait.",
    provenance: "[memory] drying slows steeply above about 75 %",
    check,
};

/// Relative humidity from which coats dry very slowly [-]. [memory]
const DAMP: f64 = 0.75;

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    let humidity = scene.studio.air.usual().humidity;
    let next = scene.to_do().find(|(_, s)| !s.mix.is_empty() && !s.kind.seals());
    if let Some((i, _)) = next.filter(|_| humidity > DAMP) {
        say(i, format!("The room is kept at {:.0} %: coats stay wet for long.", humidity * 100.0));
    }
}
