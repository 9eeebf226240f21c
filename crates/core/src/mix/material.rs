//! What stands on the shelf.

use super::composition::Composition;
use super::pigment::{
    Lightfastness, colour_index_names, is_hue, lightfastness, poison_in, poisonous,
};
use super::swatch::{Drawdown, Swatch, Tint};
use crate::quantity::{Density, Factor, Pace, Range, Share};
use crate::words::words;
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};

/// What a material is for. The drying model needs only its composition; rules need its kind.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum MaterialKind {
    /// Ordinary or slow-drying paint (told apart by its slow volatile).
    Paint,
    /// Clear medium or glazing liquid.
    Medium,
    /// Retarder: keeps paint open.
    Retarder,
    /// Plain water.
    Water,
    /// Primer for the ground.
    Primer,
    /// Water-borne varnish, which bonds with the paint.
    Varnish,
    /// Varnish carried in solvent, which can be removed.
    SolventVarnish,
    /// Another kind, as the studio names it: computed by its numbers alone.
    Other(String),
}

impl MaterialKind {
    /// The kinds with a name of their own, as written in a studio document.
    pub const NAMED: [(&'static str, MaterialKind); 7] = [
        ("paint", Self::Paint),
        ("medium", Self::Medium),
        ("retarder", Self::Retarder),
        ("water", Self::Water),
        ("primer", Self::Primer),
        ("varnish", Self::Varnish),
        ("solvent_varnish", Self::SolventVarnish),
    ];

    /// Kinds that shelves have and that no rule asks for: their words, and what painters call them.
    pub const OF_NO_RULE: [(&'static str, &'static str); 1] = [("flow_aid", "Flow aid")];

    /// What painters call it; a kind of the studio's own is called by its own word.
    pub fn said(&self) -> &str {
        match self {
            Self::Paint => "Paint",
            Self::Medium => "Medium",
            Self::Retarder => "Retarder",
            Self::Water => "Water",
            Self::Primer => "Primer",
            Self::Varnish => "Water-borne varnish",
            Self::SolventVarnish => "Solvent varnish",
            Self::Other(word) => {
                Self::OF_NO_RULE.iter().find(|(own, _)| own == word).map_or(word, |(_, said)| *said)
            }
        }
    }

    /// The kind for a word of a studio document.
    pub fn from_word(word: &str) -> Self {
        Self::NAMED
            .into_iter()
            .find(|(name, _)| *name == word)
            .map_or_else(|| Self::Other(word.to_owned()), |(_, kind)| kind)
    }

    /// The word in a studio document.
    pub fn word(&self) -> &str {
        match self {
            Self::Other(word) => word,
            known => {
                Self::NAMED.iter().find(|(_, kind)| kind == known).map_or("other", |(name, _)| name)
            }
        }
    }
}

words! {
    /// The line a paint belongs to.
    Line {
        /// Thick artists' paint.
        Heavy = "heavy",
        /// Pourable artists' paint.
        Fluid = "fluid",
        /// Student grade: weaker and more transparent.
        Student = "student",
        /// Slow-drying paint.
        Slow = "slow",
        /// Ink-thin paint.
        Airbrush = "airbrush",
        /// Metallic or iridescent paint.
        Iridescent = "iridescent",
    }
}

words! {
    /// How much a paint hides.
    Opacity {
        /// The layer below shows through.
        Transparent = "transparent",
        /// Between the two.
        SemiOpaque = "semi_opaque",
        /// It covers.
        Opaque = "opaque",
    }
}

words! {
    /// The sheen a clear coat dries to.
    Finish {
        /// Deepens and saturates.
        Gloss = "gloss",
        /// Between gloss and matte.
        Satin = "satin",
        /// Scatters light, lightens darks.
        Matte = "matte",
    }
}

impl Line {
    /// What painters call it.
    pub const fn said(self) -> &'static str {
        match self {
            Self::Heavy => "Heavy",
            Self::Fluid => "Fluid",
            Self::Student => "Student",
            Self::Slow => "Slow-drying",
            Self::Airbrush => "Airbrush",
            Self::Iridescent => "Iridescent",
        }
    }
}

impl Opacity {
    /// What painters call it.
    pub const fn said(self) -> &'static str {
        match self {
            Self::Transparent => "Transparent",
            Self::SemiOpaque => "Semi-opaque",
            Self::Opaque => "Opaque",
        }
    }
}

impl Finish {
    /// What painters call it.
    pub const fn said(self) -> &'static str {
        match self {
            Self::Gloss => "Gloss",
            Self::Satin => "Satin",
            Self::Matte => "Matte",
        }
    }
}

/// An amount that was there at a moment; what was laid since is taken off.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
pub struct Stock {
    /// How much there was [ml].
    pub ml: f64,
    /// When.
    pub at: DateTime<Utc>,
}

