//! A dry film with too little binder.

use super::{Rule, Scene, Severity};
use crate::mix::{LEAST_BINDER, LEAST_IN_CUP, Limit, LimitKind};

pub(super) const RULE: Rule = Rule {
    id: "underbound-film",
    severity: Severity::Caution,
    remedy: || {
        format!(
            "Add medium until the binder is at least {:.0} % of the dry film and {:.0} % of the wet mix.",
            LEAST_BINDER * 100.0,
            LEAST_IN_CUP * 100.0
        )
    },
    provenance: "[memory] about the critical pigment volume of acrylic dispersions",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    for (i, step) in scene.to_do() {
        let laid = (scene.picture.surface_at(i), scene.studio.thinning(scene.picture));
        let limits = step.mix.limits(&scene.studio.materials, laid, step.kind.is_glaze());
        let binds = |l: &&Limit| matches!(l.kind, LimitKind::Binder | LimitKind::InCup);
        if let Some(limit) = limits.iter().filter(binds).find(|l| !l.kept) {
            let percent = limit.share.unwrap_or(0.0) * 100.0;
            let of = if limit.kind == LimitKind::Binder { "dry film" } else { "wet mix" };
            say(i, format!("Binder is only {percent:.0} % of the {of}: it can chalk or crack."));
        }
    }
}
