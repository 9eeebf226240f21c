//! Water out of a wet sponge.

use super::{Rule, Scene, Severity};
use crate::picture::StepKind;

pub(super) const RULE: Rule = Rule {
    id: "wet-sponge",
    severity: Severity::Note,
    remedy: || "Wring the sponge out well before it takes up paint.".into(),
    provenance: "[practice] the water in a sponge thins a very thin coat",
    check,
};

/// Wet film up to which a coat counts as very thin [um]. [practice] sponge and splatter 10-30 um
const VERY_THIN: f64 = 30.0;

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    for (i, step) in scene.to_do() {
        if step.kind == StepKind::Sponge
            && let Some(um) = step.wet_film_um.filter(|um| *um <= VERY_THIN)
        {
            say(i, format!("Water left in the sponge thins a coat of only {um:.0} µm."));
        }
    }
}
