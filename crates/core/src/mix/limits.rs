//! Where a mix stops being sound: limits that are drawn on the cup.

use super::material::Material;
use super::parts::{Mix, find};
use crate::words::words;
use serde::{Deserialize, Serialize};

/// Highest share of retarder in the wet mix [-, by volume]. [memory]
pub const MOST_RETARDER: f64 = 0.15;
/// Highest share of added water on a sealed surface [-, by volume]. [memory]
pub const MOST_WATER: f64 = 0.30;
/// Least share of binder in the dry film that still holds pigment and surface [-, by volume].
/// [memory] about the critical pigment volume of acrylic dispersions
pub const LEAST_BINDER: f64 = 0.45;

/// Least binder in the wet mix on a sealed surface [-, by volume]: ordinary paint (0.28 to 0.30) thinned
/// with more than its own volume of water falls below it. [memory]
pub const LEAST_IN_CUP: f64 = 0.13;

/// What a mix is laid on, as far as water is concerned.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Surface {
    /// A sealed ground or a painted one.
    Sealed,
    /// Straight on an absorbent ground: much water makes a sound stain there.
    Absorbent,
}

words! {
    /// What is limited.
    LimitKind {
        /// Retarder in the wet mix.
        Retarder = "retarder",
        /// Added water in the wet mix.
        Water = "water",
        /// Binder in the dry film.
        Binder = "binder",
        /// Binder in the wet mix: what water and flow aid leave of it.
        InCup = "in_cup",
    }
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

/// How paint is made thinner: two schools.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum Thinning {
    /// Never thin a glaze with water: it stretches the binder.
    #[default]
    MediumOnly,
    /// Naturally transparent paint may be thinned with water, each coat fully dry before the next.
    WaterAllowed,
}

impl Thinning {
    /// Both schools.
    pub const ALL: [Self; 2] = [Self::MediumOnly, Self::WaterAllowed];

    /// What painters call it.
    pub const fn said(self) -> &'static str {
        match self {
            Self::MediumOnly => "Medium only",
            Self::WaterAllowed => "Water allowed",
        }
    }
}

/// Share of a limit by which a cup may miss it through its measures alone [-]. [practice] a drop more or less
const BY_A_DROP: f64 = 0.1;

impl Limit {
    /// This limit of a mix in the light of `cup`, the same of what is measured out: a cup that breaks what its mix
    /// keeps is told, unless it misses the limit by no more than a drop makes.
    pub fn as_measured(self, cup: Self) -> Self {
        let missed_by = cup.share.map_or(0.0, |share| (share - cup.limit).abs());
        let by_a_drop = missed_by <= BY_A_DROP * cup.limit;
        if self.kept && !cup.kept && !by_a_drop { cup } else { self }
    }

    /// What happens beyond it.
    pub fn why(&self) -> &'static str {
        match self.kind {
            LimitKind::Retarder => "above that the film can stay soft [memory]",
            LimitKind::Water if self.limit == 0.0 => {
                "in your school a glaze is thinned with medium only [practice]"
            }
            LimitKind::Water => "above that the film can lift or crack [memory]",
            LimitKind::Binder => "below that the dry film is underbound [memory]",
            LimitKind::InCup => {
                "below that the binder is stretched too far to hold a film [memory]"
            }
        }
    }
}

/// A hair by which a share may pass its limit [-]: no fault of the painter. [practice]
const HAIR: f64 = 1e-9;

impl Mix {
    /// Most retarder it stands [-, by volume]: the usual limit, or less where a label says so.
    pub fn most_retarder(&self, shelf: &[Material]) -> f64 {
        self.strictest(shelf, MOST_RETARDER, |m| m.most_retarder)
    }

    /// Most added water it stands on a sealed surface [-, by volume], likewise.
    pub fn most_water(&self, shelf: &[Material]) -> f64 {
        self.strictest(shelf, MOST_WATER, |m| m.most_water)
    }

    fn strictest(
        &self,
        shelf: &[Material],
        usual: f64,
        of: impl Fn(&Material) -> Option<f64>,
    ) -> f64 {
        self.materials(shelf).filter_map(of).fold(usual, f64::min)
    }

    /// Most added water it may have on `surface` [-, by volume], in the school of the picture: none in a
    /// glaze where one thins with medium only, as much as one likes in a stain.
    pub fn most_added_water(
        &self,
        shelf: &[Material],
        (surface, school): (Surface, Thinning),
        glaze: bool,
    ) -> f64 {
        match (surface, school) {
            (Surface::Absorbent, _) => 1.0,
            (Surface::Sealed, Thinning::MediumOnly) if glaze => 0.0,
            (Surface::Sealed, _) => self.most_water(shelf),
        }
    }

    /// Added water [-, by volume]: water itself, and what flow aid has of it. Water that belongs to a
    /// paint or medium is not added.
    pub fn added_water(&self, shelf: &[Material]) -> f64 {
        let whole = self.whole();
        let water = |part: &super::parts::Part| {
            // Flow aid and the like: what leaves nothing of its own on the picture.
            let thins = |m: &&Material| m.composition.solids() == 0.0 && !m.retards();
            let of_it = find(shelf, &part.material).filter(thins);
            let of_it = of_it.map_or(0.0, |m| m.composition.water());
            part.parts * of_it
        };
        if whole > 0.0 { self.iter().map(water).sum::<f64>() / whole } else { 0.0 }
    }

