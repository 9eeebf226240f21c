//! Water where medium belongs.

use super::{Rule, Scene, Severity};
use crate::mix::MOST_WATER;

pub(super) const RULE: Rule = Rule {
    id: "thinned-with-water",
    severity: Severity::Caution,
    remedy: || {
        format!(
            "Thin with medium instead, or keep added water (flow aid counts) under {:.0} % on a sealed \
             surface.",
            MOST_WATER * 100.0
        )
    },
    provenance: "[practice] two schools; [memory] up to 25-30 % added water",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    for (i, step) in scene.to_do() {
        let shelf = &scene.studio.materials;
        let share = step.mix.added_water(shelf);
        let percent = share * 100.0;
        // A wash straight on an absorbent ground is a stain, and sound.
        let laid = (scene.picture.surface_at(i), scene.studio.thinning(scene.picture));
        let most = step.mix.most_added_water(shelf, laid, step.kind.is_glaze());
        if share <= most + 1e-9 {
            continue;
        }
        if most == 0.0 {
            say(
                i,
                format!(
                    "The glaze is thinned with {percent:.0} % water, which stretches the binder."
                ),
            );
        } else {
            say(
                i,
                format!("Added water is {percent:.0} % of the mix: the film may lift or crack."),
            );
        }
    }
}
