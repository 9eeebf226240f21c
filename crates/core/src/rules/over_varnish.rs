use super::{Rule, Scene, Severity};
use crate::picture::StepKind;

pub(super) const RULE: Rule = Rule {
    id: "paint-over-varnish",
    severity: Severity::Stop,
    remedy: || {
        "Paint before the first sealing coat, or say in the picture that paint over varnish is meant: it \
         cannot be taken off again without the varnish, nor the varnish without it."
            .into()
    },
    provenance: "[practice] varnish is the last thing on a picture",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    if scene.picture.paint_over_seal {
        return;
    }
    // A signature that comes too late has a rule of its own.
    for (i, _) in scene.to_do().filter(|(_, s)| s.kind != StepKind::Signature) {
        if let Some(seal) = scene.picture.over_seal(i) {
            let seal = scene.picture.steps[seal].called();
            say(i, format!("It would be painted over {seal}."));
        }
    }
    let mut sealed = None;
    for coat in scene.laid() {
        let step = &scene.picture.steps[coat.coat.step];
        match sealed {
            _ if step.kind.seals() => sealed = Some(step.called()),
            Some(ref seal) => say(coat.coat.step, format!("It was painted over {seal}.")),
            None => {}
        }
    }
}
