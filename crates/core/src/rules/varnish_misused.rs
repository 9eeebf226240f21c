//! Varnish where it does not belong, or as it should not lie.

use super::{Rule, Scene, Severity};
use crate::mix::{Material, MaterialKind};
use crate::picture::StepKind;

pub(super) const RULE: Rule = Rule {
    id: "varnish-misused",
    severity: Severity::Caution,
    remedy: || {
        "Varnish goes on last, as it comes or thinned by its label, in thin even coats; take a medium for glazes."
            .into()
    },
    provenance: "[practice] thin coats, and nothing in them that keeps them soft; [memory] for the thickness",
    check,
};

/// Wet film above which a varnish coat runs, clouds and stays soft [um]: 30 to 60 is usual. [memory]
const THICK: f64 = 90.0;

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    let varnish =
        |m: &Material| matches!(m.kind, MaterialKind::Varnish | MaterialKind::SolventVarnish);
    for (i, step) in scene.to_do() {
        if step.kind == StepKind::Varnish {
            if let Some(um) = step.wet_film_um.filter(|um| *um > THICK) {
                say(i, format!("At {um:.0} µm wet varnish runs and clouds."));
            }
        } else if !step.kind.seals() && scene.share(step, varnish) > 0.0 {
            say(i, "There is varnish in the cup of a coat that is painted over.".into());
        }
        if step.kind.seals() && scene.share(step, |m| m.retards() || m.is_slow()) > 0.0 {
            say(i, "What slows drying is in the cup of a sealing coat: it stays soft.".into());
        }
        let over =
            scene.under(i).into_iter().find(|n| scene.picture.steps[*n].kind == StepKind::Varnish);
        if step.kind == StepKind::Sanding
            && let Some(n) = over
        {
            let coat = scene.picture.steps[n].called();
            say(i, format!("It would sand through {coat}: dull marks that no coat hides."));
        }
    }
}
