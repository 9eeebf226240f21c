//! Turning one number of a recipe while the others follow.

use super::amounts::{CupError, DROP_ML};
use crate::picture::Part;
use crate::studio::Material;

/// What a part of a mix is counted in.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Unit {
    /// Parts by volume: the others keep theirs.
    Parts,
    /// Percent of the cup's volume.
    Percent,
    /// Millilitres in the cup.
    Ml,
    /// Grams in the cup.
    Grams,
    /// Drops of a bench pipette.
    Drops,
}

/// The mix after part `i` is set to `value` of `unit` in a cup of `total_ml` [ml].
///
/// Parts are set as they are. Every other unit fixes the part's share of a cup whose size stays:
/// the other parts share what is left in the ratio they had (evenly, when they had none), and the
/// sum of the parts stays.
///
/// # Errors
/// [`CupError::Part`] when there is no such part, [`CupError::Grams`] when its density is not
/// known, [`CupError::Over`] when it would be more than the cup, [`CupError::Nothing`] when the mix
/// would sum to nothing, [`CupError::Alone`] when a mix of one part would not be all of it.
pub fn turn(
    mix: &[Part],
    (i, unit, value): (usize, Unit, f64),
    total_ml: f64,
    shelf: &[Material],
) -> Result<Vec<Part>, CupError> {
    let part = mix.get(i).ok_or(CupError::Part(i))?;
    let material = shelf
        .iter()
        .find(|m| m.id == part.material)
        .ok_or_else(|| CupError::Unknown(part.material.clone()))?;
    if !value.is_finite() || value < 0.0 || !total_ml.is_finite() || total_ml <= 0.0 {
        return Err(CupError::Negative);
    }
    let mut turned = mix.to_vec();
    let share = match unit {
        Unit::Parts => {
            turned[i].parts = value;
            let sound = turned.iter().map(|p| p.parts).sum::<f64>() > 0.0;
            return if sound { Ok(turned) } else { Err(CupError::Nothing) };
        }
        Unit::Percent => value / 100.0,
        Unit::Ml => value / total_ml,
        Unit::Drops => value * DROP_ML / total_ml,
        Unit::Grams => {
            let density =
                material.density_g_ml.ok_or_else(|| CupError::Grams(material.name.clone()))?;
            value / density / total_ml
        }
    };
    // A hair of rounding in what was typed is not more than the cup.
    if share > 1.0 + 1e-6 {
        return Err(CupError::Over);
    }
    let share = share.min(1.0);
    let whole: f64 = mix.iter().map(|p| p.parts).sum();
    let whole = if whole > 0.0 { whole } else { 100.0 };
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
    use crate::studio::starter_shelf;
    use proptest::prelude::*;

    fn mix(parts: &[f64]) -> Vec<Part> {
        ["glazing", "fluid-pv19", "retarder"]
            .iter()
            .zip(parts)
            .map(|(m, parts)| Part { material: (*m).into(), parts: *parts })
            .collect()
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
        let two = mix(&[9.0, 1.0]);
        assert_eq!(turn(&two, (0, Unit::Ml, 41.0), 40.0, &shelf), Err(CupError::Over));
        assert_eq!(turn(&two, (0, Unit::Percent, -1.0), 40.0, &shelf), Err(CupError::Negative));
        assert_eq!(turn(&two, (2, Unit::Percent, 1.0), 40.0, &shelf), Err(CupError::Part(2)));
        assert_eq!(turn(&two[..1], (0, Unit::Percent, 5.0), 9.0, &shelf), Err(CupError::Alone));
        assert_eq!(turn(&two[..1], (0, Unit::Parts, 0.0), 9.0, &shelf), Err(CupError::Nothing));
        let mut unknown = starter_shelf().unwrap();
        unknown.iter_mut().for_each(|m| m.density_g_ml = None);
        let refused = turn(&two, (0, Unit::Grams, 1.0), 40.0, &unknown);
        assert_eq!(refused, Err(CupError::Grams("Glazing liquid".into())));
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
            let ratio = |m: &[Part]| m[0].parts / m[1].parts;
            prop_assert!((ratio(&after) / ratio(&before) - 1.0).abs() < 1e-9);
        }
    }
}
