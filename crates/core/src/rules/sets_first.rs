use super::{Rule, Scene, Severity};
use crate::film::FilmState;
use crate::mix::{MOST_RETARDER, MaterialKind};
use crate::time::MINUTE_S;

pub(super) const RULE: Rule = Rule {
    id: "sets-before-it-is-done",
    severity: Severity::Note,
    remedy: || {
        format!(
            "Lay it in areas of that size, each to a line where it may end; or slow it with retarder, \
             up to {:.0} % of the mix or what the label allows; or paint it from smaller cups, mixed one \
             after another.",
            MOST_RETARDER * 100.0
        )
    },
    provenance: "[practice] keep a wet edge: work back into it only while it is wet",
    check,
};

/// Square centimetres of a square metre [cm2/m2].
const CM2: f64 = 10_000.0; // definition

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    // The next one is looked at: of those after it the painter thinks when their turn comes. A sealing
    // coat is left out: retarder does not go into it, and the bench sheet says how it is laid.
    let even = |i: usize| {
        let step = &scene.picture.steps[i];
        step.laid_at.is_none() && step.kind.keeps_wet_edge() && !step.kind.seals()
    };
    if let Some(coat) = scene.line.coats.iter().find(|c| even(c.coat.step)) {
        let i = coat.coat.step;
        let step = &scene.picture.steps[i];
        let Some(sets) = coat.events.at(FilmState::Setting) else { return };
        let working = (sets - coat.coat.at) / MINUTE_S;
        if step.hands_on_min <= working {
            return;
        }
        let area = scene.picture.area_of_m2(i) * CM2 * working / step.hands_on_min;
        let retarded = scene.holds(step, &MaterialKind::Retarder);
        let also = if retarded { ", although there is retarder in it" } else { "" };
        say(
            i,
            format!(
                "{:.0} minutes of work, and it sets in {working:.0}{also}: lay at most {area:.0} cm² \
                 at a time.",
                step.hands_on_min
            ),
        );
    }
}
