//! Where a mix stops being sound: limits that are drawn on the cup.

use crate::picture::{Part, Picture};
use crate::studio::{Material, MaterialKind, Thinning};

/// Highest share of retarder in the wet mix [-, by volume]. [memory]
pub const MOST_RETARDER: f64 = 0.15;
/// Highest share of added water on a sealed surface [-, by volume]. [memory]
pub const MOST_WATER: f64 = 0.30;
/// Least share of binder in the dry film that still holds pigment and surface [-, by volume].
/// [memory] about the critical pigment volume of acrylic dispersions
pub const LEAST_BINDER: f64 = 0.45;

/// What a mix is laid on, as far as water is concerned.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Surface {
    /// A sealed ground or a painted one.
    Sealed,
    /// Straight on an absorbent ground: much water makes a sound stain there.
    Absorbent,
}

/// What is limited.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum LimitKind {
    /// Retarder in the wet mix.
    Retarder,
    /// Added water in the wet mix.
    Water,
    /// Binder in the dry film.
    Binder,
}

/// One limit and where the mix stands.
#[derive(Debug, Clone, PartialEq)]
pub struct Limit {
    /// What is limited.
    pub kind: LimitKind,
    /// The share the mix has; `None` when its materials do not say.
    pub share: Option<f64>,
    /// The share it may have at most, or for the binder must have at least.
    pub limit: f64,
    /// Whether the limit is kept; unknown shares break none.
    pub kept: bool,
}

/// What the next coat of a picture lies on: the ground as long as nothing is painted on it.
pub fn surface_of(picture: &Picture) -> Surface {
    let bare = picture.steps.iter().all(|s| s.laid_at.is_none() || s.mix.is_empty());
    if bare && picture.absorbs_um > 0.0 { Surface::Absorbent } else { Surface::Sealed }
}

/// Most retarder a mix stands [-, by volume]: the usual limit, or less where a label says so.
pub fn most_retarder(mix: &[Part], shelf: &[Material]) -> f64 {
    strictest(mix, shelf, MOST_RETARDER, |m| m.most_retarder)
}

/// Most added water a mix stands on a sealed surface [-, by volume], likewise.
pub fn most_water(mix: &[Part], shelf: &[Material]) -> f64 {
    strictest(mix, shelf, MOST_WATER, |m| m.most_water)
}

fn strictest(
    mix: &[Part],
    shelf: &[Material],
    usual: f64,
    of: impl Fn(&Material) -> Option<f64>,
) -> f64 {
    mix.iter()
        .filter(|p| p.parts > 0.0)
        .filter_map(|p| shelf.iter().find(|m| m.id == p.material).and_then(&of))
        .fold(usual, f64::min)
}

/// The limits of a mix for a surface, in the picture's school. A part of an unknown material counts
/// as volume alone.
pub fn limits(mix: &[Part], shelf: &[Material], surface: Surface, school: Thinning) -> Vec<Limit> {
    let whole: f64 = mix.iter().map(|p| p.parts).sum();
    let find = |part: &Part| shelf.iter().find(|m| m.id == part.material);
    let share_of = |kind: &MaterialKind| {
        let parts: f64 =
            mix.iter().filter(|p| find(p).is_some_and(|m| m.kind == *kind)).map(|p| p.parts).sum();
        if whole > 0.0 { parts / whole } else { 0.0 }
    };
    let at_most = |kind, share: f64, limit: f64| Limit {
        kind,
        share: Some(share),
        limit,
        // A hair of rounding is no fault of the painter.
        kept: share <= limit + 1e-9,
    };
    let water = match (school, surface) {
        (Thinning::MediumOnly, Surface::Sealed) => 0.0,
        (Thinning::WaterAllowed, Surface::Sealed) => most_water(mix, shelf),
        (_, Surface::Absorbent) => 1.0,
    };
    let binder = binder_share(mix, shelf);
    vec![
        at_most(LimitKind::Retarder, share_of(&MaterialKind::Retarder), most_retarder(mix, shelf)),
        at_most(LimitKind::Water, share_of(&MaterialKind::Water), water),
        Limit {
            kind: LimitKind::Binder,
            share: binder,
            limit: LEAST_BINDER,
            kept: binder.is_none_or(|share| share >= LEAST_BINDER - 1e-9),
        },
    ]
}

