//! What is asked and said of colours.

use crate::formats::{Hex, PartDoc, mix_doc, read_mix};
use serde::{Deserialize, Serialize};
use ulvek_core::colour::{Found, Lab, Patch, Spot, SwatchRead};
use ulvek_core::mix::{Drawdown, Swatch, SwatchSeen};
use ulvek_core::quantity::{Checked, Fault};
use ulvek_core::studio::{
    ColourAsked, CupColours, Look, MatchAsked, Matched, MixedValue, Rung, StringAsked,
};
use utoipa::ToSchema;
use uuid::Uuid;

/// A cup whose colour is asked about.
#[derive(Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ColourAsk {
    /// What is in it, parts by volume.
    pub mix: Vec<PartDoc>,
    /// Wet film of a coat [um].
    pub wet_film_um: f64,
    /// The step it is for: its colour is shown on what that will be laid on; the next coat's without one.
    #[serde(default)]
    pub step: Option<String>,
    /// How it should look on the picture in the end, `#rrggbb`.
    #[serde(default)]
    #[schema(value_type = Option<String>)]
    pub wanted: Option<Hex>,
}

/// What is seen over one ground with no coat, one, two and so on.
#[derive(Serialize, ToSchema)]
pub struct RungOut {
    /// Lightness of the ground (L*).
    pub value: f64,
    /// What is seen, `#rrggbb`.
    pub seen: Vec<String>,
}

/// What a coat of a cup looks like, dry.
#[derive(Serialize, ToSchema)]
pub struct ColourOut {
    /// The cards themselves, white and black, `#rrggbb`.
    pub cards: [String; 2],
    /// Over a white card, `#rrggbb`.
    pub over_white: String,
    /// Over a black card, `#rrggbb`.
    pub over_black: String,
    /// On the picture, with no coat, one, two and so on.
    pub face: RungOut,
    /// Contrast ratio of one coat: how much of the ground it hides; from 0.98 it hides it.
    pub covers: f64,
    /// Coats until what it is laid on no longer shows; `null` when it never hides that.
    #[schema(required)]
    pub hides_in: Option<usize>,
    /// The same over values of an underpainting, dark to light.
    pub ladder: Vec<RungOut>,
    /// How many coats come nearest to what is wanted.
    #[schema(required)]
    pub nearest: Option<NearestOut>,
    /// What is not known of its colours, a sentence for each material.
    pub untold: Vec<String>,
    /// Where its colours come from, a sentence for each source.
    pub sources: Vec<String>,
    /// The last swatch that was made of its paints: the colours start from it.
    #[schema(required)]
    pub seen: Option<SeenOut>,
}

/// How many coats come nearest to a colour.
#[derive(Serialize, ToSchema)]
pub struct NearestOut {
    /// How many; none when every coat leads away from it.
    pub coats: usize,
    /// How far they are from it (CIEDE2000).
    pub apart: f64,
    /// The same in words.
    pub said: String,
}

/// A mix that is looked for. One of `colour`, `like` and `neutral` says what it should look like.
#[derive(Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MatchAsk {
    /// This colour, `#rrggbb`, on what the coat is laid on.
    #[serde(default)]
    #[schema(value_type = Option<String>)]
    pub colour: Option<Hex>,
    /// The same as this material of the shelf, over white and over black.
    #[serde(default)]
    pub like: Option<String>,
    /// Take the cast out of what is seen now.
    #[serde(default)]
    pub neutral: bool,
    /// Clear medium of the shelf it is a glaze in; opaque without one.
    #[serde(default)]
    pub medium: Option<String>,
    /// Wet film of the coat [um].
    pub wet_film_um: f64,
    /// The step it is for; the next coat without one.
    #[serde(default)]
    pub step: Option<String>,
}

/// A mix that comes near.
#[derive(Serialize, ToSchema)]
pub struct FoundOut {
    /// Whole parts by volume.
    pub mix: Vec<PartDoc>,
    /// What is seen of it, `#rrggbb`.
    pub seen: String,
    /// How far it is from the wish (CIEDE2000); of a cast, what is left of it.
    pub apart: f64,
    /// What that means to the eye.
    pub said: &'static str,
    /// That it takes paints of several lines, in words.
    #[schema(required)]
    pub lines: Option<String>,
}

/// The mixes that come nearest.
#[derive(Serialize, ToSchema)]
pub struct MatchOut {
    /// What the coat is laid on, `#rrggbb`.
    pub under: String,
    /// What was wished for, `#rrggbb`.
    pub wanted: String,
    /// Nearest first.
    pub found: Vec<FoundOut>,
}

