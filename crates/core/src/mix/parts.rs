//! The parts of a mix, and what is known of them as a whole.

use super::composition::{Composition, MixError};
use super::material::{Material, MaterialKind};
use std::ops::{Deref, DerefMut};

/// Parts of one material in a mix, by volume.
#[derive(Debug, Clone, PartialEq)]
pub struct Part {
    /// The material's name on the shelf.
    pub material: String,
    /// How many parts.
    pub parts: f64,
}

/// Parts by volume of materials; nothing at all is a mix too.
///
/// ```
/// use ulvek_core::mix::{Mix, starter_shelf};
/// let glaze = Mix::of(&[("glazing", 9.0), ("fluid-pb15", 1.0)]);
/// assert!((glaze.share_of("fluid-pb15") - 0.1).abs() < 1e-12);
/// assert!(glaze.composition(&starter_shelf().unwrap()).is_ok());
/// assert!(Mix::default().composition(&starter_shelf().unwrap()).is_err());
/// ```
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Mix(Vec<Part>);

/// How far two shares may lie apart and be the same [-]: parts as typed are rounded. [practice]
const SAME_SHARE: f64 = 1e-3;

/// The material named `id` on a shelf.
pub fn find<'a>(shelf: &'a [Material], id: &str) -> Option<&'a Material> {
    shelf.iter().find(|m| m.id == id)
}

impl Mix {
    /// A mix of `parts` (material, parts by volume).
    pub fn of(parts: &[(&str, f64)]) -> Self {
        parts
            .iter()
            .map(|(material, parts)| Part { material: (*material).to_owned(), parts: *parts })
            .collect()
    }

    /// One material alone.
    pub fn one(material: impl Into<String>) -> Self {
        Self(vec![Part { material: material.into(), parts: 1.0 }])
    }

    /// All parts together.
    pub fn whole(&self) -> f64 {
        self.iter().map(|p| p.parts).sum()
    }

    /// Share of the parts for which `which` holds [-, by volume]; 0 of a mix that sums to nothing.
    fn share(&self, which: impl Fn(&Part) -> bool) -> f64 {
        let whole = self.whole();
        let of_it: f64 = self.iter().filter(|p| which(p)).map(|p| p.parts).sum();
        if whole > 0.0 { of_it / whole } else { 0.0 }
    }

    /// Share of `material` [-, by volume].
    pub fn share_of(&self, material: &str) -> f64 {
        self.share(|p| p.material == material)
    }

    /// Share of the materials for which `which` holds [-, by volume]; what is not on the shelf
    /// counts as volume alone.
    pub fn share_where(&self, shelf: &[Material], which: impl Fn(&Material) -> bool) -> f64 {
        self.share(|p| find(shelf, &p.material).is_some_and(&which))
    }

    /// Share of the materials of one kind [-, by volume].
    pub fn share_of_kind(&self, shelf: &[Material], kind: &MaterialKind) -> f64 {
        self.share_where(shelf, |m| m.kind == *kind)
    }

    /// Whether anything of `kind` is in it.
    pub fn holds(&self, shelf: &[Material], kind: &MaterialKind) -> bool {
        self.share_of_kind(shelf, kind) > 0.0
    }

    /// Whether it names the material `id`, with however many parts.
    pub fn names(&self, id: &str) -> bool {
        self.iter().any(|p| p.material == id)
    }

    /// The materials that are in it, in its order.
    pub fn materials<'a>(&'a self, shelf: &'a [Material]) -> impl Iterator<Item = &'a Material> {
        self.iter().filter(|p| p.parts > 0.0).filter_map(|p| find(shelf, &p.material))
    }

    /// Whether two mixes have the same materials in the same ratio.
    pub fn same_as(&self, other: &Self) -> bool {
        let apart = |p: &Part| (self.share_of(&p.material) - other.share_of(&p.material)).abs();
        self.iter().chain(other.iter()).all(|p| apart(p) < SAME_SHARE)
    }

    /// The same in parts of 100; `None` when it sums to nothing.
    #[must_use]
    pub fn in_percent(&self) -> Option<Self> {
        let whole = self.whole();
        (whole > 0.0).then(|| {
            let part =
                |p: &Part| Part { material: p.material.clone(), parts: p.parts / whole * 100.0 };
            self.iter().map(part).collect()
        })
    }

