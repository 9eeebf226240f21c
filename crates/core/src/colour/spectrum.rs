//! Light by wavelength: 380 to 730 nm in steps of 10 nm.

/// Bands of a spectrum. docs/model/colour.md.
pub const BANDS: usize = 36;

/// One number for each band: a reflectance, or a coefficient.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Spectrum([f64; BANDS]);

impl Spectrum {
    /// The same in every band.
    pub const fn flat(value: f64) -> Self {
        Self([value; BANDS])
    }

    /// What `of` gives for each band.
    pub fn from_fn(of: impl FnMut(usize) -> f64) -> Self {
        Self(std::array::from_fn(of))
    }

    /// `change` of every band.
    #[must_use]
    pub fn map(&self, change: impl Fn(f64) -> f64) -> Self {
        Self(self.0.map(change))
    }

    /// The bands, from violet to red.
    pub const fn bands(&self) -> &[f64; BANDS] {
        &self.0
    }

    /// Adds `share` of another.
    pub fn add(&mut self, share: f64, other: &Self) {
        for (mine, theirs) in self.0.iter_mut().zip(other.0) {
            *mine += share * theirs;
        }
    }
}
