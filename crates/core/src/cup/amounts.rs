//! How much of each material a coat takes.

use crate::mix::{Material, Mix, MixError, find};
use crate::quantity::{OutOfRange, Share, WetFilm};
use thiserror::Error;

/// Volume of a drop from a bench pipette [ml]. [practice] 20 drops to the millilitre
pub const DROP_ML: f64 = 0.05;

/// Below this a part is counted in drops too [ml]. [practice] a syringe or a spoon is hard to read there
const DROPS_BELOW_ML: f64 = 1.0;

/// What a bench can measure [ml], and what painters call it. [practice]
pub const MEASURES: [(f64, &str); 3] =
    [(DROP_ML, "a drop"), (0.5, "half a millilitre"), (1.0, "a millilitre")];

/// Share of a cup that usually stays in cup and brush [-]. [practice]
pub const USUAL_LOSS: f64 = 0.15;

/// The coat that is mixed for.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Pour {
    /// Area of the picture's face [m2].
    pub area_m2: f64,
    /// Share of it that is painted.
    pub share_of_area: f64,
    /// Wet film [um].
    pub wet_film_um: f64,
    /// Share of the cup that stays in cup and brush.
    pub loss: f64,
}

/// Why a cup cannot be computed.
#[derive(Debug, Clone, PartialEq, Error)]
pub enum CupError {
    /// A number is out of its range.
    #[error(transparent)]
    Range(#[from] OutOfRange),
    /// All of it would be lost.
    #[error("the loss must be under 100 %: something has to reach the picture")]
    AllLost,
    /// The mix cannot be.
    #[error(transparent)]
    Mix(#[from] MixError),
    /// A material is not in the mix.
    #[error("the mix has no \"{0}\"")]
    NotInMix(String),
    /// There is nothing left of a material.
    #[error("there must be more than 0 ml of it")]
    NothingLeft,
    /// The mix has no such part.
    #[error("the mix has no part {0}")]
    Part(usize),
    /// An amount is negative or not a number.
    #[error("an amount must be a number of 0 or more")]
    Negative,
    /// More of one part than the whole cup.
    #[error("that is more than the whole cup; mix a larger one, or take less")]
    Over,
    /// A mix of one part is all of it.
    #[error("the only part of a mix is 100 % of it; add another part first")]
    Alone,
    /// A cup did not get lighter.
    #[error("the cup must weigh less after the coat than before it")]
    Heavier,
    /// A cup smaller than what goes onto the picture.
    #[error(
        "that is less than the {0:.1} ml that go onto the picture: lay it thinner, or on less of it"
    )]
    TooSmall(f64),
}

/// How much of one material goes into the cup.
#[derive(Debug, Clone, PartialEq)]
pub struct Amount {
    /// The material's name on the shelf.
    pub material: String,
    /// Its share of the cup by volume.
    pub share: f64,
    /// Volume [ml].
    pub ml: f64,
    /// Mass [g]; `None` when its density is not known.
    pub grams: Option<f64>,
    /// Drops of a bench pipette.
    pub drops: f64,
}

impl Amount {
    /// Whole drops to count, at least one, where it is too little to be measured otherwise.
    ///
    /// ```
    /// use ulvek_core::cup::Amount;
    /// let part = |ml| Amount { material: String::new(), share: 1.0, ml, grams: None, drops: ml / 0.05 };
    /// assert_eq!(part(0.38).counted(), Some(8));
    /// assert_eq!(part(0.01).counted(), Some(1));
    /// assert_eq!(part(1.0).counted(), None);
    /// ```
    pub fn counted(&self) -> Option<u32> {
        (self.ml < DROPS_BELOW_ML).then(|| (self.drops.round() as u32).max(1))
    }

    /// It as it is poured, of the material called `name`: `8.5 ml Glazing liquid`, `0.38 ml Retarder, 8 drops`.
    pub fn said(&self, name: &str) -> String {
        let ml = ml_said(self.ml);
        match self.counted() {
            None => format!("{ml} {name}"),
            Some(1) => format!("{ml} {name}, 1 drop"),
            Some(drops) => format!("{ml} {name}, {drops} drops"),
        }
    }
}

/// A volume as it is said: `9 ml`, `8.5 ml`; in hundredths where drops are counted.
///
/// ```
/// use ulvek_core::cup::ml_said;
/// assert_eq!([9.04, 8.46, 0.384].map(ml_said), ["9 ml", "8.5 ml", "0.38 ml"]);
/// assert_eq!([0.001, 0.0].map(ml_said), ["0.01 ml", "0 ml"]);
/// ```
pub fn ml_said(ml: f64) -> String {
    let parts = if ml < DROPS_BELOW_ML { 100.0 } else { 10.0 };
    // What is there is never said to be nothing.
    let least = if ml > 0.0 { 1.0 } else { 0.0 };
    format!("{} ml", (ml * parts).round().max(least) / parts)
}

