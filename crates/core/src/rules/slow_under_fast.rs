//! A fast coat over a slow one.

use super::{Rule, Scene, Severity};
use crate::mix::{MOST_RETARDER, Material};
use crate::picture::{Need, Step};

pub(super) const RULE: Rule = Rule {
    id: "fast-over-slow",
    severity: Severity::Caution,
    remedy: || {
        "Put slow-drying paint over ordinary paint, thin, or wait until the slow coat is dry through.".into()
    },
    provenance: "[practice] a fast coat over slow-drying paint may trap it wet",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    for (i, _) in scene.to_do().filter(|(_, s)| !s.mix.is_empty() && !scene.is_slow(s)) {
        let before = scene.picture.coats_before(i).into_iter().map(|n| &scene.picture.steps[n]);
        let much = |step: &Step| scene.share(step, Material::retards) > MOST_RETARDER;
        let mut slow = before.filter(|below| scene.is_slow(below) || much(below));
        if much(&scene.picture.steps[i]) {
            continue;
        }
        if let Some(below) = slow.next().filter(|_| scene.picture.needs(i) < Need::DryThrough) {
            let below = below.called();
            say(i, format!("It dries faster than {below} below it, and may trap it wet."));
        }
    }
}
