//! More retarder than a film stands.

use super::{Rule, Scene, Severity};
use crate::mix::{MOST_RETARDER, Material};

pub(super) const RULE: Rule = Rule {
    id: "too-much-retarder",
    severity: Severity::Stop,
    remedy: || {
        format!(
            "Take retarder out until it is at most {:.0} % of the wet mix, or what the label allows.",
            MOST_RETARDER * 100.0
        )
    },
    provenance: "[memory] up to about 15 % by volume",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    for (i, step) in scene.to_do() {
        let share = scene.share(step, Material::retards);
        if share > step.mix.most_retarder(&scene.studio.materials) + 1e-9 {
            say(
                i,
                format!("Retarder is {:.0} % of the mix: the film can stay soft.", share * 100.0),
            );
        }
    }
}
