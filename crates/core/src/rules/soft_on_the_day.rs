//! The date is met, but the film is still soft.

use super::{Rule, Scene, Severity};
use crate::film::FilmState;
use crate::time::seconds;

pub(super) const RULE: Rule = Rule {
    id: "soft-on-the-day",
    severity: Severity::Caution,
    remedy: "Hand it over unwrapped, carry it by the edges, and say until when nothing may touch the face.",
    provenance: "[practice] deadline met but film still soft",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    let Some(due) = scene.picture.due else { return };
    let Some(last) = scene.laid.coats.last() else { return };
    let all_laid = scene.to_do().all(|(_, s)| s.mix.is_empty());
    if !all_laid {
        return;
    }
    // The end of the due day: whoever fetches it then must be able to touch it.
    let end = seconds(scene.studio.hours.end_of(due));
    if last.events.at(FilmState::ReadyToWrap).is_none_or(|t| t > end) {
        let day = due.format("%-d %B");
        say(last.coat.step, format!("On {day} the face may not be touched by wrapping yet."));
    }
}