/// Binder as a share of the dry film, by volume; `None` when a material does not say how much it
/// has, or nothing stays on the picture.
pub fn binder_share(mix: &[Part], shelf: &[Material]) -> Option<f64> {
    let (mut binder, mut solids) = (0.0, 0.0);
    for part in mix.iter().filter(|p| p.parts > 0.0) {
        let material = shelf.iter().find(|m| m.id == part.material)?;
        let in_it = material.composition.solids();
        if in_it > 0.0 {
            binder += part.parts * material.binder?;
            solids += part.parts * in_it;
        }
    }
    (solids > 0.0).then(|| binder / solids)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::studio::starter_shelf;

    /// Share and kept of one limit for a mix.
    fn of(kind: LimitKind, mix: &[(&str, f64)], surface: Surface, school: Thinning) -> (f64, bool) {
        let mix: Vec<Part> =
            mix.iter().map(|(m, parts)| Part { material: (*m).into(), parts: *parts }).collect();
        let all = limits(&mix, &starter_shelf().unwrap(), surface, school);
        let found = all.iter().find(|l| l.kind == kind).unwrap();
        (found.share.unwrap(), found.kept)
    }

    use LimitKind::{Binder, Retarder, Water};
    use Surface::{Absorbent, Sealed};
    use Thinning::{MediumOnly, WaterAllowed};

    #[test]
    fn retarder_is_sound_up_to_15_percent() {
        // work.md: up to about 15 % of the wet mix by volume [memory].
        let cup = |r: f64| [("glazing", 100.0 - r), ("retarder", r)];
        assert_eq!(of(Retarder, &cup(15.0), Sealed, MediumOnly), (0.15, true));
        assert!(!of(Retarder, &cup(15.1), Sealed, MediumOnly).1);
    }

    #[test]
    fn water_is_judged_by_school_and_surface() {
        // work.md: never in the one school, up to 25-30 % in the other [memory]; much water is
        // sound as a stain on absorbent ground [practice].
        let cup = |w: f64| [("fluid-pv19", 100.0 - w), ("water", w)];
        assert!(!of(Water, &cup(1.0), Sealed, MediumOnly).1);
        assert!(of(Water, &cup(30.0), Sealed, WaterAllowed).1);
        assert!(!of(Water, &cup(31.0), Sealed, WaterAllowed).1);
        assert!(of(Water, &cup(80.0), Absorbent, MediumOnly).1);
    }

    #[test]
    fn medium_brings_binder_and_water_and_retarder_none() {
        let (paint, _) = of(Binder, &[("heavy-pb29", 1.0)], Sealed, MediumOnly);
        let (glaze, kept) =
            of(Binder, &[("glazing", 9.0), ("heavy-pb29", 1.0)], Sealed, MediumOnly);
        assert!(glaze > paint && kept);
        let (medium, _) = of(Binder, &[("glazing", 1.0)], Sealed, MediumOnly);
        assert!((medium - 1.0).abs() < 1e-12, "clear medium dries to binder alone");
        let (thinned, _) = of(Binder, &[("heavy-pb29", 1.0), ("water", 1.0)], Sealed, WaterAllowed);
        assert!((thinned - paint).abs() < 1e-12, "water is gone from the dry film");
    }

    #[test]
    fn what_a_material_does_not_say_is_not_guessed() {
        let mut shelf = starter_shelf().unwrap();
        shelf.iter_mut().for_each(|m| m.binder = None);
        let mix = [Part { material: "heavy-pb29".into(), parts: 1.0 }];
        let all = limits(&mix, &shelf, Sealed, MediumOnly);
        let binder = all.iter().find(|l| l.kind == Binder).unwrap();
        assert_eq!((binder.share, binder.kept), (None, true));
    }
}
