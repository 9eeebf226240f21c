//! Turning one number of a recipe while the others follow.

use super::amounts::{CupError, DROP_ML};
use crate::mix::{Material, Mix, MixError, find};
use crate::words::words;

words! {
    /// What a part of a mix is counted in.
    Unit {
        /// Parts by volume: the others keep theirs.
        Parts = "parts",
        /// Percent of the cup's volume.
        Percent = "percent",
        /// Millilitres in the cup.
        Ml = "ml",
        /// Grams in the cup.
        Grams = "grams",
        /// Drops of a bench pipette.
        Drops = "drops",
    }
}

/// The mix after part `i` is set to `value` of `unit` in a cup of `total_ml` [ml].
///
/// Parts are set as they are. Every other unit fixes the part's share of a cup whose size stays:
/// the other parts share what is left in the ratio they had (evenly, when they had none), and the
/// sum of the parts stays.
///
/// # Errors
/// [`CupError::Part`] when there is no such part, [`MixError::NoDensity`] when its density
/// is not known, [`CupError::Over`] when it would be more than the cup, [`MixError::Nothing`] when
/// the mix would sum to nothing, [`CupError::Alone`] when a mix of one part would not be all of it.
pub fn turn(
    mix: &Mix,
    (i, unit, value): (usize, Unit, f64),
    total_ml: f64,
    shelf: &[Material],
) -> Result<Mix, CupError> {
    let part = mix.get(i).ok_or(CupError::Part(i))?;
    let material =
        find(shelf, &part.material).ok_or_else(|| MixError::Unknown(part.material.clone()))?;
    if !value.is_finite() || value < 0.0 || !total_ml.is_finite() || total_ml <= 0.0 {
        return Err(CupError::Negative);
    }
    let mut turned = mix.clone();
    let share = match unit {
        Unit::Parts => {
            turned[i].parts = value;
            return if turned.whole() > 0.0 { Ok(turned) } else { Err(MixError::Nothing.into()) };
        }
        Unit::Percent => value / 100.0,
        Unit::Ml => value / total_ml,
        Unit::Drops => value * DROP_ML / total_ml,
        Unit::Grams => {
            let density =
                material.density_g_ml.ok_or_else(|| MixError::NoDensity(material.name.clone()))?;
            value / density / total_ml
        }
    };
    // A hair of rounding in what was typed is not more than the cup.
    if share > 1.0 + 1e-6 {
        return Err(CupError::Over);
    }
    let share = share.min(1.0);
    let whole = if mix.whole() > 0.0 { mix.whole() } else { 100.0 };
    let others = whole - part.parts;
    if mix.len() == 1 {
        return if share >= 1.0 - 1e-6 { Ok(turned) } else { Err(CupError::Alone) };
    }
    let room = (1.0 - share) * whole;
    for (k, p) in turned.iter_mut().enumerate() {
        p.parts = if k == i {
            share * whole
        } else if others > 0.0 {
            p.parts / others * room
        } else {
            room / (mix.len() - 1) as f64
        };
    }
    Ok(turned)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::cup::amounts;
    use crate::mix::starter_shelf;
    use proptest::prelude::*;

    fn mix(parts: &[f64]) -> Mix {
        let names = ["glazing", "fluid-pv19", "retarder"];
        Mix::of(&names.into_iter().zip(parts.iter().copied()).collect::<Vec<_>>())
    }

    #[test]
    fn a_dilution_follows_c1_v1_equals_c2_v2() {
        // General chemistry, C1 V1 = C2 V2: 2 ml at 100 % in a cup of 40 ml is 5 %, a 95:5 glaze.
        let shelf = starter_shelf().unwrap();
        let light = turn(&mix(&[1.0, 1.0]), (1, Unit::Ml, 2.0), 40.0, &shelf).unwrap();
        let cup = amounts(&light, 40.0, &shelf).unwrap();
        assert!((cup[1].share - 0.05).abs() < 1e-12 && (cup[0].share - 0.95).abs() < 1e-12);
        // m = rho V: 1.18 g/ml x 2 ml = 2.36 g.
        let weighed = turn(&mix(&[1.0, 1.0]), (1, Unit::Grams, 2.36), 40.0, &shelf).unwrap();
        assert!((weighed[1].parts - light[1].parts).abs() < 1e-12);
        let dropped = turn(&mix(&[1.0, 1.0]), (1, Unit::Drops, 40.0), 40.0, &shelf).unwrap();
        assert!((dropped[1].parts - light[1].parts).abs() < 1e-12, "20 drops to the millilitre");
    }

    #[test]
    fn what_cannot_be_is_refused() {
        let shelf = starter_shelf().unwrap();
        let (two, one) = (mix(&[9.0, 1.0]), mix(&[9.0]));
        assert_eq!(turn(&two, (0, Unit::Ml, 41.0), 40.0, &shelf), Err(CupError::Over));
        assert_eq!(turn(&two, (0, Unit::Percent, -1.0), 40.0, &shelf), Err(CupError::Negative));
        assert_eq!(turn(&two, (2, Unit::Percent, 1.0), 40.0, &shelf), Err(CupError::Part(2)));
        assert_eq!(turn(&one, (0, Unit::Percent, 5.0), 9.0, &shelf), Err(CupError::Alone));
        assert_eq!(turn(&one, (0, Unit::Parts, 0.0), 9.0, &shelf), Err(MixError::Nothing.into()));
        let mut unknown = starter_shelf().unwrap();
        unknown.iter_mut().for_each(|m| m.density_g_ml = None);
        let refused = turn(&two, (0, Unit::Grams, 1.0), 40.0, &unknown);
        assert_eq!(refused, Err(MixError::NoDensity("Glazing liquid".into()).into()));
    }

    proptest! {
        #[test]
        fn a_turn_sets_what_was_asked_and_keeps_the_ratio_of_the_rest(
            parts in prop::array::uniform3(0.1f64..50.0), percent in 0.0f64..99.0, total in 0.5f64..300.0,
        ) {
            let shelf = starter_shelf().unwrap();
            let before = mix(&parts);
            let after = turn(&before, (2, Unit::Percent, percent), total, &shelf).unwrap();
            let cup = amounts(&after, total, &shelf).unwrap();
            prop_assert!((cup[2].share * 100.0 - percent).abs() < 1e-9);
            prop_assert!((cup.iter().map(|a| a.ml).sum::<f64>() - total).abs() < 1e-9 * total);
            let ratio = |m: &Mix| m[0].parts / m[1].parts;
            prop_assert!((ratio(&after) / ratio(&before) - 1.0).abs() < 1e-9);
        }
    }
}
