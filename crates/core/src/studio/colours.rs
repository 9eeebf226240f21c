//! What a cup looks like before it is painted, and which mix to take for a colour.

use super::Studio;
use crate::colour::{
    Found, Inside, Lab, Means, Patch, Spacing, Target, Tubes, UNDERPAINTINGS, VALUES, Value, Wish,
    even_values, grey, matches, usual_cards, value_string,
};
use crate::cup::{Pour, USUAL_LOSS, pour_ml};
use crate::mix::{Drawdown, Line, MaterialKind, Mix, Swatch, SwatchSeen};
use crate::picture::What;
use crate::quantity::{Fault, WetFilm};

/// Coats of a ladder at most; docs/model/colour.md.
pub const LADDER_COATS: usize = 7;
/// Values of underpainting in a ladder; docs/model/colour.md.
pub const LADDER_ROWS: usize = 5;
/// Mixes that are offered for a colour. [practice]
const OFFERED: usize = 4;

/// Lightness by which a mix may miss its value (L*): what whole parts do. [practice]
const OFF: f64 = 2.0;

/// A cup whose colour is asked about.
#[derive(Debug, Clone, PartialEq)]
pub struct ColourAsked {
    /// What is in it.
    pub mix: Mix,
    /// Wet film of a coat [um].
    pub wet_film_um: f64,
    /// The step it is for; the next coat without one.
    pub step: Option<String>,
    /// How it should look on the picture in the end.
    pub wanted: Option<Swatch>,
}

/// What a coat of a cup looks like.
#[derive(Debug, Clone, PartialEq)]
pub struct CupColours {
    /// Over the white card.
    pub over_white: Swatch,
    /// Over the black card.
    pub over_black: Swatch,
    /// What it is laid on.
    pub face: Rung,
    /// Contrast ratio of one coat [-].
    pub covers: f64,
    /// Coats until what it is laid on no longer shows; `None` when it never hides that.
    pub hides_in: Option<usize>,
    /// The same over values of an underpainting, dark to light.
    pub ladder: Vec<Rung>,
    /// How many coats come nearest to what is wanted, none among them, and how far that is (CIEDE2000).
    pub nearest: Option<(usize, f64)>,
    /// What is not known of its colours, a sentence for each material.
    pub untold: Vec<String>,
    /// Where its colours come from, a sentence for each source.
    pub sources: Vec<String>,
    /// The last swatch that was made of its paints: the colours start from it.
    pub seen: Option<SwatchSeen>,
}

/// What is seen over one ground with no coat, one, two and so on.
#[derive(Debug, Clone, PartialEq)]
pub struct Rung {
    /// Lightness of the ground (L*).
    pub value: f64,
    /// What is seen.
    pub seen: Vec<Swatch>,
}

/// What a mix is looked for.
#[derive(Debug, Clone, PartialEq)]
pub enum Look {
    /// This colour, where the coat is to lie.
    Colour(Swatch),
    /// The same as this material, over white and over black.
    Like(String),
    /// No cast: the glaze that takes it out of what is seen now.
    Neutral,
}

/// A mix that is looked for.
#[derive(Debug, Clone, PartialEq)]
pub struct MatchAsked {
    /// What it should look like.
    pub look: Look,
    /// Clear medium it is a glaze in; opaque without one.
    pub medium: Option<String>,
    /// Wet film of the coat [um].
    pub wet_film_um: f64,
    /// The step it is for; the next coat without one.
    pub step: Option<String>,
}

/// A row of values that is asked for.
#[derive(Debug, Clone, PartialEq)]
pub struct StringAsked {
    /// The dark end.
    pub dark: Mix,
    /// The light end; the lightest paint of the shelf when nothing is in it.
    pub light: Mix,
    /// How many.
    pub count: usize,
    /// The values of a reference picture, which they are to have; evenly spaced without.
    pub patches: Option<Vec<Patch>>,
    /// Wet film of a coat [um].
    pub wet_film_um: f64,
    /// The step they are for; the next coat without one.
    pub step: Option<String>,
}

/// A mix of a string, and how much of it.
#[derive(Debug, Clone, PartialEq)]
pub struct MixedValue {
    /// The mix.
    pub value: Value,
    /// What it stands for in the reference picture.
    pub patch: Option<Patch>,
    /// How much of it to mix for one coat on its share of the picture [ml]; with a reference picture.
    pub ml: Option<f64>,
    /// Whether the two ends reach that far.
    pub reached: bool,
}

