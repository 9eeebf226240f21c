use super::{Rule, Scene, Severity};
use crate::readiness::AirWanted;

pub(super) const RULE: Rule = Rule {
    id: "air-for-varnish",
    severity: Severity::Caution,
    remedy: || format!("Before you varnish, {}.", AirWanted::Varnish.remedy()),
    provenance: "[memory] about 18-24 C and under about 65-70 %",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    let next = scene.to_do().find(|(_, s)| s.kind.seals());
    if let Some((i, _)) = next
        && let Some((fault, None)) = scene.unfit(i)
    {
        say(i, format!("The room is kept like that: {fault} for varnish."));
    }
}
