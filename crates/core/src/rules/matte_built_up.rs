//! Matte varnish built up in coats.

use super::{Rule, Scene, Severity};
use crate::mix::{Finish, MaterialKind};
use crate::picture::StepKind;

pub(super) const RULE: Rule = Rule {
    id: "matte-built-up",
    severity: Severity::Caution,
    remedy: || "Build up with gloss, and finish with one matte coat.".into(),
    provenance: "[practice] too much matte clouds darks",
    check,
};

/// Coats that are mostly matte medium, above which darks look milky. [practice]
const MOST_MATTE_COATS: usize = 4;

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    let varnish = |m: &crate::mix::Material| {
        matches!(m.kind, MaterialKind::Varnish | MaterialKind::SolventVarnish)
            && m.finish == Some(Finish::Matte)
    };
    let matte: Vec<_> = scene
        .steps()
        .filter(|(_, s)| s.kind == StepKind::Varnish && scene.share(s, varnish) >= 0.5)
        .collect();
    let medium = |m: &crate::mix::Material| {
        m.kind == MaterialKind::Medium && m.finish == Some(Finish::Matte)
    };
    let clouded =
        scene.steps().filter(|(_, s)| scene.share(s, medium) >= 0.5).skip(MOST_MATTE_COATS);
    for (i, _) in clouded.filter(|(_, s)| s.laid_at.is_none()) {
        say(i, format!("It is more than {MOST_MATTE_COATS} coats of matte medium: darks cloud."));
    }
    for (i, _) in matte.iter().skip(1).filter(|(_, s)| s.laid_at.is_none()) {
        say(*i, "It is more than one coat of matte varnish: darks cloud.".into());
    }
}
