use super::{Rule, Scene, Severity};
use crate::time::seconds;

pub(super) const RULE: Rule = Rule {
    id: "room-too-damp",
    severity: Severity::Caution,
    remedy: || "Dry the air before you paint, or plan for two to three times the wait.".into(),
    provenance: "[memory] drying slows steeply above about 75 %",
    check,
};

/// Relative humidity from which coats dry very slowly [-]. [memory]
const DAMP: f64 = 0.75;

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    let next = scene.to_do().find(|(_, s)| !s.mix.is_empty() && !s.kind.seals());
    let Some((i, _)) = next else { return };
    let air = &scene.studio.air;
    let at = scene.begins(i);
    let humidity = at.map_or(air.usual(), |at| air.at(seconds(at))).humidity;
    if humidity > DAMP {
        let when =
            if at.is_some() { "When it is planned the room is at" } else { "The room is kept at" };
        say(i, format!("{when} {:.0} %: coats stay wet for long.", humidity * 100.0));
    }
}
