//! One-touch changes of a mix that keep its limits.

use crate::mix::{Material, MaterialKind, Mix, Part, find};
use crate::words::words;

words! {
    /// How a mix is to be changed.
    Change {
        /// Half as strong: medium takes the place of paint.
        Thinner = "thinner",
        /// Half as strong again: paint takes the place of medium.
        Stronger = "stronger",
        /// A twentieth more of retarder, as far as it is sound.
        Slower = "slower",
    }
}

/// By how much the paint's share falls when a mix is made thinner, or its inverse when stronger
/// [-]. [practice] start very light: another coat is easy, taking one off is not
const THINNER: f64 = 0.5;
/// By how much it rises when a mix is made stronger [-]. [practice]
const STRONGER: f64 = 1.5;
/// Retarder that is added at a time [-, by volume of the cup]. [practice]
const MORE_RETARDER: f64 = 0.05;

/// The mix after `change`, in parts of 100; `None` when the change cannot be made: no paint or no
/// medium to trade, no retarder on the shelf, or the limit of retarder is reached.
pub fn adjust(mix: &Mix, shelf: &[Material], change: Change) -> Option<Mix> {
    let mut parts = mix.in_percent()?;
    match change {
        Change::Thinner => trade(&mut parts, shelf, THINNER)?,
        Change::Stronger => trade(&mut parts, shelf, STRONGER)?,
        Change::Slower => retard(&mut parts, shelf)?,
    }
    Some(parts)
}

fn is(part: &Part, shelf: &[Material], kind: &MaterialKind) -> bool {
    find(shelf, &part.material).is_some_and(|m| m.kind == *kind)
}

/// The first material of `kind` that is not put away.
fn first<'a>(shelf: &'a [Material], kind: &MaterialKind) -> Option<&'a Material> {
    shelf.iter().find(|m| m.kind == *kind && !m.archived)
}

/// Multiplies the paint by `factor` and lets the medium make up the difference.
fn trade(mix: &mut Mix, shelf: &[Material], factor: f64) -> Option<()> {
    let paint = mix.share_of_kind(shelf, &MaterialKind::Paint) * 100.0;
    if paint <= 0.0 {
        return None;
    }
    let mut medium = mix.share_of_kind(shelf, &MaterialKind::Medium) * 100.0;
    let moved = paint * (factor - 1.0);
    if medium <= 0.0 && moved < 0.0 {
        // Nothing to thin with in the cup yet: the first medium of the shelf goes in.
        let material = first(shelf, &MaterialKind::Medium)?.id.clone();
        mix.push(Part { material, parts: -moved });
        medium = 0.0;
    } else if medium <= moved {
        return None;
    }
    for part in mix.iter_mut() {
        if is(part, shelf, &MaterialKind::Paint) {
            part.parts *= factor;
        } else if is(part, shelf, &MaterialKind::Medium) && medium > 0.0 {
            part.parts *= (medium - moved) / medium;
        }
    }
    Some(())
}

/// Adds retarder and shrinks everything else to make room.
fn retard(mix: &mut Mix, shelf: &[Material]) -> Option<()> {
    let now = mix.share_of_kind(shelf, &MaterialKind::Retarder);
    let wanted = (now + MORE_RETARDER).min(mix.most_retarder(shelf));
    if wanted <= now + 1e-9 {
        return None;
    }
    let retarder = first(shelf, &MaterialKind::Retarder)?.id.clone();
    let shrink = (1.0 - wanted) / (1.0 - now);
    mix.iter_mut()
        .filter(|p| !is(p, shelf, &MaterialKind::Retarder))
        .for_each(|p| p.parts *= shrink);
    let more = (wanted - now) * 100.0;
    match mix.iter_mut().find(|p| p.material == retarder) {
        Some(part) => part.parts += more,
        None => mix.push(Part { material: retarder, parts: more }),
    }
    Some(())
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::mix::starter_shelf;
    use proptest::prelude::*;

    fn after(parts: &[(&str, f64)], change: Change) -> Option<Vec<f64>> {
        let made = adjust(&Mix::of(parts), &starter_shelf().unwrap(), change)?;
        Some(made.iter().map(|p| (p.parts * 1e6).round() / 1e6).collect())
    }

    #[test]
    fn the_usual_starts_lead_into_each_other() {
        // docs/trade.md: 90:10 and 95:5 are the usual starts of a glaze [practice].
        let start = [("glazing", 90.0), ("fluid-pv19", 10.0)];
        assert_eq!(after(&start, Change::Thinner), Some(vec![95.0, 5.0]));
        assert_eq!(after(&start, Change::Stronger), Some(vec![85.0, 15.0]));
        assert_eq!(after(&start, Change::Slower), Some(vec![85.5, 9.5, 5.0]));
    }

    #[test]
    fn retarder_stops_at_its_limit() {
        let near = [("glazing", 78.3), ("fluid-pv19", 8.7), ("retarder", 13.0)];
        let made = after(&near, Change::Slower).unwrap();
        assert!((made[2] - 15.0).abs() < 1e-6);
        let full = [("glazing", 76.5), ("fluid-pv19", 8.5), ("retarder", 15.0)];
        assert_eq!(after(&full, Change::Slower), None);
    }

    #[test]
    fn paint_alone_is_thinned_with_the_first_medium_and_not_made_stronger() {
        assert_eq!(after(&[("heavy-pb29", 1.0)], Change::Thinner), Some(vec![50.0, 50.0]));
        assert_eq!(after(&[("heavy-pb29", 1.0)], Change::Stronger), None);
        assert_eq!(after(&[("glazing", 1.0)], Change::Thinner), None, "no paint to thin");
        assert_eq!(after(&[("glazing", 0.0)], Change::Slower), None);
    }

    proptest! {
        #[test]
        fn every_change_makes_a_whole_cup_without_negative_parts(
            medium in 0.0f64..100.0, paint in 0.1f64..100.0, retarder in 0.0f64..20.0,
        ) {
            let shelf = starter_shelf().unwrap();
            let start = Mix::of(&[("glazing", medium), ("fluid-pv19", paint), ("retarder", retarder)]);
            for change in [Change::Thinner, Change::Stronger, Change::Slower] {
                let Some(made) = adjust(&start, &shelf, change) else { continue };
                prop_assert!((made.whole() - 100.0).abs() < 1e-9);
                prop_assert!(made.iter().all(|p| p.parts >= 0.0));
            }
        }
    }
}