/// Volume to mix for a coat [ml]: what stays on the picture, and what is lost beside it.
///
/// # Errors
/// [`CupError::Range`] or [`CupError::AllLost`].
///
/// ```
/// use ulvek_core::cup::{Pour, pour_ml};
/// let pour = Pour { area_m2: 0.2, share_of_area: 1.0, wet_film_um: 40.0, loss: 0.2 };
/// assert!((pour_ml(&pour).unwrap() - 10.0).abs() < 1e-12);
/// ```
pub fn pour_ml(pour: &Pour) -> Result<f64, CupError> {
    let film = WetFilm::try_new(pour.wet_film_um)?.get();
    let share = Share::try_new(pour.share_of_area)?.get();
    let loss = Share::try_new(pour.loss)?.get();
    if loss >= 1.0 {
        return Err(CupError::AllLost);
    }
    // 1 um over 1 m2 is 1 ml.
    Ok(on_picture_ml(&Pour { share_of_area: share, wet_film_um: film, ..*pour }) / (1.0 - loss))
}

/// Volume that goes onto the picture [ml], without what is lost.
pub fn on_picture_ml(pour: &Pour) -> f64 {
    pour.area_m2 * pour.share_of_area * pour.wet_film_um
}

/// The loss that a cup of `total_ml` [ml] leaves for a coat.
///
/// # Errors
/// [`CupError::TooSmall`] when the cup holds less than goes onto the picture.
pub fn loss_of(pour: &Pour, total_ml: f64) -> Result<f64, CupError> {
    let on_picture = on_picture_ml(pour);
    // What was typed is rounded: a hair less is not too small.
    if !total_ml.is_finite() || total_ml < on_picture * (1.0 - 1e-6) {
        return Err(CupError::TooSmall(on_picture));
    }
    Ok((1.0 - on_picture / total_ml).max(0.0))
}

/// How far a material that is short goes.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Reach {
    /// The most that can be mixed, and no more than is wanted [ml].
    pub total_ml: f64,
    /// The film it gives on the same area [um].
    pub wet_film_um: f64,
    /// Or the share of the picture it covers at the same film.
    pub share_of_area: f64,
    /// Whether it is enough.
    pub enough: bool,
}

/// How far `have_ml` [ml] of `material` go for the coat of `pour`.
///
/// # Errors
/// As [`most_from`] and [`pour_ml`].
pub fn reach(mix: &Mix, material: &str, have_ml: f64, pour: &Pour) -> Result<Reach, CupError> {
    let wanted = pour_ml(pour)?;
    let most = most_from(mix, material, have_ml)?;
    let far = (most / wanted).min(1.0);
    Ok(Reach {
        total_ml: most.min(wanted),
        wet_film_um: pour.wet_film_um * far,
        share_of_area: pour.share_of_area * far,
        enough: most >= wanted,
    })
}

/// How much of each part makes `total_ml` of the mix.
///
/// # Errors
/// [`MixError::Nothing`] or [`MixError::Unknown`].
pub fn amounts(mix: &Mix, total_ml: f64, shelf: &[Material]) -> Result<Vec<Amount>, CupError> {
    let whole = mix.whole();
    if whole <= 0.0 {
        return Err(MixError::Nothing.into());
    }
    mix.iter()
        .map(|part| {
            let material = find(shelf, &part.material)
                .ok_or_else(|| MixError::Unknown(part.material.clone()))?;
            let share = part.parts / whole;
            let ml = share * total_ml;
            Ok(Amount {
                material: part.material.clone(),
                share,
                ml,
                grams: material.density_g_ml.map(|density| density * ml),
                drops: ml / DROP_ML,
            })
        })
        .collect()
}

