//! Rounding a cup to what can be measured on a bench.

use super::amounts::Amount;

/// A cup in whole measures, and what the rounding changed.
#[derive(Debug, Clone, PartialEq)]
pub struct Rounded {
    /// Volume of each part [ml], a multiple of the measure.
    pub ml: Vec<f64>,
    /// Largest change of a part's share of the cup.
    pub worst_share: f64,
    /// Change of the whole volume [ml].
    pub more_ml: f64,
}

/// Rounds each amount to the nearest multiple of `measure_ml`; a part that is in the mix never
/// disappears from it.
pub fn round_to(amounts: &[Amount], measure_ml: f64) -> Rounded {
    let ml: Vec<f64> = amounts
        .iter()
        .map(|a| {
            let measures = (a.ml / measure_ml).round();
            let least = if a.ml > 0.0 { 1.0 } else { 0.0 };
            measures.max(least) * measure_ml
        })
        .collect();
    let whole: f64 = ml.iter().sum();
    let wanted: f64 = amounts.iter().map(|a| a.ml).sum();
    let worst_share = amounts
        .iter()
        .zip(&ml)
        .map(|(a, ml)| if whole > 0.0 { (ml / whole - a.share).abs() } else { 0.0 })
        .fold(0.0, f64::max);
    Rounded { ml, worst_share, more_ml: whole - wanted }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn amount(share: f64, total: f64) -> Amount {
        let ml = share * total;
        Amount { material: String::new(), share, ml, grams: None, drops: ml / 0.05 }
    }

    #[test]
    fn a_small_cup_rounded_to_half_millilitres_says_its_error() {
        // 95:5 of 6 ml: 5.7 and 0.3 ml become 5.5 and 0.5 ml, 8.3 % of paint instead of 5 %.
        let rounded = round_to(&[amount(0.95, 6.0), amount(0.05, 6.0)], 0.5);
        assert_eq!(rounded.ml, [5.5, 0.5]);
        assert!((rounded.worst_share - (0.5 / 6.0 - 0.05)).abs() < 1e-12);
        assert!(rounded.more_ml.abs() < 1e-12);
    }

    proptest! {
        #[test]
        fn no_part_disappears_and_none_is_off_by_more_than_half_a_measure(
            share in 0.001f64..0.999, total in 0.2f64..200.0, measure in prop::sample::select(vec![0.05, 0.5, 1.0]),
        ) {
            let cup = [amount(share, total), amount(1.0 - share, total)];
            let rounded = round_to(&cup, measure);
            for (a, ml) in cup.iter().zip(&rounded.ml) {
                prop_assert!(*ml >= measure - 1e-12);
                // What is less than half a measure becomes a whole one, or it would disappear.
                let least = measure - a.ml;
                prop_assert!((a.ml - ml).abs() <= least.max(0.5 * measure) + 1e-9);
                prop_assert!(((ml / measure).round() * measure - ml).abs() < 1e-9);
            }
        }
    }
}