/// A row of values that is asked for.
#[derive(Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ValuesAsk {
    /// The dark end.
    pub dark: Vec<PartDoc>,
    /// The light end; the lightest paint of the shelf when nothing is in it.
    #[serde(default)]
    pub light: Vec<PartDoc>,
    /// How many, 3 to 9.
    pub count: usize,
    /// A photograph whose values they are to have; evenly spaced without.
    #[serde(default)]
    pub photograph: Option<Uuid>,
    /// Wet film of a coat [um].
    pub wet_film_um: f64,
    /// The step they are for.
    #[serde(default)]
    pub step: Option<String>,
}

/// One mixed value.
#[derive(Serialize, ToSchema)]
pub struct ValueOut {
    /// Parts of 100.
    pub mix: Vec<PartDoc>,
    /// What is seen of it, `#rrggbb`.
    pub seen: String,
    /// Its lightness (L*).
    pub l: f64,
    /// Whether it belongs to the early passes.
    pub early: bool,
    /// What it stands for in the photograph.
    #[schema(required)]
    pub patch: Option<PatchOut>,
    /// How much of it to mix for a coat on its share of the picture [ml], with a photograph.
    #[schema(required)]
    pub ml: Option<f64>,
    /// Whether the two ends reach the lightness that is wanted.
    pub reached: bool,
}

/// One value of a reference picture.
#[derive(Serialize, ToSchema)]
pub struct PatchOut {
    /// Its mean colour, `#rrggbb`.
    pub colour: String,
    /// Its lightness (L*).
    pub l: f64,
    /// Share of the area it covers.
    pub share: f64,
}

impl ColourAsk {
    /// The question; whether it can be answered is the core's to say.
    pub fn read(&self) -> ColourAsked {
        ColourAsked {
            mix: read_mix(&self.mix),
            wet_film_um: self.wet_film_um,
            step: self.step.clone(),
            wanted: self.wanted.map(|hex| hex.0),
        }
    }
}

impl RungOut {
    fn of(rung: &Rung) -> Self {
        let rounded = (rung.value * 10.0).round() / 10.0;
        Self { value: rounded, seen: rung.seen.iter().map(|s| s.to_hex()).collect() }
    }
}

impl ColourOut {
    /// What a coat looks like.
    pub fn of(colours: CupColours) -> Self {
        let (white, black) = Drawdown::CARDS;
        Self {
            cards: [white.to_hex(), black.to_hex()],
            over_white: colours.over_white.to_hex(),
            over_black: colours.over_black.to_hex(),
            face: RungOut::of(&colours.face),
            covers: colours.covers,
            hides_in: colours.hides_in,
            ladder: colours.ladder.iter().map(RungOut::of).collect(),
            nearest: colours.nearest.map(|(coats, apart)| NearestOut {
                coats,
                apart,
                said: Lab::said_apart(apart).to_owned(),
            }),
            untold: colours.untold,
            sources: colours.sources,
            seen: colours.seen.as_ref().map(SeenOut::of),
        }
    }
}

impl MatchAsk {
    /// The question, when it says what is looked for.
    pub fn read(&self) -> Option<MatchAsked> {
        let look = match (self.colour, &self.like, self.neutral) {
            (Some(Hex(colour)), None, false) => Look::Colour(colour),
            (None, Some(like), false) => Look::Like(like.clone()),
            (None, None, true) => Look::Neutral,
            _ => return None,
        };
        Some(MatchAsked {
            look,
            medium: self.medium.clone(),
            wet_film_um: self.wet_film_um,
            step: self.step.clone(),
        })
    }
}

impl MatchOut {
    /// What was found.
    pub fn of(matched: &Matched) -> Self {
        let found = |found: &Found| FoundOut {
            mix: mix_doc(&found.mix),
            seen: found.seen.first().map_or(Swatch([0; 3]), |lab| lab.on_screen().0).to_hex(),
            apart: found.apart,
            said: Lab::said_apart(found.apart),
            lines: found.said_of_lines(),
        };
        Self {
            under: matched.under.to_hex(),
            wanted: matched.wanted.to_hex(),
            found: matched.found.iter().map(found).collect(),
        }
    }
}

impl ValuesAsk {
    /// The question; whether it can be answered is the core's to say.
    pub fn read(&self, patches: Option<Vec<Patch>>) -> StringAsked {
        StringAsked {
            dark: read_mix(&self.dark),
            light: read_mix(&self.light),
            count: self.count,
            patches,
            wet_film_um: self.wet_film_um,
            step: self.step.clone(),
        }
    }
}