/// A material with the numbers the computation uses.
#[derive(Debug, Clone, PartialEq)]
pub struct Material {
    /// Name of the material within its studio.
    pub id: String,
    /// What the painter calls it.
    pub name: String,
    /// What it is for.
    pub kind: MaterialKind,
    /// Solids, water and slow volatile by volume, and the pace.
    pub composition: Composition,
    /// Polymer alone, volume fraction of the wet material; at most the solids.
    pub binder: Option<f64>,
    /// Density [g/ml].
    pub density_g_ml: Option<f64>,
    /// A colour to draw it with where its readings are not known.
    pub swatch: Option<Swatch>,
    /// How it looks over a white and a black card.
    pub drawdown: Option<Drawdown>,
    /// How strong it is in white; beside its look over the two cards.
    pub tint: Option<Tint>,
    /// Where these readings come from, when not from where its numbers do.
    pub colour_source: Option<String>,
    /// The line a paint belongs to.
    pub line: Option<Line>,
    /// How much it hides.
    pub opacity: Option<Opacity>,
    /// The sheen of a medium or varnish.
    pub finish: Option<Finish>,
    /// Pigments by Colour Index Generic Name.
    pub pigments: Vec<String>,
    /// What can hurt, in plain words.
    pub hazards: Option<String>,
    /// Most retarder a mix with it stands [-, by volume], when its label says less than usual.
    pub most_retarder: Option<f64>,
    /// Most water a mix with it stands on a sealed surface [-, by volume], likewise.
    pub most_water: Option<f64>,
    /// How volatile its slow volatile is beside propylene glycol [-]; as it when not said.
    pub slow_volatility: Option<f64>,
    /// What touch tests taught of its own pace: a factor on it. Not kept: learned anew from the tests.
    pub learned: Option<Factor>,
    /// How much there is of it.
    pub stock: Option<Stock>,
    /// Where its numbers come from.
    pub source: Option<String>,
    /// Put away: kept for the coats it was used in, not offered any more.
    pub archived: bool,
}

/// Slow volatile from which a paint counts as slow-drying [-, by volume]. [memory]
const SLOW_FROM: f64 = 0.20;

/// Slow volatile and solids of what acts as a retarder, whatever it is called: at least the one, at most the
/// other [-, by volume]. [memory]
const RETARDS: (f64, f64) = (0.30, 0.15);

/// What is said of a pigment that is a poison.
const POISONOUS: &str = "poisonous as dust or spray";
/// What can hurt about a varnish in solvent.
const SOLVENT: &str = "Solvent: flammable, harmful to breathe. Ventilate, keep flame and spark away, wear a suitable \
                       respirator, read the safety data sheet.";
/// What can hurt about retarder.
const GLYCOL: &str = "Glycol: keep it off skin and eyes; read the safety data sheet.";

/// Pigments that hardly scatter, by Colour Index Generic Name. [memory]
const CLEAR_PIGMENTS: [&str; 7] = ["PB15", "PB15:3", "PB29", "PG7", "PG36", "PV19", "PY150"];

/// One number of a material that may be left open: its name in the formats, where it may lie, and
/// how it is read.
pub type OpenNumber = (&'static str, &'static Range, fn(&Material) -> Option<f64>);

/// How volatile the slow volatile may be beside propylene glycol [-]. [practice] From a coalescent
/// that hardly leaves to one that leaves as fast as water.
const VOLATILITY: Range = Range {
    name: "volatility",
    unit: "",
    min: 0.05,
    max: 20.0,
    spoken: 1.0,
    source: "[practice] a coalescent that hardly leaves to one as fast as water",
};

impl Material {
    /// Its numbers that may be left open: what is checked, bounded and told of them is taken from
    /// here.
    pub const NUMBERS: &[OpenNumber] = &[
        ("binder", Share::RANGE, |m| m.binder),
        ("density_g_ml", Density::RANGE, |m| m.density_g_ml),
        ("most_retarder", Share::RANGE, |m| m.most_retarder),
        ("most_water", Share::RANGE, |m| m.most_water),
        ("slow_volatility", &VOLATILITY, |m| m.slow_volatility),
    ];

    /// Its composition, as the film is followed with it.
    pub fn makes(&self) -> Composition {
        let book = self.composition.with_volatility(self.slow_volatility.unwrap_or(1.0));
        let Some(learned) = self.learned else { return book };
        let range = Pace::RANGE;
        let pace = (book.pace() * learned.median()).clamp(range.min, range.max);
        let known = book.known_within(learned.sd);
        Pace::try_new(pace).map_or(known, |pace| known.with_pace(pace))
    }