/// What was found.
#[derive(Debug, Clone, PartialEq)]
pub struct Matched {
    /// What the coat is laid on.
    pub under: Swatch,
    /// What was wished for; without cast when that is taken out.
    pub wanted: Swatch,
    /// The mixes, nearest first.
    pub found: Vec<Found>,
}

impl Studio {
    /// What a coat of a cup looks like on picture `p`.
    ///
    /// # Errors
    /// [`Fault`] naming the field that does not fit.
    pub fn cup_colours(&self, p: usize, asked: &ColourAsked) -> Result<CupColours, Fault> {
        let wet_um = film(asked.wet_film_um)?;
        let tubes = self.tubes();
        let mixed = tubes.mixed(&asked.mix).map_err(|e| Fault::new("mix", e))?;
        let under = self.lies_on(p, &tubes, asked.step.as_deref())?;
        let rung = |under: Inside, coats| Rung {
            value: under.seen().lab().l,
            seen: mixed.rungs(&under, wet_um, coats).iter().map(|r| r.seen().swatch()).collect(),
        };
        let over = |card| mixed.laid(card, wet_um).seen().swatch();
        let values = even_values(LADDER_ROWS, UNDERPAINTINGS);
        let nearest = asked.wanted.and_then(|wanted| {
            let wanted = Lab::of(wanted);
            let rungs = mixed.rungs(&under, wet_um, LADDER_COATS).into_iter().enumerate();
            rungs
                // What is wanted was picked on a screen, which shows no stronger colour than it can.
                .map(|(coats, rung)| (coats, Lab::of(rung.seen().swatch()).apart(wanted)))
                .min_by(|a, b| a.1.total_cmp(&b.1))
        });
        Ok(CupColours {
            nearest,
            over_white: over(&usual_cards().0),
            over_black: over(&usual_cards().1),
            face: rung(under, LADDER_COATS),
            covers: mixed.covers(wet_um),
            hides_in: mixed.hides_here(&under, wet_um),
            ladder: values.into_iter().map(|l| rung(grey(l), LADDER_COATS)).collect(),
            untold: tubes.untold(&asked.mix),
            sources: tubes.sources(&asked.mix),
            seen: tubes.seen_of(&asked.mix).cloned(),
        })
    }

    /// The mixes of the shelf that come nearest to what is looked for on picture `p`.
    ///
    /// # Errors
    /// [`Fault`] naming the field that does not fit.
    pub fn find_mix(&self, p: usize, asked: &MatchAsked) -> Result<Matched, Fault> {
        let wet_um = film(asked.wet_film_um)?;
        let tubes = self.tubes();
        let under = self.lies_on(p, &tubes, asked.step.as_deref())?;
        let medium = asked.medium.as_deref().map(|id| self.clear(id)).transpose()?;
        let now = under.seen();
        let (targets, wanted) = match &asked.look {
            Look::Colour(swatch) => {
                (vec![Target { under, wish: Wish::Colour(Lab::of(*swatch)) }], *swatch)
            }
            Look::Neutral => {
                let was = now.lab();
                (vec![Target { under, wish: Wish::Neutral(was) }], Lab::grey(was.l).on_screen().0)
            }
            Look::Like(id) => {
                let cannot = |e| Fault::new("like", e);
                let mixed = tubes.mixed(&Mix::one(id.as_str())).map_err(cannot)?;
                let dry_m = Drawdown::USUAL_DRY_UM * 1e-6;
                let over = |card| {
                    let seen = mixed.optics.over(card, dry_m).seen();
                    Target { under: *card, wish: Wish::Colour(seen.lab()) }
                };
                let (white, black) = usual_cards();
                let swatch = mixed.optics.over(white, dry_m).seen().swatch();
                (vec![over(white), over(black)], swatch)
            }
        };
        let means = Means { paints: self.paints_but(&tubes, &asked.look), medium, wet_um };
        if means.paints.is_empty() {
            let why = "no paint on the shelf has been read over a white and a black card";
            return Err(Fault::new("", why));
        }
        let found = matches(&tubes, &targets, &means, OFFERED);
        Ok(Matched { under: now.swatch(), wanted, found })
    }

