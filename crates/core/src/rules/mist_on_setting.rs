//! Water sprayed on a coat that is setting.

use super::{Rule, Scene, Severity};
use crate::mix::MaterialKind;
use crate::picture::{Need, StepKind};

pub(super) const RULE: Rule = Rule {
    id: "mist-on-setting-coat",
    severity: Severity::Caution,
    remedy: || {
        "Mist the palette, not the painting, unless the surface is dry through or evenly wet on purpose.".into()
    },
    provenance: "[practice] water sprayed on a half-dry coat makes spots",
    check,
};

/// Share of water from which a sprayed or sponged coat counts as a mist [-, by volume]. [practice]
const MIST: f64 = 0.5;

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    for (i, step) in scene.to_do() {
        let water = scene.share(step, |m| m.kind == MaterialKind::Water);
        let thrown = matches!(step.kind, StepKind::Airbrush | StepKind::Sponge);
        let over_film = !scene.picture.coats_before(i).is_empty();
        if thrown && over_film && water >= MIST && scene.picture.needs(i) < Need::DryThrough {
            let percent = water * 100.0;
            say(
                i,
                format!(
                    "With {percent:.0} % water on a coat that may still be setting, it makes spots."
                ),
            );
        }
    }
}