    /// A material of which only the composition is known.
    pub fn new(
        id: impl Into<String>,
        name: impl Into<String>,
        kind: MaterialKind,
        composition: Composition,
    ) -> Self {
        Self {
            id: id.into(),
            name: name.into(),
            kind,
            composition,
            binder: None,
            density_g_ml: None,
            swatch: None,
            drawdown: None,
            tint: None,
            colour_source: None,
            line: None,
            opacity: None,
            finish: None,
            pigments: Vec::new(),
            hazards: None,
            most_retarder: None,
            most_water: None,
            slow_volatility: None,
            learned: None,
            stock: None,
            source: None,
            archived: false,
        }
    }

    /// Whether it is slow-drying paint.
    pub fn is_slow_paint(&self) -> bool {
        self.kind == MaterialKind::Paint
            && (self.composition.glycol() >= SLOW_FROM || self.line == Some(Line::Slow))
    }

    /// Whether it acts as a retarder: it is called one, or it is mostly slow volatile.
    pub fn retards(&self) -> bool {
        let (slow, solids) = RETARDS;
        self.kind == MaterialKind::Retarder
            || (self.composition.glycol() >= slow && self.composition.solids() <= solids)
    }

    /// Whether it dries slowly: slow-drying paint, or a medium with as much slow volatile.
    pub fn is_slow(&self) -> bool {
        self.is_slow_paint() || (self.composition.glycol() >= SLOW_FROM && !self.retards())
    }

    /// Whether it takes two to three coats to hide what one strong coat would: student grade, or
    /// transparent.
    pub fn is_weak_paint(&self) -> bool {
        self.kind == MaterialKind::Paint
            && (self.line == Some(Line::Student) || self.opacity == Some(Opacity::Transparent))
    }

    /// Whether nearly all it does to light is to take it away: said to be transparent, or made of such pigments.
    pub fn hardly_scatters(&self) -> bool {
        let named = self.colour_index();
        let clear = |ci: &String| CLEAR_PIGMENTS.contains(&ci.as_str());
        self.opacity.map_or_else(
            || !named.is_empty() && named.iter().all(clear),
            |opacity| opacity == Opacity::Transparent,
        )
    }

    /// Whether its readings over two cards leave open how strong it is in a mix: a paint without white in it.
    pub fn wants_tint(&self) -> bool {
        self.kind == MaterialKind::Paint
            && !self.colour_index().iter().any(|ci| ci.starts_with("PW"))
    }

    /// Its pigments by Colour Index Generic Name, however they are written.
    fn colour_index(&self) -> Vec<String> {
        self.pigments.iter().flat_map(|said| colour_index_names(said)).collect()
    }

    /// How it stands light: as the least lightfast of its pigments; `None` when one of them is not known, or
    /// none is said.
    pub fn lightfastness(&self) -> Option<Lightfastness> {
        let known: Option<Vec<_>> = self.pigments.iter().map(|ci| lightfastness(ci)).collect();
        known?.into_iter().max()
    }

    /// Where its colour comes from, in the painter's words.
    pub fn colour_from(&self) -> Option<&str> {
        self.colour_source.as_deref().or(self.source.as_deref())
    }

    /// What can hurt about it, in plain words: what its painter noted, and what is known of such a thing.
    pub fn hurts(&self) -> Option<String> {
        let noted = self.hazards.as_deref().filter(|text| !text.trim().is_empty());
        // A note that names the poison itself needs no other.
        let says = |text: &str| text.contains(POISONOUS) || poison_in(text).is_some();
        let poison = self.toxic_pigment().filter(|_| !noted.is_some_and(says)).map(|pigment| {
            format!(
                "{pigment} is {POISONOUS}: never dry-sand or spray it; read the safety data sheet."
            )
        });
        let of_kind = match self.kind {
            _ if noted.is_some() => None,
            MaterialKind::SolventVarnish => Some(SOLVENT),
            MaterialKind::Retarder => Some(GLYCOL),
            _ => None,
        };
        let said: Vec<&str> = [noted, poison.as_deref(), of_kind].into_iter().flatten().collect();
        (!said.is_empty()).then(|| said.join(" "))
    }

    /// What in it makes its dust or spray poisonous, in words: a pigment it lists or its name says, or
    /// what the painter wrote about its hazards.
    pub fn toxic_pigment(&self) -> Option<String> {
        let in_name = colour_index_names(&self.name);
        let mut named = self.colour_index().into_iter().chain(in_name);
        let pigment = named.find_map(|ci| Some(format!("{ci} ({})", poisonous(&ci)?)));
        let worded = || {
            let texts = self.pigments.iter().map(String::as_str).chain([self.name.as_str()]);
            let element = texts.filter(|text| !is_hue(text)).find_map(poison_in)?;
            Some(format!("{element}, by the name {}", self.name))
        };
        let noted = || {
            let element = poison_in(self.hazards.as_deref()?)?;
            Some(format!("{element}, as noted of {}", self.name))
        };
        pigment.or_else(worded).or_else(noted)
    }
}
