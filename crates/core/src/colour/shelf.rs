//! The paints of a shelf, and what a mix of them does to light.

use super::paint::{Optics, Untold};
use super::surface::Inside;
use crate::mix::{Material, MaterialKind, Mix, MixError, Part};
use std::sync::OnceLock;

/// How the colour of a material is known.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Told {
    /// From its readings over two cards.
    Readings,
    /// It has no colour of its own.
    Clear,
    /// Only its swatch is known: it is taken to hide. With the reason when it has readings.
    Swatch(Option<Untold>),
    /// Nothing is known: it is left out.
    Nothing,
}

/// What each material of a shelf does to light; worked out once, when it is first asked for.
#[derive(Debug, Clone)]
pub struct Tubes<'a> {
    shelf: &'a [Material],
    tubes: Vec<OnceLock<(Optics, Told)>>,
}

/// What a mix does to light.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Tint {
    /// Its dry film.
    pub optics: Optics,
    /// Dry film that a wet one leaves [-].
    pub solids: f64,
}

/// Whether a material without readings is clear.
fn is_clear(material: &Material) -> bool {
    !matches!(material.kind, MaterialKind::Paint | MaterialKind::Primer)
}

impl Told {
    fn of(material: &Material) -> (Optics, Self) {
        let untold = match &material.drawdown {
            Some(drawdown) => match Optics::told_by(drawdown) {
                Ok(optics) => return (optics, Self::Readings),
                // What hides at once is drawn as it was seen.
                Err(Untold::Equal) => {
                    return (
                        Optics::hiding(drawdown.over_white),
                        Self::Swatch(Some(Untold::Equal)),
                    );
                }
                Err(why) => Some(why),
            },
            None if is_clear(material) => return (Optics::CLEAR, Self::Clear),
            None => None,
        };
        let hides = |swatch| (Optics::hiding(swatch), Self::Swatch(untold));
        material.swatch.map_or((Optics::CLEAR, Self::Nothing), hides)
    }
}

impl<'a> Tubes<'a> {
    /// What the materials of `shelf` do to light.
    pub fn of(shelf: &'a [Material]) -> Self {
        Self { shelf, tubes: vec![OnceLock::new(); shelf.len()] }
    }

    /// The shelf.
    pub const fn shelf(&self) -> &'a [Material] {
        self.shelf
    }

    /// The material at place `i` of the shelf: what its dry film does to light.
    pub fn optics(&self, i: usize) -> &Optics {
        &self.tube(i).0
    }

    fn tube(&self, i: usize) -> &(Optics, Told) {
        self.tubes[i].get_or_init(|| Told::of(&self.shelf[i]))
    }

    /// Whether the material at place `i` of the shelf has readings that tell it.
    pub fn is_read(&self, i: usize) -> bool {
        self.told(i) == Told::Readings
    }

    /// How the colour of the material at place `i` of the shelf is known.
    pub fn told(&self, i: usize) -> Told {
        self.tube(i).1
    }

    /// What `mix` does to light: the materials by their volume of solids.
    ///
    /// # Errors
    /// [`MixError`]: a material that is not on the shelf, or nothing that stays on the picture.
    pub fn tint(&self, mix: &Mix) -> Result<Tint, MixError> {
        let mut optics = Optics::CLEAR;
        let mut solids = 0.0;
        for part in mix {
            let unknown = || MixError::Unknown(part.material.clone());
            let i = self.shelf.iter().position(|m| m.id == part.material).ok_or_else(unknown)?;
            let stays = part.parts * self.shelf[i].composition.solids();
            solids += stays;
            optics.add(stays, self.optics(i));
        }
        if mix.whole() <= 0.0 {
            return Err(MixError::Nothing);
        }
        if solids <= 0.0 {
            return Err(MixError::NoFilm);
        }
        Ok(Tint { optics: optics.thinned(1.0 / solids), solids: solids / mix.whole() })
    }

    /// What is not known of the colour of `mix`, a sentence for each material.
    pub fn untold(&self, mix: &Mix) -> Vec<String> {
        let said = |part: &Part| {
            let i = self.shelf.iter().position(|m| m.id == part.material)?;
            let missing = || "it has not been read over a white and a black card".to_owned();
            let (why, taken) = match self.told(i) {
                Told::Readings | Told::Clear => return None,
                Told::Swatch(why) => (
                    why.map_or_else(missing, |why| why.to_string()),
                    "its swatch is taken, as if it hid what lies below",
                ),
                Told::Nothing => (missing(), "its colour is left out"),
            };
            Some(format!("{}: {why}; {taken}", self.shelf[i].name))
        };
        mix.iter().filter(|p| p.parts > 0.0).filter_map(said).collect()
    }
}

impl Tint {
    /// A coat of it, `wet_um` [um] as laid, over `under`.
    pub fn laid(&self, under: &Inside, wet_um: f64) -> Inside {
        self.optics.over(under, self.dry_m(wet_um))
    }

    /// Dry thickness [m] of `wet_um` [um].
    pub fn dry_m(&self, wet_um: f64) -> f64 {
        wet_um * 1e-6 * self.solids
    }
}
