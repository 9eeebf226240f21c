//! A last coat of varnish of another sheen than was settled on.

use super::{Rule, Scene, Severity};
use crate::mix::{Finish, Material, MaterialKind};
use crate::picture::{Purpose, StepKind};

pub(super) const RULE: Rule = Rule {
    id: "sheen-not-kept",
    severity: Severity::Caution,
    remedy: || "Take a varnish of the sheen that you chose, or choose another sheen.".into(),
    provenance: "[practice] the last coat decides how it shines",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    let Some(choice) = &scene.picture.seal.choice else { return };
    let wanted = if choice.purpose == Purpose::HighGloss { Finish::Gloss } else { choice.finish };
    let last = scene.steps().filter(|(_, s)| s.kind == StepKind::Varnish).last();
    let Some((i, step)) = last.filter(|(_, s)| s.laid_at.is_none()) else { return };
    for other in [Finish::Gloss, Finish::Satin, Finish::Matte] {
        let of = |m: &Material| {
            matches!(m.kind, MaterialKind::Varnish | MaterialKind::SolventVarnish)
                && m.finish == Some(other)
        };
        if other != wanted && scene.share(step, of) >= 0.5 {
            let [other, wanted] = [other, wanted].map(|f| f.said().to_lowercase());
            say(i, format!("The last coat of varnish is {other}, and {wanted} was chosen."));
        }
    }
}
