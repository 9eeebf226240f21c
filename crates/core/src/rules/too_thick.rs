//! A coat that skins over what stays soft.

use super::{Rule, Scene, Severity};

pub(super) const RULE: Rule = Rule {
    id: "very-thick-coat",
    severity: Severity::Caution,
    remedy: || {
        "Lay two thinner coats: twice the thickness takes about four times as long to dry through."
            .into()
    },
    provenance: "[source] Crank, The Mathematics of Diffusion, 2nd ed., ch. 4; [memory] for the limit",
    check,
};

/// Wet film from which a coat skins long before it dries through [um]. [memory]
const THICK: f64 = 250.0;

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    for (i, step) in scene.to_do() {
        if let Some(um) = step.wet_film_um.filter(|um| *um > THICK) {
            say(i, format!("At {um:.0} µm wet it skins over and stays soft below for long."));
        }
    }
}
