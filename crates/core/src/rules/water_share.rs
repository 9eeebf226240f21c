//! Water where medium belongs.

use super::{Rule, Scene, Severity};
use crate::mix::{MaterialKind, Surface, Thinning};

pub(super) const RULE: Rule = Rule {
    id: "thinned-with-water",
    severity: Severity::Caution,
    remedy: "Thin with medium instead, or keep added water under 30 % on a sealed surface.",
    provenance: "[practice] two schools; [memory] up to 25-30 % added water",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    for (i, step) in scene.to_do() {
        let share = scene.share(step, |m| m.kind == MaterialKind::Water);
        let percent = share * 100.0;
        let strict = scene.studio.thinning(scene.picture) == Thinning::MediumOnly;
        // A wash straight on an absorbent ground is a stain, and sound.
        let stain = scene.picture.surface_at(i) == Surface::Absorbent;
        if strict && step.kind.is_glaze() && share > 0.0 {
            say(
                i,
                format!(
                    "The glaze is thinned with {percent:.0} % water, which stretches the binder."
                ),
            );
        } else if share > step.mix.most_water(&scene.studio.materials) && !stain {
            say(
                i,
                format!("Added water is {percent:.0} % of the mix: the film may lift or crack."),
            );
        }
    }
}
