//! Dilution series: a row of cups from light to strong, to swatch before one is chosen.

use crate::mix::Mix;
use crate::quantity::{OutOfRange, Share};

/// Most cups in a row. [practice] what fits on a bench and a swatch card
pub const MOST_CUPS: usize = 12;

/// The mixes of `cups` cups whose share of `strong` rises evenly from `from` to `to`, the rest of
/// each being `thin`; in parts of 100. One cup takes `from`.
///
/// # Errors
/// [`OutOfRange`] when a share is not from 0 to 1.
pub fn series(
    (strong, thin): (&str, &str),
    (from, to): (f64, f64),
    cups: usize,
) -> Result<Vec<Mix>, OutOfRange> {
    let (from, to) = (Share::try_new(from)?.get(), Share::try_new(to)?.get());
    Ok((0..cups.min(MOST_CUPS))
        .map(|k| {
            let along = if cups > 1 { k as f64 / (cups - 1) as f64 } else { 0.0 };
            let share = from + (to - from) * along;
            Mix::of(&[(thin, (1.0 - share) * 100.0), (strong, share * 100.0)])
        })
        .collect())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn six_cups_from_95_5_to_70_30_rise_by_five() {
        // docs/trade.md: glazes start at 90:10 or 95:5. [practice]
        let row = series(("fluid-pv19", "glazing"), (0.05, 0.30), 6).unwrap();
        let strong: Vec<f64> = row.iter().map(|mix| mix[1].parts.round()).collect();
        assert_eq!(strong, [5.0, 10.0, 15.0, 20.0, 25.0, 30.0]);
        for mix in &row {
            assert!((mix.whole() - 100.0).abs() < 1e-9);
        }
        assert!(series(("a", "b"), (0.0, 1.2), 3).is_err());
        assert_eq!(series(("a", "b"), (0.1, 0.2), 1).unwrap().len(), 1);
    }
}
