//! Sealed, and soft underneath: what lies deep leaves too slowly to harm the seal, and still yields.

use super::{Rule, Scene, Severity};
use crate::film::SEAL_SLOW;
use crate::picture::film_after;
use crate::time::seconds;

pub(super) const RULE: Rule = Rule {
    id: "soft-underneath",
    severity: Severity::Note,
    remedy: || {
        "Keep it from heat and weight: stand it, stack nothing on it, and wrap it loosely.".into()
    },
    provenance: "[practice] a stack with much medium or slow-drying paint stays soft for weeks below its seal",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    let coats: Vec<_> = scene.laid.coats.iter().map(|c| c.coat).collect();
    let Some(top) = coats.last().map(|c| c.step) else { return };
    // Once it is wrapped and away nothing is done about it any more.
    if !scene.picture.steps[top].kind.seals() || scene.picture.is_packed() {
        return;
    }
    // Its coats were followed before, so this one can be followed too.
    let film = film_after(scene.picture, &coats, &scene.studio.futures());
    let Ok(Some(mut film)) = film else { return };
    if film.advance(seconds(scene.now), None).is_err() {
        return;
    }
    let slow = film.film().stack().slow_in_all();
    if slow > SEAL_SLOW {
        let percent = slow * 100.0;
        say(
            top,
            format!(
                "Soft underneath: {percent:.0} % of slow solvents are still in the whole stack."
            ),
        );
    }
}
