//! Matte varnish built up in coats.

use super::{Rule, Scene, Severity};
use crate::mix::{Finish, MaterialKind};
use crate::picture::StepKind;

pub(super) const RULE: Rule = Rule {
    id: "matte-built-up",
    severity: Severity::Caution,
    remedy: || "Build the sheen with gloss and finish with one matte coat.".into(),
    provenance: "[practice] too much matte clouds darks",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    let varnish = |m: &crate::mix::Material| {
        matches!(m.kind, MaterialKind::Varnish | MaterialKind::SolventVarnish)
            && m.finish == Some(Finish::Matte)
    };
    let matte: Vec<_> = scene
        .steps()
        .filter(|(_, s)| s.kind == StepKind::Varnish && scene.share(s, varnish) >= 0.5)
        .collect();
    for (i, _) in matte.iter().skip(1).filter(|(_, s)| s.laid_at.is_none()) {
        say(*i, "It is more than one coat of matte varnish: darks cloud.".into());
    }
}
