//! No photograph before the first gloss.

use super::{Rule, Scene, Severity};
use crate::picture::{Step, StepKind};

pub(super) const RULE: Rule = Rule {
    id: "no-photograph-before-gloss",
    severity: Severity::Caution,
    remedy: || "Plan a photograph before the first varnish coat.".into(),
    provenance: "[practice] photograph or scan before varnish: glare",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    let Some((i, seal)) = scene.steps().find(|(_, s)| s.kind.seals()) else { return };
    if seal.laid_at.is_some() {
        return;
    }
    let taken: Vec<&Step> =
        scene.picture.steps[..i].iter().filter(|s| s.kind == StepKind::Photograph).collect();
    if taken.is_empty() {
        say(i, "No photograph is planned before the gloss goes on.".into());
    } else if let Some(taken) = taken.iter().map(|s| s.laid_at).collect::<Option<Vec<_>>>() {
        let last = taken.into_iter().max();
        // Embellishment may come after the photograph, which is then one for prints.
        let painted = |(_, s): &(usize, &Step)| {
            let paint = s.kind.leaves_film() && !s.kind.seals() && !s.mix.is_empty();
            paint && s.kind != StepKind::Embellishment && s.laid_at.is_none_or(|at| Some(at) > last)
        };
        if let Some((_, paint)) = scene.steps().find(painted) {
            let what =
                format!("The photograph is older than {}: take another one.", paint.called());
            say(i, what);
        }
    }
}
