//! Colours as a painter gives them: of a screen, or read over two cards.

use crate::quantity::Range;

/// A colour of a screen: sRGB, 8 bits each.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
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

/// A paint over a white and a black card.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Drawdown {
    /// Its colour over the white card.
    pub over_white: Swatch,
    /// Its colour over the black card.
    pub over_black: Swatch,
    /// Dry thickness [um].
    pub dry_um: f64,
    /// The cards themselves, white and black.
    pub cards: (Swatch, Swatch),
}

/// A paint in white, laid until it hides: what tells how strong it is in a mix.
#[derive(Debug, Clone, PartialEq)]
pub struct Tint {
    /// How it looks.
    pub colour: Swatch,
    /// Parts of white to one of paint, by volume as they come from the tube [-].
    pub white_parts: f64,
    /// The white, by its name on the shelf.
    pub white: String,
}

impl Tint {
    /// Parts of white where none are said [-]. [practice]
    pub const USUAL_PARTS: f64 = 10.0;
    /// Parts of white that may be said [-].
    pub const PARTS: &'static Range = &Range {
        name: "the white of a tint",
        unit: "parts",
        min: 1.0,
        max: 200.0,
        spoken: 1.0,
        source: "[practice] half and half to a hint of colour",
    };
}

impl Drawdown {
    /// Dry thickness where none is said [um]; docs/formats/studio.md.
    pub const USUAL_DRY_UM: f64 = 30.0;
    /// Cards where none are said; docs/formats/studio.md.
    pub const CARDS: (Swatch, Swatch) = (Swatch([0xf4, 0xf3, 0xf0]), Swatch([0x1c, 0x1c, 0x1e]));
    /// Dry thickness that may be said [um].
    pub const DRY: &'static Range = &Range {
        name: "the dry thickness of a swatch",
        unit: "µm",
        min: 0.5,
        max: 2000.0,
        spoken: 1.0,
        source: "[practice] an airbrushed veil to a gel",
    };

    /// One at the usual thickness over the usual cards.
    pub const fn usual(over_white: Swatch, over_black: Swatch) -> Self {
        Self { over_white, over_black, dry_um: Self::USUAL_DRY_UM, cards: Self::CARDS }
    }
}
