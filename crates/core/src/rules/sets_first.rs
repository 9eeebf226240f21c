use super::{Rule, Scene, Severity};
use crate::film::FilmState;
use crate::mix::{MOST_RETARDER, MaterialKind};
use crate::time::MINUTE_S;

pub(super) const RULE: Rule = Rule {
    id: "sets-before-it-is-done",
    severity: Severity::Note,
    remedy: || {
        format!(
            "Lay each area to a line where it may end; or slow it with retarder, \
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
/// The smallest patch that a hand lays by itself [cm2]. [practice] a palm
const LEAST_PATCH_CM2: f64 = 100.0;
/// How much wider than high a patch is [-]. [practice]
const WIDER: f64 = 4.0 / 3.0;
/// Sides are said in steps of this [cm]. [practice] what an eye measures
const STEP_CM: f64 = 5.0;

/// A patch of `area` [cm2] as a hand sees it, its sides [cm].
fn patch(area: f64) -> (f64, f64) {
    let side = |cm: f64| ((cm / STEP_CM).round() * STEP_CM).max(STEP_CM);
    let high = (area / WIDER).sqrt();
    (side(high * WIDER), side(high))
}

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
        let minutes = step.hands_on_min;
        let how = if area < LEAST_PATCH_CM2 {
            "too soon for any patch that a hand lays: change the cup, or lay it at one go".into()
        } else {
            let (wide, high) = patch(area);
            format!("work in areas of about {wide:.0} × {high:.0} cm")
        };
        let sets = working.max(1.0);
        say(i, format!("You plan {minutes:.0} min, and it sets after {sets:.0}{also}: {how}."));
    }
}
