//! Varnish wants mild dry air.

use super::{Rule, Scene, Severity};
use crate::readiness::{DAMPEST, WARM};

pub(super) const RULE: Rule = Rule {
    id: "air-for-varnish",
    severity: Severity::Caution,
    remedy: "Bring the room to 18-24 °C and under 65 % before you varnish.",
    provenance: "[memory] 18-24 C and under about 65-70 %",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    let air = scene.studio.air.usual();
    let next = scene.to_do().find(|(_, s)| s.kind.seals());
    if let Some((i, _)) = next.filter(|_| !WARM.contains(&air.celsius) || air.humidity > DAMPEST) {
        let percent = air.humidity * 100.0;
        say(
            i,
            format!(
                "The room is kept at {:.0} °C and {percent:.0} %: varnish may cloud.",
                air.celsius
            ),
        );
    }
}