    /// Its limits on a surface, in the picture's school, for a glaze or another coat. A part of an
    /// unknown material counts as volume alone.
    pub fn limits(
        &self,
        shelf: &[Material],
        (surface, school): (Surface, Thinning),
        glaze: bool,
    ) -> Vec<Limit> {
        let at_most = |kind, share: f64, limit: f64| Limit {
            kind,
            share: Some(share),
            limit,
            kept: share <= limit + HAIR,
        };
        let water = self.most_added_water(shelf, (surface, school), glaze);
        let in_cup = self.binder_in_cup(shelf);
        let least = if surface == Surface::Sealed { LEAST_IN_CUP } else { 0.0 };
        let binder = self.binder(shelf);
        vec![
            at_most(
                LimitKind::Retarder,
                self.share_where(shelf, Material::retards),
                self.most_retarder(shelf),
            ),
            at_most(LimitKind::Water, self.added_water(shelf), water),
            Limit {
                kind: LimitKind::Binder,
                share: binder,
                limit: LEAST_BINDER,
                kept: binder.is_none_or(|share| share >= LEAST_BINDER - HAIR),
            },
            Limit {
                kind: LimitKind::InCup,
                share: in_cup,
                limit: least,
                kept: in_cup.is_none_or(|share| share >= least - HAIR),
            },
        ]
    }

    /// Binder as a share of the wet mix, by volume; `None` when a material does not say how much it has.
    pub fn binder_in_cup(&self, shelf: &[Material]) -> Option<f64> {
        let mut binder = 0.0;
        for part in self.iter().filter(|p| p.parts > 0.0) {
            let material = find(shelf, &part.material)?;
            if material.composition.solids() > 0.0 {
                binder += part.parts * material.binder?;
            }
        }
        let whole = self.whole();
        (whole > 0.0).then(|| binder / whole)
    }

    /// Binder as a share of the dry film, by volume; `None` when a material does not say how much
    /// it has, or nothing stays on the picture.
    pub fn binder(&self, shelf: &[Material]) -> Option<f64> {
        let (mut binder, mut solids) = (0.0, 0.0);
        for part in self.iter().filter(|p| p.parts > 0.0) {
            let material = find(shelf, &part.material)?;
            let in_it = material.composition.solids();
            if in_it > 0.0 {
                binder += part.parts * material.binder?;
                solids += part.parts * in_it;
            }
        }
        (solids > 0.0).then(|| binder / solids)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::mix::starter_shelf;

    /// Share and kept of one limit for a mix.
    fn of(kind: LimitKind, mix: &[(&str, f64)], surface: Surface, school: Thinning) -> (f64, bool) {
        let all = Mix::of(mix).limits(&starter_shelf().unwrap(), (surface, school), true);
        let found = all.iter().find(|l| l.kind == kind).unwrap();
        (found.share.unwrap(), found.kept)
    }

    use LimitKind::{Binder, InCup, Retarder, Water};
    use Surface::{Absorbent, Sealed};
    use Thinning::{MediumOnly, WaterAllowed};

    #[test]
    fn retarder_is_sound_up_to_15_percent() {
        // docs/trade.md: up to about 15 % of the wet mix by volume [memory].
        let cup = |r: f64| [("glazing", 100.0 - r), ("retarder", r)];
        assert_eq!(of(Retarder, &cup(15.0), Sealed, MediumOnly), (0.15, true));
        assert!(!of(Retarder, &cup(15.1), Sealed, MediumOnly).1);
    }

    #[test]
    fn water_is_judged_by_school_and_surface() {
        // docs/trade.md: never in the one school, up to 25-30 % in the other [memory]; much water is
        // sound as a stain on absorbent ground [practice].
        let cup = |w: f64| [("fluid-pv19", 100.0 - w), ("water", w)];
        assert!(!of(Water, &cup(1.0), Sealed, MediumOnly).1);
        assert!(of(Water, &cup(30.0), Sealed, WaterAllowed).1);
        assert!(!of(Water, &cup(31.0), Sealed, WaterAllowed).1);
        assert!(of(Water, &cup(80.0), Absorbent, MediumOnly).1);
        // Only a glaze is never thinned with water in the one school: the rule and the cup agree.
        let pass = Mix::of(&cup(20.0));
        let shelf = starter_shelf().unwrap();
        assert_eq!(pass.most_added_water(&shelf, (Sealed, MediumOnly), false), MOST_WATER);
    }

    #[test]
    fn flow_aid_is_water_by_its_own_share_and_a_wash_has_too_little_binder() {
        let shelf = starter_shelf().unwrap();
        let flow = Mix::of(&[("fluid-pv19", 60.0), ("flow-aid", 40.0)]);
        assert!((flow.added_water(&shelf) - 0.38).abs() < 1e-12, "95 % of 40 %");
        assert!(!of(Water, &[("fluid-pv19", 60.0), ("flow-aid", 40.0)], Sealed, WaterAllowed).1);
        // docs/trade.md: a wash with much water is sound only as a stain on absorbent ground. [practice]
        let wash = [("heavy-pb29", 2.0), ("water", 3.0)];
        assert!(!of(InCup, &wash, Sealed, WaterAllowed).1);
        assert!(of(InCup, &wash, Absorbent, WaterAllowed).1);
        assert!(of(InCup, &[("heavy-pb29", 7.0), ("water", 3.0)], Sealed, WaterAllowed).1);
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
        let all = Mix::one("heavy-pb29").limits(&shelf, (Sealed, MediumOnly), false);
        let binder = all.iter().find(|l| l.kind == Binder).unwrap();
        assert_eq!((binder.share, binder.kept), (None, true));
    }
}