impl ValueOut {
    /// A value.
    pub fn of(mixed: &MixedValue) -> Self {
        let value = &mixed.value;
        Self {
            mix: mix_doc(&value.mix),
            seen: value.seen.on_screen().0.to_hex(),
            l: value.seen.l,
            early: value.early,
            patch: mixed.patch.map(|patch| PatchOut {
                colour: patch.colour.to_hex(),
                l: patch.l,
                share: patch.share,
            }),
            ml: mixed.ml,
            reached: mixed.reached,
        }
    }
}

/// A swatch as it came out, beside what was predicted of it.
#[derive(Serialize, ToSchema)]
pub struct SeenOut {
    /// Its mix, parts by volume.
    pub mix: Vec<PartDoc>,
    /// Its wet film [um].
    pub wet_film_um: f64,
    /// What was predicted over the white and over the black card, `#rrggbb`.
    pub predicted: [String; 2],
    /// What was seen over them.
    pub seen: [String; 2],
    /// How far the two are apart, the worse of both (CIEDE2000).
    pub apart: f64,
    /// The same in words.
    pub said: String,
}

impl SeenOut {
    fn of(swatch: &SwatchSeen) -> Self {
        let (predicted, seen) = (swatch.predicted, swatch.seen);
        let between = |a: Swatch, b: Swatch| Lab::of(a).apart(Lab::of(b));
        let apart = between(predicted.0, seen.0).max(between(predicted.1, seen.1));
        Self {
            mix: mix_doc(&swatch.mix),
            wet_film_um: swatch.wet_film_um,
            predicted: [predicted.0.to_hex(), predicted.1.to_hex()],
            seen: [seen.0.to_hex(), seen.1.to_hex()],
            apart,
            said: Lab::said_apart(apart).to_owned(),
        }
    }
}

/// A place of a photograph.
#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Place {
    at: String,
}

/// The places of a photographed swatch.
#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Places {
    white: String,
    black: String,
    over_white: String,
    over_black: String,
    tint: Option<String>,
}

/// A place, as shares of width and height.
pub type At = (f64, f64);
/// The bare white and black halves, the paint over each, and its tint.
pub type Pointed = ([At; 4], Option<At>);

/// The colour of a place.
#[derive(Serialize, ToSchema)]
pub struct SpotOut {
    /// Its mean colour, `#rrggbb`.
    pub colour: String,
    /// How far its points lie from that in the mean (CIEDE2000).
    pub spread: f64,
}

/// A paint read from a photographed swatch.
#[derive(Serialize, ToSchema)]
pub struct SwatchOut {
    /// Over the usual white card, `#rrggbb`.
    pub over_white: String,
    /// Over the usual black card, `#rrggbb`.
    pub over_black: String,
    /// In white, `#rrggbb`, when that was pointed at.
    #[schema(required)]
    pub tint: Option<String>,
    /// How uneven it is where it was read, the largest (CIEDE2000, mean of a spot).
    pub uneven_by: f64,
    /// Whether that is too uneven to be read there.
    pub uneven: bool,
}

impl Place {
    /// The place, as shares of width and height.
    pub fn read(&self) -> Checked<(f64, f64)> {
        place("at", &self.at)
    }
}

impl Places {
    /// The places, as shares of width and height.
    pub fn read(&self) -> Checked<Pointed> {
        Ok((
            [
                place("white", &self.white)?,
                place("black", &self.black)?,
                place("over_white", &self.over_white)?,
                place("over_black", &self.over_black)?,
            ],
            self.tint.as_deref().map(|tint| place("tint", tint)).transpose()?,
        ))
    }
}

fn place(field: &str, said: &str) -> Checked<(f64, f64)> {
    let share = |text: &str| text.trim().parse().ok().filter(|s| (0.0..=1.0).contains(s));
    let both = said.split_once(',').and_then(|(x, y)| Some((share(x)?, share(y)?)));
    let why = "give a share of the width and one of the height, each from 0 to 1: 0.31,0.5";
    both.ok_or_else(|| Fault::new(field, why))
}

impl SpotOut {
    /// A spot.
    pub fn of(spot: &Spot) -> Self {
        Self { colour: spot.colour.to_hex(), spread: spot.spread }
    }
}

impl SwatchOut {
    /// A swatch.
    pub fn of(read: &SwatchRead) -> Self {
        Self {
            over_white: read.over_white.to_hex(),
            over_black: read.over_black.to_hex(),
            tint: read.tint.map(Swatch::to_hex),
            uneven_by: read.uneven_by,
            uneven: read.is_uneven(),
        }
    }
}
