//! A factor that is not known for certain.

/// A factor whose logarithm is normal.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Factor {
    /// Logarithm of its median.
    pub ln: f64,
    /// Standard deviation of its logarithm.
    pub sd: f64,
}

impl Factor {
    /// As likely above 1 as below, with `sd` in its logarithm.
    pub const fn about_one(sd: f64) -> Self {
        Self { ln: 0.0, sd }
    }

    /// The same in whole multiples of `step` away from `other`.
    #[must_use]
    pub fn stepped_from(self, other: Self, step: f64) -> Self {
        let near = |x: f64, from: f64| from + ((x - from) / step).round() * step;
        Self { ln: near(self.ln, other.ln), sd: near(self.sd, other.sd) }
    }

    /// Its median.
    pub fn median(&self) -> f64 {
        self.ln.exp()
    }

    /// What is exceeded with the probability that a standard normal deviate exceeds `deviate`.
    pub fn at(&self, deviate: f64) -> f64 {
        (self.ln + deviate * self.sd).exp()
    }
}
