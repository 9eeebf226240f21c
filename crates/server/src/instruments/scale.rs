//! The bench scale: what lies on it is sent by an instrument, or told by hand to one that is not there.

use thiserror::Error;

/// The most it carries [g]. [practice] a small bench scale
const MOST_G: f64 = 500.0;
/// Its smallest step [g]. [practice]
const STEP_G: f64 = 0.01;

/// Why the scale cannot weigh.
#[derive(Debug, Clone, PartialEq, Error)]
pub enum ScaleError {
    /// More than it carries, or no weight at all.
    #[error("the scale carries from 0 to {MOST_G} g, not {0} g")]
    Load(f64),
}

/// A scale: what lies on it, who says so, and what it was set to zero at.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Scale {
    load_g: f64,
    tare_g: f64,
    by: Option<String>,
}

impl Scale {
    /// Puts `grams` [g] onto it in place of what was there, as the instrument called `by` sends, or by hand.
    ///
    /// # Errors
    /// [`ScaleError::Load`] when it does not carry that.
    pub fn put(&mut self, grams: f64, by: Option<&str>) -> Result<(), ScaleError> {
        if !grams.is_finite() || !(0.0..=MOST_G).contains(&grams) {
            return Err(ScaleError::Load(grams));
        }
        self.load_g = grams;
        self.by = by.map(str::to_owned);
        Ok(())
    }

    /// Sets it to zero with what lies on it.
    pub const fn tare(&mut self) {
        self.tare_g = self.load_g;
    }

    /// What lies on it [g].
    pub const fn load_g(&self) -> f64 {
        self.load_g
    }

    /// The instrument that weighs; none when what lies on it was told by hand.
    pub fn by(&self) -> Option<&str> {
        self.by.as_deref()
    }

    /// What it shows [g], in its steps.
    pub fn shows_g(&self) -> f64 {
        ((self.load_g - self.tare_g) / STEP_G).round() * STEP_G
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn it_shows_what_came_on_since_it_was_set_to_zero() {
        let mut scale = Scale::default();
        scale.put(31.234, None).unwrap();
        scale.tare();
        scale.put(41.691, Some("Bench")).unwrap();
        assert!((scale.shows_g() - 10.46).abs() < 1e-9);
        assert_eq!(scale.put(501.0, None), Err(ScaleError::Load(501.0)));
        assert!((scale.shows_g() - 10.46).abs() < 1e-9, "what was refused changed nothing");
        assert_eq!(scale.by(), Some("Bench"));
    }
}
