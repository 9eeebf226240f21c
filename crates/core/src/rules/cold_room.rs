use super::{Rule, Scene, Severity};
use crate::film::FilmState;
use crate::picture::StepKind;
use crate::readiness::{AirWanted, COLDEST};

pub(super) const RULE: Rule = Rule {
    id: "room-too-cold",
    severity: Severity::Stop,
    remedy: || format!("Warm the room to {COLDEST:.0} °C at least, until the coat is paintable."),
    provenance: "[memory] below about 9-10 C no sound film forms",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    for coat in scene.laid() {
        let step = &scene.picture.steps[coat.coat.step];
        if !AirWanted::of(scene.studio, step).forms_film() {
            continue;
        }
        let from = coat.coat.at.floor() as i64;
        // A coat that another was laid over was wet until then at most.
        let dry = coat.if_left.at(FilmState::Paintable).map_or(from + 1, |at| at.ceil() as i64);
        if let Some(fault) = AirWanted::Film.fault_in(&scene.studio.air, (from, dry)) {
            say(
                coat.coat.step,
                format!("While it was wet {fault}: the film may be weak or powdery."),
            );
        }
    }
    let film = |s: &StepKind| s.leaves_film() && !s.seals();
    let next = scene.to_do().find(|(_, s)| film(&s.kind) && !s.mix.is_empty());
    if let Some((i, _)) = next
        && let Some((fault, None)) = scene.unfit(i)
    {
        say(i, format!("The room is kept like that: {fault} for a sound film."));
    }
}