    /// Mixes from a dark to a light one on picture `p`, darkest first: evenly spaced in lightness, or with
    /// the values of a reference picture.
    ///
    /// # Errors
    /// [`Fault`] naming the field that does not fit.
    pub fn value_string(&self, p: usize, asked: &StringAsked) -> Result<Vec<MixedValue>, Fault> {
        let wet_um = film(asked.wet_film_um)?;
        let tubes = self.tubes();
        if !VALUES.contains(&asked.count) {
            let why = format!("give {} to {} values", VALUES.start(), VALUES.end());
            return Err(Fault::new("count", why));
        }
        let lightest = asked.light.is_empty().then(|| self.lightest(&tubes)).flatten();
        let light = lightest.unwrap_or_else(|| asked.light.clone());
        for (place, mix) in [("dark", &asked.dark), ("light", &light)] {
            tubes.mixed(mix).map_err(|e| Fault::new(place, e))?;
        }
        let under = self.lies_on(p, &tubes, asked.step.as_deref())?;
        let patches = asked.patches.as_deref().unwrap_or_default();
        let spacing = if patches.is_empty() {
            Spacing::Even(asked.count)
        } else {
            Spacing::At(patches.iter().map(|p| p.l).collect())
        };
        let ends = (&asked.dark, &light);
        let string = value_string(&tubes, ends, &spacing, (&under, wet_um))
            .map_err(|e| Fault::new("dark", e))?;
        let area_m2 = self.pictures[p].area_m2();
        let much = |value: Value, patch: Option<&Patch>| {
            let ml = patch.map(|patch| {
                let share_of_area = patch.share;
                let pour = Pour { area_m2, share_of_area, wet_film_um: wet_um, loss: USUAL_LOSS };
                pour_ml(&pour).map_err(|e| Fault::new("", e))
            });
            let reached = (value.seen.l - value.wanted).abs() < OFF;
            Ok(MixedValue { value, patch: patch.copied(), ml: ml.transpose()?, reached })
        };
        let patches = patches.iter().map(Some).chain(std::iter::repeat(None));
        string.into_iter().zip(patches).map(|(value, patch)| much(value, patch)).collect()
    }

    /// The paints of the shelf, which look as swatches of them came out.
    pub fn tubes(&self) -> Tubes<'_> {
        let happened = self.pictures.iter().flat_map(|p| &p.happened);
        let mut made: Vec<_> = happened
            .filter_map(|h| match &h.what {
                What::Swatch(seen) => Some((h.at, seen)),
                _ => None,
            })
            .collect();
        made.sort_by_key(|(at, _)| *at);
        Tubes::of(&self.materials).seeing(made.into_iter().map(|(_, seen)| seen))
    }

    /// The paint of the shelf that is lightest where it hides.
    pub fn lightest_paint(&self) -> Option<Mix> {
        self.lightest(&self.tubes())
    }

    /// What the coat of a step lies on.
    fn lies_on(&self, p: usize, tubes: &Tubes, step: Option<&str>) -> Result<Inside, Fault> {
        let picture = &self.pictures[p];
        let i = step.map(|id| picture.step_called(id)).transpose()?;
        picture.under(tubes, i).map_err(|e| Fault::new("", e))
    }

    /// Places on the shelf of the paints a mix may be made of: read over two cards, not put away, without
    /// flakes (whose colour changes with the light), and not the one that a stand-in is looked for.
    fn paints_but(&self, tubes: &Tubes, look: &Look) -> Vec<usize> {
        let lacked = |id: &str| matches!(look, Look::Like(like) if like == id);
        let shelf = self.materials.iter().enumerate();
        shelf
            .filter(|(_, m)| m.kind == MaterialKind::Paint && !m.archived && !lacked(&m.id))
            .filter(|(_, m)| m.line != Some(Line::Iridescent) && m.composition.solids() > 0.0)
            .filter(|(i, _)| tubes.is_read(*i))
            .map(|(i, _)| i)
            .collect()
    }

    /// The paint of the shelf that is lightest where it hides.
    fn lightest(&self, tubes: &Tubes) -> Option<Mix> {
        let paints = self.paints_but(tubes, &Look::Neutral).into_iter();
        let over_black = |i: &usize| {
            let drawdown = self.materials[*i].drawdown;
            drawdown.map_or(0.0, |d| Lab::of(d.over_black).l)
        };
        paints
            .max_by(|a, b| over_black(a).total_cmp(&over_black(b)))
            .map(|i| Mix::one(self.materials[i].id.as_str()))
    }

    /// Place on the shelf of the clear medium `id`.
    fn clear(&self, id: &str) -> Result<usize, Fault> {
        let place = self.materials.iter().position(|m| m.id == id);
        let fits = |i: &usize| {
            let m = &self.materials[*i];
            m.kind == MaterialKind::Medium && m.composition.solids() > 0.0
        };
        let why = || Fault::new("medium", format!("\"{id}\" is no medium of the shelf"));
        place.filter(fits).ok_or_else(why)
    }
}

fn film(wet_um: f64) -> Result<f64, Fault> {
    WetFilm::try_new(wet_um).map(WetFilm::get).map_err(|e| Fault::new("wet_film_um", e))
}
