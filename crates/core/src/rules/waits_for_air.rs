use super::{Rule, Scene, Severity};
use crate::readiness::AirWanted;

pub(super) const RULE: Rule = Rule {
    id: "waits-for-air",
    severity: Severity::Caution,
    remedy: || "Measure beside the picture, not at the machine.".into(),
    provenance: "[memory] films form above about 9-10 C; varnish wants about 18-24 C and under 65-70 %",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    for (i, _) in scene.to_do() {
        if let Some((fault, Some(until))) = scene.unfit(i) {
            let until = scene.said_at(until);
            let wanted = AirWanted::of(scene.studio, &scene.picture.steps[i]);
            let (what, sooner) = (wanted.what(), wanted.remedy());
            say(
                i,
                format!(
                    "{fault} for {what}; by what is known of the room it is fit from {until}. To go on sooner, {sooner}."
                ),
            );
        }
    }
}
