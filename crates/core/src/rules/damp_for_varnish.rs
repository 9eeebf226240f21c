use super::{Rule, Scene, Severity};
use crate::film::FilmState;
use crate::readiness::AirWanted;

pub(super) const RULE: Rule = Rule {
    id: "air-for-varnish",
    severity: Severity::Caution,
    remedy: || format!("Before you varnish, {}.", AirWanted::Varnish.remedy()),
    provenance: "[memory] about 18-24 C and under about 65-70 %",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    for coat in scene.laid() {
        let step = &scene.picture.steps[coat.coat.step];
        let wanted = AirWanted::of(scene.studio, step);
        if !step.kind.seals() || wanted == AirWanted::Any {
            continue;
        }
        let from = coat.coat.at.floor() as i64;
        let dry = coat.if_left.at(FilmState::TouchDry).map_or(from + 1, |at| at.ceil() as i64);
        if let Some(fault) = wanted.fault_in(&scene.studio.air, (from, dry)) {
            let what = format!("While it was wet {fault} for varnish: look for cloudy places.");
            say(coat.coat.step, what);
        }
    }
    let next = scene.to_do().find(|(_, s)| s.kind.seals());
    if let Some((i, _)) = next
        && let Some((fault, None)) = scene.unfit(i)
    {
        say(i, format!("The room is kept like that: {fault} for varnish."));
    }
}
