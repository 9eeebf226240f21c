//! What stands on the shelf.

use crate::film::Composition;

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

/// A colour to draw a material with until its spectrum is known: sRGB, 8 bits each.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Swatch(pub [u8; 3]);

impl Swatch {
    /// Reads `#rrggbb`.
    pub fn from_hex(text: &str) -> Option<Self> {
        let digits = text.strip_prefix('#')?;
        if digits.len() != 6 || !digits.bytes().all(|b| b.is_ascii_hexdigit()) {
            return None;
        }
        let value = u32::from_str_radix(digits, 16).ok()?;
        let [_, r, g, b] = value.to_be_bytes();
        Some(Self([r, g, b]))
    }

    /// Writes `#rrggbb`.
    pub fn to_hex(self) -> String {
        let [r, g, b] = self.0;
        format!("#{r:02x}{g:02x}{b:02x}")
    }
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
    /// Solids, water and slow volatile by volume.
    pub composition: Composition,
    /// Polymer alone, volume fraction of the wet material; at most the solids.
    pub binder: Option<f64>,
    /// Density [g/ml].
    pub density_g_ml: Option<f64>,
    /// A colour to draw it with.
    pub swatch: Option<Swatch>,
}

/// Slow volatile from which a paint counts as slow-drying [-, by volume]. [memory]
const SLOW_FROM: f64 = 0.20;

impl Material {
    /// Whether it is slow-drying paint.
    pub fn is_slow_paint(&self) -> bool {
        self.kind == MaterialKind::Paint && self.composition.glycol() >= SLOW_FROM
    }
}
