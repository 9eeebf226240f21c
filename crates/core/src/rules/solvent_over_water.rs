//! Solvent varnish over a fresh water-borne one.

use super::{Rule, Scene, Severity};
use crate::studio::MaterialKind;

pub(super) const RULE: Rule = Rule {
    id: "solvent-over-water-borne",
    severity: Severity::Caution,
    remedy: "Let the water-borne coat lie for three to four days first.",
    provenance: "[practice] three to four days between",
    check,
};

/// Least time between the two [d]. [practice] three to four days
const LEAST_DAYS: f64 = 3.0;
/// Minutes of a day.
const MINUTES_A_DAY: f64 = 1440.0;

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    let sealed: Vec<_> = scene.steps().filter(|(_, s)| s.kind.seals()).collect();
    for pair in sealed.windows(2) {
        let ((_, below), (i, above)) = (pair[0], pair[1]);
        let over = scene.holds(above, &MaterialKind::SolventVarnish)
            && !scene.holds(below, &MaterialKind::SolventVarnish);
        let days = match (below.laid_at, above.laid_at) {
            (Some(from), Some(to)) => (to - from).num_minutes() as f64 / MINUTES_A_DAY,
            (_, Some(_)) => continue,
            _ => above.earliest_gap_min.unwrap_or(0.0) / MINUTES_A_DAY,
        };
        if over && days < LEAST_DAYS {
            say(i, "The water-borne coat below it gets less than three days.".into());
        }
    }
}
