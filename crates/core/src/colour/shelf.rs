//! The paints of a shelf, and what a mix of them does to light.

use super::paint::{Optics, Untold};
use super::spectrum::Spectrum;
use super::surface::Inside;
use super::tint::Tinted;
use super::told::{by_cards, by_three};
use crate::mix::{Drawdown, Material, MaterialKind, Mix, MixError, Part, SwatchSeen};
use std::sync::OnceLock;

/// Absorption or scattering that is none beside those of paint [1/m]. [practice]
const LEAST: f64 = 100.0;
/// What two readings leave open.
const NO_TINT: &str = "its strength in a mix is not known";
/// How far a swatch may carry another mix of its paints from their readings, as a factor. [practice]
const MOST_OFF: f64 = 5.0;

/// How the colour of a material is known.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Told {
    /// From its readings over two cards: how strong it is in a mix is open when it is dark.
    Readings,
    /// From those and from its tint.
    Tint,
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
    /// Swatches that were made, the last one last.
    seen: Vec<&'a SwatchSeen>,
}

/// Most scattering of a paint that hardly scatters, and of any other, beside that of the white of its tint [-];
/// titanium white scatters as much as any pigment. [memory]
const SCATTERS: (f64, f64) = (0.1, 1.0);

/// What a mix does to light.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Mixed {
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
    fn of(material: &Material, shelf: &[Material]) -> (Optics, Self) {
        // A tint that cannot be read is refused where it is told; what its white lost since counts for nothing.
        if let Some(Ok(optics)) = told_by_tint(material, shelf) {
            return (optics, Self::Tint);
        }
        let untold = match &material.drawdown {
            Some(drawdown) => match by_cards(drawdown) {
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

/// What the tint and the cards of a material tell together; nothing when it has not both, or its white is not
/// known.
pub fn told_by_tint(material: &Material, shelf: &[Material]) -> Option<Result<Optics, Untold>> {
    let (drawdown, tint) = (material.drawdown.as_ref()?, material.tint.as_ref()?);
    let white = shelf.iter().find(|m| m.id == tint.white)?;
    // Of the white its cards alone: a tint of white in white says nothing.
    let cards = white.drawdown.as_ref()?;
    let optics = by_cards(cards).ok()?;
    let solids = material.composition.solids();
    let whole = solids + tint.white_parts * white.composition.solids();
    let (little, much) = SCATTERS;
    let tinted = Tinted {
        colour: tint.colour,
        share: solids / whole,
        white: &optics,
        scatters: if material.hardly_scatters() { little } else { much },
    };
    (solids > 0.0).then(|| by_three(drawdown, &tinted, cards))
}

impl<'a> Tubes<'a> {
    /// What the materials of `shelf` do to light.
    pub fn of(shelf: &'a [Material]) -> Self {
        Self { shelf, tubes: vec![OnceLock::new(); shelf.len()], seen: Vec::new() }
    }

    /// The same, which starts from swatches that were made, in order of time: a mix of the paints of one of
    /// them looks as that came out.
    #[must_use]
    pub fn seeing(mut self, seen: impl IntoIterator<Item = &'a SwatchSeen>) -> Self {
        self.seen.extend(seen);
        self
    }

    /// The last swatch that was made of the paints of `mix`.
    pub fn seen_of(&self, mix: &Mix) -> Option<&'a SwatchSeen> {
        let own = self.coloured(mix);
        self.seen.iter().rev().find(|seen| self.coloured(&seen.mix) == own).copied()
    }

    /// Places on the shelf of what colours `mix`, in order.
    fn coloured(&self, mix: &Mix) -> Vec<usize> {
        let place = |part: &Part| self.shelf.iter().position(|m| m.id == part.material);
        let parts = mix.iter().filter(|part| part.parts > 0.0).filter_map(place);
        let mut own: Vec<usize> = parts.filter(|i| self.told(*i) != Told::Clear).collect();
        own.sort_unstable();
        own
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
        self.tubes[i].get_or_init(|| Told::of(&self.shelf[i], self.shelf))
    }

    /// Whether the material at place `i` of the shelf has readings that tell it.
    pub fn is_read(&self, i: usize) -> bool {
        matches!(self.told(i), Told::Readings | Told::Tint)
    }

    /// How the colour of the material at place `i` of the shelf is known.
    pub fn told(&self, i: usize) -> Told {
        self.tube(i).1
    }

    /// What `mix` does to light: the materials by their volume of solids.
    ///
    /// # Errors
    /// [`MixError`]: a material that is not on the shelf, or nothing that stays on the picture.
    pub fn mixed(&self, mix: &Mix) -> Result<Mixed, MixError> {
        let book = self.by_the_book(mix)?;
        let Some(seen) = self.seen_of(mix) else { return Ok(book) };
        Ok(self.as_seen(seen, mix, &book).unwrap_or(book))
    }

    /// What `mix` does to light as `seen` would have it beside the `book`; nothing when that tells none.
    fn as_seen(&self, seen: &SwatchSeen, mix: &Mix, book: &Mixed) -> Option<Mixed> {
        let swatch = self.by_the_book(&seen.mix).ok()?;
        let dry_um = seen.wet_film_um * swatch.solids;
        let (over_white, over_black) = seen.seen;
        let drawdown = Drawdown { dry_um, ..Drawdown::usual(over_white, over_black) };
        let came_out = match Optics::told_by(&drawdown) {
            Ok(optics) => optics,
            // It hid the cards: its colour is told, not how strongly it hides.
            Err(Untold::Equal) => {
                let hides = Optics::hiding(over_white);
                let s = swatch.optics.s;
                let ratio = |i: usize| hides.k.bands()[i] / hides.s.bands()[i].max(LEAST);
                Optics { k: Spectrum::from_fn(|i| s.bands()[i] * ratio(i)), s }
            }
            Err(_) => return None,
        };
        if seen.mix.same_as(mix) {
            return Some(Mixed { optics: came_out, ..*book });
        }
        let by = |book: &Spectrum, was: &Spectrum, is: &Spectrum| {
            let factor = |i: usize| (is.bands()[i] + LEAST) / (was.bands()[i] + LEAST);
            Spectrum::from_fn(|i| book.bands()[i] * factor(i).clamp(1.0 / MOST_OFF, MOST_OFF))
        };
        let k = by(&book.optics.k, &swatch.optics.k, &came_out.k);
        let s = by(&book.optics.s, &swatch.optics.s, &came_out.s);
        Some(Mixed { optics: Optics { k, s }, ..*book })
    }

    /// What `mix` does to light as the readings of its paints have it.
    fn by_the_book(&self, mix: &Mix) -> Result<Mixed, MixError> {
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
        Ok(Mixed { optics: optics.thinned(1.0 / solids), solids: solids / mix.whole() })
    }

    /// Where the colours of `mix` come from, a sentence for each source.
    pub fn sources(&self, mix: &Mix) -> Vec<String> {
        let mut of: Vec<(&str, Vec<&str>)> = Vec::new();
        for part in mix.iter().filter(|p| p.parts > 0.0) {
            let Some(i) = self.shelf.iter().position(|m| m.id == part.material) else { continue };
            // What is clear has no colour to tell.
            if matches!(self.told(i), Told::Clear | Told::Nothing) {
                continue;
            }
            let from = self.shelf[i].colour_from().unwrap_or("not said");
            let name = self.shelf[i].name.as_str();
            match of.iter_mut().find(|(source, _)| *source == from) {
                Some((_, names)) => names.push(name),
                None => of.push((from, vec![name])),
            }
        }
        of.into_iter().map(|(from, names)| format!("{}: {from}", names.join(", "))).collect()
    }

    /// What is not known of the colour of `mix`, a sentence for each material.
    pub fn untold(&self, mix: &Mix) -> Vec<String> {
        let in_company = mix.iter().filter(|p| p.parts > 0.0).count() > 1;
        let said = |part: &Part| {
            let i = self.shelf.iter().position(|m| m.id == part.material)?;
            let missing = || "it has not been read over a white and a black card".to_owned();
            let (why, taken) = match self.told(i) {
                Told::Readings if in_company && self.shelf[i].wants_tint() => {
                    (NO_TINT.to_owned(), "make a tint, one part of it in ten of white")
                }
                Told::Readings | Told::Tint | Told::Clear => return None,
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

impl Mixed {
    /// A coat of it, `wet_um` [um] as laid, over `under`.
    pub fn laid(&self, under: &Inside, wet_um: f64) -> Inside {
        self.optics.over(under, self.dry_m(wet_um))
    }

    /// Dry thickness [m] of `wet_um` [um].
    pub fn dry_m(&self, wet_um: f64) -> f64 {
        wet_um * 1e-6 * self.solids
    }
}
