//! Sealed before the gate was open.

use super::{Rule, Scene, Severity, TOLERANCE_S};
use crate::film::FilmState;
use crate::readiness::Painted;
use crate::time::{DAY_S, exact_instant};

pub(super) const RULE: Rule = Rule {
    id: "sealed-early",
    severity: Severity::Stop,
    remedy: || "Leave it, keep it warm and dry, and watch for a soft or cloudy film.".into(),
    provenance: "[practice] the school's waiting time; the computed cure",
    check,
};

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    let steps = &scene.picture.steps;
    let coats = scene.laid();
    let first = coats.iter().position(|c| steps[c.coat.step].kind.seals());
    let Some(n) = first.filter(|n| *n > 0) else { return };
    let (painted, sealed) = (coats[n - 1], coats[n]);
    let mut below = Painted::default();
    for c in &coats[..n] {
        below.add(scene.studio, (c.coat.step, &steps[c.coat.step]), exact_instant(c.coat.at));
    }
    let floor = below.floor(scene.studio.schools.waiting);
    let floor = floor.num_seconds() as f64;
    let waited = sealed.coat.at - painted.coat.at;
    let days = |seconds: f64| seconds / DAY_S;
    let cured = painted.if_left.at(FilmState::ReadyToSeal);
    if cured.is_none_or(|at| at > sealed.coat.at + TOLERANCE_S) {
        say(sealed.coat.step, "It was sealed before the film below was cured.".into());
    } else if waited + TOLERANCE_S < floor {
        let (waited, floor) = (days(waited), days(floor));
        let what = format!("It was sealed after {waited:.1} days; your school waits {floor:.0}.");
        say(sealed.coat.step, what);
    }
}