    /// What it is made of.
    ///
    /// # Errors
    /// [`MixError`]: a material that is not on the shelf, parts that sum to nothing, no solids.
    pub fn composition(&self, shelf: &[Material]) -> Result<Composition, MixError> {
        let mut parts = Vec::with_capacity(self.len());
        for part in self.iter() {
            let material = find(shelf, &part.material)
                .ok_or_else(|| MixError::Unknown(part.material.clone()))?;
            parts.push((part.parts, material.makes()));
        }
        Composition::mixed(parts)
    }

    /// Its density [g/ml]: mass over volume.
    ///
    /// # Errors
    /// [`MixError`]: a material that is not on the shelf or whose density is not known, parts that
    /// sum to nothing.
    pub fn density_g_ml(&self, shelf: &[Material]) -> Result<f64, MixError> {
        let whole = self.whole();
        if whole <= 0.0 {
            return Err(MixError::Nothing);
        }
        let mut mass = 0.0;
        for part in self.iter() {
            let material = find(shelf, &part.material)
                .ok_or_else(|| MixError::Unknown(part.material.clone()))?;
            let density =
                material.density_g_ml.ok_or_else(|| MixError::NoDensity(material.name.clone()))?;
            mass += part.parts * density;
        }
        Ok(mass / whole)
    }

    /// What can hurt about it, each said once with the material's name.
    pub fn hazards(&self, shelf: &[Material]) -> Vec<String> {
        let mut found = Vec::new();
        for material in self.materials(shelf) {
            let Some(hazard) = material.hurts() else { continue };
            let said = format!("{}: {hazard}", material.name);
            if !found.contains(&said) {
                found.push(said);
            }
        }
        found
    }

    /// Puts one more part in.
    pub fn push(&mut self, part: Part) {
        self.0.push(part);
    }

    /// Keeps the parts for which `keep` holds.
    pub fn retain(&mut self, keep: impl FnMut(&Part) -> bool) {
        self.0.retain(keep);
    }
}

impl Deref for Mix {
    type Target = [Part];

    fn deref(&self) -> &[Part] {
        &self.0
    }
}

impl DerefMut for Mix {
    fn deref_mut(&mut self) -> &mut [Part] {
        &mut self.0
    }
}

impl FromIterator<Part> for Mix {
    fn from_iter<T: IntoIterator<Item = Part>>(parts: T) -> Self {
        Self(parts.into_iter().collect())
    }
}

impl From<Vec<Part>> for Mix {
    fn from(parts: Vec<Part>) -> Self {
        Self(parts)
    }
}

impl IntoIterator for Mix {
    type Item = Part;
    type IntoIter = std::vec::IntoIter<Part>;

    fn into_iter(self) -> Self::IntoIter {
        self.0.into_iter()
    }
}

impl<'a> IntoIterator for &'a Mix {
    type Item = &'a Part;
    type IntoIter = std::slice::Iter<'a, Part>;

    fn into_iter(self) -> Self::IntoIter {
        self.iter()
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::mix::starter_shelf;

    #[test]
    fn the_same_ratio_is_the_same_mix_however_it_is_counted() {
        let a = Mix::of(&[("glazing", 2.0), ("fluid-pb15", 1.0)]);
        assert!(a.same_as(&Mix::of(&[("fluid-pb15", 33.33), ("glazing", 66.67)])));
        assert!(!a.same_as(&Mix::of(&[("fluid-pb15", 1.0), ("glazing", 1.0)])));
        assert!(!a.same_as(&Mix::of(&[("fluid-pb15", 1.0), ("glazing", 2.0), ("water", 1.0)])));
        assert!(a.same_as(&Mix::of(&[("fluid-pb15", 1.0), ("glazing", 2.0), ("water", 0.0)])));
    }

    #[test]
    fn what_is_in_it_in_no_amount_is_not_in_it() {
        let shelf = starter_shelf().unwrap();
        let mix = Mix::of(&[("glazing", 1.0), ("retarder", 0.0)]);
        assert!(!mix.holds(&shelf, &MaterialKind::Retarder) && mix.names("retarder"));
        assert!(mix.hazards(&shelf).is_empty());
    }
}