/// The most of a mix [ml] that `have_ml` of one of its materials is enough for.
///
/// # Errors
/// [`CupError::NotInMix`] when the material is not in the mix, [`CupError::NothingLeft`] when there
/// is nothing of it.
pub fn most_from(mix: &Mix, material: &str, have_ml: f64) -> Result<f64, CupError> {
    let share = mix.share_of(material);
    if share <= 0.0 {
        return Err(CupError::NotInMix(material.to_owned()));
    }
    if !have_ml.is_finite() || have_ml <= 0.0 {
        return Err(CupError::NothingLeft);
    }
    Ok(have_ml / share)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::mix::starter_shelf;
    use proptest::prelude::*;

    #[test]
    fn a_worked_glaze_comes_out_as_on_paper() {
        // C1 V1 = C2 V2: 10 ml of a 90:10 glaze hold 1 ml of paint and 9 ml of glazing liquid.
        let mix = Mix::of(&[("glazing", 90.0), ("fluid-pb15", 10.0)]);
        let shelf = starter_shelf().unwrap();
        let cup = amounts(&mix, 10.0, &shelf).unwrap();
        assert!((cup[0].ml - 9.0).abs() < 1e-12 && (cup[1].ml - 1.0).abs() < 1e-12);
        assert!((cup[1].drops - 20.0).abs() < 1e-9);
        // Mass is volume times density.
        let density = shelf.iter().find(|m| m.id == "glazing").unwrap().density_g_ml.unwrap();
        assert!((cup[0].grams.unwrap() - 9.0 * density).abs() < 1e-12);
    }

    #[test]
    fn a_picture_of_40_by_50_takes_what_geometry_says() {
        // 0.2 m2 at 40 um are 8 ml; with a fifth lost in cup and brush, 10 ml are mixed.
        let pour = Pour { area_m2: 0.2, share_of_area: 1.0, wet_film_um: 40.0, loss: 0.0 };
        assert!((pour_ml(&pour).unwrap() - 8.0).abs() < 1e-12);
        let quarter = Pour { share_of_area: 0.25, ..pour };
        assert!((pour_ml(&quarter).unwrap() - 2.0).abs() < 1e-12);
    }

    #[test]
    fn what_is_left_of_one_part_decides_how_much_can_be_mixed() {
        // 8 ml of medium in a 90:10 glaze are enough for 8.89 ml of it.
        let mix = Mix::of(&[("glazing", 90.0), ("fluid-pb15", 10.0)]);
        let most = most_from(&mix, "glazing", 8.0).unwrap();
        assert!((most - 8.0 / 0.9).abs() < 1e-12);
        let cup = amounts(&mix, most, &starter_shelf().unwrap()).unwrap();
        assert!((cup[0].ml - 8.0).abs() < 1e-12, "all of it is used, and no more");
        assert_eq!(most_from(&mix, "retarder", 8.0), Err(CupError::NotInMix("retarder".into())));
        assert_eq!(most_from(&mix, "glazing", 0.0), Err(CupError::NothingLeft));
    }

    #[test]
    fn a_larger_cup_leaves_more_and_one_too_small_is_refused() {
        // 0.2 m2 x 40 um = 8 ml on the picture; of a cup of 10 ml a fifth is left over.
        let pour = Pour { area_m2: 0.2, share_of_area: 1.0, wet_film_um: 40.0, loss: 0.15 };
        assert!((loss_of(&pour, 10.0).unwrap() - 0.2).abs() < 1e-12);
        assert_eq!(loss_of(&pour, 7.9), Err(CupError::TooSmall(8.0)));
        // "I have only 4 ml of medium left": with 90:10 that makes 4.44 of the 9.41 ml.
        let mix = Mix::of(&[("glazing", 90.0), ("fluid-pv19", 10.0)]);
        let far = reach(&mix, "glazing", 4.0, &pour).unwrap();
        let share = 4.0 / 0.9 / (8.0 / 0.85);
        assert!((far.wet_film_um - 40.0 * share).abs() < 1e-9 && !far.enough);
        assert!(reach(&mix, "glazing", 9.0, &pour).unwrap().enough);
    }

    #[test]
    fn what_makes_no_cup_is_refused() {
        let pour = Pour { area_m2: 0.2, share_of_area: 1.0, wet_film_um: 40.0, loss: 1.0 };
        assert_eq!(pour_ml(&pour), Err(CupError::AllLost));
        assert!(matches!(pour_ml(&Pour { wet_film_um: 0.0, ..pour }), Err(CupError::Range(_))));
        let shelf = starter_shelf().unwrap();
        assert_eq!(
            amounts(&Mix::of(&[("glazing", 0.0)]), 10.0, &shelf),
            Err(MixError::Nothing.into())
        );
        assert_eq!(amounts(&Mix::default(), 10.0, &shelf), Err(MixError::Nothing.into()));
        let unknown = amounts(&Mix::one("moonlight"), 10.0, &shelf);
        assert_eq!(unknown, Err(MixError::Unknown("moonlight".into()).into()));
    }

    proptest! {
        #[test]
        fn every_component_is_kept_when_a_cup_is_scaled(
            parts in prop::collection::vec(0.0f64..50.0, 3), total in 0.1f64..500.0, factor in 0.1f64..20.0,
        ) {
            prop_assume!(parts.iter().sum::<f64>() > 1e-6);
            let names = ["glazing", "fluid-pv19", "retarder"];
            let mix: Vec<_> = names.iter().zip(&parts).map(|(n, p)| (*n, *p)).collect();
            let mix = Mix::of(&mix);
            let shelf = starter_shelf().unwrap();
            let small = amounts(&mix, total, &shelf).unwrap();
            let large = amounts(&mix, total * factor, &shelf).unwrap();
            let sum: f64 = small.iter().map(|a| a.ml).sum();
            prop_assert!((sum - total).abs() < 1e-9 * total);
            for (a, b) in small.iter().zip(&large) {
                prop_assert!((b.ml - a.ml * factor).abs() <= 1e-9 * b.ml.max(1e-9));
                prop_assert!((a.share - b.share).abs() < 1e-12);
            }
        }
    }
}
