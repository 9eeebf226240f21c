use super::{Rule, Scene, Severity};
use crate::film::FilmState;
use crate::picture::ReadyBy;
use crate::time::{instant, seconds};

pub(super) const RULE: Rule = Rule {
    id: "soft-on-the-day",
    severity: Severity::Caution,
    remedy: || {
        "Seal it sooner, or hand it over unwrapped: carry it by the edges, and say until when nothing may \
         touch the face."
            .into()
    },
    provenance: "[practice] deadline met but film still soft",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    let Some(due) = scene.picture.due.filter(|_| scene.picture.ready_by == ReadyBy::Wrapped) else {
        return;
    };
    // A picture with a step that cannot be placed is not ready for other reasons.
    let whole = |i: usize| scene.planned(i).is_some_and(|s| s.blocked.is_none());
    let (Some(last), true) = (scene.line.coats.last(), scene.to_do().all(|(i, _)| whole(i))) else {
        return;
    };
    // The end of the due day: whoever fetches it then must be able to touch it.
    let end = seconds(scene.studio.hours.end_of(due));
    let pack = scene.to_do().find(|(_, s)| s.kind == crate::picture::StepKind::Pack);
    let planned = pack.and_then(|(i, _)| scene.planned(i)?.wait.as_ref()?.film_ready).map(seconds);
    let safe = planned.or(last.events.at(FilmState::ReadyToWrap));
    if safe.is_none_or(|t| t > end) {
        let day = due.format("%-d %B");
        let from = safe.map_or_else(
            || "not within 400 days".to_owned(),
            |t| format!("from {}", scene.said_at(instant(t))),
        );
        say(
            last.coat.step,
            format!("On {day} the face may not be touched by wrapping yet; {from}."),
        );
    }
}
