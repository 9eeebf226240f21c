use super::{Rule, Scene, Severity};
use crate::mix::MaterialKind;
use crate::readiness::unbonded;

pub(super) const RULE: Rule = Rule {
    id: "water-borne-over-solvent",
    severity: Severity::Stop,
    remedy: || {
        "Lay the water-borne coat before the solvent varnish, or solvent varnish over it.".into()
    },
    provenance: "[practice] a water-borne coat does not bond to solvent varnish",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    for (i, _) in scene.to_do() {
        if let Some(below) = unbonded(scene.studio, scene.picture, i) {
            let below = scene.picture.steps[below].called();
            say(i, format!("It is water-borne and would lie over {below}, a solvent varnish."));
        }
    }
    let mut solvent = None;
    for coat in scene.laid() {
        let step = &scene.picture.steps[coat.coat.step];
        match solvent {
            _ if scene.holds(step, &MaterialKind::SolventVarnish) => solvent = Some(step.called()),
            Some(ref below) => {
                say(coat.coat.step, format!("It was laid over {below}, a solvent varnish."));
            }
            None => {}
        }
    }
}
