//! A cup that is too large to stir well with a brush.

use super::{Rule, Scene, Severity};
use crate::studio::taken_ml;

pub(super) const RULE: Rule = Rule {
    id: "large-cup",
    severity: Severity::Note,
    remedy: || {
        "Mix it with a knife, thoroughly, until no streak is left, before it goes onto the brush."
            .into()
    },
    provenance: "[practice] mix thoroughly or it streaks; a knife for large amounts",
    check,
};

/// Cup from which a knife mixes better than a brush [ml]. [practice]
const LARGE_ML: f64 = 50.0;

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    for (i, step) in scene.to_do().filter(|(_, s)| s.mix.len() > 1) {
        if let Some(ml) = taken_ml(scene.picture, step).filter(|ml| *ml >= LARGE_ML) {
            say(
                i,
                format!("It takes a cup of {ml:.0} ml, which streaks when it is stirred badly."),
            );
        }
    }
}
